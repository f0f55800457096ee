package plan

import "epitrope/core/working"

// words are the sentences of the notes, by id: what is the matter, then why it
// matters.
var words = map[string][2]string{
	"alternator.idle":       {"At idle, hot, lamps and blower on, the alternator has %s for charging and is asked for %s: the start battery makes up the rest.", "Label is not available current. The charging side then sees %s; a vehicle that idles for hours this way may not start."},
	"alternator.half":       {"Charging draws %s at worst, %s of the alternator's label.", "More than half the label for hours overheats most machines. Idle leaves %s, cruise %s."},
	"regulation.unknown":    {"How the alternator is regulated is not proven: it is taken as variable.", "Model years mislead. Twenty minutes of logged voltage settle it."},
	"method.pinned":         {"The %s is pinned, and the rules are against it: %s", "%s"},
	"place.unfit":           {"This vehicle has no place called “%s”: the plan takes “%s”.", "The kind of vehicle was changed after the place was chosen."},
	"place.gas":             {"A %s battery gives off gas and acid: it may not sit inside.", "Only where it vents outside, so usually under the bonnet. Inside: sealed AGM or gel, or LiFePO4."},
	"place.hot":             {"LiFePO4 under the bonnet is in the heat.", "Most LiFePO4 batteries are not allowed there: see the battery's own sheet."},
	"charger.short":         {"%s falls short: %s would hold the balance of %s a day in %s of driving.", "A battery that only ever reaches about half charge lasts about a year."},
	"charger.acceptance":    {"%s is more than the battery accepts: %s.", "The battery's own sheet wins; without one, stay below."},
	"charger.starved":       {"In the state “%s”, %s.", "A charger is a constant-power load: less voltage, more current, more drop. It hunts or collapses."},
	"charger.far":           {"The charger is %s of cable from the battery it charges.", "It makes up what is lost before it, not after it. Lengths that were measured for a relay have to be measured again."},
	"charger.hot":           {"The charger sits where it gets about %s; its card allows %s at full output.", "Chargers give less in heat, or stop."},
	"relay.open":            {"In the state “%s” the start battery has %s and the relay, which closes at %s, stays open: no charge at all.", "A voltage-sensing relay knows nothing but voltage."},
	"relay.surge":           {"The aux battery takes %s through the contact; %s is what it accepts.", "Nothing limits the current but the circuit: the alternator may overheat."},
	"relay.chatter":         {"In the state “%s” the relay senses %s, below its cut-out of %s: it opens, recovers, closes again.", "Thin cable before the relay drags down what it senses. Thicker cable or a better earth on that side."},
	"relay.idle":            {"At idle the relay senses %s, below its cut-out of %s: it opens until the engine turns faster.", "The alternator has too little at idle, not the cable."},
	"relay.undercharge":     {"The aux battery never sees more than %s; %s wants %s.", "It is charged, but never quite full, and ages sooner."},
	"signal.detect.low":     {"In the state “%s” the charger sees %s, below the %s at which it takes the engine for stopped: it stops, the voltage recovers, it starts again.", "A charger that watches voltage knows nothing of the engine; the start battery stands at %s then."},
	"signal.detect.joined":  {"After a join the start side stands at the %s's %s, above the %s that the charger takes for a running engine.", "It then runs from start to house with the engine off."},
	"signal.detect.surface": {"After a join, surface charge on the start battery may stand above the %s that the charger takes for a running engine.", "It then runs from start to house with the engine off until that is gone."},
	"signal.detect.none":    {"A %s has no eye on the voltage: its coil wants a feed.", "Only a charger, or a sensing relay, watches voltage."},
	"signal.out":            {"The signal is taken from %s: %s", "Choose by circuit and by behaviour asleep, at accessory, on, cranking, running and after."},
	"signal.accessory":      {"%s is live at accessory: left so, %s.", "Accessory, ignition, D+ and engine-running are four facts."},
	"signal.untested":       {"%s is taken and not yet tested: %s.", "The step that is missed is the one that matters."},
	"signal.delay":          {"Charging waits %s after each start, of %s driven in a day: with two trips and more, little is left.", "A timer lets the start battery recover; a few minutes do."},
	"signal.gone":           {"The feed point that was taken is no longer in the list.", "Somebody took its row out."},
	"profile.harms":         {"The charger is set to “%s”, %s: %s is harmed above %s.", "It would really get %s."},
	"profile.high":          {"The charger is set to “%s”, %s, and %s wants at most %s.", "It would really get %s: it gasses, dries out, ages sooner."},
	"profile.low":           {"The charger is set to “%s”, %s, and %s wants at least %s.", "It would really get %s: never quite full."},
	"profile.other":         {"The charger is set to “%s” and the battery is %s: a default left as it was is the common mistake.", "The volts happen to do; float, stages and compensation need not."},
	"profile.broken":        {"A configuration lead is open: that is a setting too, “%s” in place of “%s”.", "A broken lead silently becomes another chemistry: measure each one at handover."},
	"profile.float":         {"Float stands at %s; %s wants at most %s.", "Held there for days it ages."},
	"profile.compensates":   {"“%s” follows temperature, and %s wants none of that.", "In the cold it would be lifted past what its management system bears."},
	"profile.cold":          {"At %s outside: LiFePO4 must not be charged below 0 °C.", "Its management system may open under charge. Its charge-disable output should stop the charger first: is it wired?"},
	"profile.disable":       {"The management system's charge-disable is not wired to the charger.", "When it opens under charge, what is connected sees the load dump; its output should stop the charger first."},
	"profile.clamp":         {"At %s outside compensation would ask %s and is held at %s.", "More than lamps and electronics bear."},
	"profile.uncompensated": {"At %s outside “%s” is not compensated by temperature.", "Lead wants some 24 mV for each kelvin: too little in the cold, too much in the heat."},
	"chain.over":            {"%s carries %s and bears %s where it sits.", "Everything in series carries the same current: this is the weakest of it, and trips or burns."},
	"chain.limit":           {"%s carries %s of the %s it bears where it sits: at its limit.", "A hot day or a dirty contact takes it over."},
	"changeover.cable":      {"%s is %s; a %s takes up to %s.", "Its socket's contacts take no thicker cable: a relay with studs, or a stud beside it and a short link that its fuse saves."},
	"button.breaks":         {"A short behind F5 draws %s; a %s breaks %s.", "Take S1's feed off a circuit that is already fused on that side, a branch of its fuse box, with F5 there."},
	"plug.cable":            {"%s is %s; a %s takes up to %s.", "The cable does not go into the housing: a larger plug, or two cables in parallel with a joint."},
	"cable.burns":           {"%s is pinned to %s, which carries %s where it lies; it has to carry %s.", "It gets over %s. Drop alone approves cable that burns."},
	"cable.thin":            {"%s is pinned to %s: it loses %s, more than the %s allowed.", "What is lost on the way is missing at the end."},
	"cable.drop":            {"%s loses %s, more than the %s allowed.", "The return and the length lose it already: no cable on the reels keeps the limit."},
	"cable.none":            {"%s: no cable on the reels does it.", "%s. Less current, a shorter route, or another place for the battery."},
	"fuse.over":             {"%s at %s is more than %s bears: %s.", "The fuse protects the cable. This one lets the cable burn first."},
	"fuse.under":            {"%s carries %s for hours; warm, %s bears %s.", "It opens on a hot day, far from home."},
	"fuse.slow":             {"%s opens after up to %s on a short at the far end; %s bears it for %s.", "The cable would be past its limit before the fuse opens."},
	"fuse.breaks":           {"%s can break %s; a short at the battery drives about %s.", "A fuse that cannot break its fault burns on as an arc."},
	"fuse.none":             {"%s: no fuse fits %s.", "%s. A thicker cable opens the window: %s does."},
	"fuse.overload":         {"%s may hold %s for up to %s; %s bears that for %s.", "An overload, not a short: it heats the cable slowly past what its insulation bears."},
	"fuse.resets":           {"%s resets itself: it closes on the fault again and again.", "A battery's fault is switched on again each time, until something burns. A fuse, or a breaker reset by hand."},
	"fuse.kind":             {"%s at %s does not come as a %s.", "Take a rating that it comes in, or another kind."},
	"relay.night":           {"Parked, %s holds the relay at %s, above its cut-out of %s: it stays closed.", "House and vehicle live on one bank all night, until it is nearly empty, and nothing is isolated when people think it is."},
	"return.hitch":          {"The return may not cross the tow coupling through the steel.", "If its contact fails, the current finds the thin lighting earth and melts it."},
	"use.large":             {"A day uses %s and the battery has %s to use.", "It is flat before the next drive."},
}

// noteMarks are where the notes' rules come from, where that is not common practice.
var noteMarks = map[string]working.Origin{
	"alternator.idle": working.Physics, "charger.short": working.Physics, "charger.acceptance": working.Memory, "charger.starved": working.Physics,
	"relay.open": working.Physics, "relay.surge": working.Memory, "relay.chatter": working.Physics, "relay.idle": working.Physics, "relay.undercharge": working.Memory, "relay.night": working.Physics,
	"cable.burns": working.Standard, "cable.thin": working.Physics, "cable.drop": working.Physics, "cable.none": working.Standard,
	"fuse.over": working.Standard, "fuse.slow": working.Standard, "fuse.breaks": working.Memory, "fuse.none": working.Standard, "fuse.overload": working.Standard,
	"signal.detect.low": working.Physics, "signal.detect.joined": working.Physics,
	"chain.over": working.Memory, "chain.limit": working.Memory, "plug.cable": working.Memory, "button.breaks": working.Physics, "changeover.cable": working.Memory, "use.large": working.Physics,
}

// cautions stand once on every plan, where the reader acts on it.
var cautions = []string{
	"The short-circuit current of any vehicle battery welds tools: negative off first and on last, insulated tools, no jewellery, fuses out while working and fitted last.",
	"Airbag, brake, steering and engine-management circuits are not feed points. Mains equipment is for a licensed person.",
	"Local vehicle and caravan electrical codes, the battery's and the device's own manuals and a licensed practitioner's word override any figure here.",
}
