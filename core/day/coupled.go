package day

import "math"

// setCoupling puts what joins and what charges into the circuit, as it is switched.
func (r *runner) setCoupling() {
	n, h := r.rig.N, &r.h
	if j := r.rig.Join; j != nil {
		h.join.Closed = r.on.joined
		if h.rest != nil {
			h.rest.Set(h.restOhm)
			if r.on.joined {
				h.rest.Set(partedOhm)
			}
		}
		if h.coil != nil {
			amps := j.WatchA
			if r.on.joined {
				amps = j.HoldA
			}
			h.coil.Set(12 * n / amps)
		}
	}
	c := r.rig.Charger
	if c == nil {
		return
	}
	if h.signal != nil {
		h.signal.Set(12 * n / blockedA)
		if r.triggered(c.By) {
			h.signal.Set(c.SignalOhm)
		}
	}
	volts := c.Stages.SetV(r.on.stage)
	if !r.on.charging || volts == 0 {
		h.charger.MaxOutA, h.charger.CutOutV = blockedA, 0
		h.charger.OutV = r.rig.AuxN * c.Stages.AbsorptionV
		h.standby.Set(12 * n / c.StandbyA)
		if h.rest != nil && r.on.joined {
			h.standby.Set(12 * n / blockedA) // it hangs on the open rest contact
		}
		return
	}
	h.standby.Set(12 * n / blockedA) // what it takes is in its efficiency
	h.charger.OutV = r.rig.AuxN * volts
	h.charger.CutOutV = n * c.CutOutV
	h.charger.MaxOutA = math.Max(blockedA, c.OutputA*r.derate()*r.share)
	h.charger.MaxInA = c.MostInA
	if r.now.idles && c.IdleInA > 0 && (c.MostInA == 0 || c.IdleInA < c.MostInA) {
		h.charger.MaxInA = c.IdleInA
	}
	h.charger.Efficiency = r.efficiency
}
