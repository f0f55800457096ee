package procedure

import (
	"slices"
	"strings"

	"epitrope/core/judge"
	"epitrope/core/prove"
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
		What: "Both sides of every holder against minus, one by one.", Tool: "multimeter", Minutes: lookMin,
		After: []string{b.early(prove.FusesOut, "negative-on")}, Checks: b.polarity()})
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
			What: "After its polarity was measured at the socket.", Minutes: smallMin,
			After: []string{b.early(prove.Socket, last)}, Checks: []string{"plus on plus, minus on minus"}})
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

// station adds the readings of a station with what each is expected to be; where there are none it adds nothing, and what
// comes before stays so.
func (b *builder) station(at prove.Station, after ...string) (last string) {
	step := Step{ID: "prove-" + at.ID, Stage: Prove, Title: at.Name, What: unit.Capital(strings.Join(at.Setup, "; ")) + ".",
		Tool: "multimeter, clamp meter", After: after}
	for _, r := range b.proof.Readings {
		switch {
		case r.Station != at.ID || r.Of != "":
		case r.Unit == prove.Seen:
			step.Checks = append(step.Checks, r.What)
		default:
			step.Checks = append(step.Checks, r.What+": "+b.proof.Expected(r))
		}
	}
	step.Minutes = max(smallMin, readMin*float64(len(step.Checks)))
	b.add(step)
	return step.ID
}

// early is the station of a name, for what is read before everything is live.
func (b *builder) early(id, last string) string {
	for _, at := range b.proof.Stations {
		if at.ID == id {
			return b.station(at, last)
		}
	}
	return last
}

// prove are the readings with everything live, station by station.
func (b *builder) prove() {
	after := b.of(Live)
	for _, at := range b.proof.Stations {
		if at.ID != prove.FusesOut && at.ID != prove.Socket {
			b.station(at, after...)
		}
	}
	if b.proof.Unsteady {
		b.add(Step{ID: "prove-unsteady", Stage: Prove, Title: "With the engine running nothing can be proven",
			What:    "It comes to no stand at any speed that is asked for: what the plan says of that is changed first.",
			Minutes: lookMin, After: after})
	}
	b.add(Step{ID: "hold-handover", Stage: Check, Hold: true, Title: "Before handover",
		What: "Readings within what was expected; open items cleared; owner card explained.", Minutes: lookMin, After: b.of(Prove),
		Checks: []string{"every reading within its band", "each configuration lead measured", "temporary states tagged", "owner card explained"}})
}

func (b *builder) hand() {
	b.add(Step{ID: "hand-over", Stage: Hand, Title: "Hand over",
		What: "What it does, what its lamp means, what never to do, when to have it looked at.", Minutes: 15, After: []string{"hold-handover"}})
}
