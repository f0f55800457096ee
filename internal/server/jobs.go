package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/plan"
	"epitrope/internal/export"
	"epitrope/internal/listing"
	"epitrope/internal/pack"
	"epitrope/internal/store"
)

// Draft is a job's editable document.
type Draft struct {
	Version  int          `json:"version"`
	SavedAt  time.Time    `json:"savedAt"`
	Document job.Document `json:"document"`
}

// Opened is a job with its draft.
type Opened struct {
	ID       string `json:"id"`
	Number   int64  `json:"number"`
	Revision int    `json:"revision" doc:"Number of the last issued revision; 0 where none was"`
	Draft    Draft  `json:"draft"`
}

// Listed is a job in the list, with what the list says of its plan.
type Listed struct {
	ID       string    `json:"id"`
	Number   int64     `json:"number"`
	Title    string    `json:"title"`
	Customer string    `json:"customer"`
	Vehicle  string    `json:"vehicle"`
	Summary  string    `json:"summary"`
	Weakest  string    `json:"weakest" doc:"The worst note of its plan; empty where there is none"`
	Severity string    `json:"severity" enum:"stop,caution,remark,none"`
	Settled  string    `json:"settled"`
	Stage    string    `json:"stage" enum:"complaint,signature,reading,part,bay,answer,done" doc:"What it waits for"`
	SavedAt  time.Time `json:"savedAt"`
}

// Issued is a revision in the record.
type Issued struct {
	Number   int          `json:"number"`
	IssuedAt time.Time    `json:"issuedAt"`
	Changes  []job.Change `json:"changes" doc:"From the revision before"`
	Pack     bool         `json:"pack" doc:"It was printed too: its pack is stored"`
}

// IssuedWhole is a revision as it was issued.
type IssuedWhole struct {
	Number   int          `json:"number"`
	IssuedAt time.Time    `json:"issuedAt"`
	Document job.Document `json:"document"`
	Plan     plan.Plan    `json:"plan"`
}

// JobPath names a job in an address.
type JobPath struct {
	ID string `path:"id" format:"uuid" pattern:"^[0-9a-fA-F-]{36}$" patternDescription:"a UUID"`
}

func draft(j store.Job) Draft {
	return Draft{Version: j.Version, SavedAt: j.SavedAt.UTC(), Document: j.Doc()}
}

// checked reads a document that is to be stored: all of it must be usable.
func checked(in Input) (job.Document, error) {
	doc, problems := job.Open(in)
	if len(problems) > 0 {
		return doc, inputProblem(problems)
	}
	return doc, nil
}

// ListedPage is a page of the list of jobs.
type ListedPage struct {
	Jobs []Listed `json:"jobs"`
	Next string   `json:"next" doc:"Where the next page begins; empty where there is none"`
}

func (a *api) list(ctx context.Context, in *struct {
	Search string `query:"search" maxLength:"200" doc:"Words of its title, customer, vehicle, plate, parts, number, serials, as far as they are typed"`
	Stage  string `query:"stage" enum:"complaint,signature,reading,part,bay,answer,done" doc:"Only those that wait for this; done: for nothing"`
	Weak   string `query:"weak" enum:"stop,caution,remark,none" doc:"Only those whose weakest point is so bad"`
	After  string `query:"after" maxLength:"80" doc:"Where the page begins: the next of the page before"`
}) (*body[ListedPage], error) {
	after, err := readPage(in.After)
	if err != nil {
		return nil, err
	}
	jobs, more, err := a.store(ctx).List(ctx, in.Search, store.Filter{Stage: in.Stage, Severity: in.Weak}, after)
	if err != nil {
		return nil, answer(err)
	}
	page := ListedPage{Jobs: make([]Listed, len(jobs))}
	for i, j := range jobs {
		page.Jobs[i] = Listed{ID: j.ID, Number: j.Number, Title: j.Title, Customer: j.Customer, Vehicle: j.Vehicle, Summary: j.Summary,
			Weakest: j.Weakest, Severity: j.Severity, Settled: j.Settled, Stage: j.Stage,
			SavedAt: j.SavedAt.UTC()}
	}
	if more {
		last := jobs[len(jobs)-1]
		page.Next = fmt.Sprintf("%s_%d", last.SavedAt.UTC().Format(time.RFC3339Nano), last.Number)
	}
	return &body[ListedPage]{page}, nil
}

// readPage reads where a page of the list begins.
func readPage(after string) (page store.Page, err error) {
	if after == "" {
		return page, nil
	}
	at, number, _ := strings.Cut(after, "_")
	if page.SavedAt, err = time.Parse(time.RFC3339Nano, at); err == nil {
		page.Number, err = strconv.ParseInt(number, 10, 64)
	}
	if err != nil || page.Number < 1 {
		return page, badPage(after)
	}
	return page, nil
}

func badPage(after string) *Refusal {
	return inputProblem(job.Problems{{Field: "after", Value: short(after), Wrong: "names no page", Allowed: "what a page says is next"}})
}

// drafted is a document as it is stored, with what lists show of it.
func (a *api) drafted(ctx context.Context, in Input, by string) (d store.Draft, err error) {
	doc, err := checked(in)
	if err != nil {
		return d, err
	}
	own := func() (own pack.Workshop) {
		own, err = a.workshop(ctx)
		return own
	}
	l := listing.Of(doc, func() *design.Design { return a.designs.of(ctx, doc) }, own)
	return store.Draft{Document: doc, By: by, Listing: l}, answer(err)
}

// MakingName is the name that a sender gives what it makes, so that what is sent again is made once.
type MakingName struct {
	As string `header:"Idempotency-Key" maxLength:"80" doc:"A name of the sender's own for what is made: sent again with it, it is made once"`
}

func (a *api) create(ctx context.Context, in *struct {
	MakingName
	Body Input
}) (*body[Opened], error) {
	d, err := a.drafted(ctx, in.Body, "")
	if err != nil {
		return nil, err
	}
	j, err := a.store(ctx).Create(ctx, in.As, d)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Opened]{Opened{j.ID, j.Number, 0, draft(j)}}, nil
}

func (a *api) open(ctx context.Context, in *JobPath) (*body[Opened], error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	issued, err := a.store(ctx).Revisions(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Opened]{Opened{j.ID, j.Number, len(issued), draft(j)}}, nil
}

func (a *api) remove(ctx context.Context, in *JobPath) (*struct{}, error) {
	return nil, answer(a.store(ctx).Delete(ctx, in.ID))
}

func (a *api) restore(ctx context.Context, in *JobPath) (*struct{}, error) {
	return nil, answer(a.store(ctx).Restore(ctx, in.ID))
}

func (a *api) revisions(ctx context.Context, in *JobPath) (*body[[]Issued], error) {
	if _, err := a.store(ctx).Get(ctx, in.ID); err != nil {
		return nil, answer(err)
	}
	stored, err := a.store(ctx).Revisions(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	list := make([]Issued, len(stored))
	for i, r := range stored {
		before := job.New()
		if i+1 < len(stored) {
			before = stored[i+1].Doc()
		}
		list[i] = Issued{r.Number, r.IssuedAt.UTC(), job.Diff(before, r.Doc()), r.Printed}
	}
	return &body[[]Issued]{list}, nil
}

type issueInput struct {
	JobPath
	Body struct {
		Base int `json:"base" minimum:"1" maximum:"2147483647" doc:"The version to issue"`
	}
}

func (a *api) issue(ctx context.Context, in *issueInput) (*body[Issued], error) {
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	r, err := a.store(ctx).Issue(ctx, in.ID, in.Body.Base, func(j store.Job, r *store.Revision) error {
		pack := a.packOf(ctx, j, own, fmt.Sprintf("revision %d", r.Number), r.IssuedAt)
		if stops := pack.Plan.Stops(); len(stops) > 0 {
			return stopped(stops)
		}
		if r.Plan, err = json.Marshal(pack.Plan); err != nil {
			panic(err) // a plan holds only finite numbers and text
		}
		r.Pack, err = export.PDF(pack)
		return err
	})
	if err != nil {
		return nil, answer(err)
	}
	return &body[Issued]{Issued{r.Number, r.IssuedAt.UTC(), []job.Change{}, true}}, nil
}

// stopped refuses what is not to be built, naming why.
func stopped(stops []judge.Note) error {
	said := make([]string, len(stops))
	for i, n := range stops {
		said[i] = n.Text
	}
	return problem(http.StatusUnprocessableEntity, "stop", "It is not to be built so: "+strings.Join(said, " "))
}

type revisionPath struct {
	JobPath
	Number int `path:"number" minimum:"1" maximum:"2147483647"`
}

func (a *api) revision(ctx context.Context, in *revisionPath) (*body[IssuedWhole], error) {
	r, err := a.store(ctx).Revision(ctx, in.ID, in.Number)
	if err != nil {
		return nil, answer(err)
	}
	issued, err := plan.Read(r.Plan)
	if err != nil {
		return nil, err
	}
	return &body[IssuedWhole]{IssuedWhole{Number: r.Number, IssuedAt: r.IssuedAt.UTC(), Document: r.Doc(), Plan: issued}}, nil
}
