package method

// words are the sentences of the rules, by id.
var words = map[string]string{
	"dcdc.variable": "The alternator's regulation is %s: a charger boosts whatever it is given.",
	"dcdc.staged":   "It gives a staged charge that suits %s.",
	"dcdc.far":      "The aux battery is %.1f m away by its route: a charger makes up what the cable loses.",
	"dcdc.trigger":  "It needs a trigger that is live only while the engine runs.",
	"dcdc.hot":      "It would sit in an engine space: heat and air decide what it can give.",
	"vsr.variable":  "The alternator's regulation is %s: a relay never closes, or drops out and leaves the aux battery about half charged.",
	"vsr.lithium":   "LiFePO4 rests at 13.2–13.3 V, above a relay's cut-out: it stays closed after parking, and nothing limits the charging current.",
	"vsr.trailer":   "The feed to the trailer must go dead with the engine off: a relay may hold closed for hours.",
	"vsr.far":       "The aux battery is %.1f m away by its route: what the cable loses is missing at the battery.",
	"vsr.short":     "The alternator gives %.1f V and %s wants at least %.1f V: it is never quite full.",
	"vsr.lead":      "Steady regulation and lead at both ends are what a relay is for.",
	"vsr.cheap":     "A relay kit costs a quarter to a third of a charger, and needs no trigger.",
}

// unless says what would have to change for what is ruled out to be allowed.
var unless = map[string]string{
	"vsr.variable": "A logged test that shows steady regulation.",
	"vsr.lithium":  "A lead aux battery.",
}
