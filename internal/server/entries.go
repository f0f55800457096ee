package server

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"epitrope/core/job"
	"epitrope/core/signoff"
	"epitrope/core/unit"
	"epitrope/internal/answers"
	"epitrope/internal/store"
)

// SentEntry is an entry as sent: one that cannot be used keeps none of the others from being kept.
type SentEntry json.RawMessage

// UnmarshalJSON keeps the bytes as they came.
func (e *SentEntry) UnmarshalJSON(b []byte) error {
	*e = append((*e)[:0], b...)
	return nil
}

// Schema describes it to the API's document.
func (SentEntry) Schema(_ huma.Registry) *huma.Schema {
	return &huma.Schema{Description: "A ProofEntry; one that is none is refused alone"}
}

// RefusedEntry is an entry that cannot be kept.
type RefusedEntry struct {
	ID       string        `json:"id"`
	Problems []job.Problem `json:"problems"`
}

// read reads an entry as sent.
func (e SentEntry) read() (out answers.ProofEntry, problems job.Problems) {
	refuse := func(field string, value any, wrong, allowed string) {
		problems = append(problems, job.Problem{Field: field, Value: short(value), Wrong: wrong, Allowed: allowed})
	}
	if err := json.Unmarshal(e, &out); err != nil {
		refuse("", string(e), "is no entry", "an object with id, kind, subject, entry and at")
		return out, problems
	}
	if len(out.ID) != uuidLength || uuid.Validate(out.ID) != nil {
		refuse("id", out.ID, "is no identifier", "a UUID")
	}
	kinds := []string{signoff.ReadingEntry, signoff.WaiverEntry, signoff.StatementEntry, signoff.TripEntry}
	kinds = append(kinds, answers.LogEntries...)
	traced := slices.Contains(answers.CaseEntries, out.Kind)
	if !traced && !slices.Contains(kinds, out.Kind) {
		refuse("kind", out.Kind, "is not known", "one of "+strings.Join(append(kinds, answers.CaseEntries...), ", "))
	}
	switch {
	case traced && (len(out.Case) != uuidLength || uuid.Validate(out.Case) != nil):
		refuse("case", out.Case, "is no identifier", "a UUID: the case that it is of")
	case !traced && out.Case != "":
		refuse("case", out.Case, "belongs to no such entry", "none: only what is entered while a fault is traced is of a case")
	}
	text := func(field, value string, least, most int) {
		if n := utf8.RuneCountInString(strings.TrimSpace(value)); n < least || utf8.RuneCountInString(value) > most {
			refuse(field, value, fmt.Sprintf("has %d characters", n), fmt.Sprintf("%d to %d", least, most))
		}
		if strings.ContainsFunc(value, unit.Unwritable) {
			refuse(field, value, "holds characters that no page shows as they are", "text")
		}
	}
	text("subject", out.Subject, 1, 60)
	text("entry", out.Entry, 1, 500)
	text("with", out.With, 0, 120)
	text("state", out.State, 0, 300)
	if out.At.Year() < 2000 || out.At.Year() > 9999 {
		refuse("at", out.At.Format(time.RFC3339), "is no time of such work", "a time from the year 2000 on")
	}
	return out, problems
}

func (a *api) addProof(ctx context.Context, in *struct {
	JobPath
	Body []SentEntry `maxItems:"500"`
}) (*body[ProofRecord], error) {
	entries, refused := []store.ProofEntry{}, []RefusedEntry{}
	for _, sent := range in.Body {
		e, problems := sent.read()
		if len(problems) > 0 {
			refused = append(refused, RefusedEntry{e.ID, problems})
			continue
		}
		by, problems := authorOf(ctx, e.Person)
		if len(problems) > 0 {
			refused = append(refused, RefusedEntry{e.ID, problems})
			continue
		}
		entries = append(entries, store.ProofEntry{ID: strings.ToLower(e.ID), Kind: e.Kind, Subject: e.Subject, Entry: e.Entry,
			ByWhom:   by.Name,
			PersonID: by.column, Awaits: by.Role.Waits() && awaits(e), WithWhat: e.With, State: e.State,
			CaseID: caseOf(e), AsFound: e.Found,
			TakenAt: who(ctx).byOurClock(e.At)})
	}
	failed, err := a.failedOf(ctx, in.ID, entries)
	if err != nil {
		return nil, answer(err)
	}
	if err := a.store(ctx).AddProof(ctx, in.ID, entries, failed...); err != nil {
		return nil, answer(err)
	}
	out, err := a.proofRecord(ctx, &in.JobPath)
	if err == nil {
		out.Body.Refused = refused
	}
	return out, err
}

// awaits says whether what an apprentice enters so waits for a countersignature.
func awaits(e answers.ProofEntry) bool {
	return e.Kind != signoff.TripEntry && e.Case == "" && !slices.Contains(answers.LogEntries, e.Kind)
}

// caseOf is the case that an entry is of; nil for none.
func caseOf(e answers.ProofEntry) *string {
	if e.Case == "" {
		return nil
	}
	id := strings.ToLower(e.Case)
	return &id
}

func shownEntries(entries []store.ProofEntry, stand map[string]store.Countersign) []answers.ProofEntry {
	out := make([]answers.ProofEntry, len(entries))
	for i, e := range entries {
		by := stand[e.ID].ByWhom
		out[i] = answers.ProofEntry{ID: e.ID, Kind: e.Kind, Subject: e.Subject, Entry: e.Entry, By: e.ByWhom, With: e.WithWhat,
			State: e.State, Case: value(e.CaseID), Found: e.AsFound,
			At:    e.TakenAt.UTC(),
			Waits: e.Awaits && by == "", Countersigned: by}
	}
	return out
}

// value is what a column holds; "" for nothing.
func value(column *string) string {
	if column == nil {
		return ""
	}
	return *column
}
