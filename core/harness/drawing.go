package harness

import (
	"epitrope/core/system"
)

// Drawing is the wiring drawing as geometry: the same shapes are painted on the screen, in
// SVG and in PDF. Units are those of the drawing, with y downward; Unit of them make a step
// of the grid that parts and wires stand on.
type Drawing struct {
	W         float64         `json:"w"`
	H         float64         `json:"h"`
	Parts     []Placed        `json:"parts"`
	Lines     []Routed        `json:"lines"`
	Zones     []Zone          `json:"zones"`
	Terminals []NamedTerminal `json:"terminals"`
	Legend    []LegendOf      `json:"legend"`
	Shapes    []Shape         `json:"shapes" doc:"Everything to be painted, in order"`
	Aux       string          `json:"auxBattery" doc:"The aux battery, by its id"`
	WithAux   []string        `json:"withAux" doc:"The box, and the loads and feeds behind it: they count as live while the aux battery is"`
}

// Placed is a part on the drawing.
type Placed struct {
	ID     string  `json:"id"`
	Kind   string  `json:"kind"`
	Name   string  `json:"name"`
	Rating string  `json:"rating"`
	Column int     `json:"column" doc:"Along the current"`
	X      float64 `json:"x"`
	Y      float64 `json:"y"`
	W      float64 `json:"w"`
	H      float64 `json:"h"`
}

// Routed is a wire on the drawing.
type Routed struct {
	ID     string   `json:"id"`
	Number string   `json:"number"`
	Role   string   `json:"role" enum:"feed,return,chassis,signal"`
	From   string   `json:"from"`
	To     string   `json:"to"`
	Label  string   `json:"label"`
	Points []Corner `json:"points" doc:"Corners, from end to end"`
	Text   *TextAt  `json:"text,omitempty" doc:"Where its label stands; absent where it has none"`
}

// NamedTerminal is the name of a terminal, beside the wire that ends there.
type NamedTerminal struct {
	Of   string `json:"of" doc:"Part"`
	Text string `json:"text" doc:"DIN 72552"`
	At   TextAt `json:"at"`
}

// Corner is a point of the drawing.
type Corner struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// TextAt is the box that a label fills.
type TextAt struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
	W float64 `json:"w"`
	H float64 `json:"h"`
}

// Zone is a side of the drawing.
type Zone struct {
	Name string  `json:"name"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	W    float64 `json:"w"`
}

// LegendOf is a line of the legend.
type LegendOf struct {
	Class string `json:"class"`
	Text  string `json:"text"`
}

// Shape is a thing to be painted.
type Shape struct {
	Kind   string    `json:"kind" enum:"line,circle,text"`
	Class  string    `json:"class" doc:"How: outline, symbol, picture, feed, return, chassis, signal, existing, name, rating, label, terminal, zone, legend"`
	Of     string    `json:"of,omitempty" doc:"Part or wire that it belongs to"`
	At     []float64 `json:"at" doc:"x, y, x, y … of a line; x, y, r of a circle; x, y of a text's middle, or of its beginning"`
	Closed bool      `json:"closed,omitempty"`
	Text   string    `json:"text,omitempty"`
	Size   float64   `json:"size,omitempty"`
	Start  bool      `json:"start,omitempty" doc:"The text begins at its point"`
}

// Load is something that is used off the aux battery, as the drawing shows it.
type Load struct {
	ID     string
	Name   string
	Rating string
}

// Unit is a step of the grid.
const Unit = 8.0

// Sizes of parts on the drawing, in steps.
const (
	blockW, blockH = 13, 11
	loadH          = 5
	boxW, barW     = 7, 3
	earthW, earthH = 4, 4
	laneGap        = 9
	lastGap        = 4 // … below the last row of a band
	titleGap       = 3 // above a band, for its name
	bandGap        = 3 // between bands, for the wires that go from one to the other
	linkGap        = 13
	runGap         = 15
	bareGap        = 5
	loadPitch      = 7
	margin         = 4
)

// Draw lays a system out, with the loads that hang on it. The same system gives the same
// drawing.
func Draw(s *system.System, loads []Load) Drawing {
	n := newNet(s, loads)
	n.wrapped = wraps(s)
	return n.draw(n.slots())
}
