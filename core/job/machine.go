package job

import (
	"epitrope/core/alternator"
	"epitrope/core/unit"
)

// machineFields are what was measured of the alternator and of what the vehicle itself takes.
var machineFields = []Field{
	{Path: "alternator.machine", Label: "The vehicle's side is fed by", Kind: Choice, Part: "alternator", Choices: []Option{
		{"alternator", "an alternator"}, {ByConverter, "a converter, from a traction battery or another voltage"}}},
	{Path: "alternator.idleA", Label: "Output at idle, hot", Kind: Number, Unit: "A", Min: 1, Max: 600, dim: current, Part: "alternator",
		Example: "70 A"},
	{Path: "alternator.idleV", Label: "Charging voltage at idle", Kind: Number, Unit: "V", Min: 8, Max: 16, Digits: 2, PerSystem: true,
		dim: tension, Part: "alternator", Example: "13.6 V"},
	{Path: "alternator.hotV", Label: "Charging voltage, hot, at cruise", Kind: Number, Unit: "V", Min: 8, Max: 16, Digits: 2,
		PerSystem: true,
		dim:       tension, Part: "alternator", Example: "13.9 V"},
	{Path: "alternator.idleRpm", Label: "Engine idles at, turns a minute", Kind: Number, Min: 400, Max: 1600, dim: count,
		Part: "alternator", Example: "750"},
	{Path: "alternator.ratio", Label: "Alternator turns for each turn of the engine", Kind: Number, Min: 1.2, Max: 4, Digits: 2,
		dim: plain(unit.Count), Part: "alternator", Example: "2.75"},
	{Path: "vehicle.dayA", Label: "Vehicle takes, driven by day", Kind: Number, Unit: "A", Max: 120, Digits: 1, dim: current,
		Part: "alternator", Example: "18 A"},
	{Path: "vehicle.keyA", Label: "Vehicle takes with the ignition on, engine stopped", Kind: Number, Unit: "A", Max: 60, Digits: 1,
		dim:  current,
		Part: "start", Example: "6 A"},
	{Path: "vehicle.asleepA", Label: "Vehicle takes asleep", Kind: Number, Unit: "A", Max: 10, Digits: 3, dim: current, Part: "start",
		Example: "35 mA"},
}

// ByConverter is a vehicle whose electrics a converter feeds.
const ByConverter = "converter"

// MachineFacts are what holds of the alternator's speed and volts, and of what the vehicle takes.
type MachineFacts struct {
	IdleRPM, Ratio      Num      // of the engine; of the alternator to it
	IdleV, HotV         *float64 // at the system's voltage, where they were measured
	DayA, KeyA, AsleepA Num
}

// What a vehicle takes besides, in A. Source: common practice, no source: half by day of what it
// takes with lamps and blower on, 8 A with the ignition on, 20 to 50 mA asleep.
const (
	byDay         = 0.5
	defaultKeyA   = 8.0
	defaultAsleep = 0.03
)

// machine notes them, and puts the alternator's curve through what is known at idle.
func (f *Facts) machine(r *resolver, d Document) {
	a, v := d.Alternator, d.Vehicle
	f.Machine = MachineFacts{
		IdleRPM: r.num("alternator.idleRpm", a.IdleRPM, alternator.IdleRPM, "a usual idle (common practice, no source)"),
		Ratio:   r.num("alternator.ratio", a.Ratio, alternator.Ratio, "of 2.5 to 3 (common practice, no source)"),
		IdleV:   r.some("alternator.idleV", a.IdleV), HotV: r.some("alternator.hotV", a.HotV),
		DayA:    r.num("vehicle.dayA", v.DayA, byDay*f.LoadA.Value, "half of what it takes with lamps and blower on"),
		KeyA:    r.num("vehicle.keyA", v.KeyA, defaultKeyA, "common practice, no source"),
		AsleepA: r.num("vehicle.asleepA", v.AsleepA, defaultAsleep, "of 20 to 50 mA (common practice, no source)"),
	}
	f.Label.Converter = r.tri("alternator.machine", a.Machine) == ByConverter
	if a.IdleRPM == nil && a.Ratio == nil {
		f.Label = f.Label.AtIdle()
	}
	if idle := r.some("alternator.idleA", a.IdleA); idle != nil {
		f.Label.IdleA, f.Label.LowRPM = *idle, f.IdleTurns()
	}
}

// IdleTurns is the alternator's speed while the engine idles.
func (f Facts) IdleTurns() float64 { return f.Machine.IdleRPM.Value * f.Machine.Ratio.Value }
