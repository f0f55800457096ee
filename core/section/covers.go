package section

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Covers are the stretches each fuse protects, from the battery that feeds it.
func Covers(d *design.Design) []Cover {
	front := Cover{Fuse: "f1", Side: "front", From: "f1", To: "c1"}
	back := Cover{Fuse: "f2", Side: "back", From: "c2", To: "f2"}
	front.tell(&d.Start, "F1", "C1")
	back.tell(&d.Aux, "F2", "C2")
	return []Cover{front, back}
}

func (c *Cover) tell(l *run.Sized, fuse, wire string) {
	c.Bare = working.Text(run.BareM, "m bare", 2)
	v := l.Cover
	switch {
	case l.NearFault > l.Fuse.Family.BreaksA:
		c.Level, c.Text = verdict.Bad, fmt.Sprintf("%s breaks %s of %s", fuse, working.Kilo(l.Fuse.Family.BreaksA), working.Kilo(l.NearFault))
	case !v.Saves:
		c.Level, c.Text = verdict.Bad, fmt.Sprintf("%s is too slow for %s", fuse, wire)
	case l.Fuse.RatingA > l.Trial.AmpacityA:
		c.Level, c.Text = verdict.Bad, fmt.Sprintf("%s bears %s, %s more", wire, working.Text(l.Trial.AmpacityA, "A", 0), fuse)
	default:
		c.Level = verdict.Good
		c.Text = fmt.Sprintf("%s clears a short in %s; %s bears %s", fuse, working.Seconds(v.Far.OpensMaxS), wire, working.Seconds(v.Far.BearsS))
	}
}

// Marks are the limits on the grade line.
func Marks(d *design.Design) []Mark {
	n := d.Facts.N
	wanted := Mark{Column: "aux", Kind: "wanted", Low: working.Round(d.Profile.AbsorptionLow, 2),
		High: working.Round(d.Profile.AbsorptionHigh, 2)}
	wanted.Text = fmt.Sprintf("end of bulk %s–%s", working.Text(wanted.Low, "", 1), working.Text(wanted.High, "V", 1))
	if d.Kind.Charger() {
		v := d.Charger.CutOutV * n
		return []Mark{wanted, {Column: "coupling", Kind: "limit", Low: v, High: v, Text: "stops at " + working.Text(v, "V", 1)}}
	}
	if !d.Is.Senses {
		return []Mark{wanted}
	}
	in, out := d.Contact.Sensing.CutInV*n, d.Contact.Sensing.CutOutV*n
	return []Mark{wanted, {Column: "coupling", Kind: "limit", Low: in, High: in, Text: "closes at " + working.Text(in, "V", 1)},
		{Column: "coupling", Kind: "limit", Low: out, High: out, Text: "opens at " + working.Text(out, "V", 1)}}
}
