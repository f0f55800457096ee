package modes

// modeWords are the reasons of the mode table, by rule.
var modeWords = map[string]string{
	"mode.isolated": "Parted by hand: nothing flows past Q1.",
	"mode.dump":     "%s of charger with no battery behind it: the voltage on what is still connected jumps.",
	"mode.blocked":  "The sun shines and the charger waits on the vehicle's input: nothing charges.",
	"mode.charges":  "%s into the aux side.",
	"mode.off":      "No charging: that is what this position is for.",
	"mode.nocharge": "The engine runs and nothing charges the aux battery.",
	"mode.starved":  "It comes to no stand: %s.",
	"mode.apart":    "Apart. Left so, the vehicle has the start battery half empty after %s.",
	"mode.sun":      "The sun gives %s; the batteries are apart.",
	"mode.cranks":   "The start battery cranks alone: %s.",
	"mode.shares":   "The aux battery cranks along with %s; fuses hold for a healthy start, not for a long one.",
	"mode.crank":    "Through the join the aux battery gives %s to the starter: %s.",
	"mode.bypass":   "The charger is bypassed: %s into the aux battery; %s is what the alternator bears for hours.",
	"mode.held":     "Joined by hand: %s between the batteries. Ten seconds, then let go.",
	"mode.flat":     "Joined with the key out: house and vehicle live on both batteries. Left so, the start battery is half empty after %s.",
	"mode.feeds":    "Joined with the engine stopped: %s between the batteries; the aux battery feeds the vehicle.",
	"mode.hunts":    "The charger begins on the start battery with up to %s, stops and begins again: %s.",
	"mode.drains":   "The charger runs with the engine stopped and takes %s from the start battery: half empty after %s.",
}

// interlocks are what prevents a forbidden combination, by rule.
var interlocks = map[string]string{
	"mode.dump":   "A contact in Q1 that breaks the signal before it opens; the engine stopped first.",
	"mode.crank":  "A momentary button, and a label at it: let go, then crank.",
	"mode.bypass": "A momentary button that cannot be left on; the factory's ignition feed taken off its coil.",
	"mode.flat": "A coil that an engine-running signal holds; a selector that stands at “with ignition”; no sensing relay with a " +
		"battery that rests above its cut-out.",
	"mode.hunts":   "A signal that is live only while the engine runs, or a timer.",
	"mode.drains":  "A signal that is live only while the engine runs, or a timer; a switch alone is forgotten.",
	"mode.starved": "Less current, a larger cable or a shorter way: see the notes.",
}
