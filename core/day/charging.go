package day

import (
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/unit"
)

// triggered says whether a signal is live.
func (r *runner) triggered(by Trigger) bool {
	switch {
	case by.Sensed:
		return r.on.engine
	case r.now.running:
		return by.Running
	case r.on.stalled || !r.now.kind.live():
		return by.Out
	case r.now.kind.cranks():
		return by.Cranking
	}
	return by.On
}

// signalled says whether a charger's signal is live, with volts enough.
func (r *runner) signalled(s *sight) bool {
	c := r.rig.Charger
	return r.triggered(c.By) && (c.By == Sensed || s.busV >= c.LiveV*r.rig.N)
}

// A high-current stage looks for bypassS before it joins, and for bypassOpenS before it parts: the rush of a
// join pulls its start side down for some seconds. Source: from memory.
const (
	bypassS     = 5.0
	bypassOpenS = 30.0
)

// switchDetection lets a charger without a signal take the engine for running, or stopped,
// once its input was high, or low, for long enough.
func (r *runner) switchDetection(w wishes) bool {
	c := r.rig.Charger
	if c == nil || c.By != Sensed {
		return false
	}
	if !w.engine {
		r.on.engineAt = never
		return false
	}
	_, after := c.Senses.Wants(r.on.engine, r.senses(&r.x, &r.s), 0)
	if r.on.engineAt == never {
		r.on.engineAt = r.t + after
	}
	if r.t < r.on.engineAt-located {
		return false
	}
	r.on.engine, r.on.engineAt = !r.on.engine, never
	volts, word := unit.Text(r.s.sensedV, "V", 1), "stopped"
	if r.on.engine {
		word = "running"
	}
	r.happened("charger.takes."+word, "coupling", "the charger takes the engine for "+word+", at "+volts)
	if r.on.engine != r.now.running {
		r.result.Verdict.Mistaken++
	}
	return true
}

func (r *runner) switchCharger(w wishes) bool {
	c := r.rig.Charger
	if c == nil {
		return false
	}
	j := r.rig.Join
	cutOff := j != nil && (j.Rest != "" || j.By == ByBypass) && r.on.joined // its input is open, or it is bypassed
	if !r.signalled(&r.s) || cutOff {
		r.on.chargeAt, r.on.restartAt = never, never
		if r.on.charging {
			r.on.charging, r.on.stage, r.on.stageAt = false, coupling.Resting, never
			why := "its trigger is dead"
			if cutOff {
				why = "the batteries are joined past it"
			}
			r.happened("charger.off", "coupling", "the charger rests: "+why)
			return true
		}
		return false
	}
	if r.on.charging {
		if !w.starved {
			return false
		}
		r.on.charging, r.on.stage, r.on.stageAt = false, coupling.Resting, never
		r.on.restartAt = r.t + c.RestartS
		if c.By != Sensed || r.now.running { // one that watches the voltage stops so after the engine does
			r.result.Verdict.Starved++
		}
		r.happened("charger.starved", "coupling", "the charger stops: its input is below "+unit.Text(c.CutOutV*r.rig.N, "V", 1))
		return true
	}
	if r.on.restartAt < never {
		if r.t < r.on.restartAt-located || !w.restart {
			return false
		}
	} else if r.on.chargeAt == never {
		r.on.chargeAt = r.t + c.DelayS
	}
	if r.on.restartAt == never {
		if r.t < r.on.chargeAt-located {
			return false
		}
		if r.s.sensedV < c.RestartV*r.rig.N { // it begins at no less than it begins anew at
			r.on.chargeAt, r.on.restartAt = never, r.t
			return false
		}
	}
	r.on.charging, r.on.chargeAt, r.on.restartAt = true, never, never
	r.x[soft] = 0
	r.begin(coupling.Bulk)
	r.happened("charger.on", "coupling", "the charger begins: bulk")
	return true
}

func (r *runner) begin(stage coupling.Stage) {
	r.on.stage, r.on.stageFrom, r.on.stageAt = stage, r.t, never
	if stage == coupling.Bulk { // it begins with all that it has
		r.efficiency = r.efficiencyOf(1, &r.s)
	} else {
		r.efficiency = r.efficiencyAt(&r.s)
	}
}

func (r *runner) switchStage(w wishes) bool {
	c := r.rig.Charger
	if c == nil || !r.on.charging {
		return false
	}
	if !w.stage {
		r.on.stageAt = never
		return false
	}
	next, after := c.Stages.Next(r.on.stage, r.s.outV/r.rig.AuxN, r.s.chargerOutA/c.OutputA, r.t-r.on.stageFrom)
	if after > 0 {
		if r.on.stageAt == never {
			r.on.stageAt = r.t + after
		}
		if r.t < r.on.stageAt-located {
			return false
		}
	}
	r.begin(next)
	r.happened("charger."+next.String(), "coupling", fmt.Sprintf("the charger goes to %s, at %s", next, unit.Text(r.s.outV, "V", 2)))
	return true
}
