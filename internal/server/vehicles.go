package server

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/internal/people"
	"epitrope/internal/store"
	"epitrope/internal/workshop"
)

// Model is an entry of the vehicle book: everything that was found on a model, the newest
// answer to each question.
type Model struct {
	Model    string       `json:"model"`
	Finds    int          `json:"finds" doc:"How many jobs put something in"`
	LastAt   time.Time    `json:"lastAt"`
	Document job.Document `json:"document"`
	Answers  []job.Answer `json:"answers"`
}

// VehiclesFile is a file of the vehicle book as sent.
type VehiclesFile struct {
	CSV string `json:"csv" doc:"Comma-separated, as exported"`
}

func (a *api) registerVehicles(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "listModels", Method: http.MethodGet, Path: "/api/vehicles",
		Summary: "The vehicle book, by model; with a model, that one alone", Errors: []int{503}}, a.models)
	on(h, people.Survey, huma.Operation{OperationID: "addFinds", Method: http.MethodPost, Path: "/api/jobs/{id}/finds",
		Summary: "Put what a job's draft found on its model into the vehicle book", DefaultStatus: http.StatusCreated,
		Errors: []int{404, 410, 422, 503}}, a.addFinds)
	on(h, people.Look, huma.Operation{OperationID: "exportVehicles", Method: http.MethodGet, Path: "/api/vehicles.csv",
		Summary: "The vehicle book as a comma-separated file", Errors: []int{503}}, a.exportVehicles)
	on(h, people.Books, huma.Operation{OperationID: "importVehicles", Method: http.MethodPost, Path: "/api/vehicles",
		MaxBodyBytes: maxParts,
		Summary:      "Put a file of answers into the vehicle book; lines that cannot be used are named and given back", Errors: []int{413, 422,
			503}},
		a.importVehicles)
	on(h, people.Books, huma.Operation{OperationID: "withdrawAnswer", Method: http.MethodDelete, Path: "/api/vehicles",
		Summary: "Take an answer, or a model, out of the vehicle book; jobs that took it over keep it", Errors: []int{404, 503}},
		a.withdrawAnswer)
}

func (a *api) models(ctx context.Context, in *struct {
	Model string `query:"model" maxLength:"120" doc:"As the workshop calls it; case and spaces do not matter"`
}) (*body[[]Model], error) {
	finds, err := a.store(ctx).Finds(ctx, in.Model)
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
		m.Model, m.Finds, m.LastAt, m.Document = f.Model, m.Finds+1, f.FoundAt.UTC(), f.Over(m.Document)
	}
	list = slices.DeleteFunc(list, func(m Model) bool { return len(m.Document.BookAnswers()) == 0 })
	for i := range list {
		list[i].Answers = list[i].Document.BookAnswers()
	}
	return list
}

// known is what is known of a model; case and spaces of its name do not matter.
func known(finds []store.Find, model string) job.Document {
	for _, m := range entries(finds) {
		if sameModel(m.Model, model) {
			return m.Document
		}
	}
	return job.New()
}

func sameModel(a, b string) bool {
	return strings.EqualFold(strings.Join(strings.Fields(a), " "), strings.Join(strings.Fields(b), " "))
}

// count counts the answers that a document has anew, and otherwise.
func (r *BookRead) count(known, found job.Document) {
	was := map[string]string{}
	for _, a := range known.BookAnswers() {
		was[a.Path] = a.Text
	}
	for _, a := range found.BookAnswers() {
		before, there := was[a.Path]
		switch {
		case !there:
			r.New++
		case before != a.Text:
			r.Changed++
		}
	}
}

// model is the book's entry of a model.
func (a *api) model(ctx context.Context, name string) (*body[Model], error) {
	finds, err := a.store(ctx).Finds(ctx, name)
	if err != nil {
		return nil, answer(err)
	}
	list := entries(finds)
	if len(list) == 0 {
		return &body[Model]{Model{Model: name, Document: job.New(), Answers: []job.Answer{}}}, nil
	}
	return &body[Model]{list[0]}, nil
}

func (a *api) exportVehicles(ctx context.Context, _ *struct{}) (*fileAnswer, error) {
	finds, err := a.store(ctx).Finds(ctx, "")
	if err != nil {
		return nil, answer(err)
	}
	var models []workshop.Model
	for _, m := range entries(finds) {
		models = append(models, workshop.Model{Name: m.Model, Document: m.Document})
	}
	return &fileAnswer{"text/csv; charset=utf-8; header=present", `attachment; filename="vehicles.csv"`, workshop.WriteVehicles(models)},
		nil
}

func (a *api) importVehicles(ctx context.Context, in *bookInput[VehiclesFile]) (*body[BookRead], error) {
	file, err := workshop.ReadVehicles([]byte(in.Body.CSV))
	if err != nil {
		return nil, inputProblem(job.Problems{{Field: "file", Value: short(in.Body.CSV), Wrong: err.Error(),
			Allowed: "a table of answers by model, as the book is exported"}})
	}
	names, docs := make([]string, len(file.Models)), make([]job.Document, len(file.Models))
	for i, m := range file.Models {
		names[i], docs[i] = m.Name, m.Document
	}
	finds, err := a.store(ctx).Finds(ctx, "")
	if err != nil {
		return nil, answer(err)
	}
	read := BookRead{Kept: file.Answers, Problems: file.Problems, Rest: file.Rest}
	for _, m := range file.Models {
		read.count(known(finds, m.Name), m.Document)
	}
	if !in.Preview {
		err = answer(a.store(ctx).PutFinds(ctx, names, docs))
	}
	return bookRead(read), err
}

func (a *api) withdrawAnswer(ctx context.Context, in *struct {
	Model string `query:"model" required:"true" minLength:"1" maxLength:"120"`
	Path  string `query:"path" required:"true" minLength:"1" maxLength:"120" doc:"The answer; * takes the model out"`
}) (*body[Model], error) {
	if err := a.store(ctx).WithdrawAnswer(ctx, in.Model, in.Path); err != nil {
		return nil, answer(err)
	}
	return a.model(ctx, in.Model)
}

func (a *api) addFinds(ctx context.Context, in *JobPath) (*body[Model], error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	doc := j.Doc()
	if doc.Vehicle.Model == "" {
		return nil, inputProblem(job.Problems{{Field: "vehicle.model", Wrong: "is not answered",
			Allowed: "what the workshop calls the model"}})
	}
	if err := a.store(ctx).AddFind(ctx, j.ID, doc.Vehicle.Model, doc.ForBook()); err != nil {
		return nil, answer(err)
	}
	return a.model(ctx, doc.Vehicle.Model)
}
