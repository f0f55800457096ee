package prove

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"sync"

	"epitrope/core/fault"
)

// Cause is a fault that may explain what was read.
type Cause struct {
	ID        string   `json:"id"`
	Says      string   `json:"says"`
	Or        []string `json:"or" doc:"What no reading of this proof tells from it"`
	Same      []string `json:"same" doc:"… by their ids"`
	Share     float64  `json:"share" doc:"Of all that may be wrong alone, how much speaks for it: 0 to 1"`
	Endangers string   `json:"endangers,omitempty"`
	Mend      string   `json:"mend"`
}

// suspect is a fault with what each reading comes to with it: in several draws, and in each of several sizes, the smallest first.
type suspect struct {
	fault.Fault
	rows   [][]row
	others []fault.Fault // that no reading tells from it
}

// suspects are worked out when something is wrong, once.
type suspects struct {
	once sync.Once
	list []suspect
}

// In how many draws a fault is tried, in how many sizes, and how many between two of them are read off a line.
const (
	tries   = 4
	sizes   = 12
	between = 6
)

func (p *Proof) suspects() []suspect {
	p.sought.once.Do(func() {
		for _, f := range fault.Of(p.d) {
			s, trial := suspect{Fault: f}, p.Try(f)
			for k := range tries {
				w := drawn(p.d, rand.New(rand.NewPCG(uint64(k), 2300)))
				list := []row{}
				for _, share := range shares(f) {
					list = append(list, trial.read(w, []Sized{{f, f.Size(share)}}, nil))
				}
				s.rows = append(s.rows, list)
			}
			p.gather(s)
		}
	})
	return p.sought.list
}

// shares are where between its least and its most a fault is tried: once, where it has but one size.
func shares(f fault.Fault) []float64 {
	if f.Least <= 0 {
		return []float64{1}
	}
	list := make([]float64, sizes)
	for k := range list {
		list[k] = float64(k) / (sizes - 1)
	}
	return list
}

// each goes through what a suspect's readings come to, draw by draw, by size, and between two sizes along a line.
func (s suspect) each(see func(values []float64, jumps []bool)) {
	for _, list := range s.rows {
		for k, at := range list {
			see(at.values, at.jumps)
			if k == len(list)-1 {
				break
			}
			next, mid := list[k+1], make([]float64, len(at.values))
			for part := 1; part < between; part++ {
				t := float64(part) / between
				for i := range mid {
					mid[i] = (1-t)*at.values[i] + t*next.values[i]
				}
				see(mid, at.jumps)
			}
		}
	}
}

// gather puts a suspect to those that no reading tells from it.
func (p *Proof) gather(s suspect) {
	for i := range p.sought.list {
		if same := &p.sought.list[i]; p.alike(same.rows, s.rows) {
			same.others = append(same.others, s.Fault)
			return
		}
	}
	p.sought.list = append(p.sought.list, s)
}

// alike says whether two faults show the same, size by size, on every reading.
func (p *Proof) alike(a, b [][]row) bool {
	if len(a[0]) != len(b[0]) {
		return false
	}
	for k := range a {
		for size := range a[k] {
			for i, x := range a[k][size].values {
				if a[k][size].jumps[i] != b[k][size].jumps[i] || math.Abs(x-b[k][size].values[i]) > p.spread(i, x) {
					return false
				}
			}
		}
	}
	return true
}

// How unlikely a reading may make a fault at most, and one that comes to no stand with it; in natural logarithms.
const (
	mostAgainst = 18.0
	noStand     = 4.0
)

// shownCauses are how many faults are named.
const shownCauses = 5

// causes are the faults that explain what was read, likeliest first.
func (p *Proof) causes(read []Meaning) []Cause {
	likely := map[string]float64{}
	list := p.suspects()
	total := 0.0
	for _, s := range list {
		tried := 0.0
		s.each(func(values []float64, jumps []bool) {
			tried++
			likely[s.ID] += math.Exp(-p.against(values, jumps, read))
		})
		likely[s.ID] /= tried
		total += likely[s.ID]
	}
	list = slices.Clone(list)
	slices.SortStableFunc(list, func(a, b suspect) int { return cmp.Compare(likely[b.ID], likely[a.ID]) })
	out := []Cause{}
	for _, s := range list[:min(shownCauses, len(list))] {
		if total > 0 && likely[s.ID]/total > 0.01 {
			c := Cause{ID: s.ID, Says: s.Says, Share: likely[s.ID] / total, Endangers: s.Endangers, Mend: s.Mend, Or: []string{},
				Same: []string{}}
			for _, f := range s.others {
				c.Or, c.Same = append(c.Or, f.Says), append(c.Same, f.ID)
			}
			out = append(out, c)
		}
	}
	return out
}

// against is how much what was read speaks against a draw.
func (p *Proof) against(values []float64, jumps []bool, read []Meaning) float64 {
	sum := 0.0
	for _, v := range read {
		i := p.at(v.ID)
		if v.Level == Impossible {
			continue
		}
		if jumps[i] != v.Jumps {
			sum += noStand
		}
		if math.IsNaN(values[i]) {
			continue
		}
		off := (v.Value - values[i]) / p.spread(i, values[i])
		sum += math.Min(mostAgainst, off*off/2)
	}
	return sum
}

// spread is how far a reading may be from what one draw says of it: a part of its band, the meter's error, and of the value
// itself.
func (p *Proof) spread(i int, value float64) float64 {
	b := p.base[i]
	return max((b.Likely[1]-b.Likely[0])/4, p.Readings[i].error(value), ofValue*math.Abs(value))
}

// ofValue is how much of a value with a fault is the draw's.
const ofValue = 0.03

// tells is the reading not taken yet that tells the likeliest faults apart best; "" where there are not two, or none does.
func (p *Proof) tells(o Findings) string {
	causes := o.Causes
	if len(causes) < 2 {
		return ""
	}
	best, most := "", 1.0
	for i, r := range p.Readings {
		if _, asked := o.Bands[r.ID]; !asked {
			continue
		}
		means := []float64{}
		for _, c := range causes {
			at := slices.IndexFunc(p.suspects(), func(s suspect) bool { return s.ID == c.ID })
			sum, used := 0.0, 0.0
			p.suspects()[at].each(func(values []float64, _ []bool) {
				if !math.IsNaN(values[i]) {
					sum, used = sum+values[i], used+1
				}
			})
			if used > 0 {
				means = append(means, sum/used)
			}
		}
		if len(means) < 2 {
			continue
		}
		if apart := (slices.Max(means) - slices.Min(means)) / p.spread(i, slices.Min(means)); apart > most {
			best, most = r.ID, apart
		}
	}
	return best
}
