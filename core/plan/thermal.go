package plan

import (
	"fmt"

	"epitrope/core/alternator"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/working"
)

// thermalFigures is the working of what a cable may carry where it lies and how warm
// it gets: "ampacity" by the tables, "balance" where the heat balance decides instead,
// "heating" and "warmth".
func thermalFigures(t cable.Trial, n cable.Insulation, b cable.Bay, amps float64) working.Figures {
	alpha := working.From(cable.Alpha, working.Standard, "IEC 60028")
	limit := working.From(n.LimitC, working.Standard, "insulation")
	place := working.From(b.AmbientC, working.Standard, b.Label)
	count := working.Is(float64(t.Size.Count), "as pinned")
	thermal := n.Thermal(t.Size, b)
	ohmPerM := working.From(thermal.OhmPerM, working.Standard, "IEC 60228 class 5, one cable")

	where := b.Label
	if b.AmbientC > cable.EngineC {
		where = "as at 50 °C, the hottest that the tables know"
	}
	out := working.Figures{
		"ampacity": cable.Ampacity.MustWork(count, working.Input{Value: t.Carried.FreeAirA, Origin: working.Standard, Why: string(t.Carried.Table)},
			working.From(t.Carried.PlaceFactor, working.Standard, where+", "+n.Label+" insulation"),
			working.From(t.Carried.GroupFactor, working.Standard, b.Laying.Describe())),
	}
	switch {
	case b.AmbientC >= n.LimitC:
		out["balance"] = working.Given(working.Symbol{Name: "may carry", Unit: "A", Digits: 0}, 0, working.Computed,
			fmt.Sprintf("nothing: the place is at %s, and its insulation bears %s", working.Text(b.AmbientC, "°C", 0), n.Label))
	case t.Carried.Balance:
		out["balance"] = cable.ByBalance.MustWork(count, working.Is(thermal.Gives(n.LimitC), "IEC 60287, Churchill and Chu: "+b.Laying.Describe()),
			limit, place, ohmPerM, alpha).Decided("lower than the tables, so it holds")
	}
	if t.Burns {
		out["warmth"] = working.Given(working.Symbol{Name: "conductor temperature, at least", Unit: "°C", Digits: 0},
			t.ConductorC, working.Computed, "hotter than its insulation bears")
		return out
	}
	heating := cable.Heating.MustWork(working.Is(amps, "worst continuous current"), count, ohmPerM,
		working.Is(thermal.Gives(t.ConductorC), "at this temperature, "+b.Laying.Describe()))
	out["heating"] = heating
	out["warmth"] = cable.Warmth.MustWork(place, working.Of(heating), alpha)
	if by := out["warmth"].Unrounded; by > n.LimitC {
		out["warmth"] = working.Given(working.Symbol{Name: "conductor temperature", Unit: "°C", Digits: 0}, n.LimitC, working.Standard,
			"the tables allow the current, so its limit; the heat balance alone says "+working.Text(by, "°C", 0))
	}
	return out
}

// winding is how hot the alternator gets in the state that heats it most; ok is false where
// none has a solution.
func (d *design) winding() (fig working.Figure, hottestC float64, ok bool) {
	hottest, at := 0.0, state{}
	for _, s := range d.states {
		if s.kind != charging || s.solved.Volts == nil {
			continue
		}
		if c := d.windingC(s); c > hottest {
			hottest, at = c, s
		}
	}
	if at.id == "" {
		return working.Figure{}, 0, false
	}
	fig = alternator.Winding.MustWork(
		working.From(d.facts.StartBay.AmbientC, working.Practice, "air of the engine space"),
		working.Is(at.machineGives, "from the circuit, "+at.label), working.Is(d.machineV(at), "at its terminal"),
		d.facts.LabelA.Input(), working.Is(alternator.Slowness(at.rpm), "less cooling at low speed")).In(at.label)
	return fig, hottest, true
}

// windingCell is that against what its windings bear.
func (d *design) windingCell() Cell {
	_, hottest, ok := d.winding()
	if !ok {
		return none()
	}
	level := Good
	if hottest > alternator.HottestC {
		level = Caution
	}
	return Cell{Text: fmt.Sprintf("%s of %s", working.Text(hottest, "", 0), working.Text(alternator.HottestC, "°C", 0)), Figure: "winding", Level: level}
}

func (d *design) windingC(s state) float64 {
	return d.facts.Label.WindingC(s.machineGives, d.machineV(s), s.rpm, d.facts.StartBay.AmbientC)
}

// machineV is the voltage at the machine, at 12 V.
func (d *design) machineV(s state) float64 { return had(s.solved.At("alternator.B+")) / d.facts.N }

// caseHeat is how warm the charger's case gets in the worst state; ok is false where it does
// not run in it.
func (d *design) caseHeat() (fig working.Figure, ok bool) {
	worst := d.worstState()
	if !d.kind.Charger() || worst.err != nil || worst.solved.Volts == nil {
		return working.Figure{}, false
	}
	return coupling.CaseC.MustWork(
		working.From(d.facts.AuxBay.AmbientC, working.Practice, d.facts.AuxBay.Label),
		working.From(d.charger.CaseKPerW, working.Part, "device card"),
		working.Is(max(0, worst.inA*worst.inV-worst.outA*worst.outV), "lost in it, "+worst.label)).In(worst.label), true
}

func (d *design) caseCell() Cell {
	fig, ok := d.caseHeat()
	if !ok {
		return none()
	}
	level := Good
	if d.facts.AuxBay.AmbientC > d.charger.MaxAmbientC {
		level = Caution
	}
	return Cell{Text: fig.Text, Figure: "case", Level: level}
}
