package working

import (
	"fmt"
	"math"
	"strings"
)

// Symbol is one letter of a formula: what it stands for, its unit and how many
// decimals of it mean something.
type Symbol struct {
	Letter string
	Name   string
	Unit   string
	Digits int
}

// Formula is one equation of the trade. It is declared once, as text; that text
// is both what is evaluated and what is shown, so the two cannot drift apart.
type Formula struct {
	text   string
	result Symbol
	inputs []Symbol
	root   node
	source Source
}

// Declare reads an equation such as "A = L·I / (κ·ΔU)". The first symbol is the
// result; the others are the inputs in the order that Value and Work take them.
// It panics where the text does not parse or uses a letter that is not declared:
// formulas are declared in package variables, so that is a fault of the program.
func Declare(text string, source Source, result Symbol, inputs ...Symbol) *Formula {
	left, right, found := strings.Cut(text, "=")
	if !found || strings.TrimSpace(left) != result.Letter {
		panic(fmt.Sprintf("working: %q does not give %s", text, result.Letter))
	}
	letters := make(map[string]int, len(inputs))
	for i, in := range inputs {
		letters[in.Letter] = i
	}
	root, err := parse(right, letters)
	if err != nil {
		panic(fmt.Sprintf("working: %q: %v", text, err))
	}
	return &Formula{text: text, result: result, inputs: inputs, root: root, source: source}
}

// Value evaluates the formula without recording anything. values stand in the
// order of the declared inputs, in the declared units.
func (f *Formula) Value(values ...float64) float64 {
	if len(values) != len(f.inputs) {
		panic(fmt.Sprintf("working: %q takes %d values, not %d", f.text, len(f.inputs), len(values)))
	}
	return f.root.eval(values)
}

// Work evaluates the formula and keeps how: every input with its unit and where
// it came from, the equation, the equation with its numbers, and the result
// before and after rounding. It returns an error naming the formula where the
// result is not a finite number.
func (f *Formula) Work(inputs ...Input) (Figure, error) {
	values := make([]float64, len(inputs))
	named := make([]Input, len(inputs))
	for i, in := range inputs {
		values[i] = in.Value
		named[i] = in.as(f.inputs[i])
	}
	raw := f.Value(values...)
	if math.IsNaN(raw) || math.IsInf(raw, 0) {
		return Figure{}, fmt.Errorf("working: %s has no finite result with %s", f.text, f.root.fill(named))
	}
	fig := f.result.figure(raw)
	fig.Formula = f.text
	fig.Filled = f.root.fill(named)
	fig.Inputs = named
	fig.Source = f.source
	return fig, nil
}

// MustWork is Work for inputs that are known to be in range; it panics on a
// result that is not finite.
func (f *Formula) MustWork(inputs ...Input) Figure {
	fig, err := f.Work(inputs...)
	if err != nil {
		panic(err)
	}
	return fig
}
