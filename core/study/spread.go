package study

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Tolerances are by how much an installation may really differ from its plan, each
// evenly spread. Defaults: common practice, no source.
type Tolerances struct {
	Runs         int     `json:"runs" minimum:"20" maximum:"1000"`
	Seed         uint64  `json:"seed" doc:"The same seed draws the same"`
	LengthPct    float64 `json:"lengthPercent" minimum:"0" maximum:"50" doc:"Of every length, either way"`
	JointLow     float64 `json:"jointLowMilliohm" minimum:"0.05" maximum:"100"`
	JointHigh    float64 `json:"jointHighMilliohm" minimum:"0.05" maximum:"100"`
	OutsideK     float64 `json:"outsideK" minimum:"0" maximum:"40" doc:"Of the temperature outside, either way"`
	RegulationV  float64 `json:"regulationV" minimum:"0" maximum:"1" doc:"Of the alternator's voltage at 12 V, either way"`
	HoursPercent float64 `json:"hoursPercent" minimum:"0" maximum:"90" doc:"Of the hours driven, either way"`
	LoadsPercent float64 `json:"loadsPercent" minimum:"0" maximum:"90" doc:"Of what is used, either way"`
}

// Usual are the tolerances that a spread begins with.
var Usual = Tolerances{Runs: 300, Seed: 1, LengthPct: 10, JointLow: 0.1, JointHigh: 1, OutsideK: 10, RegulationV: 0.2, HoursPercent: 30,
	LoadsPercent: 20}

// Chance is how often an aim was met.
type Chance struct {
	ID    string `json:"id"`
	Label string `json:"label"`
	Met   int    `json:"met"`
	Of    int    `json:"of"`
	Text  string `json:"text" doc:"About how often, no finer than the runs allow"`
}

// Band is how a value was spread.
type Band struct {
	ID    string  `json:"id"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	Low   float64 `json:"low" doc:"One run in ten was lower"`
	Mid   float64 `json:"mid"`
	High  float64 `json:"high" doc:"One run in ten was higher"`
}

// Spread is a design as it may really turn out.
type Spread struct {
	Tolerances Tolerances `json:"tolerances"`
	Runs       int        `json:"runs" doc:"Runs that were done"`
	Chances    []Chance   `json:"chances"`
	Bands      []Band     `json:"bands"`
	Hours      []float64  `json:"hours" doc:"From the beginning"`
	SOCLow     []float64  `json:"socLow" doc:"Charge of the aux battery: one run in ten was lower, in %"`
	SOCMid     []float64  `json:"socMid"`
	SOCHigh    []float64  `json:"socHigh"`
	Whole      bool       `json:"whole" doc:"False where it was stopped before its end"`
}

// socPoints is at how many moments the charge of the aux battery is kept.
const socPoints = 120

// draw is one installation within the tolerances: each run has a sequence of its own, so
// that what it draws does not depend on which run is done first.
func (t Tolerances) draw(run int) rig.Variation {
	r := rand.New(rand.NewPCG(t.Seed, uint64(run)))
	either := func(by float64) float64 { return by * (2*r.Float64() - 1) }
	v := rig.Variation{
		Length: 1 + either(t.LengthPct)/100, House: 1 + either(t.LoadsPercent)/100, Hours: 1 + either(t.HoursPercent)/100,
		OutsideK: either(t.OutsideK), RegulationV: either(t.RegulationV),
	}
	v.Joint = func() float64 { return (t.JointLow + (t.JointHigh-t.JointLow)*r.Float64()) / 1000 }
	return v
}

// Check names what is out of range.
func (t Tolerances) Check() job.Problems {
	var p job.Problems
	within := func(field string, v, low, high float64) {
		if math.IsNaN(v) || v < low || v > high {
			p = append(p, job.Problem{Field: field, Value: unit.Plain(v, "", 3), Wrong: "is out of range",
				Allowed: fmt.Sprintf("%g to %g", low, high)})
		}
	}
	within("runs", float64(t.Runs), 20, 1000)
	within("lengthPercent", t.LengthPct, 0, 50)
	within("jointLowMilliohm", t.JointLow, 0.05, 100)
	within("jointHighMilliohm", t.JointHigh, t.JointLow, 100)
	within("outsideK", t.OutsideK, 0, 40)
	within("regulationV", t.RegulationV, 0, 1)
	within("hoursPercent", t.HoursPercent, 0, 90)
	within("loadsPercent", t.LoadsPercent, 0, 90)
	return p
}

// SpreadOver runs a design some hundred times, each as it may really turn out. Not every
// run need be done where it is stopped: what was done counts.
func SpreadOver(d *design.Design, t Tolerances, progress Progress) (Spread, job.Problems) {
	if problems := t.Check(); len(problems) > 0 {
		return Spread{}, problems
	}
	f := d.Facts
	outcomes := make([]*Outcome, t.Runs)
	socs := make([][]float64, t.Runs)
	total := f.Driving(1).Seconds()
	whole := many(t.Runs, progress, func(i int, halt func() bool) {
		v := t.draw(i)
		rigged := rig.Of(d, v)
		soc := make([]float64, 0, socPoints+1)
		watch := func(fr day.Frame) {
			for len(soc) <= socPoints && fr.T >= float64(len(soc))*total/socPoints-1e-6 {
				soc = append(soc, 100*fr.AuxSOC)
			}
		}
		driving, conditions := rig.Varied(d, v)
		got, err := day.Run(rigged, driving, conditions, day.Options{Halt: halt, Watch: watch})
		if err != nil {
			return
		}
		for len(soc) <= socPoints {
			soc = append(soc, 100*got.Verdict.AuxEnd)
		}
		o := outcome(rigged, got)
		outcomes[i], socs[i] = &o, soc
	})
	return gather(t, outcomes, socs, total, whole), nil
}

func gather(t Tolerances, outcomes []*Outcome, socs [][]float64, total float64, whole bool) Spread {
	s := Spread{Tolerances: t, Whole: whole, Chances: []Chance{}, Bands: []Band{}, Hours: []float64{}, SOCLow: []float64{},
		SOCMid: []float64{}, SOCHigh: []float64{}}
	done := []Outcome{}
	for _, o := range outcomes {
		if o != nil {
			done = append(done, *o)
		}
	}
	s.Runs = len(done)
	if s.Runs == 0 {
		return s
	}
	for _, a := range Aims {
		c := Chance{ID: a.ID, Label: a.Label, Of: s.Runs}
		for _, o := range done {
			if a.met(o) {
				c.Met++
			}
		}
		c.Text = about(c.Met, c.Of)
		s.Chances = append(s.Chances, c)
	}
	for _, b := range []struct {
		id, label, unit string
		digits          int
		of              func(Outcome) float64
	}{
		{"auxEnd", "aux battery at the end", "%", 0, func(o Outcome) float64 { return o.AuxEnd }},
		{"auxLeast", "aux battery at its lowest", "%", 0, func(o Outcome) float64 { return o.AuxLeast }},
		{"auxIn", "charged in all", "Ah", 0, func(o Outcome) float64 { return o.AuxInAh }},
		{"startLeast", "start battery at its lowest", "%", 0, func(o Outcome) float64 { return o.StartLeast }},
		{"crank", "while cranking, at the lowest", "V", 1, func(o Outcome) float64 { return o.CrankV }},
		{"winding", "alternator at its hottest", "°C", 0, func(o Outcome) float64 { return o.WindingC }},
		{"joint", "hottest joint", "°C", 0, func(o Outcome) float64 { return o.JointC }},
	} {
		values := make([]float64, len(done))
		for i, o := range done {
			values[i] = b.of(o)
		}
		low, mid, high := tenths(values)
		s.Bands = append(s.Bands, Band{b.id, b.label, b.unit, unit.Round(low, b.digits), unit.Round(mid, b.digits),
			unit.Round(high, b.digits)})
	}
	for i := range socPoints + 1 {
		values := []float64{}
		for _, soc := range socs {
			if soc != nil {
				values = append(values, soc[i])
			}
		}
		low, mid, high := tenths(values)
		s.Hours = append(s.Hours, unit.Round(float64(i)*total/socPoints/3600, 2))
		s.SOCLow, s.SOCMid, s.SOCHigh = append(s.SOCLow, unit.Round(low, 1)), append(s.SOCMid, unit.Round(mid, 1)),
			append(s.SOCHigh, unit.Round(high, 1))
	}
	return s
}

// tenths are the values below which a tenth, a half and nine tenths lie.
func tenths(values []float64) (low, mid, high float64) {
	slices.Sort(values)
	at := func(share float64) float64 { return values[int(math.Round(share*float64(len(values)-1)))] }
	return at(0.1), at(0.5), at(0.9)
}

// about is a chance in words: no finer than a tenth.
func about(met, of int) string {
	switch share := float64(met) / float64(of); {
	case met == of:
		return fmt.Sprintf("in all %d runs", of)
	case met == 0:
		return fmt.Sprintf("in none of %d runs", of)
	case share > 0.95:
		return "nearly always"
	case share < 0.05:
		return "hardly ever"
	default:
		return unit.Say("about %.0f in 10", math.Max(1, math.Min(9, math.Round(10*share))))
	}
}
