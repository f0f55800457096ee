package parts

import "epitrope/core/unit"

// Isolator is the card of a switch that parts a run by hand.
type Isolator struct {
	Label       string
	ContinuousA float64
	Ohm         float64
	CrankA      float64 // what it bears for the seconds of a start
}

// isolatorRatings are isolators as commonly sold, in A; isolatorOhm is a closed one with
// its studs, isolatorCrank what it bears for some seconds over its rating. Source: from
// memory.
var isolatorRatings = []float64{100, 200, 300, 500}

const (
	isolatorOhm   = 0.0003
	isolatorCrank = 4.0
)

// IsolatorOf is an isolator of a rating.
func IsolatorOf(ratingA float64) Isolator {
	return Isolator{Label: "isolator, " + unit.Plain(ratingA, "A", 0), ContinuousA: ratingA, Ohm: isolatorOhm, CrankA: isolatorCrank * ratingA}
}

// IsolatorFor is the smallest isolator that bears amps for hours, or the largest there is.
func IsolatorFor(amps float64) Isolator {
	for _, a := range isolatorRatings {
		if a >= amps {
			return IsolatorOf(a)
		}
	}
	return IsolatorOf(isolatorRatings[len(isolatorRatings)-1])
}

// ShuntHours is the share of its rating that a shunt bears for hours without losing its
// accuracy. Source: common practice, no source: two thirds.
const ShuntHours = 2.0 / 3

// DisconnectOhm is a low-voltage disconnect that is closed. Source: from memory.
const DisconnectOhm = 0.001

// SocketA is what a power contact of the 13-pin socket bears with the 2.5 mm² that it is
// wired with. Source: ISO 11446, from memory.
const (
	SocketA   = 15.0
	SocketMM2 = 2.5
	SocketOhm = 0.002 // one mated contact
)
