package judge

import (
	"fmt"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/network"
	"epitrope/core/run"
	"epitrope/core/unit"
)

// Shares returns what part of a current each of several batteries in parallel carries,
// 0 to 1, with links of linkOhm between neighbours on both sides and ohms of each
// battery's own. By opposite corners the feed's plus comes to the first and its minus to the
// last; otherwise both come to the first.
//
// Source: Kirchhoff's laws.
func Shares(ohms []float64, linkOhm float64, corners bool) ([]float64, error) {
	const amps = 100.0
	n := len(ohms)
	c := network.New()
	plus := func(i int) network.Node { return c.Node(fmt.Sprintf("plus %d", i)) }
	minus := func(i int) network.Node {
		if i == 0 {
			return network.Ground
		}
		return c.Node(fmt.Sprintf("minus %d", i))
	}
	for i := range n {
		c.Add(network.Battery{Name: fmt.Sprintf("battery %d", i), Plus: plus(i), Minus: minus(i), Volts: 12, Ohm: ohms[i]})
		if i > 0 {
			c.Add(network.Resistance{Name: fmt.Sprintf("link plus %d", i), A: plus(i - 1), B: plus(i), Ohm: linkOhm},
				network.Resistance{Name: fmt.Sprintf("link minus %d", i), A: minus(i - 1), B: minus(i), Ohm: linkOhm})
		}
	}
	last := 0
	if corners {
		last = n - 1
	}
	c.Add(network.CurrentLoad{Name: "load", A: plus(0), B: minus(last), Amps: amps})
	solved, err := network.Solve(c)
	if err != nil {
		return nil, err
	}
	shares := make([]float64, n)
	for i := range n {
		across := circuit.Had(solved.At(fmt.Sprintf("plus %d", i)))
		if i > 0 {
			across -= circuit.Had(solved.At(fmt.Sprintf("minus %d", i)))
		}
		shares[i] = (12 - across) / ohms[i] / amps
	}
	return shares, nil
}

// BankShare is a battery's part of the bank's current.
type BankShare struct {
	Battery int     `json:"battery"`
	Share   float64 `json:"share" doc:"In %"`
	PathMO  float64 `json:"pathMilliohm" doc:"Battery and links that its current meets, as if alone"`
}

// unequalBy is how far the largest share may lie above an equal one. Source: common
// practice, no source.
const unequalBy = 0.10

// Bank is what each battery of a parallel bank carries; empty for one battery.
func Bank(d *design.Design) []BankShare {
	v := d.Facts.Survey
	n := int(v.AuxCount.Value)
	if n < 2 {
		return []BankShare{}
	}
	ohms := bankOhms(d, n)
	link := v.AuxLinkM.Value*d.Aux.Trial.Size.OhmPerM() + 2*run.JointOhm
	shares, err := Shares(ohms, link, v.AuxFeed != "end")
	if err != nil {
		return []BankShare{}
	}
	list := make([]BankShare, n)
	for i, s := range shares {
		links := float64(n - 1) // by opposite corners every path has the same number
		if v.AuxFeed == "end" {
			links = 2 * float64(i)
		}
		list[i] = BankShare{Battery: i + 1, Share: unit.Round(100*s, 1), PathMO: unit.Round(1000*(ohms[i]+links*link), 2)}
	}
	return list
}

// olderBy is by how much a battery's own resistance rises in a year. Source: from memory: about twice as much after
// eight years.
const olderBy = 1.0 / 8

// bankOhms are the own resistances of a bank's batteries: alike, or as they were listed.
func bankOhms(d *design.Design, n int) []float64 {
	list := make([]float64, n)
	for i := range list {
		list[i] = d.Facts.Chemistry.Ohm(d.Facts.AuxAh.Value/float64(n), d.Facts.AuxN)
		if i < len(d.Facts.Bank) {
			b := d.Facts.Bank[i]
			list[i] = b.Chemistry.Ohm(b.Ah, d.Facts.AuxN)
			if b.AgeYears != nil {
				list[i] *= 1 + olderBy**b.AgeYears
			}
		}
	}
	return list
}

// evens is what flows between two batteries of different kinds in one bank as they are joined at rest, both full: from
// the one that rests higher to the other. ok is false where all are of one kind.
func evens(d *design.Design) (from, to string, amps float64, ok bool) {
	ohms, link := bankOhms(d, len(d.Facts.Bank)), d.Facts.Survey.AuxLinkM.Value*d.Aux.Trial.Size.OhmPerM()+2*run.JointOhm
	for i, a := range d.Facts.Bank {
		for j, b := range d.Facts.Bank {
			rise := (a.Chemistry.RestV(1) - b.Chemistry.RestV(1)) * d.Facts.AuxN
			if a.Chemistry.ID == b.Chemistry.ID || rise < 0 {
				continue
			}
			if flows := rise / (ohms[i] + ohms[j] + 2*link); !ok || flows > amps {
				from, to, amps, ok = a.Chemistry.Label, b.Chemistry.Label, flows, true
			}
		}
	}
	return from, to, amps, ok
}
