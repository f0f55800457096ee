package server

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/internal/store"
)

// Model is an entry of the vehicle book: everything that was found on a model, the newest
// answer to each question.
type Model struct {
	Model    string       `json:"model"`
	Finds    int          `json:"finds" doc:"How many jobs put something in"`
	LastAt   time.Time    `json:"lastAt"`
	Document job.Document `json:"document"`
}

func (a *api) registerVehicles(h huma.API) {
	huma.Register(h, huma.Operation{OperationID: "listModels", Method: http.MethodGet, Path: "/api/vehicles", Summary: "The vehicle book, by model; with a model, that one alone", Errors: []int{503}}, a.models)
	huma.Register(h, huma.Operation{OperationID: "addFinds", Method: http.MethodPost, Path: "/api/jobs/{id}/finds", Summary: "Put what a job's draft found on its model into the vehicle book", DefaultStatus: http.StatusCreated, Errors: []int{404, 410, 422, 503}}, a.addFinds)
}

func (a *api) models(ctx context.Context, in *struct {
	Model string `query:"model" maxLength:"120" doc:"As the workshop calls it; case and spaces do not matter"`
}) (*body[[]Model], error) {
	finds, err := a.store.Finds(ctx, in.Model)
	if err != nil {
		return nil, answer(err)
	}
	return &body[[]Model]{entries(finds)}, nil
}

// entries gathers finds, which come by model and oldest first, into the book's entries.
func entries(finds []store.Find) []Model {
	list := []Model{}
	last := ""
	for _, f := range finds {
		if len(list) == 0 || f.ModelKey != last {
			list = append(list, Model{Document: job.New()})
			last = f.ModelKey
		}
		m := &list[len(list)-1]
		m.Model, m.Finds, m.LastAt, m.Document = f.Model, m.Finds+1, f.FoundAt.UTC(), m.Document.Over(f.Doc())
	}
	return list
}

func (a *api) addFinds(ctx context.Context, in *JobPath) (*body[Model], error) {
	j, err := a.store.Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	doc := j.Doc()
	if doc.Vehicle.Model == "" {
		return nil, inputProblem(job.Problems{{Field: "vehicle.model", Wrong: "is not answered", Allowed: "what the workshop calls the model"}})
	}
	if _, err := a.store.AddFind(ctx, j.ID, doc.Vehicle.Model, doc.ForBook()); err != nil {
		return nil, answer(err)
	}
	finds, err := a.store.Finds(ctx, doc.Vehicle.Model)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Model]{entries(finds)[0]}, nil
}
