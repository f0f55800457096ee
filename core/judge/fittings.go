package judge

import (
	"strings"

	"epitrope/core/design"
	"epitrope/core/job"
)

// Fitting is a thing that may be fitted besides the coupling: what is asked of it as the job
// stands, and the checks that are about it.
type Fitting struct {
	ID     string   `json:"id"`
	Title  string   `json:"title"`
	Says   string   `json:"says"`
	Asks   []string `json:"asks" doc:"Paths of fields: the first says whether it is fitted, the others follow where it is"`
	Checks []string `json:"checks" doc:"Ids of checks"`
}

// fitting is one of them: whether it can be on a job at all, whether it is, and how the ids of
// its checks begin.
type fitting struct {
	Fitting
	then   []string
	checks []string
	fits   func(d *design.Design) bool
	has    func(d *design.Design) bool
}

func always(*design.Design) bool { return true }

// fittings are all that there are.
var fittings = []fitting{
	{Fitting{"isolator", "Isolator Q1", "Where a box is to be unplugged or worked on.", []string{"extras.isolator"}, nil},
		[]string{"extras.isolatorA", "extras.isolatorFirst"}, []string{"extra.isolator."}, always,
		func(d *design.Design) bool { return d.Facts.Extras.Isolator != job.NoIsolator }},
	{Fitting{"monitor", "Monitor and shunt R1", "The monitor counts only what passes the shunt.", []string{"extras.monitor"}, nil},
		[]string{"extras.shuntA", "extras.shuntMV", "extras.shuntAll"}, []string{"extra.shunt."}, always,
		func(d *design.Design) bool { return d.Facts.Extras.Monitor }},
	{Fitting{"disconnect", "Low-voltage disconnect Q3", "Between the battery and its loads, with a fuse of its own: F4 and the " +
		"feed H1 are " +
		"sized once it is known what the loads take.", []string{"extras.disconnect"}, nil},
		[]string{"extras.opensV", "extras.closesV", "extras.peakA", "extras.disconnectA", "extras.cuts"}, []string{"extra.disconnect."}, always,
		func(d *design.Design) bool { return d.Facts.Extras.Disconnect }},
	{Fitting{"bond", "Bonding lead B1", "Rubber mounts and paint isolate trays, canopies and bodies.", []string{"extras.bond"}, nil},
		[]string{"extras.bondSize", "extras.bondM"}, []string{"extra.bond."}, always,
		func(d *design.Design) bool { return d.Facts.Extras.Bond }},
	{Fitting{"emergency", "Emergency start", "What would flow is computed; the fuse says whether it survives.",
		[]string{"wants.emergencyStart"}, nil},
		[]string{"schools.emergency", "startBattery.restV", "aux.restV"}, []string{"join."},
		areJoined,
		func(d *design.Design) bool { return d.Facts.Survey.EmergencyStart == job.Yes }},
	{Fitting{"winch", "Winch W1", "A winch takes what a starter takes, for minutes.", []string{"vehicle.winch"}, nil},
		[]string{"extras.winchA", "extras.winchFrom", "extras.winchMin"}, []string{"extra.winch."}, always,
		func(d *design.Design) bool { return d.Facts.Extras.Winch }},
	{Fitting{"management", "Management system", "A management system may open at any time; its charge-disable output should stop " +
		"the charger first.",
		[]string{"extras.managementA"}, nil},
		[]string{"profile.disable", "extras.outputA"}, []string{"extra.management.", "extra.output."},
		func(d *design.Design) bool { return !d.Facts.Chemistry.Lead }, always},
	{Fitting{"socket", "13-pin socket", "For small loads: 9 is permanent and comes back by 13, 10 is switched and comes back by 11.",
		[]string{"extras.socketA"}, nil},
		[]string{"extras.socketContact", "extras.socketM", "extras.socketReturn"}, []string{"extra.socket."},
		func(d *design.Design) bool { return d.Facts.Place.Trailer }, bySocket},
	{Fitting{"solar", "Solar", "Beside the charger, or through it.", []string{"day.solarW"}, nil},
		[]string{"day.sunHours", "solar.through", "solar.priority"}, nil, always,
		func(d *design.Design) bool { return d.Facts.Day.SolarW.Value > 0 }},
}

// Fittings are the things that may be on this job besides the coupling, with what is asked of
// each.
func Fittings(d *design.Design, checks []Check) []Fitting {
	list := []Fitting{}
	for _, f := range fittings {
		if !f.fits(d) {
			continue
		}
		out := f.Fitting
		out.Checks = []string{}
		if f.has(d) {
			out.Asks = append(append([]string{}, out.Asks...), f.then...)
		}
		for _, c := range checks {
			for _, about := range f.checks {
				if strings.HasPrefix(c.ID, about) {
					out.Checks = append(out.Checks, c.ID)
				}
			}
		}
		list = append(list, out)
	}
	return list
}
