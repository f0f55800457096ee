package job

import "epitrope/core/parts"

// Arranged is how the run is put together where that is not as it usually is.
type Arranged struct {
	From     *string  `json:"from,omitempty"`
	FromA    *float64 `json:"fromA,omitempty"`
	FromH    *float64 `json:"fromH,omitempty"`
	FromLive *string  `json:"fromLive,omitempty"`
	Fuses    *string  `json:"fuses,omitempty"`
	Plug     *string  `json:"plug,omitempty"`
	Frame    *string  `json:"frame,omitempty"`
	Ahead    *string  `json:"ahead,omitempty"`
	BesideA  *float64 `json:"besideA,omitempty"`
	SunAt    *string  `json:"sunAt,omitempty"`

	Control   *string `json:"control,omitempty"`
	Interlock *string `json:"interlock,omitempty"`
	Lamp      *string `json:"lamp,omitempty"`
}

// Where a run begins.
const (
	FromStart  = "start"  // the start battery
	FromSecond = "second" // an alternator of its own
	FromStud   = "stud"   // a body-builder's stud or socket, which its maker rates
)

// When a body-builder's stud is live.
const (
	LiveAlways  = "always"
	LiveRunning = "running"
)

// Where a run is fused.
const (
	FusedBoth  = "both"
	FusedFront = "front"
	FusedBack  = "back"
	NotFused   = "none"
)

// Which run goes over a plug on a vehicle that tows nothing: what stands behind it comes out.
const (
	NoPlug    = "none"
	PlugStart = "start"
	PlugAux   = "aux"
)

// Where panels with a regulator of their own land.
const (
	SunAtBattery = "battery" // its posts
	SunAtBus     = "bus"     // where everything else hangs: behind shunt and master switch
	SunAtCharger = "charger" // the coupling's aux side, before F2
)

// What works a join by hand, and what keeps it from being worked.
const (
	MomentaryControl = "momentary"
	ToggleControl    = "toggle"
	NoInterlock      = "none"
	EngineInterlock  = "engine"
)

// arrangedFields are how the run is put together.
var arrangedFields = []Field{
	{Path: "arranged.from", Label: "Run begins at", Kind: Choice, Part: "start", Choices: []Option{{FromStart, "the start battery"},
		{FromSecond, "a second alternator of its own"}, {FromStud, "a body-builder's stud or socket"}}},
	{Path: "arranged.fromA", Label: "The feed's maker allows", Kind: Number, Unit: "A", Min: 5, Max: 600, Digits: 1, dim: current,
		Part: "start",
		When: ofStud, Example: "60 A"},
	{Path: "arranged.fromH", Label: "… for at most, on end", Kind: Number, Unit: "h", Min: 0.05, Max: 24, Digits: 2, dim: hours,
		Part: "start",
		When: ofStud, Example: "2 h"},
	{Path: "arranged.fromLive", Label: "The stud is live", Kind: Choice, Part: "start", When: ofStud,
		Choices: []Option{{LiveAlways, "always"}, {LiveRunning, "with the engine running only"}}},
	{Path: "arranged.fuses", Label: "Fused at", Kind: Choice, Part: "f1", Choices: []Option{{FusedBoth, "both ends"},
		{FusedFront, "the start side alone"}, {FusedBack, "the aux side alone"}, {NotFused, "nowhere"}}},
	{Path: "arranged.plug", Label: "What comes out is plugged in", Kind: Choice, Part: "coupling", Choices: []Option{{NoPlug,
		"nothing comes out"},
		{PlugStart, "before the coupling"}, {PlugAux, "behind the coupling"}}},
	asked(ask("arranged.frame", "The trailer's frame is the return inside the trailer", "return"), &When{Path: "aux.place",
		Is: []string{"trailer"}}),
	ask("arranged.ahead", "A relay ahead of the charger parts its feed", "coupling"),
	{Path: "arranged.besideA", Label: "A second charger beside it, of another size", Kind: Level, Unit: "A", Pin: true, Part: "coupling",
		Choices: amps(parts.ChargerRatings)},
	{Path: "arranged.sunAt", Label: "Solar lands at", Kind: Choice, Part: "aux", Choices: []Option{{SunAtBus, "the aux side's bus"},
		{SunAtBattery, "the aux battery's posts"}, {SunAtCharger, "the coupling's aux side"}}},
	{Path: "arranged.control", Label: "The join by hand is worked by", Kind: Choice, Part: "coupling", Choices: []Option{
		{MomentaryControl, "a button that springs back"}, {ToggleControl, "a switch that stays"}}},
	{Path: "arranged.interlock", Label: "An interlock keeps the join by hand apart", Kind: Choice, Part: "coupling", Choices: []Option{
		{NoInterlock, "never"}, {EngineInterlock, "while the coupling's signal is live"}}},
	ask("arranged.lamp", "A lamp beside it shows that its coil is fed", "coupling"),
}

// ofStud is where the run begins at a body-builder's stud.
var ofStud = &When{Path: "arranged.from", Is: []string{FromStud}}

// ArrangedFacts are how the run is put together, with nothing left open but what nobody can guess.
type ArrangedFacts struct {
	From         string
	FromA, FromH *float64 // of a stud; nil where nobody said
	FromLive     string   // "" where nobody said
	Fuses        string
	Plug         string
	Frame, Ahead bool
	BesideA      *float64
	SunAt        string
	Control      string
	Interlock    string
	Lamp         bool
}

// arranged notes what is not as usual.
func (f *Facts) arranged(r *resolver, d Document) {
	a := d.Arranged
	said := func(path string, given *string, usual string) string {
		if given == nil {
			return usual
		}
		r.note(path, *given, true, "")
		return *given
	}
	f.Arranged = ArrangedFacts{From: said("arranged.from", a.From, FromStart), Fuses: said("arranged.fuses", a.Fuses, FusedBoth),
		Plug: said("arranged.plug", a.Plug, NoPlug), SunAt: said("arranged.sunAt", a.SunAt, SunAtBus),
		Frame: r.tri("arranged.frame", a.Frame) == Yes && f.Place.Trailer, Ahead: r.tri("arranged.ahead", a.Ahead) == Yes,
		Control: said("arranged.control", a.Control, MomentaryControl), Interlock: said("arranged.interlock", a.Interlock, NoInterlock),
		Lamp:    r.tri("arranged.lamp", a.Lamp) == Yes,
		BesideA: r.some("arranged.besideA", a.BesideA)}
	if f.Place.Trailer {
		f.Arranged.Plug = NoPlug // it has one
	}
	if f.Arranged.From == FromStud {
		f.Arranged.FromA, f.Arranged.FromH = r.some("arranged.fromA", a.FromA), r.some("arranged.fromH", a.FromH)
		f.Arranged.FromLive = string(r.tri("arranged.fromLive", a.FromLive))
	}
}
