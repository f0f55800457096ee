package run

import (
	"fmt"

	"epitrope/core/cable"
	"epitrope/core/protect"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// SingleInput is one run on its own: a load at the end of a cable.
type SingleInput struct {
	Amps        float64 // continuous
	OneWayM     float64
	DropPercent float64 // allowed, of ReferenceV
	ReferenceV  float64
	Bay         cable.Bay
	Insulation  cable.Insulation
	ByChassis   bool // the return is the vehicle's steel
	System      cable.System
	Size        *cable.Size // to judge this size instead of choosing one
}

// Single is what the run needs.
type Single struct {
	RuleAreaMM2 float64          `json:"ruleAreaMM2" doc:"For the drop alone, ideal cold copper; at 2 % of 10.7 V it is the trade's rule"`
	Size        string           `json:"size" doc:"From class 5 resistance at the running temperature"`
	CopperMM2   float64          `json:"copperMM2"`
	DecidedBy   string           `json:"decidedBy" enum:"drop,ampacity,fuse,pinned"`
	DropV       float64          `json:"dropV"`
	DropPercent float64          `json:"dropPercent"`
	ConductorC  float64          `json:"conductorC"`
	AmpacityA   float64          `json:"ampacityA"`
	FuseA       float64          `json:"fuseA" doc:"0 where no fuse fits"`
	Fuse        string           `json:"fuse"`
	LoopM       float64          `json:"loopM" doc:"Out and back"`
	Warnings    []string         `json:"warnings"`
	Working     []working.Figure `json:"working"`
}

// SizeSingle sizes one run: the cable that meets drop, ampacity and fuse, and the
// lowest fuse that carries the load and saves the cable. It returns *cable.NoSize
// where the shelf ends first.
func SizeSingle(in SingleInput) (Single, error) {
	families := protect.Power
	if in.Amps*FuseShare <= protect.Blade.Ratings[len(protect.Blade.Ratings)-1] {
		families = protect.Small
	}
	loop := cable.Loop{Amps: in.Amps, CableM: 2 * in.OneWayM, Bay: in.Bay, Insulation: in.Insulation}
	if in.ByChassis {
		loop.CableM, loop.OtherOhm = in.OneWayM, 2*EarthOhm+ChassisOhmPer*in.OneWayM
	}
	allowedV := in.DropPercent / 100 * in.ReferenceV
	fuseFor := func(t cable.Trial) (protect.Fuse, error) {
		return protect.Choose(protect.Need{ContinuousA: in.Amps, AmbientC: in.Bay.AmbientC, CableA: t.AmpacityA}, families)
	}
	fused := func(t cable.Trial) bool { _, err := fuseFor(t); return err == nil }

	var trial cable.Trial
	decided := "pinned"
	if in.Size != nil {
		trial = loop.Try(*in.Size)
	} else {
		chosen, test, err := loop.Choose(cable.Shelf(in.System), allowedV, fused)
		if err != nil {
			return Single{}, err
		}
		trial, decided = chosen, string(test)
	}
	out := Single{Size: trial.Size.Label, CopperMM2: unit.Round(trial.Size.CopperMM2(), 2), DecidedBy: decided,
		DropV: unit.Round(trial.DropV, 3), DropPercent: unit.Round(100*trial.DropV/in.ReferenceV, 2),
		ConductorC: unit.Round(trial.ConductorC, 0), AmpacityA: unit.Round(trial.AmpacityA, 0),
		LoopM: unit.Round(2*in.OneWayM, 2), Warnings: []string{}}
	if trial.AmpacityA < in.Amps {
		out.Warnings = append(out.Warnings, fmt.Sprintf("%s carries %s where it lies, not %s: it burns", trial.Size.Copper(),
			unit.Text(trial.AmpacityA, "A", 0), unit.Plain(in.Amps, "A", 1)))
	}
	if trial.DropV > allowedV {
		out.Warnings = append(out.Warnings, fmt.Sprintf("it loses %s, more than the %s allowed", unit.Text(trial.DropV, "V", 3),
			unit.Text(allowedV, "V", 3)))
	}
	fuse, err := fuseFor(trial)
	if err == nil {
		out.FuseA, out.Fuse = fuse.RatingA, fuse.Label()
	} else {
		out.Fuse = "none fits"
		out.Warnings = append(out.Warnings, err.Error())
	}
	out.work(in, loop, trial, allowedV, families)
	return out, nil
}

// work keeps the working of the run.
func (out *Single) work(in SingleInput, loop cable.Loop, t cable.Trial, allowedV float64, families []protect.Family) {
	given := func(v float64, why string) working.Input { return working.From(v, working.Surveyed, why) }
	alpha := working.From(cable.Alpha, working.Standard, "IEC 60028")
	amps := given(in.Amps, "given")
	rule := cable.RuleArea.MustWork(given(2*in.OneWayM, "out and back"), amps,
		working.From(cable.Kappa, working.Standard, "IEC 60028"), given(allowedV, "allowed")).Decided("for comparison")
	out.RuleAreaMM2 = rule.Value
	copper := cable.Resistance.MustWork(working.From(t.Size.OhmPerM(), working.Standard, t.Size.OhmSource()),
		working.Is(loop.CableM, "cable"), alpha, working.Is(t.ConductorC, "conductor temperature"))
	whole := loopOhm.MustWork(working.Of(copper), working.From(loop.OtherOhm, working.Practice, "chassis and earth joints"))
	out.Working = []working.Figure{rule}
	thermal := thermalFigures(t, in.Insulation, in.Bay, in.Amps)
	for _, name := range []string{"ampacity", "balance", "heating", "warmth"} {
		if fig, ok := thermal[name]; ok {
			out.Working = append(out.Working, fig)
		}
	}
	out.Working = append(out.Working, copper, whole, cable.Drop.MustWork(amps, working.Of(whole)),
		protect.Least.MustWork(amps, working.From(families[0].HeatFactor(in.Bay.AmbientC), working.Practice, in.Bay.Label)))
}
