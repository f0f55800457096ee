package job

// JointMeasured is a piece of the circuit as it was measured: millivolts at a current, or milliohms,
// and how warm it was. Its row is named by what was measured: a joint by its wire and end ("c1to" is
// the end of C1 towards the aux battery), a conductor by its wire ("c1"), a fuse in its holder by its
// name ("f1"), the steel between the earth points as "chassis", tray, canopy or body as "body".
type JointMeasured struct {
	MV    *float64 `json:"mV,omitempty"`
	AtA   *float64 `json:"atA,omitempty"`
	MOhm  *float64 `json:"mOhm,omitempty"`
	TempC *float64 `json:"tempC,omitempty"`
}

// jointFields are the fields of a joint.
var jointFields = []Field{
	{Path: "joints.*.mV", Label: "The joint loses", Kind: Number, Unit: "mV", Max: 5000, Digits: 1, dim: millivolts,
		Example: "60 mV"},
	{Path: "joints.*.atA", Label: "… at", Kind: Number, Unit: "A", Min: 0.5, Max: 2000, Digits: 1, dim: current,
		Example: "40 A"},
	{Path: "joints.*.mOhm", Label: "… or measures", Kind: Number, Unit: "mΩ", Max: 1000, Digits: 3, dim: milliohms,
		Example: "0.4 mΩ"},
	{Path: "joints.*.tempC", Label: "… and gets, at that current", Kind: Number, Unit: "°C", Min: -30, Max: 300, dim: warmth,
		Example: "55 °C"},
}

// Ohm is what the joint resists; ok is false where that was not measured: millivolts say
// nothing without their current.
func (j JointMeasured) Ohm() (ohm float64, ok bool) {
	switch {
	case j.MOhm != nil:
		return *j.MOhm / 1000, true
	case j.MV != nil && j.AtA != nil:
		return *j.MV / 1000 / *j.AtA, true
	}
	return 0, false
}
