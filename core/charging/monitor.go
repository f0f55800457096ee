package charging

import (
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// How a battery monitor is to be set. Source: from memory; its own sheet and the battery's win: it takes the
// battery for full some tenths of a volt under what all that charges it holds, as the current has fallen to a
// few per cent of its capacity.
const (
	underV       = 0.1 // at least so far below the lowest source of charging, at 12 V
	overV        = 0.1 // and above float
	tailLeast    = 1.0 // % of capacity
	tailMost     = 6.0
	capacityOff  = 0.05
	efficiencyOf = 5.0 // % beside what its kind gives back
)

var monitorPaths = []string{"monitor.capacityAh", "monitor.fullV", "monitor.tailPct", "monitor.efficiency"}

// monitorLooks hold the battery monitor's settings against the battery and what charges it.
var monitorRules = []rule{
	{"monitor.open", verdict.Open, working.Practice, monitorPaths,
		"Look: how is the monitor set? This battery wants %.0f Ah, full above %.1f V, tail current %.0f to %.0f %%, efficiency about %.0f %%.",
		func(d *design.Design) []finding {
			m := d.Doc.Monitor
			unset := m.CapacityAh == nil && m.FullV == nil && m.TailPct == nil && m.Efficiency == nil
			_, most := fullBetween(d)
			return says(d.Facts.Extras.Monitor && unset, "aux", d.Facts.AuxAh.Value, most, tailLeast, tailMost, 100*d.Facts.Chemistry.Efficiency)
		}},
	{"monitor.capacity", verdict.Caution, working.Physics, monitorPaths[:1],
		"The monitor counts on %.0f Ah and the battery has %.0f Ah: its per cent is wrong by as much.",
		func(d *design.Design) []finding {
			v, ah := d.Doc.Monitor.CapacityAh, d.Facts.AuxAh.Value
			return ofMonitor(d, v, func(v float64) bool { return away(v, ah) > capacityOff*ah }, ah)
		}},
	{"monitor.never", verdict.Caution, working.Memory, monitorPaths[1:2],
		"The monitor takes the battery for full above %.2f V: above %.2f V, a little under the lowest of all that charges it, it " +
			"never says full.",
		func(d *design.Design) []finding {
			_, most := fullBetween(d)
			return ofMonitor(d, d.Doc.Monitor.FullV, func(v float64) bool { return v > most+0.005 }, most)
		}},
	{"monitor.early", verdict.Caution, working.Memory, monitorPaths[1:2],
		"The monitor takes the battery for full above %.2f V; under %.2f V that may be float, or a battery at rest: it says full too early.",
		func(d *design.Design) []finding {
			least, _ := fullBetween(d)
			return ofMonitor(d, d.Doc.Monitor.FullV, func(v float64) bool { return v < least-0.005 }, least)
		}},
	{"monitor.tail", verdict.Caution, working.Memory, monitorPaths[2:3],
		"The monitor waits for a current below %.1f %% of its capacity; %.0f to %.0f %% tell full from nearly full.",
		func(d *design.Design) []finding {
			return ofMonitor(d, d.Doc.Monitor.TailPct, func(v float64) bool { return v < tailLeast || v > tailMost }, tailLeast, tailMost)
		}},
	{"monitor.efficiency", verdict.Caution, working.Memory, monitorPaths[3:],
		"The monitor takes %.0f %% of what is charged for stored; of this battery it is about %.0f %%: its count drifts with every cycle.",
		func(d *design.Design) []finding {
			is := 100 * d.Facts.Chemistry.Efficiency
			return ofMonitor(d, d.Doc.Monitor.Efficiency, func(v float64) bool { return away(v, is) > efficiencyOf }, is)
		}},
}

// ofMonitor finds a setting of the monitor that is so.
func ofMonitor(d *design.Design, v *float64, wrong func(v float64) bool, wanted ...any) []finding {
	return where(d.Facts.Extras.Monitor && v != nil && wrong(*v), func() finding {
		return at("aux", append([]any{*v}, wanted...)...)
	})
}

// fullBetween is between which volts a monitor may take the battery for full: above float and rest, and some
// tenths under the lowest that any source of charging holds.
func fullBetween(d *design.Design) (least, most float64) {
	n := d.Facts.AuxN
	most = d.ChargesAtV() / n
	least = max(profileOf(d).FloatHigh, d.Facts.Chemistry.RestV(1))
	if d.Kind.Charger() {
		most, least = d.Setting.AbsorptionV, max(d.Setting.FloatV, d.Facts.Chemistry.RestV(1))
	}
	for _, s := range d.Facts.Sources {
		if s.AbsorptionV != nil {
			most = min(most, *s.AbsorptionV/n)
		}
		if s.FloatV != nil {
			least = max(least, *s.FloatV/n)
		}
	}
	return unit.Round((least+overV)*n, 2), unit.Round((most-underV)*n, 2)
}

// monitorLines are its settings as they are and as they should be.
func monitorLines(d *design.Design) []MonitorLine {
	m := d.Doc.Monitor
	least, most := fullBetween(d)
	line := func(name, id string, v *float64, in string, digits int, wants string, wrong ...string) MonitorLine {
		l := MonitorLine{Name: name, Wants: wants, Level: verdict.Open}
		if v != nil {
			l.Is, l.Level = unit.Plain(*v, in, digits), verdict.Good
		}
		for _, k := range monitorRules {
			for _, w := range append(wrong, id) {
				if k.id == w && len(k.finds(d)) > 0 {
					l.Level = k.level
				}
			}
		}
		return l
	}
	full := unit.Say("%.2f to %.2f V", least, most)
	if least >= most {
		full = unit.Text(most, "V", 2)
	}
	return []MonitorLine{
		line("Capacity", "monitor.capacity", m.CapacityAh, "Ah", 0, unit.Plain(d.Facts.AuxAh.Value, "Ah", 0)),
		line("Full above", "monitor.never", m.FullV, "V", 2, full, "monitor.early"),
		line("Tail current below", "monitor.tail", m.TailPct, "%", 1, unit.Say("%.0f to %.0f %% of its capacity", tailLeast, tailMost)),
		line("Charge efficiency", "monitor.efficiency", m.Efficiency, "%", 0, unit.Say("about %.0f %%", 100*d.Facts.Chemistry.Efficiency)),
	}
}
