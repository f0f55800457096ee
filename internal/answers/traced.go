package answers

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/trace"
)

// CaseEntries are the kinds of entries of a case: what was complained of, read, looked at, tried with another part, mended, gone past for
// now, and that it is closed.
var CaseEntries = []string{"complaint", "traced", "looked", "swapped", "mended", "bypass", "closed"}

// LogEntries are the kinds of entries of a job's log beside its cases: a part that was changed, and what somebody noted.
var LogEntries = []string{"changed", "noted"}

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
	Of       string                `json:"of" doc:"The installation, in a line"`
	Missing  []string              `json:"missing" doc:"What nobody knows of it as it was found"`
	Symptoms []trace.Symptom       `json:"symptoms" doc:"What may be complained of"`
	Places   []FaultPlace          `json:"places" doc:"Where something may be wrong, and what"`
	Readings []AskedReading        `json:"readings" doc:"All that may be read"`
	Stations []prove.Station       `json:"stations"`
	Bypass   trace.TemporaryBypass `json:"bypass" doc:"A way past the coupling for now"`
}

// TraceFault is how far the trace of a fault has come.
func TraceFault(d *design.Design, missing []string, e trace.Evidence) Traced {
	t, wide := trace.Of(d), prove.Wider(d)
	out := Traced{Belief: t.Believe(e), Of: retrofit.InALine(d), Missing: missing, Symptoms: trace.Symptoms(), Places: []FaultPlace{},
		Readings: []AskedReading{},
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
