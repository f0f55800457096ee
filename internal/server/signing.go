package server

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/signoff"
	"epitrope/internal/answers"
	"epitrope/internal/export"
	"epitrope/internal/pack"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Signed is a sign-off.
type Signed struct {
	ID      string    `json:"id"`
	Number  int       `json:"number"`
	Version int       `json:"version" doc:"Of the draft that was signed for"`
	By      string    `json:"by"`
	At      time.Time `json:"at"`
}

// Signing is what is sent to sign.
type Signing struct {
	ID      string `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Version int    `json:"version" minimum:"1" doc:"Of the draft that is signed for"`
}

// frozen is what is kept of a job as it was signed for.
type frozen struct {
	Document job.Document         `json:"document"`
	Entries  []answers.ProofEntry `json:"entries"`
	Steps    []string             `json:"steps"`
	Photos   []Photo              `json:"photos"`
	Signed   pack.Certificate     `json:"signed"`
}

// mostPrinted are how many photographs of a job are printed, the newest.
const mostPrinted = 40

func (a *api) registerSigning(h huma.API) {
	on(h, people.Sign, huma.Operation{OperationID: "sign", Method: http.MethodPost, Path: "/api/jobs/{id}/signoffs", MaxBodyBytes: maxBody,
		Summary: "Sign for a job's installation; refused while a gate is open", DefaultStatus: http.StatusCreated,
		Errors: []int{404, 409, 410, 413, 422, 503}}, a.sign)
	on(h, people.Look, huma.Operation{OperationID: "certificate", Method: http.MethodGet,
		Path:    "/api/jobs/{id}/signoffs/{number}/certificate.pdf",
		Summary: "A certificate as it was signed", Errors: []int{404, 410, 503}}, a.certificate)
}

// gatesOpen is why a job is not signed for.
type gatesOpen struct{ gates []signoff.Gate }

func (e *gatesOpen) Error() string {
	said := make([]string, len(e.gates))
	for i, g := range e.gates {
		said[i] = g.Name + ": " + strings.Join(g.Open, " ") + " " + g.Closes
	}
	return "Gates are open. " + strings.Join(said, " ")
}

// standing is all that was done on a job until now.
type standing struct {
	entries []answers.ProofEntry
	steps   []string
	waiting []string // of the steps: for a countersignature
	photos  []store.Photo
}

func (a *api) standing(ctx context.Context, id string) (out standing, err error) {
	entries, err := a.store(ctx).Proof(ctx, id)
	if err != nil {
		return out, err
	}
	stand, err := a.store(ctx).Countersigns(ctx, id)
	if err != nil {
		return out, err
	}
	out.entries = shownEntries(entries, stand)
	ticks, err := a.store(ctx).Ticks(ctx, id)
	if err != nil {
		return out, err
	}
	last := map[string]store.Tick{}
	for _, t := range ticks {
		last[t.Step] = t
	}
	for _, t := range ticks {
		if l := last[t.Step]; l.ID == t.ID && l.Done {
			out.steps = append(out.steps, t.Step)
			if l.Awaits && stand[l.ID].ByWhom == "" {
				out.waiting = append(out.waiting, t.Step)
			}
		}
	}
	out.photos, err = a.store(ctx).PhotosWhole(ctx, id, mostPrinted)
	return out, err
}

// printed are photographs as they are printed: with the name of the gate or the step that each is tied to.
func printed(photos []store.Photo, d *design.Design, whole pack.Pack) []pack.Photograph {
	names := signoff.Names(d, whole.Steps)
	out := []pack.Photograph{}
	for _, p := range photos {
		out = append(out, pack.Photograph{Tied: cmp.Or(names[p.Tied], p.Tied), Note: p.Note, By: p.ByWhom, At: p.TakenAt,
			Digest: p.Digest,
			JPEG:   p.Content})
	}
	return out
}

func (a *api) sign(ctx context.Context, in *struct {
	JobPath
	Body Signing
}) (*body[Signed], error) {
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	done, err := a.standing(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out, err := a.store(ctx).Sign(ctx, in.ID, in.Body.Version, store.Signoff{ID: strings.ToLower(in.Body.ID), ByWhom: person(ctx).Name,
		SignedAt: time.Now()},
		func(j store.Job, s *store.Signoff) error { return a.freeze(ctx, j, s, own, done) })
	if open, is := err.(*gatesOpen); is { //nolint:errorlint // it comes as it was made
		return nil, problem(http.StatusConflict, "gates", open.Error())
	}
	if err != nil {
		return nil, answer(err)
	}
	return &body[Signed]{Signed{out.ID, out.Number, out.Version, out.ByWhom, out.SignedAt.UTC()}}, nil
}

// freeze puts what is signed for into a sign-off, or says which gates are open.
func (a *api) freeze(ctx context.Context, j store.Job, s *store.Signoff, own pack.Workshop, done standing) error {
	d := a.built(ctx, j.Doc())
	whole := pack.New(d, own)
	whole.Number = j.Number
	counts := map[string]int{}
	shown := []Photo{}
	for _, p := range done.photos {
		counts[p.Tied]++
		shown = append(shown, photo(p))
	}
	now := answers.Prove(d, whole, answers.Entered{Entries: done.entries, Done: done.steps, Waiting: done.waiting, Photos: counts})
	if left := signoff.Left(now.Gates); len(left) > 0 {
		return &gatesOpen{left}
	}
	c := pack.Certified(whole.Proof, now.Findings, now.Gates, now.Reserved, func(reading string) (line pack.ProvenLine) {
		for _, e := range done.entries {
			if e.Kind == signoff.ReadingEntry && e.Subject == reading {
				line = pack.ProvenLine{By: signoff.Under(e.By, e.Countersigned), With: e.With, At: e.At, Raw: e.Entry}
			}
		}
		return line
	})
	c.Number, c.By, c.At, c.Photos = s.Number, s.ByWhom, s.SignedAt, printed(done.photos, d, whole)
	var err error
	if s.Frozen, err = json.Marshal(frozen{j.Doc(), done.entries, done.steps, shown, c}); err != nil {
		return err
	}
	s.Certificate, err = export.CertificatePDF(whole, c)
	return err
}

func (a *api) certificate(ctx context.Context, in *struct {
	JobPath
	Number int `path:"number" minimum:"1"`
}) (*fileAnswer, error) {
	s, err := a.store(ctx).Signoff(ctx, in.ID, in.Number)
	if err != nil {
		return nil, answer(err)
	}
	return &fileAnswer{"application/pdf", fmt.Sprintf(`attachment; filename="certificate-%d.pdf"`, s.Number), s.Certificate},
		a.took(ctx, in.ID, fmt.Sprintf("certificate %d", s.Number))
}

// handedOver puts what was proven and photographed of a job into its pack.
func (a *api) handedOver(ctx context.Context, id string, d *design.Design, p *pack.Pack) error {
	signed, err := a.store(ctx).Signoffs(ctx, id)
	if err != nil {
		return err
	}
	if len(signed) > 0 {
		var f frozen
		if err := json.Unmarshal(signed[0].Frozen, &f); err != nil {
			return err
		}
		p.Signed = &f.Signed
	}
	photos, err := a.store(ctx).PhotosWhole(ctx, id, mostPrinted)
	p.Photos = printed(photos, d, *p)
	return err
}
