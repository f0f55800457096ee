package harness

import (
	"fmt"
	"math"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// End is one end of a wire.
type End struct {
	Component string `json:"component"`
	Name      string `json:"name"`
	Terminal  string `json:"terminal" doc:"DIN 72552"`
	Lug       string `json:"lug" doc:"Lug, ferrule or connector"`
	Label     string `json:"label" doc:"What its label says"`

	Stud   string  `json:"-"` // the bolt that it goes on; "" where it goes on none
	Barrel string  `json:"-"` // of a tube lug: the cable that it is sold for
	Kind   endKind `json:"-"`
}

// endKind is what a wire's end is made into.
type endKind int

const (
	otherEnd endKind = iota
	tubeLug
	ferrule
	reducer
)

// studded are the terminals that carry a run: a thin wire from one shares its stud.
var studded = []string{"30", "87", "B+"}

// end is what a wire ends in at a terminal.
func end(s *system.System, t system.Terminal, size cable.Size) End {
	c, _ := s.Component(t.Component)
	e := End{Component: t.Component, Name: c.Name, Terminal: t.Terminal}
	copper := lugSize(size, s.Lugs)
	switch {
	case size.AreaMM2 <= 2.5 && c.Kind == system.KindEarth:
		e.Stud = "M6"
		e.Lug = "ring terminal " + copper + ", M6"
	case size.AreaMM2 <= 2.5 && s.Tapped() && t.Component == "f3":
		e.Lug = "butt splice " + copper + ", with adhesive"
	case size.AreaMM2 <= 2.5 && (c.Kind == system.KindFuse || c.Kind == system.KindPlug): // at a plug, onto the run's own cable
		e.Lug = "butt splice " + copper + ", with adhesive"
	case size.AreaMM2 <= 2.5 && c.Kind == system.KindCharger:
		e.Kind, e.Lug = ferrule, "ferrule "+copper
	case size.AreaMM2 <= 2.5 && slices.Contains(studded, t.Terminal) && c.Stud() != "":
		e.Stud = c.Stud()
		e.Lug = "ring terminal " + copper + ", " + e.Stud
	case size.AreaMM2 <= 2.5:
		e.Lug = "blade terminal 6.3 mm, " + copper
	case clamped(c) > 0 && size.AreaMM2 <= clamped(c)*1.02:
		e.Kind, e.Lug = ferrule, "ferrule "+copper
	case clamped(c) > 0:
		e.Kind, e.Lug = reducer, unit.Say("reducing pin, %s to %s", copper, unit.Plain(clamped(c), "mm²", 0))
	case c.Stud() == "" && c.Kind != system.KindPlug:
		e.Lug = "relay socket contact 9.5 mm, " + copper
	case c.Kind == system.KindPlug:
		e.Lug = "plug contact " + copper
	default:
		e.Kind, e.Stud, e.Barrel = tubeLug, c.Stud(), copper
		e.Lug = "tube lug " + copper + ", " + e.Stud
	}
	return e
}

// lugSize is how lugs and ferrules for a cable are sold: by the barrels in stock, else by gauge for gauge cable and by
// metric copper otherwise; the next larger one where nobody makes its own.
func lugSize(size cable.Size, system cable.System) string {
	if system == "" {
		system = cable.Metric
		if size.System == cable.AWG {
			system = cable.AWG
		}
	}
	for _, s := range cable.Shelf(system) {
		if s.AreaMM2 >= 0.97*size.AreaMM2 {
			return s.Label
		}
	}
	return fmt.Sprintf("%g mm²", math.Round(size.AreaMM2*10)/10)
}

// clamped is the thickest cable that a charger's clamps take; 0 for one with studs, and for what is no charger.
func clamped(c system.Component) float64 {
	if charger, is := c.Device.(system.Charger); is {
		return charger.Card.ClampMM2()
	}
	return 0
}
