package job

import (
	"epitrope/core/day"
	"epitrope/core/feed"
	"epitrope/core/working"
)

// DayFacts is how the installation is tried out.
type DayFacts struct {
	Pattern  string
	Own      string
	Trigger  string
	Days     Num
	OutsideC Num
	SolarW   Num
	SunHours Num
	StartSOC Num
	AuxSOC   Num
}

// usualDays is how long the trial is where nobody says so; daySeconds how long a day is.
const (
	usualDays  = 7.0
	daySeconds = 86400.0
)

func (f *Facts) day(r *resolver, d Document) {
	trigger, why := "running", "as the plan asks for"
	if f.Coupling.Coil() {
		trigger, why = "ignition", "as such coils are usually fed"
	}
	if row, ok := d.Feeds[d.Signal.Feed]; ok {
		if does, known := behaves[row.Point(d.Signal.Feed).Judge().Behaviour]; known {
			trigger, why = does, "as the feed point that was taken behaves"
		}
	}
	f.Day = DayFacts{
		Pattern:  r.text("day.pattern", d.Day.Pattern, day.ReadyPatterns[0].ID, "a common day"),
		Own:      d.Day.Own,
		Trigger:  r.text("day.trigger", d.Day.Trigger, trigger, why),
		Days:     r.num("day.days", d.Day.Days, usualDays, "a week shows whether it holds"),
		OutsideC: r.num("day.outsideC", d.Day.OutsideC, 20, "a mild day"),
		SolarW:   r.num("day.solarW", d.Day.SolarW, 0, "none unless it is named"),
		SunHours: r.num("day.sunHours", d.Day.SunHours, 4, "a fair day (common practice, no source)"),
		StartSOC: r.num("day.startSOC", d.Day.StartSOC, 90, "a healthy battery in use"),
		AuxSOC:   r.num("day.auxSOC", d.Day.AuxSOC, 50, "half, so that there is charging to do"),
	}
}

// behaves is how a signal taken from a feed point behaves.
var behaves = map[feed.Behaviour]string{feed.RunningOnly: "running", feed.Ignition: "ignition", feed.Key: "accessory",
	feed.Permanent: "switch", feed.Never: "dead"}

// written is the driving that is written out; is says whether there is any. A document holds only what reads.
func (f Facts) written() (p day.Pattern, is bool) {
	if f.Day.Pattern != OwnPattern || f.Day.Own == "" {
		return nil, false
	}
	p, err := day.ParsePattern(f.Day.Own)
	return p, err == nil
}

// PluggedIn says whether the vehicle is plugged in for any of its days: no ready pattern has it, so only what is written does.
func (f Facts) PluggedIn() bool {
	p, _ := f.written()
	left := f.Day.Days.Value * 24 * 3600
	for _, s := range p {
		if left <= 0 {
			return false
		}
		if s.Own.Mains {
			return true
		}
		left -= s.Seconds
	}
	return false
}

// Driving is what the vehicle does through the days of the trial, its hours driven
// multiplied by a factor.
func (f Facts) Driving(hoursFactor float64) day.Pattern {
	count := f.Day.Days.Value
	if p, is := f.written(); is {
		return p.Repeat(count)
	}
	ready, err := day.ReadyByID(f.Day.Pattern)
	if err != nil {
		ready = day.ReadyPatterns[0]
	}
	if p := f.Need.ParkedDays; p.Origin != working.Assumed {
		ready = ready.Parked(p.Value)
	}
	return ready.Idling(f.Need.IdleHours.Value).Days(int(count), hoursFactor*f.DrivenHours.Value)
}
