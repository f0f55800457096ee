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
	LoopOhm    float64 // warm copper of the loop and what else is in series
	DropV      float64
}

// Loop is a run to be sized.
type Loop struct {
	Amps       float64
	CableM     float64 // length of this cable in the loop: both legs where the return is the same cable
	OtherOhm   float64 // contacts, fuse and chassis in series
	Bay        Bay
	Insulation Insulation
}

// Try returns what a size would do in the loop.
func (l Loop) Try(s Size) Trial {
	t := Trial{Size: s}
	t.Carried = l.Insulation.Carries(s, l.Bay)
	t.AmpacityA = t.Carried.Amps
	t.Burns = l.Amps > t.AmpacityA
	t.ConductorC = max(l.Insulation.LimitC, l.Bay.AmbientC)
	if c, err := l.Insulation.Thermal(s, l.Bay).SteadyC(l.Amps); err == nil {
		// Within the tables a cable is within its limit, whatever the balance says.
		t.ConductorC = min(c, t.ConductorC)
	}
	t.LoopOhm = Resistance.Value(s.OhmPerM(), l.CableM, Alpha, t.ConductorC) + l.OtherOhm
	t.DropV = Drop.Value(l.Amps, t.LoopOhm)
	return t
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
