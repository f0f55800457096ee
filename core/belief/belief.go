// Package belief holds what is taken for granted against a job: whether it is so here, and the figure that
// shows it.
package belief

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Answer is what holds of something that somebody takes for granted.
type Answer struct {
	ID     string
	Path   string // of the answer in the document
	Column string
	So     bool
	Text   string
	Mark   working.Origin
}

// belief is one of them: where it is answered, where its rule comes from, what is said where it is not so and
// where it is (nothing, where it never is), and how that is told, with what fills the sentence.
type belief struct {
	id, column string
	mark       working.Origin
	not, so    string
	held       func(b job.Beliefs) *string
	tells      func(d *design.Design) (so bool, text []any)
}

// with is a verdict with what fills its sentence.
func with(so bool, text ...any) (bool, []any) { return so, text }

// Answers are what holds of what is taken for granted on a job, told or without their sentences: some of those
// take a run through time.
func Answers(d *design.Design, told bool) []Answer {
	list := []Answer{}
	for _, b := range beliefs {
		if job.Str(b.held(d.Doc.Beliefs)) != string(job.Yes) {
			continue
		}
		so, text := b.tells(d)
		sentence := b.not
		if so {
			sentence = b.so
		}
		if sentence == "" {
			continue
		}
		a := Answer{ID: b.id, Path: "beliefs." + b.id, Column: b.column, So: so, Mark: b.mark}
		if told {
			a.Text = say(sentence, text)
		}
		list = append(list, a)
	}
	return list
}

// later is what is found only where it is told.
type later func() string

func say(sentence string, text []any) string {
	for i := range text {
		if find, is := text[i].(later); is {
			text[i] = find()
		}
	}
	return unit.Say(sentence, text...)
}

// beliefs are all that can be picked in the survey.
var beliefs = []belief{
	{"draws", "coupling", working.Physics,
		"A charger does not draw what it gives: for %.0f A out it draws up to %.0f A, and more the lower its input is.",
		"Nothing boosts here: what goes into the coupling comes out of it.",
		func(b job.Beliefs) *string { return b.Draws }, func(d *design.Design) (bool, []any) {
			if !d.Kind.Charger() {
				return with(true)
			}
			return with(false, d.Charger.OutputA, d.InputA(d.Charger))
		}},
	{"drop", "c1", working.Standard,
		"Little drop is not enough: %s would be %s by its drop alone, which carries %.0f A where it lies, and %.0f A flow.",
		"On this job it holds: what loses little enough also carries the load.",
		func(b job.Beliefs) *string { return b.Drop }, func(d *design.Design) (bool, []any) {
			if name, t, amps, burns := byDropAlone(d); burns {
				return with(false, name, t.Size.Copper(), t.AmpacityA, amps)
			}
			return with(true)
		}},
	{"oneFuse", "aux", working.Physics,
		"One fuse is not enough: a short on the aux run draws up to %s out of the aux battery, past no fuse but %s.", "",
		func(b job.Beliefs) *string { return b.OneFuse }, func(d *design.Design) (bool, []any) {
			return with(false, unit.Kilo(d.Aux.NearFault), "one of its own")
		}},
	{"volts", "aux", working.Physics,
		"Volts do not say full: at the end of bulk the aux battery stands at %.1f V and still takes %.0f A.", "",
		func(b job.Beliefs) *string { return b.Volts }, func(d *design.Design) (bool, []any) {
			s := d.CruiseState()
			return with(s.Err != nil || s.OutA <= 0, s.AuxV, s.OutA)
		}},
	{"label", "alternator", working.Practice,
		"The label says %.0f A; at idle, hot, the alternator gives %.0f A, and the vehicle takes %.0f A with lamps and blower on.", "",
		func(b job.Beliefs) *string { return b.Label }, func(d *design.Design) (bool, []any) {
			return with(false, d.Facts.LabelA.Value, d.MachineA(d.Facts.IdleTurns()), d.Facts.LoadA.Value)
		}},
	{"rest", "aux", working.Memory,
		"At %.1f V, rested, %s is about %.0f %% full.", "",
		func(b job.Beliefs) *string { return b.Rest }, func(d *design.Design) (bool, []any) {
			return with(false, restSaidV*d.Facts.AuxN, d.Facts.Chemistry.Label, 100*d.Facts.Chemistry.Charge(restSaidV))
		}},
	{"apart", "coupling", working.Physics,
		"Parked%s, they are not apart: the %s stays closed, with %.1f V on it.",
		"Parked, both batteries are apart%s.",
		func(b job.Beliefs) *string { return b.Apart }, func(d *design.Design) (bool, []any) {
			if s := d.StateBy("parked"); s.Joined && !d.Is.OwnMachine {
				return with(false, "", d.Kind.Label(), s.BusV)
			}
			if s := inTheSun(d); s.Joined && !d.Is.OwnMachine {
				return with(false, " in the sun", d.Kind.Label(), s.BusV)
			}
			once := ""
			if d.Is.Senses {
				once = ", once the relay has let go"
			}
			return with(true, once)
		}},
	{"length", "c2", working.Physics,
		"Plus and minus of one battery need no equal length: their sum counts, %.1f mΩ there and back from the coupling.",
		"Between the %.0f batteries of the bank it is so: each needs a way of the same resistance.",
		func(b job.Beliefs) *string { return b.Length }, func(d *design.Design) (bool, []any) {
			if n := d.Facts.Survey.AuxCount.Value; n > 1 {
				return with(true, n)
			}
			return with(false, 1000*d.Aux.Trial.LoopOhm)
		}},
	{"chassis", "return", working.Physics,
		"The steel leads better here: with its joints it has %.1f mΩ, and %s all the way back would have %.1f mΩ.",
		"On this job a cable leads back at least as well: steel and joints %.1f mΩ, %s %.1f mΩ.",
		func(b job.Beliefs) *string { return b.Chassis }, func(d *design.Design) (bool, []any) {
			size := d.ReturnLeg().Trial.Size
			steel, back := d.SteelOhm(d.Back.ChassisM), d.Back.AlongM*size.OhmPerM()
			return with(!d.Back.ByChassis || steel >= back, 1000*steel, size.Copper(), 1000*back)
		}},
	{"accessory", "coupling", working.Physics,
		"Accessory is live with the engine stopped: left so, %s.", "The coupling needs no signal.",
		func(b job.Beliefs) *string { return b.Accessory }, func(d *design.Design) (bool, []any) {
			if !d.Wired() {
				return with(true)
			}
			return with(false, later(func() string { return rig.NewLeaving(d).Live(design.Accessory).Says }))
		}},
	{"cranks", "coupling", working.Physics,
		"Cranking through the join drives %.0f A through %s, which may open after %s.",
		"On this job nothing opens while the engine is cranked.",
		func(b job.Beliefs) *string { return b.Cranks }, func(d *design.Design) (bool, []any) {
			amps := math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("contact")))
			fuse, after := d.Soonest(amps)
			if d.Is.CanJoin && after < design.LongStartS {
				return with(false, amps, fuse, unit.Seconds(after))
			}
			return with(true)
		}},
	{"click", "coupling", working.Practice,
		"A click proves the coil and a lamp a command: with F2 out both are the same, and none of the %.0f A arrive.", "",
		func(b job.Beliefs) *string { return b.Click }, func(d *design.Design) (bool, []any) {
			return with(false, d.StateBy("bay").OutA)
		}},
	{"eight", "c1", working.Practice,
		"Auto cable is named by its outside: 6 mm has about %.1f mm² of copper.", "",
		func(b job.Beliefs) *string { return b.Eight }, func(*design.Design) (bool, []any) {
			size, _ := cable.Parse("6 mm auto") // a name that reads
			return with(false, size.CopperMM2())
		}},
	{"stands", "aux", working.Practice,
		"Deep-cycle does not mean that it may stand: left full, this one wants charging again after %.0f days.", "",
		func(b job.Beliefs) *string { return b.Stands }, func(d *design.Design) (bool, []any) {
			_, days := d.TopUp()
			return with(false, days)
		}},
}

// inTheSun is parked with the key out and the sun on the panels, as after a drive.
func inTheSun(d *design.Design) design.State {
	s := d.StateAt("", design.KeyOut)
	if w := d.Facts.Day.SolarW.Value; w > 0 {
		s.SunA = design.SunShare * w / (14 * d.Facts.AuxN)
	}
	d.Settle(&s)
	return s
}

// restSaidV is what people read as nearly full, at 12 V.
const restSaidV = 12.3

// byDropAlone is a stretch that would burn, sized by its drop alone.
func byDropAlone(d *design.Design) (name string, t cable.Trial, amps float64, burns bool) {
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		for _, size := range d.Facts.Reels {
			if t := l.Loop.Try(size); !l.Loses(t) {
				if t.AmpacityA < l.Amps {
					return map[string]string{"c1": "C1", "c2": "C2"}[l.ID], t, l.Amps, true
				}
				break
			}
		}
	}
	return "", cable.Trial{}, 0, false
}
