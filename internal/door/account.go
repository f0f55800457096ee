package door

import (
	"context"
	"errors"
	"strings"
	"time"

	"github.com/pquerna/otp/totp"

	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Proves asks for somebody's password before what they sign in with is changed.
func (d *Door) Proves(ctx context.Context, p people.Person, password string) error {
	tries := attempt{"password " + p.ID: ofAPassword}
	if err := d.counted(ctx, tries); err != nil {
		return err
	}
	a, err := d.store.AccountOf(ctx, p.ID)
	if err != nil {
		return err
	}
	same, err := d.hashing.holds(ctx, password, a.Secrets.Password)
	if err != nil {
		return err
	}
	if !same {
		return refuse(Unknown, "That is not your password.")
	}
	return d.right(ctx, tries)
}

// SetPassword changes somebody's password; who is signed in elsewhere is signed out there.
func (d *Door) SetPassword(session context.Context, in In, old, password string) error {
	if err := d.Proves(session, in.Person, old); err != nil {
		return err
	}
	a, err := d.store.AccountOf(session, in.Person.ID)
	if err != nil {
		return err
	}
	if wrong, allowed := CheckPassword(password, a.Person.Name, a.Person.SignIn); wrong != "" {
		return refuse(Input, "The password %s. Allowed: %s.", wrong, allowed)
	}
	hash, err := d.hashing.hash(session, password)
	if err != nil {
		return err
	}
	if err := d.store.PutSecret(session, in.Person, "password", hash, "changed their password"); err != nil {
		return err
	}
	return d.store.End(session, in.Person, "", in.SignIn)
}

// NewCodes is a secret for one-time codes, and the address that a device reads it from. Nothing is kept until one of its codes is given.
func (d *Door) NewCodes(p people.Person, workshop string) (secret, address string, err error) {
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Epitrope " + strings.ReplaceAll(workshop, ":", " "),
		AccountName: strings.ReplaceAll(p.Name, ":", " ")})
	if err != nil {
		return "", "", err
	}
	return key.Secret(), key.URL(), nil
}

// SetCodes asks for one-time codes from now on, of a secret whose code is given; an empty secret ends it.
func (d *Door) SetCodes(ctx context.Context, p people.Person, password, secret, code string) error {
	if err := d.Proves(ctx, p, password); err != nil {
		return err
	}
	if secret == "" {
		return d.store.PutSecret(ctx, p, "totp", "", "ended one-time codes")
	}
	step, ok := stepOf(strings.ReplaceAll(strings.TrimSpace(code), " ", ""), secret, time.Now())
	if !ok {
		return refuse(Code, "The one-time code is not right. They change every 30 seconds: look at the clock of the device.")
	}
	if err := d.store.PutSecret(ctx, p, "totp", secret, "asks for one-time codes"); err != nil {
		return err
	}
	_, err := d.store.UseStep(ctx, p.ID, step)
	return err
}

// PIN lengths.
const (
	leastPIN = 4
	mostPIN  = 8
)

// PINs that stand in these are tried first.
const (
	upwards   = "01234567890"
	downwards = "09876543210"
)

// SetPIN sets the PIN for the bay's tablet; an empty one takes it away.
func (d *Door) SetPIN(ctx context.Context, p people.Person, password, pin string) error {
	if err := d.Proves(ctx, p, password); err != nil {
		return err
	}
	if pin == "" {
		return d.store.PutSecret(ctx, p, "pin", "", "took their PIN away")
	}
	if len(pin) < leastPIN || len(pin) > mostPIN || strings.Trim(pin, "0123456789") != "" {
		return refuse(Input, "A PIN has 4 to 8 digits.")
	}
	if once(pin) || strings.Contains(upwards, pin) || strings.Contains(downwards, pin) {
		return refuse(Input, "Such a PIN is tried first; take another.")
	}
	hash, err := d.hashing.hash(ctx, pin)
	if err != nil {
		return err
	}
	return d.store.PutSecret(ctx, p, "pin", hash, "set their PIN")
}

// Has is what somebody signs in with.
type Has struct {
	SignIn   string
	Codes    bool
	PIN      bool
	Passkeys []store.Passkey
}

// Has is what somebody signs in with.
func (d *Door) Has(ctx context.Context, p people.Person) (h Has, err error) {
	a, err := d.store.AccountOf(ctx, p.ID)
	if err != nil {
		return h, err
	}
	h.SignIn, h.Codes, h.PIN = a.Person.SignIn, a.Secrets.TOTP != "", a.Secrets.PIN != ""
	h.Passkeys, err = d.store.Passkeys(ctx, p.ID)
	return h, err
}

// Share makes this the bay's tablet: people switch on it by PIN, for what the bay does.
func (d *Door) Share(session context.Context, in In) error {
	if err := d.store.Share(session, in.Person, in.SignIn); err != nil {
		return err
	}
	d.sessions.Remove(session, currentKey)
	return d.sessions.RenewToken(session)
}

// AtTablet are the people who may switch to themselves there.
func (d *Door) AtTablet(ctx context.Context, in In) ([]store.PersonRow, error) {
	if !in.Shared {
		return nil, nil
	}
	return d.store.WithPIN(ctx, in.Person.Workshop)
}

// switchedFor is how long the bay's tablet stays switched to somebody.
const switchedFor = 2 * time.Hour

// Switch switches the bay's tablet to somebody by their PIN.
func (d *Door) Switch(session context.Context, in In, person, pin string) error {
	if !in.Shared {
		return refuse(Not, "Only the bay's tablet is switched by PIN.")
	}
	tries := attempt{"pin " + person: byPIN}
	if err := d.counted(session, tries); err != nil {
		return err
	}
	a, err := d.store.AccountOf(session, person)
	if errors.Is(err, store.ErrNobody) || a.Person.WorkshopID != in.Person.Workshop {
		a, err = store.Account{}, nil
	}
	if err != nil {
		return err
	}
	same, err := d.hashing.holds(session, pin, a.Secrets.PIN)
	if err != nil {
		return err
	}
	if !same {
		return refuse(Unknown, "That is not the PIN. After a few that are wrong it has to wait.")
	}
	if err := d.right(session, tries); err != nil {
		return err
	}
	d.sessions.Put(session, currentKey, person)
	d.sessions.Put(session, untilKey, time.Now().Add(switchedFor))
	return d.sessions.RenewToken(session)
}

// Leave lets the bay's tablet be nobody's until somebody switches to themselves.
func (d *Door) Leave(session context.Context, in In) error {
	if !in.Shared {
		return refuse(Not, "Only the bay's tablet is put down; elsewhere sign out.")
	}
	d.sessions.Remove(session, currentKey)
	return nil
}
