package job

// leftFields are the fields of the rows of what was there before: devices and wires.
var leftFields = []Field{
	{Path: "gear.*.kind", Label: "What", Kind: Choice, Choices: []Option{{"relay", "voltage-sensing relay"}, {"charger", "DC-DC charger"},
		{"contactor", "contactor"},
		{"changeover", "changeover relay"}, {"selector", "selector"}, {"splitter", "diode splitter"},
		{"solar", "solar regulator"}, {"isolator", "isolator"},
		{"monitor", "monitor or shunt"},
		{"inverter", "inverter"}, {"battery", "battery"}, {"fusebox", "fuse box"}, {"other", "something else"}}},
	{Path: "gear.*.name", Label: "Called", Kind: Text, Max: 60},
	{Path: "gear.*.ratingA", Label: "Rated", Kind: Number, Unit: "A", Max: 1000, Digits: 1, dim: current},
	{Path: "gear.*.works", Label: "State", Kind: Choice, Choices: []Option{{"works", "works"}, {"dead", "dead"}, {"doubtful", "half dead"},
		{"unknown", "not tried"}}},
	{Path: "gear.*.fault", Label: "Fault", Kind: Text, Max: 200},
	{Path: "gear.*.across", Label: "The device sits", Kind: Choice, Choices: []Option{{AcrossBatteries, "between batteries"},
		{"start", "in the start lead"}, {"aux", "in the aux lead"}, {"loads", "at the loads"}, {"unknown", "not known"}},
		When: &When{Path: "gear.*.kind", Is: []string{"isolator", "fusebox", "other"}}},
	{Path: "gear.*.restA", Label: "The rest contact (87a) bears", Kind: Number, Unit: "A", Min: 1, Max: 1000, Digits: 1, dim: current,
		When: &When{Path: "gear.*.kind", Is: []string{"changeover"}}},
	{Path: "gear.*.factoryFeed", Label: "Coil fed from the factory's ignition", Kind: Choice, Choices: yesNo,
		When: &When{Path: "gear.*.kind", Is: []string{"contactor", "changeover"}}},

	{Path: "found.*.role", Label: "Wire is", Kind: Choice, Choices: []Option{{"start", "start run"}, {"aux", "aux run"}, {"return", "return"},
		{"trigger", "signal"},
		{"load", "feed to a load"}, {"unknown", "not known"}}},
	{Path: "found.*.endA", Label: "End A", Kind: Text, Max: 60},
	{Path: "found.*.endB", Label: "End B", Kind: Text, Max: 60},
	{Path: "found.*.colour", Label: "Colour", Kind: Text, Max: 30},
	{Path: "found.*.size", Label: "Cable", Kind: CableKey, Example: "16 mm², 6 AWG, 8 mm auto"},
	{Path: "found.*.insulation", Label: "Insulation, printed on it", Kind: Level, Unit: "°C", Choices: insulations},
	{Path: "found.*.lengthM", Label: "Length", Kind: Number, Unit: "m", Min: 0.05, Max: 40, Digits: 2, dim: length},
	{Path: "found.*.fuseA", Label: "Fuse at A", Kind: Number, Unit: "A", Max: 600, Digits: 1, dim: current},
	{Path: "found.*.fuseMM", Label: "Fuse from A by", Kind: Number, Unit: "mm", Max: 5000, dim: millimetres},
	{Path: "found.*.fuseBA", Label: "Fuse at B", Kind: Number, Unit: "A", Max: 600, Digits: 1, dim: current},
	{Path: "found.*.fuseIs", Label: "At end A there is", Kind: Choice, Choices: fuseStates},
	{Path: "found.*.fuseBIs", Label: "At end B there is", Kind: Choice, Choices: fuseStates},
	{Path: "found.*.fuseForm", Label: "The wire's fuses are", Kind: Choice, Choices: []Option{{InHolder, "in holders"}, {BareFuse, "bare"},
		{TapedFuse, "taped in"}}},
	{Path: "found.*.amps", Label: "Carries", Kind: Number, Unit: "A", Max: 600, Digits: 1, dim: current},
	{Path: "found.*.dropV", Label: "Loses, measured", Kind: Number, Unit: "V", Max: 15, Digits: 2, dim: tension},
	{Path: "found.*.state", Label: "State", Kind: Choice, Choices: []Option{{"good", "good"}, {"corroded", "corroded"}, {"loose", "loose"},
		{"chafed", "chafed"},
		{"taped", "taped off"}, {"cut", "cut"}}},
	{Path: "found.*.sources", Label: "Live from", Kind: Choice, Choices: []Option{{"a", "end A"}, {"b", "end B"}, {BothEnds, "both ends"},
		{"none", "neither"}}},
	{Path: "found.*.remark", Label: "Remark", Kind: Text, Max: 200},
}

// What is said of a fuse whose rating is not, and how fuses were found.
const (
	NoFuse     = "none"
	Unreadable = "unreadable"
	InHolder   = "holder"
	BareFuse   = "bare"
	TapedFuse  = "taped"
)

var fuseStates = []Option{{NoFuse, "no fuse"}, {Unreadable, "a fuse, its rating not readable"}}

// Gear is a row of what was there before: a device.
type Gear struct {
	Kind        *string  `json:"kind,omitempty"`
	Name        string   `json:"name,omitempty"`
	RatingA     *float64 `json:"ratingA,omitempty"`
	Works       *string  `json:"works,omitempty"`
	Fault       string   `json:"fault,omitempty"`
	Across      *string  `json:"across,omitempty"`
	RestA       *float64 `json:"restA,omitempty"`
	FactoryFeed *string  `json:"factoryFeed,omitempty"`
}

// AcrossBatteries is where a device joins them; BothEnds are the ends that a wire is live from.
const (
	AcrossBatteries = "batteries"
	BothEnds        = "both"
)

// FoundWire is a row of what was there before: a wire.
type FoundWire struct {
	Role   *string `json:"role,omitempty"`
	EndA   string  `json:"endA,omitempty"`
	EndB   string  `json:"endB,omitempty"`
	Colour string  `json:"colour,omitempty"`
	Size   *string `json:"size,omitempty"`

	Insulation *float64 `json:"insulation,omitempty"`

	LengthM *float64 `json:"lengthM,omitempty"`
	FuseA   *float64 `json:"fuseA,omitempty"`
	FuseMM  *float64 `json:"fuseMM,omitempty"`
	FuseBA  *float64 `json:"fuseBA,omitempty"`

	FuseIs   *string `json:"fuseIs,omitempty"`
	FuseBIs  *string `json:"fuseBIs,omitempty"`
	FuseForm *string `json:"fuseForm,omitempty"`

	Amps    *float64 `json:"amps,omitempty"`
	DropV   *float64 `json:"dropV,omitempty"`
	State   *string  `json:"state,omitempty"`
	Sources *string  `json:"sources,omitempty"`
	Remark  string   `json:"remark,omitempty"`
}
