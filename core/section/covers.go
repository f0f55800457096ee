package section

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Covers are the stretches each fuse protects, from the battery that feeds it.
func Covers(d *design.Design) []Cover {
	front := Cover{Fuse: "f1", Side: "front", From: "f1", To: "c1"}
	back := Cover{Fuse: "f2", Side: "back", From: "c2", To: "f2"}
	for _, c := range []struct {
		*Cover
		l          *run.Sized
		fuse, wire string
	}{{&front, &d.Start, "F1", "C1"}, {&back, &d.Aux, "F2", "C2"}} {
		if c.l.Unfused {
			c.Level, c.Text = verdict.Bad, "no fuse at this end: "+c.wire+" is bare"
			continue
		}
		c.tell(c.l, c.fuse, c.wire)
	}
	if d.Start.Unfused {
		front.Fuse, front.From = "", "c1"
	}
	if d.Aux.Unfused {
		back.Fuse, back.To = "", "c2"
	}
	return []Cover{front, back}
}

func (c *Cover) tell(l *run.Sized, fuse, wire string) {
	c.Bare = unit.Text(run.BareM, "m bare", 2)
	v := l.Cover
	switch {
	case l.NearFault > l.Fuse.Family.BreaksA:
		c.Level, c.Text = verdict.Bad, fmt.Sprintf("%s breaks %s of %s", fuse, unit.Kilo(l.Fuse.Family.BreaksA), unit.Kilo(l.NearFault))
	case !v.Saves:
		c.Level, c.Text = verdict.Bad, fmt.Sprintf("%s is too slow for %s", fuse, wire)
	case l.Fuse.RatingA > l.Trial.AmpacityA:
		c.Level, c.Text = verdict.Bad, fmt.Sprintf("%s bears %s, %s more", wire, unit.Text(l.Trial.AmpacityA, "A", 0), fuse)
	default:
		c.Level = verdict.Good
		c.Text = fmt.Sprintf("%s clears a short in %s; %s bears %s", fuse, unit.Seconds(v.Far.OpensMaxS), wire, unit.Seconds(v.Far.BearsS))
	}
}

// Marks are the limits on the grade line.
func Marks(d *design.Design) []Mark {
	n := d.Facts.N
	wanted := Mark{Column: "aux", Kind: "wanted", Low: unit.Round(d.Profile.AbsorptionLow, 2),
		High: unit.Round(d.Profile.AbsorptionHigh, 2)}
	wanted.Text = fmt.Sprintf("end of bulk %s–%s", unit.Text(wanted.Low, "", 1), unit.Text(wanted.High, "V", 1))
	if d.Kind.Charger() {
		v := d.Charger.CutOutV * n
		return []Mark{wanted, {Column: "coupling", Kind: "limit", Low: v, High: v, Text: "stops at " + unit.Text(v, "V", 1)}}
	}
	if !d.Is.Senses {
		return []Mark{wanted}
	}
	in, out := d.Contact.Sensing.CutInV*n, d.Contact.Sensing.CutOutV*n
	return []Mark{wanted, {Column: "coupling", Kind: "limit", Low: in, High: in, Text: "closes at " + unit.Text(in, "V", 1)},
		{Column: "coupling", Kind: "limit", Low: out, High: out, Text: "opens at " + unit.Text(out, "V", 1)}}
}
