package design

import (
	"math"

	"epitrope/core/battery"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// monitorA is what a battery monitor with its display takes. Source: from memory.
const monitorA = 0.008

// StaysOnA is what goes on being taken off an aux battery that is to rest, in A: loads at standby, and a
// monitor's display.
func (d *Design) StaysOnA() float64 {
	f, amps := d.Facts, 0.0
	if f.Extras.Isolator == job.MasterSwitch {
		return 0
	}
	for _, l := range f.Need.Loads {
		amps += l.Count * l.StandbyA.Value
	}
	if f.Extras.Monitor {
		amps += monitorA
	}
	return amps
}

// TopUp is after how many days a full aux battery that stands has to be charged again: by what it
// loses and what stays on, and never later than its kind may stand where it is.
func (d *Design) TopUp() (fig working.Figure, days float64) {
	f := d.Facts
	rest, where := d.StaysOnA(), "what stays on at rest"
	if f.Extras.Isolator == job.MasterSwitch {
		where = "parted by its master switch"
	}
	fig = battery.TopUp.MustWork(f.AuxAh.Input(), working.From(f.Chemistry.KeepsOver, working.Memory, f.Chemistry.Label),
		working.From(f.Chemistry.LosesIn30Days, working.Memory, f.Chemistry.Label), working.Is(rest, where))
	if most := f.Chemistry.MayStand(f.Day.OutsideC.Value); most < fig.Value {
		fig = working.Given(working.Symbol{Name: "charge again after", Unit: "days", Digits: 0}, most, working.Practice,
			unit.Say("as long as its kind may stand at %s; by what it loses alone it would be %s", unit.Plain(f.Day.OutsideC.Value, "°C", 0),
				unit.Text(fig.Value, "days", 0)))
	}
	return fig, math.Round(max(1, fig.Value))
}
