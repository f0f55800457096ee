package judge

import (
	"fmt"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/network"
	"epitrope/core/run"
	"epitrope/core/unit"
)

// Shares returns what part of a current each of n equal batteries in parallel carries,
// 0 to 1, with links of linkOhm between neighbours on both sides and bankOhm for each
// battery. By opposite corners the feed's plus comes to the first and its minus to the
// last; otherwise both come to the first.
//
// Source: Kirchhoff's laws.
func Shares(n int, linkOhm, bankOhm float64, corners bool) ([]float64, error) {
	const amps = 100.0
	c := network.New()
	plus := func(i int) network.Node { return c.Node(fmt.Sprintf("plus %d", i)) }
	minus := func(i int) network.Node {
		if i == 0 {
			return network.Ground
		}
		return c.Node(fmt.Sprintf("minus %d", i))
	}
	for i := range n {
		c.Add(network.Battery{Name: fmt.Sprintf("battery %d", i), Plus: plus(i), Minus: minus(i), Volts: 12, Ohm: bankOhm})
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
		shares[i] = (12 - across) / bankOhm / amps
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
	each := d.Facts.Chemistry.Ohm(d.Facts.AuxAh.Value/float64(n), d.Facts.N)
	link := v.AuxLinkM.Value*d.Aux.Trial.Size.OhmPerM() + 2*run.JointOhm
	shares, err := Shares(n, link, each, v.AuxFeed != "end")
	if err != nil {
		return []BankShare{}
	}
	list := make([]BankShare, n)
	for i, s := range shares {
		links := float64(n - 1) // by opposite corners every path has the same number
		if v.AuxFeed == "end" {
			links = 2 * float64(i)
		}
		list[i] = BankShare{Battery: i + 1, Share: unit.Round(100*s, 1), PathMO: unit.Round(1000*(each+links*link), 2)}
	}
	return list
}
