package procedure

import (
	"slices"

	"epitrope/core/judge"
	"epitrope/core/section"
	"epitrope/core/system"
	"epitrope/core/unit"
)

func (b *builder) check() {
	b.add(Step{ID: "hold-connect", Stage: Check, Hold: true, Title: "Before any battery is connected",
		What: "Every nut, every boot, every fuse out. Each return from the device to the start battery's minus: by four wires, or by what is " +
			"lost in it at a known current. A common meter's ohms say only that it is not open.",
		Tool: "multimeter", Minutes: 2 * lookMin,
		After: append(b.of(Remove, Join, Fit, EndOf), "hold-cover"),
		Figure: unit.Say("the whole way back up to %s: %s at 20 A; no beep from plus to minus", unit.Text(b.returnMO(), "mΩ", 1),
			unit.Text(20*b.returnMO(), "mV", 0)),
		Checks: append([]string{"all fuses out", "terminals booted", "aux battery clamped", "labels at both ends",
			"nothing loose left in the engine space"}, b.seats()...)})
}

// seats is what is looked at where a seat came out: switched on with such a plug apart, a vehicle stores a fault of
// its airbags.
func (b *builder) seats() []string {
	if !b.p.SeatOut {
		return nil
	}
	return []string{"every plug of seats and belts together before any battery is connected: with one apart no key is turned"}
}

// returnMO is what the design counts on for the way back, in mΩ.
func (b *builder) returnMO() float64 {
	sum := 0.0
	for _, r := range b.p.Returns {
		sum += r.MilliO
	}
	return sum
}

// stop ends the steps before anything is made live: while a stop stands nothing follows, and nothing
// is expected of it.
func (b *builder) stop(stops []judge.Note) {
	said := make([]string, len(stops))
	for i, n := range stops {
		said[i] = n.Text
	}
	b.add(Step{ID: "stop", Stage: Check, Hold: true, Title: "Not to be built so: no fuse goes in",
		What: "The plan has what stops it. It is changed first; then its last steps and its readings follow.", Minutes: lookMin,
		After: []string{"hold-connect"}, Checks: said})
}

func (b *builder) live() {
	b.add(Step{ID: "aux-negative-on", Of: []string{"aux"}, Stage: Live, Title: "Aux battery's negative on",
		What: "Its plus side ends at F2, which is out.", Where: "aux battery", Minutes: smallMin, After: []string{"hold-connect"},
		Tool: "insulated spanner"})
	b.add(Step{ID: "negative-on", Of: []string{"start"}, Stage: Live, Title: "Start battery's negative on",
		What: "Last on: on the chassis side of a battery sensor.", Where: "start battery", Minutes: smallMin, After: []string{"aux-negative-on"},
		Tool: "insulated spanner"})
	b.add(Step{ID: "hold-fuses", Stage: Check, Hold: true, Title: "Before the fuses: polarity at each holder",
		What: "Both sides of every holder against minus, one by one.", Tool: "multimeter", Minutes: lookMin, After: []string{"negative-on"},
		Checks: b.polarity()})
	last := "hold-fuses"
	for _, id := range b.fuses() {
		c, ok := b.p.System.Component(id)
		if !ok {
			continue
		}
		b.add(Step{ID: "fuse-" + id, Of: []string{id}, Stage: Live, Title: "Fuse " + c.Name + " in", What: c.Rating + ".", Minutes: smallMin,
			After: []string{last}, Checks: []string{"rating read off the fuse itself"}})
		last = "fuse-" + id
	}
	if b.has("x1") {
		b.add(Step{ID: "plug", Of: []string{"x1"}, Stage: Live, Title: "Plug the " + b.behind() + " in",
			What: "After its polarity was measured at the socket.", Minutes: smallMin, After: []string{last},
			Checks: []string{"plus on plus, minus on minus"}})
	}
}

// fuses are all fuses in the order they go in: those of the run first, then those of what hangs on it, the signals'
// last.
func (b *builder) fuses() []string {
	first, last := []string{"f2", "f1", "f4"}, []string{"f5", "f6", "f3"}
	list := first
	for _, c := range b.p.System.Components {
		if c.Kind == system.KindFuse && !slices.Contains(first, c.ID) && !slices.Contains(last, c.ID) {
			list = append(list, c.ID)
		}
	}
	return append(list, last...)
}

// behind is what comes away with the plug.
func (b *builder) behind() string {
	c, _ := b.p.System.Component("x1")
	plug, _ := c.Device.(system.Plug)
	return plug.Behind
}

func (b *builder) polarity() []string {
	var list []string
	for _, c := range b.p.System.Components {
		if c.Kind == "fuse" {
			list = append(list, c.Name+": battery side plus, the other side dead")
		}
	}
	return list
}

func (b *builder) prove() {
	after := b.of(Live)
	state := func(id string) section.State {
		for _, s := range b.p.States {
			if s.ID == id {
				return s
			}
		}
		return section.State{}
	}
	bay := state("bay")
	reads := func(text string) string {
		if bay.Fails != "" {
			return "not reached: " + bay.Fails
		}
		return text
	}
	step := func(id, title, what, figure string, checks ...string) {
		b.add(Step{ID: "prove-" + id, Stage: Prove, Title: title, What: what, Figure: figure, Tool: "multimeter, clamp meter", Minutes: proveMin,
			After: after, Checks: checks})
	}
	step("running", "Engine on: start battery", "Across its posts: warm, at a fast idle of about 1,500 rpm, lamps off.",
		reads(unit.Text(bay.StartV, "V", 1)))
	step("current", "Current into the aux battery", "By clamp, from a part-discharged battery, with sun and mains off.",
		reads(unit.Text(bay.OutA, "A", 0)))
	step("input", "Volts at the coupling's input", "Across both its terminals, at that current.", reads(unit.Text(bay.InV, "V", 2)))
	step("aux", "Volts at the aux battery", "Across its posts, at that current: volts alone mislead.",
		reads(unit.Text(bay.AuxV, "V", 2)))
	step("drops", "Drop across each fuse, joint and return",
		"Under load, on both legs. What stands below is at the most that flows; at less it is less in proportion. Ten times as much is a bad "+
			"joint.", "", b.drops()...)
	step("warm", "Joints after thirty minutes", "By hand or thermometer: none warmer than its cable.", "")
	step("off", "Engine off: it opens", "The coupling lets go after its delay; headlights speed a relay up.", "0 A between the batteries")
	if b.has("feed") {
		step("asleep", "Signal in every position of the key", "At the coupling's input, against minus.", "", b.signalled()...)
	}
	b.add(Step{ID: "hold-handover", Stage: Check, Hold: true, Title: "Before handover",
		What: "Readings within what was expected; open items cleared; owner card explained.", Minutes: lookMin, After: b.of(Prove),
		Checks: []string{"every reading within its band", "each configuration lead measured", "temporary states tagged", "owner card explained"}})
}

// drops are what fuses, joints and returns lose at the most.
func (b *builder) drops() []string {
	list := []string{}
	for _, c := range b.p.Columns {
		if c.Kind == "fuse" {
			list = append(list, c.Name+": "+unit.Text(c.DropV, "V", 2))
		}
	}
	for _, j := range b.p.Joints {
		list = append(list, j.Name+": "+j.Text)
	}
	for _, r := range b.p.Returns {
		if r.Loses != "" {
			list = append(list, "return, "+r.Text+": "+r.Loses)
		}
	}
	return list
}

// signalled are the positions in which the signal is looked at, with what it has to be.
func (b *builder) signalled() []string {
	list := []string{}
	for _, e := range b.p.Signal.Expected {
		list = append(list, e.At+": "+e.Is())
	}
	return list
}

func (b *builder) hand() {
	b.add(Step{ID: "hand-over", Stage: Hand, Title: "Hand over",
		What: "What it does, what its lamp means, what never to do, when to have it looked at.", Minutes: 15, After: []string{"hold-handover"}})
}
