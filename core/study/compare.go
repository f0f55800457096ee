package study

import (
	"epitrope/core/design"
	"epitrope/core/job"
)

// Variant is a design beside others: the job's own with some fields changed.
type Variant struct {
	Label   string         `json:"label"`
	Changes map[string]any `json:"changes" doc:"By path: text with any unit, or a number in the field's unit; null takes the answer out"`
}

// Compared is a design with what it came to on the same days as the others.
type Compared struct {
	Label    string    `json:"label"`
	Outcome  Outcome   `json:"outcome"`
	Aims     []Met     `json:"aims"`
	Verdicts []Verdict `json:"verdicts"`
	Stopped  string    `json:"stopped,omitempty"`
	T        []float64 `json:"t"`
	AuxSOC   []float64 `json:"auxSOC"`
	StartSOC []float64 `json:"startSOC"`
	AuxA     []float64 `json:"auxA"`
	BusV     []float64 `json:"busV"`
}

// MostCompared is how many designs can be compared.
const MostCompared = 4

// Compare runs several designs through the same days. The problems name what does not
// read, with the design's number before the field. halt is asked now and then whether to stop; nil never stops.
func Compare(d *design.Design, variants []Variant, halt func() bool) ([]Compared, job.Problems) {
	var problems job.Problems
	docs := make([]job.Document, len(variants))
	for i, v := range variants {
		changed, wrong := job.With(d.Doc, v.Changes)
		docs[i] = changed
		for _, p := range wrong {
			p.Field = v.Label + ": " + p.Field
			problems = append(problems, p)
		}
	}
	if len(problems) > 0 {
		return nil, problems
	}
	out := make([]Compared, len(variants))
	many(len(variants), nil, func(i int, stopped func() bool) {
		t := Try(d.With(docs[i]), Window{}, func() bool { return stopped() || halt != nil && halt() })
		out[i] = Compared{Label: variants[i].Label, Outcome: t.Outcome, Aims: t.Aims, Verdicts: t.Verdicts, Stopped: t.Stopped,
			T: t.Series.T, AuxSOC: t.Series.AuxSOC, StartSOC: t.Series.StartSOC, AuxA: t.Series.AuxA, BusV: t.Series.BusV}
	})
	return out, nil
}
