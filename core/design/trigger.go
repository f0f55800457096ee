package design

import (
	"epitrope/core/cable"
	"epitrope/core/protect"
	"epitrope/core/run"
)

// WorksByA is what the wire that works the coupling carries: its coil's current, or its signal's.
func (d *Design) WorksByA() float64 {
	if d.Ahead() {
		return d.AheadCard.CoilA
	}
	if d.Kind.Coil() {
		return d.coilA()
	}
	return d.SignalA()
}

// sizeTrigger sizes the thin wire that tells a charger that the engine runs.
func (d *Design) sizeTrigger() {
	a := run.Ask{ID: "t1", FuseID: "f3", Amps: d.WorksByA(), FusePin: d.Facts.Signal.FuseA, LengthM: d.Facts.TriggerM,
		Bay:    cable.Ambient(triggerBayC).Laid(cable.Conduit),
		Device: protect.Device{Families: protect.Small}, SourceV: d.Facts.RegulatedV.Value, SourceOhm: d.StartOhm() + loomOhm, BudgetV: 1}
	d.Trigger = run.Size(a, []cable.Size{cable.Square(triggerMM2)}, d.Facts.Insulation, 12*d.Facts.N)
}
