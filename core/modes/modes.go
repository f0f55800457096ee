// Package modes is what an installation does in every position of key and switches, what stays
// live when something is opened, and who can stop whom.
package modes

import (
	"fmt"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Modes is what an installation does in every position of its switches: the mode table
// and the live map.
type Modes struct {
	Coupling string                    `json:"coupling"`
	Rows     []Mode                    `json:"rows"`
	Live     []LiveRow                 `json:"live" doc:"What stays live when this is off"`
	Work     []WorkRow                 `json:"work" doc:"What to open to work there"`
	Figures  map[string]working.Figure `json:"figures"`

	Stops     []Stops    `json:"stops" doc:"Who can stop or start whom, and what a priority hides"`
	Forgotten *Forgotten `json:"forgotten,omitempty" doc:"A charger whose signal is left live; absent where none takes anything"`
}

// Mode is one line of the mode table: where everything stands, and what the circuit does.
type Mode struct {
	Switch    string  `json:"switch"`
	Key       string  `json:"key"`
	Engine    string  `json:"engine"`
	Sun       string  `json:"sun"`
	Mains     string  `json:"mains" doc:"Plugged in, or the generator runs"`
	Joined    bool    `json:"joined"`
	Charging  bool    `json:"charging" doc:"The start side charges the aux battery, the engine running or not"`
	AuxA      float64 `json:"auxA" doc:"Into the aux battery"`
	StartA    float64 `json:"startA" doc:"Out of the start battery"`
	Lamp      string  `json:"lamp"`
	Verdict   string  `json:"verdict" enum:"normal,caution,forbidden"`
	Why       string  `json:"why"`
	Interlock string  `json:"interlock,omitempty" doc:"What prevents it, where it is forbidden"`
	Figure    string  `json:"figure,omitempty"`
	Rule      string  `json:"rule" doc:"Which judgement it is"`
	Unknown   bool    `json:"unknown,omitempty" doc:"The feed point was not tested so: what is told is the worse of live and dead"`

	Live []string `json:"live" doc:"The wires and parts with voltage on them then, by id"`

	half *working.Figure // what empties the start battery by half, where that is said
}

var keyStates = []design.KeyState{design.KeyOut, design.Accessory, design.Ignition, design.CrankKey, design.Driving}

// Of works the mode table and the live map of a design out.
func Of(d *design.Design) Modes {
	out := Modes{Coupling: string(d.Kind), Rows: []Mode{}, Live: liveRows(d), Work: workRows(d), Figures: map[string]working.Figure{}}
	besides := []string{Nothing}
	if d.Facts.Day.SolarW.Value > 0 {
		besides = append(besides, Sun)
	}
	_, plugs := d.Mains()
	leaving, states := rig.NewLeaving(d), keyStates
	if d.Is.Senses || d.ByVoltage() {
		states = append(slices.Clone(keyStates), design.JustStopped)
	}
	for _, position := range Switches(d) {
		for _, k := range states {
			at := besides
			if plugs && (k == design.KeyOut || k == design.Driving) {
				at = append(slices.Clone(besides), Mains)
			}
			for _, beside := range at {
				m := modeOf(d, leaving, position, k, beside)
				if m.half != nil && m.StartA > 0.01 {
					m.Figure = fmt.Sprintf("mode.%d", len(out.Rows))
					out.Figures[m.Figure] = *m.half
				}
				out.Rows = append(out.Rows, m)
			}
		}
	}
	out.Stops = stops(d)
	out.Forgotten = forgotten(d, leaving)
	return out
}

// Switches are the positions of what a person can switch on this design, one thing at a
// time.
func Switches(d *design.Design) []string {
	list := d.CouplingSwitches()
	if d.Facts.Extras.Isolator != job.NoIsolator {
		list = append(list, design.Isolated)
	}
	return list
}

// What gives besides the engine: nothing, panels, or a charger that mains or a generator feed.
const (
	Nothing = "no"
	Sun     = "yes"
	Mains   = "mains"
)

// modeState is the state of the circuit with everything as it stands.
func modeState(d *design.Design, position string, k design.KeyState, beside string) design.State {
	s := d.StateAt(position, k)
	if charger, ok := d.Mains(); ok && beside == Mains {
		s.MainsA = *charger.OutputA
	}
	if beside == Sun && sunMeets(d, d.Signalled(position, k)) {
		s.SunA = design.SunShare * d.Facts.Day.SolarW.Value / (14 * d.Facts.AuxN)
	}
	return s
}

// ModeAt solves one line of the table and judges it: where nobody tested the feed point so, with it
// live and with it dead.
func ModeAt(d *design.Design, position string, k design.KeyState, beside string) Mode {
	return modeOf(d, rig.NewLeaving(d), position, k, beside)
}

func modeOf(d *design.Design, leaving rig.Leaving, position string, k design.KeyState, beside string) Mode {
	if !d.Wired() || d.FeedIs(k) != feed.Untested {
		return modeAt(d, leaving, position, k, beside, circuit.AsItIs)
	}
	dead, live := modeAt(d, leaving, position, k, beside, circuit.HeldDead), modeAt(d, leaving, position, k, beside, circuit.HeldLive)
	if dead.Rule == live.Rule && dead.Joined == live.Joined && dead.Charging == live.Charging {
		return dead // it does not matter here
	}
	live.Unknown, live.Verdict, live.Rule, live.Lamp = true, "caution", "mode.unknown", "not known"
	live.Why = unit.Say("Not known: the feed point was not tested so. Live: %s Dead: %s", live.Why, dead.Why)
	live.Interlock = "Test it there before anything is connected to it."
	return live
}

// modeAt solves one line with the feed point held.
func modeAt(d *design.Design, leaving rig.Leaving, position string, k design.KeyState, beside string, held circuit.Held) Mode {
	s := modeState(d, position, k, beside)
	s.Held = held
	d.Settle(&s)
	m := Mode{Switch: position, Key: k.Key, Engine: k.Engine, Sun: yes(beside == Sun), Mains: yes(beside == Mains),
		Joined: s.Joined && !d.Is.OwnMachine}
	m.Live = liveIn(d, &s)
	l := line{d: d, m: &m, k: k, s: &s, left: leaving}
	if s.Solved.Volts == nil {
		l.judge()
		return m
	}
	into := -circuit.Had(s.Solved.Through("aux battery"))
	out := circuit.Had(s.Solved.Through("start battery"))
	m.AuxA, m.StartA = unit.Round(into, 1), unit.Round(max(0, out), 2)
	m.Charging = s.OutA > 0.5 && s.Err == nil && (k.Engine == "running" || d.Kind.Charger() && !s.Stopped)
	if m.Lamp = lamp(d, &s); d.LampLit(&s) {
		m.Lamp += ", LA1 lit"
	}
	l.outA = out
	l.judge()
	return m
}

func yes(is bool) string {
	if is {
		return "yes"
	}
	return "no"
}

// lamp is what the coupling's lamp shows.
func lamp(d *design.Design, s *design.State) string {
	switch {
	case d.Isolates():
		return "none"
	case d.Kind.Charger() && (!s.Stopped || s.Output) && s.Err == nil:
		return "charging"
	case s.Joined:
		return "joined"
	}
	return "dark"
}
