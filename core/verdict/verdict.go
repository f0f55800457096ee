// Package verdict is how what is judged is told: how good a thing is, how bad a note is, and
// what would cure it.
package verdict

// Level says how good a thing is.
type Level string

// The levels, best first.
const (
	Good    Level = "good"
	Caution Level = "caution"
	Bad     Level = "bad"
	Open    Level = "open" // nobody has looked yet
)

// Worst is the worst of some levels; one that is open counts as good.
func Worst(levels ...Level) Level {
	out := Good
	for _, l := range levels {
		if l == Bad || l == Caution && out == Good {
			out = l
		}
	}
	return out
}

// The severities of a note, worst first.
const (
	Stop   = "stop"
	Beware = "caution"
	Remark = "remark"
)

// Rank orders the severities, worst first.
var Rank = map[string]int{Stop: 0, Beware: 1, Remark: 2}

// Cure changes the document so that a note goes away, or asks for what is
// missing.
type Cure struct {
	Label string `json:"label"`
	Path  string `json:"path,omitempty" doc:"Field to set"`
	Value string `json:"value,omitempty" doc:"What to set it to; empty takes the pin out"`
	Ask   string `json:"ask,omitempty" doc:"Question to open"`
}

// Set cures by an answer.
func Set(label, path, value string) Cure { return Cure{Label: label, Path: path, Value: value} }

// Unpin cures by leaving the answer to the design.
func Unpin(label, path string) Cure { return Cure{Label: label, Path: path} }

// Ask cures by a question.
func Ask(label, question string) Cure { return Cure{Label: label, Ask: question} }
