package prove

import (
	"math/rand/v2"

	"epitrope/core/design"
)

// Wider is a proof of what is there, whatever stops it, and every point that a probe reaches besides: what is asked where
// something fails.
func Wider(d *design.Design) *Proof {
	return design.Kept(d, "wider proof", func(d *design.Design) *Proof {
		p := &Proof{d: d, sought: &suspects{}, wide: true}
		for _, rpm := range heldAt {
			if p.lay(rpm); p.steady() {
				break
			}
		}
		return p
	})
}

// Draw is one installation as it may be, in a world as it may be.
type Draw struct{ draw }

// Drawn is a draw of the proof's installation, the same for the same number.
func (p *Proof) Drawn(number uint64) Draw {
	return Draw{drawn(p.d, rand.New(rand.NewPCG(number, 2500)))}
}

// Off is how far a meter may be off at a reading, as one time in three it is further, in the reading's unit.
func (r Reading) Off(value float64) float64 { return r.error(value) }

// Sound is what a reading is expected to be with nothing wrong, and nothing read before it.
func (p *Proof) Sound(i int) Bounds { return p.base[i] }
