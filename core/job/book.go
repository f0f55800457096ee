package job

import (
	"encoding/json"
	"slices"
	"strings"
)

// bookSections are the answers that hold for every vehicle of a model: they go into the
// vehicle book.
var bookSections = []string{"vehicle.", "alternator.", "startBattery.chemistry", "startBattery.place", "startBattery.capacityAh", "routes.", "bays.", "feeds.", "points."}

// ofOneVehicle are answers within them that hold for one vehicle only.
var ofOneVehicle = []string{"vehicle.loadA", "alternator.count"}

// inBook says whether an answer goes into the vehicle book.
func inBook(path string) bool {
	return slices.ContainsFunc(bookSections, func(s string) bool { return strings.HasPrefix(path, s) }) && !slices.Contains(ofOneVehicle, path)
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
