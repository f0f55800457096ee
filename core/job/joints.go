package job

// JointMeasured is a crimped and bolted end as it was measured: millivolts at a current, or milliohms.
// Its row is named by the wire and its end: "c1to" is the end of C1 towards the aux battery.
type JointMeasured struct {
	MV   *float64 `json:"mV,omitempty"`
	AtA  *float64 `json:"atA,omitempty"`
	MOhm *float64 `json:"mOhm,omitempty"`
}

// jointFields are the fields of a joint.
var jointFields = []Field{
	{Path: "joints.*.mV", Label: "Joint loses", Kind: Number, Unit: "mV", Max: 5000, Digits: 1, dim: millivolts,
		Example: "60 mV"},
	{Path: "joints.*.atA", Label: "… at", Kind: Number, Unit: "A", Min: 0.5, Max: 2000, Digits: 1, dim: current,
		Example: "40 A"},
	{Path: "joints.*.mOhm", Label: "… or measures", Kind: Number, Unit: "mΩ", Max: 1000, Digits: 3, dim: milliohms,
		Example: "0.4 mΩ"},
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
