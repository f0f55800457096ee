package judge

import (
	"fmt"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

func noteLeg(d *design.Design, n *noted, l *run.Sized, wire, fuse, sizePath, fusePath string) {
	t := l.Trial
	amps := func(v float64) string { return working.Text(v, "A", 0) }
	cure := verdict.Unpin("Fit "+l.Auto.Label, sizePath)
	if insulation := d.Facts.Insulation; l.Bay.AmbientC >= insulation.LimitC {
		var cures []verdict.Cure
		if best := cable.Class105; l.Bay.AmbientC < best.LimitC {
			cures = append(cures, verdict.Set("Take "+best.Label+" insulation", "cable.insulation", fmt.Sprint(best.LimitC)))
		}
		n.add("cable.place", l.ID, verdict.Stop, with(wire, working.Text(l.Bay.AmbientC, "°C", 0), insulation.Label), nil, cures...)
		return
	}
	switch {
	case l.NoCable != nil && l.SizePin == nil:
		n.add("cable.none", l.ID, verdict.Stop, with(wire), with(l.NoCable.Error()))
	case t.AmpacityA < l.Amps:
		n.add("cable.burns", l.ID, verdict.Stop, with(wire, t.Size.Copper(), amps(t.AmpacityA), amps(l.Amps)),
			with(working.Text(t.ConductorC, "°C", 0)), cure)
	case t.DropV > l.BudgetV+0.0005 && l.SizePin != nil:
		n.add("cable.thin", l.ID, verdict.Beware, with(wire, t.Size.Copper(), working.Text(t.DropV, "V", 2),
			working.Text(max(0, l.BudgetV), "V", 2)), nil, cure)
	case l.Widened:
		n.add("cable.drop", l.ID, verdict.Beware, with(wire, working.Text(t.DropV, "V", 2), working.Text(max(0, l.BudgetV), "V", 2)), nil)
	}
	noteFuse(n, l, wire, fuse, sizePath, fusePath)
}

func noteFuse(n *noted, l *run.Sized, wire, fuse, sizePath, fusePath string) {
	t, rating := l.Trial, working.Plain(l.Fuse.RatingA, "A", 1)
	amps := func(a float64) string { return working.Text(a, "A", 0) }
	carries := l.Fuse.Carries(l.Bay.AmbientC)
	var cures []verdict.Cure
	if l.FusePin != nil && l.AutoFuse.RatingA > 0 {
		cures = append(cures, verdict.Unpin("Fit "+working.Plain(l.AutoFuse.RatingA, "A", 1), fusePath))
	}
	if l.SizePin != nil {
		cures = append(cures, verdict.Unpin("Fit "+l.Auto.Label, sizePath))
	}
	if l.FusePin == nil && l.NoFuse != nil {
		n.add("fuse.none", l.FuseID, verdict.Stop, with(fuse, t.Size.Label), with(l.NoFuse.Error(), l.Auto.Copper()), cures...)
		return
	}
	if l.Fuse.RatingA > t.AmpacityA {
		n.add("fuse.over", l.FuseID, verdict.Stop, with(fuse, rating, wire, working.Text(t.AmpacityA, "A", 0)), nil, cures...)
	} else if !l.Cover.Saves {
		n.add("fuse.slow", l.FuseID, verdict.Stop, with(fuse, working.Seconds(l.Cover.Far.OpensMaxS), wire, working.Seconds(l.Cover.Far.BearsS)),
			nil, cures...)
	} else if o := l.Cover.Overload; !o.Saves() {
		n.add("fuse.overload", l.FuseID, verdict.Beware, with(fuse, amps(o.Amps), working.Seconds(o.OpensMaxS), wire, working.Seconds(o.BearsS)),
			nil, cures...)
	}
	if l.Fuse.Family.Resets == protect.Itself {
		n.add("fuse.resets", l.FuseID, verdict.Stop, with(fuse), nil, verdict.Unpin("Fit a fuse", "pins.device"))
	}
	if ok := slices.ContainsFunc(l.Device.Families, func(f protect.Family) bool { return f.ID == l.Fuse.Family.ID }); !ok {
		n.add("fuse.kind", l.FuseID, verdict.Beware, with(fuse, rating, l.Device.Label), nil, cures...)
	}
	if l.SheetA > 0 && l.Fuse.RatingA > l.SheetA {
		n.add("fuse.sheet", l.FuseID, verdict.Beware, with(fuse, rating, working.Plain(l.SheetA, "A", 1)), nil, cures...)
	}
	if l.NearFault > l.Fuse.Family.BreaksA {
		n.add("fuse.breaks", l.FuseID, verdict.Stop, with(fuse, working.Kilo(l.Fuse.Family.BreaksA), working.Kilo(l.NearFault)), nil, cures...)
	}
	if l.Amps > carries+0.05 {
		n.add("fuse.under", l.FuseID, verdict.Beware, with(fuse, working.Text(l.Amps, "A", 0), rating, working.Text(carries, "A", 0)), nil,
			cures...)
	}
}
