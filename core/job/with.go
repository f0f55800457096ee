package job

import (
	"bytes"
	"encoding/json"
	"maps"
	"slices"
	"strconv"
	"strings"
)

// With is the document with some fields set, by path: text with any unit, or a number in
// the field's unit; nil takes a field out. The problems name what does not read; what
// does is set all the same.
func With(d Document, changes map[string]any) (Document, Problems) {
	raw := map[string]any{}
	dec := json.NewDecoder(bytes.NewReader(d.Encode()))
	dec.UseNumber()
	if err := dec.Decode(&raw); err != nil {
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
		at[keys[len(keys)-1]] = asRead(value)
	}
	return decode(raw)
}

// asRead is a value as it comes out of a text: a number is what was written.
func asRead(value any) any {
	if v, is := value.(float64); is {
		return json.Number(strconv.FormatFloat(v, 'g', -1, 64))
	}
	return value
}

// Answered are the paths of all fields that are answered, in their order.
func (d Document) Answered() []string { return slices.Sorted(maps.Keys(d.leaves())) }
