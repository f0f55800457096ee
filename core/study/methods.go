package study

import (
	"fmt"
	"math"

	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Method is a coupling beside the others: the rules, what its circuit does, and what it
// comes to through time.
type Method struct {
	Consequence
	Driven
}

// Driven is what a coupling comes to through time.
type Driven struct {
	To80H   float64 `json:"to80H" doc:"Driving from where the aux battery begins to 80 %, nothing used, in h; −1 never within two days' driving"`
	FullH   float64 `json:"fullH" doc:"… until it is full"`
	FromPct float64 `json:"fromPct" doc:"Where it begins, in %"`
	Week    Outcome `json:"week"`
	Aims    []Met   `json:"aims" doc:"The days as they are driven"`
	Fails   Failing `json:"fails" doc:"What it does if its signal fails"`
	Stopped string  `json:"stopped,omitempty" doc:"Why a run could not go on"`
}

// Failing is what a coupling does if its signal fails one way or the other.
type Failing struct {
	Dead      string  `json:"dead" doc:"The signal stays away"`
	Live      string  `json:"live" doc:"It stays live, or the contact stays closed, with the key out"`
	HalfAfter float64 `json:"halfAfter" doc:"Start battery half empty after so many hours parked then; −1 not within ten days"`
}

// Methods is every coupling on a job, in the circuit and through time.
func Methods(now *design.Design) []Method {
	out := make([]Method, len(coupling.Kinds()))
	eachOn(now, func(i int, d *design.Design) {
		out[i] = Method{Consequence: consequence(d, d.Kind == now.Kind), Driven: driven(d, nil)}
	})
	return out
}

// Consequences is every coupling on a job without running it.
func Consequences(now *design.Design) []Consequence {
	out := make([]Consequence, len(coupling.Kinds()))
	eachOn(now, func(i int, d *design.Design) { out[i] = consequence(d, d.Kind == now.Kind) })
	return out
}

// Drive runs one coupling on a job. halt, where it is not nil, is asked now and then whether
// to stop.
func Drive(now *design.Design, kind coupling.Kind, halt func() bool) Driven {
	return driven(on(now, kind), halt)
}

// eachOn decides a job with every coupling, on all processors.
func eachOn(now *design.Design, use func(i int, d *design.Design)) {
	kinds := coupling.Kinds()
	many(len(kinds), nil, func(i int, _ func() bool) { use(i, on(now, kinds[i])) })
}

// on decides a job with a coupling, where another may be fitted.
func on(now *design.Design, kind coupling.Kind) *design.Design {
	doc, pin := now.Doc, string(kind)
	if was := doc.Pins.Coupling; was != nil && *was == pin {
		return now
	}
	doc.Pins.Coupling = &pin
	if kind != now.Kind {
		doc.Pins = only(doc.Pins)
	}
	return now.With(doc)
}

// only is what of the pins holds for another coupling: its return and kind of fuse, not
// the sizes pinned for this one.
func only(p job.Pins) job.Pins {
	return job.Pins{Coupling: p.Coupling, Device: p.Device, Return: p.Return, PlugA: p.PlugA, SecondA: p.SecondA, Selector: p.Selector}
}

// How long a battery is charged to see when it is full, and how long it is left parked.
const (
	chargedH = 48.0
	parkedH  = 240.0
	// huntsAfter is how often a charger may begin anew before it is said to hunt.
	huntsAfter = 50
)

func driven(d *design.Design, halt func() bool) Driven {
	m := Driven{To80H: -1, FullH: -1}
	m.charge(d, halt)
	week, err := once(d, rig.Nominal, halt)
	if err != nil {
		m.Stopped = err.Error()
	}
	m.Week, m.Aims = week, week.Judge()
	m.fail(d, halt)
	return m
}

// charge drives on, nothing used and no sun, until the aux battery is full.
func (m *Driven) charge(d *design.Design, halt func() bool) {
	v := rig.Nominal
	v.House = 0
	rigged := rig.Of(d, v)
	rigged.Solar = nil
	m.FromPct = percent(rigged.Aux.SOC)
	_, conditions := rig.Varied(d, v)
	drive := day.Pattern{{Kind: day.Crank, Seconds: 2}, {Kind: day.Highway, Seconds: 570}, {Kind: day.LiftOff, Seconds: 30}}
	pattern := append(day.Pattern{drive[0]}, drive[1:].Repeat(chargedH/24)...)
	full := false
	watch := func(f day.Frame) {
		if f.AuxSOC >= 0.80 && m.To80H < 0 {
			m.To80H = unit.Round(f.T/3600, 1)
		}
		if f.AuxSOC >= fullSOC && m.FullH < 0 {
			m.FullH, full = unit.Round(f.T/3600, 1), true
		}
	}
	_, err := day.Run(rigged, pattern, conditions, day.Options{Watch: watch, Halt: func() bool { return full || halt != nil && halt() }})
	if err != nil && !full && m.Stopped == "" {
		m.Stopped = err.Error()
	}
}

// fullSOC is what counts as full.
const fullSOC = 0.98

// fail looks at what happens when the signal fails.
func (m *Driven) fail(d *design.Design, halt func() bool) {
	m.Fails.HalfAfter = -1
	daily := d.Facts.DailyAh.Value
	usable := d.Facts.AuxAh.Value * d.Facts.Chemistry.Usable
	lasts := fmt.Sprintf("no charge: what the aux battery has lasts %s", unit.Text(usable/math.Max(daily, 0.1), "days", 1))
	switch {
	case d.Is.OwnMachine:
		m.Fails.Dead, m.Fails.Live = "no signal needed", "nothing: it is apart from the start battery"
		return
	case d.Is.Splits:
		m.Fails.Dead, m.Fails.Live = "no signal needed; a diode open: "+lasts, "nothing: the diodes keep the batteries apart"
		return
	case d.Is.Senses:
		m.Fails.Dead = "no signal needed; its own earth lost: " + lasts
	default:
		m.Fails.Dead = lasts
	}
	stuck := d.Doc
	trigger := "switch"
	stuck.Day.Trigger = &trigger
	always := string(coupling.JoinedForGood)
	if d.Is.ByHand == design.Selector {
		stuck.Pins.Selector = &always
	}
	s := d.With(stuck)
	rigged := rig.Of(s, rig.Nominal)
	rigged.Solar = nil
	if d.Is.Senses {
		rigged.Join.By = day.Always // it needs no signal: its contact stays closed
	}
	_, conditions := rig.Varied(s, rig.Nominal)
	below, runs, ran := false, 0, false
	watch := func(f day.Frame) {
		if is := f.Stage != coupling.Resting; is != ran {
			ran = is
			runs++
		}
		if f.StartSOC < 0.5 && !below {
			below, m.Fails.HalfAfter = true, unit.Round(f.T/3600, 1)
		}
	}
	pattern := day.Pattern{{Kind: day.Park, Seconds: parkedH * 3600}}
	_, err := day.Run(rigged, pattern, conditions, day.Options{Watch: watch,
		Halt: func() bool { return below || runs > 2*huntsAfter || halt != nil && halt() }})
	switch {
	case runs > 2*huntsAfter:
		m.Fails.Live = fmt.Sprintf("the charger begins and stops again, %d times and more: its cut-out keeps the start battery from going flat",
			huntsAfter)
	case below:
		m.Fails.Live = fmt.Sprintf("start battery half empty after %s parked", unit.Span(m.Fails.HalfAfter))
	case err != nil:
		m.Fails.Live = "could not be run: " + err.Error()
	default:
		m.Fails.Live = "start battery still above half after ten days"
	}
}
