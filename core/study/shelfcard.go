package study

import (
	"slices"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// is adds what speaks against a charger, once, and what forbids it before the rest.
func (s *Shelved) is(level verdict.Level, text string) {
	s.Sizing.Level = verdict.Worst(s.Sizing.Level, level)
	s.Sizing.Against = s.put(s.Sizing.Against, level, text)
}

// grave counts the reasons of a list that forbid: they stand first in it.
type grave int

// put is a list of reasons with another, where it is not in it yet.
func (g *grave) put(list []string, level verdict.Level, text string) []string {
	switch {
	case slices.Contains(list, text):
		return list
	case level != verdict.Bad:
		return append(list, text)
	}
	*g++
	return slices.Insert(list, int(*g)-1, text)
}

// told is what a job has to answer for a charger that can be told in one way only.
func told(now *design.Design, item parts.Item) map[string]any {
	if item.WakesBy == parts.WakesByVoltage && !now.ByVoltage() {
		return map[string]any{"day.trigger": "voltage"}
	}
	return nil
}

// suits adds what the sheet of a charger says against this job besides its figures: systems, signal, minus, terminals and what is in it.
func (s *Shelved) suits(now, d *design.Design) {
	item, f := s.Item, now.Facts
	if text := otherVolts(item.VoltsIn, f.SystemV.Value, forSystem); text != "" {
		s.is(verdict.Bad, text)
	}
	if text := otherVolts(item.VoltsOut, f.AuxV.Value, "it charges batteries of %s, and the aux battery is of %s"); text != "" {
		s.is(verdict.Bad, text)
	}
	switch {
	case len(told(now, item)) > 0:
		s.is(verdict.Caution, "it knows a running engine by the voltage alone: no signal reaches it")
	case item.WakesBy == parts.WakesBySignal && now.ByVoltage():
		s.is(verdict.Bad, "it waits for a signal, and in this job none is brought: it is told by the voltage")
	}
	if item.Isolated == string(job.Yes) {
		s.is(verdict.Caution, "its two minus are isolated from each other: they have to be joined at its earth")
	}
	for _, text := range tooThick(d, item, d.Charger.TakesMM2()) {
		s.is(verdict.Caution, text)
	}
	s.lacks(now)
}

// lacks adds what a job counts on and is not in a charger.
func (s *Shelved) lacks(now *design.Design) {
	lacks := func(extra string) bool { return len(s.Item.Has) > 0 && !slices.Contains(s.Item.Has, extra) }
	if sunThrough(now) && lacks(parts.HasSolar) {
		s.is(verdict.Bad, "panels go through the charger in this job, and there is no regulator for them in it")
	}
	if disables(now) && lacks(parts.HasDisable) {
		s.is(verdict.Bad, "the battery's charge-disable goes to the charger in this job, and it has no input for one")
	}
}

func sunThrough(now *design.Design) bool {
	return now.Facts.Survey.SolarThrough && now.Facts.Day.SolarW.Value > 0
}

func disables(now *design.Design) bool {
	return now.Facts.Chemistry.Managed() && job.Str(now.Facts.Set.Disable) == string(job.Yes)
}

// forSystem says that a part is made for another vehicle.
const forSystem = "it is for %s, and this vehicle has %s"

// otherVolts says, as a sentence of both, that a part is made for other systems than that of volts; "" where it is made for
// it, or nobody says.
func otherVolts(made []string, volts float64, sentence string) string {
	if len(made) == 0 || slices.Contains(made, unit.Plain(volts, "", 0)) {
		return ""
	}
	return unit.Say(sentence, strings.Join(made, " or ")+" V", unit.Text(volts, "V", 0))
}

// tooThick are the runs whose cable does not go on a part's terminals, of which its sheet speaks; takes is the thickest that its
// terminals take, 0 where nobody says.
func tooThick(d *design.Design, item parts.Item, takes float64) (list []string) {
	if item.Terminals == "" && item.LargestSize == "" {
		return nil
	}
	if most := protect.LugMost(item.Terminals); most > 0 && (takes == 0 || most < takes) {
		takes = most
	}
	name := "terminals"
	if item.Terminals == parts.Clamps {
		name = "clamps"
	}
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if takes > 0 && l.Trial.Size.AreaMM2 > takes*1.02 {
			list = append(list, strings.ToUpper(l.ID)+" is "+l.Trial.Size.Copper()+", and its "+name+" take "+unit.Plain(takes, "mm²", 1))
		}
	}
	return list
}

// largest is the copper of the thickest cable that an item's terminals take, in mm²; 0 where nobody says.
func largest(item parts.Item) float64 {
	size, err := cable.Parse(item.LargestSize)
	if err != nil {
		return 0
	}
	return size.CopperMM2()
}
