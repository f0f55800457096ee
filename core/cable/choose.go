package cable

import (
	"epitrope/core/unit"
	"fmt"
)

// Test is what a cable has to pass; the worst of the three decides its size.
type Test string

// The three tests.
const (
	ByDrop     Test = "drop"
	ByAmpacity Test = "ampacity"
	ByFuse     Test = "fuse"
)

// Trial is one size tried for a run.
type Trial struct {
	Size       Size
	Carried    Carried
	AmpacityA  float64 // carries where it lies
	ConductorC float64 // at the run's current; where it Burns the insulation's limit, or the place where that is hotter
	Burns      bool    // it carries more than it may
	BackC      float64 // the return's, where it lies elsewhere; otherwise the same
	InBack     bool    // the return's place allows less than its own
	LoopOhm    float64 // warm copper of the loop and what else is in series
	DropV      float64
}

// Loop is a run to be sized.
type Loop struct {
	Amps       float64
	CableM     float64 // length of this cable in the loop: both legs where the return is the same cable
	OtherOhm   float64 // contacts, fuse and chassis in series
	Bay        Bay
	BackM      float64 // of it, in a place of its own: the return
	BackBay    Bay
	Insulation Insulation
}

// Try returns what a size would do in the loop.
func (l Loop) Try(s Size) Trial {
	t := Trial{Size: s}
	t.Carried = l.Insulation.Carries(s, l.Bay)
	t.ConductorC = l.runsAt(s, l.Bay)
	t.BackC = t.ConductorC
	if l.BackM > 0 {
		t.BackC = l.runsAt(s, l.BackBay)
		if back := l.Insulation.Carries(s, l.BackBay); back.Amps < t.Carried.Amps {
			t.Carried, t.InBack = back, true
		}
	}
	t.AmpacityA = t.Carried.Amps
	t.Burns = l.Amps > t.AmpacityA
	t.LoopOhm = Resistance.Value(s.OhmPerM(), l.CableM-l.BackM, Alpha, t.ConductorC) +
		Resistance.Value(s.OhmPerM(), l.BackM, Alpha, t.BackC) + l.OtherOhm
	t.DropV = Drop.Value(l.Amps, t.LoopOhm)
	return t
}

// runsAt is how warm a size runs in a place, in °C.
func (l Loop) runsAt(s Size, b Bay) float64 {
	hottest := max(l.Insulation.LimitC, b.AmbientC)
	if c, err := l.Insulation.Thermal(s, b).SteadyC(l.Amps); err == nil {
		// Within the tables a cable is within its limit, whatever the balance says.
		return min(c, hottest)
	}
	return hottest
}

// NoSize is a run that no size on the shelf can serve.
type NoSize struct {
	Test Test
	Amps float64
	Max  Size
}

func (e *NoSize) Error() string {
	return fmt.Sprintf("no cable up to %s passes the %s test at %s", e.Max.Label, e.Test, unit.Plain(e.Amps, "A", 1))
}

// Choose returns the thinnest size of shelf that keeps the drop within dropV,
// bears the current where it lies, and bears a fuse that fused accepts; and which
// of the three tests decided: the one that asked for the thickest cable, and of
// two that asked for the same, ampacity before drop before fuse. It returns
// *NoSize where the shelf ends first.
func (l Loop) Choose(shelf []Size, dropV float64, fused func(Trial) bool) (Trial, Test, error) {
	passes := []struct {
		test Test
		ok   func(Trial) bool
	}{
		{ByAmpacity, func(t Trial) bool { return t.AmpacityA >= l.Amps }},
		{ByDrop, func(t Trial) bool { return t.DropV <= dropV }},
		{ByFuse, fused},
	}
	decided, best := ByAmpacity, -1
	trials := make([]Trial, 0, len(shelf))
	for _, p := range passes {
		at := 0
		for ; at < len(shelf); at++ {
			if at == len(trials) {
				trials = append(trials, l.Try(shelf[at]))
			}
			if p.ok(trials[at]) {
				break
			}
		}
		if at == len(shelf) {
			return Trial{}, p.test, &NoSize{p.test, l.Amps, shelf[len(shelf)-1]}
		}
		if at > best {
			decided, best = p.test, at
		}
	}
	return trials[best], decided, nil
}
