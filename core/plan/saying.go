package plan

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/working"
)

// shownStates rounds the states at the core's edge.
func (d *design) shownStates() []State {
	out := make([]State, len(d.states))
	for i, s := range d.states {
		out[i] = State{ID: s.id, Label: s.label, Kind: string(s.kind), Worst: i == d.worst, Sags: s.sags, Apart: d.apart(s), Says: d.says(s), Points: d.points(s),
			InA: working.Round(s.inA, 1), OutA: working.Round(s.outA, 1), InV: working.Round(s.inV, 2), AuxV: working.Round(s.auxV, 2),
			StartV: had(s.solved.At("start.30"))}
		if s.err != nil {
			out[i].Fails = s.err.Error()
		}
	}
	return out
}

// apart says whether the coupling lets nothing through.
func (d *design) apart(s state) bool {
	if d.kind.Charger() && !s.Joined {
		return s.Stopped
	}
	return !s.Joined
}

// says is a state in a few words: the volts and amps that matter in it, and what limits
// them; "" where it has no solution.
func (d *design) says(s state) string {
	amps := working.Text(s.outA, "A", 0)
	switch {
	case s.solved.Volts == nil:
		return ""
	case s.kind != charging:
		return d.saysBesides(&s)
	case d.kind == coupling.DCDCHighCurrent && s.Joined:
		return fmt.Sprintf("%s through the bypass, limited by %s", amps, d.limitedBy(&s))
	case d.kind.Charger() && (s.Joined || s.Stopped):
		return ""
	case d.kind.Charger():
		return fmt.Sprintf("%s in, %s out", working.Text(s.inA, "A", 0), amps)
	case !s.Joined && d.kind == coupling.VSR:
		return fmt.Sprintf("relay open: it closes at %s", working.Text(d.contact.Sensing.CutInV*d.facts.N, "V", 1))
	case !s.Joined:
		return "open"
	}
	return fmt.Sprintf("%s, limited by %s", amps, d.limitedBy(&s))
}

// saysBesides is a state without charging in a few words.
func (d *design) saysBesides(s *state) string {
	volts := func(v float64) string { return working.Text(v, "V", 1) }
	amps := func(a float64) string { return working.Text(a, "A", 0) }
	switch {
	case s.Winches:
		return d.saysWinch(s)
	case s.Short != "":
		return fmt.Sprintf("%.1f kA until the fuse opens", max(had(s.solved.Through(s.Short)), 0)/1000)
	case s.Cranks && s.Joined && d.kind != coupling.SecondAlternator:
		return fmt.Sprintf("starter %s at %s, of it %s from the aux battery; %s", amps(had(s.solved.Through("starter"))), volts(s.busV), amps(-s.outA), d.fusesAt(-s.outA))
	case s.Cranks:
		return fmt.Sprintf("starter %s at %s", amps(had(s.solved.Through("starter"))), volts(had(s.solved.At("start.30"))))
	case s.kind == faulted:
		return fmt.Sprintf("%s for a moment", amps(s.outA))
	case s.Fresh:
		return fmt.Sprintf("%s from the aux battery to the start battery", amps(-s.outA))
	case s.Joined && d.kind != coupling.SecondAlternator:
		return fmt.Sprintf("both batteries share the load: %s", volts(s.busV))
	}
	return fmt.Sprintf("start battery %s, aux battery %s, apart", volts(s.busV), volts(s.auxV))
}

func (d *design) saysWinch(s *state) string {
	amps := had(s.solved.Through("winch"))
	says := fmt.Sprintf("winch %s at %s", working.Text(amps, "A", 0), working.Text(amps*d.winchOhm(), "V", 1))
	if s.Joined {
		share := math.Abs(had(s.solved.Through("contact")))
		says += fmt.Sprintf(", of it %s through the join; %s", working.Text(share, "A", 0), d.fusesAt(share))
	}
	return says
}

// limitedBy is what limits the current through a contact.
func (d *design) limitedBy(s *state) string {
	by := "the circuit"
	switch {
	case s.AcceptsA > 0 && s.outA > s.AcceptsA*(1-settledWithin):
		by = "the battery"
	case s.busV < s.SetV-limitedBy*d.facts.N, d.kind == coupling.SecondAlternator && s.outA > s.SecondA*(1-settledWithin):
		by = "the alternator"
	}
	return by
}

// fusesAt says which fuse of the run may open at a current, and how soon.
func (d *design) fusesAt(amps float64) string {
	says, soonest := "both fuses hold", math.Inf(1)
	for _, l := range []*leg{&d.start, &d.aux} {
		at := l.fuse.At(amps, l.faulted)
		if at.OpensMinS < soonest && !math.IsInf(at.OpensMaxS, 1) {
			soonest = at.OpensMinS
			says = fmt.Sprintf("%s opens after %s to %s", strings.ToUpper(l.fuseID), working.Seconds(at.OpensMinS), working.Seconds(at.OpensMaxS))
		}
	}
	return says
}
