package workshop

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/internal/table"
)

// Model is what the vehicle book knows of a model.
type Model struct {
	Name     string
	Document job.Document
}

// VehiclesFile is what a file of the vehicle book came to.
type VehiclesFile struct {
	Models   []Model
	Answers  int // that can be used
	Problems []LineProblem
	Rest     string
}

// vehicleHeads are the columns of the vehicle book. What an answer means is for the eye: it
// is not read.
var vehicleHeads = []string{"model", "answer to", "meaning", "answer", "known by"}

// mostModel is how long a model's name may be.
const mostModel = 120

// ReadVehicles reads a file of answers by model, one a line. A line is used whole or not at
// all. The error is for a file of which nothing can be read.
func ReadVehicles(data []byte) (VehiclesFile, error) {
	var out VehiclesFile
	if !utf8.Valid(data) {
		return out, errors.New("the file is not UTF-8 text")
	}
	heads, lines, err := table.Lines(data, MostLines)
	if err != nil {
		return out, err
	}
	at := map[string]int{}
	for i, head := range heads.Cells {
		name := strings.ToLower(strings.TrimSpace(head))
		if name == "" {
			continue
		}
		if !slices.Contains(vehicleHeads, name) {
			return out, fmt.Errorf("line %d: head %q is not a column of vehicles; allowed: %s", heads.Number, short(head),
				strings.Join(vehicleHeads, ", "))
		}
		if _, twice := at[name]; twice {
			return out, fmt.Errorf("line %d: head %q stands twice", heads.Number, short(head))
		}
		at[name] = i
	}
	for _, needed := range []string{"model", "answer to", "answer"} {
		if _, ok := at[needed]; !ok {
			return out, fmt.Errorf("line %d: there is no head %q; needed are model, answer to, answer", heads.Number, needed)
		}
	}
	cell := func(line table.Line, head string) string {
		i, ok := at[head]
		if !ok || i >= len(line.Cells) {
			return ""
		}
		return strings.TrimSpace(table.Plain(line.Cells[i]))
	}
	// Limits depend on the system's voltage: it is read before everything else.
	first := func(line table.Line) int {
		if cell(line, "answer to") == "vehicle.systemVolts" {
			return 0
		}
		return 1
	}
	slices.SortStableFunc(lines, func(a, b table.Line) int { return first(a) - first(b) })
	var rest []table.Line
	for _, line := range lines {
		if problem := out.take(line.Number, cell(line, "model"), cell(line, "answer to"), cell(line, "answer"),
			cell(line, "known by")); problem != nil {
			out.Problems = append(out.Problems, *problem)
			rest = append(rest, line)
		}
	}
	slices.SortStableFunc(rest, func(a, b table.Line) int { return a.Number - b.Number })
	slices.SortStableFunc(out.Problems, func(a, b LineProblem) int { return a.Line - b.Line })
	if len(rest) > 0 {
		out.Rest = heads.Raw + "\n"
		for _, line := range rest {
			out.Rest += line.Raw + "\n"
		}
	}
	return out, nil
}

// take puts one answer in, or says what is wrong with it.
func (f *VehiclesFile) take(number int, model, path, text, known string) *LineProblem {
	name := strings.Join(strings.Fields(model), " ")
	switch {
	case name == "":
		return &LineProblem{number, "model", "", "is missing", "what the workshop calls it"}
	case len([]rune(name)) > mostModel:
		return &LineProblem{number, "model", short(name), "is too long", fmt.Sprintf("up to %d characters", mostModel)}
	case strings.ContainsFunc(name, unit.Unwritable):
		return &LineProblem{number, "model", short(name), "holds characters that no page shows as they are", "text"}
	case text == "":
		return &LineProblem{number, "answer", "", "is missing", "a line for each answer that there is"}
	}
	at := slices.IndexFunc(f.Models, func(m Model) bool { return strings.EqualFold(m.Name, name) })
	if at < 0 {
		doc := job.New()
		doc.Vehicle.Model = name
		f.Models, at = append(f.Models, Model{name, doc}), len(f.Models)
	}
	doc, problems := f.Models[at].Document.Put(path, text, known)
	if len(problems) > 0 {
		p := problems[0]
		if len(f.Models[at].Document.BookAnswers()) <= 1 { // nothing but its name yet
			f.Models = slices.Delete(f.Models, at, at+1)
		}
		value := text
		if p.Field != path {
			value = known
		}
		return &LineProblem{number, short(p.Field), short(value), p.Wrong, p.Allowed}
	}
	f.Models[at].Document = doc
	f.Answers++
	return nil
}

// WriteVehicles writes the vehicle book as a file that ReadVehicles reads.
func WriteVehicles(models []Model) []byte {
	rows := [][]string{vehicleHeads}
	for _, m := range models {
		for _, a := range m.Document.BookAnswers() {
			if a.Path != "vehicle.model" {
				rows = append(rows, []string{m.Name, a.Path, a.Label, a.Text, a.Known})
			}
		}
	}
	return table.Write(rows...)
}
