package design

import (
	"slices"
	"strings"

	"epitrope/core/job"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// measure puts what was measured of the joints in the place of what is usual. Runs are sized
// for good joints all the same: a bad one is mended, not made up for by thicker cable.
func (d *Design) measure() {
	for i := range d.System.Wires {
		w := &d.System.Wires[i]
		for _, end := range []struct {
			name string
			ohm  *float64
		}{{"from", &w.Joint.From}, {"to", &w.Joint.To}} {
			if ohm, ok := d.Doc.Joints[w.ID+end.name].Ohm(); ok && *end.ohm > 0 {
				*end.ohm = ohm
			}
		}
	}
}

// MeasuredJoint is a joint of this installation that somebody measured.
type MeasuredJoint struct {
	Key    string      // names its row
	Name   string      // as people know it
	Column string      // the part that it is shown at
	Wire   system.Wire // whose end it is
	Ohm    float64
	Known  bool // false where the measurement lacks something: millivolts without their current
}

// MeasuredJoints are the joints that were measured, in the order of their names, and the names
// of rows that no wire of this installation has.
func (d *Design) MeasuredJoints() (list []MeasuredJoint, nowhere []string) {
	for _, row := range job.Rows(d.Doc.Joints) {
		found := slices.IndexFunc(d.System.Wires, func(w system.Wire) bool { return w.ID+"from" == row.Key || w.ID+"to" == row.Key })
		if found < 0 {
			nowhere = append(nowhere, row.Key)
			continue
		}
		w := d.System.Wires[found]
		at := w.From
		if w.ID+"to" == row.Key {
			at = w.To
		}
		column := w.Run
		if w.Beside != "" {
			column = w.Beside
		}
		ohm, known := row.Of.Ohm()
		list = append(list, MeasuredJoint{Key: row.Key, Name: unit.Say("end of %s at %s", w.Name, d.called(at)), Column: column, Wire: w,
			Ohm: ohm, Known: known})
	}
	return list, nowhere
}

// called is a terminal as people know it: by its component, unless it is a place on the body.
func (d *Design) called(t system.Terminal) string {
	if c, ok := d.System.Component(t.Component); ok {
		return strings.TrimSpace(c.Name + " " + t.Terminal)
	}
	return strings.ToUpper(t.Component)
}
