// Package trip holds what a drive brought against what it should: the vehicle is run through the same drive, as it was
// proven, and what is missing is explained by what may be wrong with it.
package trip

import (
	"fmt"
	"math"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/prove"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Drive is what somebody saw: how long it was driven, and what the monitor said before and after.
type Drive struct {
	Hours float64 `json:"hours" doc:"Above 0 to 100"`
	From  float64 `json:"from" doc:"% by the monitor, before"`
	To    float64 `json:"to" doc:"% by the monitor, after"`
}

// Level is how a drive stands to what it should have brought.
type Level string

// The levels of a drive.
const (
	AsItShould Level = "as-it-should"
	Less       Level = "less"
	Nothing    Level = "nothing"
	SaysLittle Level = "says-little" // so little was to be expected that nothing follows
)

// Brought is what a drive means.
type Brought struct {
	Level    Level         `json:"level" enum:"as-it-should,less,nothing,says-little"`
	Says     string        `json:"says"`
	GainedAh float64       `json:"gainedAh"`
	ShouldAh float64       `json:"shouldAh" doc:"What the same drive brings as it was proven"`
	Causes   []prove.Cause `json:"causes" doc:"Likeliest first; none where it is as it should"`
	Next     string        `json:"next,omitempty" doc:"The reading to take, in words"`
}

// Shares of what it should have brought: from fair on it is as it should, below next to nothing it is nothing. A monitor that
// counts is off by some per cent, and what is used on the way is not known. Source: from memory.
const (
	fair        = 0.65
	nextToNone  = 0.12
	leastAh     = 2.0
	leastShare  = 0.02 // of its capacity
	leastFactor = 0.5
	mostFactor  = 1.5
)

// Check names what cannot be used of a drive; “” where all can.
func (t Drive) Check() (field, wrong string) {
	switch {
	case !(t.Hours > 0 && t.Hours <= 100):
		return "hours", fmt.Sprintf("%g h is no drive; allowed: above 0 to 100 h", t.Hours)
	case !(t.From >= 0 && t.From <= 100):
		return "from", fmt.Sprintf("%g %% is no state of charge; allowed: 0 to 100 %%", t.From)
	case !(t.To >= 0 && t.To <= 100):
		return "to", fmt.Sprintf("%g %% is no state of charge; allowed: 0 to 100 %%", t.To)
	}
	return "", ""
}

// Of judges a drive. ProvenA is the current that was read at the proof, at a fast idle; 0 where none was.
func Of(d *design.Design, t Drive, provenA float64) Brought {
	out := Brought{GainedAh: (t.To - t.From) / 100 * d.Facts.AuxAh.Value, Causes: []prove.Cause{}}
	p := prove.Of(d)
	should, err := brings(d, t)
	if err != nil || len(p.Stops) > 0 {
		out.Level, out.Says = SaysLittle, "What such a drive should bring cannot be worked out for this plan."
		return out
	}
	expected := p.Judge(nil).Bands["charge"].Middle
	if provenA > 0 && expected > 0 {
		should *= math.Min(mostFactor, math.Max(leastFactor, provenA/expected))
	}
	out.ShouldAh = should
	ah := func(v float64) string { return unit.Text(v, "Ah", 0) }
	if should < math.Max(leastAh, leastShare*d.Facts.AuxAh.Value) {
		out.Level = SaysLittle
		out.Says = unit.Say("Such a drive should bring about %s, too little to tell anything by: begin with the battery half empty.", ah(should))
		return out
	}
	share := out.GainedAh / should
	switch {
	case share >= fair:
		out.Level = AsItShould
		out.Says = unit.Say("As it should: about %s gained, of about %s that such a drive brings.", ah(out.GainedAh), ah(should))
		return out
	case share < nextToNone:
		out.Level = Nothing
		out.Says = unit.Say("Nothing to speak of arrived: %s, of about %s that such a drive brings.", ah(out.GainedAh), ah(should))
	default:
		out.Level = Less
		out.Says = unit.Say("Less than it should: about %s gained, of about %s that such a drive brings.", ah(out.GainedAh), ah(should))
	}
	seen := p.Judge([]prove.Taken{{ID: "charge", Value: math.Max(0, share) * expected}})
	out.Causes = seen.Causes
	if r, there := p.Reading(seen.Next); there {
		out.Next = r.What + ": " + r.Where() + "; expected " + p.Expected(r) + "."
	}
	return out
}

// brings is what a drive brings, in Ah, with nothing used on the way.
func brings(d *design.Design, t Drive) (float64, error) {
	r := rig.Of(d, rig.Nominal)
	r.Solar, r.HouseA, r.Aux.SOC = nil, 0, math.Max(0.01, t.From/100)
	was := r.Aux.SOC
	soc := was
	drive := day.Pattern{{Kind: day.Crank, Seconds: d.Facts.CrankS.Value}, {Kind: day.Highway, Seconds: t.Hours * 3600}}
	_, err := day.Run(r, drive, day.Conditions{OutsideC: design.WarmC}, day.Options{Watch: func(f day.Frame) { soc = f.AuxSOC }})
	return (soc - was) * d.Facts.AuxAh.Value, err
}
