package design

import (
	"math"

	"epitrope/core/run"
	"epitrope/core/system"
)

// Framed says whether the trailer's own frame is the return between its battery's place and the
// drawbar; over the plug it goes by cable all the same.
func (d *Design) Framed() bool {
	crosses := d.BackCrosses() && !d.Back.ByChassis || d.Kind.Charger() && d.Crosses(&d.Aux)
	return d.Facts.Arranged.Frame && crosses
}

// frameM is the frame between its two earth points.
func (d *Design) frameM() float64 { return math.Abs(d.Facts.Place.At.X - d.HitchAt().X) }

// FrameOhm is the frame with its two earth joints: as measured end to end, or by its length.
func (d *Design) FrameOhm() float64 {
	if ohm, ok := d.Doc.Joints["frame"].Ohm(); ok {
		return math.Max(ohm, leastPathOhm)
	}
	return countedSteel(d.frameM())
}

// frameWires are the return inside the trailer by its frame: a short lead at each end of it, in the size of
// its run. They take the place of a wire from the minus there to the plug.
func (d *Design) frameWires(id string, l *run.Sized, minus system.Terminal) {
	lead := d.Facts.EarthM.Value
	d.wire(id, l.ID, system.Return, minus, term("e4", ""), l, lead, lugs)
	steel := system.Wire{ID: "frame", Run: "return", Role: system.Chassis, From: term("e4", ""), To: term("e5", ""), LengthM: d.frameM(),
		Ohm: d.FrameOhm(), Existing: true}
	if _, whole := d.Doc.Joints["frame"].Ohm(); !whole {
		steel.Ohm, steel.Joint = max(leastPathOhm, steel.Ohm-2*run.EarthOhm), system.Joints{From: run.EarthOhm, To: run.EarthOhm}
	}
	d.System.Join(steel)
	d.wire(id+"d", l.ID, system.Return, term("e5", ""), term("x1", "-t"), l, lead, system.Joints{From: run.JointOhm})
}

// byFrame counts the frame in the run whose return crosses the plug, instead of the cable that it stands for.
func (d *Design) byFrame() {
	if !d.Framed() {
		return
	}
	l := d.ReturnLeg()
	share := d.backShare()
	if d.Kind.Charger() && d.Crosses(&d.Aux) {
		l = &d.Aux
	}
	l.ReturnM = l.ReturnM*share + 2*d.Facts.EarthM.Value
	l.SteelOhm += d.sizedFor("frame", countedSteel(d.frameM()))
	if l == d.ReturnLeg() {
		d.Back.CableM = l.ReturnM
	}
}

// parted are the two pieces of a return cable of so many metres: before the plug, and behind it, where that is
// not the trailer's frame.
func (d *Design) parted(cableM, share float64) (before, behind float64) {
	if d.Framed() {
		return cableM - 2*d.Facts.EarthM.Value, 0
	}
	return cableM * share, cableM * (1 - share)
}
