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
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// LogbookLine is something that happened to a job, over the years.
type LogbookLine struct {
	At   time.Time `json:"at"`
	Kind string    `json:"kind" enum:"made,begun,installed,issued,signed,trip,complaint,mended,bypass,closed,changed,noted"`
	By   string    `json:"by,omitempty"`
	Says string    `json:"says" doc:"What happened, in words"`
	Case string    `json:"case,omitempty" doc:"Of what belongs to a complaint: its case"`
}

// Logbook is a job's log, the oldest first.
type Logbook struct {
	Lines []LogbookLine       `json:"lines"`
	Parts []answers.InVehicle `json:"parts" doc:"What is in the vehicle, and may be changed"`
}

// FailedPart is one kind of failure over the workshop.
type FailedPart struct {
	Part     string    `json:"part" doc:"What sort of part or wire"`
	Model    string    `json:"model,omitempty" doc:"What it is sold by"`
	Says     string    `json:"says" doc:"What was wrong with the newest of them"`
	Fault    string    `json:"fault,omitempty" doc:"What sort of fault; nothing where a part was changed without one"`
	Count    int       `json:"count"`
	Vehicles int       `json:"vehicles" doc:"In how many jobs"`
	Years    *float64  `json:"years,omitempty" doc:"Its age in the middle, since it was proven, of those where that is known"`
	Youngest *float64  `json:"youngest,omitempty"`
	Oldest   *float64  `json:"oldest,omitempty"`
	LastAt   time.Time `json:"lastAt"`
}

// FailedOnce is a failure with its job.
type FailedOnce struct {
	Job     string    `json:"job"`
	Number  int64     `json:"number"`
	Title   string    `json:"title"`
	Vehicle string    `json:"vehicle,omitempty"`
	Says    string    `json:"says"`
	Part    string    `json:"part"`
	Model   string    `json:"model,omitempty"`
	Years   *float64  `json:"years,omitempty"`
	At      time.Time `json:"at"`
}

// WhatFailed is what fails in the workshop's work.
type WhatFailed struct {
	Proven int64        `json:"proven" doc:"Jobs of the workshop that were signed for"`
	Groups []FailedPart `json:"groups" doc:"The most frequent first"`
	Newest []FailedOnce `json:"newest"`
}

func (a *api) registerLog(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "jobLog", Method: http.MethodGet, Path: "/api/jobs/{id}/log",
		Summary: "What happened to a job over the years: begun, proven, complained of, mended, changed", Errors: []int{404, 410, 503}},
		a.jobLog)
	on(h, people.Look, huma.Operation{OperationID: "failures", Method: http.MethodGet, Path: "/api/failures",
		Summary: "What fails in the workshop's work, by part, model and age", Errors: []int{422, 503}}, a.failing)
}

// logSays are the words of what is not entered in words.
var logSays = map[string]string{"made": "The job was begun", "begun": "The first step was ticked",
	"installed": "The last step so far was ticked",
	"issued":    "Revision %s was issued", "signed": "Proven, and signed for: certificate %s", "closed": "The complaint was closed"}

func (a *api) jobLog(ctx context.Context, in *JobPath) (*body[Logbook], error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	list, err := a.store(ctx).Log(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := Logbook{Lines: []LogbookLine{}, Parts: answers.PartsIn(a.built(ctx, j.Doc()))}
	for _, l := range list {
		says := l.Says
		switch words := logSays[l.Kind]; l.Kind {
		case "issued", "signed":
			says = fmt.Sprintf(words, l.What)
		case "made", "begun", "installed", "closed":
			says = words
		case "mended":
			says = "Mended: " + cmp.Or(l.Failed, l.What)
		case "changed":
			says = cmp.Or(l.Failed, l.What+" changed") + ": " + l.Says
		case "trip":
			says = "A drive was told of"
		}
		out.Lines = append(out.Lines, LogbookLine{At: l.At.UTC(), Kind: l.Kind, By: l.By, Says: says, Case: l.Case})
	}
	return &body[Logbook]{out}, nil
}

func (a *api) failing(ctx context.Context, in *struct {
	Search string `query:"search" maxLength:"200" doc:"Words of a part, a model, a fault, a vehicle or a job"`
}) (*body[WhatFailed], error) {
	s := a.store(ctx)
	groups, err := s.FailureGroups(ctx, in.Search)
	if err != nil {
		return nil, answer(err)
	}
	newest, err := s.Failures(ctx, in.Search)
	if err != nil {
		return nil, answer(err)
	}
	proven, err := s.ProvenJobs(ctx)
	if err != nil {
		return nil, answer(err)
	}
	out := WhatFailed{Proven: proven, Groups: []FailedPart{}, Newest: []FailedOnce{}}
	for _, g := range groups {
		out.Groups = append(out.Groups, FailedPart{g.Part, g.Model, g.Says, g.Fault, g.Count, g.Vehicles, g.Years, g.Youngest, g.Oldest,
			g.LastAt.UTC()})
	}
	for _, f := range newest {
		out.Newest = append(out.Newest, FailedOnce{f.JobID, f.Number, f.Title, f.Vehicle, f.Says, f.Part, f.Model, f.Years,
			f.FailedAt.UTC()})
	}
	return &body[WhatFailed]{out}, nil
}

// yearHours are the hours of a year.
const yearHours = 365.25 * 24

// failedOf is what failed, of what was mended and changed, by what is in the vehicle. What the installation cannot have is counted
// nowhere; it stays in the log.
func (a *api) failedOf(ctx context.Context, id string, entries []store.ProofEntry) (list []store.Failure, err error) {
	var j store.Job
	var proven time.Time
	for _, e := range entries {
		if e.Kind != "mended" && e.Kind != "changed" {
			continue
		}
		if j.ID == "" {
			if j, err = a.store(ctx).Get(ctx, id); err != nil {
				return nil, err
			}
			if proven, err = a.store(ctx).ProvenAt(ctx, id); err != nil {
				return nil, err
			}
		}
		one, ok := a.failureOf(ctx, j.Doc(), e)
		if !ok {
			continue
		}
		f := store.Failure{EntryID: e.ID, Fault: one.Fault, Says: one.Says, Part: one.Part, Model: one.Model,
			Vehicle: cmp.Or(j.Doc().Vehicle.Model, j.Vehicle), FailedAt: e.TakenAt}
		if years := e.TakenAt.Sub(proven).Hours() / yearHours; !proven.IsZero() && years >= 0 {
			f.Years = &years
		}
		list = append(list, f)
	}
	return list, nil
}

func (a *api) failureOf(ctx context.Context, doc job.Document, e store.ProofEntry) (answers.Failure, bool) {
	doc, _ = answers.Installed(doc, e.AsFound)
	d := a.designs.of(ctx, doc)
	if e.Kind == "changed" {
		return answers.ChangeOf(d, e.Subject)
	}
	return answers.FailureOf(d, e.Subject)
}
