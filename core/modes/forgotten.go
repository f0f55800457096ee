package modes

import (
	"fmt"
	"math"

	"epitrope/core/battery"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/rig"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Forgotten is what a charger does whose signal is left live with the engine stopped.
type Forgotten struct {
	DrawA     float64 `json:"drawA" doc:"Out of the start battery"`
	NoStartH  float64 `json:"noStartH" doc:"The engine no longer starts after so many hours; 0 where the charger stops before"`
	NoStartAt float64 `json:"noStartAt" doc:"Charge of the start battery at which it no longer starts, in %"`
	StopsAt   float64 `json:"stopsAt" doc:"… at which the charger's own cut-out stops it"`
	Says      string  `json:"says"`
	Figure    string  `json:"figure,omitempty"`

	Work working.Figure `json:"-"` // that figure
}

// HoursToNoStart is how long a start battery lasts until it no longer starts the engine.
var HoursToNoStart = working.Declare("t = C·(s_0 − s_1) / I", "conservation of charge",
	working.Symbol{Letter: "t", Name: "engine no longer starts after", Unit: "h", Digits: 1},
	working.Symbol{Letter: "C", Name: "start battery", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "s_0", Name: "charge to begin with", Unit: "", Digits: 2},
	working.Symbol{Letter: "s_1", Name: "charge at which it no longer starts", Unit: "", Digits: 2},
	working.Symbol{Letter: "I", Name: "out of it", Unit: "A", Digits: 2})

// noStartSOC is the charge at which a rested start battery no longer cranks the engine for
// as long as a start takes, 0 to 1, at 20 °C; 0 where it always does. It is found by cranking, through
// time: a battery falls further in two seconds than its resistance says.
func noStartSOC(d *design.Design) float64 {
	start := day.Pattern{{Kind: day.Crank, Seconds: d.Facts.CrankS.Value}}
	return battery.LeastCharge(func(soc float64) bool {
		rig := rig.Of(d, rig.Nominal)
		rig.Start.SOC, rig.Solar = soc, nil
		got, err := day.Run(rig, start, day.Conditions{OutsideC: design.WarmC}, day.Options{})
		return err == nil && got.Verdict.FailedStarts == 0
	}, 12)
}

// stopSOC is the charge of the start battery at which a charger's own cut-out stops it, 0
// to 1. A charger is a constant power P behind a resistance R: its input stands at
// U = (E + √(E² − 4·P·R)) / 2, or nowhere.
//
// Source: physics.
func stopSOC(d *design.Design) float64 {
	power := d.Charger.OutputA * d.AuxEmptyV() / d.Charger.Efficiency
	return battery.LeastCharge(func(soc float64) bool {
		n := d.Facts.N
		own := d.StartChemistry().RestAt(soc, design.WarmC) * n
		ohm := d.StartChemistry().OhmAt(d.Facts.StartAh.Value, n, soc, design.WarmC) + d.Start.TotalOhm()
		root := own*own - 4*power*ohm
		return root >= 0 && (own+math.Sqrt(root))/2 >= d.Charger.CutOutV*n
	}, 40)
}

// forgotten works out what a signal left live does; nil where no charger takes anything.
func forgotten(d *design.Design) *Forgotten {
	if !d.Kind.Charger() {
		return nil
	}
	draw := d.InputAt(d.Charger.OutputA) + d.Facts.Machine.AsleepA.Value
	stops, dies := stopSOC(d), noStartSOC(d)
	f := &Forgotten{DrawA: unit.Round(draw, 1), NoStartAt: unit.Round(100*dies, 0), StopsAt: unit.Round(100*stops, 0)}
	switch {
	case dies >= healthySOC:
		f.Says = "This start battery hardly cranks its engine as it is."
	case stops >= healthySOC:
		f.Says = fmt.Sprintf("The charger begins and stops again at once: its input falls below %s.",
			unit.Text(d.Charger.CutOutV*d.Facts.N, "V", 1))
	case stops > dies:
		f.Says = fmt.Sprintf("The charger's own cut-out stops it with %s left in the start battery; it no longer starts below %s.",
			unit.Text(f.StopsAt, "%", 0), unit.Text(f.NoStartAt, "%", 0))
	default:
		fig := HoursToNoStart.MustWork(d.Facts.StartAh.Input(), working.From(healthySOC, working.Practice, "a healthy battery in use"),
			working.Is(dies, "cranked through time"), working.Is(draw, "charger at its full output, vehicle asleep"))
		f.NoStartH, f.Figure, f.Work = unit.Round(fig.Unrounded, 1), "nostart", fig
		f.Says = "Left live with the engine stopped, the engine no longer starts after " + unit.Span(fig.Unrounded) + "."
	}
	return f
}

// healthySOC is a start battery in use. Source: common practice, no source.
const healthySOC = 0.9
