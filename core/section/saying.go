package section

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/unit"
)

// Charges is what arrives at the aux battery in a state.
type Charges struct {
	Amps  float64 `json:"amps"`
	Volts float64 `json:"volts"`
	Says  string  `json:"says"`
	Fails string  `json:"fails,omitempty"`
}

// ChargesIn is what arrives in a state.
func ChargesIn(d *design.Design, s design.State) Charges {
	c := Charges{Amps: unit.Round(max(0, s.OutA), 0), Volts: unit.Round(s.AuxV, 1), Says: says(d, s)}
	if s.Err != nil {
		c.Fails = s.Err.Error()
	}
	return c
}

// ShownStates rounds the states at the core's edge.
func ShownStates(d *design.Design) []State {
	out := make([]State, len(d.States))
	for i, s := range d.States {
		out[i] = State{ID: s.ID, Label: s.Label, Kind: string(s.Kind), Worst: i == d.Worst, Sags: s.Sags, Apart: apart(d, s), Says: says(d, s),
			Points: points(d, s),
			InA:    unit.Round(s.InA, 1), OutA: unit.Round(s.OutA, 1), InV: unit.Round(s.InV, 2), AuxV: unit.Round(s.AuxV, 2),
			StartV: circuit.Had(s.Solved.At("start.30"))}
		if s.Err != nil {
			out[i].Fails = s.Err.Error()
		}
	}
	return out
}

// apart says whether the coupling lets nothing through.
func apart(d *design.Design, s design.State) bool {
	if d.Kind.Charger() && !s.Joined {
		return s.Stopped
	}
	return !s.Joined
}

// says is a state in a few words: the volts and amps that matter in it, and what limits
// them; "" where it has no solution.
func says(d *design.Design, s design.State) string {
	amps := unit.Text(s.OutA, "A", 0)
	switch {
	case s.Solved.Volts == nil:
		return ""
	case s.Kind != design.Charging && s.Kind != design.Proving:
		return saysBesides(d, &s)
	case d.Is.Beside == design.Bypass && s.Joined:
		return fmt.Sprintf("%s through the bypass, limited by %s", amps, limitedBy(d, &s))
	case d.Kind.Charger() && (s.Joined || s.Stopped):
		return ""
	case d.Kind.Charger():
		return fmt.Sprintf("%s in, %s out", unit.Text(s.InA, "A", 0), amps)
	case !s.Joined && d.Is.Senses:
		return fmt.Sprintf("relay open: it closes at %s", unit.Text(d.Contact.Sensing.CutInV*d.Facts.N, "V", 1))
	case !s.Joined && !d.Is.Splits:
		return "open"
	}
	return fmt.Sprintf("%s, limited by %s", amps, limitedBy(d, &s))
}

// saysBesides is a state without charging in a few words.
func saysBesides(d *design.Design, s *design.State) string {
	volts := func(v float64) string { return unit.Text(v, "V", 1) }
	amps := func(a float64) string { return unit.Text(a, "A", 0) }
	switch {
	case s.Winches:
		return saysWinch(d, s)
	case s.Short != "":
		ends := "until the fuse opens"
		if s.Short == circuit.ShortC1 && d.Start.Unfused || s.Short == circuit.ShortC2 && d.Aux.Unfused {
			ends = "and no fuse to open"
		}
		return unit.Say("%.1f kA %s", max(circuit.Had(s.Solved.Through(s.Short)), 0)/1000, ends)
	case s.Cranks && s.Joined && !d.Is.OwnMachine:
		return fmt.Sprintf("starter %s at %s, of it %s from the aux battery; %s", amps(circuit.Had(s.Solved.Through("starter"))), volts(s.BusV),
			amps(-s.OutA), FusesAt(d, -s.OutA))
	case s.Cranks:
		return fmt.Sprintf("starter %s at %s", amps(circuit.Had(s.Solved.Through("starter"))), volts(circuit.Had(s.Solved.At("start.30"))))
	case s.Kind == design.Faulted:
		return fmt.Sprintf("%s for a moment", amps(s.OutA))
	case s.Fresh:
		return fmt.Sprintf("%s from the aux battery to the start battery", amps(-s.OutA))
	case s.Joined && !d.Is.OwnMachine:
		return fmt.Sprintf("both batteries share the load: %s", volts(s.BusV))
	}
	return fmt.Sprintf("start battery %s, aux battery %s, apart", volts(circuit.Had(s.Solved.At("start.30"))), volts(s.AuxV))
}

func saysWinch(d *design.Design, s *design.State) string {
	amps := circuit.Had(s.Solved.Through("winch"))
	says := fmt.Sprintf("winch %s at %s", unit.Text(amps, "A", 0), unit.Text(amps*d.WinchOhm(), "V", 1))
	if s.Joined {
		share := math.Abs(circuit.Had(s.Solved.Through("contact")))
		says += fmt.Sprintf(", of it %s through the join; %s", unit.Text(share, "A", 0), FusesAt(d, share))
	}
	return says
}

// limitedBy is what limits the current through a contact.
func limitedBy(d *design.Design, s *design.State) string {
	by := "the circuit"
	switch {
	case s.AcceptsA > 0 && s.OutA > s.AcceptsA*(1-design.SettledWithin):
		by = "the battery"
	case d.Is.Splits && s.MachineGives > s.MachineA*(1-design.SettledWithin),
		!d.Is.Splits && s.BusV < s.SetV-design.LimitedBy*d.Facts.N, d.Is.OwnMachine && s.OutA > s.SecondA*(1-design.SettledWithin):
		by = "the alternator"
	}
	return by
}

// FusesAt says which fuse of the run may open at a current, and how soon.
func FusesAt(d *design.Design, amps float64) string {
	says, soonest := "both fuses hold", math.Inf(1)
	switch {
	case d.Start.Unfused && d.Aux.Unfused:
		return "no fuse opens, as there is none"
	case d.Start.Unfused || d.Aux.Unfused:
		says = "the fuse holds"
	}
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		at := l.Fuse.At(amps, l.Faulted)
		if !l.Unfused && at.OpensMinS < soonest && !math.IsInf(at.OpensMaxS, 1) {
			soonest = at.OpensMinS
			says = fmt.Sprintf("%s opens after %s to %s", strings.ToUpper(l.FuseID), unit.Seconds(at.OpensMinS), unit.Seconds(at.OpensMaxS))
		}
	}
	return says
}
