package server

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/people"
	"epitrope/internal/store"
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

// authorOf is whose an entry is that says who entered it: who asks, or at the bay's tablet somebody who switched to themselves there.
// refused says why it cannot be kept.
func (a *api) authorOf(ctx context.Context, said string) (out author, refused string, err error) {
	asks := who(ctx)
	id := strings.ToLower(said)
	if id == "" || id == asks.in.Person.ID {
		return author{asks.in.Person, optionalID(asks.in.Person.ID)}, "", nil
	}
	for _, s := range asks.in.Switched {
		if s == id {
			p, err := a.store(ctx).Person(ctx, id)
			if err == nil {
				return author{p.Of(), &id}, "", nil
			}
			if err != store.ErrNobody { //nolint:errorlint // it comes as it was made
				return out, "", err
			}
		}
	}
	return out, "was entered by somebody who is not signed in here", nil
}

func optionalID(id string) *string {
	if id == "" {
		return nil
	}
	return &id
}
