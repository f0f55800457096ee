package modes

import (
	"math"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/system"
)

// LiveRow is what stays live when one thing is off.
type LiveRow struct {
	Off  string     `json:"off" doc:"What is opened, in words"`
	Live []LiveWire `json:"live"`
	Dead []string   `json:"dead" doc:"Wires that are dead then"`
	On   []string   `json:"on" doc:"All wires and parts that are live then, those of the maker too, by id"`
}

// liveV is above how many volts, at 12 V, something counts as live. Source: from memory.
const liveV = 2.0

// liveIn are the wires and parts with voltage on them in a state: where that has no solution, all that a source reaches.
func liveIn(d *design.Design, s *design.State) []string {
	if s.Solved.Volts == nil {
		reached := d.LiveWires()
		return lit(d, func(w system.Wire) bool { return len(reached[w.ID]) > 0 })
	}
	return lit(d, func(w system.Wire) bool {
		from, to := circuit.Had(s.Solved.At(w.From.Node())), circuit.Had(s.Solved.At(w.To.Node()))
		return math.Max(from, to) > liveV*d.Facts.N
	})
}

// lit are the feeds and signals that are live, and the parts that they come to.
func lit(d *design.Design, live func(system.Wire) bool) []string {
	wires, parts := []string{}, []string{}
	for _, w := range d.System.Wires {
		if w.Role != system.Feed && w.Role != system.Signal || w.Run == "g1" || !live(w) {
			continue
		}
		wires = append(wires, w.ID)
		for _, id := range []string{w.From.Component, w.To.Component} {
			if !slices.Contains(parts, id) {
				parts = append(parts, id)
			}
		}
	}
	return append(wires, parts...)
}

// LiveWire is a wire that is live, and from where.
type LiveWire struct {
	Wire string   `json:"wire"`
	From []string `json:"from"`
}

// WorkRow is what to open so that a place is dead: every source that reaches it.
type WorkRow struct {
	Place string   `json:"place"`
	Open  []string `json:"open" doc:"All of these; empty where it cannot be made dead by them"`
	From  []string `json:"from" doc:"The sources that reach it otherwise"`
}

// opener is something that can be opened.
type opener struct{ id, label string }

func openers(d *design.Design) []opener {
	list := []opener{}
	if !d.Start.Unfused {
		list = append(list, opener{"f1", "F1 taken out"})
	}
	if !d.Aux.Unfused {
		list = append(list, opener{"f2", "F2 taken out"})
	}
	if d.Wired() {
		list = append(list, opener{"f3", "F3 taken out"})
	}
	if _, ok := d.OwnFeed(); ok {
		list = append(list, opener{"f5", "F5 taken out"})
	}
	if d.Plugged() {
		list = append(list, opener{"x1", "X1 unplugged"})
	}
	if d.Facts.Extras.Isolator != job.NoIsolator {
		list = append(list, opener{"q1", "Q1 open"})
	}
	if d.FedHouse() {
		list = append(list, opener{"f4", "F4 taken out"}, opener{"q3", "Q3 open"})
	}
	list = append(list, opener{"coupling", d.Is.Name + " taken out or open"})
	if d.Relayed() {
		list = append(list, opener{"k1", "K1 taken out"})
	}
	if d.Ahead() {
		list = append(list, opener{"k2", "K2 taken out"})
		if !d.ByVoltage() {
			list = append(list, opener{"f6", "F6 taken out"})
		}
	}
	list = append(list, opener{"start-minus", "start battery's negative off"}, opener{"aux-minus", "aux battery's negative off"})
	if d.Facts.Day.SolarW.Value > 0 {
		list = append(list, opener{"solar", "solar isolated"})
	}
	if s, ok := d.Mains(); ok {
		list = append(list, opener{"mains", s.Name + " unplugged"})
	}
	return append(list, opener{"engine", "engine off, key out"})
}

// feeds are the wires of the live map in the order of the run.
func feeds(d *design.Design) []system.Wire {
	list := []system.Wire{}
	for _, w := range d.System.Wires {
		if w.Role == system.Feed && !w.Existing || w.Role == system.Signal && w.Run != "g1" {
			list = append(list, w)
		}
	}
	return list
}

func liveRows(d *design.Design) []LiveRow {
	rows := []LiveRow{}
	for _, o := range openers(d) {
		row := LiveRow{Off: o.label, Live: []LiveWire{}, Dead: []string{}}
		live := d.LiveWires(o.id)
		row.On = lit(d, func(w system.Wire) bool { return len(live[w.ID]) > 0 })
		for _, w := range feeds(d) {
			if from, ok := live[w.ID]; ok {
				row.Live = append(row.Live, LiveWire{w.Name, from})
			} else {
				row.Dead = append(row.Dead, w.Name)
			}
		}
		rows = append(rows, row)
	}
	return rows
}

// workRows find, for every wire, the fewest things to open so that it is dead: fuses
// before batteries.
func workRows(d *design.Design) []WorkRow {
	openers := openers(d)
	rows := []WorkRow{}
	for _, w := range feeds(d) {
		row := WorkRow{Place: w.Name, Open: []string{}, From: d.LiveWires()[w.ID]}
		if row.From == nil {
			row.From = []string{}
		}
		for count := 1; count <= 3 && len(row.Open) == 0; count++ {
			choose(len(openers), count, func(pick []int) bool {
				ids, labels := []string{}, []string{}
				for _, i := range pick {
					ids, labels = append(ids, openers[i].id), append(labels, openers[i].label)
				}
				if _, live := d.LiveWires(ids...)[w.ID]; !live {
					row.Open = labels
				}
				return len(row.Open) > 0
			})
		}
		rows = append(rows, row)
	}
	return rows
}

// choose goes through the ways to pick count of n in order, until found says so.
func choose(n, count int, found func([]int) bool) {
	pick := make([]int, count)
	var from func(at, next int) bool
	from = func(at, next int) bool {
		if at == count {
			return found(pick)
		}
		for i := next; i < n; i++ {
			pick[at] = i
			if from(at+1, i+1) {
				return true
			}
		}
		return false
	}
	from(0, 0)
}
