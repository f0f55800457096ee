package feed_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/feed"
)

// wiper is an ordinary ignition-fed slot, tested in every state.
func wiper() feed.Point {
	return feed.Point{Name: "F22", Kind: feed.Slot, RatingA: 15, Circuit: "rear wiper", Off: feed.Dead, Slept: feed.Dead, Accessory: feed.Dead,
		On: feed.Is, Cranking: feed.Is, Running: feed.Is}
}

func finds(v feed.Verdict, id string) bool {
	for _, f := range v.Findings {
		if f.ID == id {
			return true
		}
	}
	return false
}

// Each finding with a point that has it and one that just has not (trade §11 and §19.13).
func TestFindingsFire(t *testing.T) {
	type change = func(*feed.Point)
	none := func(*feed.Point) {}
	cases := []struct {
		id        string
		on, off   change
		candidate bool
		behaviour feed.Behaviour
	}{
		{"feed.safety", func(p *feed.Point) { p.Safety = feed.Vital }, none, false, feed.Ignition},
		{"feed.safety", func(p *feed.Point) { p.Circuit = "Brake lights" }, func(p *feed.Point) { p.Circuit = "break-in alarm" }, false,
			feed.Ignition},
		{"feed.safety", func(p *feed.Point) { p.Name = "F3 ABS/ESP" }, func(p *feed.Point) { p.Name = "F3 absorber fridge" }, false,
			feed.Ignition},
		{"feed.safety", func(p *feed.Point) { p.Circuit = "fuel pump" }, func(p *feed.Point) { p.Circuit, p.Safety = "fuel pump", feed.Plain },
			false, feed.Ignition},
		{"feed.feeds", func(p *feed.Point) { p.Circuit = "" }, func(p *feed.Point) { p.Circuit, p.Safety = "", feed.Plain }, true,
			feed.Ignition},
		{"feed.permanent", func(p *feed.Point) { p.Off, p.Slept = feed.Is, feed.Is }, none, false, feed.Permanent},
		{"feed.permanent", func(p *feed.Point) { p.Off, p.Slept = feed.Is, feed.Untested }, none, false, feed.Permanent},
		{"feed.slept", func(p *feed.Point) { p.Off = feed.Is }, none, true, feed.Ignition},
		{"feed.accessory", func(p *feed.Point) { p.Accessory = feed.Is }, none, true, feed.Key},
		{"feed.consumer", func(p *feed.Point) { p.Only = "the air conditioning" }, none, false, feed.Consumer},
		{"feed.never", func(p *feed.Point) { p.Running = feed.Dead }, none, false, feed.Never},
		{"feed.cranks", func(p *feed.Point) { p.Cranking = feed.Dead }, none, true, feed.Ignition},
		{"feed.dplus", func(p *feed.Point) { p.Kind = feed.DPlus }, none, true, feed.Ignition},
		{"feed.rating", func(p *feed.Point) { p.RatingA = 5 }, func(p *feed.Point) { p.RatingA = 7.5 }, true, feed.Ignition},
		{"feed.running", func(p *feed.Point) { p.On = feed.Dead }, none, true, feed.RunningOnly},
		{"feed.ignition", none, func(p *feed.Point) { p.On = feed.Dead }, true, feed.Ignition},
	}
	for _, c := range cases {
		on, off := wiper(), wiper()
		c.on(&on)
		c.off(&off)
		v := on.Judge()
		assert.True(t, finds(v, c.id), c.id)
		assert.False(t, finds(off.Judge(), c.id), "not %s", c.id)
		assert.Equal(t, c.candidate, v.Candidate, c.id)
		assert.Equal(t, c.behaviour, v.Behaviour, c.id)
		for _, f := range v.Findings {
			assert.NotContains(t, f.Text, "%!", f.ID)
		}
	}
}

// What looks right with the engine running and is not, is a trap.
func TestTraps(t *testing.T) {
	for name, change := range map[string]func(*feed.Point){
		"accessory":        func(p *feed.Point) { p.Accessory = feed.Is },
		"permanent":        func(p *feed.Point) { p.Off, p.Slept = feed.Is, feed.Is },
		"air conditioning": func(p *feed.Point) { p.Only = "the air conditioning" },
		"airbag":           func(p *feed.Point) { p.Safety = feed.Vital },
	} {
		p := wiper()
		change(&p)
		assert.True(t, p.Judge().Trap, name)
	}
	assert.False(t, wiper().Judge().Trap)
}

// Tests that are still to be made are named in working order, and none once one rules the
// point out.
func TestWhatIsStillToBeTested(t *testing.T) {
	p := feed.Point{Name: "F1", Kind: feed.Slot, Off: feed.Dead, On: feed.Is}
	v := p.Judge()
	assert.Equal(t, []string{"accessory", "engine running", "cranking", "key out, after the bus sleeps"}, v.Missing)
	assert.False(t, v.Candidate)
	p.Off = feed.Is
	assert.Empty(t, p.Judge().Missing)
	assert.Equal(t, feed.Unknown, feed.Point{}.Judge().Behaviour)
}

// Best first: engine-running at a body-builder's interface, D+, a slot live only while
// running, 15; never the lowest rating for its own sake.
func TestRanks(t *testing.T) {
	running := func(k feed.Kind) feed.Point { p := wiper(); p.Kind, p.On = k, feed.Dead; return p }
	small := wiper()
	small.RatingA = 5
	order := []feed.Point{running(feed.Interface), running(feed.DPlus), running(feed.Slot), wiper(), small}
	for i := 1; i < len(order); i++ {
		assert.Less(t, order[i-1].Judge().Rank, order[i].Judge().Rank, "%d", i)
	}
}

func TestTap(t *testing.T) {
	assert.Equal(t, "Tap holder in F22: its own 15 A in the lower slot, 3 A in the upper.", wiper().Tap(3))
	assert.Contains(t, feed.Point{Name: "D+", Kind: feed.DPlus}.Tap(1), "in-line holder")
}
