package export

import (
	"fmt"
	"strings"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/owner"
	"epitrope/core/unit"
)

// card is something small to be cut out and kept in the vehicle: a title and lines.
type card struct {
	title string
	lines []string
}

// cards is a sheet of cards, four to a page: for the owner, for the charger's setting, for
// whoever works on it, and a tag for everything that is temporary.
func (s *sheet) cards() {
	list := []card{s.ownerCard()}
	if s.pack.Plan.Settings.Charger {
		list = append(list, s.settingCard())
	}
	list = append(list, s.modesCard(), s.liveCard())
	list = append(list, tags(s.pack.Document, s.day)...)
	for i, c := range list {
		if i%4 == 0 {
			s.AddPage()
			s.Bookmark("Cards to cut out", 0, -1)
		}
		_, h := s.GetPageSize()
		w, tall := s.width()/2, (h-2*marginMM-14)/2
		s.card(c, marginMM+float64(i%2)*w, marginMM+8+float64(i/2%2)*tall, w, tall)
	}
}

// card writes one, within its box; what does not fit is said to be in the pack.
func (s *sheet) card(c card, x, y, w, h float64) {
	s.decoration(func() {
		s.SetLineWidth(0.2)
		s.SetDashPattern([]float64{2, 2}, 0)
		s.Rect(x, y, w, h, "D")
		s.SetDashPattern([]float64{}, 0)
	})()
	const inset, lead = 4.0, 3.9
	at, end := y+inset, y+h-inset
	full := false
	write := func(kind, style string, size, lead float64, text string) {
		s.SetFont(regular, style, size)
		s.in(kind, func() {
			for _, row := range s.SplitText(s.say(text), w-2*inset) {
				if full {
					return
				}
				if full = at+2*lead > end; full {
					row = "… the rest is in the pack"
				}
				s.show(func() {
					s.SetXY(x+inset, at)
					s.CellFormat(w-2*inset, lead, row, "", 0, "L", false, 0, "")
				})
				at += lead
			}
		})
	}
	s.in("Sect", func() {
		write("H3", "B", 11, 5, c.title)
		write("P", "", 7.5, 3.6, fmt.Sprintf("%s, %s", titleOf(s.pack), named(s.pack)))
		at += 1.5
		for _, l := range c.lines {
			if full {
				return
			}
			write("P", "", small, lead, l)
			at += 0.8
		}
	})
}

// mostNevers are as many as a card has room for, the first that are this installation's own.
const mostNevers = 4

// ownerCard is the booklet in a few lines, to be kept in the vehicle.
func (s *sheet) ownerCard() card {
	o, c := s.pack.Owner, card{title: "For the owner", lines: []string{}}
	if len(s.pack.Plan.Stops()) > 0 {
		return card{c.title, []string{"Not to be built so: the workshop changes it first."}}
	}
	for _, l := range o.Lamps {
		c.lines = append(c.lines, "•  "+l.When+": "+l.Then)
	}
	for _, n := range o.Never[:min(mostNevers, len(o.Never))] {
		c.lines = append(c.lines, "•  Never "+n+".")
	}
	trip := []string{o.Trip}
	if o.Trip == "" {
		trip = nil
	}
	if c := s.pack.Signed; c != nil {
		if said := owner.Proven(c.Values()); len(said) > 0 {
			trip = append(trip, unit.Say("Proven on %s: %s", c.At.Format(s.pack.Dates), lower(said[0])))
		}
	}
	return card{c.title, append(append(c.lines, trip...), "Two hours of driving that gained nothing: have it looked at. A fuse "+
		"that opened is replaced "+
		"by the same rating, once it is known why. The owner's pages say the rest.")}
}

// lower is a sentence that another one leads to.
func lower(text string) string { return strings.ToLower(text[:1]) + text[1:] }

func (s *sheet) settingCard() card {
	set := s.pack.Plan.Settings
	c := card{title: "Charger's setting", lines: []string{set.Card + ", for " + set.Wants.Battery}}
	for _, l := range set.List {
		if l.ID == set.Right {
			c.lines = append(c.lines, fmt.Sprintf("%s: absorption %s. %s", l.Label, unit.Text(l.AbsorptionV, "V", 1), l.How))
		}
	}
	for _, l := range set.Leads {
		c.lines = append(c.lines, fmt.Sprintf("Lead %s %s: a meter against minus shows %s. Read: ______", l.Lead, l.Joined, l.Reads))
	}
	return card{c.title, append(c.lines, "Another kind of battery wants another setting, and perhaps another coupling.")}
}

// modesCard is the mode table in a line for each position, without sun and mains.
func (s *sheet) modesCard() card {
	c := card{title: "What happens when", lines: []string{}}
	for _, m := range s.pack.Modes.Rows {
		if m.Sun == "yes" || m.Mains == "yes" {
			continue
		}
		does := "apart"
		switch {
		case m.Unknown:
			does = "not known"
		case m.Rule == "mode.hunts" || m.Rule == "mode.starved":
			does = "begins and stops, again and again"
		case s.joined(m) && m.Charging:
			does = "joined, charging"
		case s.joined(m):
			does = "joined"
		case m.Charging:
			does = "charging"
		}
		at := fmt.Sprintf("key %s, engine %s", m.Key, m.Engine)
		if m.Switch != design.NoSwitch {
			at = m.Switch + ", " + at
		}
		if m.Verdict == "forbidden" {
			does = "NEVER: " + does
		}
		c.lines = append(c.lines, fmt.Sprintf("•  %s: %s", at, does))
	}
	return c
}

func (s *sheet) liveCard() card {
	c := card{title: "Before you work on it", lines: []string{"More than one source feeds these cables. To work on:"}}
	for _, w := range s.pack.Modes.Work {
		c.lines = append(c.lines, "•  "+w.Place+": "+strings.Join(w.Open, " and "))
	}
	return card{c.title, append(c.lines, "Negative first off and last on; insulated tools; measure before you touch.")}
}

// tags are what hangs on everything that is temporary.
func tags(doc job.Document, day func(string) string) []card {
	var list []card
	for _, row := range job.Rows(doc.Dates) {
		if row.Of.Kind == nil || *row.Of.Kind != job.TemporaryDate || row.Of.Done != nil {
			continue
		}
		due := "no date"
		if row.Of.Due != nil {
			due = day(*row.Of.Due)
		}
		list = append(list, card{"TEMPORARY", []string{line(row.Of.What, KindOf(row.Of)), "To be undone by: " + due, "Fuse taken out: ______",
			"By: ______   on: ______"}})
	}
	return list
}
