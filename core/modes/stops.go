package modes

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
)

// Stops is which device can stop or start which, and by what.
type Stops struct {
	By   string `json:"by"`
	Of   string `json:"of"`
	How  string `json:"how"`
	Does string `json:"does" enum:"stops,starts,hides"`
}

// sunMeets says whether what the sun gives reaches the battery with the signal as it is: a
// charger that takes the vehicle first waits on it while the signal is live, dead or not.
func sunMeets(d *design.Design, signalled bool) bool {
	v := d.Facts.Survey
	return !d.Kind.Charger() || !v.SolarThrough || v.SolarPriority != "vehicle" || !signalled
}

// stops lists who can stop or start whom, and what a priority hides when a path is open.
func stops(d *design.Design) []Stops {
	list := []Stops{}
	add := func(by, of, does, how string, args ...any) {
		list = append(list, Stops{By: by, Of: of, Does: does, How: fmt.Sprintf(how, args...)})
	}
	f := d.Facts
	if d.Wired() {
		add("signal ("+d.FeedRating()+")", d.Is.Name, "starts", "Live it runs, dead it rests; F3 blown is the same as dead.")
	}
	if d.ByVoltage() {
		add("voltage at its input", d.Is.Name, "starts",
			"Above %s it takes the engine for running, below %s for stopped: whatever raises the start side starts it.",
			unit.Text(f.Detects.CutInV*f.N, "V", 1), unit.Text(f.Detects.CutOutV*f.N, "V", 1))
	}
	if e := f.Extras; e.Isolator != job.NoIsolator && e.IsolatorFirst == job.Yes {
		add("Q1's own contact", d.Is.Name, "stops", "It breaks the signal before Q1 parts the run.")
	}
	if e := f.Extras; e.Disconnect {
		what := "the loads"
		if e.Cuts == "battery" {
			what = "everything on the aux side"
		}
		add("Q3, low-voltage disconnect", what, "stops", "Below %s it opens; above %s it closes again.", unit.Text(e.OpensV.Value, "V", 1),
			unit.Text(e.ClosesV.Value, "V", 1))
		if e.Cuts == "battery" {
			add("Q3, low-voltage disconnect", d.Is.Name, "hides",
				"Once it is open a charger sees no battery: a flat battery looks like a dead charger.")
		}
	}
	if d.Kind.Charger() {
		add(d.Is.Name+"'s cut-out", d.Is.Name, "stops", "Below %s at its input it stops, and looks again above %s.",
			unit.Text(d.Charger.CutOutV*f.N, "V", 1), unit.Text(d.Charger.RestartV*f.N, "V", 1))
	}
	if !f.Chemistry.Lead {
		switch f.Set.Disable {
		case nil:
			add("management system", "everything on the aux side", "stops",
				"It opens when a cell is cold, full or empty; whether its charge-disable is wired to the charger nobody said.")
		default:
			if *f.Set.Disable == string(job.Yes) {
				add("management system's charge-disable", d.Is.Name, "stops", "First the charger, then, if that fails, its own contact.")
			} else {
				add("management system", "everything on the aux side", "stops", "It opens under charge: a load dump on all that is still connected.")
			}
		}
	}
	if f.Day.SolarW.Value > 0 && d.Kind.Charger() && f.Survey.SolarThrough {
		sun := unit.Text(design.SunShare*f.Day.SolarW.Value/(14*f.AuxN), "A", 0)
		switch f.Survey.SolarPriority {
		case "vehicle":
			add("vehicle's input", "solar", "hides",
				"While the signal is live the charger takes the vehicle first. With F1 open it waits on a dead input, and %s of sun go nowhere: a "+
					"dead feed looks like dead panels.", sun)
		case "sun":
			add("solar", "vehicle's input", "hides",
				"While the sun shines the charger takes %s of it and leaves the vehicle: a dead feed shows only at night.", sun)
		}
	}
	return list
}
