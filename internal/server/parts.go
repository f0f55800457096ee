package server

import (
	"context"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/internal/people"
	"epitrope/internal/workshop"
)

// maxParts is the largest file of parts that is read.
const maxParts = 2 << 20

// BookPart is a part of the workshop's book.
type BookPart struct {
	Key     string         `json:"key"`
	SavedAt time.Time      `json:"savedAt"`
	Item    parts.Item     `json:"item"`
	Cells   []string       `json:"cells" doc:"As written in the file, in the order of heads"`
	Job     map[string]any `json:"job,omitempty" doc:"What a job takes over that uses it: fields and values. The job keeps them, whatever becomes of the book"`
}

// PartsBook is the workshop's parts.
type PartsBook struct {
	Heads []string   `json:"heads" doc:"The columns of the book, in their order"`
	For   [][]string `json:"for" doc:"The kinds of part that each of the columns is about; none for all"`
	Kinds []string   `json:"kinds"`
	Parts []BookPart `json:"parts"`
}

// PartsFile is a file of parts as sent.
type PartsFile struct {
	CSV string `json:"csv" doc:"Comma-separated, as exported"`
}

// BookRead is what a file for one of the workshop's books came to.
type BookRead struct {
	Kept     int                    `json:"kept" doc:"Lines that are in the book now, or would be"`
	New      int                    `json:"new" doc:"Of these, what was not in it"`
	Changed  int                    `json:"changed" doc:"… and what was there otherwise"`
	Problems []workshop.LineProblem `json:"problems"`
	Rest     string                 `json:"rest" doc:"The lines that could not be used, with the heads, to be mended and sent again"`
}

func bookRead(read BookRead) *body[BookRead] {
	if read.Problems == nil {
		read.Problems = []workshop.LineProblem{}
	}
	return &body[BookRead]{read}
}

// bookInput is a file for a book, or what it would do.
type bookInput[T any] struct {
	Preview bool `query:"preview" doc:"Say what it would do, and keep nothing"`
	Body    T
}

func (a *api) registerParts(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "listParts", Method: http.MethodGet, Path: "/api/parts",
		Summary: "The workshop's parts book",
		Errors:  []int{503}}, a.parts)
	on(h, people.Look, huma.Operation{OperationID: "exportParts", Method: http.MethodGet, Path: "/api/parts.csv",
		Summary: "The parts book as a comma-separated file", Errors: []int{503}}, a.exportParts)
	on(h, people.Books, huma.Operation{OperationID: "importParts", Method: http.MethodPost, Path: "/api/parts", MaxBodyBytes: maxParts,
		Summary: "Put a file of parts into the book; lines that cannot be used are named and given back", Errors: []int{413, 422, 503}},
		a.importParts)
	on(h, people.Books, huma.Operation{OperationID: "putPart", Method: http.MethodPut, Path: "/api/parts",
		Summary: "Put one part into the book, by the heads of its columns", DefaultStatus: http.StatusNoContent, Errors: []int{422, 503}},
		a.putPart)
	on(h, people.Books, huma.Operation{OperationID: "withdrawPart", Method: http.MethodDelete, Path: "/api/parts",
		Summary: "Take a part out of the book; jobs that use it keep it", Errors: []int{404, 503}}, a.withdrawPart)
}

func (a *api) parts(ctx context.Context, _ *struct{}) (*body[PartsBook], error) {
	list, err := a.store(ctx).Parts(ctx)
	if err != nil {
		return nil, answer(err)
	}
	out := PartsBook{Kinds: parts.ItemKinds, Parts: make([]BookPart, len(list))}
	for _, c := range parts.ItemColumns {
		out.Heads, out.For = append(out.Heads, c.Head), append(out.For, append([]string{}, c.For...))
	}
	for i, p := range list {
		item := p.Of()
		out.Parts[i] = BookPart{Key: p.Key, SavedAt: p.SavedAt.UTC(), Item: item, Cells: []string{}, Job: job.OfPart(item)}
		for _, c := range parts.ItemColumns {
			out.Parts[i].Cells = append(out.Parts[i].Cells, c.Get(item))
		}
	}
	return &body[PartsBook]{out}, nil
}

// items are the parts of the workshop's book.
func (a *api) items(ctx context.Context) ([]parts.Item, error) {
	list, err := a.store(ctx).Parts(ctx)
	items := make([]parts.Item, len(list))
	for i, p := range list {
		items[i] = p.Of()
	}
	return items, answer(err)
}

// fileAnswer is an answer that is a file.
type fileAnswer struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (a *api) exportParts(ctx context.Context, _ *struct{}) (*fileAnswer, error) {
	items, err := a.items(ctx)
	if err != nil {
		return nil, err
	}
	return &fileAnswer{"text/csv; charset=utf-8; header=present", `attachment; filename="parts.csv"`, workshop.WriteParts(items)}, nil
}

func (a *api) importParts(ctx context.Context, in *bookInput[PartsFile]) (*body[BookRead], error) {
	file, err := workshop.ReadParts([]byte(in.Body.CSV), today())
	if err != nil {
		return nil, inputProblem(job.Problems{{Field: "file", Value: short(in.Body.CSV), Wrong: err.Error(),
			Allowed: "a table of parts, as the book is exported"}})
	}
	list, err := a.store(ctx).Parts(ctx)
	if err != nil {
		return nil, answer(err)
	}
	there := map[string]parts.Item{}
	for _, p := range list {
		there[p.Key] = p.Of()
	}
	read := BookRead{Kept: len(file.Items), Problems: file.Problems, Rest: file.Rest}
	for _, item := range file.Items {
		was, known := there[item.Key()]
		switch {
		case !known:
			read.New++
		case !reflect.DeepEqual(was, item):
			read.Changed++
		}
	}
	if !in.Preview {
		err = answer(a.store(ctx).PutParts(ctx, file.Items))
	}
	return bookRead(read), err
}

func (a *api) putPart(ctx context.Context, in *struct{ Body map[string]string }) (*struct{}, error) {
	item, problems := workshop.ReadEntry(in.Body, today())
	if len(problems) > 0 {
		named := job.Problems{}
		for _, p := range problems {
			named = append(named, job.Problem{Field: p.Field, Value: p.Value, Wrong: p.Wrong, Allowed: p.Allowed})
		}
		return nil, inputProblem(named)
	}
	return nil, answer(a.store(ctx).PutParts(ctx, []parts.Item{item}))
}

func today() string { return time.Now().UTC().Format(time.DateOnly) }

func (a *api) withdrawPart(ctx context.Context, in *struct {
	Key string `query:"key" required:"true" maxLength:"120"`
}) (*struct{}, error) {
	return nil, answer(a.store(ctx).WithdrawPart(ctx, in.Key))
}
