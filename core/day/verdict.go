package day

import "math"

// Peak is the highest a thing got, and when.
type Peak struct {
	C   float64
	AtS float64
}

func (p *Peak) see(c, at float64) {
	if c > p.C {
		p.C, p.AtS = c, at
	}
}

// OverLimit is the conductor or joint that went furthest past what its insulation bears, and when it
// first did; before zero where none did.
type OverLimit struct {
	ID        string
	C, LimitC float64
	AtS       float64
}

func (o *OverLimit) see(id string, c, limit, at float64) {
	if c < limit+toleranceK || o.AtS >= 0 && c-limit <= o.C-o.LimitC {
		return
	}
	if o.AtS < 0 {
		o.AtS = at
	}
	o.ID, o.C, o.LimitC = id, c, limit
}

// toleranceK is past its limit by so little that nothing is said: a cable at its rating is at its
// limit.
const toleranceK = 1.0

// Margin is how close a fuse came to opening.
type Margin struct {
	ID      string
	MostA   float64 // the highest current
	HeldA   float64 // the highest that it carried for ten minutes and more, smoothed
	Heated  float64 // how far it was heated on the way to opening, 0 to 1
	RatingA float64
	smooth  float64
}

// Verdict is what a run says of an installation. Times below zero never came.
type Verdict struct {
	FullAtS      float64 // first full aux battery
	AuxEnd       float64 // charge of the aux battery at the end, 0 to 1
	AuxLeast     float64
	AuxMost      float64
	AuxInAh      float64 // charged
	AuxOutAh     float64 // drawn
	StartEnd     float64
	StartLeast   float64
	RiskAtS      float64 // the start battery is below half
	CrankV       float64 // lowest while cranking; +Inf where it never cranked
	FailedStarts int
	Closings     int     // of the join
	Chatter      int     // … again within two minutes
	Again        int     // … again on the same drive, after it had opened
	Starved      int     // stops of the charger
	Mistaken     int     // times that a charger took the engine for what it was not
	Empty        int     // times that the aux battery was empty
	Cuts         int     // times that a low-voltage disconnect opened
	LimitedS     float64 // the alternator at its limit
	RunningS     float64
	Winding      Peak
	Case         Peak
	Cable        Peak
	Joint        Peak
	OverLimit    OverLimit
	Fuses        []Margin
}

func newVerdict(rig *Rig) Verdict {
	v := Verdict{FullAtS: -1, RiskAtS: -1, OverLimit: OverLimit{AtS: -1},
		AuxLeast: rig.Aux.SOC, AuxMost: rig.Aux.SOC, StartLeast: rig.Start.SOC, CrankV: math.Inf(1)}
	for _, p := range []*Peak{&v.Winding, &v.Case, &v.Cable, &v.Joint} {
		p.C = math.Inf(-1)
	}
	for _, f := range rig.Fuses {
		v.Fuses = append(v.Fuses, Margin{ID: f.ID, RatingA: f.Fuse.RatingA})
	}
	return v
}

// heldS is over what time a current counts as carried. Source: common practice, no source.
const heldS = 600.0

// see takes in a step of h seconds that ended in these states and sights.
func (v *Verdict) see(r *runner, x *slow, s *sight, h, share float64) {
	at := r.t + h
	v.AuxLeast, v.AuxMost = math.Min(v.AuxLeast, s.aux.soc), math.Max(v.AuxMost, s.aux.soc)
	v.StartLeast = math.Min(v.StartLeast, s.start.soc)
	amps := share*r.s.auxGivesA + (1-share)*s.auxGivesA
	if amps < 0 {
		v.AuxInAh -= amps * h / hour
	} else {
		v.AuxOutAh += amps * h / hour
	}
	if r.now.running {
		v.RunningS += h
		if s.machineA >= r.h.machine.MaxA-0.5 {
			v.LimitedS += h
		}
	}
	v.Winding.see(x[winding], at)
	if r.rig.Charger != nil {
		v.Case.see(x[chargerCase], at)
	}
	for i := range r.rig.Wires {
		w := &r.rig.Wires[i]
		v.Cable.see(x[wire0+i], at)
		joint := x[wire0+i] + kelvinPerW*w.JointOhm*s.wireA[i]*s.wireA[i]
		v.Joint.see(joint, at)
		if w.LimitC > 0 {
			v.OverLimit.see(w.ID, math.Max(x[wire0+i], joint), w.LimitC, at)
		}
	}
	for i := range v.Fuses {
		m, amps := &v.Fuses[i], math.Abs(s.fuseA[i])
		m.MostA = math.Max(m.MostA, amps)
		m.Heated = math.Max(m.Heated, math.Min(1, x[fuse0+i]))
		m.smooth += (amps - m.smooth) * (1 - math.Exp(-h/heldS))
		m.HeldA = math.Max(m.HeldA, m.smooth)
	}
}

// finish closes the books at the end of the run.
func (r *runner) finish() {
	v := &r.result.Verdict
	v.AuxEnd, v.StartEnd = r.s.aux.soc, r.s.start.soc
}
