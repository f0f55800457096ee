package judge

import (
	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/unit"
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
	At      string `json:"at"`
	Live    bool   `json:"live"`
	Unknown bool   `json:"unknown,omitempty" doc:"The feed point that was taken was not tested so"`
}

// Is says it in a word.
func (s SignalAt) Is() string {
	switch {
	case s.Unknown:
		return "not known: test it"
	case s.Live:
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
	for _, at := range []struct {
		says string
		design.KeyState
	}{
		{"key out", design.KeyOut}, {"key out, after the bus sleeps", design.KeyOut}, {"accessory", design.Accessory},
		{"ignition on, engine stopped", design.Ignition}, {"cranking", design.CrankKey}, {"engine running", design.Driving},
	} {
		is := d.FeedIs(at.KeyState)
		list = append(list, SignalAt{at.says, is == feed.Is, is == feed.Untested})
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
		if tooWeak(d, p) {
			f.Candidate = false
			f.Findings = append(f.Findings, FeedFinding{"feed.dplus.weak", true, unit.Say("D+ gives no more than its lamp lets through, %s; "+
				"what it is to work takes %s.", unit.Text(lampA, "A", 1), unit.Text(d.WorksByA(), "A", 1))})
		}
		s.Feeds = append(s.Feeds, f)
		if f.Candidate && (best < 0 || v.Rank < best) {
			best, s.Best = v.Rank, row.Key
		}
	}
	return s
}
