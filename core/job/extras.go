package job

import (
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Extras is what is fitted besides the coupling. Voltages are the system's.
type Extras struct {
	Isolator      *string  `json:"isolator,omitempty"`
	IsolatorA     *float64 `json:"isolatorA,omitempty"`
	IsolatorFirst *string  `json:"isolatorFirst,omitempty"`
	Monitor       *string  `json:"monitor,omitempty"`
	ShuntA        *float64 `json:"shuntA,omitempty"`
	ShuntMV       *float64 `json:"shuntMV,omitempty"`
	ShuntAll      *string  `json:"shuntAll,omitempty"`
	Disconnect    *string  `json:"disconnect,omitempty"`
	OpensV        *float64 `json:"opensV,omitempty"`
	ClosesV       *float64 `json:"closesV,omitempty"`
	DisconnectA   *float64 `json:"disconnectA,omitempty"`
	Cuts          *string  `json:"cuts,omitempty"`
	PeakA         *float64 `json:"peakA,omitempty"`
	Bond          *string  `json:"bond,omitempty"`
	BondSize      *string  `json:"bondSize,omitempty"`
	BondM         *float64 `json:"bondM,omitempty"`
	WinchA        *float64 `json:"winchA,omitempty"`
	WinchFrom     *string  `json:"winchFrom,omitempty"`
	WinchMin      *float64 `json:"winchMin,omitempty"`
	ManagementA   *float64 `json:"managementA,omitempty"`
	OutputA       *float64 `json:"outputA,omitempty"`
	SocketA       *float64 `json:"socketA,omitempty"`
	SocketContact *string  `json:"socketContact,omitempty"`
	SocketM       *float64 `json:"socketM,omitempty"`
	SocketReturn  *string  `json:"socketReturn,omitempty"`
}

// Where an isolator is: nowhere, in the start run behind its fuse, in the aux run before
// its fuse, or at the aux battery's post.
const (
	NoIsolator    = "none"
	FrontIsolator = "front"
	AuxIsolator   = "aux"
	MasterSwitch  = "master"
)

// Where a winch is fed from.
const (
	WinchAtStart  = "start"
	WinchAtAux    = "aux"
	WinchAtJoined = "joined"
)

// Contacts of the 13-pin socket that carry power: 9 is permanent with 13 its return, 10 is
// switched with 11 its return. Source: ISO 11446, from memory.
const (
	PermanentContact = "9"
	SwitchedContact  = "10"
)

// Ways back from a load on the 13-pin socket.
const (
	OwnReturn  = "own"
	LampReturn = "lamps"
)

// extraFields are what is fitted besides the coupling.
var extraFields = []Field{
	{Path: "extras.isolator", Label: "Isolator", Kind: Choice, Part: "aux",
		Choices: []Option{{NoIsolator, "none"}, {FrontIsolator, "in the start run, behind F1"},
			{AuxIsolator, "in the aux run, before F2"}, {MasterSwitch, "master switch at the aux battery"}}},
	{Path: "extras.isolatorA", Label: "Isolator is rated", Kind: Number, Unit: "A", Min: 10, Max: 1000, dim: current, Part: "aux",
		Pin:     true,
		Example: "200 A"},
	ask("extras.isolatorFirst", "The isolator stops the charger before it opens", "aux"),
	ask("extras.monitor", "Battery monitor with a shunt", "aux"),
	{Path: "extras.shuntA", Label: "Shunt is rated", Kind: Number, Unit: "A", Min: 10, Max: 2000, dim: current, Part: "aux"},
	{Path: "extras.shuntMV", Label: "… and shows at that", Kind: Number, Unit: "mV", Min: 10, Max: 150, dim: plain(unit.Count),
		Part: "aux"},
	ask("extras.shuntAll", "Every negative but the battery's own is on its far side", "aux"),
	ask("extras.disconnect", "Low-voltage disconnect", "aux"),
	{Path: "extras.opensV", Label: "The low-voltage disconnect opens below", Kind: Number, Unit: "V", Min: 9, Max: 13.5, Digits: 2,
		PerSystem: true, dim: tension,
		Part: "aux"},
	{Path: "extras.closesV", Label: "… and closes again above", Kind: Number, Unit: "V", Min: 10, Max: 14.5, Digits: 2, PerSystem: true,
		dim: tension, Part: "aux"},
	{Path: "extras.disconnectA", Label: "Disconnect is rated", Kind: Number, Unit: "A", Min: 5, Max: 600, dim: current, Part: "aux"},
	{Path: "extras.cuts", Label: "The low-voltage disconnect cuts off", Kind: Choice, Part: "aux",
		Choices: []Option{{"loads", "the loads alone"}, {"battery", "the whole battery"}}},
	{Path: "extras.peakA", Label: "Most that the loads take at once", Kind: Number, Unit: "A", Min: 1, Max: 600, dim: current, Part: "aux"},
	ask("extras.bond", "Bonding lead from tray, canopy or body to the chassis", "return"),
	{Path: "extras.bondSize", Label: "Bonding lead", Kind: CableKey, Pin: true, Part: "return", Example: "16 mm², 6 AWG, 8 mm auto"},
	{Path: "extras.bondM", Label: "Length of the bond", Kind: Number, Unit: "m", Min: 0.1, Max: 10, Digits: 2, dim: length, Part: "return"},
	{Path: "extras.winchA", Label: "Winch takes, pulling", Kind: Number, Unit: "A", Min: 20, Max: 800, dim: current, Part: "start"},
	{Path: "extras.winchFrom", Label: "Winch is fed from", Kind: Choice, Part: "start",
		Choices: []Option{{WinchAtStart, "the start battery alone"}, {WinchAtAux, "the aux battery"},
			{WinchAtJoined, "both, joined"}}},
	{Path: "extras.winchMin", Label: "One pull lasts", Kind: Number, Unit: "min", Min: 0.1, Max: 30, Digits: 1, dim: plain(unit.Minutes),
		Part: "start"},
	{Path: "extras.managementA", Label: "Management system lets through", Kind: Number, Unit: "A", Min: 5, Max: 1000, dim: current,
		Part: "aux"},
	{Path: "extras.outputA", Label: "The charge-disable output switches", Kind: Number, Unit: "A", Min: 0.01, Max: 20, Digits: 2,
		dim:  current,
		Part: "aux"},
	{Path: "extras.socketA", Label: "Load in the trailer by the 13-pin socket", Kind: Number, Unit: "A", Max: 40, Digits: 1, dim: current,
		Part: "x1"},
	{Path: "extras.socketContact", Label: "The socket is fed by", Kind: Choice, Part: "x1",
		Choices: []Option{{PermanentContact, "contact 9, permanent"}, {SwitchedContact, "contact 10, switched"}}},
	{Path: "extras.socketM", Label: "Cable to it, one way", Kind: Number, Unit: "m", Min: 0.5, Max: 30, Digits: 1, dim: length, Part: "x1"},
	{Path: "extras.socketReturn", Label: "The socket's return is by", Kind: Choice, Part: "x1",
		Choices: []Option{{OwnReturn, "its own contact, 13 or 11"}, {LampReturn, "the lamps' earth"}}},
}

// ExtraFacts are the extras with nothing left open but what nobody can guess.
type ExtraFacts struct {
	Isolator                         string
	IsolatorA                        *float64
	IsolatorFirst, ShuntAll          Tri
	Monitor, Disconnect, Bond, Winch bool
	ShuntA, ShuntMV                  Num
	OpensV, ClosesV                  Num
	DisconnectA, PeakA, ManagementA  *float64
	Cuts                             string // "" not answered
	BondSize                         *string
	BondM, WinchA, WinchMin, OutputA Num
	WinchFrom                        string
	SocketA, SocketM                 Num
	SocketContact, SocketReturn      string
}

// Defaults of extras. Source: common practice, no source, for a shunt of 50 mV; from memory
// for all others.
const (
	defaultShuntA   = 500
	defaultShuntMV  = 50
	defaultBondM    = 0.4
	defaultWinchA   = 350
	defaultWinchMin = 1
	defaultOutputA  = 0.5
	defaultSocketM  = 8
)

// extras notes what there is of extras, and nothing of those that are not fitted.
func (f *Facts) extras(r *resolver, d Document) {
	e, n := d.Extras, f.AuxN
	out := ExtraFacts{Isolator: NoIsolator}
	if r.tri("extras.isolator", e.Isolator) != Asked {
		out.Isolator = *e.Isolator
	}
	if out.Isolator != NoIsolator {
		out.IsolatorA, out.IsolatorFirst = r.some("extras.isolatorA", e.IsolatorA), r.tri("extras.isolatorFirst", e.IsolatorFirst)
	}
	if out.Monitor = r.tri("extras.monitor", e.Monitor) == Yes; out.Monitor {
		out.ShuntA = r.num("extras.shuntA", e.ShuntA, defaultShuntA, "a common size")
		out.ShuntMV = r.num("extras.shuntMV", e.ShuntMV, defaultShuntMV, "the usual one (common practice, no source)")
		out.ShuntAll = r.tri("extras.shuntAll", e.ShuntAll)
	}
	if out.Disconnect = r.tri("extras.disconnect", e.Disconnect) == Yes; out.Disconnect {
		out.OpensV = r.num("extras.opensV", e.OpensV, f.Chemistry.OpensV*n, "a common setting (from memory)")
		out.ClosesV = r.num("extras.closesV", e.ClosesV, f.Chemistry.ClosesV*n, "a common setting (from memory)")
		out.DisconnectA, out.Cuts = r.some("extras.disconnectA", e.DisconnectA), string(r.tri("extras.cuts", e.Cuts))
		out.PeakA = r.some("extras.peakA", e.PeakA)
	}
	if out.Bond = r.tri("extras.bond", e.Bond) == Yes; out.Bond {
		out.BondSize = e.BondSize
		if e.BondSize != nil {
			r.note("extras.bondSize", *e.BondSize, true, "")
		}
		out.BondM = r.num("extras.bondM", e.BondM, defaultBondM, "from the body to the nearest frame rail")
	}
	if out.Winch = f.Survey.Winch == Yes; out.Winch {
		out.WinchA = r.num("extras.winchA", e.WinchA, defaultWinchA, "a winch at full pull (from memory)")
		out.WinchFrom = r.text("extras.winchFrom", e.WinchFrom, WinchAtStart, "as it is usually fitted")
		out.WinchMin = r.num("extras.winchMin", e.WinchMin, defaultWinchMin, "a short pull")
	}
	out.ManagementA = r.some("extras.managementA", e.ManagementA)
	out.OutputA = Num{defaultOutputA, working.Assumed, "a small transistor's (from memory)"}
	if e.OutputA != nil {
		out.OutputA = r.num("extras.outputA", e.OutputA, 0, "")
	}
	if e.SocketA != nil && *e.SocketA > 0 && f.Place.Trailer {
		out.SocketA = r.num("extras.socketA", e.SocketA, 0, "")
		out.SocketContact = r.text("extras.socketContact", e.SocketContact, PermanentContact, "permanent is taken where nobody said")
		out.SocketM = r.num("extras.socketM", e.SocketM, defaultSocketM, "from the start battery through the socket; measure it")
		out.SocketReturn = r.text("extras.socketReturn", e.SocketReturn, OwnReturn, "as it should be")
	}
	f.Extras = out
}
