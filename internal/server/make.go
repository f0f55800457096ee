package server

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/working"
	"epitrope/internal/export"
	"epitrope/internal/store"
)

// Made is what goes out to the bay.
type Made struct {
	Wires   []harness.Lead   `json:"wires"`
	Cuts    []harness.Cut    `json:"cuts"`
	Parts   harness.List     `json:"parts"`
	Drawing harness.Drawing  `json:"drawing"`
	Steps   []procedure.Step `json:"steps"`
	Hours   float64          `json:"hours" doc:"What the steps take together"`
}

// StepTick is a step ticked off, or its tick taken off.
type StepTick struct {
	ID   string    `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Step string    `json:"step" minLength:"1" maxLength:"60"`
	Done bool      `json:"done"`
	By   string    `json:"by" maxLength:"60"`
	Note string    `json:"note,omitempty" maxLength:"500"`
	At   time.Time `json:"at"`
}

func (a *api) registerMake(h huma.API) {
	huma.Register(h, huma.Operation{OperationID: "make", Method: http.MethodPost, Path: "/api/make", MaxBodyBytes: maxBody, Summary: "What a document's design takes to make: wires, cuts, parts, drawing, steps", Errors: []int{413, 422, 503}}, a.makeIt)
	huma.Register(h, huma.Operation{OperationID: "listTicks", Method: http.MethodGet, Path: "/api/jobs/{id}/ticks", Summary: "What was ticked off on a job, in the order of time", Errors: []int{404, 410, 503}}, a.ticks)
	huma.Register(h, huma.Operation{OperationID: "addTicks", Method: http.MethodPost, Path: "/api/jobs/{id}/ticks", Summary: "Keep ticks; all of a job come back", Errors: []int{404, 410, 422, 503}}, a.addTicks)
	file := func(id, name, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodGet, Path: "/api/jobs/{id}/" + name, Summary: summary, Errors: []int{404, 410, 503}}
	}
	huma.Register(h, file("drawing", "drawing.svg", "The wiring drawing of a job's draft"), a.fileOf("image/svg+xml", "drawing.svg", func(m Made, title string) []byte { return export.SVG(m.Drawing, title) }))
	huma.Register(h, file("pack", "pack.pdf", "The pack of a job's draft: drawing, lists, steps, settings, readings, workings"), a.pack)
	huma.Register(h, file("issuedPack", "revisions/{number}/pack.pdf", "The pack of a revision as it was issued"), a.issuedPack)
	const csv = "text/csv; charset=utf-8; header=present"
	huma.Register(h, file("wireList", "wires.csv", "The wire list of a job's draft"), a.fileOf(csv, "wires.csv", func(m Made, _ string) []byte { return export.WiresCSV(m.Wires) }))
	huma.Register(h, file("cutList", "cuts.csv", "The cut list of a job's draft"), a.fileOf(csv, "cuts.csv", func(m Made, _ string) []byte { return export.CutsCSV(m.Cuts) }))
	huma.Register(h, file("partsList", "parts.csv", "The parts list of a job's draft"), a.fileOf(csv, "parts.csv", func(m Made, _ string) []byte { return export.PartsCSV(m.Parts) }))
}

// items are the parts of the workshop's book.
func (a *api) items(ctx context.Context) ([]parts.Item, error) {
	if a.store == nil {
		return nil, nil
	}
	list, err := a.store.Parts(ctx)
	items := make([]parts.Item, len(list))
	for i, p := range list {
		items[i] = p.Of()
	}
	return items, err
}

// made is what a plan takes to make, with the workshop's parts.
func made(p plan.Plan, items []parts.Item) Made {
	wires := harness.Leads(&p.System, harness.UsualScheme)
	steps := procedure.Steps(p, wires)
	return Made{Wires: wires, Cuts: harness.CutList(wires, export.Pieces(items)), Parts: harness.PartsList(&p.System, wires, items),
		Drawing: harness.Draw(&p.System, drawnLoads(p)), Steps: steps, Hours: procedure.Hours(steps)}
}

// a4 is the paper of a pack where nobody says another.
const a4 = "A4"

// packOf is a job's pack.
func (a *api) packOf(j store.Job, items []parts.Item, revision string, dated time.Time, paper string) export.Pack {
	doc := j.Doc()
	p := plan.Decide(doc, a.book)
	m := made(p, items)
	return export.Pack{Number: j.Number, Revision: revision, Dated: dated, Paper: paper, Document: doc, Plan: p, Modes: plan.ModesOf(doc, a.book),
		Leads: m.Wires, Cuts: m.Cuts, Parts: m.Parts, Drawing: m.Drawing, Steps: m.Steps, Hours: m.Hours}
}

func (a *api) pack(ctx context.Context, in *struct {
	JobPath
	Paper string `query:"paper" enum:"A4,Letter" default:"A4"`
}) (*csvFile, error) {
	j, err := a.store.Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	items, err := a.items(ctx)
	if err != nil {
		return nil, answer(err)
	}
	data, err := export.PDF(a.packOf(j, items, fmt.Sprintf("draft, version %d", j.Version), j.SavedAt, in.Paper))
	return &csvFile{"application/pdf", `attachment; filename="pack.pdf"`, data}, err
}

func (a *api) issuedPack(ctx context.Context, in *revisionPath) (*csvFile, error) {
	r, err := a.store.Revision(ctx, in.ID, in.Number)
	if err == nil && r.Pack == nil {
		err = store.ErrNotFound // issued before there were packs
	}
	if err != nil {
		return nil, answer(err)
	}
	return &csvFile{"application/pdf", fmt.Sprintf(`attachment; filename="pack-revision-%d.pdf"`, r.Number), r.Pack}, nil
}

// drawnLoads are the loads of a plan as the drawing shows them.
func drawnLoads(p plan.Plan) []harness.Load {
	loads := []harness.Load{}
	for _, l := range p.Needs.Loads {
		name := l.Label
		if l.Count > 1 {
			name = working.Plain(l.Count, "×", 0) + " " + name
		}
		loads = append(loads, harness.Load{ID: "load-" + l.Key, Name: name, Rating: working.Text(l.Count*l.Amps, "A", 1)})
	}
	return loads
}

func (a *api) makeIt(ctx context.Context, in *struct{ Body Input }) (*body[Made], error) {
	doc, _ := job.Decode(in.Body) // as the plan does: what can be used of it
	items, err := a.items(ctx)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Made]{made(plan.Decide(doc, a.book), items)}, nil
}

// fileOf answers with a file made of a job's draft.
func (a *api) fileOf(contentType, name string, write func(m Made, title string) []byte) func(context.Context, *JobPath) (*csvFile, error) {
	return func(ctx context.Context, in *JobPath) (*csvFile, error) {
		j, err := a.store.Get(ctx, in.ID)
		if err != nil {
			return nil, answer(err)
		}
		items, err := a.items(ctx)
		if err != nil {
			return nil, answer(err)
		}
		doc := j.Doc()
		return &csvFile{contentType, `attachment; filename="` + name + `"`, write(made(plan.Decide(doc, a.book), items), doc.Title)}, nil
	}
}

func (a *api) ticks(ctx context.Context, in *JobPath) (*body[[]StepTick], error) {
	ticks, err := a.store.Ticks(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := make([]StepTick, len(ticks))
	for i, t := range ticks {
		out[i] = StepTick{ID: t.ID, Step: t.Step, Done: t.Done, By: t.ByWhom, Note: t.Note, At: t.TickedAt.UTC()}
	}
	return &body[[]StepTick]{out}, nil
}

func (a *api) addTicks(ctx context.Context, in *struct {
	JobPath
	Body []StepTick `maxItems:"500"`
}) (*body[[]StepTick], error) {
	ticks := make([]store.Tick, len(in.Body))
	for i, t := range in.Body {
		ticks[i] = store.Tick{ID: t.ID, Step: t.Step, Done: t.Done, ByWhom: t.By, Note: t.Note, TickedAt: t.At}
	}
	if err := a.store.AddTicks(ctx, in.ID, ticks); err != nil {
		return nil, answer(err)
	}
	return a.ticks(ctx, &in.JobPath)
}
