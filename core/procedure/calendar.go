package procedure

import (
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/retrofit"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Calendar is what a job asks to be done later.
type Calendar struct {
	TopUpDays float64        `json:"topUpDays" doc:"A full battery that stands is charged again after so many days"`
	Says      string         `json:"says"`
	Figure    working.Figure `json:"figure"`
	Offers    []DateOffer    `json:"offers" doc:"What is usually put into the calendar, and is not there"`
}

// DateOffer is a date that a job should have.
type DateOffer struct {
	Kind  string `json:"kind" enum:"topup,temporary,revisit,other"`
	What  string `json:"what"`
	Days  int    `json:"days" doc:"From today"`
	Again bool   `json:"again" doc:"… and every so many days after"`
	Why   string `json:"why"`
}

// Dates that jobs usually have, in days. Source: common practice, no source: bolts settle
// in the first weeks; a yearly look; a temporary repair within a month.
const (
	settledDays   = 28
	yearDays      = 365
	temporaryDays = 30
)

// CalendarOf is what a job asks to be done later.
func CalendarOf(d *design.Design) Calendar {
	fig, days := d.TopUp()
	out := Calendar{TopUpDays: days, Figure: fig, Offers: []DateOffer{}}
	out.Says = fmt.Sprintf("Left standing full, the aux battery wants charging again after %s: deep-cycle does not mean that it keeps.",
		unit.Text(out.TopUpDays, "days", 0))
	have := map[string]bool{}
	for _, row := range job.Rows(d.Doc.Dates) {
		have[job.Str(row.Of.Kind)] = true
	}
	offer := func(kind, what string, days int, again bool, why string) {
		if !have[kind] {
			out.Offers = append(out.Offers, DateOffer{kind, what, days, again, why})
		}
	}
	offer(job.TopUpDate, "Charge the "+d.AuxRating()+" battery while the vehicle stands", int(out.TopUpDays), true, out.Says)
	if b := retrofit.BypassOf(d); b != nil {
		offer(job.TemporaryDate, "Undo the bypass: "+b.Tag, temporaryDays, false, "A roadside bypass outlives its reason.")
	} else if d.Selector() == coupling.JoinedForGood {
		offer(job.TemporaryDate, "Put the selector back to “with ignition”", temporaryDays, false, "Left joined, both batteries go flat.")
	}
	offer(job.RevisitDate, "Tighten every bolt again and measure each drop against the record", settledDays, false,
		"Lugs settle in the first weeks.")
	offer(job.OtherDate, "Yearly look: batteries at rest, drops, fuses, corrosion", yearDays, true,
		"A baseline is of use only where somebody compares against it.")
	return out
}
