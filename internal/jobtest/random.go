// Package jobtest draws jobs at random, from the whole range that validation lets through.
package jobtest

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"strconv"
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/job"
)

// Random is the document of a job, as JSON, drawn from the table of fields: any of them may
// be answered, with anything that it takes, its limits more often than chance would have
// it. Few answers make a job as common as many.
func Random(r *rand.Rand) []byte {
	answered := 0.02 + 0.6*r.Float64()*r.Float64()
	doc := map[string]any{}
	n := 1.0
	if r.IntN(5) == 0 {
		n = 2
		put(doc, "vehicle.systemVolts", 24)
	}
	rows := map[string][]string{}
	for _, f := range job.Fields {
		list, _, isRow := strings.Cut(f.Path, ".*")
		if !isRow {
			if f.Path != "vehicle.systemVolts" && r.Float64() < answered {
				put(doc, f.Path, value(r, f, n))
			}
			continue
		}
		if _, drawn := rows[list]; !drawn {
			rows[list] = names(r, list)
		}
		for _, name := range rows[list] {
			if r.Float64() < 0.7 {
				put(doc, strings.Replace(f.Path, "*", name, 1), value(r, f, n))
			}
		}
	}
	data, err := json.Marshal(doc)
	if err != nil {
		panic(err) // it is made of strings and finite numbers
	}
	return data
}

// names are those of the rows of a list.
func names(r *rand.Rand, list string) []string {
	switch list {
	case "known":
		return []string{"alternator/label", "aux/chemistry"}[:r.IntN(3)]
	case "joints":
		return []string{"c1to", "c2from", "n1to", "c1afrom"}[:r.IntN(5)]
	case "built":
		at := r.IntN(len(job.BuiltPaths))
		return []string{strings.ReplaceAll(job.BuiltPaths[at], ".", "/")}[:r.IntN(2)]
	}
	all := []string{}
	for i := range r.IntN(4) * r.IntN(2) {
		all = append(all, fmt.Sprintf("r%d", i))
	}
	return all
}

func put(doc map[string]any, path string, v any) {
	keys := strings.Split(path, ".")
	for _, key := range keys[:len(keys)-1] {
		next, ok := doc[key].(map[string]any)
		if !ok {
			next = map[string]any{}
			doc[key] = next
		}
		doc = next
	}
	doc[keys[len(keys)-1]] = v
}

// cables are names of cables of all systems.
var cables = []string{"1.5 mm2", "4 mm2", "6 mm2", "10 mm2", "16 mm2", "25 mm2", "35 mm2", "50 mm2", "70 mm2", "120 mm2", "2 x 10 mm2",
	"16 AWG", "8 AWG", "4 AWG", "2/0 AWG", "6 mm auto", "8 mm auto"}

// drives are driving written out.
var drives = []string{"crank 2 s, highway 2 h, park 10 h", "park 3 h, crank 2 s, town 20 min, park 1 h", "crank 4 s, idle 1 h, park 20 h",
	"park 6 h air -8 C load 10 A"}

func value(r *rand.Rand, f job.Field, n float64) any {
	switch f.Kind {
	case job.Choice:
		return f.Choices[r.IntN(len(f.Choices))].Value
	case job.Level:
		v, err := strconv.ParseFloat(f.Choices[r.IntN(len(f.Choices))].Value, 64)
		if err != nil {
			panic(f.Path + ": a level that is no number")
		}
		return v
	case job.CableKey:
		return cables[r.IntN(len(cables))]
	case job.LabelKey:
		return label(r)
	case job.Driving:
		return drives[r.IntN(len(drives))]
	case job.Resting:
		low := 8 + 5*r.Float64()
		return fmt.Sprintf("0 %% %.2f, %.0f %% %.2f, 100 %% %.2f", low, 1+98*r.Float64(), low+1*r.Float64(), low+1+2.5*r.Float64())
	case job.Date:
		return fmt.Sprintf("20%02d-%02d-%02d", 20+r.IntN(30), 1+r.IntN(12), 1+r.IntN(28))
	case job.Currency:
		return []string{"EUR", "AUD", ""}[r.IntN(3)]
	case job.Text:
		words := []string{"", "x", "a seat, left", "“quoted” & <b>", "r0", "日本", strings.Repeat("w", int(min(f.Max, 60)))}
		word := []rune(words[r.IntN(len(words))])
		return string(word[:min(len(word), int(f.Max))])
	}
	return number(r, f, n)
}

func label(r *rand.Rand) string {
	rated := alternator.MinRatedA + r.IntN(alternator.MaxRatedA-alternator.MinRatedA+1)
	if r.IntN(2) == 0 {
		return fmt.Sprintf("%d A", rated)
	}
	return fmt.Sprintf("%d/%d A", max(5, rated/2), rated)
}

// number is a quantity within its limits: at one of them, spread evenly, or as often small
// as large.
func number(r *rand.Rand, f job.Field, n float64) float64 {
	low, high := f.Min, f.Max
	if f.PerSystem {
		low, high = low*n, high*n
	}
	v := low + (high-low)*r.Float64()
	switch r.IntN(6) {
	case 0:
		v = low
	case 1:
		v = high
	case 2, 3:
		if least := math.Max(low, high/1e4); least > 0 {
			v = least * math.Pow(high/least, r.Float64())
		}
	}
	// To the digits that the document keeps, without leaving the limits.
	return math.Min(high, math.Max(low, math.Round(v*1e4)/1e4))
}
