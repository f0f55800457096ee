package method

import (
	"epitrope/core/coupling"
	"epitrope/core/working"
)

// Rule is a rule as listed: what it is about and where it comes from.
type Rule struct {
	ID       string
	Subjects []coupling.Kind
	Effect   Effect
	Mark     working.Origin
}

// Rules lists them all.
func Rules() []Rule {
	list := make([]Rule, len(rules))
	for i, r := range rules {
		list[i] = Rule{r.id, r.subjects, r.effect, r.mark}
	}
	return list
}
