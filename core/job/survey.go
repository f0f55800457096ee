package job

import (
	"epitrope/core/battery"
	"epitrope/core/unit"
)

var (
	millimetres = plain(unit.Millimetres)
	count       = plain(unit.Count)
	power       = plain(unit.Power)
	hours       = plain(unit.Hours)
	days        = plain(unit.Days)
	moments     = plain(unit.Moments)
	milliohms   = plain(unit.Milliohms)
	millivolts  = plain(unit.Millivolts)
)

// Engines of which something follows.
const (
	Diesel = "diesel"
	Hybrid = "hybrid"
)

var yesNo = []Option{{"yes", "yes"}, {"no", "no"}}

func startChemistries() []Option {
	var o []Option
	for _, c := range battery.Chemistries {
		if c.Starts {
			o = append(o, Option{c.ID, c.Label})
		}
	}
	return o
}

func mm(path, label, part string, most float64) Field {
	return Field{Path: path, Label: label, Kind: Number, Unit: "mm", Min: 1, Max: most, dim: millimetres, Part: part}
}

// asked is a field that is asked only where another has such an answer.
func asked(f Field, when *When) Field {
	f.When = when
	return f
}

// bank is where there is more than one battery.
var bank = &When{Path: "aux.count", Above: 1}

func ask(path, label, part string) Field {
	return Field{Path: path, Label: label, Kind: Choice, Choices: yesNo, Part: part}
}

// surveyFields are what is looked at and measured on the vehicle.
var surveyFields = []Field{
	{Path: "vehicle.model", Label: "Model, as the workshop calls it", Kind: Text, Max: 120, Part: "vehicle"},
	{Path: "vehicle.year", Label: "Built in", Kind: Number, Min: 1950, Max: 2100, dim: count, Part: "vehicle"},
	{Path: "vehicle.engine", Label: "Engine", Kind: Choice, Part: "vehicle",
		Choices: []Option{{Diesel, "diesel"}, {"petrol", "petrol"}, {Hybrid, "hybrid"}}},
	ask("vehicle.stopStart", "Stops and starts by itself", "vehicle"),
	ask("vehicle.euro56", "Built to Euro 5 or 6 emission rules", "vehicle"),
	{Path: "vehicle.frame", Label: "Frame", Kind: Choice, Part: "return",
		Choices: []Option{{"steel", "steel"}, {"aluminium", "aluminium"}, {"composite", "composite"}}},
	ask("vehicle.bonded", "Tray, canopy or body bonded to the chassis", "return"),
	ask("vehicle.sensor", "Battery sensor on the start battery's negative post", "start"),
	ask("vehicle.stud", "Remote positive stud or converter terminal", "start"),
	ask("vehicle.winch", "Winch", "vehicle"),
	ask("vehicle.secondRoom", "Room and bracket for a second alternator", "alternator"),
	{Path: "alternator.senses", Label: "Alternator holds its voltage at", Kind: Choice, Part: "alternator",
		Choices: []Option{{"own", "its own terminal"}, {"battery", "the start battery, by a sensing wire"}}},
	{Path: "alternator.excites", Label: "Alternator is excited", Kind: Choice, Part: "alternator",
		Choices: []Option{{"own", "from its own terminal"}, {"key", "by a lamp or an ignition feed"}}},
	{Path: "alternator.count", Label: "Alternators on the vehicle", Kind: Level, Choices: []Option{{"1", "1"}, {"2", "2"}},
		Part: "alternator"},

	{Path: "startBattery.chemistry", Label: "Start battery type", Kind: Choice, Choices: startChemistries(), Part: "start"},
	{Path: "startBattery.place", Label: "Start battery sits", Kind: Choice, Part: "start", Choices: []Option{
		{UnderBonnet, "under the bonnet"}, {UnderSeat, "under a seat"}, {InBoot, "in the boot"}}},
	{Path: "startBattery.ageYears", Label: "Start battery is", Kind: Number, Unit: "years", Max: 20, Digits: 1, dim: plain(unit.Years),
		Part: "start"},
	{Path: "startBattery.restV", Label: "Start battery at rest", Kind: Number, Unit: "V", Max: 14, Digits: 2, PerSystem: true, dim: tension,
		Part: "start"},

	{Path: "aux.count", Label: "Batteries in parallel", Kind: Level, Choices: []Option{{"1", "1"}, {"2", "2"}, {"3", "3"}, {"4", "4"}},
		Part: "aux"},
	asked(ask("aux.same", "Same type and age", "aux"), bank),
	{Path: "aux.feed", Label: "Fed from", Kind: Choice, Part: "aux", When: bank,
		Choices: []Option{{"corners", "opposite corners"}, {"end", "one end"}}},
	{Path: "aux.linkM", Label: "Each link between them", Kind: Number, Unit: "m", Min: 0.05, Max: 10, Digits: 2, dim: length, Part: "aux",
		When: bank},
	{Path: "aux.restV", Label: "Aux battery at rest", Kind: Number, Unit: "V", Max: 15, Digits: 2, PerSystem: true, dim: tension, Part: "aux"},
	mm("fit.lengthMM", "Battery, length", "aux", 2000),
	mm("fit.widthMM", "Battery, width", "aux", 1000),
	mm("fit.heightMM", "Battery, height over terminals", "aux", 1000),
	mm("fit.recessLengthMM", "Recess, length", "aux", 5000),
	mm("fit.recessWidthMM", "Recess, width", "aux", 5000),
	mm("fit.recessHeightMM", "Recess, height to lid or seat at its lowest", "aux", 3000),
	mm("fit.openingLengthMM", "Opening, length", "aux", 5000),
	mm("fit.openingWidthMM", "Opening, width", "aux", 5000),
	mm("fit.aboveMM", "Free above the opening", "aux", 3000),
	ask("fit.covered", "The battery's terminals are covered", "aux"),

	{Path: "placing.terminals", Label: "Coupling's terminals point", Kind: Choice, Part: "coupling",
		Choices: []Option{{"up", "up"}, {"level", "level"}, {"down", "down"}}},
	ask("placing.exhaust", "Near exhaust, turbo or radiator", "coupling"),
	ask("placing.spray", "In reach of spray or wading", "coupling"),
	ask("placing.gas", "In the gas of a vented battery", "coupling"),
	ask("placing.moving", "Clear of struts, doors, seats and belts", "coupling"),
	ask("placing.visible", "The charger's lamp can be seen", "coupling"),
	ask("placing.access", "Can be reached for service", "coupling"),
	ask("placing.housed", "All that is live there is in a housing made for it", "coupling"),
	ask("placing.ground", "The ground lead carries the charger's own current alone", "coupling"),
	mm("placing.lengthMM", "The charger's box, length", "coupling", 2000),
	mm("placing.widthMM", "The charger's box, width", "coupling", 2000),
	mm("placing.heightMM", "The charger's box, height", "coupling", 2000),
	ask("placing.vented", "The box is vented", "coupling"),
	ask("wants.emergencyStart", "Emergency start from the aux battery", "coupling"),
	{Path: "wants.budget", Label: "Budget", Kind: Choice, Part: "coupling",
		Choices: []Option{{"low", "as low as can be"}, {"usual", "usual"}}},
	{Path: "wants.feedA", Label: "Feed beside the charger: fridge, lamps", Kind: Number, Unit: "A", Max: 60, Digits: 1, dim: current,
		Part: "coupling"},
	ask("solar.through", "Solar goes through the charger", "coupling"),
	{Path: "solar.priority", Label: "The charger takes", Kind: Choice, Part: "coupling",
		Choices: []Option{{"vehicle", "the vehicle's input first"}, {"sun", "the sun first"}, {"both", "both at once"}}},
	ask("wants.idling", "Charging at idle matters", "coupling"),
}

// useFields are how the vehicle is lived in, beyond the first answers.
var useFields = []Field{
	{Path: "use.idleHours", Label: "Of these, at idle", Kind: Number, Unit: "h", Max: 24, Digits: 2, dim: hours, Part: "aux"},
	{Path: "use.parkedDays", Label: "Days parked between drives", Kind: Number, Unit: "days", Max: 400, Digits: 1, dim: days, Part: "aux"},
	{Path: "use.mainsAh", Label: "From the mains, on average a day", Kind: Number, Unit: "Ah", Max: 1000, dim: chargeAt, Part: "aux"},
}

// schoolFields are choices that the trade makes one way or the other.
var schoolFields = []Field{
	{Path: "schools.delayMin", Label: "Charging waits after a start", Kind: Number, Unit: "min", Max: 60, Digits: 1, dim: plain(unit.Minutes),
		Part: "coupling"},
	{Path: "schools.inSeries", Label: "A switch in series with the signal", Kind: Choice, Choices: yesNo, Part: "coupling"},
	{Path: "schools.fuse", Label: "Fuses are chosen by", Kind: Choice, Part: "f1", Choices: []Option{
		{"lowest", "the lowest that carries the load warm"}, {"1.2", "1.2 × the load"}, {"cable", "the cable's limit"}, {"below", "start low"}}},
	{Path: "schools.termination", Label: "Ends are", Kind: Choice, Part: "c1",
		Choices: []Option{{"crimp", "crimped"}, {"solder", "soldered"}}},
	{Path: "schools.takeoff", Label: "Feed is taken from", Kind: Choice, Part: "start",
		Choices: []Option{{"post", "the battery's post"}, {"stud", "the remote stud"}}},
	{Path: "schools.negative", Label: "Negative goes on", Kind: Choice, Part: "return",
		Choices: []Option{{"chassis", "the chassis side of the sensor"}, {"post", "the post"}}},
	{Path: "schools.emergency", Label: "Emergency start", Kind: Choice, Part: "coupling", Choices: []Option{
		{"precharge", "join ten seconds, part, crank"}, {"share", "join 10–15 min with the ignition on, part, crank"},
		{"crank", "crank through the join"}}},
	{Path: "colours.feed", Label: "Feeds are", Kind: Text, Max: 30, Part: "c1"},
	{Path: "colours.return", Label: "Returns are", Kind: Text, Max: 30, Part: "c1"},
	{Path: "colours.signal", Label: "Signals are", Kind: Text, Max: 30, Part: "c1"},
	{Path: "colours.house", Label: "Feeds to loads are", Kind: Text, Max: 30, Part: "c1"},
	{Path: "written.units", Label: "Sheets are written in", Kind: Choice, Choices: []Option{
		{"mm2,m,C,Nm", "mm², metres, °C, N·m"}, {"awg,ft,F,lbft", "AWG, feet and inches, °F, lb·ft"}}},
	{Path: "written.paper", Label: "Printed on", Kind: Choice, Choices: []Option{{"A4", "A4"}, {"Letter", "Letter"}}},
	{Path: "schools.supply", Label: "Parts come as", Kind: Choice, Part: "coupling",
		Choices: []Option{{"kit", "a kit"}, {"loose", "loose parts"}}},
}
