package trace

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"

	"epitrope/core/prove"
)

// Format and Version are what a document of evidence begins with.
const (
	Format  = "epitrope-evidence"
	Version = 1
)

// Evidence is what was complained of, read, looked at and mended, in its order.
type Evidence struct {
	Format   string        `json:"format"`
	Version  int           `json:"version"`
	Seen     []Observed    `json:"seen" maxItems:"400"`
	Years    *float64      `json:"years,omitempty" doc:"How long it has been in use; not known where that is absent"`
	Baseline []prove.Entry `json:"baseline,omitempty" maxItems:"400" doc:"What was read of it when nothing was wrong, such as its proof"`
}

// Observed is one of it: a complaint, a reading, a look at a part, another part put in its place, or a mend.
type Observed struct {
	Symptom string `json:"symptom,omitempty" doc:"What somebody complains of, by its id"`
	Reading string `json:"reading,omitempty" doc:"A reading, by its id"`
	Entry   string `json:"entry,omitempty" doc:"Of a reading: as it was entered, “12.61 V”, or “jumps”"`
	Look    string `json:"look,omitempty" doc:"A part or wire that was looked at, by its id; or “warmth”"`
	Found   string `json:"found,omitempty" doc:"Of a look: the fault that was found, by its id; empty where all is well there. Of warmth: the place that is the warmest"`
	Swap    string `json:"swap,omitempty" doc:"A part that another, known to be good, was put in place of for a try, by its id"`
	Helped  bool   `json:"helped,omitempty" doc:"Of such a try: what was complained of was gone with it"`
	Mended  string `json:"mended,omitempty" doc:"A fault that was mended, by its id: what stands before it was with it"`
}

// most is as much of an evidence as is taken.
const (
	most      = 400
	mostYears = 100.0
)

// Decode reads a document of evidence; an error names the field, its value and what is allowed.
func Decode(data []byte) (Evidence, error) {
	e := Evidence{}
	in := json.NewDecoder(bytes.NewReader(data))
	in.DisallowUnknownFields()
	if err := in.Decode(&e); err != nil {
		return e, fmt.Errorf("evidence is no JSON document of this kind: %w", err)
	}
	switch _, err := in.Token(); {
	case !errors.Is(err, io.EOF):
		return e, errors.New("evidence: something stands after the document; allowed: one document")
	case e.Format != Format:
		return e, fmt.Errorf("format %q is not evidence; allowed: %q", cut(e.Format), Format)
	case e.Version != Version:
		return e, fmt.Errorf("version %d is not known; allowed: %d", e.Version, Version)
	case len(e.Seen) > most:
		return e, fmt.Errorf("seen has %d entries; allowed: up to %d", len(e.Seen), most)
	case len(e.Baseline) > most:
		return e, fmt.Errorf("baseline has %d entries; allowed: up to %d", len(e.Baseline), most)
	case e.Years != nil && !(*e.Years >= 0 && *e.Years <= mostYears):
		return e, fmt.Errorf("years %g is not how long something is in use; allowed: 0 to %g", *e.Years, mostYears)
	}
	return e, nil
}

// shownMost is as much of a value as is repeated.
const shownMost = 60

func cut(text string) string {
	if r := []rune(text); len(r) > shownMost {
		return string(r[:shownMost]) + "…"
	}
	return text
}

// era is what was seen between two mends: with every fault that was mended after it.
type era struct {
	taken    []read
	looks    []look
	swaps    []swap
	station  string  // what the vehicle was for the last test; "" before the first
	warmest  *string // the place whose joint was the warmest, "" where none was; nil where nobody felt
	symptoms []symptom
	years    *float64 // that it has been in use; nil where nobody knows
	with     []string // faults that were mended since
}

// look is a part that was looked at.
type look struct {
	at    string
	found string
}

// Unusable says what is wrong with something of the evidence, and what is allowed.
type Unusable struct {
	At      int    `json:"at" doc:"Its place in the evidence, from 0"`
	Field   string `json:"field"`
	Value   string `json:"value"`
	Allowed string `json:"allowed"`
}

func (p Unusable) Error() string {
	return fmt.Sprintf("seen[%d].%s %q is none; allowed: %s", p.At, p.Field, p.Value, p.Allowed)
}

// eras are what was seen, by the mends between. Of a reading that was taken twice in an era the last counts.
func (t *Trace) eras(e Evidence) (list []era, wrong []Unusable) {
	now := era{years: e.Years}
	put := func(at int, field, value, allowed string) {
		wrong = append(wrong, Unusable{at, field, cut(value), allowed})
	}
	for k, s := range e.Seen {
		said := 0
		for _, text := range []string{s.Symptom, s.Reading, s.Look, s.Swap, s.Mended} {
			if text != "" {
				said++
			}
		}
		if said != 1 {
			put(k, "symptom", s.Symptom, "one of symptom, reading, look, swap and mended in each entry")
			continue
		}
		switch {
		case s.Symptom != "":
			at := slices.IndexFunc(symptoms, func(y symptom) bool { return y.id == s.Symptom })
			if at < 0 {
				put(k, "symptom", s.Symptom, "one of the list of symptoms")
				continue
			}
			now.symptoms = append(now.symptoms, symptoms[at])
		case s.Reading != "":
			r, err := t.entered(s)
			if err != nil {
				put(k, "reading", s.Reading+" "+s.Entry, err.Error())
				continue
			}
			now.taken = slices.DeleteFunc(now.taken, func(before read) bool {
				if before.i != r.i {
					return false
				}
				r.again, r.same = true, t.same(before, r)
				return true
			})
			now.taken, now.station = append(now.taken, r), t.proof.Readings[r.i].Station
		case s.Look != "":
			switch {
			case s.Look == Warmth && s.Found != "" && !t.isPlace(s.Found):
				put(k, "found", s.Found, "a part or wire of this installation, by its id, or nothing where none is warm")
			case s.Look == Warmth:
				now.warmest, now.station = &s.Found, prove.Warm
			case !t.isPlace(s.Look):
				put(k, "look", s.Look, "a part or wire of this installation, by its id")
			case s.Found != "" && t.index(s.Found) < 0:
				put(k, "found", s.Found, "a fault that this installation may have, by its id, or nothing")
			default:
				now.looks = slices.DeleteFunc(now.looks, func(before look) bool { // what is found counts, and each look that finds nothing
					return before.at == s.Look && (before.found != "" || s.Found != "")
				})
				now.looks = append(now.looks, look{s.Look, s.Found})
			}
		case s.Swap != "":
			if t.swapMinutes(s.Swap) == 0 {
				put(k, "swap", s.Swap, "a part of this installation that is changed for a try, by its id: a fuse, a relay, a charger, a control")
				continue
			}
			now.swaps = slices.DeleteFunc(now.swaps, func(before swap) bool { return before.at == s.Swap })
			now.swaps = append(now.swaps, swap{s.Swap, s.Helped})
		default:
			if t.index(s.Mended) < 0 {
				put(k, "mended", s.Mended, "a fault that this installation may have, by its id")
				continue
			}
			list = append(list, now)
			for i := range list {
				list[i].with = append(list[i].with, s.Mended)
			}
			now = era{years: e.Years}
		}
	}
	return append(list, now), wrong
}

// entered is a reading of the evidence.
func (t *Trace) entered(s Observed) (read, error) {
	i := slices.IndexFunc(t.proof.Readings, func(r prove.Reading) bool { return r.ID == s.Reading })
	if i < 0 {
		return read{}, errors.New("a reading of this installation, by its id")
	}
	taken, err := t.proof.Readings[i].Entered(s.Entry)
	if err != nil {
		return read{}, err
	}
	return read{i: i, value: taken.Value, jumps: taken.Jumps, peak: taken.Peak, taken: true}, nil
}

// same says whether a reading came to the same twice.
func (t *Trace) same(a, b read) bool {
	if a.jumps || b.jumps {
		return a.jumps == b.jumps
	}
	return math.Abs(a.value-b.value) <= 2*t.proof.Readings[a.i].Off(b.value)
}

// index is a fault's place among the suspects, by its id; -1 where there is none such.
func (t *Trace) index(id string) int {
	return slices.IndexFunc(t.list, func(s *suspect) bool { return len(s.wrong) == 1 && s.wrong[0].ID == id })
}

// isPlace says whether a fault may be at a place.
func (t *Trace) isPlace(at string) bool {
	return slices.ContainsFunc(t.list, func(s *suspect) bool { return len(s.wrong) == 1 && s.wrong[0].At == at })
}
