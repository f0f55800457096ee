package judge

import (
	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// splitterRules are about diodes between the machine and the batteries.
var splitterRules = []rule{
	{"splitter.excite", verdict.Stop, working.Physics,
		"The alternator excites itself from its own terminal, and no battery reaches that behind the splitter: it never begins to charge.",
		"An excitation feed, live with the ignition, fused, to its lamp or field terminal.",
		splits(func(d *design.Design) []finding {
			return where(d.Facts.Survey.Excites == "own", atMachine(keyExcites()))
		})},
	{"splitter.excite.unknown", verdict.Beware, working.Physics,
		"Nobody looked how the alternator is excited: if from its own terminal, it never begins to charge behind the splitter.",
		"No battery reaches its terminal through the diodes: it needs a lamp, or an excitation feed.",
		splits(func(d *design.Design) []finding { return where(d.Facts.Survey.Excites == "", atMachine(keyExcites())) })},
	{"splitter.senses", verdict.Beware, working.Physics,
		"The alternator holds its voltage at its own terminal: start and aux battery get %s less, by the diodes.",
		"A sensing wire from the start battery gives it back, and so, all but %s, do diodes that lose less.",
		splits(func(d *design.Design) []finding { return where(d.Facts.Survey.Senses == "own", losesByDiodes(d)) })},
	{"splitter.senses.unknown", verdict.Remark, working.Physics,
		"Nobody looked where the alternator holds its voltage: if at its own terminal, start and aux battery get %s less, by the diodes.",
		"It is taken so. A sensing wire from the start battery gives it back, and so, all but %s, do diodes that lose less.",
		splits(func(d *design.Design) []finding { return where(d.Facts.Survey.Senses == "", losesByDiodes(d)) })},
}

// splits lets a rule speak of a splitter.
func splits(finds func(d *design.Design) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if !d.Is.Splits {
			return nil
		}
		return finds(d)
	}
}

func atMachine(cure verdict.Cure) func() finding {
	return func() finding { return at("alternator").cure(cure) }
}

func keyExcites() verdict.Cure {
	return verdict.Set("By a lamp or an ignition feed", "alternator.excites", "key")
}

func losesByDiodes(d *design.Design) func() finding {
	return func() finding {
		f := at("alternator", unit.Text(d.SplitV(), "V", 1)).since(unit.Text(parts.SplitterV(nil), "V", 1)).
			cure(verdict.Set("It senses at the start battery", "alternator.senses", "battery"))
		if d.SplitV() > parts.SplitterV(nil) {
			f = f.cure(verdict.Unpin("Take FET diodes", "pins.splitter"))
		}
		return f
	}
}
