package retrofit

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/network"
	"epitrope/core/run"
	"epitrope/core/unit"
)

// pastWire is the name of what was found, in the new design's circuit.
const pastWire = "found"

// isPast says whether a wire joins the batteries past the coupling: live from both its ends, and
// neither cut nor taken off.
func isPast(w job.FoundWire) bool {
	state := job.Str(w.State)
	return job.Str(w.Sources) == job.BothEnds && state != "cut" && state != "taped"
}

// wireOhm is what a wire as found puts between the batteries: where its length is not known, as long
// as the run; where its cable is not, as the run's.
func wireOhm(d *design.Design, w job.FoundWire) float64 {
	size, length := d.Start.Trial.Size, d.Facts.StartM.Value+d.Facts.AuxM.Value
	if w.Size != nil {
		size, _ = cable.Parse(*w.Size) // a document holds only sizes that read
	}
	if w.LengthM != nil {
		length = *w.LengthM
	}
	return size.OhmPerM()*length + 2*run.JointOhm
}

// pastSays tells what flows past the new design's coupling through so much resistance: with the engine
// running, and parked.
func pastSays(d *design.Design, ohm float64) string {
	said := "With it the batteries are always joined, whatever the coupling does."
	if amps, ok := through(d, "cruise", ohm); ok && d.Kind.Charger() {
		said = unit.Say("It joins the batteries past the coupling, and the charger feeds itself in a ring: of %s that it gives, %s come back "+
			"through this.", unit.Text(d.Charger.OutputA, "A", 0), unit.Text(min(math.Abs(amps), d.Charger.OutputA), "A", 0))
	} else if ok {
		said = unit.Say("It joins the batteries past the coupling: %s through it at cruise.", unit.Text(math.Abs(amps), "A", 0))
	}
	return said + " With the key out, house and vehicle live on both."
}

// through is what flows through so much resistance from the start to the aux battery's plus, in a
// state of the new design; not where the circuit has no answer.
func through(d *design.Design, state string, ohm float64) (amps float64, ok bool) {
	c, _, err := d.CircuitAt(state)
	if err != nil {
		return 0, false
	}
	c.Add(network.Resistance{Name: pastWire, A: c.Node("start.30"), B: c.Node("aux.30"), Ohm: ohm})
	solved, err := network.Solve(c)
	if err != nil {
		return 0, false
	}
	return circuit.Had(solved.Through(pastWire)), true
}
