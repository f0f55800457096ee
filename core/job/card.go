package job

import (
	"cmp"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/parts"
	"epitrope/core/unit"
)

// Card is the card of the charger that is really fitted, where it is not a stock one; its
// figures are for 12 V.
type Card struct {
	Name        string   `json:"name,omitempty"`
	Way         *string  `json:"way,omitempty"`
	OutputA     *float64 `json:"outputA,omitempty"`
	Efficiency  *float64 `json:"efficiency,omitempty"`
	CutOutV     *float64 `json:"cutOutV,omitempty"`
	RestartV    *float64 `json:"restartV,omitempty"`
	SoftStartS  *float64 `json:"softStartS,omitempty"`
	InputA      *float64 `json:"inputA,omitempty"`
	IdleInputA  *float64 `json:"idleInputA,omitempty"`
	Isolated    *string  `json:"isolated,omitempty"`
	SignalV     *float64 `json:"signalV,omitempty"`
	SignalOhm   *float64 `json:"signalOhm,omitempty"`
	Probe       *string  `json:"probe,omitempty"`
	Terminals   *string  `json:"terminals,omitempty"`
	MostSize    *string  `json:"mostSize,omitempty"`
	MaxFuseA    *float64 `json:"maxFuseA,omitempty"`
	StandbyA    *float64 `json:"standbyA,omitempty"`
	MaxAmbientC *float64 `json:"maxAmbientC,omitempty"`
	DetectOnV   *float64 `json:"detectOnV,omitempty"`
	DetectOffV  *float64 `json:"detectOffV,omitempty"`
	DetectOnS   *float64 `json:"detectOnS,omitempty"`
	DetectOffS  *float64 `json:"detectOffS,omitempty"`
	FollowS     *float64 `json:"followS,omitempty"`
	Price       *float64 `json:"price,omitempty"`
	Currency    string   `json:"currency,omitempty"`
	PricedOn    string   `json:"pricedOn,omitempty"`
}

// cardFields are what the charger's sheet or label says besides its output.
var cardFields = []Field{
	{Path: "card.restartV", Label: "… and starts again above, at 12 V", Kind: Number, Unit: "V", Min: 9, Max: 14.5, Digits: 2, dim: tension,
		Part: "coupling", Example: "12.6 V"},
	{Path: "card.softStartS", Label: "Time to full output", Kind: Number, Unit: "s", Max: 300, Digits: 1, dim: moments,
		Part: "coupling", Example: "20 s"},
	{Path: "card.inputA", Label: "Input current, at most", Kind: Number, Unit: "A", Min: 1, Max: 500, Digits: 1, dim: current,
		Part:    "coupling",
		Example: "45 A"},
	{Path: "card.idleInputA", Label: "… and at idle", Kind: Number, Unit: "A", Min: 0.5, Max: 500, Digits: 1, dim: current,
		Part:    "coupling",
		Example: "20 A"},
	ask("card.isolated", "Input and output are isolated from each other", "coupling"),
	{Path: "card.signalV", Label: "Signal counts as live from, at 12 V", Kind: Number, Unit: "V", Min: 1, Max: 11, Digits: 1,
		dim: tension, Part: "coupling", Example: "7 V"},
	{Path: "card.signalOhm", Label: "Signal input resists", Kind: Number, Unit: "Ω", Min: 5, Max: 100000, dim: plain(unit.Ohms),
		Part: "coupling", Example: "2.2 kΩ"},
	ask("card.probe", "A temperature probe of its own sits at the cells", "coupling"),
	{Path: "card.terminals", Label: "The charger's cables go on", Kind: Choice, Part: "coupling",
		Choices: append([]Option{{parts.Clamps, "clamps, bared"}}, studs...)},
	{Path: "card.mostSize", Label: "The thickest cable that they take", Kind: CableKey, Part: "coupling", Example: "16 mm², 6 AWG"},
	{Path: "card.detectOnS", Label: "By voltage it starts after", Kind: Number, Unit: "s", Max: 600, Digits: 1, dim: moments,
		Part: "coupling", Example: "30 s"},
	{Path: "card.detectOffS", Label: "… and stops after", Kind: Number, Unit: "s", Max: 600, Digits: 1, dim: moments, Part: "coupling",
		Example: "60 s"},
	{Path: "card.followS", Label: "What it sees follows its input within", Kind: Number, Unit: "s", Max: 120, Digits: 1, dim: moments,
		Part: "coupling", Example: "2 s"},
	{Path: "signal.fuseA", Label: "Fuse of its signal", Kind: Level, Unit: "A", Pin: true, Choices: amps(signalFuses), Part: "coupling"},
}

// signalFuses are the blade fuses that a signal is protected by. Source: ISO 8820.
var signalFuses = []float64{1, 2, 3, 4, 5, 7.5, 10, 15, 20}

// SignalFacts are what a charger's signal needs.
type SignalFacts struct {
	LiveV Num // at 12 V
	Ohm   Num // at 12 V; of its input
	FuseA *float64
}

// A charger's signal input where its card says nothing, at 12 V. Source: from memory; common
// practice, no source: half an ampere at most.
const (
	defaultLiveV     = 5.0
	defaultSignalOhm = 24.0
)

func (r *resolver) signal(d Document) SignalFacts {
	return SignalFacts{LiveV: r.num("card.signalV", d.Card.SignalV, defaultLiveV, "from memory"),
		Ohm:   r.num("card.signalOhm", d.Card.SignalOhm, defaultSignalOhm, "half an ampere at most (common practice, no source)"),
		FuseA: d.Signal.FuseA}
}

// On is a charger's card with what is known of the one that is really fitted.
func (c Card) On(card parts.Charger) parts.Charger {
	for at, given := range map[*float64]*float64{&card.RestartV: c.RestartV, &card.SoftStartS: c.SoftStartS, &card.InputA: c.InputA,
		&card.IdleInputA: c.IdleInputA} {
		if given != nil {
			*at = *given
		}
	}
	card.Terminals = cmp.Or(Str(c.Terminals), card.Terminals)
	if size, err := cable.Parse(Str(c.MostSize)); err == nil {
		card.MostMM2 = size.CopperMM2()
	}
	return card
}

// studs are the bolts of terminals, to choose from.
var studs = func() (list []Option) {
	for _, stud := range parts.Studs {
		list = append(list, Option{stud, stud + " studs"})
	}
	return list
}()

// detects is what a charger without a signal takes for a running engine: as its card says,
// or as such chargers usually do.
func (c Card) detects() coupling.Sensing {
	s := coupling.UsualDetection
	for at, given := range map[*float64]*float64{&s.CutInV: c.DetectOnV, &s.CutOutV: c.DetectOffV, &s.CloseS: c.DetectOnS,
		&s.OpenS: c.DetectOffS, &s.FollowS: c.FollowS} {
		if given != nil {
			*at = *given
		}
	}
	return s
}
