package design

import (
	"slices"

	"epitrope/core/job"
	"epitrope/core/system"
)

// origin is a source of the live map, gone with what takes it away.
type origin struct {
	name     string
	at       system.Terminal
	removed  string // the opener that takes it away; "" none does
	ofEngine bool   // while the engine runs
}

func (d *Design) origins() []origin {
	list := []origin{
		{"start battery", term("start", "30"), "start-minus", false},
		{"aux battery", term("aux", "30"), "aux-minus", false},
	}
	if d.Is.OwnMachine {
		list = append(list, origin{"second alternator", term("second", "B+"), "engine", true})
	}
	if d.Is.Splits {
		list = append(list, origin{"alternator", term("alternator", "B+"), "engine", true})
	}
	if d.Facts.Day.SolarW.Value > 0 {
		plus, _ := d.SunEnds()
		list = append(list, origin{"solar", plus, "solar", false})
	}
	if s, ok := d.Mains(); ok {
		list = append(list, origin{s.Name, d.AuxBus(), "mains", false})
	}
	if d.Wired() {
		list = append(list, origin{"feed point", term("feed", "15"), "engine", true})
	}
	return list
}

// LiveWires lists the wires that are live with some things open, with their sources.
func (d *Design) LiveWires(open ...string) map[string][]string {
	live := map[string][]string{}
	if slices.Contains(open, "engine") && d.FromStud() && d.Facts.Arranged.FromLive == job.LiveRunning {
		open = append(slices.Clone(open), "o1") // it is dead with the engine off
	}
	if slices.Contains(open, "engine") && d.Ahead() && !d.feedPoint().Live(system.KeyOff, false) {
		open = append(slices.Clone(open), "k2")
	}
	for _, o := range d.origins() {
		if slices.Contains(open, o.removed) {
			continue
		}
		for _, wire := range d.System.Live(o.at, open...) {
			live[wire] = append(live[wire], o.name)
		}
	}
	return live
}
