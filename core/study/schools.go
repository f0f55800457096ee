package study

import (
	"fmt"
	"strings"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/run"
	"epitrope/core/section"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// School is a question on which the trade is of more than one mind, with what each answer
// comes to on this job.
type School struct {
	ID      string         `json:"id"`
	Ask     string         `json:"ask"`
	Default string         `json:"default" doc:"What is taken unless somebody decides, and why"`
	Path    string         `json:"path" doc:"The field that decides it"`
	Options []SchoolOption `json:"options"`
}

// SchoolOption is one answer.
type SchoolOption struct {
	Value string        `json:"value"`
	Label string        `json:"label"`
	Comes string        `json:"comes" doc:"What it comes to on this job, computed"`
	Costs string        `json:"costs,omitempty" doc:"What its parts cost beside those of the job as it is, by the parts book"`
	Now   bool          `json:"now"`
	Level verdict.Level `json:"level" enum:"good,caution,bad"`
}

// Schools works out every question of the trade on a design.
func Schools(now *design.Design) []School {
	t := trier{now}
	list := []School{t.signal(), t.inSeries(), t.feedPoint(), t.delay(), t.device(), t.termination(), t.returns(), t.dropLimit(), t.fuseSize(),
		t.takeoff(), t.negative(), t.supply()}
	if now.Is.CanJoin {
		list = append(list, t.emergency())
	}
	return list
}

// trier plans a job with one answer changed.
type trier struct{ now *design.Design }

func (t trier) with(path string, value any) *design.Design {
	doc, problems := job.With(t.now.Doc, map[string]any{path: value})
	if len(problems) > 0 {
		return t.now
	}
	return t.now.With(doc)
}

// teller says what an answer comes to in the design that has it.
type teller func(d *design.Design, value string) (string, verdict.Level)

// options are the answers of a field, each told by what the design with it says.
func (t trier) options(path, now string, values []string, tell teller) []SchoolOption {
	list := []SchoolOption{}
	field, _ := job.FieldAt(path)
	for _, v := range values {
		comes, level := tell(t.with(path, v), v)
		list = append(list, SchoolOption{Value: v, Label: field.Show(v), Comes: comes, Now: v == now, Level: level})
	}
	return list
}

func (t trier) device() School {
	s := School{ID: "device", Ask: "Fuse or breaker?", Path: "pins.device",
		Default: "Fuses near the sources; a breaker where a switch is wanted too."}
	now := "fuse"
	if pin := t.now.Doc.Pins.Device; pin != nil {
		now = *pin
	}
	s.Options = t.options(s.Path, now, []string{"fuse", "breaker", "auto-breaker"}, func(d *design.Design, v string) (string, verdict.Level) {
		level := verdict.Good
		for _, n := range judge.Notes(d) {
			if n.Severity == verdict.Stop && (n.Column == "f1" || n.Column == "f2") {
				level = verdict.Bad
			}
		}
		var weakest string
		for _, l := range judge.Chain(d) {
			if l.Column == "f1" {
				weakest = unit.Text(l.Share, "%", 0)
			}
		}
		resets := map[string]string{"fuse": "a blown one can be seen", "breaker": "isolates, and is set again by hand",
			"auto-breaker": "closes on the fault again by itself"}[v]
		if d.Start.Unfused {
			return "Nothing at the start battery protects the run.", verdict.Bad
		}
		return fmt.Sprintf("F1 %s, at %s of what it holds; %s.", d.Start.Fuse.Label(), weakest, resets), level
	})
	return s
}

func (t trier) termination() School {
	s := School{ID: "termination", Ask: "Crimped or soldered?", Path: "schools.termination",
		Default: "Crimped with the right die: no wicking, no stiff spot under vibration."}
	s.Options = t.options(s.Path, t.now.Facts.Schools.Termination, []string{"crimp", "solder"},
		func(d *design.Design, v string) (string, verdict.Level) {
			ends := bill(d).Ends
			watts := d.Start.Amps * d.Start.Amps * run.JointOhm
			if v == "crimp" {
				return fmt.Sprintf("%d ends, each %s at %s in a good crimp: a die that matches the lug, and a tug test.", ends,
					unit.Text(watts, "W", 1), unit.Text(d.Start.Amps, "A", 0)), verdict.Good
			}
			return fmt.Sprintf("%d ends, each with a stiff spot where the solder wicked to: strain relief within 100 mm of every one, and a "+
				"joint that gets hot softens.", ends), verdict.Caution
		})
	return s
}

func (t trier) returns() School {
	s := School{ID: "return", Ask: "Return by chassis, cable or both?", Path: "pins.return",
		Default: "A lead to a chassis point near the battery; behind a tow coupling, and on a frame that is no steel, cable."}
	now := "chassis"
	if t.now.Back.ByCable {
		now = "cable"
		if t.now.Back.ByChassis {
			now = "both"
		}
	}
	s.Options = t.options(s.Path, now, []string{"chassis", "cable", "both"}, func(d *design.Design, _ string) (string, verdict.Level) {
		lost := section.ReturnLoss(d, "n1", "n1t", "chassis", "body")
		if d.Back.ByCable && d.Back.ByChassis {
			lost = section.ReturnLoss(d, "n1", "chassis", "body")
		}
		level := verdict.Good
		for _, n := range judge.Notes(d) {
			if n.ID == "return.hitch" {
				level = verdict.Bad
			}
		}
		for _, c := range judge.AnswerChecks(d) {
			if c.ID == "answers.frame" || c.ID == "answers.bonded" {
				level = verdict.Bad
			}
		}
		return fmt.Sprintf("Loses %s at the worst; %s of copper in the installation; aux battery %s at cruise.", lost,
			unit.Text(bill(d).CopperKg, "kg", 1), unit.Text(d.CruiseState().AuxV, "V", 2)), level
	})
	return s
}

func (t trier) dropLimit() School {
	s := School{ID: "drop", Ask: "How much drop is allowed?", Path: "limits.batteryDrop",
		Default: "2 % to a battery that nothing regulates, 5 % into a charger: it boosts, but see its minimum."}
	now := t.now.Facts.BatteryDrop.Value
	if t.now.Kind.Charger() {
		s.Path, now = "limits.chargerDrop", t.now.Facts.ChargerDrop.Value
	}
	for _, percent := range []float64{2, 3, 5, 10} {
		d := t.with(s.Path, percent)
		level := verdict.Good
		if fails(d) != "" {
			level = verdict.Bad
		}
		worst := d.WorstState()
		s.Options = append(s.Options, SchoolOption{Value: unit.Plain(percent, "", 0), Label: unit.Plain(percent, "%", 0),
			Now: percent == now, Level: level,
			Comes: fmt.Sprintf("Start run %s, aux run %s, %s of copper; %s at the coupling and %s at the aux battery at cruise, %s at the worst.",
				d.Start.Trial.Size.Copper(), d.Aux.Trial.Size.Copper(), unit.Text(bill(d).CopperKg, "kg", 1),
				unit.Text(d.CruiseState().InV, "V", 2), unit.Text(d.CruiseState().AuxV, "V", 2), unit.Text(worst.InV, "V", 2))})
	}
	return s
}

func (t trier) fuseSize() School {
	s := School{ID: "fuse", Ask: "How is a fuse's size chosen?", Path: "schools.fuse",
		Default: "The lowest between 1.25 × the load and what the cable bears."}
	s.Options = t.options(s.Path, t.now.Facts.Schools.Fuse, []string{"lowest", "1.2", "cable", "below"},
		func(d *design.Design, _ string) (string, verdict.Level) {
			level, says := verdict.Good, []string{}
			for _, l := range []*run.Sized{&d.Start, &d.Aux} {
				name := strings.ToUpper(l.FuseID)
				if l.Unfused {
					says, level = append(says, "there is no "+name), verdict.Bad
					continue
				}
				carries := l.Fuse.Carries(l.Bay.AmbientC)
				says = append(says, fmt.Sprintf("%s %s holds %s where it sits, and %s flow", name, unit.Plain(l.Fuse.RatingA, "A", 1),
					unit.Text(carries, "A", 0), unit.Text(l.Amps, "A", 0)))
				if l.Amps > carries+0.05 && level == verdict.Good {
					level = verdict.Caution
				}
				if l.Fuse.RatingA > l.Trial.AmpacityA || !l.Cover.Saves {
					level = verdict.Bad
				}
			}
			return strings.Join(says, "; ") + ".", level
		})
	return s
}

func (t trier) takeoff() School {
	s := School{ID: "takeoff", Ask: "Where is the feed taken from?", Path: "schools.takeoff",
		Default: "The remote stud where there is one: cleaner, away from acid."}
	s.Options = t.options(s.Path, t.now.Facts.Schools.Takeoff, []string{"post", "stud"},
		func(d *design.Design, v string) (string, verdict.Level) {
			if v == "post" {
				return fmt.Sprintf("%s at the coupling at the worst; the lug sits in the battery's acid, and comes off with every battery change.",
					unit.Text(d.WorstState().InV, "V", 2)), verdict.Good
			}
			if d.Facts.Survey.Stud == job.No {
				return "This vehicle has none.", verdict.Caution
			}
			return fmt.Sprintf("%s at the coupling at the worst: the vehicle's own lead loses %s of it.", unit.Text(d.WorstState().InV, "V", 2),
				unit.Text(d.Start.Amps*run.LeadOhm, "V", 2)), verdict.Good
		})
	return s
}

func (t trier) negative() School {
	s := School{ID: "negative", Ask: "Where does the negative go, at a battery with a sensor?", Path: "schools.negative",
		Default: "On the chassis side of the sensor, always."}
	s.Options = t.options(s.Path, t.now.Facts.Schools.Negative, []string{"chassis", "post"},
		func(d *design.Design, v string) (string, verdict.Level) {
			if v == "chassis" {
				return fmt.Sprintf("The sensor counts all of the %s that charging takes.", unit.Text(d.Start.Amps, "A", 0)), verdict.Good
			}
			if d.Facts.Survey.Sensor == job.No {
				return "There is no sensor on this battery.", verdict.Good
			}
			return fmt.Sprintf("Up to %s go past the sensor uncounted: in an hour the vehicle believes in %s that its battery does not have.",
				unit.Text(d.Start.Amps, "A", 0), unit.Text(d.Start.Amps, "Ah", 0)), verdict.Bad
		})
	return s
}

// A kit's cable and fuses. Source: from memory: 16 mm², five metres, two 60 A fuses, at
// four fifths of its parts bought singly.
const (
	kitMM2, kitM, kitFuseA, kitShare = 16.0, 5.0, 60.0, 0.8
)

func (t trier) supply() School {
	s := School{ID: "supply", Ask: "A kit or loose parts?", Path: "schools.supply", Default: "Whichever is cheaper and fits."}
	d := t.now
	bill := bill(d)
	loose := SchoolOption{Value: "loose", Label: "loose parts", Level: verdict.Good, Now: d.Facts.Schools.Supply == "loose",
		Comes: fmt.Sprintf("Fitted to the job: %s of power cable, %s.", unit.Metres(bill.MetresM), price(bill.Cost))}
	kit := SchoolOption{Value: "kit", Label: "a kit", Level: verdict.Good, Now: d.Facts.Schools.Supply == "kit"}
	var short []string
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if l.Auto.CopperMM2() > kitMM2*1.01 {
			short = append(short, fmt.Sprintf("%s needs %s and a kit has %s", strings.ToUpper(l.ID), l.Auto.Copper(),
				unit.Plain(kitMM2, "mm²", 0)))
		}
	}
	if bill.MetresM > kitM {
		short = append(short, fmt.Sprintf("%s are needed and a kit has %s", unit.Metres(bill.MetresM), unit.Plain(kitM, "m", 0)))
	}
	if d.Start.AutoFuse.RatingA > kitFuseA {
		short = append(short, fmt.Sprintf("F1 is %s and a kit's fuses are %s", unit.Plain(d.Start.AutoFuse.RatingA, "A", 0),
			unit.Plain(kitFuseA, "A", 0)))
	}
	kit.Comes = fmt.Sprintf("About %s.", price(bill.Cost*kitShare))
	if len(short) > 0 {
		kit.Level, kit.Comes = verdict.Bad, "Does not fit this job: "+strings.Join(short, "; ")+"."
	}
	s.Options = []SchoolOption{kit, loose}
	return s
}
