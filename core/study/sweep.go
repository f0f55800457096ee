package study

import (
	"fmt"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/section"
	"epitrope/core/unit"
)

// Axis is a field of a design and the values that it takes in a sweep.
type Axis struct {
	Path   string   `json:"path"`
	Values []string `json:"values,omitempty" doc:"As typed; empty takes the usual ones of the field"`
}

// SweepRequest asks for a map over two fields.
type SweepRequest struct {
	Across Axis `json:"across"`
	Up     Axis `json:"up"`
}

// SweepAxis is an axis as swept.
type SweepAxis struct {
	Path   string   `json:"path"`
	Label  string   `json:"label"`
	Values []string `json:"values" doc:"As shown"`
	Now    int      `json:"now" doc:"Which of them the design has; −1 none"`
}

// SweepCell is one design of the map.
type SweepCell struct {
	Outcome Outcome `json:"outcome"`
	Score   int     `json:"score" doc:"How many aims it meets"`
	Unmet   string  `json:"unmet" doc:"The first aim that it does not meet; empty where it meets all"`
	Best    bool    `json:"best" doc:"It meets as many aims as any"`
	Done    bool    `json:"done"`
}

// Sweep is a map over two fields: cells by rows of Up, each along Across.
type Sweep struct {
	Across SweepAxis   `json:"across"`
	Up     SweepAxis   `json:"up"`
	Cells  []SweepCell `json:"cells"`
	Aims   int         `json:"aims" doc:"How many aims there are"`
	Whole  bool        `json:"whole" doc:"False where it was stopped before its end"`
}

// mostValues is how many values an axis takes.
const mostValues = 12

// steps are the values that a field usually takes in a sweep, from the design's own
// value for quantities.
func steps(f job.Field, now string, doc job.Document) []string {
	switch f.Kind {
	case job.Choice, job.Level:
		list := []string{}
		for _, c := range f.Choices {
			list = append(list, c.Value)
		}
		return list[:min(len(list), mostValues)]
	case job.CableKey:
		list := []string{}
		for _, s := range cable.Shelf(cable.Metric)[3:] {
			list = append(list, s.Label)
		}
		return list
	case job.Number:
		base, err := f.Read(now, systemOf(doc, f))
		v, ok := base.(float64)
		if err != nil || !ok || v == 0 {
			v = (f.Min + f.Max) / 4
		}
		list := []string{}
		for _, share := range []float64{0.4, 0.6, 0.8, 1, 1.25, 1.6, 2} {
			if _, err := f.Read(v*share, systemOf(doc, f)); err == nil {
				list = append(list, unit.Plain(v*share, "", 2))
			}
		}
		return list
	}
	return nil
}

func systemOf(doc job.Document, f job.Field) float64 {
	if f.OnAux() && doc.Aux.Volts != nil {
		return *doc.Aux.Volts / 12
	}
	if doc.Vehicle.SystemVolts != nil {
		return *doc.Vehicle.SystemVolts / 12
	}
	return 1
}

// axis fills an axis in, and finds where on it the design stands.
func axis(name string, a Axis, doc job.Document, now map[string]string) (SweepAxis, []string, job.Problems) {
	f, ok := job.FieldAt(a.Path)
	refuse := func(value, wrong, allowed string) (SweepAxis, []string, job.Problems) {
		return SweepAxis{}, nil, job.Problems{{Field: name, Value: fmt.Sprintf("%q", value), Wrong: wrong, Allowed: allowed}}
	}
	if !ok || f.Kind == job.Text || f.Kind == job.Driving || f.Kind == job.LabelKey {
		return refuse(a.Path, "cannot be swept", "a field of a job that is a choice, a quantity or a cable")
	}
	values := a.Values
	if len(values) == 0 {
		values = steps(f, now[a.Path], doc)
	}
	if len(values) < 2 || len(values) > mostValues {
		return refuse(fmt.Sprint(len(values)), "values are too few or too many", fmt.Sprintf("2 to %d values", mostValues))
	}
	out := SweepAxis{Path: a.Path, Label: f.Label, Now: -1}
	for i, v := range values {
		read, err := f.Read(v, systemOf(doc, f))
		if err != nil {
			return refuse(v, err.Error(), f.Allowed(systemOf(doc, f)))
		}
		out.Values = append(out.Values, f.Show(read))
		if f.Show(read) == now[a.Path] {
			out.Now = i
		}
	}
	return out, values, nil
}

// current is every field as the plan takes it, as shown: answered, assumed or decided.
func current(d *design.Design) map[string]string {
	now := map[string]string{}
	for _, f := range d.Facts.List {
		now[f.Path] = f.Text
	}
	for _, c := range section.Columns(d, nil) {
		if c.Choice != nil {
			now[c.Choice.Path] = c.Choice.Now
		}
	}
	return now
}

// axes fills both axes of a sweep in.
func axes(d *design.Design, ask SweepRequest) (s Sweep, across, up []string, problems job.Problems) {
	now := current(d)
	var wrong job.Problems
	s.Across, across, problems = axis("across", ask.Across, d.Doc, now)
	s.Up, up, wrong = axis("up", ask.Up, d.Doc, now)
	problems = append(problems, wrong...)
	if ask.Across.Path == ask.Up.Path {
		problems = append(problems, job.Problem{Field: "up", Value: ask.Up.Path, Wrong: "is swept already", Allowed: "another field"})
	}
	return s, across, up, problems
}

// CheckSweep names what of a sweep cannot be done.
func CheckSweep(d *design.Design, ask SweepRequest) job.Problems {
	_, _, _, problems := axes(d, ask)
	return problems
}

// SweepOver runs a design for every pair of values of two fields.
func SweepOver(d *design.Design, ask SweepRequest, progress Progress) (Sweep, job.Problems) {
	s, acrossValues, upValues, problems := axes(d, ask)
	if len(problems) > 0 {
		return Sweep{}, problems
	}
	s.Cells, s.Aims = make([]SweepCell, len(acrossValues)*len(upValues)), len(Aims)
	s.Whole = many(len(s.Cells), progress, func(i int, halt func() bool) {
		changed, wrong := job.With(d.Doc, map[string]any{ask.Across.Path: acrossValues[i%len(acrossValues)],
			ask.Up.Path: upValues[i/len(acrossValues)]})
		if len(wrong) > 0 {
			return // each value was read before; together they may still not fit
		}
		o, err := once(d.With(changed), rig.Nominal, halt)
		if err != nil {
			return
		}
		s.Cells[i] = SweepCell{Outcome: o, Score: o.score(), Unmet: unmet(o), Done: true}
	})
	best := 0
	for _, c := range s.Cells {
		best = max(best, c.Score)
	}
	for i := range s.Cells {
		s.Cells[i].Best = s.Cells[i].Done && s.Cells[i].Score == best
	}
	return s, nil
}

func unmet(o Outcome) string {
	for _, m := range o.Judge() {
		if !m.Met {
			return m.Label
		}
	}
	return ""
}
