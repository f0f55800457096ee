package answers

import (
	"strings"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/job"
	"epitrope/core/retrofit"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Installed is a document as what is in the vehicle: as it was built, or as it was found before. missing is what nobody knows of what
// was found, for which the plan's own stands.
func Installed(doc job.Document, found bool) (installed job.Document, missing []string) {
	if found {
		return retrofit.AsFound(doc)
	}
	return AsBuilt(doc), []string{}
}

// Failure is what failed, as it is counted over the workshop.
type Failure struct {
	Fault string // its kind; "" where a part was changed without one
	Says  string
	Part  string // what sort of part or wire
	Model string // what it is sold by
}

// FailureOf is a fault of an installation as it is counted; ok is false where it may have none of this id.
func FailureOf(d *design.Design, id string) (f Failure, ok bool) {
	for _, one := range append(fault.Of(d), fault.AtTimes(fault.Of(d))...) {
		if one.ID == id {
			f = partOf(d, one.At)
			f.Fault, f.Says = string(one.Kind), one.Says
			return f, true
		}
	}
	return f, false
}

// ChangeOf is a part that was changed, as it is counted; ok is false where the installation has none of this id.
func ChangeOf(d *design.Design, at string) (f Failure, ok bool) {
	f = partOf(d, at)
	f.Says = unit.Say("%s changed", d.NameOf(at))
	return f, f.Part != ""
}

// wireSorts say what sort of wire one is.
var wireSorts = map[system.Role]string{system.Feed: "feed cable", system.Return: "return cable", system.Chassis: "chassis",
	system.Signal: "signal wire"}

func partOf(d *design.Design, at string) (f Failure) {
	if c, there := d.System.Component(at); there {
		f.Part, f.Model = strings.ReplaceAll(string(c.Kind), "-", " "), c.Rating
		switch of := c.Device.(type) {
		case system.Bank:
			f.Part = "aux battery"
			if of.Start {
				f.Part = "start battery"
			}
		case system.Charger:
			if of.Card.Label != "" {
				f.Model = of.Card.Label
			}
		}
	} else if w, there := d.System.Wire(at); there {
		f.Part, f.Model = wireSorts[w.Role], w.Size
	}
	return f
}

// InVehicle is what may be changed in a vehicle, by its id.
type InVehicle struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// PartsIn are the parts of an installation.
func PartsIn(d *design.Design) []InVehicle {
	list := []InVehicle{}
	for _, c := range d.System.Components {
		list = append(list, InVehicle{c.ID, strings.TrimSpace(c.Name + ", " + c.Rating)})
	}
	return list
}
