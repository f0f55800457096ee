package server

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Comment is what somebody said or asked about something of a job.
type Comment struct {
	ID      string    `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Thread  string    `json:"thread,omitempty" doc:"What it answers; empty where it is the first"`
	About   string    `json:"about" enum:"job,part,step,reading,photo"`
	Subject string    `json:"subject,omitempty" maxLength:"60" doc:"Its id"`
	Named   string    `json:"named,omitempty" maxLength:"200" doc:"What that is called"`
	Text    string    `json:"text"`
	Asks    bool      `json:"asks" doc:"It is a question, open until it is answered"`
	Answers bool      `json:"answers" doc:"The question of its thread is answered"`
	By      string    `json:"by"`
	At      time.Time `json:"at"`
}

// SaidComment is a comment as it is sent. Whoever is named in it with an @ before their name is mentioned.
type SaidComment struct {
	ID      string `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Thread  string `json:"thread,omitempty" format:"uuid"`
	About   string `json:"about" enum:"job,part,step,reading,photo"`
	Subject string `json:"subject,omitempty" maxLength:"60"`
	Named   string `json:"named,omitempty" maxLength:"200"`
	Text    string `json:"text" minLength:"1" maxLength:"2000"`
	Asks    bool   `json:"asks,omitempty"`
	Answers bool   `json:"answers,omitempty"`
}

func (a *api) registerComments(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "comments", Method: http.MethodGet, Path: "/api/jobs/{id}/comments",
		Summary: "What was said and asked on a job", Errors: []int{404, 410, 503}}, a.comments)
	on(h, people.Talk, huma.Operation{OperationID: "comment", Method: http.MethodPost, Path: "/api/jobs/{id}/comments",
		MaxBodyBytes: maxDoor,
		Summary:      "Say or ask something, or answer", Errors: []int{404, 410, 413, 422, 503}}, a.comment)
	on(h, people.Look, huma.Operation{OperationID: "waiting", Method: http.MethodGet, Path: "/api/waiting",
		Summary: "What waits for somebody: open questions, and what is to be countersigned", Errors: []int{503}}, a.waiting)
}

func (a *api) comments(ctx context.Context, in *JobPath) (*body[[]Comment], error) {
	list, err := a.store(ctx).Comments(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := make([]Comment, len(list))
	for i, c := range list {
		out[i] = shownComment(c)
	}
	return &body[[]Comment]{out}, nil
}

func shownComment(c store.Comment) Comment {
	out := Comment{ID: c.ID, About: c.About, Subject: c.Subject, Named: c.Named, Text: c.Text, Asks: c.Asks, Answers: c.Answers,
		By: c.ByWhom, At: c.At.UTC()}
	if c.Thread != nil {
		out.Thread = *c.Thread
	}
	return out
}

func (a *api) comment(ctx context.Context, in *struct {
	JobPath
	Body SaidComment
}) (*body[[]Comment], error) {
	b := in.Body
	unwritable := func(r rune) bool { return r != '\n' && r != '\r' && r != '\t' && unit.Unwritable(r) }
	if strings.TrimSpace(b.Text) == "" || strings.ContainsFunc(b.Text+b.Named+b.Subject, unwritable) {
		return nil, inputProblem(job.Problems{{Field: "text", Value: short(b.Text),
			Wrong: "is empty, or holds characters that no page shows as they are", Allowed: "1 to 2000 characters"}})
	}
	list, err := a.store(ctx).People(ctx)
	if err != nil {
		return nil, answer(err)
	}
	c := store.Comment{ID: strings.ToLower(b.ID), About: b.About, Subject: b.Subject, Named: b.Named, Text: strings.TrimSpace(b.Text),
		Asks:    b.Asks && b.Thread == "",
		Answers: b.Answers && b.Thread != "", Mentions: mentioned(b.Text, list)}
	if b.Thread != "" {
		c.Thread = &b.Thread
	}
	if err := a.store(ctx).AddComment(ctx, in.ID, c); err != nil {
		return nil, answer(err)
	}
	return a.comments(ctx, &in.JobPath)
}

// mentioned are those whom a text names with an @, as the database writes a list.
func mentioned(text string, list []store.PersonRow) string {
	var ids []string
	lower := strings.ToLower(text)
	for _, p := range list {
		if at := "@" + strings.ToLower(p.Name); p.LeftAt == nil && strings.Contains(lower, at) {
			ids = append(ids, p.ID)
		}
	}
	return "{" + strings.Join(ids, ",") + "}"
}

// OpenQuestion is one that nobody has answered.
type OpenQuestion struct {
	Job    string    `json:"job"`
	Number int64     `json:"number"`
	Title  string    `json:"title"`
	About  string    `json:"about" enum:"job,part,step,reading,photo"`
	Named  string    `json:"named"`
	Text   string    `json:"text"`
	By     string    `json:"by"`
	At     time.Time `json:"at"`
	Mine   bool      `json:"mine" doc:"It names who asks"`
}

// ToCountersign is a job of which something waits for a countersignature.
type ToCountersign struct {
	Job    string    `json:"job"`
	Number int64     `json:"number"`
	Title  string    `json:"title"`
	Count  int       `json:"count"`
	Since  time.Time `json:"since"`
}

// WaitingFor is what waits for somebody.
type WaitingFor struct {
	Questions    []OpenQuestion  `json:"questions" doc:"Those that name who asks first, then the oldest"`
	Countersigns []ToCountersign `json:"countersigns" doc:"The longest waiting first"`
}

func (a *api) waiting(ctx context.Context, _ *struct{}) (*body[WaitingFor], error) {
	asked, err := a.store(ctx).Questions(ctx)
	if err != nil {
		return nil, answer(err)
	}
	awaits, err := a.store(ctx).Awaiting(ctx)
	if err != nil {
		return nil, answer(err)
	}
	out := WaitingFor{Questions: []OpenQuestion{}, Countersigns: []ToCountersign{}}
	for _, q := range asked {
		out.Questions = append(out.Questions, OpenQuestion{q.JobID, q.Number, q.Title, q.About, q.Named, q.Text, q.ByWhom, q.At.UTC(),
			q.Mine})
	}
	for _, w := range awaits {
		out.Countersigns = append(out.Countersigns, ToCountersign{w.JobID, w.Number, w.Title, w.Count, w.Oldest.UTC()})
	}
	return &body[WaitingFor]{out}, nil
}
