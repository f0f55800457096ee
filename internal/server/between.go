package server

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/plan"
	"epitrope/internal/people"
)

// Between is what changed from one state of a job to another: what was answered, and what that came to.
type Between struct {
	Changes []job.Change   `json:"changes"`
	Figures []FigureChange `json:"figures" doc:"Of the title block, those that differ"`
	Gone    []string       `json:"gone" doc:"What was weak before, and is no more"`
	Came    []string       `json:"came" doc:"What is weak since"`
}

// FigureChange is a figure of the title block that changed.
type FigureChange struct {
	Label string `json:"label"`
	From  string `json:"from"`
	To    string `json:"to"`
}

func (a *api) registerBetween(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "between", Method: http.MethodGet, Path: "/api/jobs/{id}/between",
		Summary: "What changed between two revisions of a job, or from one to its draft", Errors: []int{404, 410, 422, 503}}, a.between)
}

func (a *api) between(ctx context.Context, in *struct {
	JobPath
	From int `query:"from" minimum:"1" maximum:"2147483647" required:"true" doc:"The number of a revision"`
	To   int `query:"to" minimum:"0" maximum:"2147483647" doc:"… of another; 0 is the draft, as it is saved"`
}) (*body[Between], error) {
	before, was, err := a.stateOf(ctx, in.ID, in.From)
	if err != nil {
		return nil, answer(err)
	}
	after, is, err := a.stateOf(ctx, in.ID, in.To)
	if err != nil {
		return nil, answer(err)
	}
	out := Between{job.Diff(before, after), []FigureChange{}, without(was, is), without(is, was)}
	for _, tile := range is.Title {
		for _, before := range was.Title {
			if before.Label == tile.Label && before.Text != tile.Text {
				out.Figures = append(out.Figures, FigureChange{tile.Label, before.Text, tile.Text})
			}
		}
	}
	return &body[Between]{out}, nil
}

// stateOf is a job as a revision of it was issued, with its plan of then; 0 is its draft.
func (a *api) stateOf(ctx context.Context, id string, number int) (job.Document, plan.Plan, error) {
	if number == 0 {
		j, err := a.store(ctx).Get(ctx, id)
		if err != nil {
			return job.Document{}, plan.Plan{}, err
		}
		return j.Doc(), plan.Of(a.designs.of(ctx, j.Doc())), nil
	}
	r, err := a.store(ctx).Revision(ctx, id, number)
	if err != nil {
		return job.Document{}, plan.Plan{}, err
	}
	issued, err := plan.Read(r.Plan)
	return r.Doc(), issued, err
}

// without are the notes of a plan that another has not.
func without(of, other plan.Plan) []string {
	list := []string{}
	for _, n := range of.Notes {
		if !slices.ContainsFunc(other.Notes, func(o judge.Note) bool { return o.ID == n.ID }) {
			list = append(list, n.Text)
		}
	}
	return list
}
