package plan

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/working"
)

// School is a question on which the trade is of more than one mind, with what each answer
// comes to on this job.
type School struct {
	ID      string         `json:"id"`
	Ask     string         `json:"ask"`
	Default string         `json:"default" doc:"What is taken unless somebody decides, and why"`
	Path    string         `json:"path" doc:"The field that decides it"`
	Options []SchoolOption `json:"options"`
}

// SchoolOption is one answer.
type SchoolOption struct {
	Value string `json:"value"`
	Label string `json:"label"`
	Comes string `json:"comes" doc:"What it comes to on this job, computed"`
	Now   bool   `json:"now"`
	Level Level  `json:"level" enum:"good,caution,bad"`
}

// Schools works out every question of the trade on a job.
func Schools(doc job.Document, book parts.Book) []School {
	now := newDesign(doc, book)
	t := trier{doc: doc, book: book, now: now}
	list := []School{t.signal(), t.inSeries(), t.feedPoint(), t.delay(), t.device(), t.termination(), t.returns(), t.dropLimit(), t.fuseSize(), t.takeoff(), t.negative(), t.supply()}
	if d := now; d.kind.Joins() || d.kind == coupling.DCDCChangeover {
		list = append(list, t.emergency())
	}
	return list
}

// trier plans a job with one answer changed.
type trier struct {
	doc  job.Document
	book parts.Book
	now  *design
}

func (t trier) with(path string, value any) *design {
	doc, problems := job.With(t.doc, map[string]any{path: value})
	if len(problems) > 0 {
		return t.now
	}
	return newDesign(doc, t.book)
}

// options are the answers of a field, each told by what the design with it says.
func (t trier) options(path, now string, values []string, tell func(d *design, value string) (string, Level)) []SchoolOption {
	list := []SchoolOption{}
	field, _ := job.FieldAt(path)
	for _, v := range values {
		comes, level := tell(t.with(path, v), v)
		list = append(list, SchoolOption{Value: v, Label: field.Show(v), Comes: comes, Now: v == now, Level: level})
	}
	return list
}

// leftOn says what a signal does with the key where somebody leaves it.
func leftOn(d *design, position string, k keyState) (string, Level) {
	if !d.wired() {
		return "This coupling needs no signal.", Good
	}
	m := d.mode(position, k, "no")
	level := map[string]Level{"normal": Good, "caution": Caution, "forbidden": Bad}[m.Verdict]
	return fmt.Sprintf("Key %s, engine stopped: %s", k.key, m.Why), level
}

func (t trier) signal() School {
	s := School{ID: "signal", Ask: "Automatic signal or a switch?", Path: "day.trigger",
		Default: "Automatic: a switch works where no engine signal can be found, and is forgotten."}
	s.Options = t.options(s.Path, t.now.facts.Day.Trigger, []string{"running", "switch"}, func(d *design, v string) (string, Level) {
		position := noSwitch
		if v == "switch" {
			position = switchOn
		}
		return leftOn(d, position, keyState{"off", "stopped"})
	})
	return s
}

func (t trier) inSeries() School {
	s := School{ID: "series", Ask: "A switch in series with the signal?", Path: "schools.inSeries", Default: "None; as an option it lets the driver choose the sun instead of the engine."}
	now := map[bool]string{true: "yes", false: "no"}[t.now.facts.Schools.InSeries]
	s.Options = t.options(s.Path, now, []string{"no", "yes"}, func(d *design, v string) (string, Level) {
		if !d.wired() {
			return "This coupling needs no signal.", Good
		}
		if v == "no" {
			return "Nothing to forget: it charges whenever the signal is live.", Good
		}
		off := d.mode(switchOff, keyState{"on", "running"}, "no")
		on, level := leftOn(d, switchOn, keyState{"off", "stopped"})
		return "Off, engine running: " + off.Why + " On: " + on, level
	})
	return s
}

func (t trier) feedPoint() School {
	s := School{ID: "feed", Ask: "Which feed point?", Path: "day.trigger", Default: "One that is live only while the engine runs, then 15; never one that is live with the key out."}
	keys := map[string]keyState{"running": {"on", "stopped"}, "ignition": {"on", "stopped"}, "accessory": {"accessory", "stopped"}}
	s.Options = t.options(s.Path, t.now.facts.Day.Trigger, []string{"running", "ignition", "accessory"}, func(d *design, v string) (string, Level) {
		return leftOn(d, d.switches()[0], keys[v])
	})
	return s
}

func (t trier) delay() School {
	s := School{ID: "delay", Ask: "Does charging wait after a start?", Path: "schools.delayMin", Default: "No timer; some minutes let the start battery recover first."}
	for _, min := range []float64{0, 3, 10} {
		d := t.with(s.Path, min)
		out := d.stateBy("early").outA
		crankAh := d.facts.CrankA.Value * 2 / 3600
		recovers := crankAh / math.Max(0.5, (d.facts.RegulatedV.Value/d.facts.N-surfaceV)/circuit.RechargeOhm) * 60
		s.Options = append(s.Options, SchoolOption{Value: working.Plain(min, "", 0), Label: working.Plain(min, "min", 0), Now: d.facts.Schools.DelayMin.Value == t.now.facts.Schools.DelayMin.Value, Level: Good,
			Comes: fmt.Sprintf("Each start leaves out %s of charging; two seconds of cranking take %s, back in the start battery after about %s.",
				working.Text(out*min/60, "Ah", 1), working.Text(crankAh, "Ah", 2), working.Text(recovers, "min", 0))})
	}
	return s
}

func (t trier) device() School {
	s := School{ID: "device", Ask: "Fuse or breaker?", Path: "pins.device", Default: "Fuses near the sources; a breaker where a switch is wanted too."}
	now := "fuse"
	if pin := t.doc.Pins.Device; pin != nil {
		now = *pin
	}
	s.Options = t.options(s.Path, now, []string{"fuse", "breaker", "auto-breaker"}, func(d *design, v string) (string, Level) {
		level := Good
		for _, n := range d.notes() {
			if n.Severity == stop && (n.Column == "f1" || n.Column == "f2") {
				level = Bad
			}
		}
		var weakest string
		for _, l := range d.chain() {
			if l.Column == "f1" {
				weakest = working.Text(l.Share, "%", 0)
			}
		}
		resets := map[string]string{"fuse": "a blown one can be seen", "breaker": "isolates, and is set again by hand", "auto-breaker": "closes on the fault again by itself"}[v]
		return fmt.Sprintf("F1 %s, at %s of what it holds; %s.", d.start.fuse.Label(), weakest, resets), level
	})
	return s
}

func (t trier) termination() School {
	s := School{ID: "termination", Ask: "Crimped or soldered?", Path: "schools.termination", Default: "Crimped with the right die: no wicking, no stiff spot under vibration."}
	s.Options = t.options(s.Path, t.now.facts.Schools.Termination, []string{"crimp", "solder"}, func(d *design, v string) (string, Level) {
		ends := d.bill().Ends
		watts := d.start.amps * d.start.amps * jointOhm
		if v == "crimp" {
			return fmt.Sprintf("%d ends, each %s at %s in a good crimp: a die that matches the lug, and a tug test.", ends, working.Text(watts, "W", 1), working.Text(d.start.amps, "A", 0)), Good
		}
		return fmt.Sprintf("%d ends, each with a stiff spot where the solder wicked to: strain relief within 100 mm of every one, and a joint that gets hot softens.", ends), Caution
	})
	return s
}

func (t trier) returns() School {
	s := School{ID: "return", Ask: "Return by chassis, cable or both?", Path: "pins.return", Default: "A lead to a chassis point near the battery; behind a tow coupling, and on a frame that is no steel, cable."}
	now := "chassis"
	if t.now.back.byCable {
		now = "cable"
		if t.now.back.byChassis {
			now = "both"
		}
	}
	s.Options = t.options(s.Path, now, []string{"chassis", "cable", "both"}, func(d *design, _ string) (string, Level) {
		lost := d.returnLoss("n1", "n1t", "chassis")
		if d.back.byCable && d.back.byChassis {
			lost = d.returnLoss("n1", "chassis")
		}
		level := Good
		for _, n := range d.notes() {
			if n.ID == "return.hitch" {
				level = Bad
			}
		}
		for _, c := range d.answerChecks() {
			if c.ID == "answers.frame" || c.ID == "answers.bonded" {
				level = Bad
			}
		}
		return fmt.Sprintf("Loses %s at the worst; %s of copper in the installation; aux battery %s at cruise.", lost, working.Text(d.bill().CopperKg, "kg", 1), working.Text(d.cruiseState().auxV, "V", 2)), level
	})
	return s
}

func (t trier) dropLimit() School {
	s := School{ID: "drop", Ask: "How much drop is allowed?", Path: "limits.batteryDrop", Default: "2 % to a battery that nothing regulates, 5 % into a charger: it boosts, but see its minimum."}
	now := t.now.facts.BatteryDrop.Value
	if t.now.kind.Charger() {
		s.Path, now = "limits.chargerDrop", t.now.facts.ChargerDrop.Value
	}
	for _, percent := range []float64{2, 3, 5, 10} {
		d := t.with(s.Path, percent)
		level := Good
		if d.fails() != "" {
			level = Bad
		}
		worst := d.worstState()
		s.Options = append(s.Options, SchoolOption{Value: working.Plain(percent, "", 0), Label: working.Plain(percent, "%", 0), Now: percent == now, Level: level,
			Comes: fmt.Sprintf("Start run %s, aux run %s, %s of copper; %s at the coupling and %s at the aux battery at cruise, %s at the worst.",
				d.start.trial.Size.Copper(), d.aux.trial.Size.Copper(), working.Text(d.bill().CopperKg, "kg", 1), working.Text(d.cruiseState().inV, "V", 2), working.Text(d.cruiseState().auxV, "V", 2), working.Text(worst.inV, "V", 2))})
	}
	return s
}

func (t trier) fuseSize() School {
	s := School{ID: "fuse", Ask: "How is a fuse's size chosen?", Path: "schools.fuse", Default: "The lowest between 1.25 × the load and what the cable bears."}
	s.Options = t.options(s.Path, t.now.facts.Schools.Fuse, []string{"lowest", "1.2", "cable", "below"}, func(d *design, _ string) (string, Level) {
		level, says := Good, []string{}
		for _, l := range []*leg{&d.start, &d.aux} {
			name := strings.ToUpper(l.fuseID)
			carries := l.fuse.Carries(l.bay.AmbientC)
			says = append(says, fmt.Sprintf("%s %s carries %s of the %s that flow", name, working.Plain(l.fuse.RatingA, "A", 1), working.Text(carries, "A", 0), working.Text(l.amps, "A", 0)))
			if l.amps > carries+0.05 && level == Good {
				level = Caution
			}
			if l.fuse.RatingA > l.trial.AmpacityA || !l.cover.Saves {
				level = Bad
			}
		}
		return strings.Join(says, "; ") + ".", level
	})
	return s
}

func (t trier) takeoff() School {
	s := School{ID: "takeoff", Ask: "Where is the feed taken from?", Path: "schools.takeoff", Default: "The remote stud where there is one: cleaner, away from acid."}
	s.Options = t.options(s.Path, t.now.facts.Schools.Takeoff, []string{"post", "stud"}, func(d *design, v string) (string, Level) {
		if v == "post" {
			return fmt.Sprintf("%s at the coupling at the worst; the lug sits in the battery's acid, and comes off with every battery change.", working.Text(d.worstState().inV, "V", 2)), Good
		}
		if d.facts.Survey.Stud == job.No {
			return "This vehicle has none.", Caution
		}
		return fmt.Sprintf("%s at the coupling at the worst: the vehicle's own lead loses %s of it.", working.Text(d.worstState().inV, "V", 2), working.Text(d.start.amps*leadOhm, "V", 2)), Good
	})
	return s
}

func (t trier) negative() School {
	s := School{ID: "negative", Ask: "Where does the negative go, at a battery with a sensor?", Path: "schools.negative", Default: "On the chassis side of the sensor, always."}
	s.Options = t.options(s.Path, t.now.facts.Schools.Negative, []string{"chassis", "post"}, func(d *design, v string) (string, Level) {
		if v == "chassis" {
			return fmt.Sprintf("The sensor counts all of the %s that charging takes.", working.Text(d.start.amps, "A", 0)), Good
		}
		if d.facts.Survey.Sensor == job.No {
			return "There is no sensor on this battery.", Good
		}
		return fmt.Sprintf("Up to %s go past the sensor uncounted: in an hour the vehicle believes in %s that its battery does not have.", working.Text(d.start.amps, "A", 0), working.Text(d.start.amps, "Ah", 0)), Bad
	})
	return s
}

// A kit's cable and fuses. Source: from memory: 16 mm², five metres, two 60 A fuses, at
// four fifths of its parts bought singly.
const (
	kitMM2, kitM, kitFuseA, kitShare = 16.0, 5.0, 60.0, 0.8
)

func (t trier) supply() School {
	s := School{ID: "supply", Ask: "A kit or loose parts?", Path: "schools.supply", Default: "Whichever is cheaper and fits."}
	d := t.now
	bill := d.bill()
	loose := SchoolOption{Value: "loose", Label: "loose parts", Level: Good, Now: d.facts.Schools.Supply == "loose",
		Comes: fmt.Sprintf("Fitted to the job: %s of power cable, %s.", working.Text(bill.MetresM, "m", 1), price(bill.Cost))}
	kit := SchoolOption{Value: "kit", Label: "a kit", Level: Good, Now: d.facts.Schools.Supply == "kit"}
	var short []string
	for _, l := range []*leg{&d.start, &d.aux} {
		if l.auto.CopperMM2() > kitMM2*1.01 {
			short = append(short, fmt.Sprintf("%s needs %s and a kit has %s", strings.ToUpper(l.id), l.auto.Copper(), working.Plain(kitMM2, "mm²", 0)))
		}
	}
	if bill.MetresM > kitM {
		short = append(short, fmt.Sprintf("%s are needed and a kit has %s", working.Text(bill.MetresM, "m", 1), working.Plain(kitM, "m", 0)))
	}
	if d.start.autoFuse.RatingA > kitFuseA {
		short = append(short, fmt.Sprintf("F1 is %s and a kit's fuses are %s", working.Plain(d.start.autoFuse.RatingA, "A", 0), working.Plain(kitFuseA, "A", 0)))
	}
	kit.Comes = fmt.Sprintf("About %s.", price(bill.Cost*kitShare))
	if len(short) > 0 {
		kit.Level, kit.Comes = Bad, "Does not fit this job: "+strings.Join(short, "; ")+"."
	}
	s.Options = []SchoolOption{kit, loose}
	return s
}

func (t trier) emergency() School {
	s := School{ID: "emergency", Ask: "How is the engine started from the aux battery?", Path: "schools.emergency", Default: "Joined for ten seconds first: cranking current is more than the fuse bears."}
	d := t.now
	pre, crank := d.stateBy("precharge"), d.stateBy("joined")
	flow := math.Abs(had(pre.solved.Through("contact")))
	tenS, tenMin, quarter := d.movedByJoin()
	for _, v := range []string{"precharge", "share", "crank"} {
		field, _ := job.FieldAt(s.Path)
		o := SchoolOption{Value: v, Label: field.Show(v), Now: d.facts.Schools.Emergency == v, Level: Good}
		switch v {
		case "precharge":
			o.Comes = fmt.Sprintf("%s begin to flow into a flat start battery; ten seconds move %s: %s.", working.Text(flow, "A", 0), working.Text(tenS, "Ah", 2), d.fusesAt(flow))
		case "share":
			o.Comes = fmt.Sprintf("Ten to fifteen minutes move %s to %s into it.", working.Text(tenMin, "Ah", 1), working.Text(quarter, "Ah", 1))
		default:
			through := math.Abs(had(crank.solved.Through("contact")))
			opens := d.fusesAt(through)
			if d.mayOpen(through, longStartS) {
				o.Level = Bad
			}
			o.Comes = fmt.Sprintf("The starter gets %s, of it %s through the join: %s.", working.Text(had(crank.solved.Through("starter")), "A", 0), working.Text(through, "A", 0), opens)
			if bears := d.contact.CrankA; through > bears && bears > 0 {
				o.Level = Bad
				o.Comes += fmt.Sprintf(" The contact bears %s for seconds.", working.Text(bears, "A", 0))
			}
		}
		s.Options = append(s.Options, o)
	}
	return s
}

// movedByJoin is what goes into a flat start battery in ten seconds, ten and fifteen
// minutes of being joined to a full aux battery, in Ah; run through time.
func (d *design) movedByJoin() (tenS, tenMin, quarter float64) {
	rig := d.Rig(Nominal)
	rig.Start.SOC, rig.Aux.SOC, rig.Solar, rig.HouseA = flatSOC, 1, nil, 0
	moved, lastT, lastA := 0.0, 0.0, 0.0
	watch := func(f day.Frame) {
		moved += (f.T - lastT) * (lastA + f.StartA) / 2 / 3600
		lastT, lastA = f.T, f.StartA
		switch {
		case f.T <= 10:
			tenS = moved
		case f.T <= 600:
			tenMin = moved
		}
		quarter = moved
	}
	pattern := day.Pattern{{Kind: day.Joined, Seconds: 10}, {Kind: day.Joined, Seconds: 590}, {Kind: day.Joined, Seconds: 300}}
	if _, err := day.Run(rig, pattern, day.Conditions{OutsideC: warmC}, day.Options{Watch: watch}); err != nil {
		return 0, 0, 0
	}
	return max(0, tenS), max(0, tenMin), max(0, quarter)
}
