// Package unit reads quantities the way people write them on a job sheet:
// "2.3 m", "6ft6", "95F", "1h30", "840 Wh". Inside the core everything is SI (and
// °C, Ah, hours and mm² where the trade uses nothing else).
package unit

import (
	"errors"
	"fmt"
	"math"
	"strings"
)

// Dimension is a kind of quantity: its base unit and the units it is written in.
type Dimension struct {
	Name    string // "length"
	Base    string // "m": what a bare number means
	Example string // how it may be written
	units   map[string]scale
	smaller map[string]string // "ft" → "in": what a bare second number means
}

// scale turns a written number into the base unit: value·factor + offset.
type scale struct{ factor, offset float64 }

// The dimensions of a job.
var (
	Length = Dimension{Name: "length", Base: "m", Example: "2.3 m, 230 cm, 6ft6, 78 in",
		units: map[string]scale{"m": {1, 0}, "cm": {0.01, 0}, "mm": {0.001, 0},
			"ft": {0.3048, 0}, "'": {0.3048, 0}, "in": {0.0254, 0}, `"`: {0.0254, 0}},
		smaller: map[string]string{"ft": "in", "'": "in", "m": "cm"}}
	Temperature = Dimension{Name: "temperature", Base: "°C", Example: "35 °C, 95F",
		units: map[string]scale{"c": {1, 0}, "°c": {1, 0}, "f": {5.0 / 9, -160.0 / 9}, "°f": {5.0 / 9, -160.0 / 9}, "k": {1, -273.15}}}
	Rise = Dimension{Name: "difference of temperature", Base: "K", Example: "8 K, 8 °C, 15 °F",
		units: map[string]scale{"k": {1, 0}, "c": {1, 0}, "°c": {1, 0}, "f": {5.0 / 9, 0}, "°f": {5.0 / 9, 0}}}
	Current = Dimension{Name: "current", Base: "A", Example: "12 A, 500 mA",
		units: map[string]scale{"a": {1, 0}, "amp": {1, 0}, "amps": {1, 0}, "ma": {0.001, 0}}}
	Voltage = Dimension{Name: "voltage", Base: "V", Example: "14.2 V, 200 mV",
		units: map[string]scale{"v": {1, 0}, "mv": {0.001, 0}}}
	Percent = Dimension{Name: "share", Base: "%", Example: "2 %",
		units: map[string]scale{"%": {1, 0}}}
	Hours = Dimension{Name: "time", Base: "h", Example: "2 h, 1h30, 90 min",
		units: map[string]scale{"h": {1, 0}, "hr": {1, 0}, "hrs": {1, 0}, "hour": {1, 0}, "hours": {1, 0},
			"min": {1.0 / 60, 0}, "mins": {1.0 / 60, 0}, "minutes": {1.0 / 60, 0}},
		smaller: map[string]string{"h": "min", "hr": "min"}}
	Days = Dimension{Name: "number of days", Base: "days", Example: "7 days",
		units: map[string]scale{"d": {1, 0}, "day": {1, 0}, "days": {1, 0}, "week": {7, 0}, "weeks": {7, 0}}}
	Power = Dimension{Name: "power", Base: "W", Example: "200 W, 1.2 kW",
		units: map[string]scale{"w": {1, 0}, "kw": {1000, 0}}}
	Millimetres = Dimension{Name: "length", Base: "mm", Example: "330 mm, 33 cm, 13 in",
		units: map[string]scale{"mm": {1, 0}, "cm": {10, 0}, "m": {1000, 0}, "in": {25.4, 0}, `"`: {25.4, 0}}}
	Mass = Dimension{Name: "weight", Base: "kg", Example: "28 kg, 62 lb",
		units: map[string]scale{"kg": {1, 0}, "g": {0.001, 0}, "lb": {0.45359237, 0}, "lbs": {0.45359237, 0}}}
	Count = Dimension{Name: "number", Base: "", Example: "2", units: map[string]scale{}}
	Years = Dimension{Name: "number of years", Base: "years", Example: "4 years",
		units: map[string]scale{"y": {1, 0}, "yr": {1, 0}, "year": {1, 0}, "years": {1, 0}}}
	Minutes = Dimension{Name: "time", Base: "min", Example: "5 min", units: map[string]scale{"min": {1, 0}, "mins": {1, 0}, "minutes": {1, 0},
		"s": {1.0 / 60, 0}, "h": {60, 0}}}
	Millivolts = Dimension{Name: "voltage", Base: "mV", Example: "60 mV, 0.06 V", units: map[string]scale{"mv": {1, 0}, "v": {1000, 0}}}
	Moments    = Dimension{Name: "time", Base: "s", Example: "10 s, 500 ms, 2 min",
		units: map[string]scale{"s": {1, 0}, "sec": {1, 0}, "ms": {0.001, 0}, "min": {60, 0}}}
	Milliohms = Dimension{Name: "resistance", Base: "mΩ", Example: "0.4 mΩ, 400 µΩ",
		units: map[string]scale{"mω": {1, 0}, "mohm": {1, 0}, "µω": {0.001, 0}, "uohm": {0.001, 0}, "ω": {1000, 0}, "ohm": {1000, 0}}}
	Ohms = Dimension{Name: "resistance", Base: "Ω", Example: "24 Ω, 2.2 kΩ",
		units: map[string]scale{"ω": {1, 0}, "ohm": {1, 0}, "ohms": {1, 0}, "kω": {1000, 0}, "kohm": {1000, 0}}}
	Area = Dimension{Name: "area", Base: "mm²", Example: "16 mm²",
		units: map[string]scale{"mm²": {1, 0}}}
)

// Charge is charge in Ah; energy is taken at the system's nominal voltage.
func Charge(nominalVolts float64) Dimension {
	return Dimension{Name: "charge", Base: "Ah", Example: "70 Ah, 840 Wh",
		units: map[string]scale{"ah": {1, 0}, "mah": {0.001, 0},
			"wh": {1 / nominalVolts, 0}, "kwh": {1000 / nominalVolts, 0}}}
}

// Error is text that is not a quantity of the wanted dimension.
type Error struct {
	Text string
	Dim  Dimension
}

func (e *Error) Error() string {
	return fmt.Sprintf("%q %s", e.Text, e.Wrong())
}

// Wrong says what is wrong, without the text itself.
func (e *Error) Wrong() string {
	return fmt.Sprintf("is not a %s; write it like %s", e.Dim.Name, e.Dim.Example)
}

// longest keeps hostile text from costing anything.
const longest = 40

// Parse reads text as a quantity of dimension d, in its base unit. Numbers are read as Number
// does. A second number counts in the next smaller unit
// ("6ft6", "1h30"). The result is always finite.
func (d Dimension) Parse(text string) (float64, error) {
	refuse := &Error{Text: clip(text), Dim: d}
	rest := ungroup(squared.Replace(strings.ToLower(strings.TrimSpace(text))))
	if rest == "" || len(rest) > longest {
		return 0, refuse
	}
	total, previous := 0.0, ""
	for first := true; rest != ""; first = false {
		var number, name string
		number, rest = cut(rest, isNumeric)
		name, rest = cut(strings.TrimLeft(rest, " \u00a0"), isUnit)
		rest = strings.TrimLeft(rest, " \u00a0")
		value, err := Number(number)
		var unclear *Unclear
		if errors.As(err, &unclear) {
			return 0, unclear
		}
		if err != nil || (!first && value < 0) {
			return 0, refuse
		}
		s, ok := d.scaleOf(name, previous, first)
		if !ok || (!first && s.offset != 0) {
			return 0, refuse
		}
		part := value*s.factor + s.offset
		if total < 0 || (!first && math.Signbit(total)) {
			part = -part
		}
		total += part
		if name == "" {
			name = d.smaller[previous]
		}
		previous = name
	}
	if math.IsNaN(total) || math.IsInf(total, 0) {
		return 0, refuse
	}
	return total, nil
}

// scaleOf finds a unit. A bare first number is in the base unit; a second
// quantity must be in a unit that goes with the first.
func (d Dimension) scaleOf(name, previous string, first bool) (scale, bool) {
	if first {
		if name == "" {
			return scale{1, 0}, true
		}
		s, ok := d.units[name]
		return s, ok
	}
	next, ok := d.smaller[previous]
	if !ok {
		return scale{}, false
	}
	if name != "" && d.units[name] != d.units[next] {
		return scale{}, false
	}
	return d.units[next], true
}

func cut(s string, of func(rune) bool) (taken, rest string) {
	for i, r := range s {
		if !of(r) {
			return s[:i], s[i:]
		}
	}
	return s, ""
}

func isNumeric(r rune) bool {
	return r >= '0' && r <= '9' || r == '.' || r == ',' || r == '-' || r == '+' || r == '−'
}

func isUnit(r rune) bool {
	return r >= 'a' && r <= 'z' || strings.ContainsRune(`°%'"²ωµ`, r)
}

// squared writes the ways to type mm² as one, and the two letters that stand for a millionth.
var squared = strings.NewReplacer("mm2", "mm²", "mm^2", "mm²", "sqmm", "mm²", "sq mm", "mm²", "μ", "µ")

func clip(s string) string {
	if len(s) <= longest {
		return s
	}
	return strings.ToValidUTF8(s[:longest], "") + "…"
}
