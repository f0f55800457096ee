package owner

import (
	"slices"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/modes"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// forbids are what the owner is told of a line of the mode table that is forbidden, by its rule.
var forbids = map[string]string{
	"mode.dump":   "turn the battery's isolator off while the engine runs",
	"mode.crank":  "start the engine while both batteries are joined by hand: let go first",
	"mode.bypass": "hold the button, or leave it joined, while the engine runs",
	"mode.flat":   "leave both batteries joined with the key out",
	"mode.hunts":  "leave the key where the charger runs with the engine stopped: it empties the start battery",
	"mode.drains": "leave the key where the charger runs with the engine stopped: it empties the start battery",
}

// never is what is not to be done.
func never(d *design.Design, m modes.Modes) []string {
	list := []string{}
	for _, r := range m.Rows {
		text, known := forbids[r.Rule]
		ours := r.Rule == "mode.flat" && r.Switch == design.NoSwitch // no hand prevents it
		if r.Verdict != "forbidden" || !known || ours {
			continue
		}
		if r.Rule == "mode.hunts" || r.Rule == "mode.drains" {
			text = "leave it standing " + position(r) + ": the charger then empties the start battery"
		}
		if !slices.Contains(list, text) {
			list = append(list, text)
		}
	}
	list = append(list, "fit a larger fuse, or bridge one", "take a lead off a battery while the engine runs",
		"lay tools or cans on a battery, or load against its covers")
	if d.Facts.Chemistry.Vented {
		list = append(list, "smoke or spark beside the second battery, or close its vent")
	}
	if d.Facts.Chemistry.Managed() {
		list = append(list, "use a charger on the second battery that is not made for its kind")
	}
	return append(list, "tap anything more off the wires of this installation")
}

// tripH is the first trip that is looked at, in h, and halfSOC what the second battery has before it.
const (
	tripH   = 2.0
	halfSOC = 0.5
)

// expect is what the first trip should show, run through time.
func expect(d *design.Design) (list []string, inShort string) {
	list = []string{}
	r := rig.Of(d, rig.Nominal)
	r.Solar, r.HouseA, r.Aux.SOC = nil, 0, halfSOC
	first, soc := 0.0, halfSOC
	watch := func(f day.Frame) {
		if f.T <= 600 {
			first = f.AuxA
		}
		soc = f.AuxSOC
	}
	trip := day.Pattern{{Kind: day.Crank, Seconds: d.Facts.CrankS.Value}, {Kind: day.Highway, Seconds: tripH * 3600}}
	_, err := day.Run(r, trip, day.Conditions{OutsideC: design.WarmC}, day.Options{Watch: watch})
	if gained := soc - halfSOC; err == nil && gained > 0.02 {
		inShort = unit.Say("On the first trip: two hours of driving from half full bring about %.0f Ah, to about %.0f %%.",
			gained*d.Facts.AuxAh.Value, 100*soc)
		list = append(list,
			unit.Say("Begin with the second battery half full, and nothing switched on behind. After ten minutes of driving about %.0f A "+
				"go into it.",
				first),
			unit.Say("After two hours the second battery has gained about %.0f Ah, and stands at about %.0f %%.", gained*d.Facts.AuxAh.Value,
				100*soc))
	} else {
		list = append(list, "On two hours of driving the second battery gains little: ask the workshop what to expect of it.")
	}
	if d.Facts.Chemistry.Lead {
		list = append(list,
			"The nearer the second battery is to full, the less goes in: the last fifth takes hours, whatever the volts say.")
	} else {
		list = append(list,
			"The second battery's volts hardly move between a quarter and nearly full: go by the amps, or by a monitor that counts.")
	}
	if d.Facts.Varies() {
		list = append(list, "Amps that come and go while you drive are the vehicle's own saving of fuel, and no fault.")
	}
	return append(list, "Write down what you saw: later trips are held against it."), inShort
}
