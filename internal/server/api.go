package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humago"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/export"
	"epitrope/internal/store"
)

// maxBody is the largest request that is read: a document with its envelope.
const maxBody = job.MaxBytes + 4096

// Input is a job document as sent: quantities may be text with units. It is read
// by job.Decode, which names each field that cannot be used.
type Input json.RawMessage

// UnmarshalJSON keeps the bytes as they came.
func (i *Input) UnmarshalJSON(b []byte) error {
	*i = append((*i)[:0], b...)
	return nil
}

// Schema describes the input to the API's document.
func (Input) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{Type: huma.TypeObject, AdditionalProperties: true,
		Description: "A job document; its schema is at /api/schema/job. Quantities may be text with a unit, such as \"12 ft 6\"."}
}

// Draft is a job's editable document.
type Draft struct {
	Version  int          `json:"version"`
	SavedAt  time.Time    `json:"savedAt"`
	Document job.Document `json:"document"`
}

// Planned is a document as read, what could not be used of it, and its plan.
type Planned struct {
	Document job.Document  `json:"document" doc:"As read: only what can be used"`
	Problems []job.Problem `json:"problems"`
	Plan     plan.Plan     `json:"plan"`
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

// PlaceChoice is a place that a kind of vehicle has.
type PlaceChoice struct {
	Kind  string `json:"kind"`
	Value string `json:"value"`
	Label string `json:"label"`
}

// Vocabulary is what a screen needs to ask the questions.
type Vocabulary struct {
	Fields []job.Field   `json:"fields"`
	Places []PlaceChoice `json:"places"`
}

type body[T any] struct{ Body T }

// JobPath names a job in an address.
type JobPath struct {
	ID string `path:"id" format:"uuid"`
}

// api is the handlers with what they need.
type api struct {
	store   *store.Store
	designs *decided
}

// newAPI builds the API on a mux. The store may be nil for its document alone.
func newAPI(s *store.Store, mux *http.ServeMux) huma.API {
	useProblems()
	huma.DefaultArrayNullable = false
	config := huma.DefaultConfig("Epitrope", "1")
	config.CreateHooks = nil
	config.OpenAPIPath, config.DocsPath, config.SchemasPath = "/api/openapi", "", ""
	h := humago.New(mux, config)
	a := &api{s, newDecided(parts.Stock())}

	post := func(op huma.Operation) huma.Operation { op.MaxBodyBytes = maxBody; return op }
	huma.Register(h, huma.Operation{OperationID: "vocabulary", Method: http.MethodGet, Path: "/api/vocabulary",
		Summary: "Fields of a job and what they take"}, a.vocabulary)
	huma.Register(h, post(huma.Operation{OperationID: "plan", Method: http.MethodPost, Path: "/api/plan",
		Summary: "Plan a document without storing it", Errors: []int{413, 422}}), a.plan)
	huma.Register(h, huma.Operation{OperationID: "listJobs", Method: http.MethodGet, Path: "/api/jobs", Summary: "Jobs, last saved first",
		Errors: []int{503}}, a.list)
	huma.Register(h, post(huma.Operation{OperationID: "createJob", Method: http.MethodPost, Path: "/api/jobs", Summary: "Store a new job",
		DefaultStatus: http.StatusCreated, Errors: []int{413, 422, 503}}), a.create)
	huma.Register(h, huma.Operation{OperationID: "openJob", Method: http.MethodGet, Path: "/api/jobs/{id}", Summary: "Open a job",
		Errors: []int{404, 410, 503}}, a.open)
	huma.Register(h, post(huma.Operation{OperationID: "saveDraft", Method: http.MethodPut, Path: "/api/jobs/{id}/draft",
		Summary: "Save a draft on top of a version", Errors: []int{404, 409, 410, 413, 422, 503}}), a.save)
	huma.Register(h, huma.Operation{OperationID: "deleteJob", Method: http.MethodDelete, Path: "/api/jobs/{id}",
		Summary: "Delete a job; it can be put back", Errors: []int{404, 503}}, a.remove)
	huma.Register(h, huma.Operation{OperationID: "restoreJob", Method: http.MethodPost, Path: "/api/jobs/{id}/restore",
		Summary: "Put a deleted job back", Errors: []int{404, 503}}, a.restore)
	huma.Register(h, huma.Operation{OperationID: "listRevisions", Method: http.MethodGet, Path: "/api/jobs/{id}/revisions",
		Summary: "What was issued, newest first", Errors: []int{404, 410, 503}}, a.revisions)
	huma.Register(h, post(huma.Operation{OperationID: "issueRevision", Method: http.MethodPost, Path: "/api/jobs/{id}/revisions",
		Summary: "Issue the draft as a revision", DefaultStatus: http.StatusCreated, Errors: []int{404, 409, 410, 503}}), a.issue)
	huma.Register(h, huma.Operation{OperationID: "openRevision", Method: http.MethodGet, Path: "/api/jobs/{id}/revisions/{number}",
		Summary: "A revision as it was issued", Errors: []int{404, 503}}, a.revision)
	a.registerDays(h)
	a.registerJudge(h)
	a.registerVehicles(h)
	a.registerParts(h)
	a.registerCalendar(h)
	a.registerMake(h)
	a.registerWeek(h)
	return h
}

func draft(j store.Job) Draft {
	return Draft{Version: j.Version, SavedAt: j.SavedAt.UTC(), Document: j.Doc()}
}

func (a *api) vocabulary(context.Context, *struct{}) (*body[Vocabulary], error) {
	v := Vocabulary{Places: []PlaceChoice{}}
	for _, f := range job.Fields {
		if f.Choices == nil {
			f.Choices = []job.Option{}
		}
		v.Fields = append(v.Fields, f)
	}
	for _, b := range job.Bodies {
		for _, p := range b.Places {
			v.Places = append(v.Places, PlaceChoice{b.Kind, p.ID, p.Label})
		}
	}
	return &body[Vocabulary]{v}, nil
}

func (a *api) plan(_ context.Context, in *struct{ Body Input }) (*body[Planned], error) {
	doc, problems := job.Decode(in.Body)
	if problems == nil {
		problems = job.Problems{}
	}
	return &body[Planned]{Planned{doc, problems, plan.Of(a.designs.of(doc))}}, nil
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
