package job

import (
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/profile"
	"epitrope/core/working"
)

// Fact is one field as the plan takes it: answered, or assumed and why.
type Fact struct {
	Path   string         `json:"path"`
	Label  string         `json:"label"`
	Text   string         `json:"text"`
	Origin working.Origin `json:"origin" enum:"surveyed,assumed,pinned"`
	Why    string         `json:"why,omitempty" doc:"The reason of an assumed value"`
	Known  string         `json:"known,omitempty" enum:"measured,book,told,assumed" doc:"How an answer is known, where that was said"`
}

// Num is a quantity with where it came from.
type Num struct {
	Value  float64
	Origin working.Origin
	Why    string
}

// Input is the quantity as an input of a formula.
func (n Num) Input() working.Input { return working.From(n.Value, n.Origin, n.Why) }

// Facts is the whole job with nothing left open.
type Facts struct {
	Coupling       coupling.Kind
	N              float64 // system voltage / 12 V
	AuxN           float64 // the aux side's / 12 V: as the system's, unless a charger stands between
	SystemV, AuxV  Num
	Body           Body
	Place          Place
	PlaceFits      bool // the body has such a place
	StartHot       bool // the start battery is in the engine space, as usual
	LoadA          Num
	Label          alternator.Label
	LabelA         Num
	Regulation     string
	KnownBy        string
	RegulatedV     Num
	StartAh        Num
	CrankA         Num
	Chemistry      battery.Chemistry
	ChemistryKnown bool // it was answered; otherwise another stands in for it
	AuxAh          Num
	DailyAh        Num
	DrivenHours    Num
	StartBay       cable.Bay
	AuxBay         cable.Bay
	CableSystem    cable.System
	Stocked, Reels []cable.Size // named as stocked; to choose from, thinnest first
	Lugs           cable.System // of the barrels in stock; empty: as each cable is sold
	Insulation     cable.Insulation
	ChargerDrop    Num
	BatteryDrop    Num
	StartM         Num
	AuxM           Num
	EarthM         Num
	TriggerM       Num
	Day            DayFacts
	Survey         Survey
	Schools        SchoolFacts
	Need           NeedFacts
	Gear           []Row[Gear]
	Found          []Row[FoundWire]
	Have           Have
	Feeds          []Row[Feed]
	FeedTaken      string
	Settings       []profile.Setting // how the charger can be set; the stock card's where the job has none
	OwnCard        bool
	Set            Profile
	Relay          RelayFacts
	Detects        coupling.Sensing // what a charger without a signal takes for a running engine, at 12 V
	Extras         ExtraFacts
	Sources        []SourceFacts // what charges the aux battery besides the coupling
	GeneratorW     *float64      // what may also feed the mains charger
	Machine        MachineFacts
	Ways           WayFacts
	Arranged       ArrangedFacts
	Drilling       DrillingFacts
	Bank           []BankFact // batteries of a bank that were listed one by one; none otherwise
	Taps           []TapFact  // what hangs on the run at the coupling
	CrankS         Num        // how long a start takes
	SlowMOhm       *float64   // of the aux battery: what follows slowly …
	SlowS          *float64   // … and within what time

	StartInsulation, AuxInsulation cable.Insulation // a run's own, or that of the reels

	Signal SignalFacts

	List []Fact
}

// Varies says whether the regulation has to be taken as variable: where it is,
// where it is not known, and where a steady one was only guessed, or taken from a year that proves
// nothing.
func (f Facts) Varies() bool {
	steady := f.Regulation == "fixed" || f.Regulation == "compensated"
	old := f.KnownBy == "year" && f.Survey.Year != nil && *f.Survey.Year < steadyYear
	return !steady || (f.KnownBy != "test" && f.KnownBy != "label" && !old)
}

// steadyYear is the year before which regulation is steady. Source: common practice, no source: about
// 2000; later a year proves nothing.
const steadyYear = 2000

// resolver fills what was not answered and remembers both.
type resolver struct {
	list  []Fact
	known map[string]string
}

func (r *resolver) note(path string, value any, answered bool, why string) working.Origin {
	f, _ := FieldAt(path)
	fact := Fact{Path: path, Label: f.Label, Text: f.Show(value), Origin: working.Surveyed}
	switch how := r.known[strings.ReplaceAll(path, ".", "/")]; {
	case !answered:
		fact.Origin, fact.Why = working.Assumed, why
	case how == "assumed":
		fact.Origin, fact.Why, fact.Known = working.Assumed, "entered as assumed", how
	default:
		fact.Known = how
	}
	r.list = append(r.list, fact)
	return fact.Origin
}

func (r *resolver) num(path string, given *float64, otherwise float64, why string) Num {
	if given != nil {
		return Num{*given, r.note(path, *given, true, ""), byPath[path].Label}
	}
	return Num{otherwise, r.note(path, otherwise, false, why), why}
}

func (r *resolver) text(path string, given *string, otherwise, why string) string {
	if given != nil {
		r.note(path, *given, true, "")
		return *given
	}
	r.note(path, otherwise, false, why)
	return otherwise
}

// Defaults of what was not answered. Source: common practice, no source, but for
// those that name another.
const (
	defaultKind     = "panel-van"
	defaultLabel    = "120 A"
	defaultPlace    = "rear"
	defaultAuxAh    = 100
	defaultDailyAh  = 50
	defaultHours    = 1.5
	defaultStartAh  = 80
	defaultCrankA   = 400
	defaultLoadA    = 45   // of 25–50 A at night
	defaultVolts    = 14.2 // of 14.0–14.7
	defaultEarthM   = 0.6
	sensingM        = 0.6 // a relay sits within 2 m of the start battery
	besideM         = 0.9 // a charger sits beside the battery it charges
	slack           = 1.1 // on a route
	upAndDownM      = 0.8
	dashX, dashY    = 1.6, 1.1
	defaultInsulate = 85
)

// usualCrankA is what a starter takes by its engine: a diesel's compression asks for most, and its
// battery was chosen for it, at some five times its capacity. Source: from memory.
var usualCrankA = map[string]float64{"petrol": 350, Diesel: 450, Hybrid: 300}

const crankPerAh = 5.0

// Resolve fills the document. The coupling matters for where the lengths lie.
func (d Document) Resolve(k coupling.Kind) Facts {
	r := &resolver{known: d.Known}
	f := Facts{Coupling: k, Gear: Rows(d.Gear), Found: Rows(d.Found), Have: d.Have, Feeds: Rows(d.Feeds), FeedTaken: d.Signal.Feed,
		Set: d.Profile}
	f.Settings, f.OwnCard = d.settings()
	f.Detects = d.Card.detects()
	f.Relay = r.relay(d.Relay, k.Senses())
	f.Signal = r.signal(d)
	f.vehicle(r, d)
	f.electrical(r, d)
	f.day(r, d)
	f.taps(r, d)
	f.use(r, d)
	f.routes(r, d, k)
	f.survey(r, d)
	f.bank(r, d)
	f.arranged(r, d)
	f.drilling(r, d)
	f.ways(r, d)
	f.cells(r, d)
	f.schools(r, d)
	f.extras(r, d)
	f.sources(r, d)
	r.beliefs(d.Beliefs)
	f.List = r.list
	return f
}

func (f *Facts) vehicle(r *resolver, d Document) {
	f.Body = BodyOf(r.text("vehicle.kind", d.Vehicle.Kind, defaultKind, "the commonest vehicle for this work"))
	f.SystemV = r.num("vehicle.systemVolts", d.Vehicle.SystemVolts, 12, "nearly all vehicles of this kind")
	f.N = f.SystemV.Value / 12
	f.AuxV = Num{f.SystemV.Value, f.SystemV.Origin, f.SystemV.Why}
	if d.Aux.Volts != nil {
		f.AuxV = r.num("aux.volts", d.Aux.Volts, 0, "")
	}
	f.AuxN = f.AuxV.Value / 12
	place := defaultPlace
	if _, ok := f.Body.PlaceOf(place); !ok || f.Body.Places[0].Trailer {
		place = f.Body.Places[0].ID
	}
	f.Body.Start = f.Body.startAt(Str(d.StartBattery.Place))
	f.StartHot = Str(d.StartBattery.Place) == "" || Str(d.StartBattery.Place) == UnderBonnet
	f.Place, f.PlaceFits = f.Body.PlaceOf(r.text("aux.place", d.Aux.Place, place, "the longest run of this vehicle"))
}

func (f *Facts) electrical(r *resolver, d Document) {
	label := r.text("alternator.label", d.Alternator.Label, defaultLabel, "a middling machine")
	f.Label, _ = alternator.ParseLabel(label) // a document holds only labels that read
	f.LabelA = Num{f.Label.RatedA, working.Surveyed, "alternator label"}
	if d.Alternator.Label == nil {
		f.LabelA.Origin, f.LabelA.Why = working.Assumed, "a middling machine"
	}
	if count := d.Alternator.Count; count != nil && *count > 1 {
		f.Label.LowA, f.Label.RatedA = f.Label.LowA**count, f.Label.RatedA**count
		f.LabelA = Num{f.Label.RatedA, f.LabelA.Origin, "two machines of that label"}
	}
	f.Regulation = r.text("alternator.regulation", d.Alternator.Regulation, "unknown", "not known is taken as variable")
	f.KnownBy = r.text("alternator.knownBy", d.Alternator.KnownBy, "guess", "not tested")
	f.RegulatedV = r.num("alternator.volts", d.Alternator.Volts, defaultVolts*f.N,
		"healthy charging is 14.0–14.7 V (common practice, no source)")
	f.LoadA = r.num("vehicle.loadA", d.Vehicle.LoadA, defaultLoadA,
		"lamps, wipers and blower take 25–50 A at night (common practice, no source)")
	f.machine(r, d)
	f.StartAh = r.num("startBattery.capacityAh", d.StartBattery.CapacityAh, defaultStartAh, "a common size")
	usual := float64(defaultCrankA)
	if byEngine, ok := usualCrankA[Str(d.Vehicle.Engine)]; ok {
		usual = min(byEngine, crankPerAh*f.StartAh.Value)
	}
	f.CrankA = r.num("startBattery.crankA", d.StartBattery.CrankA, usual, "starters take 300–800 A (common practice, no source)")
	f.Chemistry, f.ChemistryKnown = r.chemistry(d.Aux.Chemistry)
	f.AuxAh = r.num("aux.capacityAh", d.Aux.CapacityAh, defaultAuxAh, "a common size")
}

func (f *Facts) use(r *resolver, d Document) {
	f.needs(r, d)
	f.DrivenHours = r.num("use.drivenHours", d.Use.DrivenHours, defaultHours, "a common day")
	f.CableSystem = cable.System(r.text("cable.system", d.Cable.System, string(cable.Metric), "copper area says what it is"))
	f.Stocked, _ = cable.ParseList(Str(d.Cable.Sizes)) // read when it was decoded
	f.Reels = cable.Reels(f.Stocked, f.CableSystem)
	if lugs := r.text("cable.lugs", d.Cable.Lugs, LugsByCable, "each cable has its own"); lugs != LugsByCable {
		f.Lugs = cable.System(lugs)
	}
	insulation := r.num("cable.insulation", d.Cable.Insulation, defaultInsulate, "usual for vehicle cable")
	f.Insulation, _ = cable.InsulationFor(insulation.Value)
	f.ChargerDrop = r.num("limits.chargerDrop", d.Limits.ChargerDrop, 5, "a charger boosts (common practice, no source)")
	f.BatteryDrop = r.num("limits.batteryDrop", d.Limits.BatteryDrop, 2, "nothing regulates at the battery (common practice, no source)")
}

func (f *Facts) routes(r *resolver, d Document, k coupling.Kind) {
	whole := Route(f.Body.Start, f.Place.At)
	start, aux, end := whole, besideM, f.Place.At
	if Str(d.Arranged.Ahead) == string(Yes) && k.Charger() {
		end = f.Body.Start // the relay sits there
	}
	if k.AtStart(f.Place.Trailer) {
		start, aux, end = sensingM, whole, f.Body.Start
	}
	const guessed = "from the drawing, with 10 % slack; measure it with a string"
	f.StartM = r.num("routes.startM", d.Routes.StartM, start, guessed)
	f.AuxM = r.num("routes.auxM", d.Routes.AuxM, aux, guessed)
	f.EarthM = r.num("routes.earthM", d.Routes.EarthM, defaultEarthM, "a short lead to clean metal")
	f.TriggerM = r.num("routes.triggerM", d.Routes.TriggerM, Route(Point{dashX, dashY}, end), guessed)

	f.StartBay = bay(r, "bays.startC", d.Bays.StartC, f.StartHot).Laid(laying(r, "bays.startLay", d.Bays.StartLay, f.Place.Trailer))
	f.AuxBay = bay(r, "bays.auxC", d.Bays.AuxC, f.Place.Hot).Laid(laying(r, "bays.auxLay", d.Bays.AuxLay, false))
}
