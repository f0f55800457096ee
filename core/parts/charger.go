package parts

import "fmt"

// Charger is the card of a DC-DC charger.
type Charger struct {
	ID            string
	Label         string
	OutputA       float64
	EfficiencyLow float64 // worst over its range
	Efficiency    float64 // typical
	CutOutV       float64 // stops below this input, 12 V systems
	MaxAmbientC   float64
	StandbyA      float64 // taken at the input while it rests
	CaseKPerW     float64 // how far its losses heat it above its place
	MaxFuseA      float64 // largest fuse its sheet allows at the input; 0 where it says nothing
	RestartV      float64 // having stopped for want of volts, it begins again above, 12 V systems
	SoftStartS    float64 // it takes so long to come to its full output
	InputA        float64 // it draws at most; 0 where nothing but its output limits it
	IdleInputA    float64 // … while the engine idles
	Terminals     string  // Clamps, or the stud that its cables go on; "" where nobody says
	MostMM2       float64 // the thickest cable that they take; 0 where nobody says

	Count float64 // of several side by side; 0 for one
	Each  string  // the label of one of them

	Parts []Charger // of two of different sizes side by side
}

// Times is the card of so many chargers side by side.
func (c Charger) Times(count float64) Charger {
	c.Each, c.Count = c.Label, count
	c.Label = fmt.Sprintf("%g × %s", count, c.Label)
	c.OutputA *= count
	c.StandbyA *= count
	c.InputA *= count
	c.IdleInputA *= count
	c.CaseKPerW /= count
	c.MaxFuseA = 0
	return c
}

// Beside is the card of two chargers of different sizes side by side: each gives what it can, and the
// sooner of the two stops.
func (c Charger) Beside(other Charger) Charger {
	both := c
	both.Parts = []Charger{c, other}
	both.Label = c.Label + " and " + other.Label
	both.OutputA = c.OutputA + other.OutputA
	share := func(of func(Charger) float64) float64 { // of what goes in
		return both.OutputA / (c.OutputA/of(c) + other.OutputA/of(other))
	}
	both.EfficiencyLow = share(func(c Charger) float64 { return c.EfficiencyLow })
	both.Efficiency = share(func(c Charger) float64 { return c.Efficiency })
	both.CutOutV, both.RestartV = max(c.CutOutV, other.CutOutV), max(c.RestartV, other.RestartV)
	both.SoftStartS = max(c.SoftStartS, other.SoftStartS)
	both.MaxAmbientC = min(c.MaxAmbientC, other.MaxAmbientC)
	both.StandbyA = c.StandbyA + other.StandbyA
	both.CaseKPerW = 1 / (1/c.CaseKPerW + 1/other.CaseKPerW)
	both.MaxFuseA = 0
	if c.InputA > 0 { // the other has no limit but its output
		both.InputA, both.IdleInputA = 0, 0
	}
	return both
}

// Clamps are terminals that a bared cable goes into; Studs are the bolts that a lug goes on.
const Clamps = "clamps"

// Studs are the bolts of terminals.
var Studs = []string{"M5", "M6", "M8", "M10"}

// Stud is the bolt that its cables go on, as its sheet says; "" where that says nothing, or has clamps.
func (c Charger) Stud() string {
	if c.Terminals == Clamps {
		return ""
	}
	return c.Terminals
}

// ClampMM2 is the thickest cable that its cage clamps take; 0 for one with studs. Source: its sheet; where that says
// nothing, from memory.
func (c Charger) ClampMM2() float64 {
	switch {
	case len(c.Parts) > 0:
		return min(c.Parts[0].ClampMM2(), c.Parts[1].ClampMM2())
	case c.Stud() != "":
		return 0
	case c.MostMM2 > 0:
		return c.MostMM2
	}
	switch one := c.OutputA / max(1, c.Count); {
	case one <= 20:
		return 10
	case one <= 40:
		return 16
	case one <= 50, c.Terminals == Clamps:
		return 35
	}
	return 0
}

// TakesMM2 is the thickest cable that its terminals take; 0 where it has studs and nobody says.
func (c Charger) TakesMM2() float64 {
	if most := c.ClampMM2(); most > 0 {
		return most
	}
	return c.MostMM2
}

// DrawsAtMost is the limit of its input, while the engine idles or otherwise; 0 where it has none.
func (c Charger) DrawsAtMost(idles bool) float64 {
	if idles && c.IdleInputA > 0 && (c.InputA == 0 || c.IdleInputA < c.InputA) {
		return c.IdleInputA
	}
	return c.InputA
}
