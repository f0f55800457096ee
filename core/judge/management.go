package judge

import (
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/verdict"
	"epitrope/core/working"
	"math"
)

func managementChecks(d *design.Design) []Check {
	e, f := d.Facts.Extras, d.Facts
	if f.Chemistry.Lead {
		return nil
	}
	fields := []string{"extras.managementA"}
	list := []Check{}
	if e.ManagementA == nil {
		list = append(list, extra("management.open", "aux", verdict.Open, working.Practice, fields))
	} else {
		most, what := d.Aux.Amps, "charging"
		if share := math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("contact"))); share > most {
			most, what = share, "cranking through the join"
		}
		if s := d.StateBy("winch"); e.WinchFrom == job.WinchAtAux && s.Solved.Volts != nil &&
			circuit.Had(s.Solved.Through("aux battery")) > most {
			most, what = circuit.Had(s.Solved.Through("aux battery")), "the winch"
		}
		if e.PeakA != nil && *e.PeakA > most {
			most, what = *e.PeakA, "all loads at once"
		}
		id, level := "management.bears", verdict.Good
		if most > *e.ManagementA {
			id, level = "management.over", verdict.Bad
		}
		list = append(list, extra(id, "aux", level, working.Practice, fields, *e.ManagementA, what, most))
	}
	if job.Str(f.Set.Disable) != string(job.Yes) {
		return list
	}
	takes, what := design.TriggerA, "the charger's input"
	if d.Kind.Coil() {
		takes, what = d.Contact.CoilA, "the coil"
	}
	id, level := "output.bears", verdict.Good
	if takes > e.OutputA.Value {
		id, level = "output.over", verdict.Bad
	}
	return append(list, extra(id, "coupling", level, working.Practice, []string{"extras.outputA", "profile.disable"}, e.OutputA.Value, what,
		takes))
}
