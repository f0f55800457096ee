package working_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/working"
)

var volts = working.Symbol{Letter: "ΔU", Name: "voltage lost", Unit: "V", Digits: 2}

func sym(letter string) working.Symbol {
	return working.Symbol{Letter: letter, Name: letter, Digits: 3}
}

func ExampleFormula_Work() {
	drop := working.Declare("ΔU = I·R", "physics: Ohm's law", volts,
		working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
		working.Symbol{Letter: "R", Name: "resistance", Unit: "Ω", Digits: 4})
	fig := drop.MustWork(
		working.From(60, working.Surveyed, "clamp reading"),
		working.From(0.010, working.Practice, "a bad lug"))
	fmt.Println(fig.Formula, "=", fig.Filled, "=", fig.Text)
	// Output: ΔU = I·R = 60.0 A · 0.0100 Ω = 0.60 V
}

func TestFormulaEvaluatesItsOwnText(t *testing.T) {
	cases := []struct {
		text string
		in   []float64
		want float64
	}{
		{"y = a + b·c", []float64{1, 2, 3}, 7},
		{"y = (a + b)·c", []float64{1, 2, 3}, 9},
		{"y = a − b − c", []float64{9, 2, 3}, 4},
		{"y = a / b / c", []float64{12, 2, 3}, 2},
		{"y = a^b^c", []float64{2, 3, 2}, 512},
		{"y = −a^b + c", []float64{2, 2, 1}, -3},
		{"y = √(a·b) + ln(c)", []float64{2, 8, math.E}, 5},
		{"y = min(a, b) + max(b, c)", []float64{1, 2, 3}, 4},
		{"y = 0.5·a + 0·b + 0·c", []float64{3, 1, 1}, 1.5},
	}
	for _, c := range cases {
		f := working.Declare(c.text, "", sym("y"), sym("a"), sym("b"), sym("c"))
		assert.InDelta(t, c.want, f.Value(c.in...), 1e-12, c.text)
	}
}

func TestDeclareRefusesWhatItCannotRead(t *testing.T) {
	for _, text := range []string{"y", "x = a", "y = ", "y = a +", "y = (a", "y = q", "y = min(a)", "y = a $ a", "y = a a", "y = 1.2.3"} {
		assert.Panics(t, func() { working.Declare(text, "", sym("y"), sym("a")) }, text)
	}
}

func TestWorkRefusesWhatIsNotFinite(t *testing.T) {
	f := working.Declare("y = 1 / a", "", sym("y"), sym("a"))
	_, err := f.Work(working.Is(0, "nothing"))
	require.ErrorContains(t, err, "y = 1 / a")
}

func TestRoundingIsStated(t *testing.T) {
	fig := working.Given(volts, 1.23456789012345, working.Assumed, "a default")
	assert.Equal(t, 1.23, fig.Value)
	assert.Equal(t, 1.23456789, fig.Unrounded)
}

func FuzzDeclare(f *testing.F) {
	for _, s := range []string{"a + b", "√(a)/(b−1)", "((((a))))", "a^−b", "min(a, b"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		var formula *working.Formula
		func() {
			defer func() { _ = recover() }()
			formula = working.Declare("y = "+text, "", sym("y"), sym("a"), sym("b"))
		}()
		if formula == nil {
			return
		}
		if fig, err := formula.Work(working.Is(2, ""), working.Is(3, "")); err == nil {
			assert.False(t, math.IsNaN(fig.Value) || math.IsInf(fig.Value, 0))
		}
	})
}
