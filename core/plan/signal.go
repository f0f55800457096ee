package plan

import (
	"fmt"

	"epitrope/core/feed"
	"epitrope/core/working"
)

// SignalPlan is what tells the coupling that the engine runs: the feed points that were
// tested, which may be taken, and what happens if it is forgotten on.
type SignalPlan struct {
	Needed bool        `json:"needed"`
	Feeds  []FeedPoint `json:"feeds" doc:"As entered"`
	Best   string      `json:"best,omitempty" doc:"Name of the row of the best candidate"`
	Taken  string      `json:"taken,omitempty"`

	Expected []SignalAt `json:"expected" doc:"What the signal has to be, position by position"`
}

// SignalAt is what the signal has to be with the key and the engine as they stand.
type SignalAt struct {
	At   string `json:"at"`
	Live bool   `json:"live"`
}

// Is says it in a word.
func (s SignalAt) Is() string {
	if s.Live {
		return "live"
	}
	return "dead"
}

// expected is the signal in every position in which it is proven. A bus that sleeps takes
// minutes to do so: a circuit that is dead at once may wake, and one that is live may die.
func (d *design) expected() []SignalAt {
	list := []SignalAt{}
	if !d.wired() {
		return list
	}
	position := d.couplingSwitches()[0]
	for _, at := range []struct {
		says string
		keyState
	}{
		{"key out", keyState{"off", "stopped"}}, {"key out, after the bus sleeps", keyState{"off", "stopped"}}, {"accessory", keyState{"accessory", "stopped"}},
		{"ignition on, engine stopped", keyState{"on", "stopped"}}, {"cranking", keyState{"start", "cranking"}}, {"engine running", keyState{"on", "running"}},
	} {
		list = append(list, SignalAt{at.says, d.signalled(position, at.keyState)})
	}
	return list
}

// FeedPoint is a point with what the tests say of it.
type FeedPoint struct {
	Key       string        `json:"key"`
	Name      string        `json:"name"`
	Behaviour string        `json:"behaviour" enum:"running,ignition,accessory,consumer,permanent,never,unknown"`
	Candidate bool          `json:"candidate"`
	Trap      bool          `json:"trap" doc:"It looks right with the engine running and is not"`
	Findings  []FeedFinding `json:"findings"`
	Missing   []string      `json:"missing" doc:"Tests still to be made, in their order"`
	Rank      int           `json:"rank" doc:"Lower is better"`
	Tap       string        `json:"tap" doc:"How it is tapped"`
}

// FeedFinding is one thing about a point.
type FeedFinding struct {
	ID   string `json:"id"`
	Out  bool   `json:"out" doc:"It rules the point out"`
	Text string `json:"text"`
}

// signal judges the feed points and what a forgotten signal does.
func (d *design) signal() SignalPlan {
	s := SignalPlan{Needed: d.wired(), Feeds: []FeedPoint{}, Taken: d.facts.FeedTaken, Expected: d.expected()}
	best := -1
	for _, row := range d.facts.Feeds {
		p := row.Of.Point(row.Key)
		v := p.Judge()
		f := FeedPoint{Key: row.Key, Name: p.Name, Behaviour: string(v.Behaviour), Candidate: v.Candidate, Trap: v.Trap, Findings: []FeedFinding{}, Missing: v.Missing, Rank: v.Rank, Tap: p.Tap(d.trigger.fuse.RatingA)}
		if f.Missing == nil {
			f.Missing = []string{}
		}
		for _, one := range v.Findings {
			f.Findings = append(f.Findings, FeedFinding{one.ID, one.Out, one.Text})
		}
		s.Feeds = append(s.Feeds, f)
		if v.Candidate && (best < 0 || v.Rank < best) {
			best, s.Best = v.Rank, row.Key
		}
	}
	return s
}

// byVoltage says whether a charger takes the voltage that it sees for its signal.
func (d *design) byVoltage() bool { return d.kind.Charger() && d.facts.Day.Trigger == "voltage" }

// wired says whether a wire brings the coupling its signal.
func (d *design) wired() bool { return d.kind.Signal() && !d.byVoltage() }

// noteDetection says where a charger that takes voltage for its signal is fooled: a start
// side that is low with the engine running, and one that is high without it.
func (d *design) noteDetection(n *noted) {
	if d.facts.Day.Trigger != "voltage" {
		return
	}
	cure := set("Take an engine-running signal", "day.trigger", "running")
	if !d.kind.Charger() {
		n.add("signal.detect.none", "coupling", caution, with(d.kind.Label()), nil, unpin("As such coils are usually fed", "day.trigger"))
		return
	}
	nn, volts := d.facts.N, func(v float64) string { return working.Text(v, "V", 1) }
	on, off := d.facts.Detects.CutInV*nn, d.facts.Detects.CutOutV*nn
	for _, s := range d.states {
		if s.kind != charging || s.solved.Volts == nil {
			continue
		}
		if before := had(s.solved.At("start.30")); s.inV < off {
			n.add("signal.detect.low", "coupling", stop, with(s.label, volts(s.inV), volts(off)), with(volts(before)), cure)
			break
		}
	}
	if rest := d.facts.Chemistry.RestV(1) * nn; d.canJoin() && rest >= on {
		n.add("signal.detect.joined", "coupling", stop, with(d.facts.Chemistry.Label, volts(rest), volts(on)), nil, cure)
	} else if d.canJoin() {
		n.add("signal.detect.surface", "coupling", caution, with(volts(on)), nil, cure)
	}
}

// delayShare is the share of a day's driving that a timer may take before that is said.
// Source: common practice, no source.
const delayShare = 0.2

// leftLive is what a signal that is left live does to the start battery, in words.
func (d *design) leftLive() string {
	if !d.kind.Charger() {
		return "both batteries are joined"
	}
	amps := d.inputAt(d.charger.OutputA) + asleepA
	return fmt.Sprintf("the charger takes %s, and the start battery is half empty after %s", working.Text(amps, "A", 0), spanOf(HoursToHalf.Value(d.facts.StartAh.Value, shareToHalf, amps)))
}

// inputAt is what a charger draws from a start battery at rest, at its usual efficiency.
func (d *design) inputAt(outA float64) float64 {
	return outA * d.auxEmptyV() / (d.charger.Efficiency * restAfterV * d.facts.N)
}

// noteSignal says what is wrong with the feed point that was taken.
func (d *design) noteSignal(n *noted) {
	if late := d.facts.Schools.DelayMin.Value / 60; d.wired() && late >= delayShare*d.facts.DrivenHours.Value {
		n.add("signal.delay", "coupling", caution, with(working.Plain(d.facts.Schools.DelayMin.Value, "min", 0), working.Plain(d.facts.DrivenHours.Value, "h", 2)), nil, unpin("No timer", "schools.delayMin"))
	}
	d.noteDetection(n)
	if !d.wired() || d.facts.FeedTaken == "" {
		return
	}
	for _, row := range d.facts.Feeds {
		if row.Key != d.facts.FeedTaken {
			continue
		}
		p := row.Of.Point(row.Key)
		v := p.Judge()
		for _, f := range v.Findings {
			if f.Out {
				n.add("signal.out", "coupling", stop, with(p.Name, f.Text), nil, unpin("Take another", "signal.feed"))
			}
		}
		if v.Behaviour == feed.Key {
			n.add("signal.accessory", "coupling", caution, with(p.Name, d.leftLive()), nil, unpin("Take another", "signal.feed"))
		}
		if len(v.Missing) > 0 {
			n.add("signal.untested", "coupling", caution, with(p.Name, v.Missing[0]), nil)
		}
		return
	}
	n.add("signal.gone", "coupling", caution, nil, nil, unpin("Take another", "signal.feed"))
}
