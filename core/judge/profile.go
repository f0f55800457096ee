package judge

import (
	"fmt"

	"epitrope/core/charging"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/profile"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Settings is how the charger is to be set for this battery, how it is set, and what the
// battery would really get.
type Settings struct {
	Charger bool          `json:"charger" doc:"There is a charger to set"`
	Card    string        `json:"card"`
	Way     string        `json:"way" doc:"What it is set by"`
	Wants   Wanted        `json:"wants"`
	List    []SettingLine `json:"list"`
	Right   string        `json:"right" doc:"The setting for this battery"`
	Now     string        `json:"now" doc:"The setting that holds: as pinned, or as its leads make it"`
	GetsV   float64       `json:"getsV" doc:"Volts across the battery at the end of absorption, in the setting that holds"`
	Leads   []LeadReading `json:"leads"`
	Temps   []TempLine    `json:"temps" doc:"What it holds by the battery's temperature"`
}

// Wanted is what the battery wants, at the system's voltage.
type Wanted struct {
	LowV    float64  `json:"lowV"`
	HighV   float64  `json:"highV"`
	HarmV   float64  `json:"harmV" doc:"Harmed above"`
	FloatV  string   `json:"floatV"`
	PerK    float64  `json:"perK" doc:"mV/K"`
	RateA   float64  `json:"rateA" doc:"Charging current at most"`
	ColdC   *float64 `json:"coldC,omitempty" doc:"No charge below; absent where there is no such limit"`
	Battery string   `json:"battery"`
}

// SettingLine is a setting of the card.
type SettingLine struct {
	ID          string  `json:"id"`
	Label       string  `json:"label"`
	AbsorptionV float64 `json:"absorptionV"`
	FloatV      float64 `json:"floatV" doc:"0: it rests instead"`
	Compensated bool    `json:"compensated"`
	How         string  `json:"how"`
}

// LeadReading is a configuration lead of the right setting, and what a meter shows there.
type LeadReading struct {
	Lead   string `json:"lead"`
	Joined string `json:"joined" doc:"What it is joined to"`
	Reads  string `json:"reads"`
}

// TempLine is what the charger holds at a temperature.
type TempLine struct {
	C       float64 `json:"c"`
	Volts   float64 `json:"volts"`
	Wants   float64 `json:"wants"`
	Clamped bool    `json:"clamped"`
}

// SettingsOf is how the charger is to be set, as shown.
func SettingsOf(d *design.Design) Settings {
	n, p := d.Facts.AuxN, profile.For(d.Facts.Chemistry)
	volts := func(v float64) float64 { return unit.Round(v*n, 2) }
	out := Settings{Charger: d.Kind.Charger(), Card: d.Charger.Label, Way: charging.Ways[job.Str(d.Doc.Card.Way)], List: []SettingLine{},
		Right: d.Right.ID, Now: d.Setting.ID,
		GetsV: unit.Round(charging.GetsV(d), 2), Leads: []LeadReading{}, Temps: []TempLine{},
		Wants: Wanted{LowV: volts(p.AbsorptionLow), HighV: volts(p.AbsorptionHigh), HarmV: volts(p.HarmV), PerK: unit.Round(1000*p.PerK*n, 0),
			RateA: d.Rates.Accepts.Value, Battery: d.AuxRating(), FloatV: unit.Text(p.FloatHigh*n, "V, or none", 1)}}
	if d.Doc.Card.Name != "" {
		out.Card = d.Doc.Card.Name
	}
	if p.FloatLow > 0 {
		out.Wants.FloatV = fmt.Sprintf("%s to %s", unit.Text(p.FloatLow*n, "", 1), unit.Text(p.FloatHigh*n, "V", 1))
	}
	if d.Facts.Chemistry.Managed() {
		out.Wants.ColdC = &d.Facts.Chemistry.NoChargeBelowC
	}
	for _, s := range d.Facts.Settings {
		out.List = append(out.List, SettingLine{s.ID, s.Label, volts(s.AbsorptionV), volts(s.FloatV), s.Compensated, s.How})
	}
	for i, l := range []profile.Lead{d.Right.A, d.Right.B} {
		if l != "" {
			out.Leads = append(out.Leads, LeadReading{Lead: string(rune('A' + i)), Joined: l.Joined(), Reads: l.Reads()})
		}
	}
	for _, c := range []float64{-10, 0, 10, 25, 40} {
		perK := 0.0
		if d.Setting.Compensated {
			perK = p.PerK
		}
		v, clamped := profile.Compensated(d.Setting.AbsorptionV, perK, c)
		wants, _ := profile.Compensated(p.AbsorptionHigh, p.PerK, c)
		out.Temps = append(out.Temps, TempLine{C: c, Volts: volts(v), Wants: volts(wants), Clamped: clamped})
	}
	return out
}

// ChargingOf is how all that charges is set, with what the notes say of the charger's own setting.
func ChargingOf(d *design.Design) charging.Charging {
	out := charging.Of(d)
	for _, r := range profileRules {
		if l, weighs := levelOf[r.severity]; weighs && len(r.finds(d)) > 0 {
			out.Sources[0].Level = verdict.Worst(out.Sources[0].Level, l)
		}
	}
	return out
}

// levelOf is how good a thing is of which a note of some severity speaks.
var levelOf = map[string]verdict.Level{verdict.Stop: verdict.Bad, verdict.Beware: verdict.Caution}
