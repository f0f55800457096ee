package answers

import (
	"epitrope/core/harness"
	"epitrope/core/procedure"
	"epitrope/internal/pack"
)

// Made is what goes out to the bay.
type Made struct {
	Wires   []harness.Lead   `json:"wires"`
	Cuts    []harness.Cut    `json:"cuts"`
	Parts   harness.List     `json:"parts"`
	Drawing harness.Drawing  `json:"drawing"`
	Folded  harness.Drawing  `json:"folded" doc:"The drawing with all loads as one"`
	Steps   []procedure.Step `json:"steps"`
	Hours   float64          `json:"hours" doc:"What the steps take together"`

	Schedule     []procedure.Slot `json:"schedule" doc:"The steps over days of the bay"`
	Days         int              `json:"days"`
	Waits        []procedure.Wait `json:"waits" doc:"Parts to be ordered, with the first step that needs each"`
	BeforeTrades []string         `json:"beforeTrades" doc:"Steps to be done before others close floor and walls"`
}

// Make is a pack as the screens show it.
func Make(p pack.Pack) Made {
	return Made{Wires: p.Leads, Cuts: p.Cuts, Parts: p.Parts, Drawing: p.Drawing, Folded: p.Folded, Steps: p.Steps, Hours: p.Hours,
		Schedule: p.Schedule, Days: procedure.Days(p.Schedule), Waits: p.Waits, BeforeTrades: procedure.BeforeTrades(p.Steps)}
}
