package job

import (
	"maps"
	"slices"
	"strings"

	"epitrope/core/parts"
	"epitrope/core/profile"
)

// OfPart is what a job takes over of a part that it uses: fields and values, nil for those
// to be cleared. Nil where a job has no place for a part of its kind.
func OfPart(i parts.Item) map[string]any {
	switch i.Kind {
	case "charger":
		return taken("card.", map[string]any{
			"card.name": i.Name, "card.outputA": figure(i.RatingA), "card.efficiency": figure(i.Efficiency), "card.cutOutV": figure(i.CutOutV),
			"card.maxFuseA": figure(i.MaxFuseA), "card.standbyA": figure(i.StandbyA), "card.maxAmbientC": figure(i.MaxAmbientC),
			"card.restartV": figure(i.RestartV), "card.inputA": figure(i.InputA),
			"card.signalV": figure(i.LiveV), "card.isolated": word(i.Isolated), "card.terminals": word(i.Terminals),
			"card.mostSize": word(i.LargestSize), "card.probe": has(i, parts.HasProbe),
			"card.price": figure(i.Price), "card.currency": word(i.Currency), "card.pricedOn": word(i.PricedOn),
			"pins.chargerA": nil,
		})
	case "relay", "contactor", "selector", "changeover":
		of := map[string]any{"relay.name": i.Name, "relay.ratedA": figure(i.RatingA), "relay.crankA": figure(i.CrankA), "pins.contactA": nil,
			"relay.terminals": nil}
		if i.Terminals != parts.Clamps {
			of["relay.terminals"] = word(i.Terminals)
		}
		switch i.Kind {
		case "relay":
			of["relay.cutInV"], of["relay.cutOutV"] = figure(i.CutInV), figure(i.CutOutV)
		case "changeover":
			of["relay.restA"] = figure(i.RestA)
		}
		if i.Kind != "relay" && i.Kind != "selector" {
			of["relay.coilA"] = figure(i.StandbyA)
		}
		return taken("relay.", of)
	case "breaker":
		return map[string]any{"pins.device": "breaker", "pins.startFuseA": figure(i.RatingA)}
	case "battery":
		of := map[string]any{"aux.capacityAh": figure(i.CapacityAh), "fit.lengthMM": figure(i.LengthMM), "fit.widthMM": figure(i.WidthMM),
			"fit.heightMM": figure(i.HeightMM)}
		if len(i.Profiles) == 1 {
			of["aux.chemistry"] = i.Profiles[0]
		}
		return of
	}
	return nil
}

// taken are answers to the fields of a card, with nothing left of the part before.
func taken(card string, answers map[string]any) map[string]any {
	all := map[string]any{}
	for _, f := range Fields {
		if strings.HasPrefix(f.Path, card) {
			all[f.Path] = nil
		}
	}
	maps.Copy(all, answers)
	return all
}

// has says whether an extra is in a charger: nil where its card does not say.
func has(i parts.Item, extra string) any {
	switch {
	case len(i.Has) == 0:
		return nil
	case slices.Contains(i.Has, extra):
		return string(Yes)
	}
	return string(No)
}

func figure(v *float64) any {
	if v == nil {
		return nil
	}
	return *v
}

func word(s string) any {
	if s == "" {
		return nil
	}
	return s
}

// Charger is the card of the charger that is really fitted; false where the job says no
// output of it.
func (c Card) Charger() (parts.Charger, bool) {
	if c.OutputA == nil {
		return parts.Charger{}, false
	}
	name := c.Name
	if name == "" {
		name = "charger of its own card"
	}
	return parts.Item{Kind: "charger", Name: name, RatingA: c.OutputA, Efficiency: c.Efficiency, CutOutV: c.CutOutV,
		MaxFuseA: c.MaxFuseA, StandbyA: c.StandbyA, MaxAmbientC: c.MaxAmbientC}.Card(), true
}

// leastFloatV is a float voltage that holds something; less is a setting without float. Source: common
// practice, no source.
const leastFloatV = 10.0

// settings are the ways to set the charger: those of the job's own card that say an
// absorption voltage, or the stock card's.
func (d Document) settings() (list []profile.Setting, own bool) {
	for _, row := range Rows(d.Settings) {
		s := row.Of
		if s.AbsorptionV == nil {
			continue // nothing can be said of it yet
		}
		one := profile.Setting{ID: row.Key, Label: s.Name, AbsorptionV: *s.AbsorptionV, How: s.How, Compensated: s.Compensated != nil &&
			*s.Compensated == string(Yes)}
		if s.FloatV != nil && *s.FloatV >= leastFloatV {
			one.FloatV = *s.FloatV
		}
		if s.For != nil {
			one.For = *s.For
		}
		if s.LeadA != nil {
			one.A = profile.Lead(*s.LeadA)
		}
		if s.LeadB != nil {
			one.B = profile.Lead(*s.LeadB)
		}
		if one.Label == "" {
			one.Label = "setting " + row.Key
		}
		list = append(list, one)
	}
	if len(list) == 0 {
		return profile.Stock(), false
	}
	return list, true
}
