package design

import "epitrope/core/job"

// unfused notes which end of the run has no fuse, as the job has it: the splitter's own charge cable and the
// aux run alike.
func (d *Design) unfused() {
	at := d.Facts.Arranged.Fuses
	d.Start.Unfused = at == job.FusedBack || at == job.NotFused
	d.Aux.Unfused = at == job.FusedFront || at == job.NotFused
}

// UnfusedM is how much cable the start battery, or the aux battery, feeds past no fuse: up to the next fuse, or
// to a charger or a diode that lets nothing back. 0 where its own end is fused.
func (d *Design) UnfusedM() (fromStart, fromAux float64) {
	startM, auxM := d.Facts.StartM.Value, d.Facts.AuxM.Value
	through := !d.Kind.Charger() && !d.Is.Splits
	if d.Start.Unfused {
		if fromStart = startM; through {
			fromStart += auxM
		}
	}
	if d.Aux.Unfused {
		if fromAux = auxM; through && !d.Is.OwnMachine {
			fromAux += startM
		}
	}
	return fromStart, fromAux
}
