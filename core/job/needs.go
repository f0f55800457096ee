package job

import (
	"fmt"

	"epitrope/core/need"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// NeedFacts are what is used and how it comes back.
type NeedFacts struct {
	Loads      []LoadFact
	Listed     Num  // the sum of the loads
	Differs    bool // the daily use that was typed is not what the loads come to
	IdleHours  Num
	ParkedDays Num
	MainsAh    Num
}

// LoadFact is one load with its defaults filled in.
type LoadFact struct {
	Key      string
	Label    string
	Count    float64
	Amps     Num // each
	Hours    Num
	Duty     Num // 0 to 1
	StandbyA Num
	DayAh    float64
}

// differsBy is the share by which daily use and loads may differ before that is said.
const differsBy = 0.10

func (f *Facts) needs(r *resolver, d Document) {
	for _, row := range Rows(d.Loads) {
		l := f.load(r, row)
		f.Need.Loads = append(f.Need.Loads, l)
		f.Need.Listed.Value += l.DayAh
	}
	f.withTaps()
	f.Need.Listed.Value = unit.Round(f.Need.Listed.Value, 1)
	f.Need.Listed.Origin, f.Need.Listed.Why = working.Computed, fmt.Sprintf("sum of %d loads", len(f.Need.Loads)+len(f.Taps))
	switch {
	case d.Use.DailyAh != nil || len(f.Need.Loads) == 0 && f.tapsAh() == 0:
		f.DailyAh = r.num("use.dailyAh", d.Use.DailyAh, defaultDailyAh, "a fridge, lamps and a few small things")
	default:
		f.DailyAh = Num{max(f.Need.Listed.Value, 0.1), r.note("use.dailyAh", f.Need.Listed.Value, true, ""), f.Need.Listed.Why}
	}
	if sum := f.Need.Listed.Value; d.Use.DailyAh != nil && sum > 0 {
		off := f.DailyAh.Value - sum
		f.Need.Differs = max(off, -off) > differsBy*sum
	}
	f.Need.IdleHours = r.num("use.idleHours", d.Use.IdleHours, 0, "none counted")
	f.Need.ParkedDays = r.num("use.parkedDays", d.Use.ParkedDays, 0, "driven every day")
	f.Need.MainsAh = r.num("use.mainsAh", d.Use.MainsAh, 0, "none unless it is named")
}

func (f *Facts) load(r *resolver, row Row[Load]) LoadFact {
	l, at := row.Of, "loads."+row.Key+"."
	known := need.Appliances[len(need.Appliances)-1]
	if l.Kind != nil {
		known = need.ApplianceByID(*l.Kind)
	}
	out := LoadFact{Key: row.Key, Label: known.Label}
	if l.Name != "" {
		out.Label = l.Name
	}
	why := "usual for a " + known.Label + " (from memory)"
	out.Count = r.num(at+"count", l.Count, 1, "one").Value
	switch {
	case l.Amps != nil:
		out.Amps = r.num(at+"amps", l.Amps, 0, "")
	default:
		watts := r.num(at+"watts", l.Watts, known.Watts, why)
		out.Amps = Num{need.FromWatts.Value(watts.Value, f.AuxV.Value), watts.Origin, watts.Why}
	}
	out.Hours = r.num(at+"hours", l.Hours, known.Hours, why)
	out.Duty = r.num(at+"duty", l.Duty, 100*known.Duty, why)
	out.Duty.Value /= 100
	out.StandbyA = r.num(at+"standbyA", l.StandbyA, known.StandbyA/f.AuxN, why)
	out.DayAh = need.LoadAh.Value(out.Count, out.Amps.Value, out.Hours.Value, out.Duty.Value, out.StandbyA.Value)
	return out
}
