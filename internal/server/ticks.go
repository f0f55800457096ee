package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// StepTick is a step ticked off, or its tick taken off.
type StepTick struct {
	ID     string    `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Step   string    `json:"step" minLength:"1" maxLength:"60"`
	Done   bool      `json:"done"`
	By     string    `json:"by" maxLength:"60" doc:"As the server knows them: what is sent here is not read"`
	Person string    `json:"person,omitempty" doc:"Who ticked, by id; otherwise who sends it"`
	Note   string    `json:"note,omitempty" maxLength:"500"`
	At     time.Time `json:"at" doc:"By the clock of whoever ticked; it says how long steps take, and decides nothing"`

	Waits         bool   `json:"waits,omitempty" doc:"For a countersignature; what is sent here is not read"`
	Countersigned string `json:"countersigned,omitempty" doc:"Who stands for it; what is sent here is not read"`

	Usual float64 `json:"usual,omitempty" minimum:"0" maximum:"100000" doc:"Minutes that the step was thought to take"`
}

// Ticks are all that was ticked on a job, in the order in which the server got it: of two on a step, the later
// one holds.
type Ticks struct {
	Ticks   []StepTick    `json:"ticks"`
	Refused []RefusedTick `json:"refused" doc:"What was sent and cannot be kept; all else is"`
}

// RefusedTick is a tick that cannot be kept.
type RefusedTick struct {
	ID       string        `json:"id"`
	Problems []job.Problem `json:"problems"`
}

// SentTick is a tick as sent: one that cannot be used keeps none of the others from being kept.
type SentTick json.RawMessage

// UnmarshalJSON keeps the bytes as they came.
func (t *SentTick) UnmarshalJSON(b []byte) error {
	*t = append((*t)[:0], b...)
	return nil
}

// Schema describes it to the API's document.
func (SentTick) Schema(_ huma.Registry) *huma.Schema {
	return &huma.Schema{Description: "A StepTick; one that is none is refused alone"}
}

// Limits of a tick, as the database has them too.
const (
	mostStep  = 60
	mostNote  = 500
	mostUsual = 100_000
)

// read reads a tick as sent.
func (t SentTick) read() (out StepTick, problems job.Problems) {
	refuse := func(field string, value any, wrong, allowed string) {
		problems = append(problems, job.Problem{Field: field, Value: short(value), Wrong: wrong, Allowed: allowed})
	}
	if err := json.Unmarshal(t, &out); err != nil {
		refuse("", string(t), "is no tick", "an object with id, step, done and at")
		return out, problems
	}
	if len(out.ID) != uuidLength || uuid.Validate(out.ID) != nil {
		refuse("id", out.ID, "is no identifier", "a UUID")
	}
	text := func(field, value string, least, most int) {
		if n := utf8.RuneCountInString(value); n < least || n > most {
			refuse(field, value, fmt.Sprintf("has %d characters", n), fmt.Sprintf("%d to %d", least, most))
		}
		if strings.ContainsFunc(value, unit.Unwritable) {
			refuse(field, value, "holds characters that no page shows as they are", "text")
		}
	}
	text("step", out.Step, 1, mostStep)
	text("note", out.Note, 0, mostNote)
	if out.At.IsZero() || out.At.Year() < 2000 || out.At.Year() > 9999 {
		refuse("at", out.At.Format(time.RFC3339), "is no time of such work", "a time from the year 2000 on")
	}
	if !(out.Usual >= 0 && out.Usual <= mostUsual) {
		refuse("usual", out.Usual, "is out of range", fmt.Sprintf("0 to %d min", mostUsual))
	}
	return out, problems
}

func (a *api) registerTicks(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "listTicks", Method: http.MethodGet, Path: "/api/jobs/{id}/ticks",
		Summary: "What was ticked off on a job, in the order in which it came", Errors: []int{404, 410, 503}}, a.ticks)
	on(h, people.Install, huma.Operation{OperationID: "addTicks", Method: http.MethodPost, Path: "/api/jobs/{id}/ticks",
		Summary: "Keep ticks; all of a job come back, and which cannot be kept", Errors: []int{404, 410, 422, 503}}, a.addTicks)
}

func (a *api) ticks(ctx context.Context, in *JobPath) (*body[Ticks], error) {
	ticks, err := a.store(ctx).Ticks(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	stand, err := a.store(ctx).Countersigns(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := Ticks{Ticks: make([]StepTick, len(ticks)), Refused: []RefusedTick{}}
	for i, t := range ticks {
		by := stand[t.ID].ByWhom
		out.Ticks[i] = StepTick{ID: t.ID, Step: t.Step, Done: t.Done, By: t.ByWhom, Note: t.Note, At: t.TickedAt.UTC(), Waits: t.Awaits &&
			by == "",
			Countersigned: by}
	}
	return &body[Ticks]{out}, nil
}

// onlyHolds lets of ticks that would wait for a countersignature only hold points wait.
func (a *api) onlyHolds(ctx context.Context, id string, ticks []store.Tick) error {
	if !slices.ContainsFunc(ticks, func(t store.Tick) bool { return t.Awaits }) {
		return nil
	}
	j, err := a.store(ctx).Get(ctx, id)
	if err != nil {
		return err
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return err
	}
	holds := holdPoints(a.packOf(ctx, j, own, "", time.Time{}).Steps)
	for i, t := range ticks {
		ticks[i].Awaits = t.Awaits && holds[t.Step]
	}
	return nil
}

func (a *api) addTicks(ctx context.Context, in *struct {
	JobPath
	Body []SentTick `maxItems:"500"`
}) (*body[Ticks], error) {
	ticks, refused := []store.Tick{}, []RefusedTick{}
	for _, sent := range in.Body {
		t, problems := sent.read()
		if len(problems) > 0 {
			refused = append(refused, RefusedTick{t.ID, problems})
			continue
		}
		by, problems := authorOf(ctx, t.Person)
		if len(problems) > 0 {
			refused = append(refused, RefusedTick{t.ID, problems})
			continue
		}
		ticks = append(ticks, store.Tick{ID: strings.ToLower(t.ID), Step: t.Step, Done: t.Done, ByWhom: by.Name, PersonID: by.column,
			Awaits: by.Role.Waits() && t.Done, Note: t.Note, TickedAt: who(ctx).byOurClock(t.At), Usual: t.Usual})
	}
	if err := a.onlyHolds(ctx, in.ID, ticks); err != nil {
		return nil, answer(err)
	}
	if err := a.store(ctx).AddTicks(ctx, in.ID, ticks); err != nil {
		return nil, answer(err)
	}
	out, err := a.ticks(ctx, &in.JobPath)
	if err == nil {
		out.Body.Refused = refused
	}
	return out, err
}
