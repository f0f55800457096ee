package study

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/day"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// verdicts are what a run says, worst first.
func verdicts(f job.Facts, rig *day.Rig, r day.Result) []Verdict {
	v := r.Verdict
	list := []Verdict{auxVerdict(f, rig, v), startVerdict(v), heatVerdict(v)}
	add := func(id, label, text string, level verdict.Level, part string, at float64) {
		list = append(list, Verdict{id, label, text, level, at, part})
	}
	if rig.Join != nil {
		level, text := verdict.Good, fmt.Sprintf("closed %s, never again on the same drive", times(v.Closings))
		switch {
		case v.Again > 0 && v.Chatter == 0:
			level, text = verdict.Caution, fmt.Sprintf("closed %s, of these %s again on the same drive: it drops out", times(v.Closings),
				times(v.Again))
		case v.Chatter > 0:
			level, text = verdict.Bad, fmt.Sprintf("closed %s, of these %s within two minutes of opening: it chatters", times(v.Closings),
				times(v.Chatter))
		}
		add("relay", "Relay", text, level, "coupling", first(r, "join.closes"))
	}
	if rig.Charger != nil && v.Starved > 0 {
		add("charger", "Charger", fmt.Sprintf("stopped %s for want of voltage at its input", times(v.Starved)), verdict.Bad, "coupling",
			first(r, "charger.starved"))
	}
	if rig.Charger != nil && v.Mistaken > 0 {
		add("detects", "Engine detection", fmt.Sprintf("taken for running, or stopped, %s when it was not", times(v.Mistaken)), verdict.Bad,
			"coupling", first(r, "charger.takes.running", "charger.takes.stopped"))
	}
	for _, m := range v.Fuses {
		level, text := verdict.Good, fmt.Sprintf("%s at most, %s over ten minutes, of %s", amps(m.MostA), amps(m.HeldA), amps(m.RatingA))
		if m.Heated >= 1 {
			level, text = verdict.Bad, text+": it opens"
		} else if m.HeldA > 0.8*m.RatingA {
			level, text = verdict.Caution, text+": more than 80 % for long"
		}
		add("fuse."+m.ID, "Fuse "+strings.ToUpper(m.ID), text, level, m.ID, first(r, "fuse.opens"))
	}
	if v.LimitedS > 0.25*v.RunningS && v.RunningS > 0 {
		add("limited", "Alternator", fmt.Sprintf("at its limit for %s of %s running", spell(v.LimitedS), spell(v.RunningS)), verdict.Caution,
			"alternator", -1)
	}
	rank := map[verdict.Level]int{verdict.Bad: 0, verdict.Caution: 1, verdict.Good: 2}
	sort.SliceStable(list, func(i, j int) bool { return rank[list[i].Level] < rank[list[j].Level] })
	return list
}

func auxVerdict(f job.Facts, rig *day.Rig, v day.Verdict) Verdict {
	out := Verdict{ID: "aux", Label: "Aux battery", Level: verdict.Good, AtS: -1, Part: "aux"}
	span := unit.Say("from %.0f to %.0f %%, lowest %.0f %%", 100*rig.Aux.SOC, 100*v.AuxEnd, 100*v.AuxLeast)
	switch {
	case v.Empty > 0:
		out.Level, out.Text = verdict.Bad, fmt.Sprintf("%s: empty %s", span, times(v.Empty))
	case v.AuxEnd < rig.Aux.SOC-0.05 && v.AuxEnd < 0.9:
		out.Level, out.Text = verdict.Caution, span+": driving does not keep up with what is used"
	case v.FullAtS >= 0:
		out.AtS = v.FullAtS
		out.Text = fmt.Sprintf("%s, first full on %s", span, clock(v.FullAtS))
	default:
		out.Text = span + ", never full"
		if f.Chemistry.Lead {
			out.Level, out.Text = verdict.Caution, out.Text+": lead that is never full ages early"
		}
	}
	return out
}

func startVerdict(v day.Verdict) Verdict {
	out := Verdict{ID: "start", Label: "Start battery", Level: verdict.Good, AtS: -1, Part: "start"}
	crank := ""
	if !math.IsInf(v.CrankV, 0) {
		crank = fmt.Sprintf(", %s while cranking at the lowest", unit.Text(v.CrankV, "V", 1))
	}
	out.Text = unit.Say("never below %.0f %%%s", 100*v.StartLeast, crank)
	switch {
	case v.FailedStarts > 0:
		out.Level, out.Text = verdict.Bad, unit.Say("the engine fails to start %s; lowest %.0f %%%s", times(v.FailedStarts), 100*v.StartLeast,
			crank)
		out.AtS = v.RiskAtS
	case v.RiskAtS >= 0:
		out.Level, out.AtS = verdict.Caution, v.RiskAtS
		out.Text = unit.Say("below half from %s on, lowest %.0f %%: it may not start in the cold", clock(v.RiskAtS), 100*v.StartLeast)
	}
	return out
}

func heatVerdict(v day.Verdict) Verdict {
	out := Verdict{ID: "heat", Label: "Heat", Level: verdict.Good, AtS: v.Winding.AtS, Part: "alternator"}
	out.Text = fmt.Sprintf("alternator %s, cable %s, joint %s at most", degrees(v.Winding.C), degrees(v.Cable.C), degrees(v.Joint.C))
	if !math.IsInf(v.Case.C, 0) {
		out.Text += ", charger " + degrees(v.Case.C)
	}
	switch {
	case v.Winding.C > alternator.HottestC:
		out.Level, out.Text = verdict.Bad, out.Text+unit.Say(": its windings bear %s", degrees(alternator.HottestC))
	case v.OverLimit.AtS >= 0:
		out.Level, out.AtS, out.Part = verdict.Bad, v.OverLimit.AtS, v.OverLimit.ID
		out.Text += unit.Say(": %s gets %s, and its insulation bears %s", strings.ToUpper(v.OverLimit.ID), degrees(v.OverLimit.C),
			degrees(v.OverLimit.LimitC))
	}
	return out
}

func first(r day.Result, ids ...string) float64 {
	for _, e := range r.Events {
		if slices.Contains(ids, e.ID) {
			return e.AtS
		}
	}
	return -1
}

func times(n int) string {
	switch n {
	case 0:
		return "never"
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}

func amps(a float64) string    { return unit.Text(a, "A", 0) }
func degrees(c float64) string { return unit.Text(finite(c, 0), "°C", 0) }

// spell is a time in hours or minutes.
func spell(s float64) string {
	if s < 5400 {
		return unit.Text(s/60, "min", 0)
	}
	return unit.Text(s/3600, "h", 1)
}
