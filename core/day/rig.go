// Package day runs an installation through time: hours to weeks of driving, idling and
// parking.
//
// A Rig is a circuit and what of it changes; a Pattern is what happens to the vehicle.
// Slow states (charge, polarisation, surface charge, temperatures, the heating of
// fuses) are stepped over solved circuits; between two steps everything else follows
// from the circuit. Relays, charger stages, fuses, cut-outs and management systems
// switch at events, found to 5 ms. Voltages inside are the system's; cards and
// chemistries speak of 12 V.
package day

import (
	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/network"
	"epitrope/core/protect"
)

// Rig is an installation that can be run. Elements and nodes are named as in its
// circuit; an empty name is a part that it does not have.
type Rig struct {
	N       float64 // system voltage / 12 V
	AuxN    float64 // the aux side's / 12 V; 0: as the system's
	Circuit *network.Circuit
	Nodes   Nodes

	Machine Machine
	Start   Bank
	Aux     Bank
	Vehicle string    // load of the vehicle
	Splits  [2]string // diodes from the machine to the start and to the aux battery; none where they are empty
	Beside  string    // load at the coupling's input while the engine runs; none where it is empty
	House   string    // load on the aux battery
	Starter string    // switch of the starter
	Outlet  string    // switch that is closed while the engine runs; none where it is empty
	Join    *Join
	Charger *Charger
	Ahead   *Ahead
	Solar   *Solar
	Mains   *Mains
	Taps    []Tap // what hangs on the run at the coupling
	Second  *SecondMachine

	Disconnect *Disconnect
	Fuses      []Fuse
	Wires      []Wire

	VehicleA, LampsA float64 // what the vehicle takes while driven, and with its lamps on
	KeyA, AsleepA    float64 // … with the ignition on and the engine stopped, and asleep
	HouseA           float64 // average of what is used off the aux battery
	EngineSpaceK     float64 // how far a warm engine heats its space above outside
}

// Nodes are the places whose voltages are watched.
type Nodes struct {
	Machine, Bus         string // alternator, start battery plus
	SensePlus, SenseZero string // what a relay measures, and a charger's input
	Out                  string // coupling, aux side
	AuxPlus, AuxZero     string
}

// Machine is the alternator.
type Machine struct {
	Element    string
	Label      alternator.Label
	Regulation alternator.Regulation
	WarmV      float64 // at 12 V, warm at cruise
	HotV       float64 // … hot, and IdleV at idle; 0 where they were not measured
	IdleV      float64
	Ratio      float64 // of its speed to the engine's
	IdleRPM    float64 // of the engine
}

// holds is what the machine holds in a space of spaceC, at 12 V.
func (m *Machine) holds(spaceC float64, at alternator.Moment, idles bool) float64 {
	volts := m.Regulation.SetV(m.WarmV, spaceC, at)
	steady := m.Regulation != alternator.Variable || at == alternator.Charging
	switch {
	case idles && m.IdleV > 0 && steady:
		return m.IdleV
	case m.HotV > 0 && steady:
		volts += alternator.Hotter(m.WarmV, m.HotV, spaceC)
	}
	return volts
}

// SecondMachine is an alternator of the aux battery's own. Its regulator holds a voltage
// and limits what it gives.
type SecondMachine struct {
	Element string
	Node    string // its terminal
	Label   alternator.Label
	Volts   float64 // at 12 V
	MostA   float64
}

// Bank is a battery.
type Bank struct {
	Element     string
	Chemistry   battery.Chemistry
	CapacityAh  float64
	FullV       float64 // at 12 V: held there for long, it is full
	SOC         float64 // at the start of the run, 0 to 1
	EngineSpace bool    // where it sits

	SlowOhm float64 // what follows slowly when it gives, where that is known; 0 where not
	SlowS   float64 // … and within what time; 0 where it is not known
}

// Control is what closes a join.
type Control string

// The controls of a join.
const (
	BySensing Control = "sensing" // a voltage-sensing relay
	ByCoil    Control = "coil"    // a contactor, by the signal at its coil
	Always    Control = "always"  // left joined
	Never     Control = "never"   // only by hand
	ByBypass  Control = "bypass"  // a high-current stage beside a charger
)

// Join is the contact that joins the two batteries.
type Join struct {
	Switch  string
	Coil    string // resistance of its coil
	By      Control
	Sensing coupling.Sensing
	HoldA   float64 // what its coil takes when closed
	WatchA  float64 // and when open
	Rest    string  // resistance of a rest contact, open while it is closed, that feeds the charger
	Bypass  coupling.HighCurrent
	Trigger Trigger // of a coil or a bypass
	PullV   float64 // at 12 V at the start battery: what a coil closes from; 0: whatever there is
	DropV   float64 // … and lets go below
	DelayS  float64 // of a timer in the coil's feed
}

// Ahead is a relay that parts a charger's feed while its coil is dead.
type Ahead struct {
	Switch, Coil string // its contact, and the resistance of its coil
	CoilOhm      float64
	By           Trigger
	PullV, DropV float64 // at 12 V at the start battery: what its coil closes from, and lets go below
}

// Trigger is when a signal is live, by what the key and the engine do.
type Trigger struct {
	Out, On, Cranking, Running bool
	Sensed                     bool // there is none: it is the charger's own eye on its input
}

// Signals as they commonly behave.
var (
	Running   = Trigger{Running: true}                                      // live only while the engine runs
	Ignition  = Trigger{On: true, Cranking: true, Running: true}            // live with the key
	Accessory = Trigger{On: true, Running: true}                            // live with the key, but not while cranking
	Switched  = Trigger{Out: true, On: true, Cranking: true, Running: true} // a switch, left on
	Dead      = Trigger{}                                                   // never
	Sensed    = Trigger{Sensed: true}
)

// Charger is a DC-DC charger.
type Charger struct {
	Element    string
	Standby    string // resistance of its input at rest
	Signal     string // … and of its signal's input; empty where none is wired
	SignalOhm  float64
	OutputA    float64
	StandbyA   float64
	Stages     coupling.Stages
	Curve      coupling.Curve
	CutOutV    float64 // at 12 V: stops below
	RestartV   float64 // … and starts again above
	SoftS      float64 // it takes so long to come to its full output
	MostInA    float64 // its input's limit, and IdleInA while the engine idles; 0 where it has none
	IdleInA    float64
	RestartS   float64 // after so long
	DelayS     float64 // from trigger to charge
	FullC      float64 // gives all its output up to here
	CaseKPerW  float64
	PlaceOverK float64 // how much warmer than outside its place gets
	By         Trigger
	LiveV      float64          // at 12 V at the start battery: its signal counts as live from
	Senses     coupling.Sensing // where that is Sensed
}

// Solar is panels with their own regulator on the aux battery.
type Solar struct {
	Element string
	Plus    string // its terminals
	Minus   string
	Watts   float64
	Volts   float64 // at 12 V, that it holds
	Hours   float64 // of full sun a day
}

// Mains is a charger that mains or a generator feed, on the aux side.
type Mains struct {
	Element     string
	Plus, Minus string
	Volts       float64 // at 12 V, that it holds
	MostA       float64
}

// Tap is what hangs on the run at the coupling: a load that draws so much on average, or all the while the
// engine runs.
type Tap struct {
	Element      string
	Plus, Minus  string
	MeanA, RunsA float64
	N            float64 // the voltage of its side / 12 V
}

// Fuse is a fuse that can open.
type Fuse struct {
	ID      string
	Element string // its resistance
	Fuse    protect.Fuse
}

// Conductor is a resistance of the circuit that is copper, with what it is at 20 °C.
type Conductor struct {
	Element string
	Ohm20   float64
}

// Wire is a cable that gets warm: its conductors in the circuit.
type Wire struct {
	ID       string
	Elements []Conductor
	Thermal  cable.Thermal
	LimitC   float64
	JointOhm float64 // its worst joint
	PlaceK   float64 // how much warmer than outside its place gets, engine warm
}

// Disconnect is a low-voltage disconnect between the aux battery and what is used off it.
type Disconnect struct {
	OpensV  float64 // at 12 V: opens below
	ClosesV float64 // … and closes again above
	HoldS   float64 // after so long
}
