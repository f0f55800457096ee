package server

import (
	"context"
	"net/http"

	"epitrope/core/job"
	"epitrope/internal/people"
)

type saveInput struct {
	JobPath
	Body struct {
		Base     int    `json:"base" minimum:"1" maximum:"2147483647" doc:"The version that was edited"`
		By       string `json:"by,omitempty" maxLength:"60" doc:"A name of the window's own: what it saved before, its answer lost, is no conflict"`
		Document Input  `json:"document"`
	}
}

func (a *api) save(ctx context.Context, in *saveInput) (*body[Draft], error) {
	d, err := a.drafted(ctx, in.Body.Document, in.Body.By)
	if err != nil {
		return nil, err
	}
	if err := a.onlySurveyed(ctx, in.ID, in.Body.Base, d.Document); err != nil {
		return nil, err
	}
	j, err := a.store(ctx).Save(ctx, in.ID, in.Body.Base, d)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Draft]{draft(j)}, nil
}

// onlySurveyed refuses a save by somebody who may survey and not design, where it decides something.
func (a *api) onlySurveyed(ctx context.Context, id string, base int, doc job.Document) error {
	if who(ctx).may(people.Design) {
		return nil
	}
	current, err := a.store(ctx).Get(ctx, id)
	if err != nil {
		return answer(err)
	}
	was := current.Doc()
	if current.Version != base { // what is stale is told as that, unless it decides something too
		before, err := a.store(ctx).Saves(ctx, id, base, base)
		if err != nil {
			return answer(err)
		}
		was = before[base].Doc()
	}
	var refused job.Problems
	for _, c := range job.Diff(was, doc) {
		if !people.Surveyed(c.Path) {
			refused = append(refused, job.Problem{Field: c.Path, Value: c.To, Wrong: c.Label +
				" is decided by whoever designs, and not as " +
				string(person(ctx).Role), Allowed: "what was found, measured and built"})
		}
	}
	if len(refused) == 0 {
		return nil
	}
	p := problem(http.StatusForbidden, "role", refused[0].Wrong+".")
	p.Problems = refused
	return p
}
