package cable

import (
	"fmt"

	"epitrope/core/working"
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
	FreeAirA   float64        // carries in free air at 30 °C
	Table      working.Source // where FreeAirA comes from
	AmpacityA  float64        // carries where it lies
	ConductorC float64        // at the run's current; the insulation's limit where it Burns
	Burns      bool           // hotter than its insulation bears
	LoopOhm    float64        // warm copper of the loop and what else is in series
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
	t.FreeAirA, t.Table = l.Insulation.FreeAir(s)
	t.AmpacityA = Ampacity.Value(t.FreeAirA, l.Bay.Factor(l.Insulation))
	c, err := ConductorC(l.Amps, t.FreeAirA, l.Insulation.LimitC, l.Bay.AmbientC)
	if err != nil || c > l.Insulation.LimitC {
		t.Burns, c = true, l.Insulation.LimitC
	}
	t.ConductorC = c
	t.LoopOhm = Resistance.Value(OhmPerM(s.AreaMM2), l.CableM, Alpha, c) + l.OtherOhm
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
	return fmt.Sprintf("no cable up to %s passes the %s test at %s", e.Max.Label, e.Test, working.Plain(e.Amps, "A", 1))
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
	for _, p := range passes {
		at := 0
		for at < len(shelf) && !p.ok(l.Try(shelf[at])) {
			at++
		}
		if at == len(shelf) {
			return Trial{}, p.test, &NoSize{p.test, l.Amps, shelf[len(shelf)-1]}
		}
		if at > best {
			decided, best = p.test, at
		}
	}
	return l.Try(shelf[best]), decided, nil
}
