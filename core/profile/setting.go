package profile

import "epitrope/core/battery"

// Lead is what a configuration lead is joined to. An open one is a setting too.
type Lead string

// What a lead may be joined to.
const (
	Open    Lead = "open"
	Ground  Lead = "ground"
	Battery Lead = "battery"
)

// Setting is one way that a charger can be set, at 12 V.
type Setting struct {
	ID          string
	Label       string
	AbsorptionV float64
	FloatV      float64 // 0: it rests instead
	Compensated bool
	For         string // chemistry that it is meant for
	How         string // how it is made
	A, B        Lead   // configuration leads, where it is made by them
}

// Stock are the settings of a charger whose card says nothing else: one for each
// chemistry, by two configuration leads. Source: assumed; the device's own sheet wins.
func Stock() []Setting {
	list := []Setting{}
	for _, c := range battery.House() {
		list = append(list, Own(c, c.Setting.How, [2]Lead{Lead(c.Setting.A), Lead(c.Setting.B)}))
	}
	return list
}

// Own is the setting that a chemistry wants: the top of its absorption, the middle of its
// float.
func Own(c battery.Chemistry, how string, leads [2]Lead) Setting {
	p := For(c)
	float := p.FloatHigh
	if p.FloatLow > 0 {
		float = (p.FloatLow + p.FloatHigh) / 2
	}
	return Setting{ID: c.ID, Label: c.Label, AbsorptionV: p.AbsorptionHigh, FloatV: float, Compensated: p.PerK != 0, For: c.ID, How: how,
		A: leads[0], B: leads[1]}
}

// ByLeads finds the setting that leads make; ok is false where they make none.
func ByLeads(list []Setting, a, b Lead) (s Setting, ok bool) {
	for _, s := range list {
		if s.A == a && s.B == b {
			return s, true
		}
	}
	return Setting{}, false
}

// ByID finds a setting by its id; ok is false where there is none.
func ByID(list []Setting, id string) (s Setting, ok bool) {
	for _, s := range list {
		if s.ID == id {
			return s, true
		}
	}
	return Setting{}, false
}

// BestFor is the setting for a chemistry: one meant for it, or the one whose absorption
// lies nearest to what it wants; the first where there is but one.
func BestFor(list []Setting, c battery.Chemistry) Setting {
	wants := For(c).AbsorptionHigh
	best := list[0]
	for _, s := range list {
		if s.For == c.ID {
			return s
		}
		if off(s.AbsorptionV, wants) < off(best.AbsorptionV, wants) {
			best = s
		}
	}
	return best
}

func off(a, b float64) float64 {
	if a > b {
		return (a - b) * 3 // too high harms, too low only wastes
	}
	return b - a
}

// Joined is what a configuration lead is joined to, in words. The fuse of a lead to battery plus
// is 1 A, common practice, no source.
func (l Lead) Joined() string {
	switch l {
	case Ground:
		return "to ground"
	case Battery:
		return "to battery plus, over 1 A"
	}
	return "left open, insulated"
}

// Reads is what a meter on a configuration lead shows against minus, in words.
func (l Lead) Reads() string {
	switch l {
	case Ground:
		return "0 V, and 0 Ω to minus"
	case Battery:
		return "battery voltage"
	}
	return "floating: some volts or none, no continuity to anything"
}
