package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/study"
	"epitrope/internal/answers"
	"epitrope/internal/pack"
	"epitrope/internal/people"
)

func (a *api) registerJudge(h huma.API) {
	post := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, MaxBodyBytes: maxBody,
			Errors: []int{413, 422}}
	}
	on(h, people.Work, post("judgeMethods", "/api/methods", "Hold every coupling, school and charger against a document"), a.judgeMethods)
	on(h, people.Work, post("holdShelf", "/api/shelf", "Hold every charger of the workshop's parts book against a document"), a.shelf)
	on(h, people.Work, post("driveMethod", "/api/methods/{coupling}",
		"Run a document with one coupling through its days, to a full battery, and with its signal failed"), a.driveMethod)
	on(h, people.Work, post("modeTable", "/api/modes",
		"What a document's installation does in every position of its switches, and what stays live"), a.modeTable)
	on(h, people.Work, post("whatMoves", "/api/moves", "Weigh each answer that was measured: the figure that it moves most"), a.moves)
	on(h, people.Work, post("asBuilt", "/api/built", "Judge a document as it was built, and hold that against its design"), a.asBuilt)
	on(h, people.Work, post("retrofit", "/api/retrofit", "Judge what was found on a document, and hold it against the new design"),
		a.retrofit)
}

// prices are the workshop's own; nil where its book cannot be read, which holds up no judgement.
func (a *api) prices(ctx context.Context) *study.Prices {
	items, err := a.items(ctx)
	if err != nil {
		return nil
	}
	return answers.Prices(pack.Workshop{Parts: items, Settings: a.settings.of(ctx).now()})
}

func (a *api) judgeMethods(ctx context.Context, in *struct{ Body Input }) (*body[answers.Judged], error) {
	doc, _ := job.Decode(in.Body) // as the plan does: what can be used of it
	d := a.designs.of(ctx, doc)
	prices := a.prices(ctx)
	return taken(ctx, a.running, func() answers.Judged { return answers.Judge(d, prices) })
}

func (a *api) driveMethod(ctx context.Context, in *struct {
	Coupling couplingKind `path:"coupling"`
	Body     Input
}) (*body[study.Driven], error) {
	doc, _ := job.Decode(in.Body)
	return taken(ctx, a.running, func() study.Driven {
		return study.Drive(a.designs.of(ctx, doc), coupling.Kind(in.Coupling), func() bool { return ctx.Err() != nil })
	})
}

func (a *api) moves(ctx context.Context, in *struct{ Body Input }) (*body[[]study.Move], error) {
	doc, _ := job.Decode(in.Body)
	return taken(ctx, a.running, func() []study.Move { return study.Moves(a.designs.of(ctx, doc)) })
}

// couplingKind is a coupling in an address.
type couplingKind string

// Schema allows the couplings that there are.
func (couplingKind) Schema(huma.Registry) *huma.Schema {
	s := &huma.Schema{Type: huma.TypeString}
	for _, k := range coupling.Kinds() {
		s.Enum = append(s.Enum, string(k))
	}
	return s
}

func (a *api) modeTable(ctx context.Context, in *struct{ Body Input }) (*body[modes.Modes], error) {
	doc, _ := job.Decode(in.Body)
	return &body[modes.Modes]{modes.Of(a.designs.of(ctx, doc))}, nil
}

func (a *api) asBuilt(ctx context.Context, in *struct{ Body Input }) (*body[study.Built], error) {
	doc, _ := job.Decode(in.Body)
	return &body[study.Built]{study.BuiltOf(a.designs.of(ctx, doc))}, nil
}

func (a *api) retrofit(ctx context.Context, in *struct{ Body Input }) (*body[study.Retrofit], error) {
	doc, _ := job.Decode(in.Body)
	return taken(ctx, a.running, func() study.Retrofit {
		return study.RetrofitOf(a.designs.of(ctx, doc), func() bool { return ctx.Err() != nil })
	})
}
