package job

import (
	"cmp"

	"epitrope/core/coupling"
	"epitrope/core/parts"
	"epitrope/core/protect"
)

// Relay is the relay or contactor that is really fitted, as its label says or a meter shows,
// where it is not as such are usually set; its thresholds are for 12 V.
type Relay struct {
	Name      string   `json:"name,omitempty"`
	CutInV    *float64 `json:"cutInV,omitempty"`
	CutOutV   *float64 `json:"cutOutV,omitempty"`
	CloseS    *float64 `json:"closeS,omitempty"`
	OpenS     *float64 `json:"openS,omitempty"`
	TwoWay    *string  `json:"twoWay,omitempty"`
	CoilA     *float64 `json:"coilA,omitempty"`
	CrankA    *float64 `json:"crankA,omitempty"`
	RatedA    *float64 `json:"ratedA,omitempty"`
	RatedBy   *string  `json:"ratedBy,omitempty"`
	RestA     *float64 `json:"restA,omitempty"`
	JoinA     *float64 `json:"joinA,omitempty"`
	FollowS   *float64 `json:"followS,omitempty"`
	Against   *string  `json:"against,omitempty"`
	Damped    *string  `json:"damped,omitempty"`
	ContactMO *float64 `json:"contactMO,omitempty"`
	Terminals *string  `json:"terminals,omitempty"`
}

// What a relay senses against.
const (
	AgainstStart = "start"
	AgainstAux   = "aux"
)

// RatedByLabel is a rating read off a name or label.
const RatedByLabel = "label"

// relayFields are the fields of it, at the coupling.
var relayFields = []Field{
	{Path: "relay.name", Label: "Relay's card", Kind: Text, Max: 60, Part: "coupling"},
	{Path: "relay.cutInV", Label: "The relay joins above, at 12 V", Kind: Number, Unit: "V", Min: 12.4, Max: 14.8, Digits: 2, dim: tension,
		Part: "coupling"},
	{Path: "relay.cutOutV", Label: "… and parts below, at 12 V", Kind: Number, Unit: "V", Min: 11.5, Max: 14, Digits: 2, dim: tension,
		Part: "coupling"},
	{Path: "relay.closeS", Label: "The relay waits before it joins", Kind: Number, Unit: "s", Max: 600, Digits: 1, dim: moments,
		Part: "coupling"},
	{Path: "relay.openS", Label: "… and before it parts", Kind: Number, Unit: "s", Max: 600, Digits: 1, dim: moments, Part: "coupling"},
	ask("relay.twoWay", "The relay senses the aux battery too", "coupling"),
	{Path: "relay.coilA", Label: "The relay's coil takes", Kind: Number, Unit: "A", Min: 0.01, Max: 10, Digits: 2, dim: current,
		Part:    "coupling",
		Example: "150 mA"},
	{Path: "relay.crankA", Label: "The relay bears for the seconds of a start", Kind: Number, Unit: "A", Min: 1, Max: 3000, dim: current,
		Part: "coupling", Example: "400 A"},
	{Path: "relay.ratedA", Label: "The relay bears for hours", Kind: Number, Unit: "A", Min: 1, Max: 1000, dim: current, Part: "coupling",
		Example: "120 A"},
	{Path: "relay.ratedBy", Label: "The relay's rating is from", Kind: Choice, Part: "coupling",
		Choices: []Option{{"sheet", "its sheet, for hours"}, {RatedByLabel, "its name or label"}}},
	{Path: "relay.restA", Label: "The rest contact, 87a, bears for hours", Kind: Number, Unit: "A", Min: 1, Max: 1000, dim: current,
		Part: "coupling", Example: "30 A"},
	{Path: "relay.joinA", Label: "The relay may close on", Kind: Number, Unit: "A", Min: 1, Max: 5000, dim: current, Part: "coupling",
		Example: "300 A"},
	{Path: "relay.followS", Label: "What it senses follows its side within", Kind: Number, Unit: "s", Max: 120, Digits: 1, dim: moments,
		Part: "coupling", Example: "3 s"},
	{Path: "relay.against", Label: "The relay senses against", Kind: Choice, Part: "coupling",
		Choices: []Option{{AgainstStart, "the start battery's earth"}, {AgainstAux, "the aux battery's earth point"}}},
	ask("relay.damped", "The relay's coil has a diode or a resistor across it", "coupling"),
	{Path: "relay.contactMO", Label: "The relay's contact, measured", Kind: Number, Unit: "mΩ", Min: 0.01, Max: 50, Digits: 2,
		dim:  milliohms,
		Part: "coupling", Example: "0.4 mΩ"},
	{Path: "relay.terminals", Label: "The relay's cables go on", Kind: Choice, Part: "coupling", Choices: studs},
}

// RelayFacts are what holds of the relay or contactor that is fitted.
type RelayFacts struct {
	CutInV, CutOutV Num // of one that senses, at 12 V
	CloseS, OpenS   Num
	TwoWay          bool
	AtAuxEarth      bool // it senses against the aux battery's earth point
	Damped          Tri
	own             Relay
}

// relay is what holds of a relay that senses, as it was answered or as such are usually set.
func (r *resolver) relay(given Relay, senses bool) RelayFacts {
	f := RelayFacts{own: given, Damped: r.tri("relay.damped", given.Damped)}
	if !senses {
		return f
	}
	const usual = "as such relays are usually set (common practice, no source)"
	card := coupling.Usual
	if f.TwoWay = r.text("relay.twoWay", given.TwoWay, string(No), "one-way, as most are") == string(Yes); f.TwoWay {
		card = coupling.UsualTwoWay
	}
	f.CutInV = r.num("relay.cutInV", given.CutInV, card.CutInV, usual)
	f.CutOutV = r.num("relay.cutOutV", given.CutOutV, card.CutOutV, usual)
	f.CloseS = r.num("relay.closeS", given.CloseS, card.CloseS, "from memory")
	f.AtAuxEarth = r.text("relay.against", given.Against, AgainstStart, "as it should be") == AgainstAux
	r.some("relay.followS", given.FollowS)
	f.OpenS = r.num("relay.openS", given.OpenS, card.OpenS, usual)
	return f
}

// On is a contact's card with what is known of the one that is really fitted.
func (f RelayFacts) On(c parts.Contact) parts.Contact {
	if f.own.Name != "" {
		c.Label = f.own.Name
	}
	if f.CutInV.Value > 0 {
		c.Sensing.CutInV, c.Sensing.CutOutV, c.Sensing.TwoWay = f.CutInV.Value, f.CutOutV.Value, f.TwoWay
		c.Sensing.CloseS, c.Sensing.OpenS = f.CloseS.Value, f.OpenS.Value
	}
	if v := f.own.CoilA; v != nil && c.CoilA > 0 {
		c.CoilA, c.Sensing.CoilA = *v, *v
	}
	if v := f.own.FollowS; v != nil {
		c.Sensing.FollowS = *v
	}
	for at, v := range map[*float64]*float64{&c.CrankA: f.own.CrankA, &c.ContinuousA: f.own.RatedA, &c.JoinA: f.own.JoinA} {
		if v != nil {
			*at = *v
		}
	}
	if v := f.own.ContactMO; v != nil {
		c.ContactOhm = *v / 1000
	}
	c.Stud = cmp.Or(Str(f.own.Terminals), c.Stud)
	return c
}

// OnChangeover is a changeover relay's card with what is known of the one that is really fitted.
func (f RelayFacts) OnChangeover(c parts.Changeover) parts.Changeover {
	if f.own.Name != "" {
		c.Label = f.own.Name
	}
	for at, v := range map[*float64]*float64{&c.CrankA: f.own.CrankA, &c.Relay.MakeA: f.own.RatedA, &c.Relay.BreakA: f.own.RestA,
		&c.JoinA: f.own.JoinA, &c.Relay.CoilA: f.own.CoilA} {
		if v != nil {
			*at = *v
		}
	}
	if v := f.own.ContactMO; v != nil {
		c.ContactOhm = *v / 1000
	}
	if stud := Str(f.own.Terminals); stud != "" {
		c.Stud, c.PlugIn, c.MostMM2 = stud, false, protect.LugMost(stud)
	}
	return c
}
