package export

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/modes"
)

func (s *sheet) modes() {
	s.AddPage()
	s.heading("Modes")
	var rows [][]string
	for _, m := range s.pack.Modes.Rows {
		rows = append(rows, []string{m.Switch, m.Key, m.Engine, m.Sun, known(m, s.joined(m)), known(m, m.Charging), m.Lamp, m.Verdict,
			strings.TrimSpace(m.Why + " " + m.Interlock)})
	}
	s.table([]column{{"Switch", 1.3}, {"Key", 1.45}, {"Engine", 1.3}, {"Sun", 0.7}, {"Joined", 1.15}, {"Charging", 1.45}, {"Lamp", 1.2},
		{"", 1.2}, {"Why; what prevents it", 3.9}}, rows)
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

// owner is the card for whoever drives it.
func (s *sheet) owner() {
	s.AddPage()
	s.heading("For the owner")
	s.para("", titleOf(s.pack)+". "+s.pack.Plan.Needs.Says)
	s.Ln(1)
	s.para("B", "What the lamp means")
	for _, l := range lamps(s.pack.Modes) {
		s.para("", "•  "+l)
	}
	s.Ln(1)
	s.para("B", "Never")
	for _, n := range nevers(s.pack.Modes) {
		s.para("", "•  "+n)
	}
	s.Ln(1)
	s.para("B", "Have it looked at")
	for _, text := range []string{"after four weeks, when lugs have settled, and then once a year",
		"when two hours of driving gained nothing: see the readings in this pack",
		"when a fuse opened: find why before it is replaced, and never fit a larger one",
		"when the battery is to be another kind: the charger's setting, and perhaps the coupling, change with it"} {
		s.para("", "•  "+text)
	}
}

// lamps are what the coupling's lamp shows, with when.
func lamps(m modes.Modes) []string {
	when := map[string][]string{}
	for _, r := range m.Rows {
		at := "key " + r.Key + ", engine " + r.Engine
		if !slices.Contains(when[r.Lamp], at) {
			when[r.Lamp] = append(when[r.Lamp], at)
		}
	}
	var list []string
	for _, lamp := range slices.Sorted(maps.Keys(when)) {
		list = append(list, fmt.Sprintf("%s: %s", lamp, strings.Join(when[lamp], "; ")))
	}
	return list
}

// nevers are the combinations that are forbidden.
func nevers(m modes.Modes) []string {
	var list []string
	for _, r := range m.Rows {
		text := fmt.Sprintf("the key at %s and the engine %s: %s", r.Key, r.Engine, r.Why)
		if r.Switch != design.NoSwitch {
			text = r.Switch + " with " + text
		}
		if r.Verdict == "forbidden" && !slices.Contains(list, text) {
			list = append(list, text)
		}
	}
	if len(list) == 0 {
		list = []string{"nothing that a switch or the key can do harms it"}
	}
	return list
}
