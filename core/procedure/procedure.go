// Package procedure is what to do, in a safe order: the steps of an installation, what each
// has to wait for, and the points at which somebody looks and signs before it goes on.
package procedure

import (
	"math"
	"slices"

	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/plan"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/system"
	"epitrope/core/unit"
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
	lookMin    = 10.0
	smallMin   = 5.0
	metreMin   = 12.0
	holeMin    = 25.0
	deviceMin  = 40.0
	machineMin = 840.0
	fuseMin    = 12.0
	endMin     = 7.0
	feedMin    = 60.0
	earthMin   = 20.0
	readMin    = 3.0
)

// builder puts steps together: each waits for those it names and for whatever gates its
// stage.
type builder struct {
	p     plan.Plan
	wires []harness.Lead
	found retrofit.Found
	proof *prove.Proof
	list  []Step
}

// Steps are the steps of a plan, of what was found before it and of its proof, each after all that it waits for.
func Steps(p plan.Plan, wires []harness.Lead, found retrofit.Found, proof *prove.Proof) []Step {
	b := &builder{p: p, wires: wires, found: found, proof: proof}
	b.prepare()
	b.isolate()
	b.remove()
	b.ground()
	b.lay()
	b.fit()
	b.ends()
	b.join()
	b.check()
	if stops := p.Stops(); len(stops) > 0 {
		b.stop(stops)
		return ordered(b.list)
	}
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
		b.add(Step{ID: "unplug", Of: []string{"x1"}, Stage: Isolate, Title: "Unplug the " + b.behind(),
			What: "And keep the plug out of reach of metal.", Where: map[string]string{system.Trailer: "tow coupling",
				system.Box: "X1"}[b.behind()], Minutes: smallMin, After: b.of(Prepare)})
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
	if _, splits := b.p.System.Splitter(); splits {
		b.add(Step{ID: "charge-cable", Stage: Remove, Title: "Cut the vehicle's own charge cable",
			What: "From the alternator to the start battery, both ends marked: its alternator end goes to the splitter's B+, and C1 takes its " +
				"place to the battery. Nothing else of the vehicle's may hang on that cable: look first.",
			Minutes: 30, After: b.of(Isolate), Checks: []string{"battery negative off", "nothing else hangs on it", "both ends marked and covered"}})
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

// Hours is what the steps take together.
func Hours(list []Step) float64 {
	sum := 0.0
	for _, s := range list {
		sum += s.Minutes
	}
	return unit.Round(sum/60, 1)
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
