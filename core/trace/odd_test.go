package trace_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/core/system"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
)

// odd are changes that no fault of the library makes, each over its whole range.
var odd = map[string]func(d *design.Design, v *standin.Vehicle, r *rand.Rand){
	"a forgotten feed": func(d *design.Design, v *standin.Vehicle, r *rand.Rand) {
		w := anyWire(d, r)
		ohm := 0.05 * math.Pow(60, r.Float64())
		v.Changed(func(s system.System) system.System {
			return joined(s, system.Terminal{Component: "start", Terminal: "30"}, w.To, ohm)
		}, nil)
	},
	"a consumer that only runs with the engine": func(_ *design.Design, v *standin.Vehicle, r *rand.Rand) {
		amps := 10 + 40*r.Float64()
		v.Changed(nil, func(s *circuit.State) {
			if s.SetV > 0 {
				s.HouseA += amps
			}
		})
	},
	"two wires crossed": func(d *design.Design, v *standin.Vehicle, r *rand.Rand) {
		a, b := anyWire(d, r).ID, anyWire(d, r).ID
		v.Changed(func(s system.System) system.System {
			s.Wires = slices.Clone(s.Wires)
			i := slices.IndexFunc(s.Wires, func(w system.Wire) bool { return w.ID == a })
			k := slices.IndexFunc(s.Wires, func(w system.Wire) bool { return w.ID == b })
			if s.Wires[i].From.Node() == s.Wires[k].To.Node() || s.Wires[k].From.Node() == s.Wires[i].To.Node() {
				return s // they meet
			}
			s.Wires[i].To, s.Wires[k].To = s.Wires[k].To, s.Wires[i].To
			for n, w := range slices.Clone(s.Wires) { // what floats is held by damp
				for end, t := range []system.Terminal{w.From, w.To} {
					if t.Node() != d.System.Ends.Minus.Node() {
						s.Join(system.Wire{ID: fmt.Sprint("damp ", n, end), Role: system.Feed, From: t, To: d.System.Ends.Minus, Ohm: 1e6})
					}
				}
			}
			return s
		}, nil)
	},
	"a bridge": func(d *design.Design, v *standin.Vehicle, r *rand.Rand) {
		a, b := anyWire(d, r), anyWire(d, r)
		ohm := 0.02 * math.Pow(50, r.Float64())
		v.Changed(func(s system.System) system.System { return joined(s, a.From, b.To, ohm) }, nil)
	},
	"a battery of another chemistry": func(d *design.Design, v *standin.Vehicle, r *rand.Rand) {
		volts := (0.9 + 1.5*r.Float64()) * d.Facts.AuxN
		v.Changed(nil, func(s *circuit.State) { s.AuxOwnV += volts })
	},
}

func anyWire(d *design.Design, r *rand.Rand) system.Wire {
	for {
		if w := d.System.Wires[r.IntN(len(d.System.Wires))]; w.Role == system.Feed || w.Role == system.Signal {
			return w
		}
	}
}

func joined(s system.System, a, b system.Terminal, ohm float64) system.System {
	if a.Node() == b.Node() {
		return s
	}
	s.Wires = slices.Clone(s.Wires)
	s.Join(system.Wire{ID: "odd", Role: system.Feed, From: a, To: b, Ohm: ohm})
	return s
}

// shows says whether the same vehicle with a fault of the library, of some size, shows what one shows in every reading: then no meter
// tells the two apart, and the name is as good as any.
func shows(d *design.Design, p *prove.Proof, seed uint64, odd *standin.Vehicle, name string) bool {
	faults := append(fault.Of(d), fault.AtTimes(fault.Of(d))...)
	f := faults[slices.IndexFunc(faults, func(f fault.Fault) bool { return f.ID == name })].Standing()
	for k := range 25 {
		known := standin.Build(d, p, seed).With(f, f.Size(float64(k)/24))
		if !slices.ContainsFunc(p.Readings, func(r prove.Reading) bool {
			ours, stands := odd.Exact(r)
			theirs, also := known.Exact(r)
			return stands != also || stands && math.Abs(ours-theirs) > 3*r.Off(ours)
		}) {
			return true
		}
	}
	return false
}

// What nobody has thought of ends as that, and is never named as something else with much certainty.
func TestWhatIsNotKnownIsNotNamed(t *testing.T) {
	list := documents(t, 4)
	named, none, same, all := map[string]int{}, 0, 0, 0
	most := jobtest.Fewer(few(200), 2)
	for i := 0; all < most; i++ {
		d := design.Of(list[i%len(list)], parts.Stock())
		p, tr := prove.Wider(d), trace.Of(d)
		r := rand.New(rand.NewPCG(uint64(i), 77))
		for _, kind := range []string{"a forgotten feed", "two wires crossed", "a bridge", "a consumer that only runs with the engine",
			"a battery of another chemistry"} {
			seed := r.Uint64()
			sound, faulty := standin.Build(d, p, seed), standin.Build(d, p, seed)
			odd[kind](d, faulty, r)
			says := owner(sound, faulty)
			if says == "" {
				continue
			}
			all++
			if os.Getenv("EPITROPE_TRACE") != "" {
				t.Logf("=== %s, %s", kind, says)
			}
			out := look(t, vehicle{tr, faulty, says, faulty.Reads, sound, 0, nil}, 14, r, os.Getenv("EPITROPE_TRACE") != "")
			switch {
			case out.share < 0.6:
			case shows(d, p, seed, faulty, out.name):
				same++
			default:
				named[kind+" as "+out.name]++
				t.Logf("--- named")
			}
			if out.none > out.share {
				none++
			}
		}
	}
	total := 0
	for _, n := range named {
		total += n
	}
	t.Logf("%d vehicles: %d end as not known, %d as what shows the same in every reading; %d are named: %v", all, none, same, total, named)
	assert.LessOrEqual(t, 100*float64(total), ofSo(all, 2,
		20)*float64(all)) // two wires crossed at a feed are a feed that is always live, to a meter
}
