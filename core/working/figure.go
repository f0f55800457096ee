// Package working keeps how every figure came about.
//
// A Figure is a number with its unit, its precision and its working: the formula
// in the trade's notation, the same formula with its numbers, what went in and
// where each of those came from. A Formula is declared once as text and is both
// evaluated and shown from that text.
package working

import (
	"epitrope/core/unit"
	"strconv"
)

// Origin says where a number came from.
type Origin string

// The origins a number can have.
const (
	Surveyed Origin = "surveyed" // answered in the job
	Assumed  Origin = "assumed"  // not answered: a stated default
	Pinned   Origin = "pinned"   // decided by the designer
	Part     Origin = "part"     // from a device card or a reel
	Standard Origin = "standard" // a published standard
	Practice Origin = "practice" // common practice, no source
	Memory   Origin = "memory"   // a standard or handbook, quoted from memory
	Computed Origin = "computed" // another figure
	Physics  Origin = "physics"  // follows from a formula
)

// Source is where a formula or a table comes from, in words: a standard's
// number, "physics: Ohm's law", "common practice, no source", "from memory: …".
type Source string

// Input is a number that goes into a formula.
type Input struct {
	Letter string  `json:"letter"`
	Name   string  `json:"name"`
	Value  float64 `json:"value"`
	Unit   string  `json:"unit"`
	Text   string  `json:"text" doc:"Value with its unit, as shown"`
	Origin Origin  `json:"origin" enum:"surveyed,assumed,pinned,part,standard,practice,memory,computed"`
	Why    string  `json:"why,omitempty" doc:"Source or reason of the value"`
}

// Figure is a number with its working.
type Figure struct {
	Name      string  `json:"name"`
	Value     float64 `json:"value" doc:"Rounded to its stated precision"`
	Unit      string  `json:"unit"`
	Text      string  `json:"text" doc:"Value with its unit, as shown"`
	Unrounded float64 `json:"unrounded" doc:"The result before rounding, to nine significant figures"`
	Formula   string  `json:"formula,omitempty"`
	Filled    string  `json:"filled,omitempty" doc:"The formula's right-hand side with its numbers"`
	Inputs    []Input `json:"inputs"`
	Source    Source  `json:"source,omitempty"`
	DecidedBy string  `json:"decidedBy,omitempty" doc:"What settled the figure, in words"`
	State     string  `json:"state,omitempty" doc:"The state of the vehicle it holds for"`
}

// Figures are figures by their keys.
type Figures map[string]Figure

// Keys are those of the wanted keys under which there is a figure.
func (f Figures) Keys(wanted ...string) []string {
	have := []string{}
	for _, k := range wanted {
		if _, ok := f[k]; ok {
			have = append(have, k)
		}
	}
	return have
}

// From is an input with a stated origin and reason.
func From(value float64, origin Origin, why string) Input {
	return Input{Value: value, Origin: origin, Why: why}
}

// Of is an input that is itself a computed figure.
func Of(fig Figure) Input {
	return Input{Value: fig.Unrounded, Origin: Computed, Why: fig.Name}
}

// Is is an input computed elsewhere, with what it is in words.
func Is(value float64, what string) Input {
	return Input{Value: value, Origin: Computed, Why: what}
}

// as gives an input the letter, name and unit that a formula declares for it.
func (in Input) as(s Symbol) Input {
	in.Letter, in.Name, in.Unit = s.Letter, s.Name, s.Unit
	in.Value = significant(in.Value)
	in.Text = unit.Text(in.Value, s.Unit, s.Digits)
	return in
}

func (s Symbol) figure(raw float64) Figure {
	return Figure{
		Name: s.Name, Value: unit.Round(raw, s.Digits), Unit: s.Unit,
		Text: unit.Text(raw, s.Unit, s.Digits), Unrounded: significant(raw), Inputs: []Input{},
	}
}

// Given is a figure that no formula made: it was surveyed, pinned, assumed or
// read from a table.
func Given(s Symbol, value float64, origin Origin, why string) Figure {
	fig := s.figure(value)
	fig.Inputs = []Input{From(value, origin, why).as(s)}
	fig.DecidedBy = why
	return fig
}

// Decided is the figure with the words for what settled it.
func (f Figure) Decided(by string) Figure {
	f.DecidedBy = by
	return f
}

// Named is the figure under another name, where one formula serves several things.
func (f Figure) Named(name string) Figure {
	f.Name = name
	return f
}

// In is the figure with the state it holds for.
func (f Figure) In(state string) Figure {
	f.State = state
	return f
}

// significant keeps nine figures, so that the last bits of a float, which differ
// between machines, never reach a document.
func significant(v float64) float64 {
	r, _ := strconv.ParseFloat(strconv.FormatFloat(v, 'g', 9, 64), 64)
	return r
}
