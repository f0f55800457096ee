package retrofit

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// foundWords are the sentences of the findings, by id.
var foundWords = map[string]string{
	"found.untraced": "Not traced: %s. Until both ends are known it counts as live and unfused.",
	"found.size":     "Its cable is not known: measure the copper, not the outside.",
	"found.unfused":  "No fuse at end %s, which is a source: a short burns the cable from there.",
	"found.fuse":     "Look: is there a fuse at end %s, which is a source, and what does it say?",
	"found.unread": "There is a fuse at end %s and its rating cannot be read: what it saves, nobody knows. A new one, of a rating that " +
		"saves the cable.",
	"found.bare":    "Its fuse stands bare: live metal that a tool or a strap can reach. A holder with a cover.",
	"found.tapedin": "Its fuse is taped in: it works loose, heats, and burns the tape. A holder with a cover.",
	"found.far":     "The fuse sits %.0f mm from its source; what lies before it is unprotected, and %.0f mm is the limit.",
	"found.over":    "A %.0f A fuse on %s, which bears %.0f A where it lies: the cable burns first.",
	"found.overif": "A %.0f A fuse on %s: if its insulation is of 70 °C, as most is, it bears %.0f A where it lies and burns first. Read " +
		"what is printed on it.",
	"found.burnsif": "It carries %.0f A; if its insulation is of 70 °C, as most is, it bears %.0f A where it lies. Read " +
		"what is printed on it.",
	"found.slow":     "The %.0f A fuse opens too late on a short at the far end: %s bears it for %s.",
	"found.burns":    "It carries %.0f A and bears %.0f A where it lies.",
	"found.drop":     "It loses %.2f V at %.0f A over its length alone.",
	"found.joint":    "Measured, it loses %.2f V where its copper accounts for %.2f V: %.0f mΩ and %.0f W in its joints.",
	"found.corroded": "Corroded: cut back to bright copper, or the joint burns.",
	"found.loose":    "Loose: a loose lug heats until it burns.",
	"found.chafed":   "Chafed: the short is only a matter of time.",
	"found.taped":    "Taped off and left: take it out, or fuse and label it.",
	"found.cut":      "Cut: whoever joins it again has to know where it leads.",
	"found.past":     "Live from both its ends. %s It comes out.",
	"found.good":     "Nothing against it.",
}

// foundMarks are where the findings come from, where that is not common practice.
var foundMarks = map[string]working.Origin{"found.far": working.Standard, "found.over": working.Standard,
	"found.slow": working.Standard, "found.burns": working.Standard, "found.overif": working.Standard, "found.burnsif": working.Standard,
	"found.drop": working.Physics, "found.joint": working.Physics, "found.past": working.Physics}

var roleNames = map[string]string{"start": "start run", "aux": "aux run", "return": "return", "trigger": "signal", "load": "feed to a load",
	"": "wire", "unknown": "wire"}

func foundName(w job.FoundWire) string {
	name := roleNames[job.Str(w.Role)]
	if w.Colour != "" {
		name = w.Colour + " " + name
	}
	if w.EndA != "" || w.EndB != "" {
		name += ", " + strings.Trim(w.EndA+" to "+w.EndB, " ")
	}
	return unit.Capital(name)
}

// foundWire judges one wire, and says whether the new design can keep it.
func foundWire(d *design.Design, row job.Row[job.FoundWire]) WireVerdict {
	w := row.Of
	out := WireVerdict{Key: row.Key, Name: foundName(w), Findings: []WireFinding{}, Level: verdict.Good}
	say := func(id string, level verdict.Level, args ...any) {
		mark := working.Practice
		if m, ok := foundMarks[id]; ok {
			mark = m
		}
		out.Findings = append(out.Findings, WireFinding{ID: id, Level: level, Text: unit.Say(foundWords[id], args...), Mark: mark})
	}
	judgeFound(d, w, say)
	if len(out.Findings) == 0 {
		say("found.good", verdict.Good)
	}
	for _, level := range []verdict.Level{verdict.Open, verdict.Caution, verdict.Bad} {
		if slices.ContainsFunc(out.Findings, func(f WireFinding) bool { return f.Level == level }) {
			out.Level = level
		}
	}
	out.Fate, out.Why, out.Reuse = fate(d, w, out.Level)
	return out
}

// sourcesOf says which ends of a wire are sources: as answered, or as its role has it.
func sourcesOf(w job.FoundWire) (a, b bool) {
	switch job.Str(w.Sources) {
	case "a":
		return true, false
	case "b":
		return false, true
	case job.BothEnds:
		return true, true
	case "none":
		return false, false
	}
	switch job.Str(w.Role) {
	case "start", "load", "trigger":
		return true, false
	case "aux":
		return false, true
	case "return":
		return false, false
	}
	return true, true
}

func judgeFound(d *design.Design, w job.FoundWire, say func(id string, level verdict.Level, args ...any)) {
	untraced := []string{}
	if w.EndA == "" {
		untraced = append(untraced, "end A")
	}
	if w.EndB == "" {
		untraced = append(untraced, "end B")
	}
	if r := job.Str(w.Role); r == "" || r == "unknown" {
		untraced = append(untraced, "what it is for")
	}
	if len(untraced) > 0 {
		say("found.untraced", verdict.Open, strings.Join(untraced, ", "))
	}
	if isPast(w) {
		say("found.past", verdict.Bad, pastSays(d, wireOhm(d, w)))
	}
	a, b := sourcesOf(w)
	if a {
		judgeEnd("A", w.FuseA, w.FuseIs, say)
	}
	if b {
		judgeEnd("B", w.FuseBA, w.FuseBIs, say)
	}
	switch job.Str(w.FuseForm) {
	case job.BareFuse:
		say("found.bare", verdict.Bad)
	case job.TapedFuse:
		say("found.tapedin", verdict.Bad)
	}
	if a && num(w.FuseA) > 0 && num(w.FuseMM) > fuseWithinMM {
		say("found.far", verdict.Caution, *w.FuseMM, fuseWithinMM)
	}
	if s := job.Str(w.State); s != "" && s != "good" {
		level := verdict.Caution
		if s == "chafed" || s == "loose" || s == "cut" {
			level = verdict.Bad
		}
		say("found."+s, level)
	}
	if w.Size == nil {
		say("found.size", verdict.Open)
		return
	}
	size, _ := cable.Parse(*w.Size) // a document holds only sizes that read
	judgeCopper(d, w, size, say)
}

// judgeEnd judges what was found, or not looked for, at an end that is a source.
func judgeEnd(end string, ratingA *float64, is *string, say func(id string, level verdict.Level, args ...any)) {
	switch {
	case num(ratingA) > 0:
	case job.Str(is) == job.Unreadable:
		say("found.unread", verdict.Caution, end)
	case ratingA != nil || job.Str(is) == job.NoFuse:
		say("found.unfused", verdict.Bad, end)
	default:
		say("found.fuse", verdict.Open, end)
	}
}

// legOf is the stretch of the new design that a wire lies beside: for its place and its
// source.
func legOf(d *design.Design, w job.FoundWire) *run.Sized {
	if job.Str(w.Role) == "aux" {
		return &d.Aux
	}
	return &d.Start
}

func nearest(v float64, of []float64) float64 {
	best := of[0]
	for _, o := range of {
		if math.Abs(o-v) < math.Abs(best-v) {
			best = o
		}
	}
	return best
}

// fate says whether the new design can keep a wire.
func fate(d *design.Design, w job.FoundWire, level verdict.Level) (fate, why string, reuse *verdict.Cure) {
	role := job.Str(w.Role)
	if level == verdict.Open && (w.Size == nil || role == "" || role == "unknown") {
		return "open", "Trace and measure it first.", nil
	}
	if isPast(w) {
		return "goes", "It joins the batteries past the coupling.", nil
	}
	if level == verdict.Bad {
		return "goes", "Unsafe as it is.", nil
	}
	if role != "start" && role != "aux" && role != "return" {
		return "stays", "No part of the run.", nil
	}
	if w.Size == nil {
		return "open", "Trace and measure it first.", nil
	}
	l, need, path := &d.Start, d.Facts.StartM.Value, "pins.startSize"
	if role == "aux" {
		l, need, path = &d.Aux, d.Facts.AuxM.Value, "pins.auxSize"
	}
	if role == "return" {
		l, need, path = d.ReturnLeg(), d.Back.CableM, ""
	}
	size, _ := cable.Parse(*w.Size)
	t := l.Loop.Try(size)
	switch {
	case num(w.LengthM) > 0 && num(w.LengthM) < need*0.95:
		return "goes", fmt.Sprintf("Too short: %s of the %s needed.", unit.Metres(num(w.LengthM)), unit.Metres(need)), nil
	case t.AmpacityA < l.Amps:
		return "goes", fmt.Sprintf("%s bears %s and the new design carries %s.", size.Copper(), unit.Text(t.AmpacityA, "A", 0),
			unit.Text(l.Amps, "A", 0)), nil
	case l.Loses(t):
		loses, may := unit.Apart(l.DropA()*t.LoopOhm, max(0, l.BudgetV), "V", 2)
		return "goes", fmt.Sprintf("%s would lose %s at %s, and %s may be lost.", size.Copper(), loses, unit.Text(l.DropA(), "A", 0), may), nil
	case !l.Saved(t):
		return "goes", fmt.Sprintf("No fuse carries %s and saves %s.", unit.Text(l.Amps, "A", 0), size.Copper()), nil
	}
	why = "Thick enough for the new design."
	if size.CopperMM2() < l.Trial.Size.CopperMM2() {
		why = fmt.Sprintf("Bears the new design, and becomes its bottleneck: %s where %s would be fitted.", size.Copper(), l.Auto.Copper())
	}
	if path != "" && l.Trial.Size.Label != size.Label {
		c := verdict.Set("Keep "+size.Label, path, size.Label)
		reuse = &c
	}
	return "stays", why, reuse
}
