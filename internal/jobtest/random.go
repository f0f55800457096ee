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
	"epitrope/core/cable"
	"epitrope/core/day"
	"epitrope/core/job"
)

// Random is the document of a job, as JSON, drawn from the table of fields: any of them may
// be answered, with anything that it takes, its limits more often than chance would have
// it. Few answers make a job as common as many.
func Random(r *rand.Rand) []byte {
	answered := 0.02 + 0.6*r.Float64()*r.Float64()
	doc := map[string]any{"format": job.Format, "version": job.Version}
	n := 1.0
	if r.IntN(5) == 0 {
		n = 2
		put(doc, "vehicle.systemVolts", 24)
	}
	auxN := n
	if r.IntN(12) == 0 {
		auxN = 3 - n
		put(doc, "aux.volts", 12*auxN)
	}
	side := func(f job.Field) float64 {
		if f.OnAux() {
			return auxN
		}
		return n
	}
	rows := map[string][]string{}
	for _, f := range job.Fields {
		list, _, isRow := strings.Cut(f.Path, ".*")
		if f.Path == "plate" {
			continue // see below
		}
		if !isRow {
			if f.Path != "vehicle.systemVolts" && f.Path != "aux.volts" && r.Float64() < answered {
				put(doc, f.Path, value(r, f, side(f)))
			}
			continue
		}
		if _, drawn := rows[list]; !drawn {
			rows[list] = names(r, list)
		}
		for _, name := range rows[list] {
			if r.Float64() < 0.7 {
				put(doc, strings.Replace(f.Path, "*", name, 1), value(r, f, side(f)))
			}
		}
	}
	if len(doc)%2 == 0 {
		// Nothing follows from a plate: it is not drawn from r, so that what else is drawn does not hang on it.
		put(doc, "plate", fmt.Sprintf("PL %d", len(doc)))
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
		all := []string{}
		for range r.IntN(4) {
			if f := job.Fields[r.IntN(len(job.Fields))]; !strings.Contains(f.Path, "*") {
				all = append(all, strings.ReplaceAll(f.Path, ".", "/"))
			}
		}
		return all
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

// cables are the names of all cables of all systems, some of them side by side.
var cables = everyCable()

func everyCable() []string {
	names := []string{}
	for _, f := range job.Fields {
		if f.Path != "cable.system" {
			continue
		}
		for _, c := range f.Choices {
			for _, s := range cable.Shelf(cable.System(c.Value)) {
				names = append(names, s.Label, "2 x "+s.Label)
			}
		}
	}
	return names
}

// driving is driving written out: up to thirty pieces of any kind and length, in any air, with any use.
func driving(r *rand.Rand) string {
	pieces := []string{"park 6 h"}
	for range r.IntN(30) {
		piece := fmt.Sprintf("%s %.0f s", driven[r.IntN(len(driven))], math.Pow(10, 4*r.Float64()))
		if r.IntN(6) == 0 {
			piece += fmt.Sprintf(" air %.0f C", -40+100*r.Float64())
		}
		if r.IntN(6) == 0 {
			piece += fmt.Sprintf(" load %.0f A", 400*r.Float64()*r.Float64())
		}
		if r.IntN(6) == 0 {
			piece += fmt.Sprintf(" sun %.0f %%", 100*r.Float64())
		}
		pieces = append(pieces, piece)
	}
	return strings.Join(pieces, ", ")
}

var driven = []day.Kind{day.Park, day.Crank, day.Idle, day.Town, day.Highway, day.LiftOff, day.Joined, day.Assist, day.Key}

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
	case job.Cables:
		names := make([]string, r.IntN(7))
		for i := range names {
			names[i] = strings.TrimPrefix(cables[r.IntN(len(cables))], "2 x ")
		}
		return strings.Join(names, ", ")
	case job.LabelKey:
		return label(r)
	case job.Driving:
		return driving(r)
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
