// Package owner tells an installation to whoever drives it, in that person's words: what its lamp means, what to
// do when, what never to do, what to expect on the first trip. It names no part by its number and gives no figure
// that needs a meter but those that a display shows.
package owner

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Booklet is what the owner is told.
type Booklet struct {
	Does   string   `json:"does" doc:"What it does, in a few sentences"`
	Lamps  []Advice `json:"lamps" doc:"What its lamp shows, and what that means"`
	When   []Advice `json:"when" doc:"What to do when"`
	Never  []string `json:"never"`
	Expect []string `json:"expect" doc:"What to expect on the first trip"`
	Trip   string   `json:"trip" doc:"… in a sentence; empty where little is to be expected"`
	Look   []string `json:"look" doc:"When to have it looked at"`
}

// Advice is what to do, or what it means, when something is seen.
type Advice struct {
	When string `json:"when"`
	Then string `json:"then"`
}

// Of is the booklet of a design with its mode table.
func Of(d *design.Design, m modes.Modes) Booklet {
	expected, trip := expect(d)
	return Booklet{Does: does(d), Lamps: lamps(m), When: when(d), Never: never(d, m), Expect: expected, Trip: trip,
		Look: []string{"after four weeks, when what was bolted has settled, and then once a year",
			"when two hours of driving gained nothing, or much less than on the first trip",
			"when a fuse has opened: find why before it is replaced, and never fit a larger one",
			"when the second battery is to be another kind: the setting, and perhaps more, changes with it",
			"when another charger, panels or a winch are to be added"}}
}

// box is what the owner calls the coupling.
func box(d *design.Design) string {
	switch {
	case d.Kind.Charger():
		return "charger"
	case d.Is.Splits:
		return "splitter"
	case d.Is.OwnMachine:
		return "second alternator"
	}
	return "relay"
}

func does(d *design.Design) string {
	text := "While the engine runs, the vehicle's alternator also fills the second battery, by a " + box(d) + "."
	if d.Is.OwnMachine {
		text = "While the engine runs, an alternator of its own fills the second battery."
		if d.Kind.Charger() {
			text = "While the engine runs, an alternator of its own fills the second battery, through a charger."
		}
	}
	switch parked := d.StateBy("parked"); {
	case d.Is.OwnMachine:
	case parked.Joined:
		text += " With the engine off both batteries stay joined: what is used then is taken from both."
	case d.Is.Senses && d.Facts.Day.SolarW.Value > 0:
		text += " Some minutes to hours after the engine stops the relay lets go, and both batteries are apart; in the sun the relay may stay " +
			"closed, and the panels then charge both."
	case d.Is.Senses:
		text += " Some minutes to hours after the engine stops the relay lets go, and both batteries are apart: what you use then comes " +
			"from the second battery alone."
	default:
		text += " With the engine off both batteries are apart: what you use then comes from the second battery alone."
	}
	return text
}

// shows are the lamp's words for what it shows.
var shows = map[string]struct{ when, then string }{
	"charging": {"The lamp is lit", "the engine charges the second battery"},
	"joined":   {"The lamp is lit", "both batteries are joined, and charged together while the engine runs"},
	"dark":     {"The lamp is dark", "the engine does not charge the second battery"},
	"none":     {"There is no lamp", "what the second battery shows on its own display is all there is to see"},
}

// lamps are what the lamp shows, and in which positions that is as it should be.
func lamps(m modes.Modes) []Advice {
	list := []Advice{}
	for _, lamp := range []string{"charging", "joined", "dark", "none"} {
		var at []string
		for _, r := range m.Rows {
			if r.Lamp == lamp && r.Switch == design.NoSwitch && r.Verdict != "forbidden" && !slices.Contains(at, position(r)) {
				at = append(at, position(r))
			}
		}
		if len(at) > 0 {
			say := shows[lamp]
			list = append(list, Advice{say.when, say.then + ". So it should be " + join(at) + "."})
		}
	}
	if slices.ContainsFunc(m.Rows, func(r modes.Mode) bool { return r.Unknown }) {
		list = append(list, Advice{"In positions that are not named here", "nobody has tried it yet: ask the workshop"})
	}
	return list
}

// position is where a line of the mode table has key and engine, as a driver says it.
func position(r modes.Mode) string {
	switch {
	case r.Engine == "running":
		return "while you drive"
	case r.Engine == "cranking":
		return "while the engine is started"
	case r.Engine == design.JustStopped.Engine:
		return "for a while after you stop"
	case r.Key == "off":
		return "with the key out"
	case r.Key == "accessory":
		return "with the key at accessory"
	}
	return "with the ignition on and the engine off"
}

// join lists things with an “and” before the last.
func join(list []string) string {
	switch n := len(list); n {
	case 0:
		return ""
	case 1:
		return list[0]
	default:
		text := list[0]
		for _, s := range list[1 : n-1] {
			text += ", " + s
		}
		return text + " and " + list[n-1]
	}
}

// when is what to do when something happens.
func when(d *design.Design) []Advice {
	f, list := d.Facts, []Advice{}
	add := func(when, then string) { list = append(list, Advice{when, then}) }
	if !d.Isolates() {
		add("The lamp stays dark while you drive",
			"Nothing is charged, and the vehicle drives as before. Look again after ten minutes; still "+
				"dark, have it looked at.")
	}
	add("The engine does not start", starting(d))
	add("The second battery is empty", "Switch off what is on and drive, or charge the battery from the mains. A lead battery that "+
		"stands empty for days is harmed for good.")
	_, days := d.TopUp()
	rest := unit.Say("Charge the second battery full first, switch everything off, and charge it again after %.0f days at the latest.",
		days)
	if !f.Chemistry.Lead {
		rest = unit.Say("Leave the second battery about half full, switch everything off, and look at it again after %.0f days at the latest.",
			days)
	}
	if f.Extras.Isolator == job.MasterSwitch {
		rest += " Its master switch parts it from everything."
	}
	add("The vehicle is to stand for weeks", rest)
	if d.StartAsksA() > d.IdleA && !d.Is.OwnMachine {
		add("You run the engine at a standstill to charge",
			"The second battery gains little that way, and with lamps and blower on the start "+
				"battery may go down meanwhile. Drive, or use the mains.")
	}
	if f.Chemistry.Managed() {
		then := "Nothing is known to keep the second battery from being charged, which harms it: warm it first, and ask the workshop."
		if job.Str(f.Set.Disable) == string(job.Yes) || job.Str(d.Doc.Card.Probe) == string(job.Yes) {
			then = "The second battery takes no charge until its inside is warmer. That is as it should be."
		}
		add(unit.Say("The second battery is colder than %.0f °C", f.Chemistry.NoChargeBelowC), then)
	}
	if f.Place.Trailer {
		add("You plug the trailer in, or pull the plug", "Engine off first, plug dry and clean, pushed in to its stop. A plug that "+
			"gets warm is "+
			"worn: have it changed.")
	} else if d.Plugged() {
		add("You take the box out, or put it back",
			"Engine off, everything in the box switched off, then the plug: dry and clean, in to its "+
				"stop. Put the caps on both halves, as the half on the box is always live. A plug that gets warm is worn: have it changed.")
	}
	if f.Day.SolarW.Value > 0 {
		add("You want to know whether driving charges", "The sun charges too: look at night, or with the panels covered.")
	}
	add("Something smells, is hot or smokes", hot(d))
	add("You need help from another vehicle", "Put the other vehicle's leads on the start battery and the engine's metal, as your "+
		"vehicle's book says; never on the second battery.")
	return list
}

// starting is what to do with an engine that does not start.
func starting(d *design.Design) string {
	if d.WorkedByHand() == design.NoHand {
		return "A second battery full of charge does not start the engine: that takes a booster or another vehicle at the start battery."
	}
	how := "Press the button for ten seconds, let go, and then start."
	what := "button"
	if d.Toggles() {
		what, how = "switch", "Put the join switch on for ten seconds, put it off again, and then start."
	}
	if d.WorkedByHand() == design.Selector {
		what, how = "selector", "Turn the selector to joined for ten seconds, turn it back, and then start."
	}
	switch d.Facts.Schools.Emergency {
	case "share":
		how = "With everything off, work the " + what + " for ten to fifteen minutes, let go, and then start."
	case "crank":
		how = "Work the " + what + ", start for a few seconds, and let go as soon as the engine runs."
	}
	return how + " If the engine does not turn after two tries, stop: something else is wrong."
}

// hot is what to do when something is wrong for all to see.
func hot(d *design.Design) string {
	text := "Stop, engine off, key out, everybody out of the vehicle."
	switch {
	case d.Facts.Extras.Isolator == job.MasterSwitch:
		text += " If you can reach it without danger, turn the master switch off."
	case d.Plugged() && d.Behind() == system.Box:
		text += " If you can reach it without danger, pull the box's plug."
	case d.Facts.Place.Trailer:
		text += " If you can reach it without danger, pull the trailer's plug."
	}
	return text + " Both batteries stay live: touch nothing, and have the installation looked at before it is used again."
}
