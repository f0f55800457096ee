package judge

import (
	"slices"

	"epitrope/core/battery"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Check is something that is looked at on the vehicle, held against this design. Its
// level is open where nobody has looked yet.
type Check struct {
	ID     string         `json:"id"`
	Group  string         `json:"group" enum:"place,fit,bank,join,extras,answers"`
	Column string         `json:"column" doc:"The column it belongs to"`
	Level  verdict.Level  `json:"level" enum:"good,caution,bad,open"`
	Text   string         `json:"text"`
	Mark   working.Origin `json:"mark" enum:"standard,practice,physics,memory"`
	Fields []string       `json:"fields" doc:"Paths that answer it"`
	Figure string         `json:"figure,omitempty" doc:"Key of the figure behind it"`

	Work working.Figure `json:"-"` // that figure
}

// Checks are the checks of a design: its places, whether the battery fits, how a bank
// shares, what happens when the batteries are joined, and answers that contradict.
func Checks(d *design.Design) []Check {
	return slices.Concat([]Check{}, placeChecks(d), fitChecks(d), bankChecks(d), joinChecks(d), extraChecks(d), AnswerChecks(d))
}

func check(group, id, column string, level verdict.Level, mark working.Origin, fields []string, args ...any) Check {
	if fields == nil {
		fields = []string{}
	}
	return Check{ID: id, Group: group, Column: column, Level: level, Mark: mark, Fields: fields, Text: unit.Say(checkWords[id], args...)}
}

// by is the check with the figure behind it.
func (c Check) by(key string, fig working.Figure) Check {
	c.Figure, c.Work = key, fig
	return c
}

var fitFields = []string{"fit.lengthMM", "fit.widthMM", "fit.heightMM", "fit.recessLengthMM", "fit.recessWidthMM", "fit.recessHeightMM",
	"fit.openingLengthMM", "fit.openingWidthMM", "fit.aboveMM"}

// fitChecks hold the battery against the recess, the opening and the room above it.
func fitChecks(d *design.Design) []Check {
	f := d.Facts.Survey.Fit
	values := []*float64{f.LengthMM, f.WidthMM, f.HeightMM, f.RecessLengthMM, f.RecessWidthMM, f.RecessHeightMM, f.OpeningLengthMM,
		f.OpeningWidthMM, f.AboveMM}
	missing := []string{}
	for i, v := range values {
		if v == nil {
			missing = append(missing, fitFields[i])
		}
	}
	if len(missing) > 0 {
		return []Check{check("fit", "fit.open", "aux", verdict.Open, working.Practice, fitFields, len(missing), len(fitFields))}
	}
	got := d.Facts.Chemistry.FitIn(battery.Box{L: *f.LengthMM, W: *f.WidthMM, H: *f.HeightMM},
		battery.Space{Recess: battery.Box{L: *f.RecessLengthMM, W: *f.RecessWidthMM, H: *f.RecessHeightMM}, OpeningL: *f.OpeningLengthMM,
			OpeningW: *f.OpeningWidthMM, AboveMM: *f.AboveMM})
	list := []Check{}
	for _, p := range got.Problems {
		list = append(list, check("fit", "fit.not", "aux", verdict.Bad, working.Physics, fitFields, p))
	}
	if got.Goes && got.TiltDeg > 0 {
		list = append(list, check("fit", "fit.tilted", "aux", verdict.Caution, working.Physics, fitFields, got.TiltDeg, got.ClearMM))
	} else if got.Goes {
		list = append(list, check("fit", "fit.goes", "aux", verdict.Good, working.Physics, fitFields, got.ClearMM))
	}
	return list
}

// bankChecks are how batteries in parallel share.
func bankChecks(d *design.Design) []Check {
	shares := Bank(d)
	if len(shares) == 0 {
		return nil
	}
	v, n := d.Facts.Survey, float64(len(shares))
	most := 0.0
	for _, s := range shares {
		most = max(most, s.Share)
	}
	level := verdict.Good
	if most > 100/n*(1+unequalBy) {
		level = verdict.Caution
	}
	list := []Check{check("bank", "bank.shares", "aux", level, working.Physics, []string{"aux.feed", "aux.linkM", "aux.count"}, most, 100/n,
		feedWords[v.AuxFeed])}
	switch v.AuxSame {
	case job.No:
		list = append(list, check("bank", "bank.mixed", "aux", verdict.Bad, working.Practice, []string{"aux.same"}))
	case job.Asked:
		list = append(list, check("bank", "bank.same.open", "aux", verdict.Open, working.Practice, []string{"aux.same"}))
	}
	return list
}

var feedWords = map[string]string{"corners": "by opposite corners", "end": "at one end"}

// joinChecks are what is looked at before two batteries are joined.
func joinChecks(d *design.Design) []Check {
	if d.Is.OwnMachine || !d.Kind.Joins() && d.Is.Beside != design.RestContact {
		return nil
	}
	v, n := d.Facts.Survey, d.Facts.N
	fields := []string{"startBattery.restV", "aux.restV"}
	if v.StartV == nil || v.AuxV == nil {
		return []Check{check("join", "join.open", "coupling", verdict.Open, working.Practice, fields)}
	}
	low, diff := min(*v.StartV, *v.AuxV), *v.AuxV-*v.StartV
	if low < joinLeastV*n {
		return []Check{check("join", "join.ruined", "coupling", verdict.Bad, working.Practice, fields, low, joinLeastV*n)}
	}
	amps := max(diff, -diff) / (d.SeriesOhm() + d.AuxOhm() + d.StartOhm())
	from, to := "aux", "start"
	if diff < 0 {
		from, to = to, from
	}
	level, id := verdict.Good, "join.flows"
	most := min(d.Start.Fuse.RatingA, d.Aux.Fuse.RatingA)
	switch {
	case amps > 2*most:
		level, id = verdict.Bad, "join.large"
	case amps > most:
		level = verdict.Caution
	}
	return []Check{check("join", id, "coupling", level, working.Physics, fields, max(diff, -diff), amps, from, to, most, amps*10/3600)}
}

// joinLeastV is the least a battery of 12 V may stand at to be joined to another. Source:
// common practice, no source.
const joinLeastV = 10.0

// AnswerChecks are answers that contradict each other, or speak of danger.
func AnswerChecks(d *design.Design) []Check {
	f, v, list := d.Facts, d.Facts.Survey, []Check{}
	add := func(id, column string, level verdict.Level, mark working.Origin, fields []string, args ...any) {
		list = append(list, check("answers", id, column, level, mark, fields, args...))
	}
	if f.Need.Differs {
		add("answers.use", "aux", verdict.Caution, working.Physics, []string{"use.dailyAh"}, f.DailyAh.Value, f.Need.Listed.Value)
	}
	if f.Need.IdleHours.Value > f.DrivenHours.Value {
		add("answers.idle", "aux", verdict.Caution, working.Physics, []string{"use.idleHours", "use.drivenHours"}, f.Need.IdleHours.Value,
			f.DrivenHours.Value)
	}
	if f.Suspect() && !f.Varies() {
		add("answers.suspect", "alternator", verdict.Caution, working.Practice, []string{"alternator.regulation", "alternator.knownBy"})
	}
	if v.Sensor == job.Yes && f.Schools.Negative == "post" {
		add("answers.sensor", "start", verdict.Bad, working.Practice, []string{"schools.negative"})
	}
	if d.NoSteel() && d.Back.ByChassis {
		add("answers.frame", "c1", verdict.Bad, working.Practice, []string{"pins.return"}, v.Frame)
	}
	if v.Bonded == job.No && d.Back.ByChassis && !f.Extras.Bond {
		add("answers.bonded", "c1", verdict.Bad, working.Practice, []string{"vehicle.bonded", "pins.return"})
	}
	if v.StartV != nil && *v.StartV < 12.2*f.N {
		add("answers.startflat", "start", verdict.Caution, working.Memory, []string{"startBattery.restV"}, *v.StartV,
			100*d.StartChemistry().Charge(*v.StartV/f.N))
	}
	if v.StartAgeYears != nil && *v.StartAgeYears >= oldBattery {
		add("answers.startold", "start", verdict.Caution, working.Memory, []string{"startBattery.ageYears"}, *v.StartAgeYears)
	}
	if v.AuxV != nil && *v.AuxV < joinLeastV*f.N {
		add("answers.ruined", "aux", verdict.Bad, working.Practice, []string{"aux.restV"}, *v.AuxV)
	}
	if f.LoadA.Value > d.MachineA(design.IdleRPM) {
		add("answers.load", "alternator", verdict.Caution, working.Physics, []string{"vehicle.loadA", "alternator.label"}, f.LoadA.Value,
			d.MachineA(design.IdleRPM))
	}
	return list
}

// oldBattery is the age in years from which a start battery is near its end. Source: from
// memory.
const oldBattery = 6.0
