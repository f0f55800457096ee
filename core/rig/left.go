package rig

import (
	"errors"
	"fmt"
	"strings"

	"epitrope/core/battery"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Leaving answers what becomes of the start battery when an installation is left as it stands: the one
// answer for the mode table, the notes, the schools and the methods.
type Leaving struct {
	d        *design.Design
	noStarts func() float64
}

// leaving is what a run stands on.
type leaving struct {
	vehicleA float64
	joined   bool
}

// NewLeaving is that of a design.
func NewLeaving(d *design.Design) Leaving {
	return Leaving{d, func() float64 { return design.Kept(d, "no start", noStartSOC) }}
}

// Left is what becomes of it.
type Left struct {
	OutA      float64 // out of the start battery at first, or of both where they are joined
	Begins    int     // times that a charger begins
	StopsAt   float64 // charge of the start battery when a charger stops for good, 0 to 1; 0 where it does not
	NoStartAt float64 // … at which the engine no longer starts; 0: it always does
	HalfH     float64 // half empty after so many hours; 0: not within LeftH
	NoStartH  float64 // the engine no longer starts; 0: not within LeftH
	EndsAt    float64 // charge of the start battery after LeftH, where neither came
	endsH     float64 // when the run ended

	First *working.Figure // which of the two comes first, where the vehicle alone takes from it
	Says  string
}

// HoursToHalf and HoursToNoStart are how long a start battery lasts with the vehicle alone on it.
var (
	HoursToHalf    = lasts("start battery half empty after")
	HoursToNoStart = lasts("engine no longer starts after")
)

func lasts(name string) *working.Formula {
	return working.Declare("t = C·s / I",
		"conservation of charge; a battery below half may not start in the cold (common practice, no source)",
		working.Symbol{Letter: "t", Name: name, Unit: "h", Digits: 0},
		working.Symbol{Letter: "C", Name: "start battery", Unit: "Ah", Digits: 0},
		working.Symbol{Letter: "s", Name: "share that may go", Unit: "", Digits: 2},
		working.Symbol{Letter: "I", Name: "out of it", Unit: "A", Digits: 2})
}

// A start battery in use, one that may not start in the cold, and an aux battery in use or with charging
// to do. Source: common practice, no source.
const (
	healthySOC = battery.InUse
	halfSOC    = 0.5
	usedSOC    = 0.75
	emptySOC   = 0.5
)

// LeftH is how long a coupling that is left working is looked at, in h.
const LeftH = 240.0

// huntsFrom is how often a charger begins until that is called hunting, and huntsMost how many of that are
// run before the rest is reckoned.
const (
	huntsFrom = 4
	huntsMost = 1000
)

// At is what becomes of it in a state that was solved and stays. What a coupling does is run through
// time; a vehicle alone takes what it takes.
func (l Leaving) At(s *design.State) Left {
	out := Left{OutA: circuit.Had(s.Solved.Through("start battery")), NoStartAt: l.noStarts()}
	switch {
	case s.Joined && !l.d.Is.OwnMachine:
		amps := out.OutA + circuit.Had(s.Solved.Through("aux battery"))
		out = l.run(leaving{s.VehicleA, true})
		out.OutA = amps
	case l.d.Kind.Charger() && (!s.Stopped || s.Err != nil):
		amps := out.OutA
		out = l.run(leaving{s.VehicleA, false})
		if out.Begins >= huntsMost {
			l.reckon(&out, s.VehicleA)
		}
		out.OutA = amps
	default:
		l.alone(&out)
	}
	out.Says = out.says()
	return out
}

// Live is what becomes of it with the coupling's signal live, everything else where it usually stands and
// the key so; what needs no signal stays closed.
func (l Leaving) Live(k design.KeyState) Left {
	s := l.d.StateAt("", k)
	s.Held = circuit.HeldLive
	if l.d.Is.Senses {
		s.Joined = true
		s.Solved, s.Err = circuit.Lay(&l.d.System, l.d.Facts.N).Solve(s.State, s.Position)
	} else {
		l.d.Settle(&s)
	}
	return l.At(&s)
}

// With is what becomes of it with the vehicle asleep and so much more on it.
func (l Leaving) With(amps float64) Left {
	out := Left{OutA: amps + l.d.Facts.Machine.AsleepA.Value, NoStartAt: l.noStarts()}
	l.alone(&out)
	out.Says = out.says()
	return out
}

// idlesH is how long an engine that idles is looked at, in h, and idleHunts how often a charger may begin in it
// until the rest is reckoned from what was seen.
const (
	idlesH    = 24.0
	idleHunts = 6
)

// Idling is what standing with the engine on costs the start battery, lamps and blower on, charging to do: in
// an hour, which is run through time, and until the engine no longer starts if it goes on like that; in words.
func (l Leaving) Idling() string {
	return design.Kept(l.d, "idling", func(*design.Design) string { return l.idling() })
}

func (l Leaving) idling() string {
	r := Of(l.d, Nominal)
	r.Solar, r.VehicleA, r.Start.SOC, r.Aux.SOC = nil, r.LampsA, healthySOC, emptySOC
	soc, atH, begins, charging := healthySOC, 0.0, 0, false
	watch := func(f day.Frame) {
		is := f.Stage != coupling.Resting
		if is && !charging {
			begins++
		}
		soc, atH, charging = f.StartSOC, f.T/3600, is
	}
	hour, garage := day.Pattern{{Kind: day.Idle, Seconds: 3600}}, day.Conditions{OutsideC: design.WarmC}
	over := func() bool { return begins >= idleHunts }
	_, err := day.Run(r, hour, garage, day.Options{Watch: watch, Halt: over, Most: leftLooks})
	if err != nil && !errors.Is(err, day.ErrHalted) || atH == 0 {
		return ""
	}
	capacity := l.d.Facts.StartAh.Value
	perHour := (healthySOC - soc) * capacity / atH
	if perHour < leastTook {
		return unit.Say("What charges drops out, or takes less, before an hour of it takes anything that counts out of the start battery.")
	}
	says := unit.Say("An hour of it takes %.0f of the start battery's %.0f Ah", perHour, capacity)
	if begins >= huntsFrom {
		says += ", as the charger stops and begins again by its own cut-out"
	}
	if goes := (healthySOC - l.noStarts()) * capacity / perHour; goes < idlesH {
		return says + "; after " + unit.Span(goes) + " the engine no longer starts."
	}
	return says + "; after " + unit.Span(idlesH) + " the engine still starts."
}

// leftLooks is how far such a run is followed: a plan has several, and waits for them.
const leftLooks = 90_000

// leastTook is what is worth saying, in Ah.
const leastTook = 1.0

// HalfAsleepH is after how many hours the vehicle asleep has half emptied its start battery.
func HalfAsleepH(d *design.Design) float64 {
	return (healthySOC - halfSOC) * d.Facts.StartAh.Value / max(d.Facts.Machine.AsleepA.Value, leastA)
}

// alone is the vehicle on its battery, for ever.
func (l Leaving) alone(o *Left) {
	amps := working.Is(max(o.OutA, leastA), "from the circuit")
	half := HoursToHalf.MustWork(l.d.Facts.StartAh.Input(), working.From(healthySOC-halfSOC, working.Practice, "from 90 to 50 %"), amps)
	dies := HoursToNoStart.MustWork(l.d.Facts.StartAh.Input(), working.Is(max(0, healthySOC-o.NoStartAt), "cranked through time"), amps)
	o.First, o.HalfH, o.NoStartH = &half, half.Unrounded, dies.Unrounded
	if o.NoStartH < o.HalfH {
		o.First = &dies
	}
}

// leastA is a drain no larger than a battery's own. Source: from memory.
const leastA = 0.001

// run runs the installation parked, with so much on the start battery and its coupling at work.
func (l Leaving) run(at leaving) Left {
	return design.Kept(l.d, fmt.Sprintf("left %+v", at), func(*design.Design) Left { return l.ranOut(at) })
}

func (l Leaving) ranOut(at leaving) Left {
	o := Left{NoStartAt: l.noStarts()}
	r := Of(l.d, Nominal)
	r.Solar, r.AsleepA, r.Start.SOC, r.Aux.SOC = nil, at.vehicleA, healthySOC, emptySOC
	if at.joined {
		r.Join.By, r.Aux.SOC = day.Always, usedSOC
	} else {
		r.Charger.By = day.Switched
	}
	charging := false
	watch := func(f day.Frame) {
		is := f.Stage != coupling.Resting
		if is && !charging {
			o.Begins, o.StopsAt = o.Begins+1, 0
		} else if charging && !is {
			o.StopsAt = f.StartSOC
		}
		charging, o.EndsAt, o.endsH = is, f.StartSOC, f.T/3600
		if f.StartSOC < halfSOC && o.HalfH == 0 {
			o.HalfH = f.T / 3600
		}
		if f.StartSOC < o.NoStartAt && o.NoStartH == 0 {
			o.NoStartH = f.T / 3600
		}
	}
	over := func() bool {
		return o.Begins >= huntsMost || o.HalfH > 0 && (o.NoStartH > 0 || o.NoStartAt == 0)
	}
	parked, garage := day.Pattern{{Kind: day.Park, Seconds: LeftH * 3600}}, day.Conditions{OutsideC: design.WarmC}
	_, err := day.Run(r, parked, garage, day.Options{Watch: watch, Halt: over, Most: leftLooks})
	if err != nil && !errors.Is(err, day.ErrHalted) {
		o.EndsAt = 0 // it goes no further than what was seen
	}
	return o
}

// reckon goes on where a hunting charger was left, as if it rested from there on: its signal, its standby and
// the vehicle take from the battery.
func (l Leaving) reckon(o *Left, vehicleA float64) {
	o.StopsAt = 0 // it does not stop for good
	restA := max(leastA, vehicleA+l.d.SignalA()+l.d.Charger.StandbyA)
	when := func(soc float64) float64 { return o.endsH + (o.EndsAt-soc)*l.d.Facts.StartAh.Value/restA }
	if o.HalfH == 0 {
		o.HalfH = when(halfSOC)
	}
	if o.NoStartH == 0 && o.NoStartAt > 0 && o.NoStartAt < o.EndsAt {
		o.NoStartH = when(o.NoStartAt)
	}
}

// says tells it in words.
func (o Left) says() string {
	if o.NoStartAt >= healthySOC {
		return "this start battery hardly cranks its engine as it is"
	}
	var list []string
	if o.Begins >= huntsFrom {
		list = append(list, "the charger begins and stops again and again")
	}
	if o.StopsAt > halfSOC {
		list = append(list, unit.Say("the charger's own cut-out stops the charger with %s left", unit.Text(100*o.StopsAt, "%", 0)))
	}
	if o.HalfH > 0 && (o.NoStartH == 0 || o.NoStartH > o.HalfH && unit.Span(o.HalfH) != unit.Span(o.NoStartH)) {
		list = append(list, "the start battery is half empty after "+unit.Span(o.HalfH))
	}
	switch {
	case o.NoStartH > 0:
		list = append(list, "the engine no longer starts after "+unit.Span(o.NoStartH))
	case o.HalfH == 0 && o.EndsAt > 0:
		list = append(list, unit.Say("after %s the start battery still has %s", unit.Span(LeftH), unit.Text(100*o.EndsAt, "%", 0)))
	}
	return strings.Join(list, "; ")
}

// noStartSOC is the charge at which a rested start battery no longer cranks the engine for
// as long as a start takes, 0 to 1, at 20 °C; 0 where it always does, 1 where it does not even when it is full. It is
// found by cranking, through time: a battery falls further in two seconds than its resistance says.
func noStartSOC(d *design.Design) float64 { return battery.LeastCharge(starting(d), startHalvings) }

// startHalvings is how closely that charge is found: to a fifth of a percent.
const startHalvings = 9

// starting says of a charge whether a rested start battery cranks the engine with it.
func starting(d *design.Design) func(soc float64) bool {
	start := day.Pattern{{Kind: day.Crank, Seconds: d.Facts.CrankS.Value}}
	rig := Of(d, Nominal)
	rig.Solar = nil
	return func(soc float64) bool {
		rig.Start.SOC = soc
		got, err := day.Run(rig, start, day.Conditions{OutsideC: design.WarmC}, day.Options{})
		return err == nil && got.Verdict.FailedStarts == 0
	}
}

// Starts says whether a start battery that is full starts the engine at all.
func (l Leaving) Starts() bool {
	return design.Kept(l.d, "starts", func(d *design.Design) bool { return starting(d)(1) })
}
