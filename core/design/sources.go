package design

import (
	"epitrope/core/job"
	"epitrope/core/system"
)

// SunEnds are the terminals that the panels' regulator lands on.
func (d *Design) SunEnds() (plus, minus system.Terminal) {
	switch d.Facts.Arranged.SunAt {
	case job.SunAtBattery:
		return term("aux", "30"), d.bankMinus()
	case job.SunAtCharger:
		if d.Kind.Charger() {
			return d.leaves(), term("coupling", "31")
		}
		return d.leaves(), d.AuxMinus()
	}
	return d.AuxBus(), d.AuxMinus()
}

// SunMostA is what the panels give at most.
func (d *Design) SunMostA() float64 { return d.Facts.Day.SolarW.Value / (sunAtV * d.Facts.AuxN) }

// sunAtV is the voltage, at 12 V, that panels' watts are turned into amps at. Source: common practice, no source.
const sunAtV = 14.0

// sunBehindA is what the panels drive through the aux run besides its own charge: where they land at its front.
func (d *Design) sunBehindA() float64 {
	if d.Facts.Arranged.SunAt != job.SunAtCharger {
		return 0
	}
	return d.SunMostA()
}

// Mains is the charger that mains or a generator feed; ok is false where there is none, or nobody said what
// it gives.
func (d *Design) Mains() (s job.SourceFacts, ok bool) {
	for _, s := range d.Facts.Sources {
		if s.Section == "mains" && s.OutputA != nil {
			return s, true
		}
	}
	return job.SourceFacts{}, false
}

// MainsV is what it holds.
func (d *Design) MainsV(s job.SourceFacts) float64 {
	if s.AbsorptionV != nil {
		return *s.AbsorptionV
	}
	return d.Profile.AbsorptionHigh
}
