package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"time"

	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/plan"
	"epitrope/internal/export"
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
	ID string `path:"id" format:"uuid"`
}

func draft(j store.Job) Draft {
	return Draft{Version: j.Version, SavedAt: j.SavedAt.UTC(), Document: j.Doc()}
}

// checked reads a document that is to be stored: all of it must be usable.
func checked(in Input) (job.Document, error) {
	doc, problems := job.Decode(in)
	if len(problems) > 0 {
		return doc, inputProblem(problems)
	}
	return doc, nil
}

func (a *api) list(ctx context.Context, _ *struct{}) (*body[[]Listed], error) {
	jobs, err := a.store.List(ctx)
	if err != nil {
		return nil, answer(err)
	}
	list := make([]Listed, len(jobs))
	for i, j := range jobs {
		list[i] = a.listed(j)
	}
	return &body[[]Listed]{list}, nil
}

func (a *api) listed(j store.Job) Listed {
	doc := j.Doc()
	p := plan.Of(a.designs.of(doc))
	l := Listed{ID: j.ID, Number: j.Number, Title: doc.Title, Customer: doc.Customer, Vehicle: p.Vehicle.Label,
		Summary: p.Summary, Severity: "none", Settled: p.Title[len(p.Title)-1].Text, SavedAt: j.SavedAt.UTC()}
	if len(p.Notes) > 0 {
		l.Weakest, l.Severity = p.Notes[0].Text, p.Notes[0].Severity
	}
	return l
}

func (a *api) create(ctx context.Context, in *struct{ Body Input }) (*body[Opened], error) {
	doc, err := checked(in.Body)
	if err != nil {
		return nil, err
	}
	j, err := a.store.Create(ctx, doc)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Opened]{Opened{j.ID, j.Number, 0, draft(j)}}, nil
}

func (a *api) open(ctx context.Context, in *JobPath) (*body[Opened], error) {
	j, err := a.store.Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	issued, err := a.store.Revisions(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Opened]{Opened{j.ID, j.Number, len(issued), draft(j)}}, nil
}

type saveInput struct {
	JobPath
	Body struct {
		Base     int   `json:"base" minimum:"1" doc:"The version that was edited"`
		Document Input `json:"document"`
	}
}

func (a *api) save(ctx context.Context, in *saveInput) (*body[Draft], error) {
	doc, err := checked(in.Body.Document)
	if err != nil {
		return nil, err
	}
	j, err := a.store.Save(ctx, in.ID, in.Body.Base, doc)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Draft]{draft(j)}, nil
}

func (a *api) remove(ctx context.Context, in *JobPath) (*struct{}, error) {
	return nil, answer(a.store.Delete(ctx, in.ID))
}

func (a *api) restore(ctx context.Context, in *JobPath) (*struct{}, error) {
	return nil, answer(a.store.Restore(ctx, in.ID))
}

func (a *api) revisions(ctx context.Context, in *JobPath) (*body[[]Issued], error) {
	if _, err := a.store.Get(ctx, in.ID); err != nil {
		return nil, answer(err)
	}
	stored, err := a.store.Revisions(ctx, in.ID)
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
		Base int `json:"base" minimum:"1" doc:"The version to issue"`
	}
}

func (a *api) issue(ctx context.Context, in *issueInput) (*body[Issued], error) {
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	r, err := a.store.Issue(ctx, in.ID, in.Body.Base, func(j store.Job, r *store.Revision) error {
		pack := a.packOf(j, own, fmt.Sprintf("revision %d", r.Number), r.IssuedAt)
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
	Number int `path:"number" minimum:"1"`
}

func (a *api) revision(ctx context.Context, in *revisionPath) (*body[IssuedWhole], error) {
	r, err := a.store.Revision(ctx, in.ID, in.Number)
	if err != nil {
		return nil, answer(err)
	}
	issued, err := plan.Read(r.Plan)
	if err != nil {
		return nil, err
	}
	return &body[IssuedWhole]{IssuedWhole{Number: r.Number, IssuedAt: r.IssuedAt.UTC(), Document: r.Doc(), Plan: issued}}, nil
}
