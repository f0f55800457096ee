package section

import (
	"fmt"

	"epitrope/core/alternator"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Winding is how hot the alternator gets in the state that heats it most; ok is false where
// none has a solution.
func Winding(d *design.Design) (fig working.Figure, hottestC float64, ok bool) {
	hottest, at := 0.0, design.State{}
	for _, s := range d.States {
		if s.Kind != design.Charging || s.Solved.Volts == nil {
			continue
		}
		if c := WindingC(d, s); c > hottest {
			hottest, at = c, s
		}
	}
	if at.ID == "" {
		return working.Figure{}, 0, false
	}
	fig = alternator.Winding.MustWork(
		working.From(d.Facts.StartBay.AmbientC, working.Practice, "air of the engine space"),
		working.Is(heats(d, at), "from the circuit, "+at.Label), working.Is(machineV(d, at), "at its terminal"),
		d.Facts.LabelA.Input(), working.Is(alternator.Slowness(at.Rpm), "less cooling at low speed")).In(at.Label)
	return fig, hottest, true
}

// windingCell is that against what its windings bear.
func windingCell(d *design.Design) Cell {
	_, hottest, ok := Winding(d)
	if !ok {
		return none()
	}
	level := verdict.Good
	if hottest > alternator.HottestC {
		level = verdict.Caution
	}
	return Cell{Text: fmt.Sprintf("%s of %s", unit.Text(hottest, "", 0), unit.Text(alternator.HottestC, "°C", 0)), Figure: "winding",
		Level: level}
}

// WindingC is how hot the alternator's windings get in a state, in °C.
func WindingC(d *design.Design, s design.State) float64 {
	return d.Facts.Label.WindingC(heats(d, s), machineV(d, s), s.Rpm, d.Facts.StartBay.AmbientC)
}

// heats is what the machine gives in a state, for its heat. Where it gives all that it has at an
// idle that nobody measured, that may be more than is counted on: by its label at that speed.
func heats(d *design.Design, s design.State) float64 {
	if f := d.Facts; f.Label.LowRPM > 0 && f.Label.IdleA == 0 && s.MachineGives > 0.99*s.MachineA {
		return max(s.MachineGives, f.Label.HotShare()*f.Label.ByStandard().Output(s.Rpm))
	}
	return s.MachineGives
}

// machineV is the voltage at the machine, at 12 V.
func machineV(d *design.Design, s design.State) float64 {
	return circuit.Had(s.Solved.At("alternator.B+")) / d.Facts.N
}

// CaseHeat is how warm the charger's case gets in the worst state; ok is false where it does
// not run in it.
func CaseHeat(d *design.Design) (fig working.Figure, ok bool) {
	worst := d.WorstState()
	if !d.Kind.Charger() || worst.Err != nil || worst.Solved.Volts == nil {
		return working.Figure{}, false
	}
	return coupling.CaseC.MustWork(
		working.From(d.Facts.AuxBay.AmbientC, working.Practice, d.Facts.AuxBay.Label),
		working.From(d.Charger.CaseKPerW, working.Part, "device card"),
		working.Is(worst.LostW, "lost in it, "+worst.Label)).In(worst.Label), true
}

func caseCell(d *design.Design) Cell {
	fig, ok := CaseHeat(d)
	if !ok {
		return none()
	}
	level := verdict.Good
	if d.Facts.AuxBay.AmbientC > d.Charger.MaxAmbientC {
		level = verdict.Caution
	}
	return Cell{Text: fig.Text, Figure: "case", Level: level}
}
