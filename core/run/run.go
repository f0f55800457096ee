// Package run sizes one stretch of a run: the cable and the fuse at its source, from what it
// carries, how far, past what, and where it lies. It knows no coupling and no vehicle.
package run

import (
	"errors"
	"math"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/job"
	"epitrope/core/protect"
)

// FuseShare is what a part in series is rated at over its continuous current, as
// its fuse is. Source: common practice, no source.
const FuseShare = 1.25

// LinkM is the short cable that an isolator adds, or that joins a relay to the charger beside
// it. Source: common practice, no source.
const LinkM = 0.2

// Joints and steel. Source: common practice, no source: a good crimp and bolted
// joint 0.1–0.5 mΩ, a connector contact 0.2–1 mΩ; the chassis as steel of about
// 700 mm² at eight times the resistivity of copper; the existing lead from the
// alternator as a metre of heavy cable with its joints.
const (
	FuseJoints    = 4 // the post, both sides of the fuse, the coupling; two fewer without it
	JointOhm      = 0.0003
	EarthOhm      = 0.0004
	ChassisOhmPer = 8 / (cable.Kappa * 700)
	LeadOhm       = 0.001
	BareM         = 0.15 // from a battery's post to its fuse
	widest        = 10   // % of drop beyond which no limit is widened
)

// Ask is one stretch of the run as it is asked for: what it carries, how far, past what.
type Ask struct {
	ID, FuseID string
	Amps       float64 // worst continuous current
	LengthM    job.Num // one way
	ReturnM    float64 // return cable of the same size in this leg
	SteelOhm   float64 // chassis and earth joints of the return: counted in the drop
	JointsOhm  float64 // lugs and fuse holder: shown at those parts
	PlugOhm    float64 // a trailer plug, both contacts
	ContactOhm float64 // a relay's contact at the end of the leg
	BudgetV    float64 // may be lost of the copper, at HeldA
	HeldA      float64 // the current at which the drop is held to its limit; 0: Amps
	Bay        cable.Bay
	BackBay    *cable.Bay // of the return cable, where it lies elsewhere
	SourceV    float64    // of the battery that feeds a fault
	SourceOhm  float64
	Measured   bool // its resistance was measured
	Unfused    bool // there is no fuse at its source: Fuse is the one that ought to be there
	Device     protect.Device
	School     string  // how its fuse is chosen
	SheetA     float64 // the largest fuse that the device's sheet allows; 0 where it says nothing
	PassA      float64 // what its fuse has to let through while the engine is cranked
	SizePin    *string
	FusePin    *float64
}

// Sized is such a stretch with a cable of its own and a fuse at its source end.
type Sized struct {
	Ask

	Loop      cable.Loop
	Trial     cable.Trial
	Auto      cable.Size
	AutoTest  cable.Test
	Widened   bool // no cable keeps the limit; the limit was widened to size it
	NoCable   error
	Fuse      protect.Fuse
	AutoFuse  protect.Fuse
	NoFuse    error
	Cover     protect.Cover
	Faulted   cable.Fault
	NearFault float64
}

// DropA is the current at which the drop is held to its limit.
func (l *Sized) DropA() float64 {
	if l.HeldA > 0 {
		return min(l.HeldA, l.Amps)
	}
	return l.Amps
}

// HeldV is what cable and steel lose at that current, which may be BudgetV.
func (l *Sized) HeldV() float64 { return l.held(l.Trial) }

func (l *Sized) held(t cable.Trial) float64 { return cable.Drop.Value(l.DropA(), t.LoopOhm) }

// Loses says whether another trial of its cable would lose more than it may.
func (l *Sized) Loses(t cable.Trial) bool { return l.held(t) > l.BudgetV+0.0005 }

// CableM is all the cable of the stretch, in m: out, and back where its return is of the same.
func (l *Sized) CableM() float64 { return l.LengthM.Value + l.ReturnM }

// ReturnBay is where the return lies.
func (l *Sized) ReturnBay() cable.Bay {
	if l.BackBay != nil {
		return *l.BackBay
	}
	return l.Bay
}

// HardBay is the place that allows the cable least.
func (l *Sized) HardBay() cable.Bay {
	if l.Trial.InBack {
		return l.ReturnBay()
	}
	return l.Bay
}

// TotalOhm is the whole leg as sized: cable and return, joints, fuse, relay, plug.
func (l *Sized) TotalOhm() float64 {
	return l.Trial.LoopOhm + l.JointsOhm + l.PlugOhm + l.FuseOhm() + l.ContactOhm
}

// Link is how much of a leg is the link between a relay and the charger beside it.
func (l *Sized) Link() float64 { return min(LinkM, l.LengthM.Value/4) }

// Bare is the stretch before the fuse: it is part of the route.
func (l *Sized) Bare() float64 {
	if l.Unfused {
		return 0
	}
	return math.Min(BareM, l.LengthM.Value/3)
}

// Size finds a stretch's own size and fuse, then puts what is pinned in their place and
// judges that. The shelf rises in size; volts is the system's voltage, of which at most
// widest percent may be lost.
func Size(a Ask, shelf []cable.Size, n cable.Insulation, volts float64) Sized {
	l := Sized{Ask: a}
	l.Loop = cable.Loop{Amps: l.Amps, CableM: l.CableM(), OtherOhm: l.SteelOhm, Bay: l.Bay, Insulation: n}
	if l.BackBay != nil {
		l.Loop.BackM, l.Loop.BackBay = l.ReturnM, *l.BackBay
	}
	l.NearFault = l.SourceV / (l.SourceOhm + 2*JointOhm)
	best, test := l.pick(shelf, volts)
	l.Auto, l.AutoTest = best.Size, test
	l.Trial = best
	if l.SizePin != nil {
		size, _ := cable.Parse(*l.SizePin) // a document holds only sizes that read
		l.Trial = l.Loop.Try(size)
	}
	l.fit()
	return l
}

// pick finds the thinnest cable that passes drop, ampacity and fuse. Where no size
// keeps the drop, it widens the limit step by step and remembers that.
func (l *Sized) pick(shelf []cable.Size, volts float64) (cable.Trial, cable.Test) {
	l.Widened, l.NoCable = false, nil
	budget, saved := l.BudgetV, l.Saved
	if l.FusePin != nil && !slices.ContainsFunc(shelf, func(s cable.Size) bool { return l.Saved(l.Loop.Try(s)) }) {
		saved = l.window // no cable suits that fuse: it is the fuse that is wrong
	}
	for {
		best, test, err := l.Loop.Choose(shelf, budget*l.Amps/l.DropA(), saved)
		if err == nil {
			return best, test
		}
		var none *cable.NoSize
		if errors.As(err, &none) && none.Test == cable.ByDrop && budget < widest*volts/100 {
			l.Widened = true
			budget = max(budget, 0) + 0.005*volts
			continue
		}
		l.NoCable = err
		return l.Loop.Try(shelf[len(shelf)-1]), none.Test
	}
}
