package server

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/study"
	"epitrope/internal/answers"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Asking is a task to be done in the background: a sweep or a spread.
type Asking struct {
	Kind     string              `json:"kind" enum:"sweep,spread"`
	Document Input               `json:"document"`
	Sweep    *study.SweepRequest `json:"sweep,omitempty"`
	Spread   *study.Tolerances   `json:"spread,omitempty"`
}

// Task is long work in the background.
type Task struct {
	ID      string        `json:"id"`
	Kind    string        `json:"kind" enum:"sweep,spread"`
	State   string        `json:"state" enum:"waiting,running,done,stopped,failed"`
	Done    int           `json:"done"`
	Of      int           `json:"of"`
	AskedAt time.Time     `json:"askedAt"`
	Problem string        `json:"problem,omitempty" doc:"Why it failed"`
	Attempt int           `json:"attempt" doc:"How often it was begun"`
	Sweep   *study.Sweep  `json:"sweep,omitempty" doc:"What there is of it, once it ended"`
	Spread  *study.Spread `json:"spread,omitempty"`
}

type taskPath struct {
	ID string `path:"id" format:"uuid" pattern:"^[0-9a-fA-F-]{36}$" patternDescription:"a UUID"`
}

func (a *api) registerDays(h huma.API) {
	post := func(op huma.Operation) huma.Operation {
		op.MaxBodyBytes = maxBody
		op.Method = http.MethodPost
		return op
	}
	on(h, people.Work, post(huma.Operation{OperationID: "try", Path: "/api/trial", Summary: "Run a document through its days",
		Errors: []int{413, 422}}), a.try)
	on(h, people.Work, post(huma.Operation{OperationID: "compare", Path: "/api/compare",
		Summary: "Run up to four designs through the same days",
		Errors:  []int{413, 422}}), a.compare)
	on(h, people.Survey, post(huma.Operation{OperationID: "addTask", Path: "/api/jobs/{id}/tasks",
		Summary: "Begin a sweep or a spread in the background", DefaultStatus: http.StatusAccepted, Errors: []int{404, 410, 413, 422, 429,
			503}}),
		a.addTask)
	on(h, people.Look, huma.Operation{OperationID: "listTasks", Method: http.MethodGet, Path: "/api/jobs/{id}/tasks",
		Summary: "A job's newest tasks", Errors: []int{503}}, a.listTasks)
	on(h, people.Look, huma.Operation{OperationID: "openTask", Method: http.MethodGet, Path: "/api/tasks/{id}",
		Summary: "How far a task is, and what it came to", Errors: []int{404, 503}}, a.openTask)
	on(h, people.Survey, huma.Operation{OperationID: "stopTask", Method: http.MethodDelete, Path: "/api/tasks/{id}",
		Summary: "Ask a task to stop; what was done is kept", Errors: []int{404, 503}}, a.stopTask)
}

func (a *api) try(ctx context.Context, in *struct {
	From float64 `query:"from" minimum:"0" doc:"Where the window that is looked at closely begins, in s"`
	To   float64 `query:"to" minimum:"0" doc:"… and ends; 0 looks at the whole run"`
	Body Input
}) (*body[answers.Tried], error) {
	doc, problems := answers.Read(in.Body)
	return taken(ctx, a.running, func() answers.Tried {
		return answers.Tried{Problems: problems, Trial: study.Try(a.designs.of(ctx, doc), study.Window{FromS: in.From, ToS: in.To},
			func() bool { return ctx.Err() != nil })}
	})
}

func (a *api) compare(ctx context.Context, in *struct {
	Body struct {
		Document Input           `json:"document"`
		Variants []study.Variant `json:"variants" minItems:"1" maxItems:"4"`
	}
}) (*body[[]study.Compared], error) {
	doc, problems := job.Decode(in.Body.Document)
	if len(problems) > 0 {
		return nil, inputProblem(problems)
	}
	got, err := taken(ctx, a.running, func() (list []study.Compared) {
		list, problems = study.Compare(a.designs.of(ctx, doc), in.Body.Variants, func() bool { return ctx.Err() != nil })
		return list
	})
	if len(problems) > 0 {
		return nil, inputProblem(problems)
	}
	return got, err
}

func (a *api) addTask(ctx context.Context, in *struct {
	JobPath
	MakingName
	Body Asking
}) (*body[Task], error) {
	doc, problems := job.Decode(in.Body.Document)
	if len(problems) > 0 {
		return nil, inputProblem(problems)
	}
	var ask any
	switch {
	case in.Body.Kind == "sweep" && in.Body.Sweep != nil:
		ask = in.Body.Sweep
		problems = study.CheckSweep(a.designs.of(ctx, doc), *in.Body.Sweep)
	case in.Body.Kind == "spread" && in.Body.Spread != nil:
		ask = in.Body.Spread
		problems = in.Body.Spread.Check()
	default:
		problems = job.Problems{{Field: in.Body.Kind, Wrong: "is missing", Allowed: "what the task asks for, under its kind"}}
	}
	if len(problems) > 0 {
		return nil, inputProblem(problems)
	}
	raw, err := json.Marshal(ask)
	if err != nil {
		return nil, err
	}
	t, err := a.store(ctx).AddTask(ctx, in.As, in.ID, in.Body.Kind, raw, doc)
	if err != nil {
		return nil, answer(err)
	}
	shown, err := showTask(t)
	return &body[Task]{shown}, err
}

func (a *api) listTasks(ctx context.Context, in *JobPath) (*body[[]Task], error) {
	list, err := a.store(ctx).Tasks(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := []Task{}
	for _, t := range list {
		shown, err := showTask(t)
		if err != nil {
			return nil, err
		}
		out = append(out, shown)
	}
	return &body[[]Task]{out}, nil
}

func (a *api) openTask(ctx context.Context, in *taskPath) (*body[Task], error) {
	t, err := a.store(ctx).Task(ctx, in.ID)
	if err != nil {
		return nil, answerTask(err)
	}
	shown, err := showTask(t)
	return &body[Task]{shown}, err
}

func (a *api) stopTask(ctx context.Context, in *taskPath) (*struct{}, error) {
	if err := a.store(ctx).StopTask(ctx, in.ID); err != nil {
		return nil, answerTask(err)
	}
	return nil, nil
}

func answerTask(err error) error {
	if errors.Is(err, store.ErrNoTask) {
		return problem(http.StatusNotFound, "about:blank", err.Error())
	}
	return answer(err)
}

func showTask(t store.Task) (Task, error) {
	out := Task{ID: t.ID, Kind: t.Kind, State: t.State, Done: t.Done, Of: t.Total, AskedAt: t.AskedAt.UTC(), Problem: t.Problem,
		Attempt: t.Attempt}
	if t.Result == nil {
		return out, nil
	}
	if t.Kind == "sweep" {
		return out, json.Unmarshal(t.Result, &out.Sweep)
	}
	return out, json.Unmarshal(t.Result, &out.Spread)
}
