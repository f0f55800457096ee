package prove

import (
	"epitrope/core/judge"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// look is something that is looked at: as it is worded it has to be so.
func (b *lister) look(id, what, ifNot string) {
	b.add(Reading{ID: id, What: what, Unit: Seen, IfNot: ifNot})
}

// engages is the coupling taking up work.
func (b *lister) engages() {
	d := b.d
	name, _ := d.System.Component("coupling")
	switch {
	case d.Kind.Charger():
		b.look("engages", unit.Say("%s shows that it charges", name.Name), "Is its signal live, and its input above where it starts?")
	case d.Is.Senses:
		b.look("engages", unit.Say("%s closes some seconds after the engine starts: a click, or its lamp", name.Name),
			"Does it see the volts it closes at, across its own terminals, and is its ground on?")
	case d.Kind.Coil():
		b.look("engages", unit.Say("%s closes: a click", name.Name), "Is there voltage from 86 to 85, and are there some ohms in the coil?")
	}
}

// opens is a relay that senses letting go after its delay.
func (b *lister) opens() {
	c, senses := b.d.System.Sensing()
	if !senses || !b.d.Facts.Chemistry.Lead {
		return
	}
	of, _ := c.Device.(system.Contact)
	b.look("delay", unit.Say("Held below %s, %s lets go after about %s: a click, or its lamp",
		unit.Text(of.Senses.CutOutV*b.d.Facts.N, "V", 1), c.Name, unit.Text(of.Senses.OpenS, "s", 0)),
		"It sees something else than the start battery, or it is welded: is there current between the batteries?")
}

// leads are a charger's configuration leads: it takes what they say as it wakes.
func (b *lister) leads() {
	if !b.d.Kind.Charger() {
		return
	}
	for _, l := range judge.SettingsOf(b.d).Leads {
		b.look("lead-"+l.Lead, unit.Say("Configuration lead %s, %s, shows: %s", l.Lead, l.Joined, l.Reads),
			"An open lead is a setting too: follow it end to end before the charger works.")
	}
}

// isolators are what opens by hand: what lies behind is parted by it.
func (b *lister) isolators() {
	for _, c := range b.d.System.Components {
		link, is := c.Device.(system.Link)
		switch {
		case !is:
		case link.ByHand:
			b.look("opens-"+c.ID, unit.Say("%s open: what lies behind is dead, and no amp flows", c.Name),
				"There is a way past it, or it does not open: follow both its cables.")
		case c.Kind == system.KindDisconnect:
			b.look("opens-"+c.ID, unit.Say("%s opened by its own test, or by what works it: what it feeds is dead, and comes back", c.Name),
				"It is not told, or does not open: its own manual before the battery is trusted to it.")
		}
	}
}
