package job

import (
	"epitrope/core/coupling"
	"epitrope/core/parts"
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
	ContactMO *float64 `json:"contactMO,omitempty"`
}

// relayFields are the fields of it, at the coupling.
var relayFields = []Field{
	{Path: "relay.name", Label: "Relay's card", Kind: Text, Max: 60, Part: "coupling"},
	{Path: "relay.cutInV", Label: "It joins above, at 12 V", Kind: Number, Unit: "V", Min: 12.4, Max: 14.8, Digits: 2, dim: tension,
		Part: "coupling"},
	{Path: "relay.cutOutV", Label: "… and parts below, at 12 V", Kind: Number, Unit: "V", Min: 11.5, Max: 14, Digits: 2, dim: tension,
		Part: "coupling"},
	{Path: "relay.closeS", Label: "It waits before it joins", Kind: Number, Unit: "s", Max: 600, Digits: 1, dim: moments, Part: "coupling"},
	{Path: "relay.openS", Label: "… and before it parts", Kind: Number, Unit: "s", Max: 600, Digits: 1, dim: moments, Part: "coupling"},
	ask("relay.twoWay", "It senses the aux battery too", "coupling"),
	{Path: "relay.coilA", Label: "Its coil takes", Kind: Number, Unit: "A", Min: 0.01, Max: 10, Digits: 2, dim: current, Part: "coupling",
		Example: "150 mA"},
	{Path: "relay.crankA", Label: "It bears for the seconds of a start", Kind: Number, Unit: "A", Min: 1, Max: 3000, dim: current,
		Part: "coupling", Example: "400 A"},
	{Path: "relay.contactMO", Label: "Its contact, measured", Kind: Number, Unit: "mΩ", Min: 0.01, Max: 50, Digits: 2, dim: milliohms,
		Part: "coupling", Example: "0.4 mΩ"},
}

// RelayFacts are what holds of the relay or contactor that is fitted.
type RelayFacts struct {
	CutInV, CutOutV Num // of one that senses, at 12 V
	CloseS, OpenS   Num
	TwoWay          bool
	own             Relay
}

// relay is what holds of a relay that senses, as it was answered or as such are usually set.
func (r *resolver) relay(given Relay, senses bool) RelayFacts {
	f := RelayFacts{own: given}
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
	if v := f.own.CrankA; v != nil {
		c.CrankA = *v
	}
	if v := f.own.ContactMO; v != nil {
		c.ContactOhm = *v / 1000
	}
	return c
}
