package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// eventsPath is where changes are told.
const eventsPath = "/api/events"

// stillEvery is how often an open stream asks whether who listens is still signed in; it keeps the line open too.
var stillEvery = 15 * time.Second

// Changed is what an open page is told: what changed, and of which job. What it says now is read anew.
type Changed struct {
	What string `json:"what" enum:"job,revision,ticks,proof,countersigns,comments,tasks,settings,parts,here,anything"`
	Job  string `json:"job,omitempty"`
}

// Here is a window that has a job open.
type Here struct {
	Page string `json:"page" format:"uuid" doc:"A name of the window's own"`
	Left bool   `json:"left,omitempty" doc:"It is closed"`
}

// HereNow are those who have a job open.
type HereNow struct {
	People []Somebody `json:"people" doc:"Each once, but for who asks"`
}

func (a *api) registerEvents(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "events", Method: http.MethodGet, Path: eventsPath,
		Summary: "What changes in the workshop, as it does: a stream of server-sent events", Errors: []int{503},
		Responses: map[string]*huma.Response{"200": {Description: "Events named change, each with a Changed as its data",
			Content: map[string]*huma.MediaType{"text/event-stream": {Schema: h.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[Changed](),
				true, "Changed")}}}}}, a.events)
	on(h, people.Look, huma.Operation{OperationID: "here", Method: http.MethodPost, Path: "/api/jobs/{id}/here",
		Summary: "Say that a window has a job open, and hear who else has", Errors: []int{404, 410, 422, 503}}, a.here)
}

// leavingKey is where a request's context holds the server's own, which ends when the server does.
type leavingKey struct{}

// leaving ends when the server stops: streams end then, other requests are finished.
func leaving(ctx context.Context) <-chan struct{} {
	if of, ok := ctx.Value(leavingKey{}).(context.Context); ok {
		return of.Done()
	}
	return nil
}

func (a *api) events(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
	asks := who(ctx)
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		ctx, end := context.WithCancel(ctx)
		defer end()
		hc.SetHeader("Content-Type", "text/event-stream")
		hc.SetHeader("Cache-Control", "no-store")
		hc.SetHeader("X-Accel-Buffering", "no") // a proxy that would keep it back
		w, ok := hc.BodyWriter().(http.ResponseWriter)
		if !ok {
			return
		}
		line := http.NewResponseController(w)
		_ = line.SetWriteDeadline(time.Time{}) // it is written for as long as it is open
		write := func(text string) bool {
			_, err := w.Write([]byte(text))
			return err == nil && line.Flush() == nil
		}
		if !write("retry: 3000\n\n") {
			return
		}
		still := time.NewTicker(stillEvery)
		defer still.Stop()
		changes := a.store(ctx).Changes(ctx)
		for {
			select {
			case <-ctx.Done():
				return
			case <-leaving(ctx):
				return
			case c := <-changes:
				if !write(event(c)) {
					return
				}
			case <-still.C:
				if _, err := a.door.Still(ctx, asks.in); errors.Is(err, door.ErrOut) || !write("event: still\ndata: {}\n\n") {
					return
				}
			}
		}
	}}, nil
}

// event is a change as it is sent.
func event(c store.Change) string {
	said := Changed{What: c.What, Job: c.Job}
	if c.What == "" {
		said.What = "anything"
	}
	data, err := json.Marshal(said)
	if err != nil {
		panic(err) // two texts
	}
	return fmt.Sprintf("event: change\ndata: %s\n\n", data)
}

func (a *api) here(ctx context.Context, in *struct {
	JobPath
	Body Here
}) (*body[HereNow], error) {
	out := &body[HereNow]{HereNow{People: []Somebody{}}}
	if in.Body.Left {
		return out, answer(a.store(ctx).Left(ctx, in.ID, in.Body.Page))
	}
	list, err := a.store(ctx).Here(ctx, in.ID, in.Body.Page)
	if err != nil {
		return nil, answer(err)
	}
	said := map[string]bool{person(ctx).ID: true}
	for _, p := range list {
		if !said[p.PersonID] {
			said[p.PersonID] = true
			out.Body.People = append(out.Body.People, Somebody{p.PersonID, p.Name, p.Role})
		}
	}
	return out, nil
}
