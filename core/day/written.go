package day

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"epitrope/core/unit"
)

// String writes the pattern so that ParsePattern reads it.
func (p Pattern) String() string {
	parts := make([]string, len(p))
	for i, s := range p {
		parts[i] = fmt.Sprintf("%s %s", s.Kind, lasting(s.Seconds))
		if s.RPM > 0 {
			parts[i] += unit.Say(" @ %.0f", s.RPM)
		}
		if v := s.Own.AirC; v != nil {
			parts[i] += " air " + plain(*v) + " °C"
		}
		if v := s.Own.LoadA; v != nil {
			parts[i] += " load " + plain(*v) + " A"
		}
		if v := s.Own.Sun; v != nil {
			parts[i] += " sun " + plain(*v*100) + " %"
		}
		if s.Own.Mains {
			parts[i] += " mains"
		}
	}
	return strings.Join(parts, ", ")
}

// Varied is the pattern with what its segments say of their own changed: degrees added to
// their air, their loads times a factor.
func (p Pattern) Varied(airK, loads float64) Pattern {
	out := slices.Clone(p)
	for i := range out {
		own := &out[i].Own
		if own.AirC != nil {
			v := *own.AirC + airK
			own.AirC = &v
		}
		if own.LoadA != nil {
			v := *own.LoadA * loads
			own.LoadA = &v
		}
	}
	return out
}

func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

func lasting(s float64) string {
	switch {
	case s >= 3600 && math.Mod(s, 360) == 0:
		return plain(s/3600) + " h"
	case s >= 60 && math.Mod(s, 6) == 0:
		return plain(s/60) + " min"
	}
	return plain(s) + " s"
}
