package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/working"
)

// Found is what was there before, judged by the same rules as what is planned, and what
// becomes of it.
type Found struct {
	Wires   []WireVerdict `json:"wires"`
	Gear    []GearVerdict `json:"gear"`
	Missing []string      `json:"missing" doc:"What has to be known before it can be judged as a whole"`
	Before  *Sketch       `json:"before,omitempty" doc:"The installation as found; absent where too little is known"`
	After   Sketch        `json:"after" doc:"The new design"`
	Bypass  *Bypass       `json:"bypass,omitempty" doc:"From what is in the van; absent where nothing was named"`
}

// WireFinding is one thing about something found.
type WireFinding struct {
	ID    string         `json:"id"`
	Level Level          `json:"level" enum:"good,caution,bad,open"`
	Text  string         `json:"text"`
	Mark  working.Origin `json:"mark" enum:"standard,practice,physics,memory"`
}

// WireVerdict is a wire as found.
type WireVerdict struct {
	Key      string        `json:"key"`
	Name     string        `json:"name"`
	Findings []WireFinding `json:"findings"`
	Level    Level         `json:"level" enum:"good,caution,bad,open"`
	Fate     string        `json:"fate" enum:"stays,goes,open" doc:"In the new design"`
	Why      string        `json:"why"`
	Reuse    *Cure         `json:"reuse,omitempty" doc:"Pins it in the new design"`
}

// GearVerdict is a device as found.
type GearVerdict struct {
	Key   string `json:"key"`
	Name  string `json:"name"`
	Level Level  `json:"level" enum:"good,caution,bad,open"`
	Fate  string `json:"fate" enum:"stays,goes,open"`
	Why   string `json:"why"`

	FactoryFeed bool `json:"-"` // its coil hangs on the factory's ignition feed
}

// Sketch is a design in a few lines, to be held against another.
type Sketch struct {
	Coupling string   `json:"coupling"`
	Start    string   `json:"start" doc:"Start run: cable, length and fuse"`
	Aux      string   `json:"aux"`
	Return   string   `json:"return"`
	Cruise   Charges  `json:"cruise"`
	Idle     Charges  `json:"idle"`
	Weakest  string   `json:"weakest" doc:"The weakest element of its chain"`
	Stops    []string `json:"stops" doc:"What makes it unfit"`
	Cautions []string `json:"cautions"`
	BackH    float64  `json:"backH" doc:"Driving that puts back a day's use; 0 where none does"`
}

// The checks of a wire as found. Source: ISO 10133 and ABYC E-11: a fuse within about
// 200 mm of its source. Common practice, no source: a good joint is up to 1 mΩ with its
// lug, a bad one 10 mΩ and more, which burns.
const (
	fuseWithinMM = 200.0
	suspectOhm   = 0.003
	burnsOhm     = 0.010
)

// foundWords are the sentences of the findings, by id.
var foundWords = map[string]string{
	"found.untraced": "Not traced: %s. Until both ends are known it counts as live and unfused.",
	"found.size":     "Its cable is not known: measure the copper, not the outside.",
	"found.unfused":  "No fuse at end %s, which is a source: a short burns the cable from there.",
	"found.far":      "The fuse sits %.0f mm from its source; what lies before it is unprotected, and %.0f mm is the limit.",
	"found.over":     "A %.0f A fuse on %s, which bears %.0f A where it lies: the cable burns first.",
	"found.slow":     "The %.0f A fuse opens too late on a short at the far end: %s bears it for %s.",
	"found.burns":    "It carries %.0f A and bears %.0f A where it lies.",
	"found.drop":     "It loses %.2f V at %.0f A over its length alone.",
	"found.joint":    "Measured, it loses %.2f V where its copper accounts for %.2f V: %.0f mΩ and %.0f W in its joints.",
	"found.corroded": "Corroded: cut back to bright copper, or the joint burns.",
	"found.loose":    "Loose: a loose lug heats until it burns.",
	"found.chafed":   "Chafed: the short is only a matter of time.",
	"found.taped":    "Taped off and left: take it out, or fuse and label it.",
	"found.cut":      "Cut: whoever joins it again has to know where it leads.",
	"found.good":     "Nothing against it.",
}

// foundMarks are where the findings come from, where that is not common practice.
var foundMarks = map[string]working.Origin{"found.far": working.Standard, "found.over": working.Standard, "found.slow": working.Standard,
	"found.burns": working.Standard, "found.drop": working.Physics, "found.joint": working.Physics}

// FoundOf judges what was found on a job.
func FoundOf(doc job.Document, book parts.Book) Found {
	d := newDesign(doc, book)
	out := Found{Wires: []WireVerdict{}, Gear: []GearVerdict{}, Missing: []string{}, After: d.sketch()}
	for _, row := range d.facts.Found {
		out.Wires = append(out.Wires, d.foundWire(row))
	}
	for _, row := range d.facts.Gear {
		out.Gear = append(out.Gear, d.foundGear(row))
	}
	before, missing := AsFound(doc)
	out.Missing = missing
	if len(missing) == 0 {
		s := newDesign(before, book).sketch()
		out.Before = &s
	}
	out.Bypass = bypass(doc, book)
	return out
}

func str(p *string) string {
	if p == nil {
		return ""
	}
	return *p
}

func num(p *float64) float64 {
	if p == nil {
		return 0
	}
	return *p
}

var roleNames = map[string]string{"start": "start run", "aux": "aux run", "return": "return", "trigger": "signal", "load": "feed to a load", "": "wire", "unknown": "wire"}

func foundName(w job.FoundWire) string {
	name := roleNames[str(w.Role)]
	if w.Colour != "" {
		name = w.Colour + " " + name
	}
	if w.EndA != "" || w.EndB != "" {
		name += ", " + strings.Trim(w.EndA+" to "+w.EndB, " ")
	}
	return strings.ToUpper(name[:1]) + name[1:]
}

// foundWire judges one wire, and says whether the new design can keep it.
func (d *design) foundWire(row job.Row[job.FoundWire]) WireVerdict {
	w := row.Of
	out := WireVerdict{Key: row.Key, Name: foundName(w), Findings: []WireFinding{}, Level: Good}
	say := func(id string, level Level, args ...any) {
		mark := working.Practice
		if m, ok := foundMarks[id]; ok {
			mark = m
		}
		out.Findings = append(out.Findings, WireFinding{ID: id, Level: level, Text: fmt.Sprintf(foundWords[id], args...), Mark: mark})
	}
	d.judgeFound(w, say)
	if len(out.Findings) == 0 {
		say("found.good", Good)
	}
	for _, level := range []Level{open, Caution, Bad} {
		if slices.ContainsFunc(out.Findings, func(f WireFinding) bool { return f.Level == level }) {
			out.Level = level
		}
	}
	out.Fate, out.Why, out.Reuse = d.fate(w, out.Level)
	return out
}

// sourcesOf says which ends of a wire are sources: as answered, or as its role has it.
func sourcesOf(w job.FoundWire) (a, b bool) {
	switch str(w.Sources) {
	case "a":
		return true, false
	case "b":
		return false, true
	case "both":
		return true, true
	case "none":
		return false, false
	}
	switch str(w.Role) {
	case "start", "load", "trigger":
		return true, false
	case "aux":
		return false, true
	case "return":
		return false, false
	}
	return true, true
}

func (d *design) judgeFound(w job.FoundWire, say func(id string, level Level, args ...any)) {
	untraced := []string{}
	if w.EndA == "" {
		untraced = append(untraced, "end A")
	}
	if w.EndB == "" {
		untraced = append(untraced, "end B")
	}
	if r := str(w.Role); r == "" || r == "unknown" {
		untraced = append(untraced, "what it is for")
	}
	if len(untraced) > 0 {
		say("found.untraced", open, strings.Join(untraced, ", "))
	}
	a, b := sourcesOf(w)
	if a && num(w.FuseA) == 0 {
		say("found.unfused", Bad, "A")
	}
	if b && num(w.FuseBA) == 0 {
		say("found.unfused", Bad, "B")
	}
	if a && num(w.FuseA) > 0 && num(w.FuseMM) > fuseWithinMM {
		say("found.far", Caution, *w.FuseMM, fuseWithinMM)
	}
	if s := str(w.State); s != "" && s != "good" {
		level := Caution
		if s == "chafed" || s == "loose" || s == "cut" {
			level = Bad
		}
		say("found."+s, level)
	}
	if w.Size == nil {
		say("found.size", open)
		return
	}
	size, _ := cable.Parse(*w.Size) // a document holds only sizes that read
	d.judgeCopper(w, size, say)
}

// judgeCopper holds a wire's copper against what it carries, its fuses and what was
// measured on it.
func (d *design) judgeCopper(w job.FoundWire, size cable.Size, say func(id string, level Level, args ...any)) {
	like := d.legOf(w)
	amps, length := num(w.Amps), num(w.LengthM)
	t := cable.Loop{Amps: max(amps, 0.1), CableM: max(length, 0.1), Bay: like.bay, Insulation: d.facts.Insulation}.Try(size)
	if amps > t.AmpacityA {
		say("found.burns", Bad, amps, t.AmpacityA)
	}
	for _, fuse := range []float64{num(w.FuseA), num(w.FuseBA)} {
		switch {
		case fuse > t.AmpacityA:
			say("found.over", Bad, fuse, size.Copper(), t.AmpacityA)
		case fuse > 0 && length > 0:
			// A rating that only breakers come in is a breaker.
			f, ok := protect.Find(nearest(fuse, protect.PowerRatings()), 0, slices.Concat(protect.Power, protect.All))
			if !ok {
				continue
			}
			near := like.sourceV / (like.sourceOhm + 2*jointOhm)
			far := like.sourceV / (like.sourceOhm + t.LoopOhm + fuseJoints*jointOhm)
			fault := d.facts.Insulation.Faulted(size, like.bay, math.Min(t.ConductorC, cable.ShortLimitC-1))
			if v := f.Covers(near, far, fault); !v.Saves {
				say("found.slow", Bad, fuse, size.Copper(), working.Seconds(v.Far.BearsS))
			}
		}
	}
	copperV := amps * t.LoopOhm
	if amps > 0 && length > 0 && copperV > d.facts.BatteryDrop.Value/100*12*d.facts.N && str(w.Role) != "trigger" {
		say("found.drop", Caution, copperV, amps)
	}
	if w.DropV != nil && amps > 0 && length > 0 {
		extra := (*w.DropV - copperV) / amps
		if extra >= suspectOhm {
			level := Caution
			if extra >= burnsOhm {
				level = Bad
			}
			say("found.joint", level, *w.DropV, copperV, extra*1000, extra*amps*amps)
		}
	}
}

// legOf is the stretch of the new design that a wire lies beside: for its place and its
// source.
func (d *design) legOf(w job.FoundWire) *leg {
	if str(w.Role) == "aux" {
		return &d.aux
	}
	return &d.start
}

func nearest(v float64, of []float64) float64 {
	best := of[0]
	for _, o := range of {
		if math.Abs(o-v) < math.Abs(best-v) {
			best = o
		}
	}
	return best
}

// fate says whether the new design can keep a wire.
func (d *design) fate(w job.FoundWire, level Level) (fate, why string, reuse *Cure) {
	role := str(w.Role)
	if level == open && (w.Size == nil || role == "" || role == "unknown") {
		return "open", "Trace and measure it first.", nil
	}
	if level == Bad {
		return "goes", "Unsafe as it is.", nil
	}
	if role != "start" && role != "aux" && role != "return" {
		return "stays", "No part of the run.", nil
	}
	if w.Size == nil {
		return "open", "Trace and measure it first.", nil
	}
	l, need, path := &d.start, d.facts.StartM.Value, "pins.startSize"
	if role == "aux" {
		l, need, path = &d.aux, d.facts.AuxM.Value, "pins.auxSize"
	}
	if role == "return" {
		l, need, path = d.returnLeg(), d.back.cableM, ""
	}
	size, _ := cable.Parse(*w.Size)
	t := l.loop.Try(size)
	switch {
	case num(w.LengthM) > 0 && num(w.LengthM) < need*0.95:
		return "goes", fmt.Sprintf("Too short: %s of the %s needed.", working.Text(num(w.LengthM), "m", 1), working.Text(need, "m", 1)), nil
	case t.AmpacityA < l.amps:
		return "goes", fmt.Sprintf("%s bears %s and the new design carries %s.", size.Copper(), working.Text(t.AmpacityA, "A", 0), working.Text(l.amps, "A", 0)), nil
	case t.DropV > l.budgetV+0.0005:
		return "goes", fmt.Sprintf("%s would lose %s of the %s allowed.", size.Copper(), working.Text(t.DropV, "V", 2), working.Text(max(0, l.budgetV), "V", 2)), nil
	case !l.saved(t):
		return "goes", fmt.Sprintf("No fuse carries %s and saves %s.", working.Text(l.amps, "A", 0), size.Copper()), nil
	}
	why = "Thick enough for the new design."
	if size.CopperMM2() < l.trial.Size.CopperMM2() {
		why = fmt.Sprintf("Bears the new design, and becomes its bottleneck: %s where %s would be fitted.", size.Copper(), l.auto.Copper())
	}
	if path != "" && l.trial.Size.Label != size.Label {
		c := set("Keep "+size.Label, path, size.Label)
		reuse = &c
	}
	return "stays", why, reuse
}

var gearCouplings = map[string][]coupling.Kind{"relay": {coupling.VSR}, "contactor": {coupling.SwitchedContactor}, "selector": {coupling.ManualSelector},
	"charger": {coupling.DCDC, coupling.TrailerCharger, coupling.DCDCChangeover, coupling.DCDCHighCurrent}, "changeover": {coupling.DCDCChangeover}}

// foundGear says what becomes of a device.
func (d *design) foundGear(row job.Row[job.Gear]) GearVerdict {
	g := row.Of
	field, _ := job.FieldAt("gear.x.kind")
	out := GearVerdict{Key: row.Key, Name: g.Name, Level: Good, Fate: "stays", Why: "Not in the way.", FactoryFeed: str(g.FactoryFeed) == "yes"}
	if out.Name == "" && g.Kind != nil {
		out.Name = field.Show(*g.Kind)
	}
	kinds, is := gearCouplings[str(g.Kind)]
	switch {
	case str(g.Works) == "dead":
		out.Level, out.Fate, out.Why = Bad, "goes", "Dead: take it out with its wires, or they stay live."
	case out.FactoryFeed:
		out.Level, out.Fate, out.Why = Caution, "stays", "The factory's ignition feed comes off its coil and is insulated: otherwise it joins the batteries whenever the key is on."
	case str(g.Works) == "" || str(g.Works) == "unknown":
		out.Level, out.Fate, out.Why = open, "open", "Try it before anything relies on it."
	case !is:
	case !slices.Contains(kinds, d.kind):
		out.Level, out.Fate = Caution, "goes"
		out.Why = "The new design couples by " + d.kind.Label() + ": left in, it would join what is meant to be apart."
	case d.kind.Charger() && str(g.Kind) == "charger" && num(g.RatingA) > 0 && num(g.RatingA) < d.needA:
		out.Level, out.Fate, out.Why = Caution, "goes", fmt.Sprintf("%s of the %s that would hold the balance.", working.Plain(num(g.RatingA), "A", 0), working.Text(d.needA, "A", 0))
	case !d.kind.Charger() && num(g.RatingA) > 0 && num(g.RatingA)*parts.ContactFactor(d.start.bay.AmbientC) < d.start.amps:
		out.Level, out.Fate, out.Why = Bad, "goes", fmt.Sprintf("Rated %s and the new design carries %s.", working.Plain(num(g.RatingA), "A", 0), working.Text(d.start.amps, "A", 0))
	default:
		out.Why = "Can be used again."
	}
	if str(g.Works) == "doubtful" {
		out.Level, out.Fate, out.Why = Caution, "goes", "Half dead: "+orWords(g.Fault, "its fault comes back")+"."
	}
	return out
}

func orWords(s, otherwise string) string {
	if s == "" {
		return otherwise
	}
	return strings.TrimSuffix(s, ".")
}

// AsFound is the job as it was found: its coupling, cables and fuses in the place of
// what is planned. missing names what has to be known for that.
func AsFound(doc job.Document) (before job.Document, missing []string) {
	before = doc
	before.Pins = job.Pins{}
	missing = []string{}
	kind := str(doc.Have.Coupling)
	if kind == "" {
		missing = append(missing, "which coupling was found")
	}
	if kind == "none" {
		return before, []string{"there was no coupling"}
	}
	before.Pins.Coupling = doc.Have.Coupling
	if a := num(doc.Have.CouplingA); a > 0 && kind != "" {
		if coupling.Kind(kind).Charger() {
			rated := nearest(a, parts.ChargerRatings)
			before.Pins.ChargerA = &rated
		} else {
			rated := nearest(a, parts.ContactRatings())
			before.Pins.ContactA = &rated
		}
	}
	ratings := protect.PowerRatings()
	seen := map[string]bool{}
	for _, row := range job.Rows(doc.Found) {
		w, role := row.Of, str(row.Of.Role)
		if w.Size == nil || seen[role] {
			continue
		}
		switch role {
		case "start":
			before.Pins.StartSize = w.Size
			if w.LengthM != nil {
				before.Routes.StartM = w.LengthM
			}
			if a := num(w.FuseA); a > 0 {
				rated := nearest(a, ratings)
				before.Pins.StartFuseA = &rated
			}
		case "aux":
			before.Pins.AuxSize = w.Size
			if w.LengthM != nil {
				before.Routes.AuxM = w.LengthM
			}
			if a := max(num(w.FuseBA), num(w.FuseA)); a > 0 {
				rated := nearest(a, ratings)
				before.Pins.AuxFuseA = &rated
			}
		case "return":
			by := "cable"
			before.Pins.Return = &by
		}
		seen[role] = true
	}
	for role, name := range map[string]string{"start": "the cable of the start run", "aux": "the cable of the aux run"} {
		if !seen[role] {
			missing = append(missing, name)
		}
	}
	slices.Sort(missing)
	return before, missing
}

// sketch is the design in a few lines.
func (d *design) sketch() Sketch {
	run := func(l *leg) string {
		return fmt.Sprintf("%s, %s, %s", l.trial.Size.Copper(), working.Text(l.lengthM.Value, "m", 1), working.Plain(l.fuse.RatingA, "A", 1))
	}
	s := Sketch{Coupling: d.couplingRating(), Start: run(&d.start), Aux: run(&d.aux), Cruise: d.charges(d.stateBy("early")), Idle: d.charges(d.idleState()), Stops: []string{}, Cautions: []string{}}
	s.Return = map[bool]string{true: "chassis", false: "cable"}[d.back.byChassis]
	if d.back.byChassis && d.back.byCable {
		s.Return = "chassis and cable"
	}
	for _, l := range d.chain() {
		if l.Weakest {
			s.Weakest = fmt.Sprintf("%s, %s", l.Name, working.Text(l.Share, "%", 0))
		}
	}
	for _, n := range d.notes() {
		switch n.Severity {
		case stop:
			s.Stops = append(s.Stops, n.Text)
		case caution:
			s.Cautions = append(s.Cautions, n.Text)
		}
	}
	if fig, ok := d.backUse(); ok {
		s.BackH = fig.Value
	}
	return s
}

// Bypass is a way to charge until the proper repair, made of what is in the van.
type Bypass struct {
	Level   Level    `json:"level" enum:"good,caution,bad"`
	Says    string   `json:"says"`
	CarryA  float64  `json:"carryA" doc:"What it may carry for hours"`
	FlowsA  float64  `json:"flowsA" doc:"What the circuit drives at cruise"`
	AuxV    float64  `json:"auxV" doc:"At the aux battery at cruise"`
	Limits  []string `json:"limits" doc:"What each part allows"`
	Against []string `json:"against"`
	Steps   []string `json:"steps"`
	Tag     string   `json:"tag" doc:"What the tag on it says"`
}

// bypass designs one from what is in the van.
func bypass(doc job.Document, book parts.Book) *Bypass {
	h := doc.Have
	if h.FuseA == nil || h.Size == nil || h.Metres == nil {
		return nil
	}
	temp := doc
	temp.Pins = job.Pins{}
	kind := string(coupling.ManualSelector)
	if h.RelayA != nil {
		kind = string(coupling.VSR)
		rated := nearest(*h.RelayA, parts.ContactRatings())
		temp.Pins.ContactA = &rated
	}
	temp.Pins.Coupling, temp.Pins.StartSize, temp.Pins.AuxSize = &kind, h.Size, h.Size
	rated := nearest(*h.FuseA, protect.PowerRatings())
	temp.Pins.StartFuseA, temp.Pins.AuxFuseA = &rated, &rated
	if doc.Routes.StartM != nil && doc.Routes.AuxM != nil {
		// The whole way again, the relay at the start battery.
		first, rest := bypassFirstM, *doc.Routes.StartM+*doc.Routes.AuxM-bypassFirstM
		if rest > 0.1 {
			temp.Routes.StartM, temp.Routes.AuxM = &first, &rest
		}
	}
	d := newDesign(temp, book)
	need := d.facts.StartM.Value + d.facts.AuxM.Value
	cruise := d.stateBy("early")
	fuseA := d.start.fuse.Carries(d.start.bay.AmbientC)
	cableA := min(d.start.trial.AmpacityA, d.aux.trial.AmpacityA)
	b := &Bypass{Level: Good, CarryA: working.Round(min(fuseA, cableA), 0), FlowsA: working.Round(max(0, cruise.outA), 0), AuxV: working.Round(cruise.auxV, 1),
		Limits:  []string{fmt.Sprintf("fuse %s: %s for hours", working.Plain(*h.FuseA, "A", 0), working.Text(fuseA, "A", 0)), fmt.Sprintf("%s: %s where it lies", d.start.trial.Size.Copper(), working.Text(cableA, "A", 0))},
		Against: []string{}}
	if h.RelayA != nil {
		bears := *h.RelayA * parts.ContactFactor(d.start.bay.AmbientC)
		b.CarryA = working.Round(min(b.CarryA, bears), 0)
		b.Limits = append(b.Limits, fmt.Sprintf("relay %s: %s where it sits", working.Plain(*h.RelayA, "A", 0), working.Text(bears, "A", 0)))
	}
	d.againstBypass(b, need)
	what := "a join by hand"
	if h.RelayA != nil {
		what = "the relay"
	}
	b.Says = fmt.Sprintf("%s, %s and the fuse carry %s for hours; at cruise %s would flow, %s at the aux battery.", working.Text(need, "m", 1)+" of "+d.start.trial.Size.Copper(), what, working.Text(b.CarryA, "A", 0), working.Text(b.FlowsA, "A", 0), working.Text(b.AuxV, "V", 1))
	b.Steps = []string{"Start battery's negative off.", "The dead device stays in, its leads taken off and insulated one by one.",
		fmt.Sprintf("Fuse within %.0f mm of the start battery, its element out; %s to the aux battery along the old route, clear of heat and anything that moves.", fuseWithinMM, d.start.trial.Size.Copper()),
		"A second fuse at the aux battery: it is a source too.", "Return checked: under 0.2 V at the current that flows.", "Fuses in last, the aux battery's first; engine on; current by clamp."}
	b.Tag = "TEMPORARY. Joins both batteries past the dead device. To undo: this fuse out, this cable off, the device's leads back on. Not to be left joined when parked."
	return b
}

// bypassFirstM is from the start battery to a relay beside it.
const bypassFirstM = 0.5

// againstBypass says what speaks against a bypass.
func (d *design) againstBypass(b *Bypass, needM float64) {
	against := func(level Level, text string, args ...any) {
		b.Against = append(b.Against, fmt.Sprintf(text, args...))
		b.Level = worst(b.Level, level)
	}
	h := d.doc.Have
	if *h.Metres < needM {
		against(Bad, "%s are needed from battery to battery and there are %s", working.Text(needM, "m", 1), working.Plain(*h.Metres, "m", 1))
	}
	if h.Fuses == nil || *h.Fuses < 2 {
		against(Bad, "two fuses are needed, as both batteries are sources; without the second, the aux end burns")
	}
	if b.FlowsA > b.CarryA {
		against(Bad, "%s would flow into the battery as it is: charge it first, or leave the join open until it stands higher", working.Text(b.FlowsA, "A", 0))
	}
	if h.FuseA != nil && *h.FuseA > min(d.start.trial.AmpacityA, d.aux.trial.AmpacityA) {
		against(Bad, "a %s fuse does not protect this cable", working.Plain(*h.FuseA, "A", 0))
	}
	if !d.facts.Chemistry.Lead {
		against(Bad, "nothing limits the current into a %s bank, and its management system may open under it", d.facts.Chemistry.Label)
	}
	if d.facts.Varies() {
		against(Caution, "on variable regulation it charges only while the voltage is up, and the aux battery feeds the vehicle while it is not")
	}
	if d.facts.Chemistry.ID == battery.Gel.ID && b.AuxV > d.profile.AbsorptionHigh {
		against(Caution, "%s is more than gel bears", working.Text(b.AuxV, "V", 1))
	}
}
