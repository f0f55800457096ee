package export

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"epitrope/core/harness"
	"epitrope/core/unit"
	"epitrope/core/working"
)

func mm(v float64) string {
	if v == 0 {
		return ""
	}
	return unit.Plain(v, "mm", 0)
}

func (s *sheet) wires() {
	s.AddPage()
	s.heading("Wires")
	var rows [][]string
	for _, w := range s.pack.Leads {
		rows = append(rows, []string{w.Number, strings.TrimSpace(w.From.Name+" "+w.From.Terminal) + "\n" + w.From.Lug,
			strings.TrimSpace(w.To.Name+" "+w.To.Terminal) + "\n" + w.To.Lug,
			w.Size + ", " + w.Colour, fmt.Sprintf("%.2f m", w.CutM), strings.TrimSpace(fmt.Sprintf("shrink %s  %s", mm(w.Sleeve),
				conduit(w.Conduit, w.Hole)))})
	}
	s.table([]column{{"Wire", 0.7}, {"From, with its end", 2.4}, {"To, with its end", 2.4}, {"Cable", 1.5}, {"Cut", 0.8}, {"Over it", 1.8}},
		rows)
	s.heading("Labels")
	rows = nil
	for _, w := range s.pack.Leads {
		rows = append(rows, []string{w.From.Label, w.To.Label})
	}
	s.table([]column{{"At its beginning", 1}, {"At its end", 1}}, rows)
}

func conduit(inner, hole float64) string {
	text := ""
	if inner > 0 {
		text = "conduit " + mm(inner)
	}
	if hole > 0 {
		text += "  hole " + mm(hole)
	}
	return text
}

func (s *sheet) cuts() {
	s.heading("Cuts")
	var rows [][]string
	for _, c := range s.pack.Cuts {
		from := c.From
		if from == "" {
			from = fmt.Sprintf("new cable, %s %s", c.Size, c.Colour)
		}
		var cuts []string
		for _, f := range c.Cuts {
			cuts = append(cuts, fmt.Sprintf("%s %.2f m", f.Wire, f.LengthM))
		}
		left := ""
		if c.From != "" {
			left = fmt.Sprintf("%.2f m", c.LeftM)
		}
		rows = append(rows, []string{from, fmt.Sprintf("%.2f m", c.LengthM), strings.Join(cuts, "; "), left})
	}
	s.table([]column{{"From", 2}, {"Length", 0.8}, {"Cut, in turn", 3.5}, {"Left", 0.7}}, rows)
}

func (s *sheet) parts() {
	list := s.pack.Parts
	s.heading("Parts")
	var rows [][]string
	for _, l := range list.Lines {
		price := ""
		if l.Sum != nil {
			price = fmt.Sprintf("%.2f %s, %s", *l.Sum, l.Currency, s.day(l.PricedOn))
		}
		order := ""
		if l.InKit {
			order = "in the kit: check it"
		}
		if l.Order > 0 {
			order = strings.TrimSpace(unit.Plain(l.Order, "", 2) + " " + l.Unit)
		}
		rows = append(rows, []string{"□", l.What, strings.TrimSpace(unit.Plain(l.Count, "", 2) + " " + l.Unit), l.For, price, order})
	}
	s.table([]column{{"", 0.3}, {"What", 3}, {"How many", 0.9}, {"For", 1.8}, {"Price, of what date", 1.6}, {"Order", 0.8}}, rows)
	for _, sum := range list.Sums {
		s.para("B", fmt.Sprintf("%.2f %s", sum.Sum, sum.Currency))
	}
	s.para("", fmt.Sprintf("%d of %d lines have no price in the parts book.", list.Unpriced, len(list.Lines)))
	for _, k := range list.Kits {
		s.para("", fmt.Sprintf("%s, a kit: %.2f %s, %s. %s", k.Name, k.Price, k.Currency, s.day(k.PricedOn), k.Says))
	}
	counted := slices.ContainsFunc(list.Lines, func(l harness.Line) bool { return l.Stock != nil })
	if counted && len(s.pack.Waits) > 0 {
		s.heading("Not in stock, and what waits for it")
		rows = nil
		for _, w := range s.pack.Waits {
			rows = append(rows, []string{"□", w.Part, strings.TrimSpace(unit.Plain(w.Order, "", 2) + " " + w.Unit), w.Title})
		}
		s.table([]column{{"", 0.3}, {"Part", 3}, {"How many", 0.9}, {"First needed for", 3.2}}, rows)
	}
	s.heading("Tools and consumables")
	for _, t := range slices.Concat(list.Tools, list.Supplies) {
		s.para("", "□  "+t)
	}
}

func (s *sheet) steps() {
	s.AddPage()
	s.heading(fmt.Sprintf("Steps, about %.1f h", s.pack.Hours))
	var rows [][]string
	when := map[string]string{}
	for _, slot := range s.pack.Schedule {
		when[slot.Step] = fmt.Sprintf("day %d\n%02d:%02d", slot.Day, int(slot.From), int(math.Round((slot.From-math.Floor(slot.From))*60))%60)
	}
	for i, st := range s.pack.Steps {
		title := st.Title
		if st.Hold {
			title = "HOLD POINT: " + title
		}
		what := title + "\n" + st.What
		if st.Covered {
			what += "\nBefore panels and floor close."
		}
		if st.Caution != "" {
			what += "\nCaution: " + st.Caution
		}
		for _, c := range st.Checks {
			what += "\n□ " + c
		}
		rows = append(rows, []string{fmt.Sprintf("□ %d\n%s", i+1, when[st.ID]), what, st.Where, strings.TrimSpace(st.Figure + "\n" + st.Tool),
			""})
	}
	s.table([]column{{"", 0.7}, {"What", 4.2}, {"Where", 1.6}, {"Should be; with", 1.8}, {"Signed", 0.9}}, rows)
}

// built is what was fitted otherwise than designed, with what the rules say of it.
func (s *sheet) built() {
	b := s.pack.Built
	if len(b.Changes) == 0 {
		return
	}
	s.heading("As built")
	s.para("", b.Summary)
	var rows [][]string
	for _, c := range b.Changes {
		rows = append(rows, []string{c.Label, c.From, c.To})
	}
	s.table([]column{{"What", 2}, {"As designed", 1.4}, {"As built", 1.4}}, rows)
	for _, n := range b.New {
		s.para("", unit.Capital(n.Severity)+", new: "+n.Text+" "+n.Why)
	}
	for _, n := range b.Gone {
		s.para("", "No longer so: "+n.Text)
	}
}

// found is what was there before: traced or listed as not known, and what becomes of it.
func (s *sheet) found() {
	var rows [][]string
	for _, w := range s.pack.Found.Wires {
		var says []string
		for _, f := range w.Findings {
			says = append(says, f.Text)
		}
		rows = append(rows, []string{w.Name, w.Fate, strings.Join(append(says, w.Why), " "), ""})
	}
	for _, g := range s.pack.Found.Gear {
		rows = append(rows, []string{g.Name, g.Fate, g.Why, ""})
	}
	if len(rows) == 0 {
		return
	}
	s.AddPage()
	s.heading("As found")
	s.table([]column{{"What", 1.4}, {"In the new design", 0.8}, {"Seen, and why", 3.4}, {"Where it is now", 0.9}}, rows)
}

func (s *sheet) settings() {
	s.AddPage()
	s.charging()
	set := s.pack.Plan.Settings
	if !set.Charger {
		return
	}
	s.heading("Settings for this battery")
	s.para("", fmt.Sprintf("%s, set by %s, for %s.", set.Card, set.Way, set.Wants.Battery))
	s.Ln(1)
	var rows [][]string
	for _, l := range set.List {
		mark := ""
		if l.ID == set.Right {
			mark = "this one"
		}
		float := "rests"
		if l.FloatV > 0 {
			float = unit.Text(l.FloatV, "V", 1)
		}
		rows = append(rows, []string{mark, l.Label, unit.Text(l.AbsorptionV, "V", 1), float, l.How})
	}
	s.table([]column{{"", 0.8}, {"Setting", 1.6}, {"Absorption", 1}, {"Float", 0.8}, {"How", 3}}, rows)
	rows = nil
	for _, l := range set.Leads {
		rows = append(rows, []string{"Lead " + l.Lead, l.Joined, l.Reads, ""})
	}
	if len(rows) > 0 {
		s.table([]column{{"Measured at handover", 1.2}, {"Joined", 1}, {"A meter against minus shows", 2}, {"Read", 1}}, rows)
	}
}

func (s *sheet) readings() {
	s.heading("Expected readings")
	if len(s.pack.Plan.Stops()) > 0 {
		s.para("", "None: the plan has what stops it, and what is not to be built has no readings to expect.")
		return
	}
	if s.pack.Proof.Unsteady {
		s.para("", "With the engine running it comes to no stand at any speed that is asked for: nothing is expected there.")
	}
	for _, at := range s.pack.Proof.Stations {
		var rows [][]string
		for _, r := range s.pack.Proof.Readings {
			if r.Station == at.ID && r.Of == "" {
				rows = append(rows, []string{r.What, r.Where(), s.pack.Proof.Expected(r), ""})
			}
		}
		s.para("", at.Name+". "+unit.Capital(strings.Join(at.Setup, "; "))+".")
		s.table([]column{{"Reading", 2}, {"Where", 2.6}, {"Expected", 1.3}, {"Read", 1}}, rows)
	}
	s.para("", "What is expected is a band: within it are 95 of 100 sound installations. Readings narrow what follows: enter them as "+
		"they are taken.")
}

// filled is a formula with its numbers, and what it comes to in its own units where that is written in others beside it.
func filled(f working.Figure, units unit.Units) string {
	if f.Filled == "" || units.Say(f.Text) == f.Text {
		return f.Filled
	}
	return f.Filled + " = " + f.Text
}

// workings is the annex: every figure with its formula, what went in and where it came from.
func (s *sheet) workings() {
	s.AddPage()
	s.heading("Workings")
	units := s.units
	if !units.IsMetric() {
		s.para("", "Formulas, and what went into them, stand in the metric units that they are declared in.")
	}
	s.units = unit.Metric
	defer func() { s.units = units }()
	var rows [][]string
	for _, key := range slices.Sorted(maps.Keys(s.pack.Plan.Figures)) {
		f := s.pack.Plan.Figures[key]
		var inputs []string
		for _, in := range f.Inputs {
			inputs = append(inputs, fmt.Sprintf("%s %s (%s, %s)", in.Letter, in.Text, in.Why, in.Origin))
		}
		name := f.Name
		if part, _, ok := strings.Cut(key, "."); ok {
			name = strings.ToUpper(part) + ": " + name
		}
		rows = append(rows, []string{units.Say(name), units.Say(f.Text), strings.TrimSpace(f.Formula + "\n" + filled(f, units)),
			strings.Join(inputs, "; "), string(f.Source)})
	}
	s.table([]column{{"Figure", 1.5}, {"", 0.7}, {"Formula, filled in", 2}, {"What went in", 3.2}, {"Source", 1.6}}, rows)
}
