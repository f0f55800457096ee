package cable

import (
	"math"

	"epitrope/core/working"
)

// ShortLimitC is the conductor temperature, in °C, that insulation bears at the
// end of a short circuit: 160 for PVC; the other classes are taken at the same, on
// the safe side. Source: IEC 60949, IEC 60364-4-43.
const ShortLimitC = 160.0

// adiabaticS is how long the adiabatic limit is good for. Source: IEC 60364-4-43.
const adiabaticS = 5.0

// What insulation bears above its class, and for how long. Source: ISO 6722 thermal
// overload (6 h at 50 K over) and short-term ageing (240 h at 25 K over), from memory.
const (
	overloadK, overloadS = 50.0, 6 * 3600.0
	ageingK, ageingS     = 25.0, 240 * 3600.0
)

// ShortConstant is the adiabatic constant of copper between two temperatures.
var ShortConstant = working.Declare("k = 226·√(ln((234.5 + θ_f) / (234.5 + θ_i)))", "IEC 60949",
	working.Symbol{Letter: "k", Name: "short-circuit constant", Unit: "A√s/mm²", Digits: 0},
	working.Symbol{Letter: "θ_f", Name: "bears at the end", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "θ_i", Name: "running temperature", Unit: "°C", Digits: 0})

// BearsFor is how long a conductor bears a fault without giving off heat.
var BearsFor = working.Declare("t = (k·S / I_k)^2", "IEC 60949, IEC 60364-4-43; good to about 5 s",
	working.Symbol{Letter: "t", Name: "cable bears the fault for", Unit: "s", Digits: 2},
	working.Symbol{Letter: "k", Name: "short-circuit constant", Unit: "A√s/mm²", Digits: 0},
	working.Symbol{Letter: "S", Name: "copper area", Unit: "mm²", Digits: 1},
	working.Symbol{Letter: "I_k", Name: "fault current", Unit: "A", Digits: 0})

// ShortK returns the adiabatic constant of copper from its running temperature
// startC to finalC: 115 from 70 to 160 °C, 143 from 90 to 250 °C. It is zero where
// startC is not below finalC.
func ShortK(startC, finalC float64) float64 {
	if startC >= finalC {
		return 0
	}
	return ShortConstant.Value(finalC, startC)
}

// Adiabatic returns how many seconds a conductor of areaMM2 at startC bears a fault
// when it gives off no heat.
func Adiabatic(faultA, areaMM2, startC float64) float64 {
	return BearsFor.Value(ShortK(startC, ShortLimitC), areaMM2, faultA)
}

// Fault is a cable as a fault finds it: where it lies, at its running temperature.
// Of parallel cables one alone is taken to carry the fault, as it may lie in one.
type Fault struct {
	areaMM2 float64
	startC  float64
	limitC  float64
	thermal Thermal
	gives   [3]float64 // at the class limit and what it bears above it, W/(m·K)
}

// Faulted is a size where it lies, running at startC (not above 160 °C).
func (n Insulation) Faulted(s Size, b Bay, startC float64) Fault {
	one := s
	one.Count = 1
	f := Fault{areaMM2: s.AreaMM2, startC: startC, limitC: n.LimitC, thermal: n.Thermal(one, b)}
	f.gives = [3]float64{f.thermal.Gives(n.LimitC), f.thermal.Gives(n.LimitC + ageingK), f.thermal.Gives(n.LimitC + overloadK)}
	return f
}

// Bears returns how many seconds the cable bears a current: to about 5 s the
// adiabatic limit; beyond it the time in which the heat balance brings it to what
// its insulation bears for so long; +Inf where it stays within its class.
//
// Source: IEC 60949 to 5 s; ISO 6722 overload and short-term ageing beyond (from memory).
func (f Fault) Bears(amps float64) float64 {
	short := Adiabatic(amps, f.areaMM2, f.startC)
	if short <= adiabaticS {
		return short
	}
	if t := f.reaches(amps, math.Min(f.limitC+overloadK, ShortLimitC), f.gives[2]); t < overloadS {
		return math.Max(adiabaticS, t)
	}
	if t := f.reaches(amps, f.limitC+ageingK, f.gives[1]); t < ageingS {
		return overloadS
	}
	if t := f.reaches(amps, f.limitC, f.gives[0]); t < math.Inf(1) {
		return ageingS
	}
	return math.Inf(1)
}

// reaches is the time to a temperature with the heat given off there.
func (f Fault) reaches(amps, toC, gives float64) float64 {
	return rise(amps, f.startC, toC, f.thermal, gives, f.thermal.copper)
}

// Reaches returns the time, in s, in which a current through all parallel cables
// together brings a cable from one temperature to a higher one; +Inf where it never
// gets there. The heat it gives off is taken at the average of the two.
func (t Thermal) Reaches(amps, fromC, toC float64) float64 {
	return rise(amps/t.count, fromC, toC, t, t.Gives((fromC+toC)/2), t.copper+t.sheath)
}

// rise solves C·dT/dt = I²·r·(1 + α·(T − 20)) − G·(T − T_a), which is a·T + b.
func rise(amps, fromC, toC float64, t Thermal, gives, heat float64) float64 {
	if toC <= fromC {
		return 0
	}
	joule := amps * amps * t.OhmPerM
	a := joule*Alpha - gives
	b := joule*(1-20*Alpha) + gives*t.AmbientC
	if a*fromC+b <= 0 || a*toC+b <= 0 {
		return math.Inf(1)
	}
	if math.Abs(a) < 1e-9 {
		return heat * (toC - fromC) / b
	}
	return heat / a * math.Log((a*toC+b)/(a*fromC+b))
}
