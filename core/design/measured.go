package design

import (
	"slices"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/job"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Piece is what a measurement was taken of.
type Piece string

// The pieces of the circuit that can be measured.
const (
	JointPiece     Piece = "joint"     // a crimped and bolted end
	ConductorPiece Piece = "conductor" // a wire from end to end
	HolderPiece    Piece = "holder"    // a fuse in its holder
	SteelPiece     Piece = "steel"     // chassis, tray, canopy or body
)

// Measured is a piece of this installation that somebody measured.
type Measured struct {
	Key     string // names its row
	Piece   Piece
	Name    string // as people know it
	Column  string // the part that it is shown at
	Element string // of the circuit, whose current it carries
	Ohm     float64
	Known   bool    // false where the measurement lacks something: millivolts without their current
	Counted float64 // what the design counts there, in Ω, where nobody measured
	TempC   *float64
	LimitC  float64 // what its insulation bears
}

// measure puts what was measured in the place of what is usual, and keeps what that was. Runs are
// sized for good joints all the same: a bad one is mended, not made up for by thicker cable.
func (d *Design) measure() {
	d.Measured, d.Nowhere = nil, nil
	for _, row := range job.Rows(d.Doc.Joints) {
		m, at, ok := d.piece(row.Key)
		if !ok {
			d.Nowhere = append(d.Nowhere, row.Key)
			continue
		}
		m.Key, m.TempC = row.Key, row.Of.TempC
		m.Ohm, m.Known = row.Of.Ohm()
		switch {
		case m.Known && (m.Piece == JointPiece && *at > 0 || m.Piece == ConductorPiece || m.Piece == HolderPiece):
			*at = m.Ohm
			if m.Piece != JointPiece {
				*at = max(m.Ohm, leastPathOhm)
			}
		case !m.Known && m.TempC != nil && m.Piece == ConductorPiece:
			*at *= (1 + cable.Alpha*(*m.TempC-20)) / (1 + cable.Alpha*(d.warmC(m.Element)-20))
		}
		d.Measured = append(d.Measured, m)
	}
}

// piece finds what a row was measured of, and its resistance in the system.
func (d *Design) piece(key string) (m Measured, at *float64, ok bool) {
	for i := range d.System.Wires {
		w := &d.System.Wires[i]
		m = Measured{Column: w.Run, Element: w.ID, LimitC: d.insulationOf(w.Run)}
		if w.Beside != "" {
			m.Column = w.Beside
		}
		if w.Role == system.Chassis {
			m.Column = d.ReturnLeg().ID
		}
		switch key {
		case w.ID:
			m.Piece, m.Name, m.Counted = ConductorPiece, "conductor of "+w.Name, w.Ohm
			if w.Role == system.Chassis {
				m.Piece, m.Name, m.Counted = SteelPiece, "steel between E2 and E1", countedSteel(w.LengthM)
				switch w.ID {
				case "body":
					m.Name, m.Counted = "way through tray, canopy or body to the chassis", bodyOhm
				case "frame":
					m.Name = "trailer's frame between E4 and E5"
				}
			}
			return m, &w.Ohm, true
		case w.ID + "from":
			m.Piece, m.Name, m.Counted = JointPiece, unit.Say("end of %s at %s", w.Name, d.Called(w.From)), w.Joint.From
			return m, &w.Joint.From, true
		case w.ID + "to":
			m.Piece, m.Name, m.Counted = JointPiece, unit.Say("end of %s at %s", w.Name, d.Called(w.To)), w.Joint.To
			return m, &w.Joint.To, true
		}
	}
	found := slices.IndexFunc(d.System.Components, func(c system.Component) bool { return c.ID == key })
	if found < 0 {
		return Measured{}, nil, false
	}
	c := &d.System.Components[found]
	fuse, is := c.Device.(system.Fuse)
	if !is {
		return Measured{}, nil, false
	}
	m = Measured{Piece: HolderPiece, Name: c.Name + " in its holder", Column: fuseColumns[c.ID], Element: c.ID, Counted: fuse.Ohm,
		LimitC: d.Facts.Insulation.LimitC}
	if ohm, known := d.Doc.Joints[key].Ohm(); known {
		fuse.Ohm = max(ohm, leastPathOhm)
		c.Device = fuse
	}
	return m, new(float64), true
}

// fuseColumns are the parts that fuses are shown at.
var fuseColumns = map[string]string{"f1": "f1", "f2": "f2", "f3": "coupling", "f4": "aux", "f5": "coupling", "f6": "coupling"}

// insulationOf is what the insulation of a run's wires bears.
func (d *Design) insulationOf(of string) float64 {
	switch of {
	case d.Start.ID:
		return d.Start.Loop.Insulation.LimitC
	case d.Aux.ID:
		return d.Aux.Loop.Insulation.LimitC
	}
	return d.Facts.Insulation.LimitC
}

// warmC is how warm the plan takes a wire.
func (d *Design) warmC(wire string) float64 {
	w, _ := d.System.Wire(wire)
	for _, l := range []*run.Sized{&d.Start, &d.Aux, &d.Trigger, &d.Button, &d.House} {
		switch {
		case w.Run == l.ID && w.Role == system.Return:
			return l.Trial.BackC
		case w.Run == l.ID:
			return l.Trial.ConductorC
		}
	}
	return WarmC
}

// NameOf is a part or wire, by its id, as people call it.
func (d *Design) NameOf(at string) string {
	if c, there := d.System.Component(at); there {
		return c.Name
	}
	w, there := d.System.Wire(at)
	switch {
	case !there:
		return at
	case w.Name != "":
		return w.Name
	case w.Role == system.Chassis:
		return "the " + at // body, chassis or frame
	}
	return "the cable from " + d.Called(w.From) + " to " + d.Called(w.To)
}

// Called is a terminal as people know it: by its component, unless it is a place on the body.
func (d *Design) Called(t system.Terminal) string {
	if c, ok := d.System.Component(t.Component); ok {
		return strings.TrimSpace(c.Name + " " + t.Terminal)
	}
	return strings.ToUpper(t.Component)
}
