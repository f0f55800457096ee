package job

// Beliefs are what the customer, or the shop, takes for granted: yes where somebody said so.
type Beliefs struct {
	Draws     *string `json:"draws,omitempty"`
	Drop      *string `json:"drop,omitempty"`
	OneFuse   *string `json:"oneFuse,omitempty"`
	Volts     *string `json:"volts,omitempty"`
	Label     *string `json:"label,omitempty"`
	Rest      *string `json:"rest,omitempty"`
	Apart     *string `json:"apart,omitempty"`
	Length    *string `json:"length,omitempty"`
	Chassis   *string `json:"chassis,omitempty"`
	Accessory *string `json:"accessory,omitempty"`
	Cranks    *string `json:"cranks,omitempty"`
	Click     *string `json:"click,omitempty"`
	Eight     *string `json:"eight,omitempty"`
	Stands    *string `json:"stands,omitempty"`
}

// beliefFields are the sentences to pick from.
var beliefFields = []Field{
	ask("beliefs.draws", "A charger draws what it gives", "coupling"),
	ask("beliefs.drop", "Cable that loses little is thick enough", "c1"),
	ask("beliefs.oneFuse", "One fuse, at the start battery, is enough", "f2"),
	ask("beliefs.volts", "14 V at the battery means that it is full", "aux"),
	ask("beliefs.label", "The alternator gives what its label says", "alternator"),
	ask("beliefs.rest", "A battery that rests at 12.3 V is nearly full", "aux"),
	ask("beliefs.apart", "Parked, both batteries are apart", "coupling"),
	ask("beliefs.length", "Plus and minus have to be of equal length", "c2"),
	ask("beliefs.chassis", "A cable leads back better than the chassis", "return"),
	ask("beliefs.accessory", "Accessory will do for the signal", "coupling"),
	ask("beliefs.cranks", "The fuse holds while the engine is cranked through the join", "f1"),
	ask("beliefs.click", "A click, or a lamp, proves that it charges", "coupling"),
	ask("beliefs.eight", "Cable sold as 6 mm has 6 mm² of copper", "c1"),
	ask("beliefs.stands", "A deep-cycle battery may stand for a year", "aux"),
}

// beliefs notes them.
func (r *resolver) beliefs(b Beliefs) {
	for _, held := range []struct {
		name  string
		given *string
	}{{"draws", b.Draws}, {"drop", b.Drop}, {"oneFuse", b.OneFuse}, {"volts", b.Volts}, {"label", b.Label}, {"rest", b.Rest},
		{"apart", b.Apart}, {"length", b.Length}, {"chassis", b.Chassis}, {"accessory", b.Accessory}, {"cranks", b.Cranks},
		{"click", b.Click}, {"eight", b.Eight}, {"stands", b.Stands}} {
		r.tri("beliefs."+held.name, held.given)
	}
}
