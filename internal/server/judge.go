package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/plan"
	"epitrope/core/study"
)

// Judged is every coupling on a document, the trade's disagreements, and the charger's
// size, each with what it comes to in the circuit. Through time a coupling is run when it
// is asked for.
type Judged struct {
	Methods []plan.Consequence `json:"methods"`
	Schools []plan.School      `json:"schools"`
	Sizings []plan.Sizing      `json:"sizings"`
}

func (a *api) registerJudge(h huma.API) {
	post := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, Summary: summary, MaxBodyBytes: maxBody, Errors: []int{413, 422}}
	}
	huma.Register(h, post("judgeMethods", "/api/methods", "Hold every coupling, school and charger against a document"), a.judgeMethods)
	huma.Register(h, post("driveMethod", "/api/methods/{coupling}", "Run a document with one coupling through its days, to a full battery, and with its signal failed"), a.driveMethod)
	huma.Register(h, post("modeTable", "/api/modes", "What a document's installation does in every position of its switches, and what stays live"), a.modeTable)
	huma.Register(h, post("asBuilt", "/api/built", "Judge a document as it was built, and hold that against its design"), a.asBuilt)
	huma.Register(h, post("retrofit", "/api/retrofit", "Judge what was found on a document, and hold it against the new design"), a.retrofit)
}

func (a *api) judgeMethods(_ context.Context, in *struct{ Body Input }) (*body[Judged], error) {
	doc, _ := job.Decode(in.Body) // as the plan does: what can be used of it
	return &body[Judged]{Judged{study.Consequences(doc, a.book), plan.Schools(doc, a.book), plan.Sizings(doc, a.book)}}, nil
}

func (a *api) driveMethod(ctx context.Context, in *struct {
	Coupling couplingKind `path:"coupling"`
	Body     Input
}) (*body[study.Driven], error) {
	doc, _ := job.Decode(in.Body)
	return &body[study.Driven]{study.Drive(doc, a.book, coupling.Kind(in.Coupling), func() bool { return ctx.Err() != nil })}, nil
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

func (a *api) modeTable(_ context.Context, in *struct{ Body Input }) (*body[plan.Modes], error) {
	doc, _ := job.Decode(in.Body)
	return &body[plan.Modes]{plan.ModesOf(doc, a.book)}, nil
}

func (a *api) asBuilt(_ context.Context, in *struct{ Body Input }) (*body[study.Built], error) {
	doc, _ := job.Decode(in.Body)
	return &body[study.Built]{study.BuiltOf(doc, a.book)}, nil
}

func (a *api) retrofit(ctx context.Context, in *struct{ Body Input }) (*body[study.Retrofit], error) {
	doc, _ := job.Decode(in.Body)
	return &body[study.Retrofit]{study.RetrofitOf(doc, a.book, func() bool { return ctx.Err() != nil })}, nil
}
