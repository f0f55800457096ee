package retrofit

import (
	"fmt"

	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Bypass is a way to charge until the proper repair, made of what is in the van.
type Bypass struct {
	Level   verdict.Level `json:"level" enum:"good,caution,bad"`
	Says    string        `json:"says"`
	CarryA  float64       `json:"carryA" doc:"What it may carry for hours"`
	FlowsA  float64       `json:"flowsA" doc:"What the circuit drives at cruise, early in bulk"`
	AuxV    float64       `json:"auxV" doc:"At the aux battery then"`
	Limits  []string      `json:"limits" doc:"What each part allows"`
	Against []string      `json:"against"`
	Steps   []string      `json:"steps"`
	Tag     string        `json:"tag" doc:"What the tag on it says"`
}

// BypassOf designs one from what is in the van; nil where nothing was named.
func BypassOf(of *design.Design) *Bypass {
	doc, h := of.Doc, of.Doc.Have
	if h.FuseA == nil || h.Size == nil || h.Metres == nil {
		return nil
	}
	temp := doc
	temp.Pins = job.Pins{}
	kind := string(coupling.ManualSelector)
	if h.RelayA != nil {
		kind = string(coupling.VSR)
		rated := nearest(*h.RelayA, parts.ContactRatings())
		temp.Pins.ContactA = &rated
	}
	temp.Arranged = job.Arranged{}
	temp.Pins.Coupling, temp.Pins.StartSize, temp.Pins.AuxSize = &kind, h.Size, h.Size
	rated := nearest(*h.FuseA, protect.PowerRatings())
	temp.Pins.StartFuseA, temp.Pins.AuxFuseA = &rated, &rated
	open := cable.Open.ID // it lies where it can
	temp.Bays.StartLay, temp.Bays.AuxLay = &open, &open
	if doc.Routes.StartM != nil && doc.Routes.AuxM != nil {
		// The whole way again, the relay at the start battery.
		first, rest := bypassFirstM, *doc.Routes.StartM+*doc.Routes.AuxM-bypassFirstM
		if rest > 0.1 {
			temp.Routes.StartM, temp.Routes.AuxM = &first, &rest
		}
	}
	d := of.With(temp)
	need := d.Facts.StartM.Value + d.Facts.AuxM.Value
	early := d.StateBy("early")
	fuseA := d.Start.Fuse.Carries(d.Start.Bay.AmbientC)
	cableA := min(d.Start.Trial.AmpacityA, d.Aux.Trial.AmpacityA)
	b := &Bypass{Level: verdict.Good, CarryA: unit.Round(min(fuseA, cableA), 0), FlowsA: unit.Round(max(0, early.OutA), 0),
		AuxV: unit.Round(early.AuxV, 1),
		Limits: []string{fmt.Sprintf("fuse %s: %s for hours", unit.Plain(*h.FuseA, "A", 0), unit.Text(fuseA, "A", 0)),
			fmt.Sprintf("%s: %s where it lies", d.Start.Trial.Size.Copper(), unit.Text(cableA, "A", 0))},
		Against: []string{}}
	if h.RelayA != nil {
		bears := *h.RelayA * parts.ContactFactor(d.Start.Bay.AmbientC)
		b.CarryA = unit.Round(min(b.CarryA, bears), 0)
		b.Limits = append(b.Limits, fmt.Sprintf("relay %s: %s where it sits", unit.Plain(*h.RelayA, "A", 0), unit.Text(bears, "A", 0)))
	}
	againstBypass(d, b, need)
	what := "a join by hand"
	if h.RelayA != nil {
		what = "the relay"
	}
	b.Says = fmt.Sprintf("%s, %s and the fuse carry %s for hours; at first %s would flow, %s at the aux battery.",
		unit.Metres(need)+" of "+d.Start.Trial.Size.Copper(), what, unit.Text(b.CarryA, "A", 0), unit.Text(b.FlowsA, "A", 0),
		unit.Text(b.AuxV, "V", 1))
	b.Steps = []string{"Start battery's negative off.", "The dead device stays in, its leads taken off and insulated one by one.",
		unit.Say("Fuse within %.0f mm of the start battery, its element out; %s to the aux battery along the old route, clear of heat and "+
			"anything that moves.", fuseWithinMM, d.Start.Trial.Size.Copper()),
		"A second fuse at the aux battery: it is a source too.", "Return checked: under 0.2 V at the current that flows.",
		"Fuses in last, the aux battery's first; engine on; current by clamp."}
	b.Tag = "TEMPORARY. Joins both batteries past the dead device. To undo: this fuse out, this cable off, the device's leads back on. Not " +
		"to be left joined when parked."
	return b
}

// bypassFirstM is from the start battery to a relay beside it.
const bypassFirstM = 0.5

// againstBypass says what speaks against a bypass.
func againstBypass(d *design.Design, b *Bypass, needM float64) {
	against := func(level verdict.Level, text string, args ...any) {
		b.Against = append(b.Against, fmt.Sprintf(text, args...))
		b.Level = verdict.Worst(b.Level, level)
	}
	h := d.Doc.Have
	if *h.Metres < needM {
		against(verdict.Bad, "%s are needed from battery to battery and there are %s", unit.Metres(needM),
			unit.Metres(*h.Metres))
	}
	if h.Fuses == nil || *h.Fuses < 2 {
		against(verdict.Bad, "two fuses are needed, as both batteries are sources; without the second, the aux end burns")
	}
	if b.FlowsA > b.CarryA {
		against(verdict.Bad, "%s would flow into the battery as it is: charge it first, or leave the join open until it stands higher",
			unit.Text(b.FlowsA, "A", 0))
	}
	if h.FuseA != nil && *h.FuseA > min(d.Start.Trial.AmpacityA, d.Aux.Trial.AmpacityA) {
		against(verdict.Bad, "a %s fuse does not protect this cable", unit.Plain(*h.FuseA, "A", 0))
	}
	if !d.Facts.Chemistry.Lead {
		against(verdict.Bad, "nothing limits the current into a %s bank, and its management system may open under it", d.Facts.Chemistry.Label)
	}
	if d.Facts.Varies() {
		against(verdict.Caution, "on variable regulation it charges only while the voltage is up, and the aux battery feeds the vehicle while "+
			"it is not")
	}
	if d.Facts.Chemistry.ID == battery.Gel.ID && b.AuxV > d.Profile.AbsorptionHigh {
		against(verdict.Caution, "%s is more than gel bears", unit.Text(b.AuxV, "V", 1))
	}
}
