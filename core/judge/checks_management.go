package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

var (
	managementFields = []string{"extras.managementA"}
	outputFields     = []string{"extras.outputA", "profile.disable"}
)

// managementLooks hold what a battery's management system lets through, and what its
// charge-disable output switches, against what is asked of them.
var managementLooks = []look{
	{"extra.management.open", verdict.Open, working.Practice, managementFields,
		"Look: what current does the battery's management system let through?",
		func(d *design.Design) []finding {
			return says(!d.Facts.Chemistry.Lead && d.Facts.Extras.ManagementA == nil, "aux")
		}},
	{"extra.management.bears", verdict.Good, working.Practice, managementFields,
		"The management system lets %.0f A through; most of all %s asks of it: %.0f A.",
		managed(func(bears, most float64) bool { return most <= bears })},
	{"extra.management.over", verdict.Bad, working.Practice, managementFields,
		"The management system lets %.0f A through; %s is %.0f A: it opens under load, and what is still connected takes the jump in voltage.",
		managed(func(bears, most float64) bool { return most > bears })},
	{"extra.output.bears", verdict.Good, working.Practice, outputFields,
		"The charge-disable output switches %.2f A; %s takes %.2f A.",
		disabled(func(bears, takes float64) bool { return takes <= bears })},
	{"extra.output.over", verdict.Bad, working.Practice, outputFields,
		"The charge-disable output switches %.2f A and %s takes %.2f A: a relay between them.",
		disabled(func(bears, takes float64) bool { return takes > bears })},
}

// managed finds how what the management system bears stands to the most that is asked of it.
func managed(holds func(bears, most float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		bears := d.Facts.Extras.ManagementA
		if d.Facts.Chemistry.Lead || bears == nil {
			return nil
		}
		most, what := mostAsked(d)
		return says(holds(*bears, most), "aux", *bears, what, most)
	}
}

// mostAsked is the most that is asked of the aux battery, in A, and by what.
func mostAsked(d *design.Design) (most float64, what string) {
	e := d.Facts.Extras
	most, what = d.Aux.Amps, "charging"
	if amps := math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("contact"))); amps > most {
		most, what = amps, "cranking through the join"
	}
	if winches(d) && e.WinchFrom == job.WinchAtAux {
		if amps := circuit.Had(d.StateBy("winch").Solved.Through("aux battery")); amps > most {
			most, what = amps, "the winch"
		}
	}
	if e.PeakA != nil && *e.PeakA > most {
		most, what = *e.PeakA, "all loads at once"
	}
	return most, what
}

// disabled finds how what the charge-disable output bears stands to what it switches.
func disabled(holds func(bears, takes float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if d.Facts.Chemistry.Lead || job.Str(d.Facts.Set.Disable) != string(job.Yes) {
			return nil
		}
		takes, what := d.SignalA(), "the charger's input"
		if d.Kind.Coil() {
			takes, what = d.Contact.CoilA, "the coil"
		}
		bears := d.Facts.Extras.OutputA.Value
		return says(holds(bears, takes), "coupling", bears, what, takes)
	}
}
