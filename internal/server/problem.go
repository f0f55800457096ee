package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/internal/store"
)

// Refusal is an error as the API answers it: a problem document that names the
// fields, what was wrong with each and what is allowed. Source: RFC 9457.
type Refusal struct {
	Type     string        `json:"type" doc:"What kind of problem: about:blank, or urn:epitrope:stale, deleted, unavailable, input, stop, gates, busy, out, nobody, role, code, wrong, slow, link"`
	Title    string        `json:"title"`
	Status   int           `json:"status"`
	Detail   string        `json:"detail"`
	Problems []job.Problem `json:"problems" doc:"One for each field that cannot be used"`
	Changes  []job.Change  `json:"changes,omitempty" doc:"What changed meanwhile, for a stale write"`
	Current  *Draft        `json:"current,omitempty" doc:"The newest draft, for a stale write"`
}

func (p *Refusal) Error() string { return p.Detail }

// GetStatus is the HTTP status.
func (p *Refusal) GetStatus() int { return p.Status }

// encoded is the problem as it is sent.
func (p *Refusal) encoded() []byte {
	data, err := json.Marshal(p)
	if err != nil {
		panic(err) // text and numbers alone
	}
	return append(data, '\n')
}

// ContentType is that of problem documents.
func (p *Refusal) ContentType(string) string { return "application/problem+json" }

func problem(status int, kind, detail string) *Refusal {
	if kind != "about:blank" {
		kind = "urn:epitrope:" + kind
	}
	return &Refusal{Type: kind, Title: http.StatusText(status), Status: status, Detail: detail, Problems: []job.Problem{}}
}

// inputProblem refuses a document.
func inputProblem(problems job.Problems) *Refusal {
	p := problem(http.StatusUnprocessableEntity, "input", problems.Error())
	p.Problems = problems
	return p
}

// useProblems makes every error of the API a problem document. What a handler
// did not mean to say is logged, never answered.
func useProblems() {
	huma.NewErrorWithContext = func(ctx huma.Context, status int, message string, errs ...error) huma.StatusError {
		if status >= http.StatusInternalServerError {
			where := ""
			if ctx != nil {
				where = ctx.Method() + " " + ctx.URL().Path
			}
			slog.Error("request failed", "request", where, "error", errors.Join(errs...))
			return problem(status, "about:blank", "Something went wrong on the server; nothing typed is lost.")
		}
		if message == "validation failed" {
			message = "What was sent cannot be used as it is."
		}
		p := problem(status, "input", message)
		for _, err := range errs {
			var detail *huma.ErrorDetail
			if errors.As(err, &detail) {
				wrong, allowed := inWords(detail.Message)
				if text, is := detail.Value.(string); is && detail.Location == "body" {
					if unreadable := job.NotJSON([]byte(text)); unreadable != "" {
						wrong, allowed = unreadable, "one JSON object in UTF-8"
					}
				}
				p.Problems = append(p.Problems, job.Problem{Field: detail.Location, Value: short(detail.Value), Wrong: wrong,
					Allowed: allowed})
			}
		}
		return p
	}
	huma.NewError = func(status int, message string, errs ...error) huma.StatusError {
		return huma.NewErrorWithContext(nil, status, message, errs...)
	}
}

// inWords parts what the schema's check says into what is wrong and what is allowed.
func inWords(message string) (wrong, allowed string) {
	if name, ok := strings.CutPrefix(message, "expected required property "); ok {
		return "is not there", strings.TrimSuffix(name, " to be present") + " has to be there"
	}
	if what, ok := strings.CutPrefix(message, "expected "); ok {
		what = strings.TrimPrefix(strings.TrimPrefix(what, "value to be "), "string to be ")
		return "cannot be used here", strings.ReplaceAll(what, `"`, "")
	}
	if message == "unexpected property" {
		return "is not a field here", "the fields that the API's document names"
	}
	return message, "what the API's document says"
}

func short(value any) string {
	text := fmt.Sprint(value)
	if len(text) > 60 {
		text = text[:60] + "…"
	}
	return unit.Written(strings.ToValidUTF8(text, "�"))
}

// statusLeft is logged for a request whose asker has left; nobody reads it.
const statusLeft = 499

// answer turns an error of the store into a problem.
func answer(err error) error {
	var deleted *store.Deleted
	var stale *store.Stale
	var reused *store.Reused
	switch {
	case err == nil:
		return nil
	case errors.As(err, &reused):
		return inputProblem(job.Problems{{Field: "Idempotency-Key", Value: short(reused.Name),
			Wrong:   "was the name of making something else",
			Allowed: "a new name for each thing that is made"}})
	case errors.Is(err, store.ErrUnstorable):
		return problem(http.StatusUnprocessableEntity, "input", "What was sent holds characters or numbers that cannot be stored.")
	case errors.Is(err, store.ErrBusy):
		return problem(http.StatusTooManyRequests, "busy", err.Error())
	case errors.Is(err, store.ErrNobody), errors.Is(err, store.ErrNoLink):
		return problem(http.StatusNotFound, "about:blank", err.Error())
	case errors.Is(err, store.ErrNoThread), errors.Is(err, store.ErrNothingWaits):
		return problem(http.StatusNotFound, "about:blank", err.Error())
	case errors.Is(err, store.ErrOwnWork), errors.Is(err, store.ErrLastOwner):
		return problem(http.StatusConflict, "role", err.Error())
	case errors.Is(err, store.ErrNotFound):
		return problem(http.StatusNotFound, "about:blank", err.Error())
	case errors.As(err, &deleted):
		return problem(http.StatusGone, "deleted", err.Error()+"; it can be put back")
	case errors.As(err, &stale):
		p := problem(http.StatusConflict, "stale", err.Error())
		p.Changes = stale.Changes
		current := draft(stale.Current)
		p.Current = &current
		return p
	case errors.Is(err, context.Canceled):
		return problem(statusLeft, "about:blank", "Whoever asked has left.")
	case errors.Is(err, store.ErrUnavailable), errors.Is(err, context.DeadlineExceeded):
		slog.Warn("database away", "error", err)
		return problem(http.StatusServiceUnavailable, "unavailable",
			"The database does not answer. What was typed is kept in the browser and saved when it does.")
	}
	return err
}
