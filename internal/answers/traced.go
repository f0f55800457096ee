package answers

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/trace"
)

// CaseEntries are the kinds of entries of a case: what was complained of, read, looked at, mended, gone past for now, and that it is
// closed.
var CaseEntries = []string{"complaint", "traced", "looked", "mended", "bypass", "closed"}

// FaultPlace is a part or a wire at which something may be wrong, with what may.
type FaultPlace struct {
	ID     string       `json:"id"`
	Name   string       `json:"name"`
	Faults []NamedFault `json:"faults"`
}

// NamedFault is a fault in words.
type NamedFault struct {
	ID   string `json:"id"`
	Says string `json:"says"`
}

// Traced is a trace as far as it has come.
type Traced struct {
	trace.Belief
	Symptoms []trace.Symptom       `json:"symptoms" doc:"What may be complained of"`
	Places   []FaultPlace          `json:"places" doc:"Where something may be wrong, and what"`
	Readings []AskedReading        `json:"readings" doc:"All that may be read"`
	Stations []prove.Station       `json:"stations"`
	Bypass   trace.TemporaryBypass `json:"bypass" doc:"A way past the coupling for now"`
}

// TraceFault is how far the trace of a fault has come.
func TraceFault(d *design.Design, e trace.Evidence) Traced {
	t, wide := trace.Of(d), prove.Wider(d)
	out := Traced{Belief: t.Believe(e), Symptoms: trace.Symptoms(), Places: []FaultPlace{}, Readings: []AskedReading{},
		Stations: wide.Stations, Bypass: trace.BypassOf(d)}
	if out.Stations == nil {
		out.Stations = []prove.Station{}
	}
	for _, f := range fault.Of(d) {
		at := slices.IndexFunc(out.Places, func(p FaultPlace) bool { return p.ID == f.At })
		if at < 0 {
			out.Places = append(out.Places, FaultPlace{f.At, t.Called(f.At), nil})
			at = len(out.Places) - 1
		}
		out.Places[at].Faults = append(out.Places[at].Faults, NamedFault{f.ID, f.Says})
	}
	pictures := wide.Pictures()
	for _, r := range wide.Readings {
		if r.Unit != prove.Seen {
			out.Readings = append(out.Readings, AskedReading{r, r.Where(), wide.Expected(r), pictures[r.ID]})
		}
	}
	return out
}
