// Package parts is the parts book: device cards that say what a device gives,
// bears and asks for. The cards here describe kinds of device, not makes.
package parts

import (
	"fmt"
	"math"
	"slices"

	"epitrope/core/coupling"
)

// Contact is the card of something that closes between the batteries: a voltage-sensing
// relay, a contactor, a selector, an isolator, a bypass.
type Contact struct {
	ID          string
	Label       string
	ContinuousA float64
	ContactOhm  float64
	CoilA       float64          // what its coil takes when closed, at 12 V; 0 where it has none
	Sensing     coupling.Sensing // of a relay that senses, at 12 V
	CrankA      float64          // what it bears for the seconds of a start
	JoinA       float64          // what it may close on; 0 where nobody says: as for a start
	Stud        string           // that its cables go on; "" where nobody says
}

// Changeover is the card of a relay with a rest contact: its headline is the make contact.
type Changeover struct {
	ID, Label  string
	Relay      coupling.Changeover
	ContactOhm float64
	CrankA     float64
	MostMM2    float64 // the thickest cable that it takes
	PlugIn     bool    // in a socket, not on studs
	JoinA      float64 // what it may close on; 0 where nobody says: as for a start
	Stud       string  // that its cables go on; "" where nobody says
}

// Takes says whether a cable of mm2 goes on the relay.
func (c Changeover) Takes(mm2 float64) bool { return mm2 <= c.MostMM2*1.02 }

// Plug is the card of a trailer plug and socket: what one of its contacts bears, the
// largest cable that goes in, and what a contact resists.
type Plug struct {
	ID, Label string
	RatingA   float64
	MostMM2   float64
	Ohm       float64
}

// Takes says whether a cable of mm2 goes into the plug.
func (p Plug) Takes(mm2 float64) bool { return mm2 <= p.MostMM2*1.02 }

// Book is the parts a plan chooses from, smallest first.
type Book struct {
	Chargers    []Charger
	Contacts    map[coupling.Kind][]Contact
	Changeovers []Changeover
	Plugs       []Plug
	Habits      Habits
}

// Habits are a workshop's own answers: they stand in every job that has none of its own. An empty one is none.
type Habits struct {
	System     string  `json:"system,omitempty" enum:"metric,awg,auto" doc:"Cable on the reels"`
	Insulation float64 `json:"insulation,omitempty" doc:"Of the reels, in °C"`
	Sizes      string  `json:"sizes,omitempty" maxLength:"160" doc:"On the reels, with commas between"`
	Lugs       string  `json:"lugs,omitempty" enum:"cable,metric,awg"`
	Feed       string  `json:"feed,omitempty" maxLength:"30" doc:"Colour of feeds"`
	Return     string  `json:"return,omitempty" maxLength:"30" doc:"Colour of returns"`
	Signal     string  `json:"signal,omitempty" maxLength:"30" doc:"Colour of signals"`
	House      string  `json:"house,omitempty" maxLength:"30" doc:"Colour of feeds to loads"`
}

// Efficiency where a card does not say, and the worst of what is seen.
// Source: 0.87–0.92, common practice, no source.
const (
	efficiency    = 0.90
	efficiencyLow = 0.87
)

// cutOutV is the input below which a charger stops, and maxAmbientC the
// place it still gives its full output in. Source: common practice, no source.
const (
	cutOutV     = 11.8
	maxAmbientC = 50.0
)

// restartV is where a charger that stopped for want of volts begins again. Source: common practice,
// no source.
const restartV = 12.5

// standbyA is what a resting charger takes; caseKPerW a finned case of about
// 0.04 m² in still air. Source: common practice, no source.
const (
	standbyA  = 0.008
	caseKPerW = 0.5
)

// contactOhm is a relay's closed contact with its two studs. Source: common
// practice, no source: 0.1–0.5 mΩ each.
const contactOhm = 0.0008

// contactorCoilA is what a continuous-duty contactor takes while it holds, at 12 V. Source: from
// memory.
const contactorCoilA = 1.0

// ChargerRatings are the outputs, in A, that chargers are commonly sold with.
// Source: common practice, no source.
var ChargerRatings = []float64{10, 15, 20, 25, 30, 40, 50, 60, 80}

// Stock is the book that every job starts with: one card for each rating that is
// commonly sold.
func Stock() Book {
	var b Book
	for _, a := range ChargerRatings {
		b.Chargers = append(b.Chargers, Charger{
			ID: fmt.Sprintf("dcdc-%g", a), Label: fmt.Sprintf("DC-DC charger, %g A", a), OutputA: a,
			EfficiencyLow: efficiencyLow, Efficiency: efficiency, CutOutV: cutOutV, MaxAmbientC: maxAmbientC,
			StandbyA: standbyA, CaseKPerW: caseKPerW, RestartV: restartV,
		})
	}
	b.Contacts = map[coupling.Kind][]Contact{}
	for kind, ratings := range contactRatings {
		for _, a := range ratings {
			c := Contact{ID: fmt.Sprintf("%s-%g", kind, a), Label: fmt.Sprintf("%s, %g A", contactNames[kind], a),
				ContinuousA: a, ContactOhm: contactOhm, CrankA: crankShare * a}
			switch kind {
			case coupling.VSR:
				c.Sensing, c.CoilA = coupling.Usual, coupling.Usual.CoilA
			case coupling.SwitchedContactor, coupling.ManualSelector, coupling.DCDCHighCurrent:
				c.CoilA = contactorCoilA
			}
			b.Contacts[kind] = append(b.Contacts[kind], c)
		}
	}
	b.Changeovers = []Changeover{
		{"changeover-40", "plug-in changeover relay, 40/30 A", coupling.PlugIn, contactOhm, crankShare * 40, 6, true, 0, ""},
		{"changeover-70", "plug-in changeover relay, 70/50 A", coupling.Changeover{MakeA: 70, BreakA: 50, CoilA: 0.2}, contactOhm,
			crankShare * 70, 10, true, 0, ""},
		{"changeover-100", "stud changeover relay, 100/80 A", coupling.Changeover{MakeA: 100, BreakA: 80, CoilA: 0.6}, contactOhm,
			crankShare * 100, 120, false, 0, ""},
	}
	b.Plugs = []Plug{
		{"plug-50", "50 A plug", 50, 16, 0.0005},
		{"plug-120", "120 A plug", 120, 35, 0.0003},
		{"plug-175", "175 A plug", 175, 53.5, 0.0002},
		{"plug-350", "350 A plug", 350, 107, 0.0002},
	}
	return b
}

// Contacts as they are commonly sold. Source: common practice, no source (60, 100 A and
// more of a sensing relay); from memory (the others). A bypass stage is up to 300 A.
var (
	contactRatings = map[coupling.Kind][]float64{
		coupling.VSR: {60, 100, 140, 200}, coupling.SwitchedContactor: {100, 200, 300}, coupling.ManualSelector: {200, 350},
		coupling.SecondAlternator: {100, 200, 300}, coupling.DiodeSplitter: {70, 120, 160, 200, 300, 400},
		coupling.DCDCHighCurrent: {coupling.UsualHighCurrent.ContactA},
	}
	contactNames = map[coupling.Kind]string{
		coupling.VSR: "voltage-sensing relay", coupling.SwitchedContactor: "continuous-duty contactor",
		coupling.ManualSelector:   "selector with contactor",
		coupling.SecondAlternator: "isolator", coupling.DiodeSplitter: "diode splitter", coupling.DCDCHighCurrent: "bypass stage",
	}
)

// What a splitter's diodes lose: forward voltage of silicon, and of the transistors that stand
// for diodes in an FET type, and what their leads resist. Source: from memory: 0.7–0.9 V and
// about 0.1 V.
const (
	siliconV    = 0.8
	fetV        = 0.1
	SplitterOhm = 0.0005
)

// SplitterV is what a splitter loses, by its type: “silicon” or “fet”; nil is the latter.
func SplitterV(kind *string) float64 {
	if kind != nil && *kind == "silicon" {
		return siliconV
	}
	return fetV
}

// crankShare is what a contact bears for the seconds of a start, over its continuous
// rating. Source: from memory.
const crankShare = 3.0

// ControlOhm is the contact of a switch or button in a thin wire. Source: from memory.
const ControlOhm = 0.02

// MachineRatings are second alternators as commonly sold, in A at 6,000 rpm. Source: from
// memory.
var MachineRatings = []float64{70, 90, 120, 150, 180, 220, 270}

// ContactRatings are all ratings of contacts, in rising order.
func ContactRatings() []float64 {
	var all []float64
	for _, ratings := range contactRatings {
		all = append(all, ratings...)
	}
	slices.Sort(all)
	return slices.Compact(all)
}

// PlugRatings are the ratings of trailer plugs. Source: from memory; 50 and 120 A common
// practice, no source.
func PlugRatings() []float64 { return []float64{50, 120, 175, 350} }

// ContactFactor is what share of its continuous rating a contact or a plug bears at a
// place of ambientC: all of it up to 40 °C, then half a percent less for each kelvin.
//
// Source: from memory; the card wins.
func ContactFactor(ambientC float64) float64 {
	return math.Max(0.2, math.Min(1, 1-0.005*(ambientC-40)))
}

// Charger finds the card of a given output.
func (b Book) Charger(outputA float64) (Charger, bool) {
	for _, c := range b.Chargers {
		if c.OutputA == outputA {
			return c, true
		}
	}
	return Charger{}, false
}

// Contact returns the smallest contact of a kind that bears amps, or the largest there
// is; the zero card where the kind has none.
func (b Book) Contact(k coupling.Kind, amps float64) Contact {
	cards := b.Contacts[k]
	for _, c := range cards {
		if c.ContinuousA >= amps {
			return c
		}
	}
	if len(cards) == 0 {
		return Contact{}
	}
	return cards[len(cards)-1]
}

// Changeover returns the smallest changeover relay whose rest contact bears amps and that
// takes a cable of mm2, or the largest there is.
func (b Book) Changeover(amps, mm2 float64) Changeover {
	for _, c := range b.Changeovers {
		if c.Relay.BreakA >= amps && c.Takes(mm2) {
			return c
		}
	}
	return b.Changeovers[len(b.Changeovers)-1]
}

// Plug returns the smallest trailer plug that bears amps and takes a cable of mm2, or the
// largest there is.
func (b Book) Plug(amps, mm2 float64) Plug {
	for _, p := range b.Plugs {
		if p.RatingA >= amps && p.Takes(mm2) {
			return p
		}
	}
	return b.Plugs[len(b.Plugs)-1]
}
