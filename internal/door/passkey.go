package door

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"net"
	"net/http"
	"net/url"
	"strings"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"

	"epitrope/internal/people"
	"epitrope/internal/store"
)

// relyingParty is the server as passkeys know it; nil where its address is no name.
func relyingParty(origin *url.URL) *webauthn.WebAuthn {
	if origin == nil || WhyNoPasskeys(origin) != "" {
		return nil
	}
	w, err := webauthn.New(&webauthn.Config{RPID: origin.Hostname(), RPDisplayName: "Epitrope", RPOrigins: []string{origin.Scheme + "://" +
		origin.Host},
		AuthenticatorSelection: protocol.AuthenticatorSelection{ResidentKey: protocol.ResidentKeyRequirementRequired,
			UserVerification: protocol.VerificationRequired}})
	if err != nil {
		return nil
	}
	return w
}

// WhyNoPasskeys says why passkeys cannot be had at an address, and nothing where they can.
func WhyNoPasskeys(at *url.URL) string {
	switch host := at.Hostname(); {
	case net.ParseIP(host) != nil:
		return "Passkeys belong to a name, and this address is a number: open the server by its name, on this machine as localhost."
	case at.Scheme != "https" && host != "localhost" && !strings.HasSuffix(host, ".localhost"):
		return "Passkeys need https, and this address has none."
	}
	return ""
}

// At is the same door as it is reached at an address: passkeys belong to it. Only an address that the server answers to is given.
func (d *Door) At(origin *url.URL) *Door {
	if d.origin != nil && d.origin.Scheme == "https" {
		return d
	}
	other := *d
	other.origin, other.passkeys = origin, relyingParty(origin)
	return &other
}

// Passkeys says why there are none to be had, and nothing where there are.
func (d *Door) Passkeys() string {
	if d.origin == nil {
		return "Passkeys belong to a name, and this server does not know its own."
	}
	return WhyNoPasskeys(d.origin)
}

// holder is somebody as passkeys know them.
type holder struct {
	person people.Person
	keys   []webauthn.Credential
}

func (h holder) WebAuthnID() []byte                         { return []byte(h.person.ID) }
func (h holder) WebAuthnName() string                       { return h.person.Name }
func (h holder) WebAuthnDisplayName() string                { return h.person.Name }
func (h holder) WebAuthnCredentials() []webauthn.Credential { return h.keys }

func (d *Door) holder(ctx context.Context, p people.Person) (h holder, err error) {
	list, err := d.store.Passkeys(ctx, p.ID)
	h.person = p
	for _, k := range list {
		var c webauthn.Credential
		if err := json.Unmarshal(k.Credential, &c); err != nil {
			return h, err
		}
		h.keys = append(h.keys, c)
	}
	return h, err
}

// asked keeps what a passkey was asked for until it answers.
func (d *Door) asked(session context.Context, s *webauthn.SessionData) error {
	kept, err := json.Marshal(s)
	if err == nil {
		d.sessions.Put(session, passkeyKey, kept)
	}
	return err
}

// wasAsked is what a passkey was asked for, once.
func (d *Door) wasAsked(session context.Context) (s webauthn.SessionData, err error) {
	kept := d.sessions.PopBytes(session, passkeyKey)
	if kept == nil || json.Unmarshal(kept, &s) != nil {
		return s, refuse(Not, "No passkey was asked for; begin again.")
	}
	return s, nil
}

// NewPasskey begins to make one: what the browser is asked.
func (d *Door) NewPasskey(session context.Context, p people.Person, password string) (any, error) {
	if d.passkeys == nil {
		return nil, refuse(Not, "%s", d.Passkeys())
	}
	if err := d.Proves(session, p, password); err != nil {
		return nil, err
	}
	h, err := d.holder(session, p)
	if err != nil {
		return nil, err
	}
	options, s, err := d.passkeys.BeginRegistration(h, webauthn.WithExclusions(webauthn.Credentials(h.keys).CredentialDescriptors()))
	if err != nil {
		return nil, err
	}
	return options.Response, d.asked(session, s)
}

// AddPasskey keeps the one that a browser made.
func (d *Door) AddPasskey(session context.Context, p people.Person, name string, answer json.RawMessage) error {
	if d.passkeys == nil {
		return refuse(Not, "%s", d.Passkeys())
	}
	if err := written("The passkey's name", name, 60); err != nil {
		return err
	}
	s, err := d.wasAsked(session)
	if err != nil {
		return err
	}
	h, err := d.holder(session, p)
	if err != nil {
		return err
	}
	c, err := d.passkeys.FinishRegistration(h, s, asRequest(answer))
	if err != nil {
		return badPasskey(err)
	}
	kept, err := json.Marshal(c)
	if err != nil {
		return err
	}
	return d.store.AddPasskey(session, p, name, c.ID, kept)
}

// DropPasskey takes one away.
func (d *Door) DropPasskey(ctx context.Context, p people.Person, password string, id []byte) error {
	if err := d.Proves(ctx, p, password); err != nil {
		return err
	}
	return d.store.DropPasskey(ctx, p, id)
}

// AskPasskey begins to sign in by one: what the browser is asked.
func (d *Door) AskPasskey(session context.Context) (any, error) {
	if d.passkeys == nil {
		return nil, refuse(Not, "%s", d.Passkeys())
	}
	options, s, err := d.passkeys.BeginDiscoverableLogin(webauthn.WithUserVerification(protocol.VerificationRequired))
	if err != nil {
		return nil, err
	}
	return options.Response, d.asked(session, s)
}

// ByPasskey signs somebody in by one. It is proof of two things at once, what one has and who one is: no code is asked for.
func (d *Door) ByPasskey(session context.Context, answer json.RawMessage, from From) error {
	if d.passkeys == nil {
		return refuse(Not, "%s", d.Passkeys())
	}
	tries := attempt{"passkey " + from.net(): fromHere}
	if err := d.counted(session, tries); err != nil {
		return err
	}
	s, err := d.wasAsked(session)
	if err != nil {
		return err
	}
	var who people.Person
	c, err := d.passkeys.FinishDiscoverableLogin(func(_, handle []byte) (webauthn.User, error) {
		a, err := d.store.AccountOf(session, string(handle))
		if err != nil {
			return nil, err
		}
		who = a.Person.Of()
		return d.holder(session, who)
	}, s, asRequest(answer))
	if err != nil {
		if errors.Is(err, store.ErrUnavailable) {
			return err
		}
		return badPasskey(err)
	}
	if c.Authenticator.CloneWarning {
		return refuse(Unknown, "This passkey counts backwards, as a copied one does. Sign in by password, and take it away.")
	}
	kept, err := json.Marshal(c)
	if err != nil {
		return err
	}
	if err := errors.Join(d.store.UsedPasskey(session, c.ID, kept), d.right(session, tries)); err != nil {
		return err
	}
	return d.begin(session, who, "passkey", from.Agent)
}

func badPasskey(error) error { return refuse(Unknown, "This passkey does not sign anybody in here.") }

// asRequest is an answer of a browser as its library reads it.
func asRequest(answer json.RawMessage) *http.Request {
	r, err := http.NewRequest(http.MethodPost, "/", bytes.NewReader(answer))
	if err != nil {
		panic(err) // the address is constant
	}
	r.Header.Set("Content-Type", "application/json")
	return r
}
