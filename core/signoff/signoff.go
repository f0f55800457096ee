// Package signoff is what has to be there before an installation is signed for: the gates of a finished job, which of them
// are open, and what closes each. A gate is computed from the design, its proof, and what was done, read, photographed and
// said; nothing is ticked off as a gate.
//
// Source: the list is common practice, no source.
package signoff

import (
	"slices"
	"strings"

	"epitrope/core/design"
	"epitrope/core/procedure"
	"epitrope/core/prove"
)

// State is how a gate stands.
type State string

// The states of a gate.
const (
	Open   State = "open"
	Closed State = "closed"
	Waived State = "waived"
)

// Gate is one thing that has to be so.
type Gate struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	State  State    `json:"state" enum:"open,closed,waived"`
	Open   []string `json:"open" doc:"What is open, a sentence each"`
	Closes string   `json:"closes" doc:"What closes it"`
	Sheet  string   `json:"sheet" enum:"section,survey,steps,proof" doc:"Where that is done"`
	Stop   bool     `json:"stop,omitempty" doc:"It cannot be waived"`
	Asks   Asks     `json:"asks,omitempty" enum:"statement,photo" doc:"What it takes besides"`
	Said   *Said    `json:"said,omitempty" doc:"Who waived it or stated it, and why or what"`
}

// Asks is what a gate takes that no sheet has.
type Asks string

// What a gate may ask for.
const (
	Statement Asks = "statement" // somebody says what was done
	Photo     Asks = "photo"
)

// Said is what somebody said at a gate.
type Said struct {
	Gate   string `json:"gate"`
	Waives bool   `json:"waives,omitempty" doc:"It is let pass although it is open; otherwise a statement that closes it"`
	By     string `json:"by"`
	Text   string `json:"text" doc:"The reason, or what was done"`
	At     string `json:"at" doc:"RFC 3339"`

	Waits         bool   `json:"waits,omitempty" doc:"It holds once somebody countersigns it"`
	Countersigned string `json:"countersigned,omitempty" doc:"Who stands for it"`
}

// Under is who stands under something that somebody did, and perhaps somebody else countersigned.
func Under(by, countersigned string) string {
	if countersigned == "" {
		return by
	}
	return by + ", countersigned by " + countersigned
}

// Done is what was done on a job until now.
type Done struct {
	Steps    map[string]bool // by step: it is ticked
	Findings prove.Findings
	Photos   map[string]int // by what they are tied to: how many
	Said     []Said         // in the order in which it came: of two on a gate the later holds

	// What waits for a countersignature, and so closes nothing yet: by step, and by reading.
	StepsWait, ReadingsWait map[string]bool
}

// asked is what the gates are computed from.
type asked struct {
	d     *design.Design
	p     *prove.Proof
	steps []procedure.Step
	done  Done
}

// Gates are the gates of a job, in the order of the work.
func Gates(d *design.Design, steps []procedure.Step, done Done) []Gate {
	a := &asked{d, prove.Of(d), steps, done}
	list := []Gate{}
	for _, g := range gates {
		found := g.find(a)
		if found == nil {
			continue
		}
		out := Gate{ID: g.id, Name: g.name, Open: found.open, Closes: g.closes, Sheet: g.sheet, Stop: found.stop, Asks: g.asks}
		if out.Open == nil {
			out.Open = []string{}
		}
		out.State = map[bool]State{true: Closed, false: Open}[len(found.open) == 0]
		a.heard(&out)
		list = append(list, out)
	}
	return list
}

// heard is a gate with what was said at it.
func (a *asked) heard(g *Gate) {
	for _, s := range a.done.Said {
		if s.Gate != g.ID || strings.TrimSpace(s.By) == "" || strings.TrimSpace(s.Text) == "" {
			continue
		}
		switch {
		case s.Waives && g.Stop: // it is refused
		case s.Waits:
			if g.State == Open && (s.Waives || g.Asks == Statement) {
				g.Said = &s
				g.Open = append(slices.Clone(g.Open), "What "+s.By+" said of it waits for a countersignature.")
			}
		case s.Waives && len(g.Open) > 0:
			g.State, g.Said = Waived, &s
		case !s.Waives && g.Asks == Statement:
			g.State, g.Open, g.Said = Closed, []string{}, &s
		}
	}
}

// Left are the gates that are open.
func Left(list []Gate) []Gate {
	return slices.DeleteFunc(slices.Clone(list), func(g Gate) bool { return g.State != Open })
}

// Shown are what a photograph may show that is no step and no part, by what it is tied to.
var Shown = []struct{ Tied, Name string }{
	{"before", "As it was before"}, {"covered", "Hidden joints, before they were covered"}, {"labels", "Labels"}, {"finished", "Finished"},
}

// Names are what photographs may be tied to, by id: what they show, the gates, the steps and the parts.
func Names(d *design.Design, steps []procedure.Step) map[string]string {
	names := map[string]string{}
	for _, c := range d.System.Components {
		names[c.ID] = c.Name
	}
	for _, s := range steps {
		names[s.ID] = s.Title
	}
	for _, g := range gates {
		names[g.id] = g.name
	}
	for _, shown := range Shown {
		names[shown.Tied] = shown.Name
	}
	return names
}
