package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/trace"
	"epitrope/internal/answers"
	"epitrope/internal/people"
)

// Tracing is a document with what was complained of, read, looked at and mended.
type Tracing struct {
	Document Input          `json:"document"`
	Evidence trace.Evidence `json:"evidence"`
	Found    bool           `json:"found,omitempty" doc:"As it was found, not as it is designed or built"`
}

func (a *api) registerTrace(h huma.API) {
	on(h, people.Work, huma.Operation{OperationID: "trace", Method: http.MethodPost, Path: "/api/trace", MaxBodyBytes: mostProving,
		Summary: "What may be wrong with a document's installation, by what was seen of it, and which test tells most",
		Errors:  []int{413, 422, 503}}, a.trace)
}

func (a *api) trace(ctx context.Context, in *struct{ Body Tracing }) (*body[answers.Traced], error) {
	doc, _ := job.Decode(in.Body.Document) // as the plan does: what can be used of it
	doc, missing := answers.Installed(doc, in.Body.Found)
	d := a.designs.of(ctx, doc)
	var out answers.Traced
	err := a.readers.take(ctx, func() error {
		out = answers.TraceFault(d, missing, in.Body.Evidence)
		return nil
	})
	if err != nil {
		return nil, answer(err)
	}
	return &body[answers.Traced]{out}, nil
}
