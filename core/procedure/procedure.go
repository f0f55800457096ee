// Package procedure is what to do, in a safe order: the steps of an installation, what each
// has to wait for, and the points at which somebody looks and signs before it goes on.
package procedure

import (
	"fmt"
	"math"
	"slices"
	"unicode"
	"unicode/utf8"

	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/plan"
	"epitrope/core/retrofit"
	"epitrope/core/section"
	"epitrope/core/system"
	"epitrope/core/working"
)

// Step is one thing to do.
type Step struct {
	ID      string   `json:"id" doc:"Stays the same while the design keeps the part"`
	Stage   Stage    `json:"stage" enum:"prepare,isolate,remove,ground,lay,fit,end,join,check,live,prove,hand"`
	Title   string   `json:"title"`
	What    string   `json:"what"`
	Where   string   `json:"where,omitempty"`
	Figure  string   `json:"figure,omitempty" doc:"What it should be, with its unit"`
	Tool    string   `json:"tool,omitempty" doc:"Tool or torque"`
	Caution string   `json:"caution,omitempty"`
	Minutes float64  `json:"minutes"`
	Usual   float64  `json:"usual" doc:"Minutes before the workshop's own pace"`
	Hold    bool     `json:"hold,omitempty" doc:"Somebody looks and signs; what it guards waits for it"`
	After   []string `json:"after" doc:"Steps that come before"`
	Checks  []string `json:"checks" doc:"What is looked at"`
	Of      []string `json:"of" doc:"Ids of the components and wires that it is about"`
	Covered bool     `json:"covered,omitempty" doc:"It lies under panels and floor: before whoever closes them"`
}

// Stage is a part of the work.
type Stage string

// The stages, in their order.
const (
	Prepare Stage = "prepare"
	Isolate Stage = "isolate"
	Remove  Stage = "remove"
	Ground  Stage = "ground"
	Lay     Stage = "lay"
	Fit     Stage = "fit"
	EndOf   Stage = "end"
	Join    Stage = "join"
	Check   Stage = "check"
	Live    Stage = "live"
	Prove   Stage = "prove"
	Hand    Stage = "hand"
)

// Stages lists them.
var Stages = []Stage{Prepare, Isolate, Remove, Ground, Lay, Fit, EndOf, Join, Check, Live, Prove, Hand}

// Times in minutes. Source: from memory; the workshop's own past jobs win.
const (
	lookMin   = 10.0
	smallMin  = 5.0
	metreMin  = 12.0
	holeMin   = 25.0
	deviceMin = 40.0
	fuseMin   = 12.0
	endMin    = 7.0
	feedMin   = 60.0
	earthMin  = 20.0
	proveMin  = 8.0
)

// builder puts steps together: each waits for those it names and for whatever gates its
// stage.
type builder struct {
	p     plan.Plan
	wires []harness.Lead
	found retrofit.Found
	list  []Step
}

// Steps are the steps of a plan and of what was found before it, each after all that it waits
// for.
func Steps(p plan.Plan, wires []harness.Lead, found retrofit.Found) []Step {
	b := &builder{p: p, wires: wires, found: found}
	b.prepare()
	b.isolate()
	b.remove()
	b.ground()
	b.lay()
	b.fit()
	b.ends()
	b.join()
	b.check()
	b.live()
	b.prove()
	b.hand()
	return ordered(b.list)
}

func (b *builder) add(s Step) {
	if s.After == nil {
		s.After = []string{}
	}
	if s.Checks == nil {
		s.Checks = []string{}
	}
	if s.Of == nil {
		s.Of = []string{}
	}
	b.list = append(b.list, s)
}

// of are the ids of the steps of a stage.
func (b *builder) of(stages ...Stage) []string {
	var ids []string
	for _, s := range b.list {
		if slices.Contains(stages, s.Stage) {
			ids = append(ids, s.ID)
		}
	}
	return ids
}

func (b *builder) has(component string) bool {
	_, ok := b.p.System.Component(component)
	return ok
}

func (b *builder) prepare() {
	b.add(Step{ID: "in-hand", Stage: Prepare, Title: "Everything in hand",
		What: "Parts, tools and consumables by the list, before the first panel comes off.", Minutes: lookMin,
		Checks: []string{"parts list ticked off", "dies match the lugs", "fuses of every rating, and spares"}})
	b.add(Step{ID: "as-found", Stage: Prepare, Title: "Photograph it as it is",
		What: "Engine space, batteries, routes, panels; every wire that is taken off, before it is.", Minutes: lookMin, Tool: "camera"})
	b.add(Step{ID: "rest", Stage: Prepare, Title: "Measure both batteries at rest",
		What: "Start battery, and the aux battery where it is there: hours after a charge.", Minutes: smallMin, Tool: "multimeter",
		Figure: "start battery over 12.4 V at 12 V"})
}

func (b *builder) isolate() {
	b.add(Step{ID: "negative-off", Of: []string{"start"}, Stage: Isolate, Title: "Start battery's negative off",
		What: "First off, last on. Wrap it so that it cannot spring back.", Where: "start battery", Tool: "insulated spanner", Minutes: smallMin,
		After:   b.of(Prepare),
		Caution: "A spanner from plus to the body welds. No jewellery; insulated tools; memory saver where the vehicle wants one."})
	if b.existsAux() {
		b.add(Step{ID: "aux-negative-off", Of: []string{"aux"}, Stage: Isolate, Title: "Aux battery's negative off",
			What: "It is a source of its own: with the start battery off, its run is still live.", Where: "aux battery", Tool: "insulated spanner",
			Minutes: smallMin, After: []string{"negative-off"}})
	}
	if b.solar() {
		b.add(Step{ID: "sun-off", Stage: Isolate, Title: "Cover or isolate the panels", What: "They feed the aux side whatever else is off.",
			Minutes: smallMin, After: b.of(Prepare)})
	}
	if b.has("x1") {
		b.add(Step{ID: "unplug", Of: []string{"x1"}, Stage: Isolate, Title: "Unplug the trailer",
			What: "And keep the plug out of reach of metal.", Where: "tow coupling", Minutes: smallMin, After: b.of(Prepare)})
	}
}

// existsAux says whether an aux battery was there before: measured at rest, or with wires or
// gear of it found.
func (b *builder) existsAux() bool {
	if b.found.Before != nil || len(b.found.Wires) > 0 || len(b.found.Gear) > 0 {
		return true
	}
	return slices.ContainsFunc(b.p.Facts, func(f job.Fact) bool { return f.Path == "aux.restV" })
}

func (b *builder) solar() bool {
	return slices.ContainsFunc(b.p.System.Attached, func(a system.Attached) bool {
		panel, ok := a.Device.(system.Panel)
		return ok && panel.Watts > 0
	})
}

// remove takes out what goes, and traces what nobody knows before anything is cut.
func (b *builder) remove() {
	for _, w := range b.found.Wires {
		switch w.Fate {
		case "open":
			b.add(Step{ID: "trace-" + w.Key, Stage: Remove, Title: "Trace: " + w.Name,
				What: "Both ends, what feeds it, its fuse; until then it counts as live. " + w.Why, Tool: "meter, tone tracer", Minutes: 20,
				After: b.of(Prepare), Checks: []string{"both ends found", "labelled and photographed"}})
		case "goes":
			b.add(Step{ID: "out-" + w.Key, Stage: Remove, Title: "Take out: " + w.Name, What: w.Why +
				" What stays in place is insulated at both ends and labelled.", Minutes: 15, After: b.of(Isolate),
				Checks: []string{"dead, measured", "out, or insulated at both ends"}})
		}
	}
	for _, g := range b.found.Gear {
		if g.FactoryFeed {
			b.add(Step{ID: "factory-feed-" + g.Key, Stage: Remove, Title: "Take the factory's ignition feed off the coil: " + g.Name,
				What: "Insulate it, label it, and tie it back: left on, it joins the batteries whenever the key is on.", Minutes: lookMin,
				After:  b.of(Isolate),
				Checks: []string{"insulated", "labelled", "tied back", "coil dead with the key on, measured"}})
		}
		if g.Fate == "goes" {
			b.add(Step{ID: "off-" + g.Key, Stage: Remove, Title: "Take off: " + g.Name, What: g.Why, Minutes: 20, After: b.of(Isolate),
				Checks: []string{"photographed before", "kept or scrapped as agreed"}})
		}
	}
}

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
		if w.RouteM <= harness.LaidM {
			continue
		}
		after := b.of(Isolate, Remove)
		if w.Role == "return" {
			after = append(after, b.of(Ground)...)
		} else {
			// Common ground first.
			for _, r := range b.wires {
				if r.Role == "return" && r.RouteM > harness.LaidM {
					after = append(after, "lay-"+r.ID)
				}
			}
		}
		if w.Hole > 0 {
			b.add(Step{ID: "hole-" + w.ID, Of: []string{w.ID}, Stage: Lay, Title: fmt.Sprintf("Hole for %s, %.0f mm", w.Number, w.Hole),
				What: "Look behind before drilling. Deburr, paint, grommet, seal.", Where: "bulkhead",
				Tool:    fmt.Sprintf("step drill or hole saw, %.0f mm", w.Hole),
				Minutes: holeMin, After: b.of(Isolate), Caution: "Looms, pipes and airbag parts lie behind panels.",
				Checks: []string{"deburred", "painted", "grommet fits", "sealed"}})
			after = append(after, "hole-"+w.ID)
		}
		b.add(Step{ID: "lay-" + w.ID, Of: []string{w.ID}, Stage: Lay, Title: fmt.Sprintf("Lay %s: %s, %s", w.Number, w.Size, w.Colour),
			What: fmt.Sprintf("From %s to %s; cut %s. Conduit %.0f mm all the way; tied to existing looms, away from brake lines, heat and "+
				"moving parts.", w.From.Name, w.To.Name, working.Plain(w.CutM, "m", 2), w.Conduit),
			Where: b.route(w), Minutes: smallMin + metreMin*w.RouteM, After: after,
			Checks: []string{"conduit on everything", "no sharp bend at the fuse holder", "clear of strut, seat and cover through their travel",
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
	return fmt.Sprintf("%s to %s, %s", w.From.Name, w.To.Name, working.Plain(w.RouteM, "m", 2))
}

func (b *builder) fit() {
	for _, c := range b.p.System.Components {
		kind := string(c.Kind)
		if c.Existing || kind == "earth" || kind == "feed-point" || kind == "loads" {
			continue
		}
		minutes := deviceMin
		if kind == "fuse" {
			minutes = fuseMin
		}
		step := Step{ID: "fit-" + c.ID, Of: []string{c.ID}, Stage: Fit, Title: "Fit " + c.Name, What: capital(c.Rating) + ".", Minutes: minutes,
			After: b.of(Isolate), Checks: []string{"fast, clear of what moves", "reachable for service"}}
		switch kind {
		case "fuse":
			step.Title, step.What = "Fit the holder of "+c.Name, c.Rating+": the holder alone; the fuse stays out."
		case "battery":
			step.What += " Clamped so that nothing moves, plus covered, vent led out where it has one."
			step.Caution = "Heavy, and a source: nothing conducting on top of it."
			step.Checks = []string{"clamped", "plus covered", "clear of the lid or seat"}
		case "changeover", "contactor":
			step.Checks = append(step.Checks, "its coil suppressed, inside it or across 85 and 86")
		case "control":
			step.What += " In the driver's reach, out of the way of a knee, its label in sight."
			step.Checks = append(step.Checks, "label says what it does and for how long")
		case "charger":
			step.What += " Its vents free, its lamp in sight, room for air round it."
			step.Checks = append(step.Checks, "vents clear", "lamp visible")
		}
		b.add(step)
	}
}

func (b *builder) ends() {
	tool, checks := "die for ", []string{"die matches the lug", "tug test", "shrunk with adhesive showing", "labels on"}
	if b.p.System.Soldered {
		tool, checks = "soldering iron for ", []string{"wetted all round, no dry joint", "tug test",
			"strain relief within 100 mm, where the solder wicked to", "shrunk with adhesive showing", "labels on"}
	}
	for _, w := range b.wires {
		b.add(Step{ID: "end-" + w.ID, Of: []string{w.ID}, Stage: EndOf, Title: "Ends of " + w.Number,
			What: fmt.Sprintf("%s at %s; %s at %s. Heat shrink %.0f mm with adhesive.", w.From.Lug, w.From.Name, w.To.Lug, w.To.Name, w.Sleeve),
			Tool: tool + w.Size, Minutes: 2 * endMin * float64(w.Cables), After: b.endAfter(w), Checks: slices.Clone(checks)})
	}
}

func (b *builder) endAfter(w harness.Lead) []string {
	after := b.of(Isolate)
	if w.RouteM > harness.LaidM {
		after = append(after, "lay-"+w.ID)
	}
	for _, id := range []string{"fit-" + w.From.Component, "fit-" + w.To.Component} {
		if slices.ContainsFunc(b.list, func(s Step) bool { return s.ID == id }) {
			after = append(after, id)
		}
	}
	return after
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
			step.What = "Tap holder with both fuses: lower slot the original rating, upper slot the new circuit; F3 stays out."
			step.Caution = "Never brakes, airbag, steering or engine management."
		}
		b.add(step)
		last = "join-" + w.ID
	}
	if b.p.Settings.Charger {
		right := b.p.Settings.Right
		for _, l := range b.p.Settings.List {
			if l.ID == right {
				right = fmt.Sprintf("%s, %s", l.Label, working.Text(l.AbsorptionV, "V", 1))
			}
		}
		b.add(Step{ID: "set", Of: []string{"coupling"}, Stage: Join, Title: "Set the charger for this battery",
			What: "As its configuration card says: " + right + ".", Minutes: lookMin, After: []string{"fit-coupling"},
			Checks: []string{"each configuration lead as on the card"}})
	}
}

// capital is a text as a sentence begins.
func capital(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	return string(unicode.ToUpper(first)) + text[size:]
}

// torque says what to tighten with. Source: from memory, for steel studs; the device's own
// sheet wins.
func (b *builder) torque(w harness.Lead) string {
	for _, e := range []harness.End{w.From, w.To} {
		switch e.Stud {
		case "M8":
			return "M8 about 12 Nm, M6 about 6 Nm: the device's own sheet wins"
		case "M6":
			return "M6 about 6 Nm: the device's own sheet wins"
		}
	}
	return ""
}

func (b *builder) check() {
	b.add(Step{ID: "hold-connect", Stage: Check, Hold: true, Title: "Before any battery is connected",
		What: "Every nut, every boot, every fuse out. Resistance of each return from the device to the start battery's minus.",
		Tool: "multimeter", Minutes: 2 * lookMin,
		After:  append(b.of(Remove, Join, Fit, EndOf), "hold-cover"),
		Figure: "returns under 0.1 Ω with a common meter; no beep from plus to minus",
		Checks: []string{"all fuses out", "terminals booted", "aux battery clamped", "labels at both ends",
			"nothing loose left in the engine space"}})
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
	for _, id := range []string{"f2", "f1", "f4", "f5", "f3"} {
		c, ok := b.p.System.Component(id)
		if !ok {
			continue
		}
		b.add(Step{ID: "fuse-" + id, Of: []string{id}, Stage: Live, Title: "Fuse " + c.Name + " in", What: c.Rating + ".", Minutes: smallMin,
			After: []string{last}, Checks: []string{"rating read off the fuse itself"}})
		last = "fuse-" + id
	}
	if b.has("x1") {
		b.add(Step{ID: "plug", Of: []string{"x1"}, Stage: Live, Title: "Plug the trailer in",
			What: "After its polarity was measured at the socket.", Minutes: smallMin, After: []string{last},
			Checks: []string{"plus on plus, minus on minus"}})
	}
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
	cruise := state("cruise")
	step := func(id, title, what, figure string, checks ...string) {
		b.add(Step{ID: "prove-" + id, Stage: Prove, Title: title, What: what, Figure: figure, Tool: "multimeter, clamp meter", Minutes: proveMin,
			After: after, Checks: checks})
	}
	step("running", "Engine on: start battery", "Across its posts, at a fast idle.", working.Text(cruise.StartV, "V", 1))
	step("current", "Current into the aux battery", "By clamp, from a part-discharged battery, with sun and mains off.",
		working.Text(cruise.OutA, "A", 0))
	step("input", "Volts at the coupling's input", "Across both its terminals, at that current.", working.Text(cruise.InV, "V", 2))
	step("aux", "Volts at the aux battery", "Across its posts, at that current: volts alone mislead.", working.Text(cruise.AuxV, "V", 2))
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
			list = append(list, c.Name+": "+working.Text(c.DropV, "V", 2))
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

// Hours is what the steps take together.
func Hours(list []Step) float64 {
	sum := 0.0
	for _, s := range list {
		sum += s.Minutes
	}
	return working.Round(sum/60, 1)
}

// markCovered marks what lies under panels and floor once they close: of all that closing
// them waits for, in turn, what is laid and where it is earthed.
func markCovered(list []Step, at map[string]int) {
	seen := map[string]bool{}
	var mark func(id string)
	mark = func(id string) {
		i, ok := at[id]
		if !ok || seen[id] {
			return
		}
		seen[id] = true
		list[i].Covered = list[i].Stage == Lay || list[i].Stage == Ground
		for _, before := range list[i].After {
			mark(before)
		}
	}
	mark("cover")
}

// ordered sorts steps so that each comes after all that it waits for, and otherwise stage by
// stage in the order that they were put. Names of steps that there are not are dropped.
func ordered(list []Step) []Step {
	at := map[string]int{}
	for i, s := range list {
		at[s.ID] = i
	}
	for i := range list {
		list[i].After = slices.DeleteFunc(list[i].After, func(id string) bool { _, ok := at[id]; return !ok || id == list[i].ID })
		slices.Sort(list[i].After)
		list[i].After = slices.Compact(list[i].After)
	}
	markCovered(list, at)
	for i := range list {
		list[i].Minutes = math.Round(list[i].Minutes)
		list[i].Usual = list[i].Minutes
	}
	out := make([]Step, 0, len(list))
	done := map[string]bool{}
	for len(out) < len(list) {
		grown := false
		for _, s := range list {
			if done[s.ID] || slices.ContainsFunc(s.After, func(id string) bool { return !done[id] }) {
				continue
			}
			out, done[s.ID], grown = append(out, s), true, true
			break
		}
		if !grown {
			panic("steps wait for each other") // a fault of this package; its tests go through all jobs
		}
	}
	return out
}
