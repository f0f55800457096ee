package server

import (
	"context"
	"encoding/base64"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/internal/people"
)

// Account is how somebody signs in, and where they are signed in.
type Account struct {
	SignIn   string       `json:"signIn"`
	Codes    bool         `json:"codes" doc:"One-time codes are asked for"`
	PIN      bool         `json:"pin" doc:"There is one, for the bay's tablet"`
	Passkeys []KeptKey    `json:"passkeys"`
	SignIns  []SignedInAt `json:"signIns" doc:"Where they are signed in, the last seen first"`
}

// KeptKey is a passkey.
type KeptKey struct {
	ID   string     `json:"id"`
	Name string     `json:"name"`
	Made time.Time  `json:"made"`
	Used *time.Time `json:"used,omitempty"`
}

// SignedInAt is where somebody is signed in.
type SignedInAt struct {
	ID     string    `json:"id"`
	How    string    `json:"how" enum:"password,passkey,link,demo"`
	Agent  string    `json:"agent" doc:"What the browser says of itself"`
	Began  time.Time `json:"began"`
	Seen   time.Time `json:"seen"`
	Here   bool      `json:"here"`
	Tablet bool      `json:"tablet"`
}

func (a *api) registerAccount(h huma.API) {
	at := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: path, MaxBodyBytes: maxDoor, Summary: summary,
			Errors: []int{404, 413, 422, 429, 503}}
	}
	on(h, people.Self, at("account", http.MethodGet, "/api/account", "How one signs in, and where one is signed in"), a.account)
	on(h, people.Self, at("endSignIn", http.MethodPost, "/api/account/out", "Sign out elsewhere: at one place, or everywhere but here"),
		a.endSignIn)
	on(h, people.Self, at("setPassword", http.MethodPut, "/api/account/password", "Change one's password; one is signed out elsewhere"),
		a.setPassword)
	on(h, people.Self, at("newCodes", http.MethodPost, "/api/account/codes", "A secret for one-time codes; nothing is kept yet"),
		a.newCodes)
	on(h, people.Self, at("setCodes", http.MethodPut, "/api/account/codes", "Ask for one-time codes, or no longer"), a.setCodes)
	on(h, people.Self, at("setPIN", http.MethodPut, "/api/account/pin", "Set the PIN for the bay's tablet, or take it away"), a.setPIN)
	on(h, people.Self, at("newPasskey", http.MethodPost, "/api/account/passkeys/ask", "Begin to make a passkey"), a.newPasskey)
	on(h, people.Self, at("addPasskey", http.MethodPost, "/api/account/passkeys", "Keep a passkey"), a.addPasskey)
	on(h, people.Self, at("dropPasskey", http.MethodPost, "/api/account/passkeys/drop", "Take a passkey away"), a.dropPasskey)
}

func (a *api) account(ctx context.Context, _ *struct{}) (*body[Account], error) {
	me := who(ctx).in
	has, err := a.door.Has(ctx, me.Person)
	if err != nil {
		return nil, turnedAway(err)
	}
	ins, err := a.store(ctx).SignIns(ctx, me.Person.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := Account{SignIn: has.SignIn, Codes: has.Codes, PIN: has.PIN, Passkeys: []KeptKey{}, SignIns: []SignedInAt{}}
	for _, k := range has.Passkeys {
		out.Passkeys = append(out.Passkeys, KeptKey{base64.RawURLEncoding.EncodeToString(k.ID), k.Name, k.MadeAt.UTC(), k.UsedAt})
	}
	for _, s := range ins {
		out.SignIns = append(out.SignIns, SignedInAt{s.ID, s.How, s.Agent, s.BeganAt.UTC(), s.SeenAt.UTC(), s.ID == me.SignIn, s.Shared})
	}
	return &body[Account]{out}, nil
}

// changed answers with the account as it is now.
func (a *api) changed(ctx context.Context, err error) (*body[Account], error) {
	a.guard.forget()
	if err != nil {
		return nil, turnedAway(err)
	}
	return a.account(ctx, nil)
}

func (a *api) endSignIn(ctx context.Context, in *struct {
	Body struct {
		SignIn string `json:"signIn,omitempty" format:"uuid" doc:"Empty: everywhere but here"`
	}
}) (*body[Account], error) {
	return a.changed(ctx, a.door.OutElsewhere(who(ctx).session, who(ctx).in, in.Body.SignIn))
}

func (a *api) setPassword(ctx context.Context, in *struct {
	Body struct {
		Old      string `json:"old" maxLength:"600"`
		Password string `json:"password" maxLength:"600"`
	}
}) (*body[Account], error) {
	return a.changed(ctx, a.door.SetPassword(who(ctx).session, who(ctx).in, in.Body.Old, in.Body.Password))
}

// CodesSecret is what a device makes one-time codes of.
type CodesSecret struct {
	Secret  string `json:"secret"`
	Address string `json:"address" doc:"The same as an otpauth address, for a picture that the device reads"`
}

func (a *api) newCodes(ctx context.Context, _ *struct{}) (*body[CodesSecret], error) {
	me, err := a.meOf(ctx, who(ctx))
	if err != nil {
		return nil, answer(err)
	}
	secret, address, err := a.door.NewCodes(person(ctx), me.Workshop)
	if err != nil {
		return nil, turnedAway(err)
	}
	return &body[CodesSecret]{CodesSecret{secret, address}}, nil
}

func (a *api) setCodes(ctx context.Context, in *struct {
	Body struct {
		Password string `json:"password" maxLength:"600"`
		Secret   string `json:"secret,omitempty" maxLength:"100" pattern:"^[A-Z2-7]*$" doc:"Empty: none are asked for any longer"`
		Code     string `json:"code,omitempty" maxLength:"20"`
	}
}) (*body[Account], error) {
	return a.changed(ctx, a.door.SetCodes(ctx, person(ctx), in.Body.Password, in.Body.Secret, in.Body.Code))
}

func (a *api) setPIN(ctx context.Context, in *struct {
	Body struct {
		Password string `json:"password" maxLength:"600"`
		PIN      string `json:"pin,omitempty" maxLength:"20" doc:"Empty: there is none any longer"`
	}
}) (*body[Account], error) {
	return a.changed(ctx, a.door.SetPIN(ctx, person(ctx), in.Body.Password, in.Body.PIN))
}

func (a *api) newPasskey(ctx context.Context, in *struct {
	Body struct {
		Password string `json:"password" maxLength:"600"`
	}
}) (*opening[Ceremony], error) {
	options, err := a.doorOf(ctx).NewPasskey(who(ctx).session, person(ctx), in.Body.Password)
	return a.asksPasskey(ctx, options, err)
}

func (a *api) addPasskey(ctx context.Context, in *struct{ Body CeremonyAnswer }) (*body[Account], error) {
	return a.changed(ctx, a.doorOf(ctx).AddPasskey(who(ctx).session, person(ctx), in.Body.Name, in.Body.Answer))
}

func (a *api) dropPasskey(ctx context.Context, in *struct {
	Body struct {
		Password string `json:"password" maxLength:"600"`
		ID       string `json:"id" maxLength:"2000"`
	}
}) (*body[Account], error) {
	id, err := base64.RawURLEncoding.DecodeString(in.Body.ID)
	if err != nil || len(id) == 0 {
		return nil, inputProblem(job.Problems{{Field: "id", Value: short(in.Body.ID), Wrong: "names no passkey",
			Allowed: "one of the account's"}})
	}
	return a.changed(ctx, a.door.DropPasskey(ctx, person(ctx), in.Body.Password, id))
}
