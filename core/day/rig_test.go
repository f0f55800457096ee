package day_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/network"
	"epitrope/core/protect"
)

// made is a small installation to try things on: a machine, a start battery, a cable
// before the coupling, the coupling, a cable after it, an aux battery.
type made struct {
	beforeOhm, afterOhm float64
	aux                 battery.Chemistry
	auxAh, auxSOC       float64
	startSOC            float64
	houseA              float64
	regulation          alternator.Regulation
	label               string
	join                *day.Join
	charger             *day.Charger
	solarW              float64
	fullV               float64
	fuseA               float64
}

func usual() made {
	return made{beforeOhm: 0.004, afterOhm: 0.008, aux: battery.AGM, auxAh: 100, auxSOC: 0.5, startSOC: 0.9, regulation: alternator.Fixed,
		label: "90/180 A", fullV: 14.4, fuseA: 100}
}

func relay(s coupling.Sensing) *day.Join {
	return &day.Join{Switch: "relay", Coil: "coil", By: day.BySensing, Sensing: s, HoldA: 0.15, WatchA: 0.005}
}

func charger(outputA float64, stages battery.Stages) *day.Charger {
	return &day.Charger{Element: "charger", Standby: "standby", OutputA: outputA, StandbyA: 0.008,
		Stages: coupling.UsualStages(14.4, 13.5, stages), Curve: coupling.UsualCurve,
		CutOutV: 11.8, RestartV: 12.5, RestartS: 10, DelayS: 30, FullC: 50, CaseKPerW: 0.5, By: day.Running}
}

func (m made) rig(t testing.TB) *day.Rig {
	t.Helper()
	label, err := alternator.ParseLabel(m.label)
	require.NoError(t, err)
	c := network.New()
	rig := &day.Rig{N: 1, Circuit: c, Vehicle: "vehicle", House: "house", Starter: "starter", VehicleA: 20, LampsA: 40, HouseA: m.houseA,
		EngineSpaceK: 45,
		Nodes: day.Nodes{Machine: "machine", Bus: "bus", SensePlus: "in", SenseZero: "zero", Out: "out", AuxPlus: "aux",
			AuxZero: "auxzero"},
		Machine: day.Machine{Element: "alternator", Label: label, Regulation: m.regulation, WarmV: 14.4,
			Ratio: alternator.Ratio, IdleRPM: alternator.IdleRPM},
		KeyA: 8, AsleepA: 0.03,
		Start: day.Bank{Element: "start", Chemistry: battery.Flooded, CapacityAh: 80, FullV: 14.4, SOC: m.startSOC},
		Aux:   day.Bank{Element: "auxbattery", Chemistry: m.aux, CapacityAh: m.auxAh, FullV: m.fullV, SOC: m.auxSOC},
		Join:  m.join, Charger: m.charger}
	at := c.Node
	size := cable.Square(16)
	c.Add(network.Alternator{Name: "alternator", Plus: at("machine"), Sense: at("bus"), Volts: 14.4},
		network.Resistance{Name: "lead", A: at("machine"), B: at("bus"), Ohm: 0.001},
		network.Battery{Name: "start", Plus: at("bus"), Volts: 12.6, Ohm: 0.0075},
		network.CurrentLoad{Name: "vehicle", A: at("bus")},
		network.Switch{Name: "starter", A: at("bus"), Ohm: 0.024},
		network.Resistance{Name: "f1", A: at("bus"), B: at("f1.out"), Ohm: 0.001},
		network.Resistance{Name: "before", A: at("f1.out"), B: at("in"), Ohm: m.beforeOhm},
		network.Resistance{Name: "after", A: at("out"), B: at("aux"), Ohm: m.afterOhm},
		network.Battery{Name: "auxbattery", Plus: at("aux"), Minus: at("auxzero"), Volts: 12.3, Ohm: 0.004},
		network.CurrentLoad{Name: "house", A: at("aux"), B: at("auxzero")},
		network.Resistance{Name: "return", A: at("auxzero"), Ohm: 0.002},
		network.Resistance{Name: "ground", A: at("zero"), Ohm: 0.001})
	if m.join != nil {
		c.Add(network.Switch{Name: "relay", A: at("in"), B: at("out"), Ohm: 0.0008},
			network.Resistance{Name: "coil", A: at("in"), B: at("zero"), Ohm: 80})
	}
	if m.charger != nil {
		c.Add(network.Converter{Name: "charger", InPlus: at("in"), InMinus: at("zero"), OutPlus: at("out"), OutMinus: at("zero"), OutV: 14.4,
			MaxOutA: m.charger.OutputA, Efficiency: 0.9},
			network.Resistance{Name: "standby", A: at("in"), B: at("zero"), Ohm: 1500})
	}
	if m.solarW > 0 {
		c.Add(network.Alternator{Name: "solar", Plus: at("aux"), Minus: at("auxzero"), Volts: 14.4})
		rig.Solar = &day.Solar{Element: "solar", Plus: "aux", Minus: "auxzero", Watts: m.solarW, Volts: 14.4, Hours: 5}
	}
	if m.fuseA > 0 {
		rig.Fuses = []day.Fuse{{ID: "f1", Element: "f1", Fuse: protect.Fuse{Family: protect.Strip30, RatingA: m.fuseA}}}
	}
	rig.Wires = []day.Wire{{ID: "c1", Elements: []day.Conductor{{Element: "before", Ohm20: m.beforeOhm}},
		Thermal: cable.Class85.Thermal(size, cable.Cabin()), LimitC: 85, JointOhm: 0.0003, PlaceK: 20}}
	return rig
}

func pattern(t testing.TB, text string) day.Pattern {
	t.Helper()
	p, err := day.ParsePattern(text)
	require.NoError(t, err)
	return p
}

// run runs at 20 °C and keeps every frame.
func run(t testing.TB, rig *day.Rig, text string) (day.Result, []day.Frame) {
	t.Helper()
	var frames []day.Frame
	got, err := day.Run(rig, pattern(t, text), day.Conditions{OutsideC: 20},
		day.Options{Watch: func(f day.Frame) { f.Volts = nil; frames = append(frames, f) }})
	require.NoError(t, err)
	return got, frames
}

func events(r day.Result, id string) []day.Event {
	var list []day.Event
	for _, e := range r.Events {
		if e.ID == id {
			list = append(list, e)
		}
	}
	return list
}

// frameAt is the last frame up to a time.
func frameAt(frames []day.Frame, t float64) day.Frame {
	at := frames[0]
	for _, f := range frames {
		if f.T > t {
			break
		}
		at = f
	}
	return at
}
