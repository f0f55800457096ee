package judge

import (
	"fmt"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/verdict"
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
func expected(d *design.Design) []SignalAt {
	list := []SignalAt{}
	if !d.Wired() {
		return list
	}
	position := d.CouplingSwitches()[0]
	for _, at := range []struct {
		says string
		design.KeyState
	}{
		{"key out", design.KeyState{Key: "off", Engine: "stopped"}}, {"key out, after the bus sleeps",
			design.KeyState{Key: "off", Engine: "stopped"}}, {"accessory", design.KeyState{Key: "accessory", Engine: "stopped"}},
		{"ignition on, engine stopped", design.KeyState{Key: "on", Engine: "stopped"}},
		{"cranking", design.KeyState{Key: "start", Engine: "cranking"}}, {"engine running", design.KeyState{Key: "on", Engine: "running"}},
	} {
		list = append(list, SignalAt{at.says, d.Signalled(position, at.KeyState)})
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

// Signal judges the feed points and what a forgotten signal does.
func Signal(d *design.Design) SignalPlan {
	s := SignalPlan{Needed: d.Wired(), Feeds: []FeedPoint{}, Taken: d.Facts.FeedTaken, Expected: expected(d)}
	best := -1
	for _, row := range d.Facts.Feeds {
		p := row.Of.Point(row.Key)
		v := p.Judge()
		f := FeedPoint{Key: row.Key, Name: p.Name, Behaviour: string(v.Behaviour), Candidate: v.Candidate, Trap: v.Trap,
			Findings: []FeedFinding{}, Missing: v.Missing, Rank: v.Rank, Tap: p.Tap(d.Trigger.Fuse.RatingA)}
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

// noteDetection says where a charger that takes voltage for its signal is fooled: a start
// side that is low with the engine running, and one that is high without it.
func noteDetection(d *design.Design, n *noted) {
	if d.Facts.Day.Trigger != "voltage" {
		return
	}
	cure := verdict.Set("Take an engine-running signal", "day.trigger", "running")
	if !d.Kind.Charger() {
		n.add("signal.detect.none", "coupling", verdict.Beware, with(d.Kind.Label()), nil,
			verdict.Unpin("As such coils are usually fed", "day.trigger"))
		return
	}
	nn, volts := d.Facts.N, func(v float64) string { return working.Text(v, "V", 1) }
	on, off := d.Facts.Detects.CutInV*nn, d.Facts.Detects.CutOutV*nn
	for _, s := range d.States {
		if s.Kind != design.Charging || s.Solved.Volts == nil {
			continue
		}
		if before := circuit.Had(s.Solved.At("start.30")); s.InV < off {
			n.add("signal.detect.low", "coupling", verdict.Stop, with(s.Label, volts(s.InV), volts(off)), with(volts(before)), cure)
			break
		}
	}
	if rest := d.Facts.Chemistry.RestV(1) * nn; d.Is.CanJoin && rest >= on {
		n.add("signal.detect.joined", "coupling", verdict.Stop, with(d.Facts.Chemistry.Label, volts(rest), volts(on)), nil, cure)
	} else if d.Is.CanJoin {
		n.add("signal.detect.surface", "coupling", verdict.Beware, with(volts(on)), nil, cure)
	}
}

// delayShare is the share of a day's driving that a timer may take before that is said.
// Source: common practice, no source.
const delayShare = 0.2

// leftLive is what a signal that is left live does to the start battery, in words.
func leftLive(d *design.Design) string {
	if !d.Kind.Charger() {
		return "both batteries are joined"
	}
	amps := d.InputAt(d.Charger.OutputA) + design.AsleepA
	return fmt.Sprintf("the charger takes %s, and the start battery is half empty after %s", working.Text(amps, "A", 0),
		working.Span(design.HoursToHalf.Value(d.Facts.StartAh.Value, design.ShareToHalf, amps)))
}

// noteSignal says what is wrong with the feed point that was taken.
func noteSignal(d *design.Design, n *noted) {
	if late := d.Facts.Schools.DelayMin.Value / 60; d.Wired() && late >= delayShare*d.Facts.DrivenHours.Value {
		n.add("signal.delay", "coupling", verdict.Beware, with(working.Plain(d.Facts.Schools.DelayMin.Value, "min", 0),
			working.Plain(d.Facts.DrivenHours.Value, "h", 2)), nil, verdict.Unpin("No timer", "schools.delayMin"))
	}
	noteDetection(d, n)
	if !d.Wired() || d.Facts.FeedTaken == "" {
		return
	}
	for _, row := range d.Facts.Feeds {
		if row.Key != d.Facts.FeedTaken {
			continue
		}
		p := row.Of.Point(row.Key)
		v := p.Judge()
		for _, f := range v.Findings {
			if f.Out {
				n.add("signal.out", "coupling", verdict.Stop, with(p.Name, f.Text), nil, verdict.Unpin("Take another", "signal.feed"))
			}
		}
		if v.Behaviour == feed.Key {
			n.add("signal.accessory", "coupling", verdict.Beware, with(p.Name, leftLive(d)), nil, verdict.Unpin("Take another", "signal.feed"))
		}
		if len(v.Missing) > 0 {
			n.add("signal.untested", "coupling", verdict.Beware, with(p.Name, v.Missing[0]), nil)
		}
		return
	}
	n.add("signal.gone", "coupling", verdict.Beware, nil, nil, verdict.Unpin("Take another", "signal.feed"))
}
