package server

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/procedure"
	"epitrope/core/signoff"
	"epitrope/internal/pack"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// TrailLine is something that somebody did.
type TrailLine struct {
	At      time.Time    `json:"at" doc:"When the server got it"`
	By      string       `json:"by" doc:"Empty: the program itself, or somebody from before there were people"`
	Job     string       `json:"job,omitempty"`
	Number  int64        `json:"number,omitempty"`
	Title   string       `json:"title,omitempty"`
	Did     string       `json:"did" doc:"In a few words"`
	What    string       `json:"what,omitempty"`
	Detail  string       `json:"detail,omitempty" doc:"As it was entered"`
	Changes []job.Change `json:"changes,omitempty" doc:"What an edit changed"`
}

// Trailed is a part of a trail, the newest first.
type Trailed struct {
	Lines []TrailLine `json:"lines"`
	Next  *time.Time  `json:"next,omitempty" doc:"Where the next part begins; not there where it is the last"`
}

// Before is where a part of a trail begins.
type Before struct {
	Before time.Time `query:"before" doc:"The next of the part before; otherwise now"`
}

func (a *api) registerTrail(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "jobTrail", Method: http.MethodGet, Path: "/api/jobs/{id}/trail",
		Summary: "Who did what on a job, and when", Errors: []int{404, 410, 422, 503}}, a.jobTrail)
	on(h, people.Look, huma.Operation{OperationID: "tookJob", Method: http.MethodPost, Path: "/api/jobs/{id}/taken",
		Summary: "Note that somebody took a job away as a file, which the browser writes", DefaultStatus: http.StatusNoContent,
		Errors: []int{404, 410, 503}}, a.tookJob)
	on(h, people.Trail, huma.Operation{OperationID: "trail", Method: http.MethodGet, Path: "/api/trail",
		Summary: "Who did what over the whole workshop, and when", Errors: []int{422, 503}}, a.trail)
}

func (a *api) jobTrail(ctx context.Context, in *struct {
	JobPath
	Before
}) (*body[Trailed], error) {
	return a.trailOf(ctx, in.ID, in.Before.Before)
}

func (a *api) trail(ctx context.Context, in *Before) (*body[Trailed], error) {
	return a.trailOf(ctx, "", in.Before)
}

func (a *api) trailOf(ctx context.Context, id string, before time.Time) (*body[Trailed], error) {
	if before.IsZero() {
		before = time.Now().Add(time.Minute)
	}
	list, err := a.store(ctx).Trail(ctx, id, before)
	if err != nil {
		return nil, answer(err)
	}
	out := Trailed{Lines: []TrailLine{}}
	if len(list) == store.MostTrail {
		next := list[len(list)-1].At.UTC()
		out.Next = &next
	}
	names, readings := map[string]string{}, map[string]string{}
	if id != "" {
		if names, readings, err = a.namesOn(ctx, id); err != nil {
			return nil, answer(err)
		}
	}
	for i := 0; i < len(list); i++ {
		d := list[i]
		line := TrailLine{At: d.At.UTC(), By: d.ByWhom, Did: cmp.Or(didWords[d.Did], d.Did), What: cmp.Or(names[d.What], d.What),
			Detail: d.Detail}
		if d.Did == signoff.ReadingEntry {
			line.What = cmp.Or(readings[d.What], d.What)
		}
		if id == "" {
			line.Job, line.Number, line.Title = d.JobID, d.Number, d.Title
		}
		if d.Did == "saved" {
			from := d.Version
			for i+1 < len(list) && sameEdit(list[i+1], d, list[i].At) {
				i++
				from = list[i].Version
			}
			if line.Changes, line.Did, err = a.editOf(ctx, d.JobID, from, d.Version); err != nil {
				return nil, answer(err)
			}
		}
		out.Lines = append(out.Lines, line)
	}
	return &body[Trailed]{out}, nil
}

// oneEdit is how long somebody may pause within one edit.
const oneEdit = 5 * time.Minute

// sameEdit says whether a save before another, which was at a moment, is of one edit with it.
func sameEdit(before, last store.Did, at time.Time) bool {
	return before.Did == "saved" && before.JobID == last.JobID && before.ByWhom == last.ByWhom && at.Sub(before.At) < oneEdit
}

// editOf is what was changed from a save to another.
func (a *api) editOf(ctx context.Context, id string, from, to int) ([]job.Change, string, error) {
	saves := map[int]store.Job{}
	for _, v := range []int{from - 1, to} {
		one, err := a.store(ctx).Saves(ctx, id, v, v)
		if err != nil {
			return nil, "", err
		}
		if s, ok := one[v]; ok {
			saves[v] = s
		}
	}
	before, had := saves[from-1]
	was := job.New()
	if had {
		was = before.Doc()
	}
	changes := job.Diff(was, saves[to].Doc())
	if from == 1 {
		return changes, "began the job", nil
	}
	return changes, "changed " + counted(len(changes), "answer"), nil
}

func counted(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// didWords say what was done, where the table that it is in has another word for it.
var didWords = map[string]string{
	"ticked": "ticked", "unticked": "took the tick off", "reading": "read", "waiver": "waived", "statement": "stated",
	"trip": "told of a drive", "signed in": "signed in by",
	"photographed": "photographed", "signed": "signed", "issued": "issued", "left": "let somebody go", "role": "gave another role",
	"exported": "took away", "reset link": "made a reset link",
}

// namesOn are what a job's steps, gates and parts are called, by id, and what its readings are.
func (a *api) namesOn(ctx context.Context, id string) (names, readings map[string]string, err error) {
	j, err := a.store(ctx).Get(ctx, id)
	if err != nil {
		return nil, nil, err
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, nil, err
	}
	d := a.built(ctx, j.Doc())
	pack := pack.New(d, own)
	names, readings = signoff.Names(d, pack.Steps), map[string]string{}
	for _, r := range pack.Proof.Readings {
		readings[r.ID] = r.What
	}
	return names, readings, nil
}

// holdPoints are the steps of a list that are hold points.
func holdPoints(steps []procedure.Step) map[string]bool {
	out := map[string]bool{}
	for _, s := range steps {
		if s.Hold {
			out[s.ID] = true
		}
	}
	return out
}

func (a *api) tookJob(ctx context.Context, in *JobPath) (*struct{}, error) {
	if _, err := a.store(ctx).Get(ctx, in.ID); err != nil {
		return nil, answer(err)
	}
	return nil, a.took(ctx, in.ID, "the job as a file")
}

// took writes into the trail that somebody took a file away.
func (a *api) took(ctx context.Context, id, file string) error {
	return answer(a.store(ctx).Note(ctx, id, "exported", file))
}
