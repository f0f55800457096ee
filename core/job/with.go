package job

import (
	"encoding/json"
	"maps"
	"slices"
	"strings"
)

// With is the document with some fields set, by path: text with any unit, or a number in
// the field's unit; nil takes a field out. The problems name what does not read; what
// does is set all the same.
func With(d Document, changes map[string]any) (Document, Problems) {
	var raw map[string]any
	if err := json.Unmarshal(d.Encode(), &raw); err != nil {
		panic(err) // Encode wrote it
	}
	for path, value := range changes {
		at := raw
		keys := strings.Split(path, ".")
		for _, key := range keys[:len(keys)-1] {
			next, ok := at[key].(map[string]any)
			if !ok {
				next = map[string]any{}
				at[key] = next
			}
			at = next
		}
		if value == nil {
			delete(at, keys[len(keys)-1])
			continue
		}
		at[keys[len(keys)-1]] = value
	}
	b, err := json.Marshal(raw)
	if err != nil {
		return d, Problems{{Wrong: "has a value that is no number and no text", Allowed: "text or numbers"}}
	}
	return Decode(b)
}

// Answered are the paths of all fields that are answered, in their order.
func (d Document) Answered() []string { return slices.Sorted(maps.Keys(d.leaves())) }
