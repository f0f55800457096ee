package job

import (
	"cmp"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// bookSections are the answers that hold for every vehicle of a model: they go into the
// vehicle book.
var bookSections = []string{"vehicle.", "alternator.", "startBattery.chemistry", "startBattery.place", "startBattery.capacityAh", "routes.",
	"bays.", "feeds.", "points."}

// ofOneVehicle are answers within them that hold for one vehicle only.
var ofOneVehicle = []string{"vehicle.loadA", "alternator.count"}

// inBook says whether an answer goes into the vehicle book.
func inBook(path string) bool {
	return slices.ContainsFunc(bookSections, func(s string) bool { return strings.HasPrefix(path, s) }) && !slices.Contains(ofOneVehicle, path)
}

// Answer is an answer of the vehicle book.
type Answer struct {
	Path  string `json:"path"`
	Label string `json:"label"`
	Shown string `json:"shown"`
	Text  string `json:"text" doc:"As it is written in a file, and read again"`
	Known string `json:"known" doc:"How it is known; empty where nobody said"`
}

// BookAnswers are the answers of a document that go into the vehicle book, by path.
func (d Document) BookAnswers() []Answer {
	list := []Answer{}
	for path, value := range d.leaves() {
		f, ok := FieldAt(path)
		if !ok || !inBook(path) {
			continue
		}
		a := Answer{Path: path, Label: f.Label, Shown: f.Show(value), Text: fmt.Sprint(value), Known: d.Known[strings.ReplaceAll(path, ".", "/")]}
		if number, is := value.(float64); is {
			a.Text = strings.TrimSpace(strconv.FormatFloat(number, 'f', -1, 64) + " " + f.Unit)
		}
		list = append(list, a)
	}
	slices.SortFunc(list, func(a, b Answer) int { return cmp.Compare(a.Path, b.Path) })
	return list
}

// Put is the document with an answer of the vehicle book in it, as text, and how it is
// known. The problems name what cannot be used; then nothing is changed.
func (d Document) Put(path, text, known string) (Document, Problems) {
	if f, ok := FieldAt(path); !ok || !inBook(path) || f.Path == "known.*" {
		return d, Problems{{Field: path, Value: text, Wrong: "is not an answer of the vehicle book", Allowed: strings.Join(bookSections, ", ")}}
	}
	changes := map[string]any{path: text}
	if known != "" {
		changes[knownList+"."+strings.ReplaceAll(path, ".", "/")] = known
	}
	out, problems := With(d, changes)
	if len(problems) > 0 {
		return d, problems
	}
	return out, nil
}

// Without is a document with answers taken out; "*" takes out all.
func (d Document) Without(paths []string) Document {
	if slices.Contains(paths, "*") {
		return New()
	}
	changes := map[string]any{}
	for _, path := range paths {
		changes[path], changes[knownList+"."+strings.ReplaceAll(path, ".", "/")] = nil, nil
	}
	out, problems := With(d, changes)
	if len(problems) > 0 {
		return d
	}
	return out
}

// ForBook is what of a job goes into the vehicle book: answers that hold for every vehicle
// of its model. An answer that was only assumed does not.
func (d Document) ForBook() Document {
	changes := map[string]any{}
	for path, value := range d.leaves() {
		if inBook(path) && d.Known[strings.ReplaceAll(path, ".", "/")] != "assumed" {
			changes[path] = value
		}
	}
	out, problems := With(New(), changes)
	if len(problems) > 0 {
		panic(problems) // leaves of a checked document
	}
	return out
}

// Over is a document with another's answers over its own.
func (d Document) Over(newer Document) Document {
	var raw map[string]any
	if err := json.Unmarshal(newer.Encode(), &raw); err != nil {
		panic(err) // Encode wrote it
	}
	changes := map[string]any{}
	flatten("", raw, changes)
	delete(changes, "format")
	delete(changes, "version")
	out, problems := With(d, changes)
	if len(problems) > 0 {
		return d
	}
	return out
}
