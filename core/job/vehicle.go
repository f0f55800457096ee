package job

// Point is a place on the vehicle's side view, in m: X back from the front
// bumper, Y up from the ground.
type Point struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// Wheel is a wheel of the side view.
type Wheel struct {
	X float64 `json:"x"`
	R float64 `json:"r"`
}

// Place is where an auxiliary battery can sit.
type Place struct {
	ID      string
	Label   string
	At      Point
	Outside bool // gas leaves by itself
	Hot     bool // an engine space
	Trailer bool // behind the tow coupling
	OnBody  bool // on a tray, canopy or body that stands on the chassis
}

// Body is a kind of vehicle: a typical shape to draw the run on to scale and to
// guess route lengths from until they are measured. The shapes stand for no
// vehicle; they are assumed.
type Body struct {
	Kind       string
	Label      string
	LengthM    float64
	HeightM    float64
	Outlines   [][]Point
	Wheels     []Wheel
	Alternator Point
	Start      Point
	Places     []Place
}

var (
	alternatorAt = Point{0.35, 0.62}
	startAt      = Point{0.85, 0.92}
	bonnet       = Place{ID: "bonnet", Label: "under the bonnet", At: Point{1.15, 0.92}, Outside: true, Hot: true}
)

func seat(x float64) Place {
	return Place{ID: "seat", Label: "under a front seat", At: Point{x, 0.8}}
}

func middle(x float64) Place {
	return Place{ID: "middle", Label: "behind the front seats", At: Point{x, 0.8}}
}

func rear(label string, x, y float64) Place {
	return Place{ID: "rear", Label: label, At: Point{x, y}}
}

// onBody is a place on a tray, canopy or body that stands on the chassis.
func onBody(p Place) Place {
	p.OnBody = true
	return p
}

// open is a place outside, where gas leaves by itself.
func open(p Place) Place {
	p.Outside = true
	return p
}

// locker is a closed box that gas leaves to the outside.
func locker(label string, x, y float64) Place {
	return open(onBody(Place{ID: "locker", Label: label, At: Point{x, y}}))
}

func wagonOutline() []Point {
	return []Point{{0, 0.42}, {0, 0.9}, {1.25, 1.05}, {1.95, 1.72}, {2.4, 1.8}, {4.45, 1.76}, {4.8, 1.15}, {4.8, 0.42}}
}

// Bodies lists the kinds of vehicle in the order they are offered.
var Bodies = []Body{
	{Kind: "panel-van", Label: "panel van", LengthM: 6.0, HeightM: 2.6,
		Outlines: [][]Point{{{0, 0.42}, {0, 0.95}, {0.95, 1.22}, {1.7, 2.35}, {2.1, 2.6}, {5.9, 2.6}, {6.0, 2.4}, {6.0, 0.42}}},
		Wheels:   []Wheel{{1.0, 0.34}, {4.7, 0.34}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{rear("at the back", 5.45, 0.85), middle(2.9), seat(1.95), bonnet}},
	{Kind: "people-mover", Label: "people mover", LengthM: 5.0, HeightM: 1.95,
		Outlines: [][]Point{{{0, 0.4}, {0, 0.88}, {0.9, 1.08}, {1.65, 1.82}, {2.1, 1.95}, {4.75, 1.9}, {5.0, 1.3}, {5.0, 0.4}}},
		Wheels:   []Wheel{{0.95, 0.32}, {3.95, 0.32}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{rear("in the boot", 4.5, 0.75), middle(2.7), seat(1.9), bonnet}},
	{Kind: "ute-tub", Label: "dual-cab ute with tub", LengthM: 5.3, HeightM: 1.82,
		Outlines: [][]Point{{{0, 0.5}, {0, 1.0}, {1.3, 1.12}, {1.95, 1.78}, {3.3, 1.82}, {3.65, 1.18}, {5.3, 1.18}, {5.3, 0.5}}},
		Wheels:   []Wheel{{0.95, 0.38}, {4.1, 0.38}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{rear("in the tub", 4.7, 0.9), middle(3.0), seat(2.1), bonnet}},
	{Kind: "ute-tray", Label: "dual-cab ute with tray", LengthM: 5.4, HeightM: 1.82,
		Outlines: [][]Point{{{0, 0.5}, {0, 1.0}, {1.3, 1.12}, {1.95, 1.78}, {3.3, 1.82}, {3.55, 1.1}, {3.55, 0.5}},
			{{3.65, 0.78}, {3.65, 0.98}, {5.4, 0.98}, {5.4, 0.78}}},
		Wheels: []Wheel{{0.95, 0.38}, {4.3, 0.38}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{open(onBody(rear("on the tray", 4.9, 1.12))),
			locker("in a vented locker on the tray", 4.3, 1.2), middle(3.0), seat(2.1), bonnet}},
	{Kind: "ute-canopy", Label: "dual-cab ute with canopy", LengthM: 5.4, HeightM: 1.95,
		Outlines: [][]Point{{{0, 0.5}, {0, 1.0}, {1.3, 1.12}, {1.95, 1.78}, {3.3, 1.82}, {3.55, 1.1}, {3.55, 0.5}},
			{{3.65, 0.8}, {3.65, 1.95}, {5.4, 1.95}, {5.4, 0.8}}},
		Wheels: []Wheel{{0.95, 0.38}, {4.3, 0.38}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{onBody(rear("in the canopy", 4.9, 1.12)),
			locker("in a vented locker of the canopy", 4.3, 1.2), middle(3.0), seat(2.1), bonnet}},
	{Kind: "wagon", Label: "wagon", LengthM: 4.8, HeightM: 1.8,
		Outlines: [][]Point{wagonOutline()},
		Wheels:   []Wheel{{0.95, 0.36}, {3.75, 0.36}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{rear("in the boot", 4.3, 0.85), middle(2.9), seat(2.0), bonnet}},
	{Kind: "motorhome", Label: "motorhome on a cab chassis", LengthM: 7.0, HeightM: 3.0,
		Outlines: [][]Point{{{0, 0.42}, {0, 0.95}, {0.95, 1.22}, {1.55, 2.05}, {1.3, 2.2}, {1.3, 2.9}, {2.0, 3.0}, {6.9, 3.0}, {7.0, 2.8},
			{7.0, 0.42}}},
		Wheels: []Wheel{{1.0, 0.34}, {5.0, 0.34}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{onBody(rear("in the rear locker", 6.3, 0.85)), locker("in a vented locker", 5.2, 0.85), middle(3.0), seat(2.0), bonnet}},
	{Kind: "tow-caravan", Label: "tow vehicle with caravan", LengthM: 11.8, HeightM: 2.7,
		Outlines: [][]Point{wagonOutline(), {{4.8, 0.45}, {4.8, 0.52}, {6.2, 0.62}, {6.2, 0.45}},
			{{6.2, 0.42}, {6.2, 2.3}, {6.6, 2.7}, {11.5, 2.7}, {11.8, 2.4}, {11.8, 0.42}}},
		Wheels: []Wheel{{0.95, 0.36}, {3.75, 0.36}, {8.7, 0.34}, {9.5, 0.34}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{{ID: "trailer", Label: "in the trailer", At: Point{7.1, 0.85}, Trailer: true},
			rear("in the tow vehicle's boot", 4.3, 0.85), bonnet}},
	{Kind: "tow-camper", Label: "tow vehicle with camper trailer", LengthM: 9.4, HeightM: 1.8,
		Outlines: [][]Point{wagonOutline(), {{4.8, 0.45}, {4.8, 0.52}, {6.1, 0.62}, {6.1, 0.45}},
			{{6.1, 0.5}, {6.1, 1.3}, {6.5, 1.55}, {9.2, 1.55}, {9.4, 1.3}, {9.4, 0.5}}},
		Wheels: []Wheel{{0.95, 0.36}, {3.75, 0.36}, {7.9, 0.36}}, Alternator: alternatorAt, Start: startAt,
		Places: []Place{{ID: "trailer", Label: "in the trailer", At: Point{6.9, 0.85}, Trailer: true},
			rear("in the tow vehicle's boot", 4.3, 0.85), bonnet}},
}

// BodyOf returns the body of a kind; the first where there is none such.
func BodyOf(kind string) Body {
	for _, b := range Bodies {
		if b.Kind == kind {
			return b
		}
	}
	return Bodies[0]
}

// PlaceOf returns a place by its id; ok is false where the body has none such.
func (b Body) PlaceOf(id string) (p Place, ok bool) {
	for _, p := range b.Places {
		if p.ID == id {
			return p, true
		}
	}
	return b.Places[0], false
}

// Where a start battery sits.
const (
	UnderBonnet = "bonnet"
	UnderSeat   = "seat"
	InBoot      = "boot"
)

// startAt is where the start battery sits: where such a body usually has it, or elsewhere.
func (b Body) startAt(where string) Point {
	switch where {
	case UnderSeat:
		if p, ok := b.PlaceOf("seat"); ok {
			return p.At
		}
		return seat(2.0).At
	case InBoot:
		if p, ok := b.PlaceOf("rear"); ok {
			return p.At
		}
	}
	return b.Start
}

func vehicleOptions() []Option {
	var o []Option
	for _, b := range Bodies {
		o = append(o, Option{b.Kind, b.Label})
	}
	return o
}

// placeOptions are all places of all bodies, in general words.
func placeOptions() []Option {
	return []Option{{"rear", "at the back"}, {"middle", "behind the front seats"}, {"seat", "under a front seat"},
		{"bonnet", "under the bonnet"}, {"locker", "in a vented locker"}, {"trailer", "in the trailer"}}
}
