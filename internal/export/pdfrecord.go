package export

import (
	"cmp"
	"fmt"
	"strings"

	"epitrope/core/harness"
	"epitrope/core/plan"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// standIns are what stands in for answers that nobody gave, as a row.
func standIns(p plan.Plan) [][]string {
	if len(p.StandIns) == 0 {
		return nil
	}
	return [][]string{{"Stands in for what nobody answered", strings.Join(p.StandIns, "; ")}}
}

// answers are what the design stands on, and how each is known: what nobody looked at is
// said to be assumed.
func (s *sheet) answers() {
	s.AddPage()
	s.heading("What it stands on")
	var rows [][]string
	for _, f := range s.pack.Plan.Facts {
		from := string(f.Origin)
		if f.Known != "" && f.Origin != working.Assumed {
			from += ", " + f.Known
		}
		if f.Origin == working.Assumed && f.Why != "" {
			from += ": " + f.Why
		}
		rows = append(rows, []string{f.Label, f.Text, from})
	}
	s.table([]column{{"Answer", 2}, {"", 1.6}, {"How it is known", 2.6}}, rows)
}

// record is what is written down while it is done: crimps, what was covered, what is open.
func (s *sheet) record() {
	s.heading("Crimps")
	var rows [][]string
	for _, l := range s.pack.Parts.Lines {
		if l.Kind == "connector" {
			rows = append(rows, []string{l.What, unit.Plain(l.Count, "", 0), "", "", ""})
		}
	}
	s.table([]column{{"End", 2.4}, {"How many", 0.8}, {"Tool and die", 1.4}, {"Pulled, how", 1.2}, {"By", 0.6}}, rows)
	s.heading("Seen before it was covered")
	rows = nil
	for _, w := range s.pack.Leads {
		if w.RouteM > harness.LaidM {
			rows = append(rows, []string{w.Number, w.From.Name + " to " + w.To.Name, "", ""})
		}
	}
	s.table([]column{{"Wire", 0.6}, {"Way", 2.6}, {"Photograph of its joints and grommets", 2}, {"By", 0.6}}, rows)
	s.heading("Open items")
	rows = nil
	for _, item := range s.openItems() {
		rows = append(rows, []string{"□", item, ""})
	}
	s.table([]column{{"", 0.2}, {"", 3.6}, {"Cleared by, on", 1.6}}, rows)
}

// openItems are what is forgotten most: they are cleared before it is handed over.
func (s *sheet) openItems() []string {
	list := []string{"strap or clamp of the aux battery", "cover over its plus, boots on every terminal",
		"every earth point tightened and protected", "lids, trims and panels back", "duct ends and holes sealed"}
	for _, w := range s.pack.Found.Wires {
		if w.Fate == "open" {
			list = append(list, "traced, or listed as not known: "+w.Name)
		}
	}
	for _, n := range s.pack.Plan.Notes {
		if n.Severity == "stop" {
			list = append(list, fmt.Sprintf("design: %s", n.Text))
		}
	}
	return append(list, "________________________________", "________________________________")
}

// charging is how all that charges the aux battery is set, and the monitor, with room for what is read.
func (s *sheet) charging() {
	s.heading("All that charges the aux battery")
	volts := func(v *float64) string {
		switch {
		case v == nil:
			return "not said"
		case *v == 0:
			return "rests"
		}
		return unit.Text(*v, "V", 1)
	}
	var rows [][]string
	for _, c := range s.pack.Plan.Charging.Sources {
		rows = append(rows, []string{c.Name, volts(c.AbsorptionV), volts(c.FloatV), cmp.Or(c.ColdStop, "need not be"),
			cmp.Or(c.SetAt, "not said"), c.ReadBack, ""})
	}
	s.table([]column{{"By", 1.3}, {"Absorption", 0.9}, {"Float", 0.7}, {"In frost stopped by", 1}, {"Set at", 1.5}, {"Read back", 1.9},
		{"Read", 0.6}}, rows)
	rows = nil
	for _, l := range s.pack.Plan.Charging.Monitor {
		rows = append(rows, []string{l.Name, l.Wants, cmp.Or(l.Is, "not said"), ""})
	}
	if len(rows) > 0 {
		s.table([]column{{"Monitor", 1.4}, {"Wanted", 1.6}, {"Set to", 1}, {"Read", 1}}, rows)
	}
}
