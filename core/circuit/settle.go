package circuit

import (
	"epitrope/core/network"
	"epitrope/core/system"
)

// Settled is a state with its devices where they come to stand.
type Settled struct {
	Position
	Solution network.Solution
	Hunts    []string // components that switch on and off without end; none where all stands
}

// mostMoves bounds how often devices may move before they are taken to hunt: there are fewer
// positions than that.
const mostMoves = 8

// Settle lets the devices act on what they see, from where they stood before, until nothing
// moves. Where they never come to rest it says which hunt, in the last position in which the
// charger runs, or the contact is closed. The error is that of Solve, in the position in which
// there is no solution.
func (l *Circuit) Settle(s State, was Position) (Settled, error) {
	at := Settled{Position: was}
	seen := map[Position]bool{}
	var active Settled
	for range mostMoves {
		solved, err := l.Solve(s, at.Position)
		if err != nil {
			return at, err
		}
		at.Solution = solved
		next := l.act(s, at.Position, &solved)
		if next == at.Position {
			return at, nil
		}
		if at.Joined || !at.Stopped || active.Solution.Volts == nil {
			active = at
			active.Hunts = l.moved(at.Position, next)
		}
		if seen[next] {
			break
		}
		seen[at.Position] = true
		at = Settled{Position: next}
	}
	return active, nil
}

// moved names the components that stand elsewhere.
func (l *Circuit) moved(a, b Position) []string {
	var list []string
	if a.Joined != b.Joined {
		list = append(list, l.joins.ID)
	}
	if a.Ahead != b.Ahead {
		list = append(list, "k2")
	}
	if a.Stopped != b.Stopped || a.Output != b.Output {
		list = append(list, l.charger.at.ID)
	}
	return list
}

// act is where the devices want to stand, by what they see.
func (l *Circuit) act(s State, p Position, seen *network.Solution) Position {
	next := p
	if a := l.ahead; a != nil {
		amps := Had(seen.Through(AheadCoil))
		next.Ahead = amps >= a.PullA || p.Ahead && amps >= a.DropA
	}
	if k := l.locks; k != nil {
		amps := Had(seen.Through(LockCoil))
		next.Locked = amps >= k.PullA || p.Locked && amps >= k.DropA
	}
	if l.contact != nil {
		next.Joined = l.closes(s, p, seen)
	}
	if l.charger != nil {
		next.Stopped, next.Output = l.rests(p, seen)
	}
	return next
}

// closes says whether the contact that joins the batteries wants to be closed.
func (l *Circuit) closes(s State, p Position, seen *network.Solution) bool {
	c := l.contact
	switch {
	case c.HoldOhm > 0:
		volts := Had(seen.Across(l.joins.ID+".30", l.joins.ID+".31")) / l.n
		closes, afterS := c.Senses.Wants(p.Joined, volts, volts)
		if s.LastsS > 0 && afterS >= s.LastsS {
			return p.Joined // it waits longer than that lasts
		}
		return closes
	case c.CoilOhm > 0:
		amps := Had(seen.Through("coil"))
		if p.Joined {
			return amps >= c.DropA
		}
		return amps >= c.PullA
	}
	return c.ByHand && s.hand(l.joins.ID, system.On) == system.On
}

// rests says whether the charger wants to rest, and whether it works the contact beside it.
func (l *Circuit) rests(p Position, seen *network.Solution) (stopped, output bool) {
	d, id := l.charger.device, l.charger.at.ID
	input := Had(seen.Across(id+".30", id+".31"))
	signal := Had(seen.Across(id+".15", id+".31")) >= d.LiveV
	if d.Detects.CutInV > 0 {
		signal, _ = d.Detects.Wants(!p.Stopped, input/l.n, input/l.n)
	}
	if d.Works != "" {
		output = d.Bypass.Wants(p.Output, signal, input/l.n, Had(seen.Across(id+".out", id+".31"))/l.n)
	}
	least := d.Card.CutOutV * l.n
	if p.Stopped {
		least = d.RestartV
	}
	return !signal || output || input < least, output
}
