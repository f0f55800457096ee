package prove

import (
	"math"
	"slices"
)

// Taken is a reading that was taken.
type Taken struct {
	ID    string  `json:"id"`
	Value float64 `json:"value" doc:"In the reading's unit"`
	Jumps bool    `json:"jumps,omitempty" doc:"The meter comes to no stand: what is read goes on and off"`
	Peak  bool    `json:"peak,omitempty" doc:"… and the value is the most that it shows"`
}

// Level is how a value stands to its band.
type Level string

// The levels of a reading.
const (
	AsExpected Level = "likely"   // in the likely band
	JustOut    Level = "possible" // out of it, in the possible one
	Out        Level = "out"
	Impossible Level = "impossible" // nothing that could be wrong here gives it: the meter, or the entry
)

// Meaning is what a reading means.
type Meaning struct {
	Taken
	Level  Level    `json:"level" enum:"likely,possible,out,impossible"`
	Band   Bounds   `json:"band" doc:"As the readings before it had it"`
	Read   string   `json:"read" doc:"In words"`
	Expect string   `json:"expect" doc:"In words: what it was expected to be"`
	Off    string   `json:"off,omitempty" doc:"In words: how far it is from what is likely; empty within"`
	Slips  []string `json:"slips" doc:"What slip gives such a value: to be looked at before it is taken again"`
	NotYet string   `json:"notYet,omitempty" doc:"Why it is no proof yet, although it is as expected"`
}

// Proves says whether a reading is proof enough: what sound installations show, and not of a battery that takes nothing more.
func (v Meaning) Proves() bool {
	full := v.ID == "charge" && v.NotYet != ""
	return !full && (v.Level == AsExpected || v.Level == JustOut)
}

// Findings is a proof with what was read until now.
type Findings struct {
	Verdicts []Meaning         `json:"verdicts" doc:"One to a reading that was taken, the last of it, in their order"`
	Bands    map[string]Bounds `json:"bands" doc:"Of the readings to come, by id"`
	Expects  map[string]string `json:"expects" doc:"… in words"`
	Next     string            `json:"next,omitempty" doc:"The reading to take next; empty where all are taken"`
	Causes   []Cause           `json:"causes" doc:"What may be wrong, likeliest first; none while all is as expected"`
}

// utmost is beyond what any installation of a voltage shows, with every fault it may have: of its highest voltage, and of the
// largest current, in A.
const (
	utmostShare = 1.4
	utmostA     = 1500.0
)

// Judge holds what was read against the bands, one after the other, each narrowed by those before it.
func (p *Proof) Judge(taken []Taken) Findings {
	out := Findings{Verdicts: []Meaning{}, Bands: map[string]Bounds{}, Expects: map[string]string{}, Causes: []Cause{}}
	now, done, wrong := p.all, map[string]bool{}, false
	for k, t := range taken {
		i := p.at(t.ID)
		if i < 0 || slices.ContainsFunc(taken[k+1:], func(later Taken) bool { return later.ID == t.ID }) {
			continue // it was taken again
		}
		r := p.Readings[i]
		v := Meaning{Taken: t, Band: now.band(i, r), Slips: []string{}}
		v.Level = p.level(r, v.Band, t)
		switch {
		case r.Unit == Seen:
		case v.Level == AsExpected || v.Level == JustOut:
			now = now.told(i, t.Value, r.error(t.Value))
		default:
			wrong = true
		}
		switch {
		case r.Unit == Seen && v.Level == Out:
			v.Slips = []string{r.IfNot}
		case v.Level != AsExpected && !t.Jumps:
			v.Slips = p.slips(r, v.Band, t.Value)
		default:
			v.NotYet = p.notYet(r, t.Value)
		}
		v.Read, v.Expect, v.Off = r.read(v), r.Expects(v.Band), r.off(v)
		done[t.ID] = v.Level != Impossible
		out.Verdicts = append(out.Verdicts, v)
	}
	if wrong {
		out.Causes = p.causes(out.Verdicts)
	}
	for i, r := range p.Readings {
		if done[r.ID] {
			continue
		}
		if r.Of != "" && !out.isOut(r.Of) {
			continue
		}
		out.Bands[r.ID] = now.band(i, r)
		out.Expects[r.ID] = r.Expects(out.Bands[r.ID])
		if out.Next == "" && r.Of == "" {
			out.Next = r.ID
		}
	}
	if next := p.tells(out); next != "" {
		out.Next = next
	}
	return out
}

// isOut says whether a reading was taken, and is out.
func (o Findings) isOut(id string) bool {
	return slices.ContainsFunc(o.Verdicts, func(v Meaning) bool { return v.ID == id && v.Level == Out })
}

func (p *Proof) level(r Reading, b Bounds, t Taken) Level {
	value := t.Value
	utmost := utmostA
	if r.Unit == Volts {
		utmost = utmostShare * 16 * math.Max(p.d.Facts.N, p.d.Facts.AuxN)
	}
	switch {
	case math.Abs(value) > utmost:
		return Impossible
	case r.Unit == Seen && value > 0:
		return AsExpected
	case r.Unit == Seen, t.Jumps: // sound or not, so it proves nothing
		return Out
	case holds(b.Likely, value):
		return AsExpected
	case holds(b.Possible, value):
		return JustOut
	}
	return Out
}
