// Package listing makes what lists show of a job, to be stored with it.
package listing

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"log/slog"
	"os"
	"runtime/debug"
	"slices"
	"strings"
	"sync"
	"time"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/internal/export"
	"epitrope/internal/pack"
	"epitrope/internal/store"
)

// Rules names the rules that a listing was made by: those of this build.
var Rules = sync.OnceValue(func() string {
	name, err := os.Executable()
	if err != nil {
		return time.Now().String() // made anew each time that it starts
	}
	file, err := os.Open(name)
	if err != nil {
		return time.Now().String()
	}
	defer file.Close()
	sum := sha256.New()
	if _, err := io.Copy(sum, file); err != nil {
		return time.Now().String()
	}
	return hex.EncodeToString(sum.Sum(nil)[:8])
})

// Of makes what lists show of a job, which decide decides; own is what the workshop has of its own, for jobs
// that stand in a bay. A job that cannot be decided is listed as that.
func Of(doc job.Document, decide func() *design.Design, own func() pack.Workshop) (l store.Listing) {
	l = store.Listing{Title: doc.Title, Customer: doc.Customer, Words: doc.Marks() + " " + doc.Plate + " " + doc.Vehicle.Model,
		ListedBy: Rules(), Severity: "none",
		Dates: dates(doc, nil)}
	defer func() {
		if p := recover(); p != nil {
			slog.Error("a job could not be decided", "job", doc.Digest(), "panic", fmt.Sprint(p), "stack", string(debug.Stack()))
			l.Summary = "could not be decided; what was answered is kept"
		}
	}()
	d := decide()
	p := plan.Of(d)
	l.Words += " " + partWords(d)
	l.Vehicle, l.Summary, l.Settled = p.Vehicle.Label, p.Summary, p.Title[len(p.Title)-1].Text
	if len(p.Notes) > 0 {
		l.Weakest, l.Severity = p.Notes[0].Text, p.Notes[0].Severity
	}
	if standsInABay(doc) {
		pack := pack.New(d, own())
		l.Dates = dates(doc, &pack)
		for _, r := range pack.Proof.Readings {
			if r.Of == "" && !r.Extra {
				l.Readings++
			}
		}
	}
	return l
}

// partWords are what the parts of an installation are sold by, to be found by.
func partWords(d *design.Design) string {
	words := []string{}
	for _, c := range d.System.Components {
		if text := strings.TrimSpace(string(c.Kind) + " " + c.Rating); c.Rating != "" && !slices.Contains(words, text) {
			words = append(words, text)
		}
	}
	return strings.Join(append(words, d.Charger.Label), " ")
}

func isFit(d job.Due) bool { return d.Kind != nil && *d.Kind == job.FitDate }

func standsInABay(doc job.Document) bool {
	for _, row := range doc.Dates {
		if isFit(row) && row.Open() {
			return true
		}
	}
	return false
}

// dates are the rows of a job's calendar that have a date; those in a bay last as long as the steps of the pack.
func dates(doc job.Document, pack *pack.Pack) []store.Date {
	list := []store.Date{}
	for _, row := range job.Rows(doc.Dates) {
		due := row.Of
		if due.Due == nil {
			continue
		}
		d := store.Date{Key: row.Key, What: due.What, Bay: strings.TrimSpace(due.Bay), Due: *due.Due, Until: *due.Due, Open: due.Open()}
		if d.What == "" {
			d.What = export.KindOf(due)
		}
		if due.Kind != nil {
			d.Kind = *due.Kind
		}
		if due.EveryDays != nil {
			d.EveryDays = int(*due.EveryDays)
		}
		if isFit(due) && pack != nil {
			begins, _ := time.Parse(time.DateOnly, d.Due) // documents hold only dates that read
			d.Until = begins.AddDate(0, 0, max(0, procedure.Days(pack.Schedule)-1)).Format(time.DateOnly)
			d.Hours, d.Waits = pack.Hours, len(pack.Waits)
		}
		list = append(list, d)
	}
	return list
}
