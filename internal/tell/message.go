package tell

import (
	"fmt"
	"strings"
	"time"

	"epitrope/internal/store"
)

// What is told, in the order in which it stands in a message, and its heading for one and for several.
var kinds = []struct{ what, one, more string }{
	{"failed", "failed", "failed"},
	{"due", "due", "due"},
	{"mentioned", "mention", "mentions"},
	{"asked", "question", "questions"},
	{"signed", "signed", "signed"},
}

// Item is something that is told.
type Item struct {
	What string    `json:"what"`
	Job  string    `json:"job"`
	Name string    `json:"name"` // of the job: 0003 Title
	Text string    `json:"text"`
	By   string    `json:"by,omitempty"`
	At   time.Time `json:"at"`
	Link string    `json:"link"`
}

// Message is all that one addressee is told at once.
type Message struct {
	ID       string    `json:"id"` // the same where it is sent again
	Workshop string    `json:"workshop"`
	Until    time.Time `json:"until"`
	Items    []Item    `json:"items"`
}

// most is how long a text is told.
const most = 300

func item(at string, h store.Happened) Item {
	text := strings.Join(strings.Fields(h.Said), " ")
	if r := []rune(text); len(r) > most {
		text = string(r[:most]) + " …"
	}
	name := fmt.Sprintf("%04d %s", h.Number, h.Title)
	return Item{What: h.Kind, Job: h.JobID, Name: strings.TrimSpace(name), Text: text, By: h.By, At: h.At.UTC(), Link: at + "/jobs/" +
		h.JobID}
}

// Subject says how much of what there is, the most urgent first.
func (m Message) Subject() string {
	var parts []string
	for _, k := range kinds {
		switch n := m.count(k.what); n {
		case 0:
		case 1:
			parts = append(parts, "1 "+k.one)
		default:
			parts = append(parts, fmt.Sprintf("%d %s", n, k.more))
		}
	}
	if len(parts) == 0 {
		return m.Workshop + ": a test of this address"
	}
	return m.Workshop + ": " + strings.Join(parts, ", ")
}

func (m Message) count(what string) (n int) {
	for _, i := range m.Items {
		if i.What == what {
			n++
		}
	}
	return n
}

// headings are what stands over the items of a kind.
var headings = map[string]string{"failed": "Failed", "due": "Due or overdue", "mentioned": "You are named", "asked": "Asked",
	"signed": "Signed"}

// Text is the message as plain text.
func (m Message) Text(zone *time.Location) string {
	var b strings.Builder
	for _, k := range kinds {
		if m.count(k.what) == 0 {
			continue
		}
		fmt.Fprintf(&b, "%s\n\n", headings[k.what])
		for _, i := range m.Items {
			if i.What != k.what {
				continue
			}
			fmt.Fprintf(&b, "  %s\n  %s", i.Name, i.Text)
			if i.By != "" {
				fmt.Fprintf(&b, " (%s, %s)", i.By, i.At.In(zone).Format("2 Jan 2006, 15:04"))
			}
			fmt.Fprintf(&b, "\n  %s\n\n", i.Link)
		}
	}
	if len(m.Items) == 0 {
		b.WriteString("This address is on the workshop's list. There is nothing to tell at present.\n\n")
	}
	fmt.Fprintf(&b, "%s has this address on its list of who is told what concerns the workshop. Its owner takes it off under Settings.\n",
		m.Workshop)
	return b.String()
}
