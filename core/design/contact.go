package design

// joinOhm is the contact that joins the batteries.
func (d *Design) joinOhm() float64 {
	if d.Is.Beside == RestContact {
		return d.Changeover.ContactOhm
	}
	return d.Contact.ContactOhm
}

// contactRatingA is what that contact is sold by.
func (d *Design) contactRatingA() float64 {
	if d.Is.Beside == RestContact {
		return d.Changeover.Relay.MakeA
	}
	return d.Contact.ContinuousA
}

// JoinCrankA is what that contact bears for the seconds of a start.
func (d *Design) JoinCrankA() float64 {
	if d.Is.Beside == RestContact {
		return d.Changeover.CrankA
	}
	return d.Contact.CrankA
}

// JoinsOnA is what that contact may close on: as it is labelled, or as for a start.
func (d *Design) JoinsOnA() float64 {
	own := d.Contact.JoinA
	if d.Is.Beside == RestContact {
		own = d.Changeover.JoinA
	}
	if own > 0 {
		return own
	}
	return d.JoinCrankA()
}

// coilA is what the coil of that contact takes.
func (d *Design) coilA() float64 {
	if d.Is.Beside == RestContact {
		return d.Changeover.Relay.CoilA
	}
	return d.Contact.CoilA
}
