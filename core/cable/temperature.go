package cable

import (
	"errors"
	"math"
)

// ErrRunaway is a current at which a conductor finds no steady temperature.
var ErrRunaway = errors.New("no steady temperature: the cable burns")

// hottestC is where copper's insulation is long gone; a steady temperature above
// it is reported as no steady temperature.
const hottestC = 400

// ConductorC returns the steady conductor temperature, in °C, at amps in a place
// of ambientC, for a cable that reaches limitC at freeAirA in free air at 30 °C.
// Heat I²·R(T) grows with copper's own resistance; heat given off is taken in
// proportion to the temperature difference. It returns ErrRunaway where there is
// no steady state below 400 °C.
//
// Source: physics; calibrated by the ampacity tables.
func ConductorC(amps, freeAirA, limitC, ambientC float64) (float64, error) {
	load := amps / freeAirA
	k := load * load * (limitC - CabinC) / (1 + Alpha*(limitC-20))
	left := 1 - k*Alpha
	if left <= 0 {
		return 0, ErrRunaway
	}
	t := (ambientC + k*(1-20*Alpha)) / left
	if t > hottestC {
		return 0, ErrRunaway
	}
	return t, nil
}

// Insulation temperatures at the end of a short circuit, in °C, by class, and the
// copper constant β. Source: IEC 60949, IEC 60364-4-43; 160 °C for 85 and 105 °C
// classes on the safe side.
const (
	shortLimitC = 160.0
	beta        = 234.5
	copperK     = 226.0
)

// ShortK returns the adiabatic constant k, in A·√s/mm², of copper from its
// running temperature startC to finalC: 115 from 70 to 160 °C, 143 from 90 to
// 250 °C. It is zero where startC is not below finalC.
//
// Source: IEC 60949: k = 226·√(ln((234.5+θf)/(234.5+θi))).
func ShortK(startC, finalC float64) float64 {
	if startC >= finalC {
		return 0
	}
	return copperK * math.Sqrt(math.Log((beta+finalC)/(beta+startC)))
}

// Bears returns how many seconds a conductor of areaMM2 at startC bears a fault
// current, without giving off heat: t = (k·S/I)². Beyond about five seconds it
// is on the safe side.
//
// Source: IEC 60949, IEC 60364-4-43.
func Bears(faultA, areaMM2, startC float64) float64 {
	root := ShortK(startC, shortLimitC) * areaMM2 / faultA
	return root * root
}
