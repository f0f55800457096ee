package job

import (
	"encoding/json"
	"fmt"
	"maps"
	"sort"
	"strings"
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
	paths := maps.Clone(before)
	maps.Copy(paths, after)
	for path := range paths {
		f, ok := FieldAt(path)
		was, had := before[path]
		is, has := after[path]
		if !ok || was == is {
			continue
		}
		c := Change{Path: path, Label: labelAt(path, f, after, before)}
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

// labelAt is what a field is called, with the row that it is in.
func labelAt(path string, f Field, leaves ...map[string]any) string {
	list, rest, _ := strings.Cut(path, ".")
	if !lists[list] {
		return f.Label
	}
	key, _, inRow := strings.Cut(rest, ".")
	if !inRow { // how an answer is known
		about := strings.ReplaceAll(key, "/", ".")
		of, _ := FieldAt(about)
		return labelAt(about, of, leaves...) + ": " + f.Label
	}
	row := key
	for _, name := range []string{"role", "kind", "endA", "name"} { // the last that is there says most
		for _, l := range leaves {
			if value, ok := l[list+"."+key+"."+name]; ok {
				field, _ := FieldAt(list + "." + key + "." + name)
				row = field.Show(value)
				break
			}
		}
	}
	return fmt.Sprintf("%s (%s)", f.Label, row)
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
