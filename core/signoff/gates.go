package signoff

import (
	"slices"
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/unit"
)

// found is what a gate finds: what is open, and whether that stops.
type found struct {
	open []string
	stop bool
}

// gate is one thing that has to be so: find is nil where this job has none of it.
type gate struct {
	id, name, closes, sheet string
	asks                    Asks
	find                    func(a *asked) *found
}

// gates are all there are, in the order of the work.
var gates = []gate{
	{id: "stops", name: "Nothing stops the plan", sheet: "section",
		closes: "Change the plan until none stands: each has its cures at its note.", find: (*asked).stops},
	{id: "regulation", name: "Regulation tested, not guessed", sheet: "survey",
		closes: "Log the start battery over a drive, or read it cold, warm and in lift-off, and answer how it is known.",
		find:   (*asked).regulation},
	{id: "inherited", name: "Inherited wires traced, or listed as not known", sheet: "survey", asks: Statement,
		closes: "Enter both ends, colour and fuse of each; or state which stay unknown, and how they are marked.", find: (*asked).inherited},
	{id: "covered", name: "Hidden joints photographed before they were covered", sheet: "steps", asks: Photo,
		closes: "Take a photograph of every hidden stretch and joint, at this gate or at its hold point.", find: (*asked).covered},
	{id: "crimps", name: "Crimps: tool, die, pull test", sheet: "steps", asks: Statement,
		closes: "State the tool and the die of each size, and how the ends were pulled.",
		find:   always("Not stated: which tool, which die, how they were pulled.")},
	{id: "built", name: "Fuse ratings, sections and lengths recorded as fitted", sheet: "steps", asks: Statement,
		closes: "Enter what differs under As built, and state that the rest is as drawn.",
		find:   always("Not stated: whether all is fitted as drawn.")},
	{id: "steps", name: "Steps done", sheet: "steps", closes: "Tick them off, or take out of the plan what is not done.", find: (*asked).work},
	{id: "holds", name: "Hold points signed", sheet: "steps", closes: "Look at each of their points, and sign.", find: (*asked).holds},
	{id: "polarity", name: "Rest volts and polarity before any fuse", sheet: "proof", closes: "Read them.",
		find: readings(true, "start-rest", "aux-rest", "holder-", "socket-")},
	{id: "signal", name: "Signal proven in every state, asleep too", sheet: "proof", closes: "Read it in each position of the key.",
		find: readings(true, "signal-")},
	{id: "leads", name: "Configuration leads measured", sheet: "proof", closes: "Look at each.", find: readings(false, "lead-")},
	{id: "load", name: "Volts at both ends and amps, drop on both legs", sheet: "proof",
		closes: "Read them, with the engine held at its speed.",
		find:   readings(false, "start-running", "engages", "charge", "input", "aux-charge", "lost-", "back-ohm")},
	{id: "unsteady", name: "It comes to a stand with the engine running", sheet: "section",
		closes: "Change what goes on and off: the plan's notes say what.", find: (*asked).unsteady},
	{id: "warm", name: "Joints no warmer than their cable after half an hour", sheet: "proof", closes: "Look at each after thirty minutes.",
		find: readings(false, "warmest")},
	{id: "profile", name: "Profile reached by the battery", sheet: "proof", closes: "Read it once the battery is full.",
		find: readings(false, "profile")},
	{id: "opens", name: "Opening seen", sheet: "proof", closes: "Watch it let go; open what opens by hand.",
		find: readings(false, "lets-go", "delay", "opens-")},
	{id: "apart", name: "0 A between the batteries", sheet: "proof", closes: "Clamp the aux battery's leads, parked and after the engine.",
		find: readings(true, "apart")},
	{id: "joins", name: "Emergency join works and releases", sheet: "proof", closes: "Join by hand, read, let go, read.",
		find: readings(false, "joined")},
}

func (a *asked) stops() *found { return &found{slices.Clone(a.p.Stops), true} }

// always is of what only somebody's word closes.
func always(open string) func(*asked) *found {
	return func(*asked) *found { return &found{open: []string{open}} }
}

func (a *asked) regulation() *found {
	if a.d.Facts.KnownBy == "test" {
		return &found{}
	}
	if a.d.Facts.Regulation == string(alternator.Unknown) {
		return &found{open: []string{"How the alternator is regulated is not known: the plan takes it at its worst."}}
	}
	return &found{open: []string{"How the alternator is regulated was not tested: the plan goes by " + a.d.Facts.Regulation +
		", known by " + a.d.Facts.KnownBy + "."}}
}

func (a *asked) inherited() *found {
	wires := retrofit.Of(a.d).Wires
	if len(wires) == 0 {
		return nil
	}
	out := &found{}
	for _, w := range wires {
		if w.Fate == "open" {
			out.open = append(out.open, "Not traced: "+w.Name+".")
		}
	}
	return out
}

func (a *asked) covered() *found {
	hidden := slices.ContainsFunc(a.steps, func(s procedure.Step) bool { return s.Covered })
	switch {
	case !hidden:
		return nil
	case a.done.Photos["covered"]+a.done.Photos["hold-cover"] > 0:
		return &found{}
	}
	return &found{open: []string{"No photograph of what is under panels and floor."}}
}

// mostNamed are how many of many are named.
const mostNamed = 3

// undone are the steps of some kind that are not ticked.
func (a *asked) undone(of func(procedure.Step) bool) *found {
	var titles, waits []string
	for _, s := range a.steps {
		switch {
		case !of(s):
		case !a.done.Steps[s.ID]:
			titles = append(titles, "“"+s.Title+"”")
		case a.done.StepsWait[s.ID]:
			waits = append(waits, "“"+s.Title+"”")
		}
	}
	out := &found{}
	if len(titles) > 0 {
		out.open = append(out.open, "Not done: "+few(titles))
	}
	if len(waits) > 0 {
		out.open = append(out.open, "Waits for a countersignature: "+few(waits))
	}
	return out
}

// few are some of a list, and how many more there are.
func few(list []string) string {
	if n := len(list); n > mostNamed {
		return unit.Say("%s and %s more.", strings.Join(list[:mostNamed], "; "), unit.Plain(float64(n-mostNamed), "", 0))
	}
	return strings.Join(list, "; ") + "."
}

// work is what is done before the proof.
func (a *asked) work() *found {
	return a.undone(func(s procedure.Step) bool { return !s.Hold && s.Stage != procedure.Prove && s.Stage != procedure.Hand })
}

func (a *asked) holds() *found { return a.undone(func(s procedure.Step) bool { return s.Hold }) }

func (a *asked) unsteady() *found {
	if !a.p.Unsteady {
		return nil
	}
	return &found{open: []string{"It comes to no stand at any speed that is asked for: nothing is proven there."}}
}

// readings is a gate of readings, by what their ids begin with, of which those that are no piece of another are all taken and as
// expected; what is out stops where it says so.
func readings(stops bool, begin ...string) func(*asked) *found {
	return func(a *asked) *found {
		out, some, unread, waits := &found{}, false, []string{}, []string{}
		for _, r := range a.p.Readings {
			if r.Of != "" || !slices.ContainsFunc(begin, func(b string) bool { return strings.HasPrefix(r.ID, b) }) {
				continue
			}
			some = true
			at := slices.IndexFunc(a.done.Findings.Verdicts, func(v prove.Meaning) bool { return v.ID == r.ID })
			switch {
			case at < 0:
				unread = append(unread, r.What)
			case !a.done.Findings.Verdicts[at].Proves():
				v := a.done.Findings.Verdicts[at]
				out.open = append(out.open, r.Told(v))
				out.stop = out.stop || stops && v.Level != prove.AsExpected
			case a.done.ReadingsWait[r.ID]:
				waits = append(waits, r.What)
			}
		}
		if !some {
			return nil
		}
		if len(unread) > 0 {
			out.open = append(out.open, "Not read: "+few(unread))
		}
		if len(waits) > 0 {
			out.open = append(out.open, "Waits for a countersignature: "+few(waits))
		}
		return out
	}
}
