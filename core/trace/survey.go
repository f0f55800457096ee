package trace

import (
	"cmp"
	"math"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/job"
	"epitrope/core/system"
)

// survey is what the survey says of how often a fault is what is wrong: by the stretch that a wire is of, by where it lies, and by how
// it was built.
type survey struct {
	d     *design.Design
	wires map[string]system.Wire
	found map[string][]job.FoundWire // by what they are
	joins bool                       // a wire was found that may join the batteries past the coupling
}

// times is how much oftener a fault is what is wrong. Source: all of these from memory.
type times map[fault.Kind]float64

var (
	foundSo = map[string]times{
		"corroded": {fault.Joint: 5, fault.Open: 2, fault.Steel: 2},
		"loose":    {fault.Joint: 5, fault.Open: 2},
		"chafed":   {fault.Chafed: 6, fault.Leak: 6, fault.Bridged: 3},
		"taped":    {fault.Open: 6},
		"cut":      {fault.Open: 10},
	}
	inTheHeat = times{fault.Chafed: 1.2, fault.Leak: 1.2}
	soldered  = times{fault.Joint: 1.5, fault.Open: 1.5}
	inConduit = times{fault.Chafed: 0.4, fault.Leak: 0.4}
	asThere   = times{fault.Joint: 1.3, fault.Open: 1.3, fault.Thin: 1.5} // by whom, nobody knows
	whenNew   = times{fault.Crossed: 4, fault.Swapped: 4, fault.Open: 2, fault.Profile: 2, fault.Half: 2, fault.Bridged: 2, fault.Thin: 2,
		fault.Cell: 0.4, fault.Tired: 0.2, fault.Sulphated: 0.3, fault.Machine: 0.6, fault.Worn: 0.4, fault.Burnt: 0.3, fault.Diode: 0.5}
	whenOld = times{fault.Joint: 1.5, fault.Steel: 1.5, fault.Half: 1.5, fault.Burnt: 1.5, fault.Cell: 2, fault.Tired: 2.5,
		fault.Sulphated: 2, fault.Worn: 1.5, fault.Chafed: 1.5, fault.Crossed: 0.3, fault.Swapped: 0.3, fault.Profile: 0.6, fault.Thin: 0.5}
)

// whereItEnds is how much oftener an end is at fault that is bolted there. Source: from memory; that grounds lead, trade practice.
var whereItEnds = map[system.ComponentKind]float64{system.KindEarth: 1.5, system.KindBattery: 1.3, system.KindPlug: 1.3}

// When an installation is new, and when it is old, in years; between them it is neither. Source: from memory.
const (
	newUntil = 0.1
	oldFrom  = 5.0
)

func surveyed(d *design.Design) survey {
	s := survey{d: d, wires: map[string]system.Wire{}, found: map[string][]job.FoundWire{}}
	for _, w := range d.System.Wires {
		s.wires[w.ID] = w
	}
	for _, row := range d.Facts.Found {
		run := job.Str(row.Of.Role)
		s.found[run] = append(s.found[run], row.Of)
		s.joins = s.joins || job.Str(row.Of.Sources) == job.BothEnds || run == "unknown" // nobody has followed it
	}
	return s
}

// speaks is how much oftener a fault is what is wrong, by what the survey saw.
func (s survey) speaks(f fault.Fault) float64 {
	often := 1.0
	by := func(t times) { often *= cmp.Or(t[f.Kind], 1) }
	if f.Kind == fault.Bypassed && s.joins {
		often *= 5
	}
	if f.Kind == fault.Joint {
		often *= s.endsIn(f.End)
	}
	w, is := s.wires[f.At]
	if !is {
		return often
	}
	if role := s.foundAs(w); role != "" && s.asFound() {
		for _, found := range s.found[role] {
			by(foundSo[job.Str(found.State)])
		}
		if w.Role != system.Chassis {
			by(asThere)
		}
	}
	if w.Conduit {
		by(inConduit)
	}
	if s.d.System.Soldered && w.Beside == "" {
		by(soldered)
	}
	if w.Run == s.d.Start.ID && s.d.Start.Bay.AmbientC >= cable.EngineC {
		by(inTheHeat)
	}
	return often
}

// endsIn is how much oftener an end is at fault by what it is bolted to: bare steel rusts, a battery's post sits in its acid, a plug is
// pulled and gets wet.
func (s survey) endsIn(at string) float64 {
	c, _ := s.d.System.Component(at)
	return cmp.Or(whereItEnds[c.Kind], 1)
}

// foundAs is what a wire is called among those that were found.
func (s survey) foundAs(w system.Wire) string {
	switch {
	case w.Role == system.Signal:
		return "trigger"
	case w.Role != system.Feed:
		return "return"
	case w.Run == s.d.Start.ID:
		return "start"
	case w.Run == s.d.Aux.ID:
		return "aux"
	}
	return ""
}

// asFound says that the installation is the one that was found: its coupling is what was there.
func (s survey) asFound() bool {
	have, pinned := s.d.Facts.Have.Coupling, s.d.Doc.Pins.Coupling
	return have != nil && pinned != nil && *have == *pinned
}

// aged is how much oftener a fault of a kind is what is wrong, by how many years it has been in use.
func aged(k fault.Kind, years *float64) float64 {
	switch {
	case years == nil:
		return 1
	case *years <= newUntil:
		return cmp.Or(whenNew[k], 1)
	}
	return math.Pow(cmp.Or(whenOld[k], 1), min(1, *years/oldFrom))
}
