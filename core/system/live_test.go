package system_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/system"
)

// chain is a system of components in a row, each joined to the next by a feed wire named
// after the two.
func chain(links ...[3]string) system.System {
	s := system.System{}
	for _, l := range links {
		s.Join(system.Wire{ID: l[0], Role: system.Feed, From: terminalOf(l[1]), To: terminalOf(l[2])})
	}
	return s
}

func terminalOf(text string) system.Terminal {
	for i := range text {
		if text[i] == '.' {
			return at(text[:i], text[i+1:])
		}
	}
	return at(text, "")
}

// Each kind of component lets a source through from one terminal to the other, until it is
// opened; what has no bridge does not.
func TestWhatLetsThrough(t *testing.T) {
	for kind, ends := range map[system.ComponentKind][2]string{
		system.KindFuse: {"x.in", "x.out"}, system.KindRelay: {"x.30", "x.87"}, system.KindContactor: {"x.30", "x.87"},
		system.KindIsolator: {"x.30", "x.87"},
		system.KindSwitch:   {"x.1", "x.2"}, system.KindDisconnect: {"x.1", "x.2"}, system.KindPlug: {"x.+", "x.+t"},
		system.KindChangeover: {"x.30", "x.87"}, system.KindControl: {"x.2", "x.0"},
	} {
		s := chain([3]string{"near", "start.30", ends[0]}, [3]string{"far", ends[1], "aux.30"})
		s.Add(system.Component{ID: "x", Kind: kind})
		assert.Equal(t, []string{"near", "far"}, s.Live(at("start", "30")), kind)
		assert.Equal(t, []string{"near", "far"}, s.Live(at("aux", "30")), "%s, from the other side", kind)
		assert.Equal(t, []string{"near"}, s.Live(at("start", "30"), "x"), "%s opened", kind)
		assert.Equal(t, []string{"far"}, s.Live(at("aux", "30"), "x"), "%s opened, from the other side", kind)
	}
	for _, kind := range []system.ComponentKind{system.KindCharger, system.KindBattery, system.KindAlternator, system.KindShunt} {
		s := chain([3]string{"near", "start.30", "x.30"}, [3]string{"far", "x.out", "aux.30"})
		s.Add(system.Component{ID: "x", Kind: kind})
		assert.Equal(t, []string{"near"}, s.Live(at("start", "30")), "%s parts its two sides", kind)
	}
}

// Through a changeover a source reaches the rest side or the made side; what it reaches in
// the one position does not reach on in the other.
func TestChangeoverLetsThroughOneWayAtATime(t *testing.T) {
	s := chain([3]string{"c1", "start.30", "k.30"}, [3]string{"rest", "k.87a", "charger.30"}, [3]string{"made", "k.87", "aux.30"})
	s.Add(system.Component{ID: "k", Kind: system.KindChangeover})
	assert.Equal(t, []string{"c1", "rest", "made"}, s.Live(at("start", "30")))
	assert.Equal(t, []string{"c1", "made"}, s.Live(at("aux", "30")), "the charger's input only over the contact that is open then")
	assert.Equal(t, []string{"c1", "rest"}, s.Live(at("charger", "30")))
	assert.Equal(t, []string{"made"}, s.Live(at("aux", "30"), "k"))
}

// A signal is reached too, returns and the chassis never are; a wire is live once, however
// many ways lead to it.
func TestLiveRoles(t *testing.T) {
	s := chain([3]string{"a", "start.30", "f.in"}, [3]string{"b", "f.out", "x.30"}, [3]string{"round", "start.30", "x.30"})
	s.Add(system.Component{ID: "f", Kind: system.KindFuse})
	s.Join(system.Wire{ID: "t", Role: system.Signal, From: at("x", "30"), To: at("y", "15")})
	s.Join(system.Wire{ID: "n", Role: system.Return, From: at("x", "30"), To: at("e1", "")})
	s.Join(system.Wire{ID: "steel", Role: system.Chassis, From: at("start", "30"), To: at("e1", "")})
	assert.Equal(t, []string{"a", "b", "round", "t"}, s.Live(at("start", "30")))
	assert.Equal(t, []string{"a", "b", "round", "t"}, s.Live(at("start", "30"), "f"), "the other way round is still there")
	assert.Empty(t, s.Live(at("nowhere", "30")))
}
