package job

import (
	"encoding/json"
	"errors"
	"fmt"
	"sort"
	"strconv"
	"strings"

	"epitrope/core/day"
	"epitrope/core/unit"
)

// MaxBytes is the largest document that is read.
const MaxBytes = 256 << 10

// Problem is something in a document that cannot be used.
type Problem struct {
	Field   string `json:"field" doc:"Path of the field; empty where the whole document is meant"`
	Value   string `json:"value" doc:"What was given"`
	Wrong   string `json:"wrong" doc:"What is wrong with it"`
	Allowed string `json:"allowed" doc:"What is allowed"`
}

func (p Problem) String() string {
	where := p.Field
	if where == "" {
		where = "document"
	}
	if p.Value != "" {
		where += ": " + p.Value
	}
	return fmt.Sprintf("%s %s (allowed: %s)", where, p.Wrong, p.Allowed)
}

// Problems are all that is wrong with a document, in the order of their fields.
type Problems []Problem

func (p Problems) Error() string {
	lines := make([]string, len(p))
	for i, one := range p {
		lines[i] = one.String()
	}
	return strings.Join(lines, "\n")
}

// Decode reads a document. What can be used is in the document even where there
// are problems; each problem names its field, the value and what is allowed. A
// quantity may be a number in the field's unit or text with any unit ("12 ft 6").
func Decode(data []byte) (Document, Problems) {
	if len(data) > MaxBytes {
		return New(), Problems{{Wrong: fmt.Sprintf("has %d bytes", len(data)), Allowed: fmt.Sprintf("up to %d bytes", MaxBytes)}}
	}
	if wrong := encoding(data); wrong != "" {
		return New(), Problems{{Wrong: wrong, Allowed: "UTF-8 text"}}
	}
	raw, err := object(data)
	var broken *rawProblem
	if errors.As(err, &broken) {
		return New(), Problems{{Field: broken.path, Wrong: broken.wrong, Allowed: "one JSON object, each of its keys once"}}
	}
	return decode(raw)
}

// Open reads a document that comes from elsewhere, to be kept or worked on: unlike Decode it wants to be told of
// which format and version it is.
func Open(data []byte) (Document, Problems) {
	doc, problems := Decode(data)
	var says struct{ Format, Version any }
	if err := json.Unmarshal(data, &says); err != nil {
		return doc, problems // Decode said so
	}
	if says.Version == nil {
		problems = append(problems, Problem{Field: "version", Wrong: "is missing", Allowed: versions})
	}
	if says.Format == nil {
		problems = append(problems, Problem{Field: "format", Wrong: "is missing", Allowed: Format})
	}
	return doc, problems
}

// decode reads a document that is apart already.
func decode(raw map[string]any) (Document, Problems) {
	r := reader{clean: map[string]any{"format": Format, "version": Version}, n: 1, auxN: 1}
	if !r.header(raw) {
		return New(), r.problems
	}
	r.system(raw)
	r.walk("", raw)
	r.together()
	sort.SliceStable(r.problems, func(i, j int) bool { return r.problems[i].Field < r.problems[j].Field })
	return r.document(), r.problems
}

// versions are those that this build reads.
const versions = "1"

// reader takes a raw document apart, field by field.
type reader struct {
	clean    map[string]any
	problems Problems
	n        float64 // system voltage / 12 V
	auxN     float64 // … and that of the aux side
}

func (r *reader) header(raw map[string]any) bool {
	if format, given := raw["format"]; given && format != Format {
		r.problem("format", format, "is another format", Format)
		return false
	}
	version, given := raw["version"]
	if !given {
		return true
	}
	number, err := strconv.Atoi(fmt.Sprint(version))
	switch {
	case err != nil || number < 1:
		r.problem("version", version, "is not a version", versions)
	case number > Version:
		r.problem("version", version, "is newer than this build reads", versions+"; open it with a newer build")
	default:
		return true
	}
	return false
}

// system reads the system voltage first, as other limits grow with it.
func (r *reader) system(raw map[string]any) {
	vehicle, _ := raw["vehicle"].(map[string]any)
	volts, given := vehicle["systemVolts"]
	if f, _ := FieldAt("vehicle.systemVolts"); given {
		if v, err := f.Read(volts, 1); err == nil && v == 24.0 {
			r.n = 2
		}
	}
	r.auxN = r.n
	aux, _ := raw["aux"].(map[string]any)
	if own, given := aux["volts"]; given {
		f, _ := FieldAt("aux.volts")
		if v, err := f.Read(own, 1); err == nil {
			r.auxN = v.(float64) / 12
		}
	}
}

// at is the voltage of a field's side / 12 V.
func (r *reader) at(f Field) float64 {
	if f.OnAux() {
		return r.auxN
	}
	return r.n
}

func (r *reader) walk(prefix string, raw map[string]any) {
	for key, value := range raw {
		path := prefix + key
		if prefix == "" && (key == "format" || key == "version") || value == nil {
			continue
		}
		if f, ok := FieldAt(path); ok {
			r.field(f, path, value)
			continue
		}
		nested, isObject := value.(map[string]any)
		switch {
		case isSection(path) && isObject && lists[path] && len(nested) > MostRows:
			r.problem(path, len(nested), "has too many rows", fmt.Sprintf("up to %d rows", MostRows))
		case isSection(path) && isObject:
			r.walk(path+".", nested)
		case isSection(path):
			r.problem(path, value, "is not an object", "an object of fields")
		case lists[strings.TrimSuffix(prefix, ".")]:
			r.problem(path, key, "cannot name a row", rowNames(path))
		default:
			allowed := "fields of the published schema"
			if near := nearest(path); near != "" {
				allowed += "; the nearest is " + near
			}
			r.problem(path, value, "is not a field of a job", allowed)
		}
	}
}

func (r *reader) field(f Field, path string, value any) {
	clean, err := f.Read(value, r.at(f))
	if err != nil {
		wrong := err.Error()
		var reading interface{ Wrong() string }
		if errors.As(err, &reading) { // the value is named by the problem
			wrong = reading.Wrong()
		}
		r.problem(path, value, wrong, f.Allowed(r.at(f)))
		return
	}
	if clean == "" { // nothing written is no answer: a row of nothing else is none
		return
	}
	at := r.clean
	keys := strings.Split(path, ".")
	for _, key := range keys[:len(keys)-1] {
		next, ok := at[key].(map[string]any)
		if !ok {
			next = map[string]any{}
			at[key] = next
		}
		at = next
	}
	at[keys[len(keys)-1]] = clean
}

// mostSegments is how much driving may be run: a written pattern, as often as it comes in its days.
const mostSegments = 20_000

// together holds answers against each other that are within limits of their own.
func (r *reader) together() {
	answers, _ := r.clean["day"].(map[string]any)
	own, is := answers["own"].(string)
	if !is {
		return
	}
	pattern, err := day.ParsePattern(own)
	days := usualDays
	if v, said := answers["days"].(float64); said {
		days = v
	}
	if err != nil || float64(len(pattern))*days*daySeconds/pattern.Seconds() <= mostSegments {
		return
	}
	delete(answers, "own")
	r.problem("day.own", own, fmt.Sprintf("comes to more than %d pieces of driving in %g days", mostSegments, days),
		fmt.Sprintf("up to %d in all: fewer days, or longer pieces", mostSegments))
}

// shown is how much of a refused value is repeated.
const shown = 60

func (r *reader) problem(field string, value any, wrong, allowed string) {
	text, err := json.Marshal(value)
	if err != nil || len(text) > shown {
		text = []byte(strings.ToValidUTF8(string(text[:min(len(text), shown)]), "") + "…")
	}
	r.problems = append(r.problems, Problem{Field: field, Value: unit.Written(string(text)), Wrong: wrong, Allowed: allowed})
}

func (r *reader) document() Document {
	b, err := json.Marshal(r.clean)
	if err != nil {
		panic(err) // only strings and finite numbers
	}
	d := New()
	if err := json.Unmarshal(b, &d); err != nil {
		panic(err) // every field was read in the document's own type
	}
	return d
}
