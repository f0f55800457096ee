package export

import (
	"slices"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/modes"
	"epitrope/core/owner"
	"epitrope/core/unit"
)

func (s *sheet) modes() {
	s.AddPage()
	s.heading("Modes")
	var rows [][]string
	for _, m := range s.pack.Modes.Rows {
		rows = append(rows, []string{m.Switch, m.Key, m.Engine, besides(m), known(m, s.joined(m)), known(m, m.Charging), m.Lamp, m.Verdict,
			strings.TrimSpace(m.Why + " " + m.Interlock)})
	}
	s.table([]column{{"Switch", 1.3}, {"Key", 1.45}, {"Engine", 1.3}, {"Sun, mains", 1.15}, {"Joined", 1.15}, {"Charging", 1.45},
		{"Lamp", 1.2}, {"", 1.2}, {"Why; what prevents it", 3.9}}, rows)
	s.heading("What stays live")
	rows = nil
	for _, l := range s.pack.Modes.Live {
		rows = append(rows, []string{l.Off, strings.Join(bySource(l.Live), "\n")})
	}
	s.table([]column{{"With this off", 1.3}, {"Still live", 4}}, rows)
	rows = nil
	for _, w := range s.pack.Modes.Work {
		rows = append(rows, []string{w.Place, strings.Join(w.Open, " and ")})
	}
	s.table([]column{{"To work on", 1.3}, {"Open all of these", 4}}, rows)
	s.livePictures()
}

// livePictures are the circuit with the key out, and with the engine running, with what is live thick.
func (s *sheet) livePictures() {
	for _, k := range []design.KeyState{design.KeyOut, design.Driving} {
		i := slices.IndexFunc(s.pack.Modes.Rows, func(m modes.Mode) bool {
			return m.Key == k.Key && m.Engine == k.Engine && besides(m) == "–"
		})
		if i < 0 {
			continue
		}
		m := s.pack.Modes.Rows[i]
		on := map[string]bool{}
		for _, id := range m.Live {
			on[id] = true
		}
		if on[s.pack.Drawing.Aux] {
			for _, id := range s.pack.Drawing.WithAux {
				on[id] = true
			}
		}
		title := unit.Say("Live with key %s, engine %s", m.Key, m.Engine)
		s.drawn(title, title+": what is live is drawn thick, what is dead faint", on)
	}
}

// besides is what gives besides the engine.
func besides(m modes.Mode) string {
	switch {
	case m.Sun == "yes":
		return "sun"
	case m.Mains == "yes":
		return "mains"
	}
	return "–"
}

// known is yes or no, or that nobody knows.
func known(m modes.Mode, is bool) string {
	if m.Unknown {
		return "not known"
	}
	return yes(is)
}

// joined says whether a line of the mode table joins the two batteries: a second machine's
// isolator joins it to the aux battery alone.
func (s *sheet) joined(m modes.Mode) bool {
	return m.Joined && s.pack.Plan.Coupling != string(coupling.SecondAlternator)
}

// bySource are wires that are live, those of the same sources together.
func bySource(live []modes.LiveWire) []string {
	var sources []string
	wires := map[string][]string{}
	for _, w := range live {
		from := strings.Join(w.From, " and ")
		if wires[from] == nil {
			sources = append(sources, from)
		}
		wires[from] = append(wires[from], w.Wire)
	}
	lines := make([]string, len(sources))
	for i, from := range sources {
		lines[i] = "from " + from + ": " + strings.Join(wires[from], ", ")
	}
	return lines
}

func yes(v bool) string {
	if v {
		return "yes"
	}
	return "–"
}

// owner is what whoever drives it is told.
func (s *sheet) owner() {
	o := s.pack.Owner
	s.AddPage()
	s.heading("For the owner")
	if len(s.pack.Plan.Stops()) > 0 {
		s.para("B", "This is a plan that is not to be built so. The workshop changes it first.")
		return
	}
	s.para("", titleOf(s.pack)+". "+o.Does)
	s.advice("What the lamp means", o.Lamps)
	s.advice("What to do when", o.When)
	s.listed("Never", o.Never)
	s.listed("On the first trip", o.Expect)
	if c := s.pack.Signed; c != nil {
		s.listed("What was proven on "+c.At.Format(s.pack.Dates)+" by "+c.By, owner.Proven(c.Values()))
	}
	s.listed("Have it looked at", o.Look)
}

// advice is a table of what is seen and what to do, or what it means.
func (s *sheet) advice(title string, list []owner.Advice) {
	s.Ln(2)
	s.para("B", title)
	var rows [][]string
	for _, a := range list {
		rows = append(rows, []string{a.When, unit.Capital(a.Then)})
	}
	s.table([]column{{"When", 1.3}, {"", 3}}, rows)
}

func (s *sheet) listed(title string, list []string) {
	s.Ln(2)
	s.para("B", title)
	for _, text := range list {
		s.para("", "•  "+unit.Capital(text))
	}
}
