package job

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/unit"
)

// laying is how a cable lies; where its return runs along with it, side by side.
func laying(r *resolver, path string, given *string, along bool) cable.Laying {
	l, why := cable.Conduit, "conduit on everything (common practice, no source)"
	if along {
		l, why = cable.PairConduit, "the return comes back the same way, in the same conduit"
	}
	return cable.LayingByID(r.text(path, given, l.ID, why))
}

func bay(r *resolver, path string, given *float64, engine bool) cable.Bay {
	b, why := cable.Cabin(), "inside the vehicle"
	if engine {
		b, why = cable.EngineBay(), "it passes the engine space"
	}
	at := r.num(path, given, b.AmbientC, why)
	if given != nil {
		return cable.Ambient(at.Value)
	}
	return b
}

// Route is a guess at a route's length between two places: along, up and down,
// with slack. Source: common practice, no source.
func Route(from, to Point) float64 {
	m := slack * (math.Abs(to.X-from.X) + math.Abs(to.Y-from.Y) + upAndDownM)
	return unit.Round(m, 1)
}
