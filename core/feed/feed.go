// Package feed judges feed points: the circuits that a coupling's signal may be taken
// from, by what they do with the key out, asleep, at accessory, on, cranking and running.
package feed

import (
	"epitrope/core/unit"
	"fmt"
	"slices"
	"strings"
)

// Live is what a test said: live, dead, or not tested yet.
type Live string

// The answers of a test.
const (
	Untested Live = ""
	Is       Live = "live"
	Dead     Live = "dead"
)

// Point is a place a signal could be taken from, with what was tested there.
type Point struct {
	Name    string
	Kind    Kind
	RatingA float64 // of its fuse; 0 where it has none or is not known
	Circuit string  // what it feeds
	Safety  Safe    // brakes, airbag, steering, engine management
	Only    string  // the consumer that has to be on for it to be live

	Off, Slept, Accessory, On, Cranking, Running Live
}

// Kind is a kind of source.
type Kind string

// The kinds, best first.
const (
	Interface Kind = "interface" // a body-builder's engine-running signal
	DPlus     Kind = "dplus"     // 61 or D+ of the alternator
	Slot      Kind = "slot"      // a fuse in a box
)

// Behaviour is what a point turned out to be.
type Behaviour string

// The behaviours, best first.
const (
	RunningOnly Behaviour = "running"   // live only while the engine runs
	Ignition    Behaviour = "ignition"  // live with the ignition on: 15
	Key         Behaviour = "accessory" // live at accessory too
	Consumer    Behaviour = "consumer"  // live only with some consumer on
	Permanent   Behaviour = "permanent" // live with the key out: 30
	Never       Behaviour = "never"     // dead while the engine runs
	Unknown     Behaviour = "unknown"   // not tested enough
)

// Finding is one thing about a point.
type Finding struct {
	ID   string
	Out  bool // it rules the point out
	Text string
}

// Verdict is what a point is good for.
type Verdict struct {
	Behaviour Behaviour
	Candidate bool // it may be taken
	Trap      bool // it looks right and is not
	Findings  []Finding
	Missing   []string // tests that are still to be made, in their order
	Rank      int      // lower is better, among candidates
}

// words are the sentences of the findings, by id. Source: common practice, no source.
var words = map[string]string{
	"feed.safety":    "Brakes, airbag, steering and engine management are not feed points.",
	"feed.feeds":     "What it feeds, nobody said: look it up before it is tapped.",
	"feed.permanent": "Live with the key out: permanent positive carries no information, and the coupling would never rest.",
	"feed.slept":     "Live with the key out until the bus sleeps: it goes dead only minutes later.",
	"feed.accessory": "Live at accessory, without the engine: the radio on for an evening is charging for an evening.",
	"feed.consumer":  "Live only with %s on: off, nothing charges.",
	"feed.never":     "Dead while the engine runs.",
	"feed.cranks":    "Dead while cranking: the coupling starts anew after every start, which does no harm.",
	"feed.dplus":     "On older machines D+ is also the excitation, and gives no more than its lamp lets through: 0.2 to 0.3 A.",
	"feed.rating":    "Its fuse is %.0f A: a low rating is no reason to choose it; what it feeds and how it behaves are.",
	"feed.running":   "Live only while the engine runs.",
	"feed.ignition":  "Live with the ignition, dead at accessory and with the key out.",
}

// tests are the states in which a point is tested, in working order.
var tests = []struct {
	name string
	of   func(Point) Live
}{
	{"key out", func(p Point) Live { return p.Off }},
	{"ignition on", func(p Point) Live { return p.On }},
	{"accessory", func(p Point) Live { return p.Accessory }},
	{"engine running", func(p Point) Live { return p.Running }},
	{"cranking", func(p Point) Live { return p.Cranking }},
	{"key out, after the bus sleeps", func(p Point) Live { return p.Slept }},
}

// Judge says what a point is, whether it may be taken, and what has still to be tested. A
// point with a test that rules it out needs no further ones.
func (p Point) Judge() Verdict {
	v := Verdict{Behaviour: p.behaviour()}
	say := func(id string, out bool, args ...any) {
		v.Findings = append(v.Findings, Finding{ID: id, Out: out, Text: unit.Say(words[id], args...)})
	}
	switch {
	case p.Vital():
		say("feed.safety", true)
	case p.Safety == NotSaid && p.Circuit == "" && p.Kind == Slot:
		say("feed.feeds", false)
	}
	switch {
	case p.Slept == Is:
		say("feed.permanent", true)
	case p.Off == Is && p.Slept == Dead:
		say("feed.slept", false)
	case p.Off == Is:
		say("feed.permanent", true)
	}
	if p.Running == Dead {
		say("feed.never", true)
	}
	if p.Only != "" {
		say("feed.consumer", true, p.Only)
	}
	if p.Accessory == Is && p.Off != Is {
		say("feed.accessory", false)
	}
	if p.Cranking == Dead {
		say("feed.cranks", false)
	}
	if p.Kind == DPlus {
		say("feed.dplus", false)
	}
	if p.RatingA > 0 && p.RatingA <= lowRating {
		say("feed.rating", false, p.RatingA)
	}
	out := slices.ContainsFunc(v.Findings, func(f Finding) bool { return f.Out })
	if !out {
		for _, t := range tests {
			if t.of(p) == Untested {
				v.Missing = append(v.Missing, t.name)
			}
		}
	}
	v.Candidate = !out && len(v.Missing) == 0
	v.Trap = p.Running == Is && (out || v.Behaviour == Key)
	if v.Candidate && v.Behaviour == RunningOnly {
		say("feed.running", false)
	}
	if v.Candidate && v.Behaviour == Ignition {
		say("feed.ignition", false)
	}
	v.Rank = p.rank(v.Behaviour)
	return v
}

// lowRating is the fuse rating, in A, from which down people take a circuit for harmless.
// Source: common practice, no source.
const lowRating = 5.0

// behaviour reads the tests.
func (p Point) behaviour() Behaviour {
	switch {
	case p.Slept == Is, p.Off == Is && p.Slept != Dead:
		return Permanent
	case p.Running == Dead:
		return Never
	case p.Only != "":
		return Consumer
	case p.Accessory == Is:
		return Key
	case p.On == Is && p.Running == Is:
		return Ignition
	case p.On == Dead && p.Running == Is:
		return RunningOnly
	}
	return Unknown
}

var behaviours = []Behaviour{RunningOnly, Ignition, Key}

// rank orders candidates: by how they behave, then by kind, then slots of ordinary
// ratings before very small ones.
func (p Point) rank(b Behaviour) int {
	at := slices.Index(behaviours, b)
	if at < 0 {
		at = len(behaviours)
	}
	kind := max(0, slices.Index([]Kind{Interface, DPlus, Slot}, p.Kind))
	rank := 100*at + 10*kind
	if p.RatingA > 0 && p.RatingA <= lowRating {
		rank++
	}
	return rank
}

// Tap says how a tap holder is filled for a slot: the original fuse below, the new
// circuit's above.
func (p Point) Tap(newA float64) string {
	if p.Kind != Slot {
		return fmt.Sprintf("%s: an in-line holder with %g A within 200 mm of it.", strings.TrimSpace(p.Name), newA)
	}
	if p.RatingA <= 0 {
		return fmt.Sprintf("Tap holder in %s: its original fuse in the lower slot, %g A in the upper.", p.Name, newA)
	}
	return fmt.Sprintf("Tap holder in %s: its own %g A in the lower slot, %g A in the upper.", p.Name, p.RatingA, newA)
}
