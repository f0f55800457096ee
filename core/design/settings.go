package design

import (
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/profile"
)

// setCharger decides how the charger is set: as pinned, or rightly; a lead that was found
// open makes another setting of it.
func (d *Design) setCharger() {
	list := d.Facts.Settings
	d.Right = profile.BestFor(list, d.Facts.Chemistry)
	d.Setting = d.Right
	if s, ok := profile.ByID(list, d.Facts.Set.Setting); ok {
		d.Setting = s
	}
	a, b := d.Setting.A, d.Setting.B
	switch job.Str(d.Facts.Set.Broken) {
	case "a":
		a = profile.Open
	case "b":
		b = profile.Open
	case "both":
		a, b = profile.Open, profile.Open
	default:
		return
	}
	if s, ok := profile.ByLeads(list, a, b); ok {
		d.Setting = s
	}
}

// SetV is what the charger holds in absorption, at the system's voltage.
func (d *Design) SetV() float64 { return d.Setting.AbsorptionV * d.Facts.AuxN }

// floatV is what it holds after, at 12 V.
func (d *Design) floatV() float64 { return d.Setting.FloatV }

// UsualStages are the stages in the setting that holds.
func (d *Design) UsualStages() coupling.Stages {
	return coupling.UsualStages(d.Setting.AbsorptionV, d.floatV(), d.Facts.Chemistry.Stages)
}
