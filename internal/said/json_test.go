package said_test

import (
	"encoding/json"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/unit"
	"epitrope/internal/jobtest"
	"epitrope/internal/said"
	"epitrope/testdata"
)

var american = unit.Units{Area: "awg", Length: "ft", Temperature: "F", Torque: "lbft"}

func TestOnlyWordsChange(t *testing.T) {
	answer := `{"a": {"text":"2.0 m long", "lengthM": 2.0, "value":"2 m", "nested":[ "35 °C","x \"1 m\"", {"title":"Box 2 m"} ] },
		"document":{"remarks":"4 m"}, "filled":"2 m · 3", "n":-1.5e3, "t":true, "z":null, "e":[], "o":{}, "2 m":"5 N·m"}`
	want := `{"a":{"text":"6 ft 7 in long","lengthM":2.0,"value":"2 m","nested":["95 °F","x \"3 ft 3 in\"",{"title":"Box 2 m"}]},
		"document":{"remarks":"4 m"},"filled":"2 m · 3","n":-1.5e3,"t":true,"z":null,"e":[],"o":{},"2 m":"3.7 lb·ft"}`
	assert.JSONEq(t, want, string(said.JSON([]byte(answer), american, "title")))
	assert.Equal(t, answer, string(said.JSON([]byte(answer), unit.Metric)))
}

// metric is a quantity that nobody reads in feet who reads in feet.
var metric = regexp.MustCompile(`\d (m|°C|N·m)([ ,.;:)]|$)`)

// Every plan of ours says the same in other units: each figure, each choice and each thing to be sent back stays, and no
// word is left in metres or °C.
func TestPlansInOtherUnits(t *testing.T) {
	documents, err := testdata.Documents()
	require.NoError(t, err)
	changed := 0
	for name, document := range documents {
		encoded, err := json.Marshal(plan.Decide(jobtest.Document(t, string(document)), parts.Stock()))
		require.NoError(t, err)
		var before, after any
		require.NoError(t, json.Unmarshal(encoded, &before))
		require.NoError(t, json.Unmarshal(said.JSON(encoded, american), &after))
		walk(before, after, "", func(key string, a, b any) {
			text, isText := b.(string)
			if a != b {
				changed++
				assert.True(t, isText, "%s: %s: %v is %v", name, key, a, b)
			} else if isText && key != "filled" && key != "formula" && key != "inputs" {
				assert.NotRegexp(t, metric, text, "%s: %s", name, key)
			}
		})
	}
	assert.Positive(t, changed)
}

// walk visits what two answers of one form hold, by the member that it stands in; what is an input to a formula is
// its formula's.
func walk(a, b any, key string, visit func(key string, a, b any)) {
	switch a := a.(type) {
	case map[string]any:
		for k := range a {
			inside := k
			if key == "inputs" {
				inside = key
			}
			walk(a[k], b.(map[string]any)[k], inside, visit)
		}
	case []any:
		for i := range a {
			walk(a[i], b.([]any)[i], key, visit)
		}
	default:
		visit(key, a, b)
	}
}

func TestRows(t *testing.T) {
	rows := [][]string{{"wire", "cut m", "conduit mm", "count", "unit", "price", "what"},
		{"C1", "2.35", "10", "5.6", "m", "3.1", "in 0.3 m of sleeve"}, {"C2", "", "0", "2", "", "1", "M8, 5 mm"}}
	assert.Equal(t, [][]string{{"wire", "cut ft", "conduit in", "count", "unit", "price", "what"},
		{"C1", "7.71", "0.39", "18.37", "ft", "0.9449", "in 12 in of sleeve"}, {"C2", "", "0", "2", "", "1", "M8, 0.20 in"}},
		said.Rows(rows, unit.Units{Length: "ft"}))
}

// Any answer stays an answer of the same form.
func FuzzJSON(f *testing.F) {
	for _, seed := range []string{`{"a":"2 m"}`, `[1,"x\\" 3 m",{"b":[]}]`, `"5 °C"`, `{"title":{"a":"1 m"}}`, ` { } `, `null`, `[}`,
		`{]`, `8E808`} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, answer []byte) {
		got := said.JSON(answer, american)
		if !json.Valid(answer) {
			return
		}
		require.True(t, json.Valid(got), "%s", got)
	})
}
