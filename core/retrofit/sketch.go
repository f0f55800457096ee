package retrofit

import (
	"fmt"
	"slices"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/section"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Sketch is a design in a few lines, to be held against another.
type Sketch struct {
	Coupling string          `json:"coupling"`
	Start    string          `json:"start" doc:"Start run: cable, length and fuse"`
	Aux      string          `json:"aux"`
	Return   string          `json:"return"`
	Early    section.Charges `json:"early" doc:"At cruise, early in bulk"`
	Idle     section.Charges `json:"idle"`
	Weakest  string          `json:"weakest" doc:"The weakest element of its chain"`
	Stops    []string        `json:"stops" doc:"What makes it unfit"`
	Cautions []string        `json:"cautions"`
	BackH    float64         `json:"backH" doc:"Driving that puts back a day's use; 0 where none does"`
}

// AsFound is the job as it was found: its coupling, cables and fuses in the place of
// what is planned. missing names what has to be known for that.
func AsFound(doc job.Document) (before job.Document, missing []string) {
	before = doc
	before.Pins = job.Pins{}
	missing = []string{}
	kind := job.Str(doc.Have.Coupling)
	if kind == "" {
		missing = append(missing, "which coupling was found")
	}
	if kind == "none" {
		return before, []string{"there was no coupling"}
	}
	before.Pins.Coupling = doc.Have.Coupling
	if a := num(doc.Have.CouplingA); a > 0 && kind != "" {
		if coupling.Kind(kind).Charger() {
			rated := nearest(a, parts.ChargerRatings)
			before.Pins.ChargerA = &rated
		} else {
			rated := nearest(a, parts.ContactRatings())
			before.Pins.ContactA = &rated
		}
	}
	ratings := protect.PowerRatings()
	seen := map[string]bool{}
	for _, row := range job.Rows(doc.Found) {
		w, role := row.Of, job.Str(row.Of.Role)
		if w.Size == nil || seen[role] {
			continue
		}
		switch role {
		case "start":
			before.Pins.StartSize = w.Size
			if w.LengthM != nil {
				before.Routes.StartM = w.LengthM
			}
			if a := num(w.FuseA); a > 0 {
				rated := nearest(a, ratings)
				before.Pins.StartFuseA = &rated
			}
		case "aux":
			before.Pins.AuxSize = w.Size
			if w.LengthM != nil {
				before.Routes.AuxM = w.LengthM
			}
			if a := max(num(w.FuseBA), num(w.FuseA)); a > 0 {
				rated := nearest(a, ratings)
				before.Pins.AuxFuseA = &rated
			}
		case "return":
			by := "cable"
			before.Pins.Return = &by
		}
		seen[role] = true
	}
	for role, name := range map[string]string{"start": "the cable of the start run", "aux": "the cable of the aux run"} {
		if !seen[role] {
			missing = append(missing, name)
		}
	}
	slices.Sort(missing)
	return before, missing
}

// InALine is what a design is made of, in a line.
func InALine(d *design.Design) string {
	s := sketch(d)
	return unit.Say("%s; start run %s; aux run %s; return by %s", s.Coupling, s.Start, s.Aux, s.Return)
}

// sketch is the design in a few lines.
func sketch(d *design.Design) Sketch {
	run := func(l *run.Sized) string {
		return fmt.Sprintf("%s, %s, %s", l.Trial.Size.Copper(), unit.Metres(l.LengthM.Value), unit.Plain(l.Fuse.RatingA, "A", 1))
	}
	s := Sketch{Coupling: d.CouplingRating(), Start: run(&d.Start), Aux: run(&d.Aux), Early: section.ChargesIn(d, d.StateBy("early")),
		Idle: section.ChargesIn(d, d.IdleState()), Stops: []string{}, Cautions: []string{}}
	s.Return = map[bool]string{true: "chassis", false: "cable"}[d.Back.ByChassis]
	if d.Back.ByChassis && d.Back.ByCable {
		s.Return = "chassis and cable"
	}
	for _, l := range judge.Chain(d) {
		if l.Weakest {
			s.Weakest = fmt.Sprintf("%s, %s", l.Name, unit.Text(l.Share, "%", 0))
		}
	}
	for _, n := range judge.Notes(d) {
		switch n.Severity {
		case verdict.Stop:
			s.Stops = append(s.Stops, n.Text)
		case verdict.Beware:
			s.Cautions = append(s.Cautions, n.Text)
		}
	}
	if fig, ok := d.BackUse(); ok {
		s.BackH = fig.Value
	}
	return s
}
