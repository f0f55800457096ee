package job

import (
	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/working"
)

// Tri is an answer of yes, no, or not given.
type Tri string

// The answers.
const (
	Yes   Tri = "yes"
	No    Tri = "no"
	Asked Tri = "" // nobody answered
)

// Survey is what was seen on the vehicle, beyond what the run is planned from. Numbers
// that nobody gave are nil: nothing is guessed of them.
type Survey struct {
	Year                           *float64
	StopStart, Euro56              Tri
	Bonded, Sensor, Stud           Tri
	Winch, SecondRoom              Tri
	Frame, Engine                  string // "" not answered
	Alternators                    Num
	Senses, Excites                string // where the alternator holds its voltage, and what excites it; "" where nobody looked
	StartChemistry                 battery.Chemistry
	StartAgeYears, StartV, AuxV    *float64
	StartHours, AuxHours           *float64 // at rest since they were charged
	CrankV                         *float64 // lowest while cranking
	StartMeasured, AuxMeasured     bool     // what they resist was measured
	AuxCount                       Num
	AuxSame                        Tri
	AuxFeed                        string // corners or end
	AuxLinkM                       Num
	Fit                            Fit
	Placing                        PlacingFacts
	EmergencyStart, Budget, Idling Tri
	FeedA                          Num
	SolarThrough                   bool
	SolarPriority                  string // vehicle, sun or both
}

// PlacingFacts is the place of the coupling as it was answered.
type PlacingFacts struct {
	Terminals                                            string
	Exhaust, Spray, Gas, Moving, Visible, Access, Vented Tri
	Housed, Ground                                       Tri
	LengthMM, WidthMM, HeightMM                          *float64
}

// Defaults of the survey. Source: common practice, no source.
const (
	defaultLinkM = 0.3
)

// tri notes an answer of yes or no; one that was not given stays open.
func (r *resolver) tri(path string, given *string) Tri {
	if given == nil {
		return Asked
	}
	r.note(path, *given, true, "")
	return Tri(*given)
}

func (r *resolver) some(path string, given *float64) *float64 {
	if given != nil {
		r.note(path, *given, true, "")
	}
	return given
}

func (f *Facts) survey(r *resolver, d Document) {
	v, p := d.Vehicle, d.Placing
	s := Survey{Year: r.some("vehicle.year", v.Year), StopStart: r.tri("vehicle.stopStart", v.StopStart),
		Euro56: r.tri("vehicle.euro56", v.Euro56),
		Bonded: r.tri("vehicle.bonded", v.Bonded), Sensor: r.tri("vehicle.sensor", v.Sensor), Stud: r.tri("vehicle.stud", v.Stud),
		Winch: r.tri("vehicle.winch", v.Winch), SecondRoom: r.tri("vehicle.secondRoom", v.SecondRoom),
		Frame: string(r.tri("vehicle.frame", v.Frame)), Fit: d.Fit}
	s.Engine = string(r.tri("vehicle.engine", v.Engine))
	s.Senses, s.Excites = Str(d.Alternator.Senses), Str(d.Alternator.Excites)
	s.Alternators = r.num("alternator.count", d.Alternator.Count, 1, "nearly all vehicles have one")
	s.StartChemistry, _ = battery.ByID(r.text("startBattery.chemistry", d.StartBattery.Chemistry, battery.Flooded.ID,
		"the usual start battery"))
	r.tri("startBattery.place", d.StartBattery.Place)
	s.StartAgeYears, s.StartV = r.some("startBattery.ageYears", d.StartBattery.AgeYears), r.some("startBattery.restV", d.StartBattery.RestV)
	s.AuxV = r.some("aux.restV", d.Aux.RestV)
	s.AuxCount = r.num("aux.count", d.Aux.Count, 1, "one battery")
	if s.AuxCount.Value > 1 {
		s.AuxSame = r.tri("aux.same", d.Aux.Same)
		s.AuxFeed = r.text("aux.feed", d.Aux.Feed, "corners", "as it should be")
		s.AuxLinkM = r.num("aux.linkM", d.Aux.LinkM, defaultLinkM, "side by side")
	}
	s.Placing = PlacingFacts{Terminals: string(r.tri("placing.terminals", p.Terminals)), Exhaust: r.tri("placing.exhaust", p.Exhaust),
		Spray: r.tri("placing.spray", p.Spray), Gas: r.tri("placing.gas", p.Gas), Moving: r.tri("placing.moving", p.Moving),
		Visible: r.tri("placing.visible", p.Visible), Access: r.tri("placing.access", p.Access), Vented: r.tri("placing.vented", p.Vented),
		Housed: r.tri("placing.housed", p.Housed), Ground: r.tri("placing.ground", p.Ground),
		LengthMM: r.some("placing.lengthMM", p.LengthMM), WidthMM: r.some("placing.widthMM", p.WidthMM),
		HeightMM: r.some("placing.heightMM", p.HeightMM)}
	r.tri("fit.covered", d.Fit.Covered)
	s.EmergencyStart, s.Budget = r.tri("wants.emergencyStart", d.Wants.EmergencyStart), r.tri("wants.budget", d.Wants.Budget)
	s.SolarThrough = r.text("solar.through", d.Solar.Through, "no", "panels with a regulator of their own") == "yes"
	s.SolarPriority = r.text("solar.priority", d.Solar.Priority, "vehicle", "as such chargers usually do (from memory)")
	s.FeedA = r.num("wants.feedA", d.Wants.FeedA, 0, "none unless it is named")
	s.Idling = r.tri("wants.idling", d.Wants.Idling)
	f.Survey = s
}

// SchoolFacts are the choices that the trade makes one way or the other.
type SchoolFacts struct {
	DelayMin                                                Num
	InSeries                                                bool
	Fuse, Termination, Takeoff, Negative, Emergency, Supply string
	Selector                                                coupling.Selector
}

func (f *Facts) schools(r *resolver, d Document) {
	s := d.Schools
	f.Schools = SchoolFacts{
		DelayMin:    r.num("schools.delayMin", s.DelayMin, 0, "no timer"),
		InSeries:    r.text("schools.inSeries", s.InSeries, "no", "nothing to forget") == "yes",
		Fuse:        r.text("schools.fuse", s.Fuse, "lowest", "doubt goes lower, never higher"),
		Termination: r.text("schools.termination", s.Termination, "crimp", "no wicking, no stiff spot under vibration"),
		Takeoff:     r.text("schools.takeoff", s.Takeoff, takeoff(f.Survey.Stud), "a stud where there is one: cleaner, away from acid"),
		Negative:    r.text("schools.negative", s.Negative, "chassis", "otherwise the vehicle miscounts"),
		Emergency:   r.text("schools.emergency", s.Emergency, "precharge", "cranking current is more than the fuse bears"),
		Supply:      r.text("schools.supply", s.Supply, "loose", "fitted to the job"),
	}
	f.Schools.Selector = coupling.WithIgnition
	if d.Pins.Selector != nil {
		f.Schools.Selector = coupling.Selector(*d.Pins.Selector)
	}
}

func takeoff(stud Tri) string {
	if stud == Yes {
		return "stud"
	}
	return "post"
}

// SeatOut says whether a battery sits under a seat, which comes out for the work.
func (f Facts) SeatOut(d Document) bool {
	return f.Place.ID == "seat" || Str(d.StartBattery.Place) == UnderSeat
}

// Open says whether an answer is still assumed.
func (f Facts) Open(path string) bool {
	for _, fact := range f.List {
		if fact.Path == path {
			return fact.Origin == working.Assumed
		}
	}
	return true
}

// suspectYear is the year from which a vehicle may have variable regulation. Source:
// common practice, no source: from about 2008 to 2010 on.
const suspectYear = 2008

// Suspect says whether a vehicle speaks against steady regulation that no test proved.
func (f Facts) Suspect() bool {
	v := f.Survey
	young := v.Year != nil && *v.Year >= suspectYear
	return f.KnownBy != "test" && (v.StopStart == Yes || v.Euro56 == Yes || young)
}

// FactoryFeed says whether a coil was found on the factory's ignition feed.
func (f Facts) FactoryFeed() bool {
	for _, g := range f.Gear {
		if g.Of.FactoryFeed != nil && *g.Of.FactoryFeed == string(Yes) {
			return true
		}
	}
	return false
}
