package system_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/system"
)

// stations are the ids of a way, each with the wires that belong to it.
func stations(way []system.Station) []string {
	list := []string{}
	for _, s := range way {
		text := s.ID
		for _, wires := range [][]system.Wire{s.Before, s.Cable, s.After} {
			for _, w := range wires {
				text += " " + w.ID
			}
		}
		list = append(list, text)
	}
	return list
}

// The way goes by the fewest steps from source to battery, past what hangs on the side: a
// short lead is counted with its part, and a cable goes on behind the plug that parts it.
func TestWay(t *testing.T) {
	s := chain([3]string{"a", "start.30", "f1.in"}, [3]string{"b", "f1.out", "q1.1"}, [3]string{"c1", "q1.2", "k.30"},
		[3]string{"c2", "k.87", "x1.+"}, [3]string{"c2t", "x1.+t", "f2.in"}, [3]string{"c", "f2.out", "aux.30"},
		[3]string{"w", "start.30", "w1.30"}, [3]string{"h", "aux.30", "house.30"})
	for i, beside := range []string{"f1", "q1", "", "", "", "f2", "w1", ""} {
		s.Wires[i].Beside = beside
		s.Wires[i].Run = []string{"c1", "c1", "c1", "c2", "c2", "c2", "winch", "h1"}[i]
	}
	s.Add(system.Component{ID: "f1", Kind: system.KindFuse, Device: system.Fuse{}})
	s.Add(system.Component{ID: "q1", Kind: system.KindSwitch, Device: system.Link{From: at("q1", "1"), To: at("q1", "2")}})
	s.Add(system.Component{ID: "k", Kind: system.KindRelay, Device: system.Contact{}})
	s.Add(system.Component{ID: "x1", Kind: system.KindPlug, Device: system.Plug{}})
	s.Add(system.Component{ID: "f2", Kind: system.KindFuse, Device: system.Fuse{}})
	s.Ends = system.Ends{Source: at("start", "30"), Bank: at("aux", "30")}
	assert.Empty(t, s.Way(), "nothing joins the two ends of the coupling")
	s.Ends = system.Ends{Source: at("start", "30"), Bank: at("aux", "30"), Coupling: "k", Start: at("k", "30"), Aux: at("k", "87")}
	assert.Equal(t, []string{"f1 a", "q1 b", "c1 c1", "k", "c2 c2 c2t", "x1", "f2 c"}, stations(s.Way()))
	way := s.Way()
	first, ok := way[0].First()
	assert.True(t, ok && first.ID == "a", "the lead before F1 is its front end")
	_, ok = way[0].Last()
	assert.False(t, ok, "and none is behind it")
	last, _ := way[4].Last()
	assert.Equal(t, "c2t", last.ID)
	s.Ends.Source, s.Ends.Bank = s.Ends.Bank, s.Ends.Source
	assert.Equal(t, []string{"f2 c", "c2 c2t c2", "x1", "k", "c1 c1", "q1 b", "f1 a"}, stations(s.Way()), "and back")
}
