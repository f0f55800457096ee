package modes

import (
	"epitrope/core/design"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Forgotten is what a charger does whose signal is left live with the engine stopped.
type Forgotten struct {
	DrawA     float64 `json:"drawA" doc:"Out of the start battery at first"`
	HalfH     float64 `json:"halfH" doc:"The start battery is half empty after so many hours; 0: not in ten days"`
	NoStartH  float64 `json:"noStartH" doc:"The engine no longer starts after so many hours; 0: not in ten days"`
	NoStartAt float64 `json:"noStartAt" doc:"Charge of the start battery at which it no longer starts, in %"`
	StopsAt   float64 `json:"stopsAt" doc:"… at which the charger's own cut-out stops it for good; 0: it does not"`
	Says      string  `json:"says"`
}

// forgotten tells it; nil where no charger takes anything.
func forgotten(d *design.Design, leaving rig.Leaving) *Forgotten {
	if !d.Kind.Charger() {
		return nil
	}
	left := leaving.Live(design.KeyOut)
	return &Forgotten{DrawA: unit.Round(left.OutA, 1), HalfH: unit.Round(left.HalfH, 1), NoStartH: unit.Round(left.NoStartH, 1),
		NoStartAt: unit.Round(100*left.NoStartAt, 0), StopsAt: unit.Round(100*left.StopsAt, 0), Says: unit.Capital(left.Says) + "."}
}
