package unit

import (
	"encoding/json"
	"math"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

var american = Units{Area: "awg", Length: "ft", Temperature: "F", Torque: "lbft"}

// Worked with NIST SP 811: 1 ft = 0.3048 m, 1 in = 25.4 mm, 1 N·m = 0.737562 lbf·ft, 1 kcmil = 0.506707 mm².
func TestSaidInAnotherSystem(t *testing.T) {
	for _, c := range []struct{ text, want string }{
		{"C1 is 2.3 m long.", "C1 is 7 ft 7 in long."},
		{"cut 2.35 m", "cut 7 ft 8½ in"},
		{"0.3 m bare", "12 in bare"},
		{"0.05 m", "2 in"},
		{"0.0 m", "0 in"},
		{"−0.02 m", "−¾ in"},
		{"3.66 m", "12 ft"},
		{"within 4 m", "within 13 ft"}, // round in one system, round in the other
		{"within 1 m", "within 3 ft 3 in"},
		{"a clamp every 300 mm", "a clamp every 12 in"},
		{"50 mm from the exhaust", "2 in from the exhaust"},
		{"a 32 mm hole", "a 1¼ in hole"},
		{"a 6.5 mm hole", "a 0.26 in hole"},
		{"bay 80 °C, cabin 35.5 °C", "bay 176 °F, cabin 95.9 °F"},
		{"−20 to 60 °C", "−4 to 140 °F"},
		{"between 5 and 30 °C", "between 41 and 86 °F"},
		{"2 to 3 m", "6 ft 7 in to 10 ft"},
		{"gets to 67 of 170 °C", "gets to 153 of 338 °F"},
		{"340 × 172 mm", "13½ × 6¾ in"},
		{"2 × 14.2 mm²", "2 × 28.0 kcmil"},
		{"1–2 mm", "0.04–0.08 in"},
		{"it rises by 20 K", "it rises by 36 °F"},
		{"M8, 8–10 N·m", "M8, 6–7.4 lb·ft"},
		{"about 12 N·m", "about 9 lb·ft"},
		{"25 N·m", "18 lb·ft"},
		{"needs 14.2 mm², gets 16 mm²", "needs 28.0 kcmil, gets 16 mm²"}, // a cable's name stays
		{"6 AWG (13.3 mm² copper)", "6 AWG (26.2 kcmil copper)"},
		{"(2.0 m)", "(6 ft 7 in)"},
		{"≤ 0.5 m: short", "≤ 20 in: short"},
		// What stays.
		{"8 mm auto", "8 mm auto"},
		{"58 m/(Ω·mm²), 5 mV/K, 20 °C/W", "58 m/(Ω·mm²), 5 mV/K, 20 °C/W"},
		{"1.5 mΩ and 30 mA", "1.5 mΩ and 30 mA"},
		{"F1 m, C2 mm", "F1 m, C2 mm"},
		{"12 metres, 3 min", "12 metres, 3 min"},
		{"2 m² of panel", "2 m² of panel"},
		{"", ""},
	} {
		require.Equal(t, c.want, american.Say(c.text), c.text)
		require.Equal(t, c.text, Metric.Say(c.text))
		require.Equal(t, c.text, Units{}.Say(c.text))
	}
	require.Equal(t, "2.3 m at 95 °F", Units{Temperature: "F"}.Say("2.3 m at 35 °C"), "each by itself")
}

func TestParseUnits(t *testing.T) {
	for text, want := range map[string]Units{
		"":              Metric,
		"awg,ft,F,lbft": american, "mm2 m C Nm": Metric,
		"ft, awg": {Area: "awg", Length: "ft", Temperature: "C", Torque: "Nm"}, "AUTO": {"auto", "m", "C", "Nm"},
	} {
		got, err := ParseUnits(text)
		require.NoError(t, err)
		require.Equal(t, want, got, text)
	}
	_, err := ParseUnits("awg,furlong")
	require.EqualError(t, err, `unit "furlong" is not known; allowed are mm2, awg, auto, m, ft, C, F, Nm, lbft, with commas between`)
}

// What is said in feet reads back as the length that it was, to the inch or quarter that it is said in.
func FuzzSay(f *testing.F) {
	for _, seed := range []string{
		"2.3 m", "−20 to 60 °C", "8–10 N·m", "a – b", "−", "1 to ",
		"between 1 and 2 m", "9.9.9 m", "\u00a0 5\u00a0m",
	} {
		f.Add(seed, 2.3)
	}
	f.Fuzz(func(t *testing.T, text string, metres float64) {
		said := american.Say(text)
		require.LessOrEqual(t, len(said), 12*len(text)+40)
		if math.Abs(metres) > 1e6 || math.IsNaN(metres) {
			return
		}
		plain := Text(metres, "m", 2)
		back, err := Length.Parse(strings.NewReplacer("¼", ".25", "½", ".5", "¾", ".75").Replace(american.Say(plain)))
		require.NoError(t, err, american.Say(plain))
		require.InDelta(t, metres, back, 0.005+0.0254/8+1e-9, american.Say(plain))
	})
}

func BenchmarkSay(b *testing.B) {
	text := strings.Repeat("C1 carries 30 A over 2.3 m of 16 mm² at 35 °C, and F1 clears 1.2 kA. ", 1000)
	b.SetBytes(int64(len(text)))
	for b.Loop() {
		american.Say(text)
	}
}

// The screen writes figures of its own in the same way.
func TestSaidAsOnTheScreen(t *testing.T) {
	data, err := os.ReadFile("../../testdata/units.json")
	require.NoError(t, err)
	var rows []struct {
		Value  float64 `json:"value"`
		Unit   string  `json:"unit"`
		Digits int     `json:"digits"`
		Units  string  `json:"units"`
		Said   string  `json:"said"`
	}
	require.NoError(t, json.Unmarshal(data, &rows))
	for _, row := range rows {
		units, err := ParseUnits(row.Units)
		require.NoError(t, err)
		require.Equal(t, row.Said, units.Say(Text(row.Value, row.Unit, row.Digits)))
	}
}
