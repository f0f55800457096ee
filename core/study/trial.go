package study

import (
	"errors"
	"fmt"
	"math"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Trial is one run of a design through its days, to be looked at.
type Trial struct {
	Days      float64      `json:"days"`
	Driving   string       `json:"driving" doc:"What the vehicle does, in words"`
	Series    Series       `json:"series"`
	Events    []Event      `json:"events"`
	Outcome   Outcome      `json:"outcome"`
	Aims      []Met        `json:"aims"`
	Verdicts  []Verdict    `json:"verdicts" doc:"What the run says, worst first"`
	Energy    []Share      `json:"energy" doc:"Where energy came from and went"`
	Fuses     []FuseMargin `json:"fuses"`
	Stopped   string       `json:"stopped,omitempty" doc:"Why the run ended early, and when"`
	Columns   []string     `json:"columns" doc:"Of the section, as volts stand in the series"`
	Formula   string       `json:"formula" doc:"What the run counts on, in words"`
	StartedAt float64      `json:"startHour" doc:"Hour of the clock at which it begins"`
}

// Series is the run at chosen moments: every list has one value for each. Currents into
// a battery count positive.
type Series struct {
	T        []float64   `json:"t" doc:"Seconds from the beginning"`
	Kind     []string    `json:"kind" doc:"What the vehicle does"`
	BusV     []float64   `json:"busV" doc:"At the start battery"`
	InV      []float64   `json:"inV" doc:"At the coupling's input"`
	OutV     []float64   `json:"outV" doc:"At the coupling's output"`
	AuxV     []float64   `json:"auxV"`
	MachineA []float64   `json:"machineA"`
	StartA   []float64   `json:"startA"`
	AuxA     []float64   `json:"auxA"`
	InA      []float64   `json:"inA" doc:"Drawn by the coupling on the start side"`
	CoupleA  []float64   `json:"coupleA" doc:"Given by the coupling to the aux side"`
	SolarA   []float64   `json:"solarA"`
	StartSOC []float64   `json:"startSOC" doc:"%"`
	AuxSOC   []float64   `json:"auxSOC" doc:"%"`
	WindingC []float64   `json:"windingC"`
	CaseC    []float64   `json:"caseC"`
	CableC   []float64   `json:"cableC"`
	Stage    []string    `json:"stage" doc:"Of the charger, or whether a relay is open or closed"`
	Grade    [][]float64 `json:"grade" doc:"Volts in and out of every column, in turn"`
}

// Event is something that happened in a run.
type Event struct {
	T    float64 `json:"t" doc:"Seconds from the beginning"`
	ID   string  `json:"id"`
	Part string  `json:"part" doc:"Column of the section"`
	Text string  `json:"text"`
}

// Verdict is one thing that a run says.
type Verdict struct {
	ID    string        `json:"id"`
	Label string        `json:"label"`
	Text  string        `json:"text"`
	Level verdict.Level `json:"level" enum:"good,caution,bad"`
	AtS   float64       `json:"atS" doc:"When, in seconds; −1 where it has no moment"`
	Part  string        `json:"part,omitempty"`
}

// Share is an amount of energy.
type Share struct {
	Label string  `json:"label"`
	Wh    float64 `json:"wh"`
	Kind  string  `json:"kind" enum:"source,use,loss,stored"`
}

// FuseMargin is how close a fuse came to opening.
type FuseMargin struct {
	Fuse   string  `json:"fuse"`
	MostA  float64 `json:"mostA"`
	HeldA  float64 `json:"heldA" doc:"Carried over ten minutes, at most"`
	Heated float64 `json:"heatedPercent" doc:"How far it was heated on the way to opening"`
}

// shownMoments is about how many moments a trial shows: enough for a wide screen.
const shownMoments = 1400

// shownEvents is how many events it shows, the first: what hunts switches thousands of times.
const shownEvents = 2000

// Try runs a design through its days and keeps what is worth looking at of a window.
// halt is asked now and then whether to stop; nil never stops.
func Try(d *design.Design, w Window, halt func() bool) Trial {
	f := d.Facts
	rigged := rig.Of(d, rig.Nominal)
	driving, conditions := rig.Varied(d, rig.Nominal)
	keep := newKeeper(d, rigged, driving.Seconds(), w)
	got, err := day.Run(rigged, driving, conditions, day.Options{Watch: keep.frame, Halt: halt})
	t := Trial{Days: unit.Round(driving.Seconds()/86400, 2), Driving: said(f), Series: keep.series(), Events: []Event{},
		Columns: keep.columns, StartedAt: 6,
		Formula: "Charge, overvoltage and heat are stepped over the solved circuit; batteries by their chemistry from memory, loads spread " +
			"over the day with a third in the evening."}
	t.Outcome = outcome(rigged, got)
	t.Aims, t.Verdicts = t.Outcome.Judge(), verdicts(f, rigged, got)
	t.Energy = energy(got)
	for i, e := range got.Events {
		if i == shownEvents {
			t.Events = append(t.Events, Event{T: unit.Round(e.AtS, 2), ID: "more", Part: e.Part,
				Text: unit.Say("… and %.0f more until the end", float64(len(got.Events)-i))})
			break
		}
		t.Events = append(t.Events, Event{T: unit.Round(e.AtS, 2), ID: e.ID, Part: e.Part, Text: e.Text})
	}
	t.Fuses = margins(got)
	var stopped *day.Stopped
	switch {
	case errors.As(err, &stopped):
		t.Stopped = fmt.Sprintf("%s: the %s %s. What there was until then is kept.", clock(stopped.AtS), stopped.Element, stopped.Why)
		t.Aims, t.Verdicts = []Met{}, []Verdict{cannotGoOn(stopped)} // it claims nothing
	case err != nil:
		t.Stopped = err.Error()
		t.Aims, t.Verdicts = []Met{}, []Verdict{}
	}
	return t
}

// cannotGoOn is all that a run says that came to no end.
func cannotGoOn(s *day.Stopped) Verdict {
	text := fmt.Sprintf("cannot go on: the %s %s; nothing is said of what would follow", s.Element, s.Why)
	return Verdict{ID: "stopped", Label: "The run", Text: text, Level: verdict.Bad, AtS: s.AtS}
}

func margins(got day.Result) []FuseMargin {
	list := []FuseMargin{}
	for _, m := range got.Verdict.Fuses {
		list = append(list, FuseMargin{m.ID, unit.Round(m.MostA, 0), unit.Round(m.HeldA, 0), unit.Round(100*m.Heated, 0)})
	}
	return list
}

// said is what the vehicle does, in words.
func said(f job.Facts) string {
	if f.Day.Pattern == job.OwnPattern && f.Day.Own != "" {
		return "as written out"
	}
	ready, err := day.ReadyByID(f.Day.Pattern)
	if err != nil {
		ready = day.ReadyPatterns[0]
	}
	return fmt.Sprintf("%s: %s, %s a day", ready.Label, ready.Says, unit.Text(f.DrivenHours.Value, "h", 1))
}

// clock is a moment of a run as a day and an hour.
func clock(s float64) string {
	at := s + 6*3600
	d, h := int(at/86400), math.Mod(at, 86400)
	return fmt.Sprintf("day %d, %02d:%02d", d+1, int(h/3600), int(math.Mod(h, 3600)/60))
}

// energy is where energy came from and went; what a battery kept counts positive.
func energy(r day.Result) []Share {
	e := r.Energy
	out := []Share{}
	for _, s := range []Share{
		{"alternator", e.Machine, "source"}, {"solar", e.Solar, "source"}, {"mains charger", e.Mains, "source"},
		{"kept by the start battery", -e.Start - e.StartIn, "stored"}, {"kept by the aux battery", -e.Aux - e.AuxIn, "stored"},
		{"vehicle", e.Vehicle, "use"}, {"aux loads", e.House, "use"},
		{"coils and standby", e.Coils, "loss"}, {"charger", e.Charger, "loss"}, {"cables, joints, fuses", e.Lines, "loss"},
		{"inside the start battery", e.StartIn, "loss"}, {"inside the aux battery", e.AuxIn, "loss"},
	} {
		if s.Wh = unit.Round(s.Wh/3600, 0); s.Wh != 0 {
			out = append(out, s)
		}
	}
	return out
}

// stageOf is a charger's stage, or a relay's position, in a word.
func stageOf(rig *day.Rig, f day.Frame) string {
	switch {
	case rig.Charger != nil:
		return f.Stage.String()
	case rig.Second != nil:
		return "closed"
	case f.Joined:
		return "closed"
	}
	return "open"
}
