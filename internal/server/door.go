package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

func (a *api) registerDoor(h huma.API) {
	at := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: path, MaxBodyBytes: maxDoor, Summary: summary,
			Errors: []int{403, 413, 422, 429, 503}}
	}
	on(h, Anyone, huma.Operation{OperationID: "me", Method: http.MethodGet, Path: "/api/me",
		Summary: "Who is signed in, and how one signs in here", Errors: []int{503}}, a.me)
	on(h, Anyone, at("signIn", "/api/door", "Sign in by a password"), a.signIn)
	on(h, Anyone, at("signOut", "/api/door/out", "Sign out: the cookie is of no use after that"), a.signOut)
	on(h, Anyone, at("askPasskey", "/api/door/passkey/ask", "Begin to sign in by a passkey"), a.askPasskey)
	on(h, Anyone, at("byPasskey", "/api/door/passkey", "Sign in by a passkey"), a.byPasskey)
	on(h, Anyone, at("lookAtLink", "/api/door/link", "What a link is for"), a.lookAtLink)
	on(h, Anyone, at("join", "/api/door/join", "Come in by a link: begin a workshop, or take an invitation"), a.join)
	on(h, Anyone, at("reset", "/api/door/reset", "Set a password anew by a link"), a.reset)
	on(h, Anyone, at("demo", "/api/door/demo", "Be somebody of the demo; refused anywhere but on this machine"), a.inDemo)
	on(h, Tablet, at("switchTablet", "/api/tablet/switch", "Switch the bay's tablet to somebody by their PIN"), a.switchTo)
	on(h, Tablet, at("leaveTablet", "/api/tablet/leave", "Let the bay's tablet be nobody's"), a.leaveTablet)
	on(h, people.Invite, at("shareTablet", "/api/tablet", "Make this browser the bay's tablet"), a.shareTablet)
}

// maxDoor is the largest request about signing in.
const maxDoor = 64 << 10

// doorOf is the door as who asks came to it.
func (a *api) doorOf(ctx context.Context) *door.Door { return a.door.At(came(ctx).origin) }

// logged notes that somebody tried to come in: who got in is in the trail, who did not here, without what they gave.
func logged(ctx context.Context, how string, err error) error {
	var r *door.Refused
	if errors.As(err, &r) {
		slog.Warn("not let in", "how", how, "why", r.Why, "from", who(ctx).from.Address, "person", person(ctx).ID)
	}
	return turnedAway(err)
}

// turnedAway is why the door refuses, as a problem.
func turnedAway(err error) error {
	var r *door.Refused
	switch {
	case err == nil:
		return nil
	case !errors.As(err, &r):
		return answer(store.Away(err))
	case r.Why == door.Slow:
		p := problem(http.StatusTooManyRequests, string(r.Why), r.Says)
		return huma.ErrorWithHeaders(p, http.Header{"Retry-After": {fmt.Sprint(int(math.Ceil(r.Wait.Seconds())))}})
	case r.Why == door.Input, r.Why == door.Code:
		return problem(http.StatusUnprocessableEntity, string(r.Why), r.Says)
	}
	return problem(http.StatusForbidden, string(r.Why), r.Says)
}

// Credentials are what somebody signs in with.
type Credentials struct {
	Workshop string `json:"workshop,omitempty" maxLength:"80" doc:"Its sign-in name, where there are several"`
	Name     string `json:"name" maxLength:"200" doc:"Or e-mail"`
	Password string `json:"password" maxLength:"600"`
	Code     string `json:"code,omitempty" maxLength:"20" doc:"One-time, where the account asks for it"`
}

func (a *api) signIn(ctx context.Context, in *struct{ Body Credentials }) (*opening[Me], error) {
	given := door.Given{Workshop: in.Body.Workshop, Name: in.Body.Name, Password: in.Body.Password, Code: in.Body.Code}
	if err := a.door.SignIn(who(ctx).session, given, who(ctx).from); err != nil {
		return nil, logged(ctx, "password", err)
	}
	return a.opened(ctx)
}

func (a *api) signOut(ctx context.Context, _ *struct{}) (*opening[Me], error) {
	if asks := who(ctx); asks.known {
		if err := a.door.Out(asks.session, asks.in); err != nil {
			return nil, turnedAway(err)
		}
	}
	return a.opened(ctx)
}

// Ceremony is what a browser's passkeys are asked, as Web Authentication has it.
type Ceremony struct {
	Options any `json:"options"`
}

// CeremonyAnswer is what they answer.
type CeremonyAnswer struct {
	Name   string          `json:"name,omitempty" maxLength:"60" doc:"What a new one is called"`
	Answer json.RawMessage `json:"answer"`
}

// asksPasskey answers with what a browser is asked, and keeps that in the session.
func (a *api) asksPasskey(ctx context.Context, options any, err error) (*opening[Ceremony], error) {
	if err != nil {
		return nil, turnedAway(err)
	}
	cookie, err := a.door.Kept(who(ctx).session)
	if err != nil {
		return nil, turnedAway(err)
	}
	out := &opening[Ceremony]{Body: Ceremony{options}}
	if cookie != nil {
		out.SetCookie = []http.Cookie{*cookie}
	}
	return out, nil
}

func (a *api) askPasskey(ctx context.Context, _ *struct{}) (*opening[Ceremony], error) {
	options, err := a.doorOf(ctx).AskPasskey(who(ctx).session)
	return a.asksPasskey(ctx, options, err)
}

func (a *api) byPasskey(ctx context.Context, in *struct{ Body CeremonyAnswer }) (*opening[Me], error) {
	if err := a.doorOf(ctx).ByPasskey(who(ctx).session, in.Body.Answer, who(ctx).from); err != nil {
		return nil, logged(ctx, "passkey", err)
	}
	return a.opened(ctx)
}

// Token is the secret part of a link.
type Token struct {
	Token string `json:"token" minLength:"1" maxLength:"100"`
}

// LinkIs is what a link is for.
type LinkIs struct {
	Kind     string      `json:"kind" enum:"first,invitation,reset"`
	Workshop string      `json:"workshop"`
	Role     people.Role `json:"role,omitempty" enum:"owner,foreman,designer,installer,apprentice,reader"`
	Name     string      `json:"name,omitempty" doc:"Whose password it sets anew"`
	Expires  time.Time   `json:"expires"`
}

func (a *api) lookAtLink(ctx context.Context, in *struct{ Body Token }) (*body[LinkIs], error) {
	l, w, err := a.door.Look(ctx, in.Body.Token, who(ctx).from)
	if err != nil {
		return nil, logged(ctx, "link", err)
	}
	out := LinkIs{Kind: l.Kind, Workshop: w.Name, Role: l.Role, Expires: l.ExpiresAt.UTC()}
	if l.Kind == store.OwnerLink {
		return nil, problem(http.StatusForbidden, string(door.Link),
			"This link shows a vehicle's owner what was handed over; it signs nobody in.")
	}
	if l.PersonID != nil {
		p, err := a.door.Person(ctx, *l.PersonID)
		if err != nil {
			return nil, turnedAway(err)
		}
		out.Name = p.Name
	}
	return &body[LinkIs]{out}, nil
}

// Join is who comes in by a link.
type Join struct {
	Token
	Name     string `json:"name" maxLength:"200" doc:"As it stands under their work"`
	SignIn   string `json:"signIn" maxLength:"300" doc:"A name or e-mail to sign in with"`
	Password string `json:"password" maxLength:"600"`
	Workshop string `json:"workshop,omitempty" maxLength:"300" doc:"Its name, where the link begins one"`
	Address  string `json:"address,omitempty" maxLength:"80" doc:"Its sign-in name; made of its name where it is empty"`
}

func (a *api) join(ctx context.Context, in *struct{ Body Join }) (*opening[Me], error) {
	b := in.Body
	err := a.door.Join(who(ctx).session, door.Joining{Token: b.Token.Token, Name: b.Name, SignIn: b.SignIn, Password: b.Password,
		Workshop: b.Workshop,
		Address:  b.Address}, who(ctx).from)
	if err != nil {
		return nil, turnedAway(err)
	}
	return a.opened(ctx)
}

// NewPassword sets one anew by a link.
type NewPassword struct {
	Token
	Password string `json:"password" maxLength:"600"`
}

func (a *api) reset(ctx context.Context, in *struct{ Body NewPassword }) (*opening[Me], error) {
	if err := a.door.Reset(who(ctx).session, in.Body.Token.Token, in.Body.Password, who(ctx).from); err != nil {
		return nil, logged(ctx, "reset", err)
	}
	return a.opened(ctx)
}

// Whom names a person.
type Whom struct {
	Person string `json:"person" format:"uuid"`
	PIN    string `json:"pin,omitempty" maxLength:"20"`
}

func (a *api) inDemo(ctx context.Context, in *struct{ Body Whom }) (*opening[Me], error) {
	if !a.door.Demo() || !who(ctx).direct {
		return nil, problem(http.StatusForbidden, string(door.Not),
			"Only a demo, on its own machine and with nothing between, lets anybody in without a word.")
	}
	if err := a.door.InDemo(who(ctx).session, strings.ToLower(in.Body.Person), who(ctx).from); err != nil {
		return nil, turnedAway(err)
	}
	return a.opened(ctx)
}

func (a *api) switchTo(ctx context.Context, in *struct{ Body Whom }) (*opening[Me], error) {
	if err := a.door.Switch(who(ctx).session, who(ctx).in, strings.ToLower(in.Body.Person), in.Body.PIN); err != nil {
		return nil, logged(ctx, "PIN", err)
	}
	return a.opened(ctx)
}

func (a *api) leaveTablet(ctx context.Context, _ *struct{}) (*opening[Me], error) {
	if err := a.door.Leave(who(ctx).session, who(ctx).in); err != nil {
		return nil, turnedAway(err)
	}
	return a.opened(ctx)
}

func (a *api) shareTablet(ctx context.Context, _ *struct{}) (*opening[Me], error) {
	if err := a.door.Share(who(ctx).session, who(ctx).in); err != nil {
		return nil, turnedAway(err)
	}
	return a.opened(ctx)
}
