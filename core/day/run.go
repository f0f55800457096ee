package day

import (
	"errors"
	"fmt"
	"math"

	"epitrope/core/alternator"
	"epitrope/core/coupling"
	"epitrope/core/network"
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
	return fmt.Sprintf("after %.0f s, %s: %s", e.AtS, e.Element, e.Why)
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

// How finely a run steps. located is how closely an event is found, in s.
const (
	located   = 0.005
	firstS    = 2.0
	longestS  = 900.0
	shortestS = 1e-4
	mostSteps = 3_000_000
)

// Vehicle loads besides driving. Source: common practice, no source: 20–50 mA asleep,
// 8 A with the ignition on, two headlamps and tail lamps 10 A.
const (
	asleepA = 0.03
	keyA    = 8.0
	lampsA  = 10.0
)

// now is what holds in a stretch of time.
type now struct {
	kind     Kind
	running  bool
	outputA  float64 // of the alternator at its speed, cold
	secondA  float64 // of a machine of the run's own
	windingK float64 // by which each watt of the alternator warms its windings
	vehicleA float64
	houseA   float64
	sun      float64
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

	t          float64
	x          slow
	s          sight
	follow     [2]float64 // how the batteries' currents follow their voltages, A/V
	w          wishes
	on         on
	now        now
	gives      [maxWires]float64 // heat that cables give off, W/(m·K)
	givenAt    [maxWires]float64 // the temperature that holds for
	efficiency float64
	fuseOhm    [maxFuses]float64
	openedAt   float64
	looks      int
	result     Result
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
	rig.Circuit.Keep(n.Machine, n.Bus, n.SensePlus, n.SenseZero, n.Out, n.AuxPlus, n.AuxZero)
	solver, err := network.NewSolver(rig.Circuit)
	if err != nil {
		return nil, err
	}
	if opt.Tolerance <= 0 {
		opt.Tolerance = 1
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

// during is what holds from now on, until the segment ends or the clock changes
// something.
func (r *runner) during(s Segment, end float64) now {
	if r.on.stalled && s.Kind.live() {
		s = Segment{Kind: Park, Seconds: s.Seconds, Own: s.Own}
	} else {
		r.on.stalled = false
	}
	n := now{kind: s.Kind, running: s.Kind.Runs(), airC: or(s.Own.AirC, r.cond.OutsideC), until: end}
	rpm := s.rpm() * alternator.Ratio
	machine := r.rig.Machine.Label
	n.outputA, n.windingK = machine.Output(rpm), alternator.Winding.Value(0, 1, 1, machine.RatedA, alternator.Slowness(rpm))
	if m := r.rig.Second; m != nil {
		n.secondA = m.Label.Output(rpm)
	}
	clock := math.Mod(r.t/hour+firstHour, 24)
	switch {
	case n.running:
		n.vehicleA = r.rig.VehicleA
		if clock >= 18 || clock < 7 {
			n.vehicleA = r.rig.LampsA
		}
	case s.Kind == Lamps:
		n.vehicleA = lampsA
	case s.Kind.live():
		n.vehicleA = keyA
	default:
		n.vehicleA = asleepA
	}
	n.houseA = or(s.Own.LoadA, r.rig.HouseA*houseShare(clock))
	n.until = math.Min(end, r.t+hour*houseUntil(clock))
	if solar := r.rig.Solar; solar != nil {
		var until float64
		n.sun, until = sun(clock, solar.Hours)
		n.sun = or(s.Own.Sun, n.sun)
		n.until = math.Min(n.until, r.t+hour*until)
	}
	return n
}

// or is what is said, or what holds otherwise.
func or(said *float64, otherwise float64) float64 {
	if said != nil {
		return *said
	}
	return otherwise
}

// The use of a day: a third of it in four hours of the evening. Source: assumed.
func houseShare(clock float64) float64 {
	if clock >= 18 && clock < 22 {
		return 2.0
	}
	return 0.8
}

func houseUntil(clock float64) float64 {
	for _, at := range []float64{7, 18, 22, 24} {
		if clock < at-1e-9 {
			return at - clock
		}
	}
	return 7
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
		if r.result.Steps >= mostSteps {
			return &Stopped{AtS: r.t, Element: "the run", Why: "takes more steps than it may"}
		}
		if r.opt.Halt != nil && r.result.Steps%256 == 0 && r.opt.Halt() {
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

// trial is a step as tried.
type trial struct {
	x     slow
	s     sight
	wrong float64
}

// try steps by h from where the run is.
func (r *runner) try(begin *moving, h float64, out *trial) error {
	var guess slow
	var p pace
	paceOf(begin, h, &p)
	predict(&r.x, begin, &p, h, &guess)
	if err := r.see(&guess, &out.s); err != nil {
		return r.stopped(err)
	}
	var end moving
	r.move(&guess, &out.s, &end)
	out.wrong = correct(&r.x, begin, &end, &guess, &p, h, &out.x) / r.opt.Tolerance
	if err := r.see(&out.x, &out.s); err != nil {
		return r.stopped(err)
	}
	return nil
}

// advance takes one step of at most h, as long as its error allows, and up to the first
// moment at which something wants to switch. It returns what it took and what the next
// one may try.
func (r *runner) advance(h float64) (taken, next float64, err error) {
	var begin moving
	r.move(&r.x, &r.s, &begin)
	var to trial
	for {
		if err := r.try(&begin, h, &to); err != nil {
			return 0, 0, err
		}
		if to.wrong <= 1 || h <= shortestS {
			break
		}
		h = math.Max(shortestS, h*math.Max(0.2, 0.85/math.Sqrt(to.wrong)))
	}
	next = h * math.Min(4, 0.85/math.Sqrt(math.Max(to.wrong, 0.02)))
	if r.wish(&to.x, &to.s) != r.w {
		if h, err = r.locate(&begin, h, &to); err != nil {
			return 0, 0, err
		}
		next = firstS
	}
	share := r.early(&begin, &to.x, h)
	r.result.Energy.add(&r.s.power, h*share)
	r.result.Energy.add(&to.s.power, h*(1-share))
	r.result.Verdict.see(r, &to.x, &to.s, h, share)
	r.result.Steps++
	r.x, r.s = to.x, to.s
	r.t += h
	r.feel()
	if r.on.charging && h > 1 {
		r.efficiency = r.efficiencyAt(&r.s)
	}
	r.coolWires()
	r.record()
	return h, next, nil
}

// early is how much of a step its beginning counts for: as the overvoltage goes to rest that
// moves the most current.
func (r *runner) early(begin *moving, to *slow, h float64) float64 {
	which := startOver
	if math.Abs(to[auxOver]-r.x[auxOver])*r.follow[1] > math.Abs(to[startOver]-r.x[startOver])*r.follow[0] {
		which = auxOver
	}
	return early(begin.pull[which] * h)
}

// locate finds the first moment within h at which a wish changes, to located seconds,
// and leaves the step to just after it.
func (r *runner) locate(begin *moving, h float64, to *trial) (float64, error) {
	low, high := 0.0, h
	var mid trial
	for high-low > located {
		at := (low + high) / 2
		if err := r.try(begin, at, &mid); err != nil {
			return 0, err
		}
		if r.wish(&mid.x, &mid.s) != r.w {
			high = at
		} else {
			low = at
		}
	}
	return high, r.try(begin, high, to)
}

// derate is what share of its output a charger gives, as warm as its place is: the
// card's limit is for the place; the case runs hotter by what it loses.
func (r *runner) derate() float64 {
	c := r.rig.Charger
	return coupling.Derate(r.now.airC+c.PlaceOverK, c.FullC)
}

func (r *runner) efficiencyAt(s *sight) float64 {
	c := r.rig.Charger
	out := s.outV
	if out <= 0 {
		return 0.9
	}
	share := s.chargerOutA / c.OutputA
	return math.Max(0.5, c.Curve.Efficiency(math.Max(share, 0.02), s.sensedV/out))
}

// judgeCrank decides whether the engine started.
func (r *runner) judgeCrank(end float64) {
	if r.t < end-1e-9 || r.on.stalled {
		return
	}
	v := &r.result.Verdict
	lowest := r.s.busV
	v.CrankV = math.Min(v.CrankV, lowest)
	if lowest < noStartV*r.rig.N {
		r.on.stalled = true
		v.FailedStarts++
		r.happened("start.fails", "start", fmt.Sprintf("the engine does not start: %.1f V while cranking", lowest))
		return
	}
	r.happened("start", "start", fmt.Sprintf("the engine starts: %.1f V while cranking", lowest))
}
