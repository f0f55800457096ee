package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/internal/answers"
	"epitrope/internal/export"
	"epitrope/internal/listing"
	"epitrope/internal/pack"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// csv is the type of a list as a file.
const csv = "text/csv; charset=utf-8; header=present"

func (a *api) registerMake(h huma.API) {
	on(h, people.Work, huma.Operation{OperationID: "make", Method: http.MethodPost, Path: "/api/make", MaxBodyBytes: maxBody,
		Summary: "What a document's design takes to make: wires, cuts, parts, drawing, steps", Errors: []int{413, 422, 503}}, a.makeIt)
	on(h, people.Look, huma.Operation{OperationID: "ownWorkshop", Method: http.MethodGet, Path: "/api/workshop",
		Summary: "What the workshop has of its own, for a device that goes along: parts, pace, settings", Errors: []int{503}},
		a.ownWorkshop)
	file := func(id, name, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodGet, Path: "/api/jobs/{id}/" + name, Summary: summary,
			Errors: []int{404, 410, 503}}
	}
	on(h, people.Look, file("drawing", "drawing.svg", "The wiring drawing of a job's draft"),
		a.fileOf("image/svg+xml", "drawing.svg", func(p pack.Pack) []byte { return export.SVG(p.Drawing, p.Document.Title, p.Units) }))
	on(h, people.Look, file("labels", "labels.pdf",
		"Labels of a job's draft: wire numbers, fuses, the owner's card, on common label stock"),
		a.labels)
	on(h, people.Look, file("pack", "pack.pdf", "The pack of a job's draft: drawing, lists, steps, settings, readings, workings"), a.pack)
	on(h, people.Look, file("issuedPack", "revisions/{number}/pack.pdf", "The pack of a revision as it was issued"), a.issuedPack)
	on(h, people.Look, file("wireList", "wires.csv", "The wire list of a job's draft"),
		a.fileOf(csv, "wires.csv", func(p pack.Pack) []byte { return export.WiresCSV(p.Leads, p.Units) }))
	on(h, people.Look, file("cutList", "cuts.csv", "The cut list of a job's draft"),
		a.fileOf(csv, "cuts.csv", func(p pack.Pack) []byte { return export.CutsCSV(p.Cuts, p.Units) }))
	on(h, people.Look, file("partsList", "parts.csv", "The parts list of a job's draft"),
		a.fileOf(csv, "parts.csv", func(p pack.Pack) []byte { return export.PartsCSV(p.Parts, p.Units) }))
}

// ownWorkshop answers what a device is begun with that is to work away from the server.
func (a *api) ownWorkshop(ctx context.Context, _ *struct{}) (*body[pack.Workshop], error) {
	own, err := a.workshop(ctx)
	return &body[pack.Workshop]{own}, answer(err)
}

// workshop is what the workshop has of its own.
func (a *api) workshop(ctx context.Context) (pack.Workshop, error) {
	return listing.Workshop(ctx, a.store(ctx))
}

// packOf is a stored job's pack.
func (a *api) packOf(ctx context.Context, j store.Job, own pack.Workshop, revision string, dated time.Time) pack.Pack {
	p := pack.New(a.designs.of(ctx, j.Doc()), own)
	p.Number, p.Revision, p.Dated = j.Number, revision, dated
	return p
}

func (a *api) pack(ctx context.Context, in *struct {
	JobPath
	Paper string `query:"paper" enum:"A4,Letter" doc:"Otherwise the job's, or the workshop's"`
	Bench bool   `query:"bench" doc:"A copy for the bench: without what it stands on and the workings"`
}) (*fileAnswer, error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	p := a.packOf(ctx, j, own, fmt.Sprintf("draft, version %d", j.Version), j.SavedAt)
	if err := a.handedOver(ctx, in.ID, a.designs.of(ctx, j.Doc()), &p); err != nil {
		return nil, answer(err)
	}
	p.Paper, p.Bench = cmp.Or(in.Paper, p.Paper), in.Bench
	data, err := export.PDF(p)
	if err != nil {
		return nil, err
	}
	return &fileAnswer{"application/pdf", `attachment; filename="pack.pdf"`, data}, a.took(ctx, in.ID, "pack.pdf")
}

// stockKind is label stock in an address.
type stockKind string

// Schema allows the stock that there is.
func (stockKind) Schema(huma.Registry) *huma.Schema {
	s := &huma.Schema{Type: huma.TypeString}
	for _, x := range export.Stocks {
		s.Enum = append(s.Enum, x.ID)
	}
	return s
}

func (a *api) labels(ctx context.Context, in *struct {
	JobPath
	Of    string    `query:"of" enum:"wires,fuses,owner" default:"wires"`
	Stock stockKind `query:"stock" default:"a4-65"`
	From  int       `query:"from" minimum:"1" maximum:"80" default:"1" doc:"The first label of the sheet that is not used yet"`
}) (*fileAnswer, error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	stock, _ := export.StockNamed(string(in.Stock))
	p := a.packOf(ctx, j, own, fmt.Sprintf("draft, version %d", j.Version), j.SavedAt)
	if err := a.handedOver(ctx, in.ID, a.designs.of(ctx, j.Doc()), &p); err != nil {
		return nil, answer(err)
	}
	data, err := export.LabelsPDF(p, in.Of, stock, in.From-1)
	if err != nil {
		return nil, err
	}
	return &fileAnswer{"application/pdf", `inline; filename="labels.pdf"`, data}, a.took(ctx, in.ID, "labels.pdf")
}

func (a *api) issuedPack(ctx context.Context, in *revisionPath) (*fileAnswer, error) {
	r, err := a.store(ctx).Revision(ctx, in.ID, in.Number)
	if err == nil && r.Pack == nil {
		err = store.ErrNotFound // issued before there were packs
	}
	if err != nil {
		return nil, answer(err)
	}
	return &fileAnswer{"application/pdf", fmt.Sprintf(`attachment; filename="pack-revision-%d.pdf"`, r.Number), r.Pack},
		a.took(ctx, in.ID, fmt.Sprintf("the pack of revision %d", r.Number))
}

func (a *api) makeIt(ctx context.Context, in *struct{ Body Input }) (*body[answers.Made], error) {
	doc, _ := job.Decode(in.Body) // as the plan does: what can be used of it
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	return &body[answers.Made]{answers.Make(pack.New(a.designs.of(ctx, doc), own))}, nil
}

// fileOf answers with a file made of a job's draft.
func (a *api) fileOf(contentType, name string, write func(p pack.Pack) []byte) func(context.Context, *JobPath) (*fileAnswer, error) {
	return func(ctx context.Context, in *JobPath) (*fileAnswer, error) {
		j, err := a.store(ctx).Get(ctx, in.ID)
		if err != nil {
			return nil, answer(err)
		}
		own, err := a.workshop(ctx)
		if err != nil {
			return nil, answer(err)
		}
		data := write(pack.New(a.designs.of(ctx, j.Doc()), own))
		return &fileAnswer{contentType, `attachment; filename="` + name + `"`, data}, a.took(ctx, in.ID, name)
	}
}
