package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"epitrope/core/job"
	"epitrope/core/owner"
	"epitrope/core/signoff"
	"epitrope/core/trip"
	"epitrope/internal/door"
	"epitrope/internal/export"
	"epitrope/internal/pack"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// GivenLink is a link that a vehicle's owner has.
type GivenLink struct {
	ID      string    `json:"id"`
	Made    time.Time `json:"made"`
	Expires time.Time `json:"expires"`
}

// HandedOver is what a vehicle's owner sees, as it was signed for.
type HandedOver struct {
	Workshop string        `json:"workshop"`
	Title    string        `json:"title"`
	Vehicle  string        `json:"vehicle"`
	SignedBy string        `json:"signedBy"`
	SignedAt time.Time     `json:"signedAt"`
	Booklet  owner.Booklet `json:"booklet"`
	Proven   []string      `json:"proven" doc:"What was proven, a sentence each"`
	Trips    []string      `json:"trips" doc:"Drives that the owner told of, the newest last"`
	Expires  time.Time     `json:"expires"`
}

// ownerFor is how long a vehicle's owner's link is good: over the first look at it, and the first year.
const ownerFor = 400 * 24 * time.Hour

func (a *api) registerOwners(h huma.API) {
	at := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: path, MaxBodyBytes: maxDoor, Summary: summary,
			Errors: []int{403, 404, 409, 410, 413, 422, 429, 503}}
	}
	on(h, people.HandOver, at("ownerLinks", http.MethodGet, "/api/jobs/{id}/links", "Which links a vehicle's owner has"), a.ownerLinks)
	on(h, people.HandOver, at("addOwnerLink", http.MethodPost, "/api/jobs/{id}/links",
		"A link for the vehicle's owner, once it is signed for"), a.addOwnerLink)
	on(h, people.HandOver, at("dropOwnerLink", http.MethodDelete, "/api/jobs/{id}/links/{link}", "Take such a link back"), a.dropOwnerLink)
	on(h, Anyone, at("handed", http.MethodPost, "/api/handed", "What was handed over, by a vehicle's owner's link"), a.handed)
	on(h, Anyone, at("handedBooklet", http.MethodPost, "/api/handed/booklet", "The owner's booklet, by that link"), a.handedBooklet)
	on(h, Anyone, at("handedTrip", http.MethodPost, "/api/handed/trip", "What a drive brought, told by that link"), a.handedTrip)
}

func (a *api) ownerLinks(ctx context.Context, in *JobPath) (*body[[]GivenLink], error) {
	if _, err := a.store(ctx).Get(ctx, in.ID); err != nil {
		return nil, answer(err)
	}
	list, err := a.store(ctx).Links(ctx, store.OwnerLink, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := make([]GivenLink, len(list))
	for i, l := range list {
		out[i] = GivenLink{l.ID, l.MadeAt.UTC(), l.ExpiresAt.UTC()}
	}
	return &body[[]GivenLink]{out}, nil
}

func (a *api) addOwnerLink(ctx context.Context, in *JobPath) (*body[NewLink], error) {
	signed, err := a.store(ctx).Signoffs(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	if len(signed) == 0 {
		return nil, problem(http.StatusConflict, "gates", "Nothing is handed over before it is signed for: sheet 7 says what is open.")
	}
	token, until := door.Token(), time.Now().Add(ownerFor)
	l := store.Link{Kind: store.OwnerLink, JobID: &in.ID, ExpiresAt: until}
	if _, err := a.store(ctx).AddLink(ctx, token, l, "gave the owner a link", ""); err != nil {
		return nil, answer(err)
	}
	return &body[NewLink]{NewLink{"/handed#" + token, until.UTC()}}, nil
}

func (a *api) dropOwnerLink(ctx context.Context, in *struct {
	JobPath
	Link string `path:"link" format:"uuid" pattern:"^[0-9a-fA-F-]{36}$" patternDescription:"a UUID"`
}) (*struct{}, error) {
	l, err := a.store(ctx).LinkOf(ctx, in.Link)
	if err == nil && (l.Kind != store.OwnerLink || l.JobID == nil || *l.JobID != in.ID) {
		err = store.ErrNoLink
	}
	if err != nil {
		return nil, answer(err)
	}
	return nil, answer(a.store(ctx).Revoke(ctx, l, "took the owner's link back"))
}

// handing is what a vehicle's owner's link shows: the job as it was last signed for, and nothing else of the workshop.
type handing struct {
	link   store.Link
	name   string
	signed store.Signoff
	frozen frozen
	pack   pack.Pack
}

// byLink is what a token shows; the context is of its workshop.
func (a *api) byLink(ctx context.Context, token string) (context.Context, handing, error) {
	l, w, err := a.door.Look(ctx, token, who(ctx).from)
	if err != nil {
		return ctx, handing{}, turnedAway(err)
	}
	if l.Kind != store.OwnerLink || l.JobID == nil {
		return ctx, handing{}, problem(http.StatusForbidden, string(door.Link), "This link is for signing in, not for a vehicle's owner.")
	}
	asks := who(ctx)
	asks.in = door.In{In: store.In{Person: people.Person{Workshop: l.WorkshopID}}}
	asks.known = true // of the workshop's settings alone: nobody is behind it
	ctx = context.WithValue(ctx, askingKey{}, asks)
	h := handing{link: l, name: w.Name}
	signed, err := a.store(ctx).Signoffs(ctx, *l.JobID)
	if err != nil || len(signed) == 0 {
		return ctx, h, answer(err)
	}
	h.signed = signed[0]
	if err := json.Unmarshal(h.signed.Frozen, &h.frozen); err != nil {
		return ctx, h, err
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return ctx, h, answer(err)
	}
	h.pack = pack.New(a.built(ctx, h.frozen.Document), own)
	h.pack.Signed, h.pack.Revision, h.pack.Dated = &h.frozen.Signed, fmt.Sprintf("certificate %d", h.signed.Number), h.signed.SignedAt
	return ctx, h, nil
}

func (a *api) handed(ctx context.Context, in *struct{ Body Token }) (*body[HandedOver], error) {
	ctx, h, err := a.byLink(ctx, in.Body.Token)
	if err != nil {
		return nil, err
	}
	out := HandedOver{Workshop: h.name, Title: h.frozen.Document.Title, Vehicle: h.frozen.Document.Vehicle.Model, SignedBy: h.signed.ByWhom,
		SignedAt: h.signed.SignedAt.UTC(), Booklet: h.pack.Owner, Proven: owner.Proven(h.frozen.Signed.Values()), Trips: []string{},
		Expires: h.link.ExpiresAt.UTC()}
	if out.Proven == nil {
		out.Proven = []string{}
	}
	entries, err := a.store(ctx).Proof(ctx, *h.link.JobID)
	if err != nil {
		return nil, answer(err)
	}
	for _, e := range entries {
		if e.Kind == signoff.TripEntry && e.ByWhom == vehiclesOwner {
			out.Trips = append(out.Trips, e.Entry)
		}
	}
	return &body[HandedOver]{out}, nil
}

func (a *api) handedBooklet(ctx context.Context, in *struct{ Body Token }) (*fileAnswer, error) {
	_, h, err := a.byLink(ctx, in.Body.Token)
	if err != nil {
		return nil, err
	}
	data, err := export.OwnerPDF(h.pack)
	if err != nil {
		return nil, err
	}
	return &fileAnswer{"application/pdf", `attachment; filename="booklet.pdf"`, data}, nil
}

// vehiclesOwner stands under what came by a link.
const vehiclesOwner = "the vehicle's owner"

// mostTrips is how many drives a job's owner may tell of.
const mostTrips = 200

// ToldTrip is a drive as a vehicle's owner tells of it.
type ToldTrip struct {
	Token
	Drive trip.Drive `json:"drive"`
}

// TripSays is what a drive means for a vehicle's owner.
type TripSays struct {
	Level trip.Level `json:"level" enum:"as-it-should,less,nothing,says-little"`
	Says  string     `json:"says"`
}

func (a *api) handedTrip(ctx context.Context, in *struct{ Body ToldTrip }) (*body[TripSays], error) {
	if field, wrong := in.Body.Drive.Check(); field != "" {
		return nil, inputProblem(job.Problems{{Field: field, Wrong: wrong,
			Allowed: "hours driven, and what the monitor said before and after"}})
	}
	ctx, h, err := a.byLink(ctx, in.Body.Token.Token)
	if err != nil {
		return nil, err
	}
	there, err := a.store(ctx).Proof(ctx, *h.link.JobID)
	if err != nil {
		return nil, answer(err)
	}
	if len(there) > mostTrips && countTrips(there) >= mostTrips {
		return nil, problem(http.StatusTooManyRequests, string(door.Slow), "That is more drives than are kept here; ring the workshop.")
	}
	got := trip.Of(a.built(ctx, h.frozen.Document), in.Body.Drive, h.frozen.Signed.Values()["charge"])
	entry := tripEntry(in.Body.Drive, got.Says)
	if err := a.store(ctx).AddProof(ctx, *h.link.JobID, []store.ProofEntry{{ID: uuid.NewString(), Kind: signoff.TripEntry, Subject: "trip",
		Entry:  entry,
		ByWhom: vehiclesOwner, TakenAt: time.Now()}}); err != nil {
		return nil, answer(err)
	}
	return &body[TripSays]{TripSays{got.Level, got.Says}}, nil
}

func countTrips(entries []store.ProofEntry) (n int) {
	for _, e := range entries {
		if e.Kind == signoff.TripEntry && e.ByWhom == vehiclesOwner {
			n++
		}
	}
	return n
}

// tripEntry is a drive with what it means, as it is kept.
func tripEntry(d trip.Drive, says string) string {
	text := []rune(fmt.Sprintf("%.1f h, %g %% to %g %%. %s", d.Hours, d.From, d.To, says))
	return string(text[:min(len(text), 500)])
}
