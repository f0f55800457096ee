package door

import (
	"context"
	"errors"
	"net/netip"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"

	"epitrope/core/unit"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// From is who tries, as the server sees them.
type From struct {
	Address string
	Agent   string
}

// net is the network of whoever tries: of a long address its first half, which one customer has whole.
func (f From) net() string {
	at, err := netip.ParseAddr(f.Address)
	if err != nil {
		return f.Address
	}
	if at = at.Unmap(); at.Is6() {
		if p, err := at.Prefix(64); err == nil {
			return p.String()
		}
	}
	return at.String()
}

// Given is what somebody signs in with.
type Given struct {
	Workshop string // its address; empty where a server has one alone
	Name     string // or e-mail
	Password string
	Code     string // one-time, where the account has one
}

// wrongPassword does not say what was wrong: neither whether there is such an account.
var wrongPassword = refuse(Unknown, "Workshop, name or password is not right.")

// SignIn signs somebody in by a password.
func (d *Door) SignIn(session context.Context, g Given, from From) error {
	workshop, err := d.workshop(session, g.Workshop)
	if err != nil && !errors.Is(err, store.ErrNobody) {
		return err
	}
	name := SignInName(g.Name)
	account := "account " + workshop.ID + " " + name
	tries := attempt{account + " from " + from.net(): hereAtThis, "address " + from.net(): fromHere, account: atThis}
	if err := d.counted(session, tries); err != nil {
		return err
	}
	a, err := d.store.Account(session, workshop.ID, name)
	if workshop.ID == "" || errors.Is(err, store.ErrNobody) {
		a = store.Account{}
	} else if err != nil {
		return err
	}
	if same, err := d.hashing.holds(session, g.Password, a.Secrets.Password); err != nil || !same {
		return errors.Join(err, errOf(err == nil, wrongPassword))
	}
	if err := d.code(session, a, g.Code); err != nil {
		return err
	}
	if err := d.right(session, tries); err != nil {
		return err
	}
	return d.begin(session, a.Person.Of(), "password", from.Agent)
}

func errOf(is bool, err error) error {
	if is {
		return err
	}
	return nil
}

// workshop is the one that is named, or the only one.
func (d *Door) workshop(ctx context.Context, address string) (store.Workshop, error) {
	if address = strings.TrimSpace(strings.ToLower(address)); address != "" {
		return d.store.Named(ctx, address)
	}
	all, err := d.store.Workshops(ctx)
	if err != nil {
		return store.Workshop{}, err
	}
	if len(all) != 1 {
		return store.Workshop{}, store.ErrNobody
	}
	return all[0], nil
}

// code asks for a one-time code where an account has them; each is good once.
func (d *Door) code(ctx context.Context, a store.Account, code string) error {
	if a.Secrets.TOTP == "" {
		return nil
	}
	code = strings.ReplaceAll(strings.TrimSpace(code), " ", "")
	if code == "" {
		return refuse(Code, "Give the one-time code of your device as well.")
	}
	step, ok := stepOf(code, a.Secrets.TOTP, time.Now())
	if !ok {
		return refuse(Code, "The one-time code is not right. They change every 30 seconds: look at the clock of the device.")
	}
	fresh, err := d.store.UseStep(ctx, a.Person.ID, step)
	if err == nil && !fresh {
		err = refuse(Code, "The one-time code was used already; wait for the next.")
	}
	return err
}

// period is how long a one-time code is good, in seconds, and skew how many before and after count too.
const (
	period = 30
	skew   = 1
)

// stepOf is the step of a code, where it is one near a moment.
//
// Source: RFC 6238.
func stepOf(code, secret string, now time.Time) (int64, bool) {
	opts := totp.ValidateOpts{Period: period, Digits: otp.DigitsSix, Algorithm: otp.AlgorithmSHA1}
	for off := int64(-skew); off <= skew; off++ {
		at := now.Add(time.Duration(off*period) * time.Second)
		if ok, err := totp.ValidateCustom(code, secret, at, opts); err == nil && ok {
			return at.Unix() / period, true
		}
	}
	return 0, false
}

// SignInName is a name or e-mail as people are found by it.
func SignInName(name string) string { return strings.ToLower(strings.Join(strings.Fields(name), " ")) }

// Limits of names.
const (
	MostName   = 60
	MostSignIn = 120
)

// written says what is wrong with a text that is to be kept.
func written(what, text string, most int) error {
	switch n := utf8.RuneCountInString(text); {
	case strings.TrimSpace(text) == "":
		return refuse(Input, "%s is missing.", what)
	case n > most:
		return refuse(Input, "%s has %d characters; at most %d are allowed.", what, n, most)
	case !utf8.ValidString(text) || strings.ContainsFunc(text, unit.Unwritable):
		return refuse(Input, "%s holds characters that no page shows as they are.", what)
	}
	return nil
}

// Joining is who comes in by a link.
type Joining struct {
	Token    string
	Name     string
	SignIn   string
	Password string
	Workshop string // its name, where the link begins one
	Address  string // what one signs in at there
}

// Join makes a person of a link, and signs them in.
func (d *Door) Join(session context.Context, j Joining, from From) error {
	l, w, err := d.Look(session, j.Token, from)
	if err != nil {
		return err
	}
	if l.Kind != store.FirstLink && l.Kind != store.InvitationLink {
		return badLink
	}
	j.Name, j.SignIn = strings.Join(strings.Fields(j.Name), " "), SignInName(j.SignIn)
	if err := errors.Join(written("Your name", j.Name, MostName), written("What you sign in with", j.SignIn, MostSignIn)); err != nil {
		return first(err)
	}
	workshop := w.Name
	if l.Kind == store.FirstLink {
		j.Workshop, j.Address = strings.Join(strings.Fields(j.Workshop), " "), strings.ToLower(strings.TrimSpace(j.Address))
		workshop = j.Workshop
		if err := written("The workshop's name", j.Workshop, 80); err != nil {
			return err
		}
		if j.Address == "" {
			j.Address = addressOf(j.Workshop)
		}
		if !address.MatchString(j.Address) {
			return refuse(Input, "%q cannot be a workshop's sign-in name; allowed: up to 40 letters a to z, digits and hyphens.", j.Address)
		}
	}
	if wrong, allowed := CheckPassword(j.Password, j.Name, j.SignIn, workshop); wrong != "" {
		return refuse(Input, "The password %s. Allowed: %s.", wrong, allowed)
	}
	hash, err := d.hashing.hash(session, j.Password)
	if err != nil {
		return err
	}
	p, err := d.store.Join(session, j.Token, store.Joining{Name: j.Name, SignIn: j.SignIn, Password: hash, Workshop: j.Workshop,
		Address: j.Address})
	switch {
	case errors.Is(err, store.ErrTaken):
		return refuse(Input, "Somebody of this workshop has that name already; give another.")
	case errors.Is(err, store.ErrNoLink):
		return badLink
	case err != nil:
		return err
	}
	return d.begin(session, p, "link", from.Agent)
}

// first is the first of several errors that were joined.
func first(err error) error {
	var r *Refused
	if errors.As(err, &r) {
		return r
	}
	return err
}

var badLink = refuse(Link, "This link is not, or no longer, of use. Ask whoever gave it to you for another.")

// Look is what a link is for. Whoever tries many is slowed down.
func (d *Door) Look(ctx context.Context, token string, from From) (store.Link, store.Workshop, error) {
	l, w, err := d.store.Link(ctx, token)
	if errors.Is(err, store.ErrNoLink) {
		if err := d.counted(ctx, attempt{"link " + from.net(): withLink}); err != nil {
			return l, w, err
		}
		return l, w, badLink
	}
	return l, w, err
}

// Reset sets a password anew by a link, and signs in.
func (d *Door) Reset(session context.Context, token, password string, from From) error {
	l, w, err := d.Look(session, token, from)
	if err != nil {
		return err
	}
	if l.Kind != store.ResetLink || l.PersonID == nil {
		return badLink
	}
	a, err := d.store.AccountOf(session, *l.PersonID)
	if err != nil {
		return errors.Join(badLink, err)
	}
	if wrong, allowed := CheckPassword(password, a.Person.Name, a.Person.SignIn, w.Name); wrong != "" {
		return refuse(Input, "The password %s. Allowed: %s.", wrong, allowed)
	}
	hash, err := d.hashing.hash(session, password)
	if err != nil {
		return err
	}
	p, err := d.store.Reset(session, token, hash)
	if errors.Is(err, store.ErrNoLink) {
		return badLink
	}
	if err != nil {
		return err
	}
	return d.begin(session, p, "link", from.Agent)
}

// InDemo signs somebody of the demo in, whoever asks: the server lets only its own machine.
func (d *Door) InDemo(session context.Context, person string, from From) error {
	if !d.demo {
		return refuse(Not, "This is no demo.")
	}
	a, err := d.store.AccountOf(session, person)
	if err != nil {
		return err
	}
	if a.Secrets.Password != "" {
		return refuse(Not, "%s has a password, and is nobody of a demo.", a.Person.Name)
	}
	if in, err := d.Who(session); err == nil && in.Person.ID == a.Person.ID && !in.Shared {
		return nil // a second window of theirs: beginning again would end what the first is about to ask
	}
	return d.begin(session, a.Person.Of(), "demo", from.Agent)
}

// Person is who it is, by id.
func (d *Door) Person(ctx context.Context, id string) (people.Person, error) {
	a, err := d.store.AccountOf(ctx, id)
	return a.Person.Of(), err
}
