package study

import (
	"fmt"

	"epitrope/core/battery"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/modes"
	"epitrope/core/rig"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// leftOn says what a signal does with the key where somebody leaves it.
func leftOn(d *design.Design, position string, k design.KeyState) (string, verdict.Level) {
	if !d.Wired() {
		return "This coupling needs no signal.", verdict.Good
	}
	m := modes.ModeAt(d, position, k, "no")
	level := map[string]verdict.Level{"normal": verdict.Good, "caution": verdict.Caution, "forbidden": verdict.Bad}[m.Verdict]
	return fmt.Sprintf("Key %s, engine stopped: %s", k.Key, m.Why), level
}

func (t trier) signal() School {
	s := School{ID: "signal", Ask: "Automatic signal or a switch?", Path: "day.trigger",
		Default: "Automatic: a switch works where no engine signal can be found, and is forgotten."}
	s.Options = t.options(s.Path, t.now.Facts.Day.Trigger, []string{"running", "switch"},
		func(d *design.Design, v string) (string, verdict.Level) {
			position := design.NoSwitch
			if v == "switch" {
				position = design.SwitchOn
			}
			return leftOn(d, position, design.KeyState{Key: "off", Engine: "stopped"})
		})
	return s
}

func (t trier) inSeries() School {
	s := School{ID: "series", Ask: "A switch in series with the signal?", Path: "schools.inSeries",
		Default: "None; as an option it lets the driver choose the sun instead of the engine."}
	now := map[bool]string{true: "yes", false: "no"}[t.now.Facts.Schools.InSeries]
	s.Options = t.options(s.Path, now, []string{"no", "yes"}, func(d *design.Design, v string) (string, verdict.Level) {
		if !d.Wired() {
			return "This coupling needs no signal.", verdict.Good
		}
		if v == "no" {
			return "Nothing to forget: it charges whenever the signal is live.", verdict.Good
		}
		off := modes.ModeAt(d, design.SwitchOff, design.KeyState{Key: "on", Engine: "running"}, "no")
		on, level := leftOn(d, design.SwitchOn, design.KeyState{Key: "off", Engine: "stopped"})
		return "Off, engine running: " + off.Why + " On: " + on, level
	})
	return s
}

func (t trier) feedPoint() School {
	s := School{ID: "feed", Ask: "Which feed point?", Path: "day.trigger",
		Default: "One that is live only while the engine runs, then 15; never one that is live with the key out."}
	keys := map[string]design.KeyState{"running": {Key: "on", Engine: "stopped"}, "ignition": {Key: "on", Engine: "stopped"},
		"accessory": {Key: "accessory", Engine: "stopped"}}
	s.Options = t.options(s.Path, t.now.Facts.Day.Trigger, []string{"running", "ignition", "accessory"},
		func(d *design.Design, v string) (string, verdict.Level) {
			return leftOn(d, modes.Switches(d)[0], keys[v])
		})
	return s
}

func (t trier) delay() School {
	s := School{ID: "delay", Ask: "Does charging wait after a start?", Path: "schools.delayMin",
		Default: "No timer; some minutes let the start battery recover first."}
	for _, min := range []float64{0, 3, 10} {
		d := t.with(s.Path, min)
		out := d.StateBy("early").OutA
		takenAh, backS := recovers(d)
		back := "not back in the start battery within two hours of town traffic"
		if backS > 0 {
			back = "back in the start battery after " + unit.Seconds(backS)
		}
		s.Options = append(s.Options, SchoolOption{Value: unit.Plain(min, "", 0), Label: unit.Plain(min, "min", 0),
			Now: d.Facts.Schools.DelayMin.Value == t.now.Facts.Schools.DelayMin.Value, Level: verdict.Good,
			Comes: fmt.Sprintf("Each start leaves out %s of charging; %s of cranking take %s, %s.",
				unit.Text(out*min/60, "Ah", 1), unit.Text(d.Facts.CrankS.Value, "s", 1), unit.Text(takenAh, "Ah", 2), back)})
	}
	return s
}

// recovers is what a start takes out of the start battery, in Ah, and how many seconds of town traffic after
// it put that back; run through time, 0 where they do not within two hours.
func recovers(d *design.Design) (takenAh, backS float64) {
	const mostS = 2 * 3600
	rigged := rig.Of(d, rig.Nominal)
	rigged.Start.SOC, rigged.Solar, rigged.HouseA = battery.InUse, nil, 0
	startS := d.Facts.CrankS.Value
	net, lastT, lastA := 0.0, 0.0, 0.0
	watch := func(f day.Frame) {
		net += (f.T - lastT) * (lastA + f.StartA) / 2 / 3600
		lastT, lastA = f.T, f.StartA
		if f.T <= startS {
			takenAh = -net
		}
		if backS == 0 && f.T > startS && f.StartSOC >= battery.InUse {
			backS = f.T - startS
		}
	}
	pattern := day.Pattern{{Kind: day.Crank, Seconds: startS}, {Kind: day.Town, Seconds: mostS}}
	halt := func() bool { return backS > 0 }
	_, _ = day.Run(rigged, pattern, day.Conditions{OutsideC: design.WarmC}, day.Options{Watch: watch, Halt: halt}) // halted, it is known
	return takenAh, backS
}
