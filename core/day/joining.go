package day

import (
	"epitrope/core/unit"
	"fmt"
)

func (r *runner) switchJoin(w wishes) bool {
	j := r.rig.Join
	if j == nil {
		return false
	}
	want := r.on.joined
	switch {
	case r.now.kind.held():
		want = true
	case j.By == Always:
		want = true
	case j.By == ByCoil:
		want = r.waited(j, r.coilHolds(r.on.joined, j.Trigger, j.PullV, j.DropV, &r.s))
	case j.By == Never:
		want = false
	case j.By == ByBypass:
		want = r.bypassHolds(j)
	case w.relay:
		v := r.senses(&r.x, &r.s)
		_, after := j.Sensing.Wants(r.on.joined, v, v)
		if r.on.joinAt == never {
			r.on.joinAt = r.t + after
		}
		if r.t >= r.on.joinAt-located {
			want = !r.on.joined
		}
	default:
		r.on.joinAt = never
	}
	if want == r.on.joined {
		return false
	}
	r.on.joined, r.on.joinAt = want, never
	volts := unit.Text(r.s.sensedV, "V", 1)
	switch {
	case r.now.kind.held():
		r.happened("join.closes", "coupling", "joined by hand: start battery "+unit.Text(r.s.busV, "V",
			1)+", aux battery "+unit.Text(r.s.auxV, "V", 1))
	case want:
		r.happened("join.closes", "coupling", "the batteries are joined, at "+volts+r.because(j, j.Sensing.CutInV, "above", j.Sensing.CloseS))
		r.tally(r.t-r.openedAt < chatterS)
	default:
		r.openedAt = r.t
		// What a relay has waited for since before the engine ran is no dropping out.
		r.openedOnDrive = r.now.running && (j.By != BySensing || r.t-r.stoodAt > j.Sensing.OpenS)
		r.happened("join.opens", "coupling", "the batteries are parted, at "+volts+r.because(j, j.Sensing.CutOutV, "below", j.Sensing.OpenS))
	}
	return true
}

// waited says whether a coil's feed is live and its timer has run out.
func (r *runner) waited(j *Join, live bool) bool {
	if !live || r.on.joined {
		r.on.joinAt = never
		return live
	}
	if r.on.joinAt == never {
		r.on.joinAt = r.t + j.DelayS
	}
	return r.t >= r.on.joinAt-located
}

// coilHolds says whether a coil is live, with volts enough to close its contact, or to hold it.
func (r *runner) coilHolds(closed bool, by Trigger, pullV, dropV float64, s *sight) bool {
	least := pullV
	if closed {
		least = dropV
	}
	return r.triggered(by) && s.busV >= least*r.rig.N
}

// because says why a relay acted.
func (r *runner) because(j *Join, volts float64, side string, after float64) string {
	switch j.By {
	case BySensing:
		return fmt.Sprintf(": %s %s for %s", side, unit.Text(volts*r.rig.N, "V", 1), unit.Seconds(after))
	case ByCoil:
		return ": its coil's feed"
	case ByBypass:
		return fmt.Sprintf(": high-current stage, between %s and %s", unit.Text(j.Bypass.JoinV*r.rig.N, "V", 1),
			unit.Text(j.Bypass.LeaveV*r.rig.N, "V", 1))
	}
	return ""
}

// chatterS is how soon a relay that closes again counts as chattering. Source: common
// practice, no source.
const chatterS = 120.0

// tally counts a closing of the join.
func (r *runner) tally(soon bool) {
	v := &r.result.Verdict
	v.Closings++
	if !r.now.running || !r.openedOnDrive {
		return
	}
	v.Again++
	if soon {
		v.Chatter++
	}
}

// bypassed says whether a high-current stage joins the batteries. Once joined it stays so
// until its aux side is high enough, or its start side falls below a relay's cut-out.
func (r *runner) bypassed(j *Join, s *sight) bool {
	startV, auxV := s.sensedV/r.rig.N, s.outV/r.rig.N
	return (r.on.joined || !r.on.handed) && j.Bypass.Wants(r.on.joined, r.triggered(j.Trigger), startV, auxV)
}

// bypassHolds is bypassed once that has held for a while; with its signal dead it parts at
// once.
func (r *runner) bypassHolds(j *Join) bool {
	auxV := r.s.outV / r.rig.N
	if !r.triggered(j.Trigger) {
		r.on.handed = false // the next drive begins anew
	}
	wants := r.bypassed(j, &r.s)
	switch {
	case wants == r.on.joined:
		r.on.joinAt = never
		return wants
	case r.on.joinAt == never:
		r.on.joinAt = r.t + bypassS
		if r.on.joined {
			r.on.joinAt = r.t + bypassOpenS
		}
	}
	if r.triggered(j.Trigger) && r.t < r.on.joinAt-located {
		return r.on.joined
	}
	r.on.handed = r.on.joined && auxV >= j.Bypass.LeaveV
	return wants
}
