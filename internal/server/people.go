package server

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Member is somebody of the workshop, or who was.
type Member struct {
	Somebody
	SignIn string     `json:"signIn" doc:"What they sign in with; empty for who may not see it"`
	Joined time.Time  `json:"joined"`
	Left   *time.Time `json:"left,omitempty"`
	Below  bool       `json:"below" doc:"Who asks may change them"`
}

// RoleMay is a role with what it may do.
type RoleMay struct {
	Role people.Role  `json:"role" enum:"owner,foreman,designer,installer,apprentice,reader"`
	May  []people.Act `json:"may"`
	Give bool         `json:"give" doc:"Who asks may give it"`
}

// Invitation is a link that nobody has used yet.
type Invitation struct {
	ID      string      `json:"id"`
	Role    people.Role `json:"role" enum:"owner,foreman,designer,installer,apprentice,reader"`
	Made    time.Time   `json:"made"`
	Expires time.Time   `json:"expires"`
}

// Workforce are the people of the workshop, what each role may do, and who is invited.
type Workforce struct {
	People      []Member     `json:"people"`
	Roles       []RoleMay    `json:"roles" doc:"The highest first"`
	Acts        []people.Act `json:"acts"`
	Invitations []Invitation `json:"invitations"`
}

// NewLink is a link that was made: it is said once, and kept by nobody.
type NewLink struct {
	Address string    `json:"address" doc:"From the first slash on"`
	Expires time.Time `json:"expires"`
}

// How long links are good.
const (
	invitedFor = 7 * 24 * time.Hour
	resetFor   = 24 * time.Hour
)

func (a *api) registerPeople(h huma.API) {
	at := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: path, MaxBodyBytes: maxDoor, Summary: summary, Errors: []int{404, 409,
			413,
			422, 503}}
	}
	on(h, people.Look, at("people", http.MethodGet, "/api/people", "Who works here, and what each role may do"), a.people)
	on(h, people.Invite, at("invite", http.MethodPost, "/api/people/invitations", "Invite somebody by a link"), a.invite)
	on(h, people.Invite, at("uninvite", http.MethodDelete, "/api/people/invitations/{id}", "Take an invitation back"), a.uninvite)
	on(h, people.Invite, at("setRole", http.MethodPut, "/api/people/{id}/role", "Give somebody another role"), a.setRole)
	on(h, people.Invite, at("letGo", http.MethodDelete, "/api/people/{id}", "Let somebody go: their work stays under their name"), a.letGo)
	on(h, people.Invite, at("resetLink", http.MethodPost, "/api/people/{id}/reset", "A link that sets somebody's password anew"),
		a.resetLink)
}

func (a *api) people(ctx context.Context, _ *struct{}) (*body[Workforce], error) {
	list, err := a.store(ctx).People(ctx)
	if err != nil {
		return nil, answer(err)
	}
	me, invites := person(ctx), who(ctx).may(people.Invite)
	out := Workforce{People: []Member{}, Roles: []RoleMay{}, Acts: people.Acts, Invitations: []Invitation{}}
	for _, p := range list {
		m := Member{Somebody: somebody(p.Of()), Joined: p.JoinedAt.UTC(), Left: p.LeftAt, Below: invites && p.LeftAt == nil &&
			me.Role.Over(p.Role)}
		if invites || p.ID == me.ID {
			m.SignIn = p.SignIn
		}
		out.People = append(out.People, m)
	}
	for _, r := range people.Roles {
		may := RoleMay{Role: r, May: []people.Act{}, Give: invites && me.Role.Over(r)}
		for _, act := range people.Acts {
			if r.May(act) {
				may.May = append(may.May, act)
			}
		}
		out.Roles = append(out.Roles, may)
	}
	if !invites {
		return &body[Workforce]{out}, nil
	}
	links, err := a.store(ctx).Links(ctx, store.InvitationLink, "")
	if err != nil {
		return nil, answer(err)
	}
	for _, l := range links {
		out.Invitations = append(out.Invitations, Invitation{l.ID, l.Role, l.MadeAt.UTC(), l.ExpiresAt.UTC()})
	}
	return &body[Workforce]{out}, nil
}

// RoleOf is a role that is given.
type RoleOf struct {
	Role people.Role `json:"role" enum:"owner,foreman,designer,installer,apprentice,reader"`
}

// over refuses to touch those whom who asks does not stand above.
func over(ctx context.Context, roles ...people.Role) error {
	for _, r := range roles {
		if !person(ctx).Role.Over(r) {
			return problem(http.StatusForbidden, "role",
				"A "+string(person(ctx).Role)+" makes and changes those below alone, and "+string(r)+" is not.")
		}
	}
	return nil
}

func (a *api) invite(ctx context.Context, in *struct{ Body RoleOf }) (*body[NewLink], error) {
	if err := over(ctx, in.Body.Role); err != nil {
		return nil, err
	}
	token, until := door.Token(), time.Now().Add(invitedFor)
	l := store.Link{Kind: store.InvitationLink, Role: in.Body.Role, ExpiresAt: until}
	if _, err := a.store(ctx).AddLink(ctx, token, l, "invited", string(in.Body.Role)); err != nil {
		return nil, answer(err)
	}
	return &body[NewLink]{NewLink{"/join#" + token, until.UTC()}}, nil
}

// IDPath names something in an address.
type IDPath struct {
	ID string `path:"id" format:"uuid" pattern:"^[0-9a-fA-F-]{36}$" patternDescription:"a UUID"`
}

func (a *api) uninvite(ctx context.Context, in *IDPath) (*struct{}, error) {
	l, err := a.store(ctx).LinkOf(ctx, in.ID)
	if err == nil && l.Kind != store.InvitationLink {
		err = store.ErrNoLink
	}
	if err != nil {
		return nil, answer(err)
	}
	if err := over(ctx, l.Role); err != nil {
		return nil, err
	}
	return nil, answer(a.store(ctx).Revoke(ctx, l, "took an invitation back"))
}

// below is somebody whom who asks stands above.
func (a *api) below(ctx context.Context, id string) (store.PersonRow, error) {
	p, err := a.store(ctx).Person(ctx, id)
	if err != nil {
		return p, answer(err)
	}
	return p, over(ctx, p.Role)
}

func (a *api) setRole(ctx context.Context, in *struct {
	IDPath
	Body RoleOf
}) (*body[Workforce], error) {
	if _, err := a.below(ctx, in.ID); err != nil {
		return nil, err
	}
	if err := over(ctx, in.Body.Role); err != nil {
		return nil, err
	}
	if err := a.store(ctx).SetRole(ctx, in.ID, in.Body.Role); err != nil {
		return nil, answer(err)
	}
	a.guard.forget()
	return a.people(ctx, nil)
}

func (a *api) letGo(ctx context.Context, in *IDPath) (*struct{}, error) {
	p, err := a.below(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	if err := a.store(ctx).Leave(ctx, in.ID); err != nil {
		return nil, answer(err)
	}
	a.guard.forget()
	return nil, turnedAway(a.door.OutAll(ctx, p.Of()))
}

func (a *api) resetLink(ctx context.Context, in *IDPath) (*body[NewLink], error) {
	p, err := a.below(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	token, until := door.Token(), time.Now().Add(resetFor)
	l := store.Link{Kind: store.ResetLink, PersonID: &p.ID, ExpiresAt: until}
	if _, err := a.store(ctx).AddLink(ctx, token, l, "reset link", p.Name); err != nil {
		return nil, answer(err)
	}
	return &body[NewLink]{NewLink{"/reset#" + token, until.UTC()}}, nil
}
