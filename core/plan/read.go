package plan

import (
	"encoding/json"
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/judge"
	"epitrope/core/section"
	"epitrope/core/verdict"
)

// Read reads a plan that was stored, of this version or an earlier one: what an
// earlier version did not hold stays empty, and nothing of it is computed again. It
// refuses a newer one.
func Read(data []byte) (Plan, error) {
	var p Plan
	if err := json.Unmarshal(data, &p); err != nil {
		return Plan{}, fmt.Errorf("not a plan: %w", err)
	}
	if p.Format != Format || p.Version < 1 || p.Version > Version {
		return Plan{}, fmt.Errorf("format %q, version %d is not a plan that can be read; allowed are versions 1 to %d", p.Format, p.Version,
			Version)
	}
	if p.Joints == nil { // of version 1
		p.Joints, p.Curves = []section.Joint{}, []section.Curve{}
		for i := range p.States {
			s := &p.States[i]
			s.Kind = string(design.Charging)
			s.Apart = p.Coupling == string(coupling.VSR) && s.InA == 0
			for k := range s.Points {
				s.Points[k].Carries, s.Points[k].Loses = "–", "–"
			}
		}
	}
	if p.Chain == nil { // of version 1 or 2
		p.Chain, p.Bank, p.Checks = []judge.Link{}, []judge.BankShare{}, []judge.Check{}
		for i := range p.Notes {
			p.Notes[i].Mark = judge.MarkOf(p.Notes[i].ID)
		}
		p.Settings = judge.Settings{List: []judge.SettingLine{}, Leads: []judge.LeadReading{}, Temps: []judge.TempLine{}}
		p.Signal = judge.SignalPlan{Feeds: []judge.FeedPoint{}, Expected: []judge.SignalAt{}}
		p.Needs = judge.Needs{Loads: []judge.NeedLoad{}, Figures: []string{}, Level: verdict.Good}
	}
	if p.Fittings == nil { // of a plan before them
		p.Fittings = []judge.Fitting{}
	}
	return p, nil
}
