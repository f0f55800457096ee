package instrument

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
)

// Simulated is a recording that a logger might have made, for trying things and for
// tests. They are assumed: of no vehicle.
type Simulated struct {
	ID    string
	Says  string
	write func(r *rand.Rand) string
}

// Simulations lists the recordings: one of each kind, and those that go wrong.
var Simulations = []Simulated{
	{"fixed", "a steady alternator, a whole test", whole(steady)},
	{"compensated", "one that falls as it warms, a whole test", whole(warming)},
	{"variable", "one that eases off and charges on lift-off, a whole test", whole(easing)},
	{"not-charging", "an alternator that gives nothing", whole(dead)},
	{"variable-no-rpm", "a variable one, volts alone", plainly(easing, "time,volts", "%.0f,%.2f\n", false, 1200)},
	{"steady-no-rpm", "a steady one, volts alone: what would show a variable one is not in it",
		plainly(steady, "time,volts", "%.0f,%.2f\n", false, 1200)},
	{"short", "four minutes of a steady one", plainly(steady, "time,volts", "%.0f,%.2f\n", false, 240)},
	{"loaded-idle", "a steady one whose idle is pulled low by lamps and heater", whole(loaded)},
	{"comma-millivolts", "semicolons, decimal commas, millivolts", millivolts},
	{"gaps-and-glitches", "a logger that drops out and jumps", broken},
	{"24-volt", "a truck's", plainly(func(r *rand.Rand, m moment) float64 { return 2 * easing(r, m) }, "Elapsed;Battery V", "%.0f;%.2f\n",
		false, 1200)},
}

// SimulationByID finds a recording. The error names those there are.
func SimulationByID(id string) (Simulated, error) {
	ids := make([]string, len(Simulations))
	for i, s := range Simulations {
		if s.ID == id {
			return s, nil
		}
		ids[i] = s.ID
	}
	return Simulated{}, fmt.Errorf("%q is not a recording; allowed are %s", id, strings.Join(ids, ", "))
}

// Write writes the recording as CSV; the same every time.
func (s Simulated) Write() string { return s.write(rand.New(rand.NewPCG(7, uint64(len(s.ID))))) }

// moment is a moment of a test drive.
type moment struct {
	t, rpm   float64
	lift     bool
	sinceOff float64 // since lift-off began or ended
}

// drive is a test: four minutes of idle, twelve of cruise with a lift-off every minute
// and a half, four of idle.
func drive(t float64) moment {
	m := moment{t: t, rpm: 760}
	if t < 240 || t > 960 {
		return m
	}
	at := math.Mod(t-240, 90)
	m.rpm, m.sinceOff = 2250, at
	if at > 70 {
		m.lift, m.sinceOff = true, at-70
		m.rpm = math.Max(1100, 2250-200*m.sinceOff)
	}
	return m
}

func noise(r *rand.Rand) float64 { return 0.03 * (r.Float64() - 0.5) }

func steady(r *rand.Rand, m moment) float64 {
	if m.rpm < 1000 {
		return 14.27 + noise(r)
	}
	return 14.33 + noise(r)
}

func warming(r *rand.Rand, m moment) float64 { return 14.1 + 0.55*math.Exp(-m.t/500) + noise(r) }

func easing(r *rand.Rand, m moment) float64 {
	reach := 1 - math.Exp(-(m.sinceOff+0.5)/1.5)
	switch {
	case m.t < 150:
		return 14.4 + noise(r)
	case m.lift:
		return 12.9 + 2.0*reach + noise(r)
	case m.rpm < 1000:
		return 12.85 + noise(r)
	}
	return 14.9 - 2.0*reach + noise(r)
}

func dead(r *rand.Rand, m moment) float64 { return 12.35 - 0.0003*m.t + noise(r) }

func loaded(r *rand.Rand, m moment) float64 {
	if m.rpm < 1000 && m.t > 100 {
		return 12.95 + noise(r)
	}
	return steady(r, m)
}

func whole(volts func(*rand.Rand, moment) float64) func(*rand.Rand) string {
	return func(r *rand.Rand) string {
		var b strings.Builder
		b.WriteString("time,volts,rpm\n")
		for t := 0.0; t < 1200; t++ {
			m := drive(t)
			fmt.Fprintf(&b, "%.0f,%.2f,%.0f\n", t, volts(r, m), m.rpm+20*(r.Float64()-0.5))
		}
		return b.String()
	}
}

func plainly(volts func(*rand.Rand, moment) float64, head, format string, comma bool, seconds float64) func(*rand.Rand) string {
	return func(r *rand.Rand) string {
		var b strings.Builder
		b.WriteString(head + "\n")
		for t := 0.0; t < seconds; t++ {
			line := fmt.Sprintf(format, t, volts(r, drive(t)))
			if comma {
				line = strings.ReplaceAll(line, ".", ",")
			}
			b.WriteString(line)
		}
		return b.String()
	}
}

func millivolts(r *rand.Rand) string {
	mv := func(r *rand.Rand, m moment) float64 { return 1000 * warming(r, m) }
	return plainly(mv, "Time (s);Channel 1 voltage (mV)", "%.1f;%.1f\n", true, 1200)(r)
}

func broken(r *rand.Rand) string {
	var b strings.Builder
	b.WriteString("time,volts,rpm\n")
	for t := 0.0; t < 1200; t++ {
		m := drive(t)
		v := easing(r, m)
		switch {
		case t > 500 && t < 590:
			continue // the plug fell out
		case r.IntN(60) == 0:
			v = 0
		case r.IntN(80) == 0:
			v = 99.99
		}
		fmt.Fprintf(&b, "%.0f,%.2f,%.0f\n", t, v, m.rpm)
	}
	return b.String()
}
