package trace_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/system"
	"epitrope/core/trace"
)

// halved looks for a vehicle's fault as a good textbook has it: the complaint's own reading first, both batteries, the signal, then the run
// halved between what is good and what is not, down to one part, and a look at it; then the next part. A reading is good where it is
// what sound installations show. It stops when it finds; found is false where only a look at every part is left, one after the other:
// then ours is held against nothing.
func halved(v vehicle, seed uint64) (minutes float64, found bool) {
	h := &halving{v: v, r: rand.New(rand.NewPCG(seed, 3))}
	for _, id := range []string{"start-rest", "aux-rest", "signal-asleep", "drain", "start-running", "signal-running", "charge"} {
		if parked := id == "signal-asleep" || id == "drain"; parked != (v.complaint == "start-flat" || v.complaint == "house-flat") &&
			(parked || strings.HasSuffix(id, "running") || id == "charge") {
			continue // asked of a drain, or of a charge
		}
		if good, read := h.good(id); read && !good && h.parts(id) {
			return h.minutes, true
		}
	}
	way := h.way()
	low, high := 0, len(way) // the first that is not good lies in between
	for high-low > 1 {
		mid := (low + high) / 2
		if good, read := h.good(way[mid].id); !read || good {
			low = mid
		} else {
			high = mid
		}
	}
	order := []string{}
	for _, at := range []int{low, low + 1, low - 1} {
		if at >= 0 && at < len(way) {
			order = append(order, way[at].at...)
		}
	}
	for _, stretch := range []string{"lost-start", "lost-aux", "lost-back"} { // where volts are there, and fall away with current
		if good, read := h.good(stretch); read && !good && h.pieces(stretch) {
			return h.minutes, true
		}
	}
	for _, at := range order {
		if h.look(at) {
			return h.minutes, true
		}
	}
	return h.minutes, false
}

// halving is a search as a textbook has it.
type halving struct {
	v       vehicle
	r       *rand.Rand
	minutes float64
	was     string
	looked  []string
}

// good takes a reading, and says whether a sound installation would show it.
func (h *halving) good(id string) (good, read bool) {
	p := h.v.v.Proof
	i := slices.IndexFunc(p.Readings, func(r prove.Reading) bool { return r.ID == id })
	if i < 0 {
		return true, false
	}
	r := p.Readings[i]
	h.minutes += trace.Minutes(r, h.was)
	h.was = r.Station
	value, stands := h.v.reads(r)
	b := p.Sound(i)
	return stands && value >= b.Possible[0] && value <= b.Possible[1], true
}

// look looks at a place; it is found there as surely as by anybody.
func (h *halving) look(at string) bool {
	if slices.Contains(h.looked, at) {
		return false
	}
	h.looked = append(h.looked, at)
	least := math.Inf(1) // what is quickest to see there is looked at
	for _, f := range fault.Of(h.v.v.Design) {
		if f.At == at {
			least = min(least, trace.LookMinutes(f.Kind))
		}
	}
	if math.IsInf(least, 1) {
		return false // nothing can be wrong there
	}
	h.minutes += least
	return h.v.v.Fault().At == at && h.r.Float64() < 0.8
}

// parts are looked at that a reading is of.
func (h *halving) parts(id string) bool {
	of := map[string][]string{"start-rest": {"start"}, "aux-rest": {"aux"}, "start-running": {"alternator"}, "drain": {"start", "feed"},
		"signal-asleep": {"feed"}, "signal-running": {"feed", "f3", "t1", "t1b"}}
	for _, at := range of[id] {
		if h.look(at) {
			return true
		}
	}
	return false
}

// along is a reading along the run, with what lies before it.
type along struct {
	id string
	at []string
}

// way are the points of the run from one battery to the other, in its order.
func (h *halving) way() (list []along) {
	sys := &h.v.v.Design.System
	before := []string{}
	point := func(at system.Terminal) {
		for _, r := range h.v.v.Proof.Readings {
			if r.Station == prove.FastIdle && r.Unit == prove.Volts && !r.Drop && r.Moved == "" && r.Red.Node() == at.Node() {
				list = append(list, along{r.ID, before})
				before = nil
				return
			}
		}
	}
	for _, s := range sys.Way() {
		for _, w := range append(append(slices.Clone(s.Before), s.Cable...), s.After...) {
			before = append(before, w.ID)
		}
		if s.Component != nil {
			point(s.From)
			before = append(before, s.Component.ID)
			point(s.To)
		}
	}
	return list
}

// pieces of a stretch are read one by one, and looked at where one loses too much.
func (h *halving) pieces(stretch string) bool {
	worst, most := "", 0.0
	p := h.v.v.Proof
	for i, r := range p.Readings {
		if r.Of != stretch {
			continue
		}
		h.minutes += trace.Minutes(r, h.was)
		if value, ok := h.v.reads(r); ok {
			if over := math.Abs(value) - p.Sound(i).Possible[1]; over > most {
				worst, most = r.ID, over
			}
		}
	}
	parts := strings.Split(worst, "-")
	return len(parts) > 1 && h.look(parts[1])
}
