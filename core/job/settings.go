package job

import "epitrope/core/profile"

// settings are the ways to set the charger: those of the job's own card that say an
// absorption voltage, or the stock card's.
func (d Document) settings() (list []profile.Setting, own bool) {
	for _, row := range Rows(d.Settings) {
		s := row.Of
		if s.AbsorptionV == nil {
			continue // nothing can be said of it yet
		}
		one := profile.Setting{ID: row.Key, Label: s.Name, AbsorptionV: *s.AbsorptionV, How: s.How, Compensated: s.Compensated != nil && *s.Compensated == string(Yes)}
		if s.FloatV != nil {
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
