package study

import (
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/rig"
)

// TableHead names the columns of Table, with their units.
var TableHead = []string{"time s", "start battery V", "coupling in V", "coupling out V", "aux battery V", "alternator A", "start battery A",
	"aux battery A",
	"through coupling A", "solar A", "start battery %", "aux battery %", "alternator °C", "charger °C", "cable °C", "engine runs",
	"joined or charging"}

// Table runs a design and gives a row at even moments, every so many seconds, in
// proportion between the moments stepped to.
func Table(d *design.Design, every float64, row func([]float64)) error {
	var last []float64
	next := 0.0
	watch := func(fr day.Frame) {
		now := values(fr)
		for next <= fr.T+1e-9 {
			out := now
			if last != nil && fr.T > last[0] {
				share := (next - last[0]) / (fr.T - last[0])
				out = make([]float64, len(now))
				for i := range now {
					out[i] = last[i] + share*(now[i]-last[i])
				}
				out[len(out)-2], out[len(out)-1] = last[len(last)-2], last[len(last)-1] // these are not between
			}
			out[0] = next
			row(out)
			next += every
		}
		last = values(fr)
	}
	driving, conditions := rig.Varied(d, rig.Nominal)
	_, err := day.Run(rig.Of(d, rig.Nominal), driving, conditions, day.Options{Watch: watch})
	return err
}

func values(f day.Frame) []float64 {
	runs, joined := 0.0, 0.0
	if f.Kind.Runs() {
		runs = 1
	}
	if f.Joined || f.Stage > 0 {
		joined = 1
	}
	return []float64{f.T, f.BusV, f.InV, f.OutV, f.AuxV, f.MachineA, f.StartA, f.AuxA, f.CoupleA, f.SolarA, 100 * f.StartSOC, 100 * f.AuxSOC,
		f.WindingC, finite(f.CaseC, 3), finite(f.CableC, 3), runs, joined}
}
