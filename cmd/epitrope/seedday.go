package main

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/internal/answers"
	"epitrope/internal/export"
	"epitrope/internal/pack"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// demoDay is the day on which the demo's jobs were written: they are seeded as if that were today.
const demoDay = "2026-11-25"

// onDay moves the dates of a demo job with the day.
func onDay(doc job.Document, today time.Time) job.Document {
	written, _ := time.Parse(time.DateOnly, demoDay) // it is one
	days := int(today.Sub(written).Hours() / 24)
	for key, due := range doc.Dates {
		if at, err := time.Parse(time.DateOnly, job.Str(due.Due)); err == nil {
			moved := at.AddDate(0, 0, days).Format(time.DateOnly)
			due.Due = &moved
			doc.Dates[key] = due
		}
	}
	return doc
}

// demoJob is a demo job as it is seeded.
type demoJob struct {
	store.Job
	d   *design.Design
	own pack.Workshop
}

// id names something that is seeded, the same each time.
func (j demoJob) id(of string) string {
	return uuid.NewSHA1(uuid.NameSpaceOID, []byte(fmt.Sprint(j.Number, of))).String()
}

// demoLife is what has happened to the demo's jobs beside their drafts: one is issued, one is being built, one is complained of, one has
// years behind it.
var demoLife = map[string]func(context.Context, *store.Store, map[string]people.Person, demoJob) error{
	"demo/2-hives-trailer.json": issued,
	"demo/4-seed-survey.json":   begun,
	"demo/5-clay-studio.json":   complainedOf,
	"demo/7-print-wagon.json":   yearsBehind,
}

func issued(ctx context.Context, s *store.Store, staff map[string]people.Person, j demoJob) error {
	_, err := s.As(staff[demoDesigner]).Issue(ctx, j.ID, j.Version, func(_ store.Job, r *store.Revision) (err error) {
		p := pack.New(j.d, j.own)
		p.Number, p.Revision, p.Dated = j.Number, fmt.Sprintf("revision %d", r.Number), r.IssuedAt
		if r.Plan, err = json.Marshal(p.Plan); err != nil {
			return err
		}
		r.Pack, err = export.PDF(p)
		return err
	})
	return err
}

func begun(ctx context.Context, s *store.Store, staff map[string]people.Person, j demoJob) error {
	by, ticks := staff[demoInstaller], []store.Tick{}
	at := time.Now().Add(-3 * time.Hour)
	for _, step := range pack.New(j.d, j.own).Steps[:4] {
		at = at.Add(20 * time.Minute)
		ticks = append(ticks, store.Tick{ID: j.id("tick " + step.ID), Step: step.ID, Done: true, ByWhom: by.Name, PersonID: &by.ID,
			TickedAt: at})
	}
	return s.As(by).AddTicks(ctx, j.ID, ticks)
}

// said is an entry of a job's log.
func (j demoJob) said(by people.Person, kind, subject, entry string, at time.Time) store.ProofEntry {
	return store.ProofEntry{ID: j.id(kind + " " + subject + at.String()), Kind: kind, Subject: subject, Entry: entry, ByWhom: by.Name,
		PersonID: &by.ID, TakenAt: at}
}

func complainedOf(ctx context.Context, s *store.Store, staff map[string]people.Person, j demoJob) error {
	e := j.said(staff[demoForeman], "complaint", "no-charge", "The house battery is not charged while driving", time.Now().Add(-2*time.Hour))
	of := j.id("case")
	e.CaseID, e.AsFound = &of, j.d.Facts.Have.Coupling != nil
	return s.As(staff[demoForeman]).AddProof(ctx, j.ID, []store.ProofEntry{e})
}

func yearsBehind(ctx context.Context, s *store.Store, staff map[string]people.Person, j demoJob) error {
	by, now, of := staff[demoInstaller], time.Now(), j.id("case")
	inCase := func(kind, subject, entry string, at time.Time) store.ProofEntry {
		e := j.said(by, kind, subject, entry, at)
		e.CaseID = &of
		return e
	}
	last, before := now.AddDate(0, -7, 0), now.AddDate(-1, -2, 0)
	list := []store.ProofEntry{
		j.said(by, "changed", "aux", "like for like: it had a dead cell after a winter in the yard", before),
		inCase("complaint", "slow-charge", "It charges, but far less than it did", last),
		inCase("mended", "joint f1", "lost-start", last.Add(40*time.Minute)),
		inCase("closed", "case", "closed", last.Add(55*time.Minute)),
	}
	failed := []store.Failure{}
	for _, e := range list {
		f, ok := answers.Failure{}, false
		switch e.Kind {
		case "mended":
			f, ok = answers.FailureOf(j.d, e.Subject)
		case "changed":
			f, ok = answers.ChangeOf(j.d, e.Subject)
		}
		if ok {
			failed = append(failed, store.Failure{EntryID: e.ID, Fault: f.Fault, Says: f.Says, Part: f.Part, Model: f.Model,
				Vehicle: j.Vehicle, FailedAt: e.TakenAt})
		}
	}
	return s.As(by).AddProof(ctx, j.ID, list, failed...)
}
