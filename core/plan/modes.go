package plan

import (
	"epitrope/core/circuit"
	"fmt"
	"math"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
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
	Joined    bool    `json:"joined"`
	Charging  bool    `json:"charging" doc:"The engine's side charges the aux battery"`
	AuxA      float64 `json:"auxA" doc:"Into the aux battery"`
	StartA    float64 `json:"startA" doc:"Out of the start battery"`
	Lamp      string  `json:"lamp"`
	Verdict   string  `json:"verdict" enum:"normal,caution,forbidden"`
	Why       string  `json:"why"`
	Interlock string  `json:"interlock,omitempty" doc:"What prevents it, where it is forbidden"`
	Figure    string  `json:"figure,omitempty"`
	Rule      string  `json:"rule" doc:"Which judgement it is; empty where the circuit has no solution"`

	half *working.Figure // what empties the start battery by half, where that is said
}

// keyState is a position of the key, and whether the engine runs.
type keyState struct{ key, engine string }

var keyStates = []keyState{{"off", "stopped"}, {"accessory", "stopped"}, {"on", "stopped"}, {"start", "cranking"}, {"on", "running"}}

// HoursToHalf is how long a start battery lasts until it is half empty.
var HoursToHalf = working.Declare("t = C·s / I", "conservation of charge; a battery below half may not start in the cold (common practice, no source)",
	working.Symbol{Letter: "t", Name: "start battery half empty after", Unit: "h", Digits: 0},
	working.Symbol{Letter: "C", Name: "start battery", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "s", Name: "share that may go, from 90 to 50 %", Unit: "", Digits: 2},
	working.Symbol{Letter: "I", Name: "out of it", Unit: "A", Digits: 2})

// shareToHalf is what goes from a healthy start battery until it is half empty.
const shareToHalf = 0.4

// keyOnA is what a vehicle takes with the ignition on and the engine stopped, accessoryA
// with the key at accessory. Source: common practice, no source.
const (
	keyOnA     = 8.0
	accessoryA = 3.0
)

// ModesOf works the mode table and the live map of a job out.
func ModesOf(doc job.Document, book parts.Book) Modes {
	d := newDesign(doc, book)
	out := Modes{Coupling: string(d.kind), Rows: []Mode{}, Live: d.liveRows(), Work: d.workRows(), Figures: map[string]working.Figure{}}
	suns := []string{"no"}
	if d.facts.Day.SolarW.Value > 0 {
		suns = append(suns, "yes")
	}
	for _, position := range d.switches() {
		for _, k := range keyStates {
			for _, sun := range suns {
				m := d.mode(position, k, sun)
				if m.half != nil && m.StartA > 0.01 {
					m.Figure = fmt.Sprintf("mode.%d", len(out.Rows))
					out.Figures[m.Figure] = *m.half
				}
				out.Rows = append(out.Rows, m)
			}
		}
	}
	out.Stops = d.stops()
	out.Forgotten = d.forgotten()
	if f := out.Forgotten; f != nil && f.Figure != "" {
		out.Figures[f.Figure] = f.Work
	}
	return out
}

// The positions of what a person can switch.
const (
	noSwitch   = "–"
	released   = "button released"
	held       = "button held"
	switchOn   = "switch on"
	switchOff  = "switch off"
	isolatorOn = "isolator on"
	isolator0  = "isolator off"
	atOff      = "selector off"
	atIgnition = "selector with ignition"
	atAlways   = "selector always"
	isolated   = "Q1 open"
)

// switches are the positions of what a person can switch on this design, one thing at a
// time.
func (d *design) switches() []string {
	list := d.couplingSwitches()
	if d.facts.Extras.Isolator != job.NoIsolator {
		list = append(list, isolated)
	}
	return list
}

// couplingSwitches are the positions of what works the coupling.
func (d *design) couplingSwitches() []string {
	f := d.facts
	switch {
	case d.kind == coupling.ManualSelector:
		return []string{atOff, atIgnition, atAlways}
	case d.kind == coupling.SecondAlternator:
		return []string{isolatorOn, isolator0}
	case d.kind == coupling.DCDCChangeover, d.kind == coupling.SwitchedContactor && f.Survey.EmergencyStart == job.Yes:
		return []string{released, held}
	case d.wired() && (f.Schools.InSeries || f.Day.Trigger == "switch"):
		return []string{switchOn, switchOff}
	}
	return []string{noSwitch}
}

// signalled says whether the coupling's signal is live.
func (d *design) signalled(position string, k keyState) bool {
	if position == switchOff || position == isolated && d.facts.Extras.IsolatorFirst == job.Yes {
		return false
	}
	switch d.facts.Day.Trigger {
	case "switch":
		return true
	case "dead":
		return false
	case "accessory":
		return k.key == "accessory" || k.key == "on"
	case "ignition":
		return k.key == "on" || k.key == "start"
	case "voltage":
		return k.engine == "running" && d.facts.RegulatedV.Value >= d.facts.Detects.CutInV*d.facts.N
	}
	return k.engine == "running"
}

// joinedIn says whether the batteries are joined with everything as it stands.
func (d *design) joinedIn(position string, k keyState, s *state) bool {
	switch d.kind {
	case coupling.VSR:
		if k.engine == "running" {
			return s.SetV >= d.contact.Sensing.CutInV*d.facts.N
		}
		return d.staysClosed(*s)
	case coupling.SwitchedContactor:
		return position == held || d.signalled(position, k)
	case coupling.ManualSelector:
		return position == atAlways || position == atIgnition && d.signalled(position, k)
	case coupling.DCDCChangeover:
		return position == held
	case coupling.DCDCHighCurrent:
		return d.signalled(position, k) && k.engine == "running" && coupling.UsualHighCurrent.Joins(true, s.SetV/d.facts.N, s.AuxOwnV/d.facts.N)
	case coupling.SecondAlternator:
		return position == isolatorOn
	}
	return false
}

// modeState is the state of the circuit with everything as it stands.
func (d *design) modeState(position string, k keyState, sun string) state {
	f, n := d.facts, d.facts.N
	s := state{id: "mode", kind: resting, State: circuit.State{StartV: restAfterV * n, StartOhm: d.startOhm(), VehicleA: asleepA, AuxOwnV: f.Chemistry.RestV(0.75) * n, HouseA: f.DailyAh.Value / 24}}
	if d.kind == coupling.VSR {
		s.AuxOwnV = f.Chemistry.RestV(1) * n // it was closed until now
	}
	switch k.engine {
	case "running":
		s.kind, s.rpm, s.SetV, s.MachineA, s.VehicleA, s.StartV = charging, cruiseRPM, f.RegulatedV.Value, d.machineA(cruiseRPM), f.LoadA.Value*byDay, surfaceV*n
		s.AuxOwnV, s.SecondA = d.auxEmptyV(), d.secondA(cruiseRPM)
		if f.Chemistry.Lead {
			s.AcceptsA = d.rates.accepts.Unrounded
		}
	case "cranking":
		s.kind, s.Cranks = cranking, true
	default:
		s.VehicleA = map[string]float64{"off": asleepA, "accessory": accessoryA, "on": keyOnA}[k.key]
	}
	if sun == "yes" && d.sunMeets(d.signalled(position, k)) {
		s.SunA = sunShare * f.Day.SolarW.Value / (14 * n)
	}
	s.FeedLive = d.signalled(position, k)
	if s.Isolated = position == isolated; s.Isolated && d.facts.Extras.Isolator == job.MasterSwitch {
		s.HouseA = 0 // it is off with the battery
	}
	s.Joined = d.joinedIn(position, k, &s)
	s.Stopped = !s.FeedLive || d.kind == coupling.DCDCChangeover && s.Joined || k.engine == "cranking" ||
		s.Isolated && d.facts.Extras.Isolator == job.FrontIsolator // nothing reaches its input
	return s
}

// restAfterV is a start battery some hours after a drive, at 12 V; sunShare is a good sun.
// Source: from memory.
const (
	restAfterV = 12.7
	sunShare   = 0.7
)

// mode solves one line of the table and judges it.
func (d *design) mode(position string, k keyState, sun string) Mode {
	s := d.modeState(position, k, sun)
	d.settle(&s)
	m := Mode{Switch: position, Key: k.key, Engine: k.engine, Sun: sun, Joined: s.Joined, Verdict: "normal"}
	if s.solved.Volts == nil {
		m.Verdict, m.Why = "caution", s.err.Error()
		return m
	}
	into := -had(s.solved.Through("aux battery"))
	out := had(s.solved.Through("start battery"))
	m.AuxA, m.StartA = working.Round(into, 1), working.Round(max(0, out), 2)
	m.Charging = k.engine == "running" && s.outA > 0.5 && s.err == nil
	m.Lamp = d.lamp(&s)
	d.judgeMode(&m, k, &s, out)
	return m
}

// lamp is what the coupling's lamp shows.
func (d *design) lamp(s *state) string {
	switch {
	case d.kind == coupling.SecondAlternator:
		return "none"
	case d.kind.Charger() && !s.Stopped && s.err == nil:
		return "charging"
	case s.Joined:
		return "joined"
	}
	return "dark"
}

// hoursToHalf is how long the start battery lasts, in words and as the line's figure.
func (d *design) hoursToHalf(m *Mode, out float64) string {
	fig := HoursToHalf.MustWork(d.facts.StartAh.Input(), working.From(shareToHalf, working.Practice, "from 90 to 50 %"), working.Is(out, "from the circuit"))
	m.half = &fig
	return spanOf(fig.Unrounded)
}

// spanOf is hours as people say them, days where there are many.
func spanOf(h float64) string {
	switch {
	case h < 2:
		return working.Text(h*60, "min", 0)
	case h < 72:
		return working.Text(h, "h", 0)
	}
	return working.Text(h/24, "days", 0)
}

// judgeMode says whether a line is allowed, and what prevents it where it is not.
func (d *design) judgeMode(m *Mode, k keyState, s *state, out float64) {
	say := func(verdict, rule string, args ...any) {
		m.Verdict, m.Rule = verdict, rule
		m.Why, m.Interlock = fmt.Sprintf(modeWords[rule], args...), interlocks[rule]
	}
	amps := func(a float64) string { return working.Text(math.Abs(a), "A", 0) }
	batteriesJoined := s.Joined && d.kind != coupling.SecondAlternator
	through := had(s.solved.Through("contact"))
	switch {
	case s.Isolated && d.chargesNothing(s, k):
		say("forbidden", "mode.dump", amps(d.charger.OutputA))
	case s.Isolated:
		say("normal", "mode.isolated")
	case s.err != nil && k.engine == "running":
		say("forbidden", "mode.starved", s.err.Error())
	case batteriesJoined && k.engine == "cranking":
		if d.mayOpen(math.Abs(through), longStartS) {
			say("forbidden", "mode.crank", amps(through), d.fusesAt(math.Abs(through)))
		} else {
			say("caution", "mode.shares", amps(through))
		}
	case d.kind == coupling.DCDCChangeover && batteriesJoined && k.engine == "running":
		say("forbidden", "mode.bypass", amps(through), d.rates.half.Text)
	case m.Switch == held && k.engine == "running":
		say("normal", "mode.charges", amps(s.outA))
	case m.Switch == held:
		say("caution", "mode.held", amps(through))
	case batteriesJoined && k.key == "off":
		say("forbidden", "mode.flat", d.hoursToHalf(m, max(out, d.sharedDrain(s))))
	case batteriesJoined && k.engine == "stopped":
		say("caution", "mode.feeds", amps(through))
	case d.kind.Charger() && !s.Stopped && k.engine == "stopped" && s.err != nil:
		say("forbidden", "mode.hunts", working.Text(out, "A", 0), s.err.Error())
	case d.kind.Charger() && !s.Stopped && k.engine == "stopped":
		verdict := "forbidden"
		if k.key == "on" {
			verdict = "caution"
		}
		say(verdict, "mode.drains", working.Text(out, "A", 0), d.hoursToHalf(m, out))
	case m.Sun == "yes" && s.SunA == 0 && !m.Charging:
		say("caution", "mode.blocked")
	case k.engine == "running" && m.Charging:
		say("normal", "mode.charges", amps(s.outA))
	case k.engine == "running" && d.meansOff(m.Switch):
		say("normal", "mode.off")
	case k.engine == "running":
		say("caution", "mode.nocharge")
	case k.engine == "cranking":
		say("normal", "mode.cranks", working.Text(had(s.solved.At("start.30")), "V", 1))
	case m.Sun == "yes" && s.SunA > 0:
		say("normal", "mode.sun", amps(s.SunA))
	default:
		say("normal", "mode.apart", spanOf(shareToHalf*d.facts.StartAh.Value/math.Max(out, 1e-3)))
	}
}

// chargesNothing says whether a charger, or the sun, works on an aux side from which the
// battery is parted.
func (d *design) chargesNothing(s *state, k keyState) bool {
	at := d.facts.Extras.Isolator
	if at != job.AuxIsolator && at != job.MasterSwitch {
		return false
	}
	return d.kind.Charger() && s.FeedLive && k.engine == "running" || at == job.MasterSwitch && s.SunA > 0
}

// meansOff says whether a position is meant to stop charging.
func (d *design) meansOff(position string) bool {
	return position == switchOff || position == isolator0 || position == atOff
}

// sharedDrain is the start battery's part of what drains both, joined and left.
func (d *design) sharedDrain(s *state) float64 {
	all := s.HouseA + s.VehicleA
	return all * d.facts.StartAh.Value / (d.facts.StartAh.Value + d.facts.AuxAh.Value)
}

// modeWords are the reasons of the mode table, by rule.
var modeWords = map[string]string{
	"mode.isolated": "Parted by hand: nothing flows past Q1.",
	"mode.dump":     "%s of charger with no battery behind it: the voltage on what is still connected jumps.",
	"mode.blocked":  "The sun shines and the charger waits on the vehicle's input: nothing charges.",
	"mode.charges":  "%s into the aux side.",
	"mode.off":      "No charging: that is what this position is for.",
	"mode.nocharge": "The engine runs and nothing charges the aux battery.",
	"mode.starved":  "The charger cannot run: %s.",
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
	"mode.dump":    "A contact in Q1 that breaks the signal before it opens; the engine stopped first.",
	"mode.crank":   "A momentary button, and a label at it: let go, then crank.",
	"mode.bypass":  "A momentary button that cannot be left on; the factory's ignition feed taken off its coil.",
	"mode.flat":    "A coil that an engine-running signal holds; a selector that stands at “with ignition”; no sensing relay with LiFePO4.",
	"mode.hunts":   "A signal that is live only while the engine runs, or a timer.",
	"mode.drains":  "A signal that is live only while the engine runs, or a timer; a switch alone is forgotten.",
	"mode.starved": "A larger cable or a smaller charger: see the notes.",
}
