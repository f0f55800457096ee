package cable

import (
	"errors"
	"math"

	"epitrope/core/working"
)

// ErrRunaway is a current at which a conductor finds no steady temperature.
var ErrRunaway = errors.New("no steady temperature: the cable burns")

// hottestC is where copper's insulation is long gone; a steady temperature above
// it is reported as no steady temperature.
const hottestC = 400

// Thermal is a cable where it lies as a balance of heat: what its current makes
// goes through the insulation, where there is one through the conduit's air, and
// from the surface into still air by convection and radiation.
//
// It is for one cable of a size; of several in parallel each carries its share.
// Range: 0.5 to 240 mm², places of −40 to 150 °C, steady or slowly changing current.
type Thermal struct {
	OhmPerM  float64 // of one conductor at 20 °C
	AmbientC float64
	copper   float64 // heat the conductor takes up, J/(K·m)
	sheath   float64 // heat the insulation takes up, J/(K·m)
	inner    float64 // from conductor to the surface that gives heat off, K·m/W
	gapMM    float64 // diameter of what lies in a conduit; 0 where there is none
	outM     float64 // diameter of that surface
	cables   float64 // that share the surface
	count    float64 // in parallel
}

// Geometry of a vehicle cable. Source: from memory: copper fills about 0.6 of a
// class 5 conductor's circle (IEC 60228); insulation is the thick wall of ISO 6722
// (wall, in mm, by area).
const fill = 0.6

var wall = []struct{ areaMM2, mm float64 }{
	{0.5, 0.6}, {1.5, 0.6}, {2.5, 0.7}, {6, 0.8}, {10, 1.0}, {16, 1.0}, {25, 1.3}, {35, 1.3}, {50, 1.5}, {70, 1.5}, {95, 1.6}, {120, 1.6},
	{240, 2.2},
}

// Materials. Source: IEC 60287-2-1 (from memory) for the insulation's thermal
// resistivity, PVC, in K·m/W, which is also on the safe side for the others; IEC
// 60949 for the heat that copper takes up, and from memory for PVC, in J/(K·mm³).
const (
	resistivity = 5.0
	copperHeat  = 3.45e-3
	sheathHeat  = 1.7e-3
)

// conduitFill is how much of a conduit's inner diameter its cables fill, and
// conduitWallM what it adds outside. Source: common practice, no source.
const (
	conduitFill  = 0.65
	conduitWallM = 0.003
)

// DiameterMM returns the conductor's and the cable's diameter, in mm, of one cable
// of a size; auto cable is named by the latter, with thinner insulation.
func (s Size) DiameterMM() (conductor, outer float64) {
	conductor = math.Sqrt(4 * s.AreaMM2 / (math.Pi * fill))
	i := 1
	for i < len(wall)-1 && wall[i].areaMM2 < s.AreaMM2 {
		i++
	}
	low, high := wall[i-1], wall[i]
	share := (s.AreaMM2 - low.areaMM2) / (high.areaMM2 - low.areaMM2)
	return conductor, conductor + 2*(low.mm+(high.mm-low.mm)*share)
}

// Thermal is a cable of this insulation where it lies.
func (n Insulation) Thermal(s Size, b Bay) Thermal {
	d, outer := s.DiameterMM()
	together := b.Laying.loaded(s.Count)
	t := Thermal{OhmPerM: s.eachOhmPerM(), AmbientC: b.AmbientC, cables: float64(together), count: float64(s.Count)}
	t.copper = copperHeat * s.AreaMM2 * 1000
	t.sheath = sheathHeat * math.Pi / 4 * (outer*outer - d*d) * 1000
	// A band round all that touch is the surface; each gives heat only outward.
	round := outer
	if together > 1 {
		round = outer * (1 + float64(together)/math.Pi)
	}
	t.inner = resistivity / (2 * math.Pi) * math.Log(outer/d) * t.cables * outer / round
	t.outM = round / 1000
	if b.Laying.Conduit {
		t.gapMM = round
		t.outM = round/1000/conduitFill + conduitWallM
	}
	return t
}

// conduitGap is the thermal resistance, in K·m/W, of the air between cables of
// diameter mm and their conduit at a mean temperature in °C.
//
// Source: IEC 60287-2-1, fibre duct in air: U = 5.2, V = 0.83, Y = 0.006 (from memory).
func conduitGap(mm, meanC float64) float64 { return 5.2 / (1 + 0.1*(0.83+0.006*meanC)*mm) }

// Still air and surfaces. Source: handbook values for air at 0 °C and their growth
// with temperature; emissivity 0.9 of plastics; all from memory. A cable lies against
// what it is fixed to, so that not all of it is exposed: common practice, no source.
const (
	kelvin     = 273.15
	gravity    = 9.81
	stefan     = 5.67e-8
	emissivity = 0.9
	prandtl    = 0.71
	exposed    = 0.85
)

// spread is the Prandtl number's part in Churchill and Chu's formula.
var spread = math.Pow(1+math.Pow(0.559/prandtl, 9.0/16), 8.0/27)

// surface returns what a cylinder of diameter outM at surfaceC gives off to still
// air and surroundings at ambientC, in W per metre and kelvin.
//
// Source: Churchill and Chu (1975) for natural convection from a horizontal
// cylinder; Stefan and Boltzmann for radiation.
func surface(outM, surfaceC, ambientC float64) float64 {
	rise := math.Max(surfaceC-ambientC, 0.1)
	filmC := (surfaceC + ambientC) / 2
	film := filmC + kelvin
	warm := film / kelvin
	conducts := 0.0241 + 7.2e-5*filmC
	viscous := 13.3e-6 * warm * math.Sqrt(warm*math.Sqrt(warm))
	grashof := gravity * rise / film * outM * outM * outM / (viscous * viscous)
	nusselt := 0.60 + 0.387*math.Sqrt(math.Cbrt(grashof*prandtl))/spread
	convection := nusselt * nusselt * conducts / outM
	a, b := surfaceC+kelvin, ambientC+kelvin
	radiation := emissivity * stefan * (a*a + b*b) * (a + b)
	return exposed * (convection + radiation) * math.Pi * outM
}

// Gives returns what the conductor at a temperature gives off, in W per metre of
// one cable and kelvin above its surroundings. A cooler surface gives off less.
func (t Thermal) Gives(conductorC float64) float64 {
	rise := math.Max(conductorC-t.AmbientC, 0.1)
	skinC, g := t.AmbientC+0.75*rise, 0.0
	for range 3 { // settles to a few parts in a thousand
		outside := surface(t.outM, skinC, t.AmbientC) / t.cables
		within := t.inner
		if t.gapMM > 0 {
			within += t.cables * conduitGap(t.gapMM, (conductorC+skinC)/2)
		}
		g = 1 / (within + 1/outside)
		skinC = t.AmbientC + rise*g/outside
	}
	return g
}

// Heating is how far a current heats a conductor, as a rise per unit of its
// resistance at 20 °C.
var Heating = working.Declare("k = (I / n)^2·r / G", "physics: Joule's law over the heat given off",
	working.Symbol{Letter: "k", Name: "heating", Unit: "K", Digits: 2},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "n", Name: "cables in parallel", Unit: "", Digits: 0},
	working.Symbol{Letter: "r", Name: "resistance per metre at 20 °C", Unit: "Ω/m", Digits: 6},
	working.Symbol{Letter: "G", Name: "heat given off", Unit: "W/(m·K)", Digits: 3})

// Warmth is the steady temperature of a conductor: heat I²·R(T) grows with
// copper's own resistance, heat given off with the temperature difference.
var Warmth = working.Declare("T = (T_a + k·(1 − 20·α)) / (1 − k·α)",
	"physics: heat balance; IEC 60287, Churchill and Chu for what is given off",
	working.Symbol{Letter: "T", Name: "conductor temperature", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "T_a", Name: "temperature of the place", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "k", Name: "heating", Unit: "K", Digits: 2},
	working.Symbol{Letter: "α", Name: "temperature coefficient of copper", Unit: "/K", Digits: 5})

// ByBalance is the current that holds a conductor at its limit.
var ByBalance = working.Declare("I_z = n·√(G·(θ − T_a) / (r·(1 + α·(θ − 20))))",
	"physics: heat balance; IEC 60287, Churchill and Chu for what is given off",
	working.Symbol{Letter: "I_z", Name: "may carry, by heat balance", Unit: "A", Digits: 0},
	working.Symbol{Letter: "n", Name: "cables in parallel", Unit: "", Digits: 0},
	working.Symbol{Letter: "G", Name: "heat given off at the limit", Unit: "W/(m·K)", Digits: 3},
	working.Symbol{Letter: "θ", Name: "insulation limit", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "T_a", Name: "temperature of the place", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "r", Name: "resistance per metre at 20 °C", Unit: "Ω/m", Digits: 6},
	working.Symbol{Letter: "α", Name: "temperature coefficient of copper", Unit: "/K", Digits: 5})

// SteadyC returns the steady conductor temperature, in °C, at amps through all its
// parallel cables together. It returns ErrRunaway where there is none below 400 °C.
func (t Thermal) SteadyC(amps float64) (float64, error) {
	c := t.AmbientC
	for range 40 {
		k := Heating.Value(amps, t.count, t.OhmPerM, t.Gives(c))
		if k*Alpha >= 1 {
			return 0, ErrRunaway
		}
		to := Warmth.Value(t.AmbientC, k, Alpha)
		if to > hottestC {
			// Hotter gives off more: try from above before giving up.
			to = (c + hottestC) / 2
			if to > hottestC-1 {
				return 0, ErrRunaway
			}
		}
		if math.Abs(to-c) < 0.05 {
			return to, nil
		}
		c = to
	}
	return c, nil
}

// Amps returns the current, in A through all parallel cables together, that holds
// the conductors at limitC; zero where the place is as hot.
func (t Thermal) Amps(limitC float64) float64 {
	if t.AmbientC >= limitC {
		return 0
	}
	return ByBalance.Value(t.count, t.Gives(limitC), limitC, t.AmbientC, t.OhmPerM, Alpha)
}

// HeatCapacity is the heat that a metre of one cable takes up for each kelvin, in J/(K·m).
func (t Thermal) HeatCapacity() float64 { return t.copper + t.sheath }

// Count is how many cables lie in parallel.
func (t Thermal) Count() float64 { return t.count }
