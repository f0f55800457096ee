package server

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humago"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/internal/answers"
	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
	"epitrope/internal/tell"
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

type body[T any] struct{ Body T }

// api is the handlers with what they need.
type api struct {
	base     *store.Store
	door     *door.Door
	guard    *guard
	network  *Network
	post     tell.Post
	settings *allSettled
	designs  *decided
	readers  turns // of evidence
	running  turns // of what is run through time
}

// store is the database as who asks: of their workshop, and under their name.
func (a *api) store(ctx context.Context) *store.Store { return a.base.As(person(ctx)) }

// newAPI builds the API on a mux. The store may be nil for its document alone.
func newAPI(s *store.Store, d *door.Door, way Way, mux *http.ServeMux) huma.API {
	useProblems()
	huma.DefaultArrayNullable = false
	config := huma.DefaultConfig("Epitrope", "1")
	config.CreateHooks = nil
	config.OpenAPIPath, config.DocsPath, config.SchemasPath = "/api/openapi", "", ""
	settings := newAllSettled(s)
	config.Transformers = append(config.Transformers, settings.inUnits)
	h := humago.New(mux, config)
	a := &api{s, d, newGuard(d, h), way.Network, way.Post, settings, newDecided(parts.Stock(), settings), newTurns(readAtOnce),
		newRunning()}
	h.UseMiddleware(a.guard.check)

	post := func(op huma.Operation) huma.Operation { op.MaxBodyBytes = maxBody; return op }
	on(h, people.Work, huma.Operation{OperationID: "vocabulary", Method: http.MethodGet, Path: "/api/vocabulary",
		Summary: "Fields of a job and what they take"}, a.vocabulary)
	on(h, people.Work, post(huma.Operation{OperationID: "plan", Method: http.MethodPost, Path: "/api/plan",
		Summary: "Plan a document without storing it", Errors: []int{413, 422}}), a.plan)
	on(h, people.Look, huma.Operation{OperationID: "listJobs", Method: http.MethodGet, Path: "/api/jobs",
		Summary: "Jobs, last saved first, a page at a time", Errors: []int{422, 503}}, a.list)
	on(h, people.Design, post(huma.Operation{OperationID: "createJob", Method: http.MethodPost, Path: "/api/jobs",
		Summary:       "Store a new job",
		DefaultStatus: http.StatusCreated, Errors: []int{413, 422, 503}}), a.create)
	on(h, people.Look, huma.Operation{OperationID: "openJob", Method: http.MethodGet, Path: "/api/jobs/{id}", Summary: "Open a job",
		Errors: []int{404, 410, 503}}, a.open)
	on(h, people.Survey, post(huma.Operation{OperationID: "saveDraft", Method: http.MethodPut, Path: "/api/jobs/{id}/draft",
		Summary: "Save a draft on top of a version", Errors: []int{404, 409, 410, 413, 422, 503}}), a.save)
	on(h, people.Design, huma.Operation{OperationID: "deleteJob", Method: http.MethodDelete, Path: "/api/jobs/{id}",
		Summary: "Delete a job; it can be put back", Errors: []int{404, 503}}, a.remove)
	on(h, people.Design, huma.Operation{OperationID: "restoreJob", Method: http.MethodPost, Path: "/api/jobs/{id}/restore",
		Summary: "Put a deleted job back", Errors: []int{404, 503}}, a.restore)
	on(h, people.Look, huma.Operation{OperationID: "listRevisions", Method: http.MethodGet, Path: "/api/jobs/{id}/revisions",
		Summary: "What was issued, newest first", Errors: []int{404, 410, 503}}, a.revisions)
	on(h, people.Issue, post(huma.Operation{OperationID: "issueRevision", Method: http.MethodPost, Path: "/api/jobs/{id}/revisions",
		Summary: "Issue the draft as a revision", DefaultStatus: http.StatusCreated, Errors: []int{404, 409, 410, 503}}), a.issue)
	on(h, people.Look, huma.Operation{OperationID: "openRevision", Method: http.MethodGet, Path: "/api/jobs/{id}/revisions/{number}",
		Summary: "A revision as it was issued", Errors: []int{404, 503}}, a.revision)
	a.registerDays(h)
	a.registerEvidence(h)
	a.registerSettings(h)
	a.registerJudge(h)
	a.registerVehicles(h)
	a.registerParts(h)
	a.registerCalendar(h)
	a.registerMake(h)
	a.registerTicks(h)
	a.registerProof(h)
	a.registerTrace(h)
	a.registerBoard(h)
	a.registerLog(h)
	a.registerBetween(h)
	a.registerPhotos(h)
	a.registerSigning(h)
	a.registerMeters(h)
	a.registerTrips(h)
	a.registerWeek(h)
	a.registerDoor(h)
	a.registerAccount(h)
	a.registerPeople(h)
	a.registerTrail(h)
	a.registerComments(h)
	a.registerCountersigns(h)
	a.registerOwners(h)
	a.registerNetwork(h)
	a.registerEvents(h)
	a.registerAddressees(h)
	return h
}

func (a *api) vocabulary(context.Context, *struct{}) (*body[answers.Vocabulary], error) {
	return &body[answers.Vocabulary]{answers.Words()}, nil
}

func (a *api) plan(ctx context.Context, in *struct{ Body Input }) (*body[answers.Planned], error) {
	return &body[answers.Planned]{answers.Plan(in.Body, func(doc job.Document) *design.Design { return a.designs.of(ctx, doc) })}, nil
}
