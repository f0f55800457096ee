package design

import (
	"slices"

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

// thin is the wire of signals, as the workshop names cable: 1.5 mm², 16 AWG or 4 mm auto.
func (d *Design) thin() cable.Size {
	shelf := cable.Shelf(d.Facts.CableSystem)
	return shelf[slices.IndexFunc(shelf, func(s cable.Size) bool { return s.AreaMM2 >= signalMM2 })]
}

// sizeTrigger sizes the thin wire that tells a charger that the engine runs.
func (d *Design) sizeTrigger() {
	a := run.Ask{ID: "t1", FuseID: "f3", Amps: d.WorksByA(), FusePin: d.Facts.Signal.FuseA, LengthM: d.Facts.TriggerM,
		Bay:    cable.Ambient(triggerBayC).Laid(cable.Conduit),
		Device: protect.Device{Families: protect.Small}, SourceV: d.Facts.RegulatedV.Value, SourceOhm: d.StartOhm() + loomOhm, BudgetV: 1}
	d.Trigger = run.Size(a, []cable.Size{d.thin()}, d.Facts.Insulation, 12*d.Facts.N)
}
