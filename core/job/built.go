package job

import "strings"

// BuiltPaths are the answers that may turn out differently in the bay, in the order in which
// they are asked.
var BuiltPaths = []string{"pins.startSize", "pins.startFuseA", "routes.startM", "pins.auxSize", "pins.auxFuseA", "routes.auxM",
	"pins.chargerA", "pins.contactA", "pins.plugA",
	"pins.return", "routes.earthM", "routes.triggerM", "profile.setting", "aux.capacityAh", "aux.chemistry", "bays.startC", "bays.auxC",
	"extras.isolatorA", "extras.bondSize"}

// AsBuilt is the document with what was really fitted in the place of what was designed. The
// problems name what cannot be used; that stays as designed.
func (d Document) AsBuilt() (Document, Problems) {
	built := d.Built
	d.Built = nil
	changes := map[string]any{}
	for key, text := range built {
		changes[strings.ReplaceAll(key, "/", ".")] = text
	}
	return With(d, changes)
}
