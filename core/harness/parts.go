package harness

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strings"

	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Line is a line of the parts list.
type Line struct {
	Kind     string   `json:"kind"`
	What     string   `json:"what"`
	Count    float64  `json:"count"`
	Unit     string   `json:"unit" doc:"Empty for pieces"`
	For      string   `json:"for" doc:"What it is for: components and wires"`
	Of       []string `json:"of" doc:"Ids of those components and wires"`
	Part     string   `json:"part,omitempty" doc:"Of the workshop's book"`
	Price    *float64 `json:"price,omitempty" doc:"Of one, or of a metre"`
	Sum      *float64 `json:"sum,omitempty"`
	Currency string   `json:"currency,omitempty"`
	PricedOn string   `json:"pricedOn,omitempty"`
	Stock    *float64 `json:"stock,omitempty"`
	Counted  string   `json:"countedOn,omitempty"`
	InKit    bool     `json:"inKit,omitempty" doc:"Comes in the kit: held against this list, not ordered"`
	Order    float64  `json:"order" doc:"More than there is; all of it where nobody counted"`

	wants spec
}

// Sum is what the priced lines come to in one currency.
type Sum struct {
	Currency string  `json:"currency"`
	Sum      float64 `json:"sum"`
}

// List is everything that has to be in hand before the first panel comes off.
type List struct {
	Lines    []Line   `json:"lines"`
	Sums     []Sum    `json:"sums"`
	Unpriced int      `json:"unpriced" doc:"Lines without a price"`
	Kits     []Kit    `json:"kits" doc:"Of the workshop's book, for this coupling"`
	Tools    []string `json:"tools"`
	Supplies []string `json:"supplies" doc:"Consumables"`
}

// kindOf is under which kind of the book a component is looked for.
var kindOf = map[system.ComponentKind]string{
	system.KindFuse: "fuse", system.KindCharger: "charger", system.KindRelay: "relay", system.KindContactor: "contactor",
	system.KindPlug:       "plug",
	system.KindChangeover: "changeover", system.KindControl: "other", system.KindLamp: "other", system.KindIsolator: "other",
	system.KindSplitter: "other", system.KindSwitch: "other",
	system.KindShunt: "other", system.KindDisconnect: "other", system.KindAlternator: "other", system.KindBattery: "other",
}

// tally counts like things, in the order they first come.
type tally struct {
	lines []Line
	at    map[string]int
}

func (t *tally) add(kind, what string, wants spec, count float64, in string, of ...thing) {
	key := kind + "/" + what
	i, ok := t.at[key]
	if !ok {
		i = len(t.lines)
		t.at[key] = i
		t.lines = append(t.lines, Line{Kind: kind, What: what, Unit: in, Of: []string{}, wants: wants})
	}
	l := &t.lines[i]
	l.Count = math.Round((l.Count+count)*1000) / 1000
	for _, one := range of {
		if !slices.Contains(l.Of, one.id) {
			l.Of = append(l.Of, one.id)
			l.For = strings.TrimPrefix(l.For+", "+one.name, ", ")
		}
	}
}

// thing is what a line is for.
type thing struct{ id, name string }

// PartsList counts what a system and its wires need, priced and held against the stock of
// the workshop's book. Of cable as much is to be ordered as the cut list has to cut from new.
func PartsList(s *system.System, wires []Lead, book []parts.Item, cuts []Cut) List {
	t := tally{at: map[string]int{}}
	for _, c := range s.Components {
		if kind, ok := kindOf[c.Kind]; ok && !c.Existing {
			eachBought(c, func(what string, count float64, wants spec) { t.add(kind, what, wants, count, "", thing{c.ID, c.Name}) })
			t.beside(s, c)
		}
	}
	for _, w := range wires {
		size, of := w.one(), thing{w.ID, w.Number}
		t.add("cable", size+" "+w.Colour, spec{size: size, colour: w.Colour}, w.CutM*float64(w.Cables), "m", of)
		for _, e := range []End{w.From, w.To} {
			t.add("connector", e.Lug, spec{}, float64(w.Cables), "", of)
			if w.Role == string(system.Feed) && e.Kind == tubeLug && !fused(s, e) {
				t.add("other", unit.Say("terminal boot, insulating, for %s on %s", e.Stud, size), spec{}, float64(w.Cables), "", of)
			}
		}
		if w.Clip > 0 {
			t.add("other", unit.Say("P-clip, rubber-lined, %.0f mm", w.Clip), spec{}, math.Ceil(w.RouteM/clipEachM)+1, "", of)
		}
		t.add("other", unit.Say("heat shrink with adhesive, %.0f mm", w.Sleeve), spec{}, 2*sleeveM*float64(w.Cables), "m", of)
		if w.Conduit > 0 {
			t.add("other", unit.Say("corrugated conduit, %.0f mm", w.Conduit), spec{}, math.Ceil(w.RouteM*10)/10, "m", of)
		}
		if w.Hole > 0 {
			t.add("other", unit.Say("grommet for a %.0f mm hole", w.Hole), spec{}, 1, "", of)
		}
		t.add("other", "printed label", spec{}, 2, "")
	}
	out := List{Lines: t.lines, Sums: []Sum{}, Tools: tools(wires, s.Soldered), Supplies: supplies(wires, s.Soldered)}
	order := []string{"charger", "relay", "contactor", "selector", "changeover", "plug", "fuse", "holder", "cable", "connector", "other"}
	slices.SortStableFunc(out.Lines, func(a, b Line) int { return cmp.Compare(slices.Index(order, a.Kind), slices.Index(order, b.Kind)) })
	for i := range out.Lines {
		l := &out.Lines[i]
		l.priced(book)
		if l.Kind == "cable" {
			l.Order = fresh(cuts, l.wants)
			l.Stock = onReels(*l, book)
		}
	}
	out.Kits = out.kits(book)
	out.add()
	return out
}

// add sums the lines up, by currency.
func (l *List) add() {
	sums := map[string]float64{}
	l.Unpriced, l.Sums = 0, []Sum{}
	for _, line := range l.Lines {
		switch {
		case line.Sum != nil:
			sums[line.Currency] += *line.Sum
		case !line.InKit:
			l.Unpriced++
		}
	}
	for _, c := range slices.Sorted(maps.Keys(sums)) {
		l.Sums = append(l.Sums, Sum{c, math.Round(sums[c]*100) / 100})
	}
}

// onReels is the cable that was counted, on reels and as offcuts; nil where nobody counted.
func onReels(l Line, book []parts.Item) *float64 {
	var sum *float64
	for _, i := range book {
		if i.Stock != nil && l.is(i) {
			if sum == nil {
				sum = new(float64)
			}
			*sum += *i.Stock
		}
	}
	return sum
}

// fresh is how much of a cable a cut list takes from new.
func fresh(cuts []Cut, wants spec) float64 {
	sum := 0.0
	for _, c := range cuts {
		if c.From == "" && c.Size == wants.size && c.Colour == wants.colour {
			sum += c.LengthM
		}
	}
	return math.Round(sum*1000) / 1000
}

// beside is what comes with a component: a fuse's holder and a spare, what holds a battery down.
func (t *tally) beside(s *system.System, c system.Component) {
	of := thing{c.ID, c.Name}
	switch d := c.Device.(type) {
	case system.Fuse:
		if d.Family.Resets != protect.Never {
			return
		}
		holder := "holder for a " + d.Family.Label
		if c.ID == "f3" && s.Tapped() {
			holder = "tap holder for two blade fuses, with its lead"
		}
		t.add("holder", holder, spec{}, 1, "", of)
		what, _, wants := bought(c)
		spare := len(t.lines)
		t.add("fuse", what+", spare", wants, 1, "", of)
		if spare < len(t.lines) { // one for each rating
			return
		}
		t.lines[t.at["fuse/"+what+", spare"]].Count = 1
	case system.Bank, system.Member:
		t.add("other", "hold-down frame or strap for the aux battery", spec{}, 1, "", of)
	}
}

// fused says whether an end is at a fuse, whose holder covers it.
func fused(s *system.System, e End) bool {
	c, _ := s.Component(e.Component)
	return c.Kind == system.KindFuse
}

// clipEachM is how far apart clips are. Source: common practice, no source.
const clipEachM = 0.3

// sleeveM is the heat shrink on each end. Source: common practice, no source.
const sleeveM = 0.05

// priced finds the line in the book, with its price and what there is of it.
func (l *Line) priced(book []parts.Item) {
	l.Order = l.Count
	item, ok := find(*l, book)
	if !ok {
		return
	}
	l.Part, l.PricedOn, l.Counted, l.Currency = item.Name, item.PricedOn, item.CountedOn, item.Currency
	if item.Price != nil {
		price, sum := *item.Price, math.Round(*item.Price*l.Count*100)/100
		l.Price, l.Sum = &price, &sum
	}
	if item.Stock != nil {
		stock := *item.Stock
		l.Stock, l.Order = &stock, math.Max(0, math.Round((l.Count-stock)*1000)/1000)
	}
}

// tools are what has to be there, from what is made.
func tools(wires []Lead, soldered bool) []string {
	list := []string{"insulated spanners for battery posts and M6, M8 studs", "multimeter, clamp meter for DC",
		"memory saver where the vehicle wants one, or its codes"}
	dies := map[string]float64{} // barrels, with the copper in them
	for _, w := range wires {
		for _, e := range []End{w.From, w.To} {
			if e.Kind == tubeLug {
				dies[e.Barrel] = max(dies[e.Barrel], w.MM2)
			}
		}
	}
	if len(dies) > 0 {
		names := slices.SortedFunc(maps.Keys(dies), func(a, b string) int { return cmp.Or(cmp.Compare(dies[a], dies[b]), cmp.Compare(a, b)) })
		tool := "crimping tool with dies for "
		if soldered {
			tool = "soldering iron or flame for "
		}
		list = append(list, tool+strings.Join(names, ", ")+" tube lugs")
	}
	for _, w := range wires {
		if w.From.Kind == ferrule || w.To.Kind == ferrule {
			list = append(list, "ferrule crimper")
			break
		}
	}
	for _, w := range wires {
		if w.Hole > 0 {
			list = append(list, unit.Say("hole saw or step drill to %.0f mm, deburrer", w.Hole))
			break
		}
	}
	return append(list, "heat gun", "torque spanner", "draw wire, trim tools", "label printer", "camera")
}

func supplies(wires []Lead, soldered bool) []string {
	list := []string{"cable ties, two each metre", "sealant for holes", "corrosion protection for earth points and terminals",
		"contact brush and abrasive for bare metal", "electrical tape for what is put aside, never for joints"}
	if soldered {
		list = append(list, "solder and flux for electrical work", "clips for strain relief within 100 mm of every soldered end")
	}
	for _, w := range wires {
		if w.Hole > 0 {
			return append(list, "paint for drilled edges")
		}
	}
	return list
}
