package job

import (
	"encoding/json"
	"sort"
)

// Change is one field that differs between two documents.
type Change struct {
	Path  string `json:"path"`
	Label string `json:"label"`
	From  string `json:"from" doc:"As shown; empty where it was not answered"`
	To    string `json:"to" doc:"As shown; empty where it is no longer answered"`
}

// Diff lists the fields in which two documents differ, by path.
func Diff(from, to Document) []Change {
	before, after := from.leaves(), to.leaves()
	changes := []Change{}
	for _, f := range Fields {
		was, had := before[f.Path]
		is, has := after[f.Path]
		if was == is {
			continue
		}
		c := Change{Path: f.Path, Label: f.Label}
		if had {
			c.From = f.Show(was)
		}
		if has {
			c.To = f.Show(is)
		}
		changes = append(changes, c)
	}
	sort.Slice(changes, func(i, j int) bool { return changes[i].Path < changes[j].Path })
	return changes
}

// leaves are the answered fields by path.
func (d Document) leaves() map[string]any {
	var raw map[string]any
	if err := json.Unmarshal(d.Encode(), &raw); err != nil {
		panic(err) // Encode wrote it
	}
	flat := map[string]any{}
	flatten("", raw, flat)
	return flat
}

func flatten(prefix string, raw, flat map[string]any) {
	for key, value := range raw {
		if nested, ok := value.(map[string]any); ok {
			flatten(prefix+key+".", nested, flat)
			continue
		}
		flat[prefix+key] = value
	}
}
