// Package charging holds all that charges the aux battery, and the monitor that counts it, against the battery
// and against each other.
package charging

import (
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Charging is how all that charges the aux battery is set, and the monitor that counts it, held against the
// battery and each other.
type Charging struct {
	Sources []Source      `json:"sources"`
	Monitor []MonitorLine `json:"monitor" doc:"How the monitor is set and should be; empty where there is none"`

	MonitorAt string `json:"monitorAt" doc:"Where the monitor is set; empty where nobody said"`
}

// Source is one of them. Voltages are the system's.
type Source struct {
	ID          string        `json:"id" enum:"charger,alternator,mains,sun"`
	Name        string        `json:"name"`
	AbsorptionV *float64      `json:"absorptionV,omitempty" doc:"Absent where nobody said"`
	FloatV      *float64      `json:"floatV,omitempty" doc:"0: it rests; absent where nobody said"`
	Compensated string        `json:"compensated" doc:"yes, no, or empty where nobody said"`
	ColdStop    string        `json:"coldStop" doc:"What stops it where the battery must not be charged for cold"`
	SetAt       string        `json:"setAt" doc:"Where it is set; empty where nobody said"`
	ReadBack    string        `json:"readBack" doc:"How the setting is read back"`
	Level       verdict.Level `json:"level" enum:"good,caution,bad,open"`
}

// MonitorLine is one of the monitor's settings.
type MonitorLine struct {
	Name  string        `json:"name"`
	Is    string        `json:"is" doc:"Empty where nobody said"`
	Wants string        `json:"wants"`
	Level verdict.Level `json:"level" enum:"good,caution,bad,open"`
}

// Of is how all that charges is set; the level of the coupling's own charger is for its notes to say.
func Of(d *design.Design) Charging {
	out := Charging{Sources: []Source{coupled(d)}, Monitor: []MonitorLine{}}
	for _, s := range d.Facts.Sources {
		level := verdict.Open
		if s.AbsorptionV != nil {
			level = verdict.Good
		}
		out.Sources = append(out.Sources, Source{ID: s.ID, Name: unit.Capital(s.Name), AbsorptionV: s.AbsorptionV, FloatV: s.FloatV,
			Compensated: string(s.Compensated), ColdStop: coldStop(d, s.Probe, s.Disable), SetAt: s.How, ReadBack: readBack[s.ID],
			Level: worstOf(d, s.ID, level)})
	}
	if d.Facts.Extras.Monitor {
		out.Monitor, out.MonitorAt = monitorLines(d), d.Doc.Monitor.How
	}
	return out
}

var readBack = map[string]string{
	"mains": "mains on, aux battery nearly full, engine and sun off: volts across its posts",
	"sun":   "full sun, aux battery nearly full, engine and mains off: volts across its posts",
}

// coupled is what the coupling charges with.
func coupled(d *design.Design) Source {
	if !d.Kind.Charger() {
		full := d.ChargesAtV()
		return Source{ID: "alternator", Name: "Alternator, by the coupling", AbsorptionV: rounded(full),
			ColdStop: coldStop(d, job.Asked, job.Tri(job.Str(d.Facts.Set.Disable))), SetAt: "its regulator: not to be set",
			ReadBack: "engine at a fast idle, aux battery nearly full: volts across its posts", Level: verdict.Good}
	}
	compensated := "no"
	if d.Setting.Compensated {
		compensated = "yes"
	}
	return Source{ID: "charger", Name: unit.Capital(d.Charger.Label), AbsorptionV: rounded(d.SetV()),
		FloatV: rounded(d.Setting.FloatV * d.Facts.AuxN), Compensated: compensated,
		ColdStop: coldStop(d, job.Tri(job.Str(d.Doc.Card.Probe)), job.Tri(job.Str(d.Facts.Set.Disable))),
		SetAt:    unit.Say("%s: %s", Ways[job.Str(d.Doc.Card.Way)], orUnsaid(d.Setting.How)),
		ReadBack: unit.Say("engine on, aux battery nearly full, sun and mains off: %s across its posts", unit.Text(GetsV(d), "V", 2)),
		Level:    verdict.Good}
}

func orUnsaid(how string) string {
	if how == "" {
		return "how is not said"
	}
	return how
}

func rounded(v float64) *float64 { r := unit.Round(v, 2); return &r }

// coldStop says what stops a source in the cold; "" where the battery bears it.
func coldStop(d *design.Design, probe, disable job.Tri) string {
	switch {
	case !d.Facts.Chemistry.Managed():
		return ""
	case disable == job.Yes && probe == job.Yes:
		return "charge-disable, and its probe"
	case disable == job.Yes:
		return "charge-disable"
	case probe == job.Yes:
		return "its probe"
	case disable == job.No:
		return "nothing"
	}
	return "not known"
}

// worstOf is the worst that is said of a source; what it is without anything.
func worstOf(d *design.Design, source string, otherwise verdict.Level) verdict.Level {
	worst := verdict.Good
	for _, a := range Answers(d) {
		if a.source == source && a.Severity != verdict.Remark {
			worst = verdict.Worst(worst, a.Level)
		}
	}
	if worst == verdict.Good {
		return otherwise
	}
	return worst
}
