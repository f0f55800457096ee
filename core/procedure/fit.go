package procedure

import (
	"fmt"
	"slices"

	"epitrope/core/harness"
	"epitrope/core/unit"
)

func (b *builder) ground() {
	for _, id := range []string{"e1", "e2", "e3"} {
		c, ok := b.p.System.Component(id)
		if !ok {
			continue
		}
		b.add(Step{ID: "earth-" + id, Of: []string{id}, Stage: Ground, Title: "Earth point " + c.Name,
			What: "Bare metal, captive nut or welded stud; no washer between lug and metal; protected after. Not under a screw through plastic, " +
				"not shared with safety systems.",
			Where: c.Rating, Tool: "abrasive, torque spanner", Minutes: earthMin, After: b.of(Isolate),
			Checks: []string{"paint off to bright metal", "lug flat on metal", "protected after"}})
	}
}

// runsOf are the numbers of the wires that are laid, the longest of each run first.
func (b *builder) lay() {
	for _, w := range b.wires {
		if w.Clip == 0 {
			continue
		}
		after := b.of(Isolate, Remove)
		if w.Role == "return" {
			after = append(after, b.of(Ground)...)
		} else {
			// Common ground first.
			for _, r := range b.wires {
				if r.Role == "return" && r.Clip > 0 {
					after = append(after, "lay-"+r.ID)
				}
			}
		}
		if w.Hole > 0 {
			b.add(Step{ID: "hole-" + w.ID, Of: []string{w.ID}, Stage: Lay, Title: unit.Say("Hole for %s, %.0f mm", w.Number, w.Hole),
				What: "Look behind before drilling. Deburr, paint, grommet, seal.", Where: "bulkhead",
				Tool:    unit.Say("step drill or hole saw, %.0f mm", w.Hole),
				Minutes: holeMin, After: b.of(Isolate), Caution: "Looms, pipes and airbag parts lie behind panels.",
				Checks: []string{"deburred", "painted", "grommet fits", "sealed"}})
			after = append(after, "hole-"+w.ID)
		}
		b.add(Step{ID: "lay-" + w.ID, Of: []string{w.ID}, Stage: Lay, Title: fmt.Sprintf("Lay %s: %s, %s", w.Number, w.Size, w.Colour),
			What: unit.Say("From %s to %s; cut %s. %s; clipped each 300 mm, away from brake lines, heat and moving parts.", w.From.Name,
				w.To.Name, unit.Plain(w.CutM, "m", 2), covering(w)),
			Where: b.route(w), Minutes: smallMin + metreMin*w.RouteM, After: after,
			Checks: []string{"nothing chafes", "no sharp bend at the fuse holder", "clear of strut, seat and cover through their travel",
				"labelled at both ends"}})
	}
	b.add(Step{ID: "hold-cover", Stage: Check, Hold: true, Title: "Before panels and floor close",
		What: "Every run that is about to be covered is looked at, photographed and measured end to end.", Tool: "camera, multimeter",
		Minutes: lookMin, After: b.of(Lay, Ground),
		Checks: []string{"photograph of every hidden stretch and joint", "continuity end to end", "no continuity to the body",
			"grommets and ties in place"}})
	b.add(Step{ID: "cover", Stage: Fit, Title: "Close panels and floor over the runs", What: "Fasteners and trims as they were found.",
		Minutes: 30, After: []string{"hold-cover"}})
}

func (b *builder) route(w harness.Lead) string {
	return fmt.Sprintf("%s to %s, %s", w.From.Name, w.To.Name, unit.Plain(w.RouteM, "m", 2))
}

func (b *builder) fit() {
	for _, c := range b.p.System.Components {
		kind := string(c.Kind)
		if c.Existing || kind == "earth" || kind == "feed-point" || kind == "loads" {
			continue
		}
		minutes := deviceMin
		switch kind {
		case "fuse":
			minutes = fuseMin
		case "alternator":
			minutes = machineMin
		}
		step := Step{ID: "fit-" + c.ID, Of: []string{c.ID}, Stage: Fit, Title: "Fit " + c.Name, What: unit.Capital(c.Rating) + ".",
			Minutes: minutes,
			After:   b.of(Isolate), Checks: []string{"fast, clear of what moves", "reachable for service"}}
		switch {
		case c.ID == "f3" && b.p.System.Tapped():
			step.Title, step.Minutes, step.Caution = "Tap the feed point", feedMin, feedCaution
			step.What = "A tap holder in its slot: below the fuse that was there, above F3, which stays out."
		case kind == "fuse":
			step.Title, step.What = "Fit the holder of "+c.Name, c.Rating+": the holder alone; the fuse stays out."
		case kind == "battery":
			step.What += " Clamped so that nothing moves, plus covered, vent led out where it has one."
			step.Caution = "Heavy, and a source: nothing conducting on top of it."
			step.Checks = []string{"clamped", "plus covered", "clear of the lid or seat"}
		case kind == "changeover" || kind == "contactor":
			step.Checks = append(step.Checks, "its coil suppressed, inside it or across 85 and 86")
		case kind == "control":
			step.What += " In the driver's reach, out of the way of a knee, its label in sight."
			step.Checks = append(step.Checks, "label says what it does and for how long")
		case kind == "alternator":
			step.What += " Its bracket, its belt and tensioner, its regulator; the belt in line and tight."
			step.Caution = "Engine cold, key away, the start battery's negative off: nothing turns while hands are in."
			step.Checks = []string{"bracket tight", "belt in line", "tension by its maker's figure", "turns free of hoses and looms"}
		case kind == "charger":
			step.What += " Its vents free, its lamp in sight, room for air round it."
			step.Checks = append(step.Checks, "vents clear", "lamp visible")
		}
		b.add(step)
	}
}

const feedCaution = "Never brakes, airbag, steering or engine management."

func (b *builder) ends() {
	tool, checks := "die for ", []string{"die matches the lug", "tug test", "shrunk with adhesive showing", "labels on"}
	if b.p.System.Soldered {
		tool, checks = "soldering iron for ", []string{"wetted all round, no dry joint", "tug test",
			"strain relief within 100 mm, where the solder wicked to", "shrunk with adhesive showing", "labels on"}
	}
	for _, w := range b.wires {
		b.add(Step{ID: "end-" + w.ID, Of: []string{w.ID}, Stage: EndOf, Title: "Ends of " + w.Number,
			What: unit.Say("%s at %s; %s at %s. Heat shrink %.0f mm with adhesive.", w.From.Lug, w.From.Name, w.To.Lug, w.To.Name, w.Sleeve),
			Tool: tool + w.Size, Minutes: 2 * endMin * float64(w.Cables), After: b.endAfter(w), Checks: slices.Clone(checks)})
	}
}

func (b *builder) endAfter(w harness.Lead) []string {
	after := b.of(Isolate)
	if w.Clip > 0 {
		after = append(after, "lay-"+w.ID)
	}
	for _, id := range []string{"fit-" + w.From.Component, "fit-" + w.To.Component} {
		if slices.ContainsFunc(b.list, func(s Step) bool { return s.ID == id }) {
			after = append(after, id)
		}
	}
	return after
}

// covering is what goes over a wire along its route.
func covering(w harness.Lead) string {
	if w.Conduit > 0 {
		return unit.Say("Conduit %.0f mm all the way", w.Conduit)
	}
	return "Open, sleeved where it could chafe"
}

// order in which wires are joined: returns, then from the coupling outward, so that no end
// that may be live is loose; signals last.
func (b *builder) join() {
	rank := func(w harness.Lead) int {
		switch {
		case w.Role == "return":
			return 0
		case w.Role == "signal":
			return 3
		case w.From.Component == "coupling" || w.To.Component == "coupling":
			return 1
		}
		return 2
	}
	wires := slices.Clone(b.wires)
	slices.SortStableFunc(wires, func(a, c harness.Lead) int { return rank(a) - rank(c) })
	last := ""
	for _, w := range wires {
		after := []string{"end-" + w.ID}
		if last != "" {
			after = append(after, last)
		}
		step := Step{ID: "join-" + w.ID, Of: []string{w.ID, w.From.Component, w.To.Component}, Stage: Join, Title: "Connect " + w.Number,
			What: fmt.Sprintf("%s %s, then %s %s.", w.From.Name, w.From.Terminal, w.To.Name, w.To.Terminal), Tool: b.torque(w), Minutes: smallMin,
			After: after, Checks: []string{"tight", "booted or covered"}}
		if w.From.Component == "feed" {
			step.Title, step.Minutes = "Tap the feed point", feedMin
			step.What = "At a terminal of its own, F3 in a holder beside it; F3 stays out."
			step.Caution = feedCaution
		}
		b.add(step)
		last = "join-" + w.ID
	}
	if b.p.Settings.Charger {
		right := b.p.Settings.Right
		for _, l := range b.p.Settings.List {
			if l.ID == right {
				right = fmt.Sprintf("%s, %s", l.Label, unit.Text(l.AbsorptionV, "V", 1))
			}
		}
		b.add(Step{ID: "set", Of: []string{"coupling"}, Stage: Join, Title: "Set the charger for this battery",
			What: "As its configuration card says: " + right + ".", Minutes: lookMin, After: []string{"fit-coupling"},
			Checks: []string{"each configuration lead as on the card"}})
	}
}

// torque says what to tighten with. Source: from memory, for steel studs; the device's own
// sheet wins.
func (b *builder) torque(w harness.Lead) string {
	for _, e := range []harness.End{w.From, w.To} {
		switch e.Stud {
		case "M8":
			return "M8 about 12 N·m, M6 about 6 N·m: the device's own sheet wins"
		case "M6":
			return "M6 about 6 N·m: the device's own sheet wins"
		}
	}
	return ""
}
