package judge

import (
	"epitrope/core/design"
	"epitrope/core/need"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Needs is what is used, what comes back, and what would hold the balance.
type Needs struct {
	Loads     []NeedLoad    `json:"loads"`
	DailyAh   float64       `json:"dailyAh"`
	CycleAh   float64       `json:"cycleAh" doc:"To put back on a drive, days parked counted"`
	PutBackAh float64       `json:"putBackAh" doc:"Put back on a drive by this design"`
	After     float64       `json:"after" doc:"Charge that the aux battery reaches on a drive, once days repeat, in %"`
	Before    float64       `json:"before" doc:"… and has before the next"`
	UsableAh  float64       `json:"usableAh"`
	Days      float64       `json:"days" doc:"Lasts without driving"`
	BankAh    float64       `json:"bankAh" doc:"Smallest bank that has a cycle's use to give"`
	ChargerA  float64       `json:"chargerA" doc:"Smallest charger that holds the balance; 0 where none on the shelf does"`
	Level     verdict.Level `json:"level" enum:"good,caution,bad"`
	Says      string        `json:"says"`
	Figures   []string      `json:"figures" doc:"Keys of its figures, in reading order"`

	Work working.Figures `json:"-"` // the figures that are made here
}

// NeedLoad is one load.
type NeedLoad struct {
	Key     string  `json:"key"`
	Label   string  `json:"label"`
	Count   float64 `json:"count"`
	Amps    float64 `json:"amps" doc:"Each, while it runs"`
	Hours   float64 `json:"hours"`
	Duty    float64 `json:"duty" doc:"In %"`
	DayAh   float64 `json:"dayAh"`
	Assumed bool    `json:"assumed" doc:"Some of it is usual for its kind, not answered"`
}

// NeedsOf works out the balance with what this design charges at cruise and at idle.
func NeedsOf(d *design.Design) Needs {
	f := d.Facts
	out := Needs{Loads: []NeedLoad{}, DailyAh: unit.Round(f.DailyAh.Value, 1), CycleAh: unit.Round(d.CycleAh, 1)}
	for _, l := range f.Need.Loads {
		out.Loads = append(out.Loads, NeedLoad{Key: l.Key, Label: l.Label, Count: l.Count, Amps: unit.Round(l.Amps.Value, 2),
			Hours: l.Hours.Value,
			Duty:  unit.Round(100*l.Duty.Value, 0), DayAh: unit.Round(l.DayAh, 1),
			Assumed: l.Amps.Origin == working.Assumed || l.Hours.Origin == working.Assumed || l.Duty.Origin == working.Assumed})
	}
	cruise, idle := max(0, chargesAt(d, "cruise")), max(0, chargesAt(d, "idle"))
	putBack := need.PutBackAh.MustWork(working.From(f.Chemistry.Efficiency, working.Memory, f.Chemistry.Label),
		working.Is(cruise, "from the circuit"), f.DrivenHours.Input(), working.Is(min(f.Need.IdleHours.Value, f.DrivenHours.Value), "at idle"),
		working.Is(idle, "from the circuit"))
	back := putBack.Unrounded
	bank := need.BankAh.MustWork(working.Of(d.Rates.Cycle), working.From(f.Chemistry.Usable, working.Practice, f.Chemistry.Label))
	after, before := need.Reaches(f.AuxAh.Value, d.CycleAh, back)
	out.PutBackAh, out.After, out.Before = unit.Round(back, 0), unit.Round(100*after, 0), unit.Round(100*before, 0)
	out.UsableAh, out.Days = d.Usable().Value, d.Autonomy().Value
	out.BankAh = unit.Round(max(0, bank.Unrounded), 0)
	for _, c := range d.Book.Chargers {
		if c.OutputA >= d.NeedA {
			out.ChargerA = c.OutputA
			break
		}
	}
	out.Level, out.Says = balance(d, out, back)
	out.Work = working.Figures{"putback": putBack, "bank": bank}
	out.Figures = []string{"cycle", "sun", "need", "putback", "usable", "bank", "autonomy", "accepts"}
	return out
}

// chargesAt is what goes into the aux battery in a state; none where that state has no
// solution, or where it cannot be counted on.
func chargesAt(d *design.Design, id string) float64 {
	s := d.StateBy(id)
	if s.Err != nil || d.Facts.Varies() && !d.Kind.Charger() && d.Kind.Joins() {
		return 0
	}
	return s.OutA
}

// balance says whether it holds.
func balance(d *design.Design, n Needs, back float64) (verdict.Level, string) {
	f := d.Facts
	ah := func(v float64) string { return unit.Text(v, "Ah", 0) }
	switch {
	case d.CycleAh <= 0:
		return verdict.Good, "Sun and mains give back all that is used."
	case back < d.CycleAh:
		return verdict.Bad, "A drive puts " + ah(back) + " back of " + ah(d.CycleAh) +
			" used: the aux battery sinks until it stands empty before each drive."
	case n.Before < 100*(1-f.Chemistry.Usable):
		return verdict.Caution, "A drive puts it back, but before it only " + unit.Text(n.Before, "%", 0) +
			" are left: below what may be used of " + f.Chemistry.Label + "."
	}
	return verdict.Good, "A drive can put " + ah(back) + " back and " + ah(d.CycleAh) + " are used: full after each drive, " +
		unit.Text(n.Before, "%", 0) + " before the next."
}
