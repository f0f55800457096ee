package design

import (
	"epitrope/core/coupling"
	"epitrope/core/parts"
	"epitrope/core/system"
)

// splitter is two diodes behind the vehicle's alternator, one to each battery: the vehicle's
// own charge cable is cut and led through it, C1 goes on from it to the start battery. Nothing
// joins the batteries, and neither reaches the machine.
var splitter = Arrangement{Kind: coupling.DiodeSplitter, Name: "Splitter", Part: system.KindSplitter, Splits: true}

// The terminals of a splitter: the machine's side, and each battery's.
const (
	splitterIn    = "B+"
	splitterStart = "1"
	splitterAux   = "2"
)

// splitterDevice is the splitter with what its diodes lose.
func (d *Design) splitterDevice() system.Splitter {
	return system.Splitter{From: splitterIn, Start: splitterStart, Aux: splitterAux, ForwardV: d.SplitV(), Ohm: parts.SplitterOhm,
		RatedA: d.Contact.ContinuousA}
}

// SplitV is what a diode of the splitter loses.
func (d *Design) SplitV() float64 { return parts.SplitterV(d.Doc.Pins.Splitter) }

// SensesOwn says whether the vehicle's machine holds its voltage at its own terminal: as it was
// found, or, where nobody looked, as it has to be taken where diodes stand before the battery.
func (d *Design) SensesOwn() bool {
	if d.Facts.Survey.Senses == "" {
		return d.Is.Splits
	}
	return d.Facts.Survey.Senses == "own"
}

// ChargesAtV is what the vehicle's machine holds at the aux battery at best: less what a diode
// loses, where the machine does not look behind it.
func (d *Design) ChargesAtV() float64 {
	if d.Is.Splits && d.SensesOwn() {
		return d.Facts.RegulatedV.Value - d.SplitV()
	}
	return d.Facts.RegulatedV.Value
}

// LeadTo is where the vehicle's own cable from its machine ends: at the start battery, or at the splitter
// that it was cut for.
func (d *Design) LeadTo() system.Terminal {
	if d.Is.Splits {
		return term("coupling", splitterIn)
	}
	return term("start", "30")
}

// DrawsA is what charging draws from the vehicle's machine at worst, for hours.
func (d *Design) DrawsA() float64 {
	switch {
	case d.Is.OwnMachine:
		return 0
	case d.Is.Splits:
		return d.StateBy("early").OutA
	case d.contactRun() && d.Facts.Chemistry.Lead:
		return d.StateBy("early").InA // what a flat battery takes more lasts for minutes
	}
	return d.Start.Amps
}
