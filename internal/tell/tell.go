// Package tell tells those whom a workshop listed what concerns it: by mail and webhook, once a day or once an hour, and nothing where
// there is nothing.
package tell

import (
	"context"
	"fmt"
	"log/slog"
	"slices"
	"strings"
	"time"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/internal/answers"
	"epitrope/internal/store"
)

// Teller tells, for all workshops in turn.
type Teller struct {
	Store  *store.Store
	Post   Post
	At     string // the server's address, as links have it
	Decide func(workshop string, doc job.Document) *design.Design
	Now    func() time.Time // time.Now, but in tests
}

// lookEvery is how often it is looked whether somebody is to be told.
const lookEvery = 20 * time.Second

// How long to wait before a delivery that failed is tried again: twice as long each time.
const (
	firstAgain = time.Minute
	lastAgain  = 6 * time.Hour
)

// dueAhead is how far ahead what is due is told, in days.
const dueAhead = 7

// Run tells until ctx ends.
func (t Teller) Run(ctx context.Context) {
	look := time.NewTicker(lookEvery)
	defer look.Stop()
	for {
		for t.One(ctx) {
		}
		select {
		case <-ctx.Done():
			return
		case <-look.C:
		}
	}
}

// One tells one addressee whose time it is; it says whether there was one.
func (t Teller) One(ctx context.Context) bool {
	a, ok, err := t.Store.ClaimAddressee(ctx)
	if err != nil || !ok {
		if err != nil && ctx.Err() == nil {
			slog.Warn("nobody could be told", "error", err)
		}
		return false
	}
	if err := t.tell(ctx, a); err != nil {
		again := firstAgain << min(a.Tries, 12)
		slog.Warn("an address could not be told", "workshop", a.WorkshopID, "address", a.ID, "error", err)
		err = t.Store.NotTold(context.WithoutCancel(ctx), a, err.Error(), t.Now().Add(min(again, lastAgain)))
		return err == nil
	}
	return true
}

func (t Teller) tell(ctx context.Context, a store.Addressee) error {
	until := t.Now().Truncate(time.Microsecond)
	m, err := t.message(ctx, a, until)
	if err != nil {
		return err
	}
	next := Next(a, until)
	if len(m.Items) == 0 {
		return t.Store.Told(ctx, a, until, next, false)
	}
	if err := t.Send(ctx, a, m); err != nil {
		return err
	}
	return t.Store.Told(context.WithoutCancel(ctx), a, until, next, true)
}

// Send sends a message to an addressee.
func (t Teller) Send(ctx context.Context, a store.Addressee, m Message) error {
	ctx, cancel := context.WithTimeout(ctx, sendFor)
	defer cancel()
	if a.Kind == store.Webhook {
		return t.Post.byWebhook(ctx, a.Address, a.Secret, m)
	}
	return t.Post.byMail(ctx, a.Address, m, zoneOf(a))
}

func zoneOf(a store.Addressee) *time.Location {
	if zone, err := time.LoadLocation(a.Zone); err == nil {
		return zone
	}
	return time.UTC
}

// Next is when an addressee is told after a moment: at the next full hour, or at its hour of the next day there.
func Next(a store.Addressee, after time.Time) time.Time {
	there := after.In(zoneOf(a))
	if a.Hourly {
		return there.Truncate(time.Hour).Add(time.Hour)
	}
	at := time.Date(there.Year(), there.Month(), there.Day(), a.Hour, 0, 0, 0, there.Location())
	if !at.After(there) {
		at = time.Date(there.Year(), there.Month(), there.Day()+1, a.Hour, 0, 0, 0, there.Location())
	}
	return at
}

// message is what an addressee is to be told.
func (t Teller) message(ctx context.Context, a store.Addressee, until time.Time) (Message, error) {
	s := t.Store.Of(a.WorkshopID)
	name, err := s.Name(ctx)
	if err != nil {
		return Message{}, err
	}
	m := Message{ID: fmt.Sprintf("%s.%d", a.ID, a.ToldUntil.UnixMicro()), Workshop: name, Until: until.UTC(), Items: []Item{}}
	wants := strings.Split(a.Wants, ",")
	happened, err := s.Happenings(ctx, a.ToldUntil, until, a.PersonID)
	if err != nil {
		return m, err
	}
	if slices.Contains(wants, "failed") {
		out, err := t.out(ctx, s, a.ToldUntil, until)
		if err != nil {
			return m, err
		}
		happened = append(happened, out...)
	}
	if slices.Contains(wants, "due") {
		due, err := t.due(ctx, s, a, until)
		if err != nil {
			return m, err
		}
		happened = append(happened, due...)
	}
	for _, h := range happened {
		named := h.Kind == "asked" && slices.Contains(wants, "mentioned") && slices.ContainsFunc(happened, func(o store.Happened) bool {
			return o.Kind == "mentioned" && o.JobID == h.JobID && o.At.Equal(h.At) && o.Said == h.Said
		})
		if slices.Contains(wants, h.Kind) && !named { // a question that names them is told once
			m.Items = append(m.Items, item(t.At, h))
		}
	}
	return m, nil
}

// due is what is due within days or overdue: once a day.
func (t Teller) due(ctx context.Context, s *store.Store, a store.Addressee, until time.Time) (out []store.Happened, err error) {
	zone := zoneOf(a)
	today, last := until.In(zone).Format(time.DateOnly), a.ToldUntil.In(zone).Format(time.DateOnly)
	if a.Hourly && today == last {
		return nil, nil
	}
	list, _, err := s.Due(ctx, until.In(zone).AddDate(0, 0, dueAhead).Format(time.DateOnly), store.DuePage{})
	for _, d := range list {
		text := d.What + ", due " + d.Due
		if d.Due < today {
			text = d.What + ", overdue since " + d.Due
		}
		out = append(out, store.Happened{Kind: "due", JobID: d.JobID, Number: d.Number, Title: d.Title, Said: text, At: until})
	}
	return out, err
}

// out are the readings of a while that are out, and still stand.
func (t Teller) out(ctx context.Context, s *store.Store, after, until time.Time) (out []store.Happened, err error) {
	ids, err := s.ReadSince(ctx, after, until)
	if err != nil {
		return nil, err
	}
	for _, id := range ids {
		j, err := s.Get(ctx, id)
		if err != nil {
			return nil, err
		}
		entries, err := s.Proof(ctx, id)
		if err != nil {
			return nil, err
		}
		var read []prove.Entry
		last := map[string]store.ProofEntry{}
		for _, e := range entries {
			if e.Kind == signoff.ReadingEntry {
				read, last[e.Subject] = append(read, prove.Entry{Reading: e.Subject, Text: e.Entry}), e
			}
		}
		p := prove.Of(t.Decide(j.WorkshopID, answers.AsBuilt(j.Doc())))
		taken, _ := p.Read(read)
		for _, v := range p.Judge(taken).Verdicts {
			e := last[v.ID]
			if (v.Level != prove.Out && v.Level != prove.Impossible) || !e.ReceivedAt.After(after) || e.ReceivedAt.After(until) {
				continue
			}
			out = append(out, store.Happened{Kind: "failed", JobID: id, Number: j.Number, Title: j.Doc().Title, By: e.ByWhom, At: e.ReceivedAt,
				Said: fmt.Sprintf("%s: %s, expected %s", nameOf(p, v.ID), v.Read, v.Expect)})
		}
	}
	return out, nil
}

// nameOf is what a reading is called.
func nameOf(p *prove.Proof, id string) string {
	if r, ok := p.Reading(id); ok {
		return r.What
	}
	return id
}
