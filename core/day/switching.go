package day

import (
	"fmt"
	"math"

	"epitrope/core/coupling"
	"epitrope/core/unit"
)

// on is what is switched, and since when.
type on struct {
	joined   bool
	charging bool // the charger runs
	stage    coupling.Stage
	opened   [maxFuses]bool
	blocked  bool // the management system takes no charge
	houseOff bool // the aux battery is empty: what it feeds is off
	engine   bool // a charger without a signal takes the engine for running
	cutOff   bool // … or a low-voltage disconnect has opened
	ran      bool // the engine, when loads went dark
	ahead    bool // the relay ahead of a charger is closed

	besideDark             bool    // what hangs beside the charger is off: its line cannot give it
	houseDark, vehicleDark float64 // loads that ask so much are off: their line cannot give it; 0: none is
	stalled                bool    // the engine did not start
	recharge               bool    // a variable regulation recharges the start battery
	full                   bool    // the aux battery was full since it was last drawn down
	handed                 bool    // a high-current stage left the end of the charge to the charger

	joinAt    float64 // when a relay acts on what it senses; never is +Inf
	chargeAt  float64 // when a charger begins
	restartAt float64 // when a starved charger looks again
	engineAt  float64 // when it acts on what it sees
	cutAt     float64 // when a disconnect acts on what it sees
	stageAt   float64 // when a stage begins that wants something held for a while
	stageFrom float64 // when the stage began
}

var never = math.Inf(1)

// Thresholds that make an event. Source: a start battery below half may not start in
// the cold, common practice, no source; engine electronics reset below about 8 V, from
// memory; a management system lets go when next to nothing is left and takes hold again
// a little above, from memory.
const (
	startRiskSOC = 0.5
	noStartV     = 8.0
	emptySOC     = 0.0
	backSOC      = 0.05
	fullSOC      = 0.98
	wakeSOC      = 0.02 // how far a variable regulation lets the charge fall again
)

// wishes is what wants to be switched: when one changes within a step, the moment is
// looked for.
type wishes struct {
	relay, ahead, stage, starved, restart, block, empty, back, full, risk, recharge, eased, cut, engine, signal, dark bool
	fuses                                                                                                             [maxFuses]bool
}

// wish reads the wishes from the slow states and what is seen.
func (r *runner) wish(x *slow, s *sight) wishes {
	n, rig, on := r.rig.N, r.rig, &r.on
	w := wishes{risk: s.start.soc < startRiskSOC, full: s.aux.soc >= fullSOC}
	w.empty, w.back = !on.houseOff && s.aux.soc <= emptySOC, on.houseOff && s.aux.soc >= backSOC
	w.dark = s.houseDark > 0 || s.vehicleDark > 0 || s.besideDark
	w.block = !rig.Aux.Chemistry.MayCharge(r.auxC(x))
	w.recharge, w.eased = !on.recharge && s.start.soc < r.easesAt-wakeSOC, on.recharge && s.start.soc >= r.easesAt
	if j := rig.Join; j != nil {
		switch j.By {
		case BySensing:
			v := r.senses(x, s)
			wants, _ := j.Sensing.Wants(on.joined, v, v)
			w.relay = wants != on.joined
		case ByBypass:
			w.relay = r.bypassed(j, s) != on.joined
		case ByCoil:
			w.relay = r.coilHolds(on.joined, j.Trigger, j.PullV, j.DropV, s) != on.joined
		}
	}
	if a := rig.Ahead; a != nil {
		w.ahead = r.coilHolds(on.ahead, a.By, a.PullV, a.DropV, s) != on.ahead
	}
	if q := rig.Disconnect; q != nil {
		w.cut = q.wants(on.cutOff, s.auxV/rig.AuxN) != on.cutOff
	}
	if c := rig.Charger; c != nil && c.By == Sensed {
		wants, _ := c.Senses.Wants(on.engine, r.senses(x, s), 0)
		w.engine = wants != on.engine
	}
	if c := rig.Charger; c != nil {
		w.signal = r.signalled(s) != on.charging
		w.starved = on.charging && (s.starved || s.sensedV < n*c.CutOutV)
		w.restart = on.restartAt < never && s.sensedV >= n*c.RestartV
		if on.charging && !s.starved {
			next, _ := c.Stages.Next(on.stage, s.outV/rig.AuxN, s.chargerOutA/c.OutputA, r.t-on.stageFrom)
			w.stage = next != on.stage
		}
	}
	for i := range rig.Fuses {
		w.fuses[i] = x[fuse0+i] >= 1
	}
	return w
}

// due is the next moment at which something was set to happen.
func (r *runner) due() float64 {
	at := math.Min(math.Min(r.on.joinAt, r.on.chargeAt), math.Min(r.on.stageAt, math.Min(r.on.cutAt, r.on.engineAt)))
	if r.on.restartAt > r.t { // after that it waits for its voltage
		at = math.Min(at, r.on.restartAt)
	}
	if r.on.charging && r.on.stage == coupling.Absorption {
		at = math.Min(at, r.on.stageFrom+r.rig.Charger.Stages.AbsorptionS)
	}
	return at
}

// atOnce is how often things may switch at one moment before the run gives up.
const atOnce = 30

// switchAll lets everything that wants to switch do so, and looks again after each,
// until nothing more wants to.
func (r *runner) switchAll() error {
	for range atOnce {
		w := r.wish(&r.x, &r.s)
		if !r.switchOne(w) {
			r.w = w
			return nil
		}
		if err := r.see(&r.x, &r.s); err != nil {
			return r.stopped(err)
		}
		r.feel()
		r.record()
	}
	return &Stopped{AtS: r.t, Element: "the installation", Why: "keeps switching to and fro at one moment"}
}

func (r *runner) happened(id, part, text string) {
	r.result.Events = append(r.result.Events, Event{AtS: r.t, ID: id, Part: part, Text: text})
}

// switchOne does the first thing that is wanted; false where there is nothing.
func (r *runner) switchOne(w wishes) bool {
	return r.switchFuses(w) || r.switchAhead(w) || r.switchJoin(w) || r.switchDetection(w) || r.switchCharger(w) || r.switchStage(w) ||
		r.switchLoads(w) || r.switchBatteries(w)
}

// switchAhead lets the relay ahead of a charger follow its coil.
func (r *runner) switchAhead(w wishes) bool {
	if w.ahead {
		r.on.ahead = !r.on.ahead
	}
	return w.ahead
}

func (r *runner) switchFuses(w wishes) bool {
	for i, f := range r.rig.Fuses {
		if w.fuses[i] && !r.on.opened[i] {
			r.on.opened[i] = true
			r.happened("fuse.opens", f.ID, fmt.Sprintf("%s opens at %s", f.Fuse.Label(), unit.Text(math.Abs(r.s.fuseA[i]), "A", 0)))
			return true
		}
	}
	return false
}

// wants says whether a disconnect is open at a voltage, at 12 V.
func (q *Disconnect) wants(open bool, volts float64) bool {
	if open {
		return volts < q.ClosesV
	}
	return volts < q.OpensV
}

// switchLoads lets a disconnect act, once the voltage was low, or back, for long enough.
func (r *runner) switchLoads(w wishes) bool {
	q := r.rig.Disconnect
	if q == nil {
		return false
	}
	if !w.cut {
		r.on.cutAt = never
		return false
	}
	if r.on.cutAt == never {
		r.on.cutAt = r.t + q.HoldS
	}
	if r.t < r.on.cutAt-located {
		return false
	}
	r.on.cutOff, r.on.cutAt = !r.on.cutOff, never
	volts := unit.Text(r.s.auxV, "V", 1)
	if r.on.cutOff {
		r.result.Verdict.Cuts++
		r.happened("disconnect.opens", "aux", fmt.Sprintf("the low-voltage disconnect opens at %s, with %s left", volts,
			unit.Text(100*r.s.aux.soc, "%", 0)))
	} else {
		r.happened("disconnect.closes", "aux", "the low-voltage disconnect closes again at "+volts)
	}
	return true
}

// switchBatteries is what batteries and their management do; some of it is only noted.
func (r *runner) switchBatteries(w wishes) bool {
	v := &r.result.Verdict
	switch {
	case w.dark:
		r.goDark()
		return true
	case r.on.ran != r.now.running && (r.on.houseDark > 0 || r.on.vehicleDark > 0 || r.on.besideDark):
		r.on.houseDark, r.on.vehicleDark, r.on.besideDark = 0, 0, false // another source, another try
		return true
	case w.block != r.on.blocked:
		r.on.blocked = w.block
		if w.block {
			r.happened("bms.cold", "aux", "the management system takes no charge: the cells are below 0 °C")
		} else {
			r.happened("bms.warm", "aux", "the management system takes charge again")
		}
		return true
	case w.empty:
		r.on.houseOff = true
		v.Empty++
		r.happened("aux.empty", "aux", "the aux battery is empty: what it feeds goes off")
		return true
	case w.back:
		r.on.houseOff = false
		r.happened("aux.back", "aux", "what the aux battery feeds is on again")
		return true
	case w.recharge:
		r.on.recharge = true
		return true
	case w.eased:
		r.on.recharge = false
		return true
	}
	if w.full && !r.on.full {
		r.happened("aux.full", "aux", "the aux battery is full")
		if v.FullAtS < 0 {
			v.FullAtS = r.t
		}
	}
	r.on.full = w.full
	if w.risk && v.RiskAtS < 0 {
		v.RiskAtS = r.t
		r.happened("start.risk", "start", "the start battery is below half: it may not start in the cold")
	}
	return false
}
