package server

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/internal/people"
)

// Countersigning is a countersignature as it is sent.
type Countersigning struct {
	ID string `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Of string `json:"of" format:"uuid" doc:"The tick or the entry that it is under"`
}

func (a *api) registerCountersigns(h huma.API) {
	on(h, people.Countersign, huma.Operation{OperationID: "countersign", Method: http.MethodPost, Path: "/api/jobs/{id}/countersigns",
		MaxBodyBytes: maxDoor, Summary: "Stand for what an apprentice did; never for one's own", DefaultStatus: http.StatusNoContent,
		Errors: []int{404, 409, 410, 413, 422, 503}}, a.countersign)
}

func (a *api) countersign(ctx context.Context, in *struct {
	JobPath
	Body Countersigning
}) (*struct{}, error) {
	return nil, answer(a.store(ctx).Countersign(ctx, in.ID, strings.ToLower(in.Body.ID), strings.ToLower(in.Body.Of)))
}

// author is under whose name something that was entered is kept.
type author struct {
	people.Person
	column *string
}

// authorOf is whose an entry is: of who asks. What says that somebody else entered it, as at the bay's tablet while the server was away, is
// kept by nobody but them: problems say so.
func authorOf(ctx context.Context, said string) (author, job.Problems) {
	me := person(ctx)
	if said != "" && !strings.EqualFold(said, me.ID) {
		return author{}, job.Problems{{Field: "person", Value: short(said), Wrong: "entered it, and is not signed in here",
			Allowed: "what one entered oneself: whoever entered it signs in, and sends it"}}
	}
	return author{me, optionalID(me.ID)}, nil
}

func optionalID(id string) *string {
	if id == "" {
		return nil
	}
	return &id
}
