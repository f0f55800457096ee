package day

import (
	"errors"
	"fmt"
	"math"

	"epitrope/core/alternator"
	"epitrope/core/coupling"
	"epitrope/core/network"
	"epitrope/core/unit"
)

// Conditions are what surrounds a run.
type Conditions struct {
	OutsideC    float64 // where a segment says no other
	RegulationV float64 // by which the alternator's voltage is off, at 12 V
}

// Options are how a run is done.
type Options struct {
	Tolerance float64     // of each step's error; 0 means 1
	Watch     func(Frame) // gets every moment that is stepped to; nil for none
	Halt      func() bool // asked now and then whether to stop; nil for never
	Most      int         // circuits that it may solve; 0: as many as a run may
}

// Event is something that switched, or was noticed.
type Event struct {
	AtS  float64
	ID   string
	Part string // the column of the section that it happens at
	Text string
}

// Stopped is a run that could not go on.
type Stopped struct {
	AtS     float64
	Element string
	Why     string
}

func (e *Stopped) Error() string {
	return unit.Say("after %.0f s, %s: %s", e.AtS, e.Element, e.Why)
}

// ErrHalted is a run that was told to stop.
var ErrHalted = errors.New("stopped before its end")

// Result is what a run came to. Where it stopped early, it is what there was until then.
type Result struct {
	EndS    float64
	Events  []Event
	Verdict Verdict
	Energy  Energy
	Steps   int
	Looks   int // circuits solved
}

// now is what holds in a stretch of time.
type now struct {
	kind     Kind
	running  bool
	idles    bool
	outputA  float64 // of the alternator at its speed, cold
	secondA  float64 // of a machine of the run's own
	windingK float64 // by which each watt of the alternator warms its windings
	vehicleA float64
	houseA   float64
	sun      float64
	mains    bool    // plugged in
	airC     float64 // outside
	until    float64
}

// runner is a run under way.
type runner struct {
	rig     *Rig
	cond    Conditions
	opt     Options
	solver  *network.Solver
	volts   func() []float64 // of every node, of the last look, which is the one that a frame shows
	h       handles
	pattern Pattern
	easesAt float64

	t             float64
	x             slow
	s             sight
	follow        [2]float64 // how the batteries' currents follow their voltages, A/V
	w             wishes
	on            on
	now           now
	gives         [maxWires]float64 // heat that cables give off, W/(m·K)
	givenAt       [maxWires]float64 // the temperature that holds for
	efficiency    float64
	fuseOhm       [maxFuses]float64
	openedAt      float64
	openedOnDrive bool    // the join opened since the engine was started
	tapsRan       bool    // the engine, when what hangs on the run went dark
	stoodAt       float64 // until when the engine last stood, or was cranked
	share         float64 // of its output that a charger has come to
	looks         int
	result        Result
}

// Run runs a rig through a pattern. It returns *Stopped, with what there was until then,
// where the run cannot go on, ErrHalted where it was told to stop, and an error of the
// network where the rig's circuit makes no sense.
func Run(rig *Rig, pattern Pattern, cond Conditions, opt Options) (Result, error) {
	r, err := newRunner(rig, pattern, cond, opt)
	if err != nil {
		return Result{}, err
	}
	err = r.run()
	r.result.EndS, r.result.Looks = r.t, r.looks
	r.finish()
	return r.result, err
}

func newRunner(rig *Rig, pattern Pattern, cond Conditions, opt Options) (*runner, error) {
	if len(pattern) == 0 {
		return nil, &PatternError{"", "it is empty; " + patternHint}
	}
	if len(rig.Wires) > maxWires || len(rig.Fuses) > maxFuses {
		return nil, fmt.Errorf("a rig has at most %d cables and %d fuses", maxWires, maxFuses)
	}
	n := rig.Nodes
	if m := rig.Second; m != nil {
		rig.Circuit.Keep(m.Node)
	}
	if rig.AuxN == 0 {
		rig.AuxN = rig.N
	}
	rig.Circuit.Keep(n.Machine, n.Bus, n.SensePlus, n.SenseZero, n.Out, n.AuxPlus, n.AuxZero)
	solver, err := network.NewSolver(rig.Circuit)
	if err != nil {
		return nil, err
	}
	if opt.Tolerance <= 0 {
		opt.Tolerance = 1
	}
	if opt.Most <= 0 {
		opt.Most = min(mostLooks, looksAtLeast+looksEach*len(pattern))
	}
	r := &runner{rig: rig, cond: cond, opt: opt, solver: solver, volts: solver.Volts, pattern: pattern, openedAt: -never, efficiency: 0.9,
		easesAt: alternator.StartFull}
	r.grip()
	r.on = on{joinAt: never, chargeAt: never, restartAt: never, stageAt: never, cutAt: never, engineAt: never}
	r.x[startQ], r.x[auxQ] = rig.Start.SOC, rig.Aux.SOC
	r.on.full = rig.Aux.SOC >= fullSOC
	air := or(pattern[0].Own.AirC, cond.OutsideC)
	for _, i := range []int{winding, space, chargerCase} {
		r.x[i] = air
	}
	for i := range rig.Wires {
		r.x[wire0+i] = air
		r.givenAt[i] = -never
	}
	r.result.Verdict = newVerdict(rig)
	return r, nil
}

// run goes through the pattern, segment by segment.
func (r *runner) run() error {
	begin := 0.0
	for _, s := range r.pattern {
		end := begin + s.Seconds
		r.t = begin
		for r.t < end-1e-9 {
			r.now = r.during(s, end)
			if err := r.stretch(); err != nil {
				return err
			}
			if r.now.kind.cranks() {
				r.judgeCrank(end)
			}
		}
		begin = end
	}
	return nil
}

// sun is the share of full sun at an hour of the clock, and for how long it is taken to
// stay: half a sine from six to eighteen, half an hour at a time, that sums up to the
// hours of full sun.
func sun(clock, hours float64) (share, until float64) {
	const half = 0.5
	at := math.Floor(clock/half+1e-9) * half
	until = at + half - clock
	mid := at + half/2
	if mid < 6 || mid > 18 {
		return 0, until
	}
	return math.Min(1, hours*math.Pi/24*math.Sin(math.Pi*(mid-6)/12)), until
}

// stretch steps through a stretch of time in which nothing is switched from outside.
func (r *runner) stretch() error {
	if err := r.look(); err != nil {
		return err
	}
	if err := r.switchAll(); err != nil {
		return err
	}
	h := firstS
	for r.t < r.now.until-1e-9 {
		if r.looks >= r.opt.Most {
			return &Stopped{AtS: r.t, Element: "run", Why: unit.Say("is not followed any further: %.0f times something has switched by then",
				float64(len(r.result.Events)))}
		}
		if r.opt.Halt != nil && r.result.Steps%32 == 0 && r.opt.Halt() {
			return ErrHalted
		}
		longest := math.Min(longestS, math.Min(r.now.until, r.due())-r.t)
		taken, next, err := r.advance(math.Max(math.Min(h, longest), shortestS))
		if err != nil {
			return err
		}
		h = next
		if r.t+1e-9 >= r.now.until && taken > 0 {
			r.t = r.now.until
		}
		if err := r.switchAll(); err != nil {
			return err
		}
	}
	return nil
}

// look sees the circuit as it is now.
func (r *runner) look() error {
	r.coolWires()
	if err := r.see(&r.x, &r.s); err != nil {
		return r.stopped(err)
	}
	if r.t == 0 {
		r.x[seen] = r.side(&r.s)
	}
	r.feel()
	r.record()
	return nil
}

func (r *runner) stopped(err error) error {
	var at *network.Error
	if errors.As(err, &at) {
		return &Stopped{AtS: r.t, Element: at.Element, Why: at.Why}
	}
	return err
}

// coolWires works out anew what cables give off, where they got warmer or cooler.
func (r *runner) coolWires() {
	for i := range r.rig.Wires {
		if math.Abs(r.x[wire0+i]-r.givenAt[i]) > 2 {
			r.givenAt[i] = r.x[wire0+i]
			r.gives[i] = r.rig.Wires[i].Thermal.Gives(r.givenAt[i])
		}
	}
}

// derate is what share of its output a charger gives, as warm as its place is: the
// card's limit is for the place; the case runs hotter by what it loses.
func (r *runner) derate() float64 {
	c := r.rig.Charger
	return coupling.Derate(r.now.airC+c.PlaceOverK, c.FullC)
}

// efficiencyAt is a charger's efficiency at what it gives.
func (r *runner) efficiencyAt(s *sight) float64 {
	return r.efficiencyOf(s.chargerOutA/r.rig.Charger.OutputA, s)
}

// efficiencyOf is a charger's efficiency at a share of its output, between the volts that stand
// at its input and its output.
func (r *runner) efficiencyOf(share float64, s *sight) float64 {
	if s.outV <= 0 {
		return 0.9
	}
	return math.Max(0.5, r.rig.Charger.Curve.Efficiency(math.Max(share, 0.02), s.sensedV/s.outV))
}

// judgeCrank decides whether the engine started.
func (r *runner) judgeCrank(end float64) {
	if r.t < end-1e-9 || r.on.stalled {
		return
	}
	v := &r.result.Verdict
	lowest := r.s.busV
	v.CrankV = math.Min(v.CrankV, lowest)
	if lowest < noStartV*r.rig.N || r.on.vehicleDark > 0 { // an engine whose electronics are off does not start
		r.on.stalled = true
		v.FailedStarts++
		r.happened("start.fails", "start", unit.Say("the engine does not start: %.1f V while cranking", lowest))
		return
	}
	r.happened("start", "start", unit.Say("the engine starts: %.1f V while cranking", lowest))
}
