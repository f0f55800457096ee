// Package door signs people in and out: passwords, one-time codes, passkeys, links and the PINs of the bay's tablet, with slow-downs
// for who tries. Hashing, sessions, passkeys and codes are kept libraries'; what is here says who may come in, and when not.
package door

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"encoding/gob"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/alexedwards/scs/pgxstore"
	"github.com/alexedwards/scs/v2"
	"github.com/go-webauthn/webauthn/webauthn"

	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Door is where people come in.
type Door struct {
	store    *store.Door
	sessions *scs.SessionManager
	hashing  *hashing
	passkeys *webauthn.WebAuthn // nil where the address is no name
	origin   *url.URL
	demo     bool
}

// Where a server is reached, and as what.
type Where struct {
	Origin *url.URL // as browsers name it: http://localhost:8080
	Demo   bool     // people of the demo are signed in without a word, on this machine alone
	Secure bool     // it is reached by https alone, at whatever address
}

// sessionCleaning is how often sessions that have ended are swept out.
const sessionCleaning = 10 * time.Minute

// New opens the door of a store.
func New(s *store.Store, where Where) *Door {
	d := &Door{store: s.Door(), sessions: scs.New(), hashing: newHashing(), origin: where.Origin, demo: where.Demo}
	d.sessions.Store = pgxstore.NewWithCleanupInterval(s.Sessions(), sessionCleaning)
	d.sessions.HashTokenInStore = true
	d.sessions.Lifetime = store.LongestFor
	c := &d.sessions.Cookie
	c.Name, c.HttpOnly, c.SameSite, c.Path, c.Persist = "epitrope", true, http.SameSiteLaxMode, "/", true
	if where.Secure || where.Origin != nil && where.Origin.Scheme == "https" {
		c.Secure, c.Name = true, "__Host-epitrope"
	}
	d.passkeys = relyingParty(where.Origin)
	return d
}

// Close stops what runs beside it.
func (d *Door) Close() {
	if s, is := d.sessions.Store.(*pgxstore.PostgresStore); is {
		s.StopCleanup()
	}
}

// CookieName is what the session's cookie is called.
func (d *Door) CookieName() string { return d.sessions.Cookie.Name }

// Demo says whether people of the demo are signed in without a word.
func (d *Door) Demo() bool { return d.demo }

// Refused is why somebody does not come in.
type Refused struct {
	Why  Why
	Says string
	Wait time.Duration // before the next attempt
}

func (r *Refused) Error() string { return r.Says }

// Why somebody is refused.
type Why string

// The reasons.
const (
	Unknown Why = "wrong" // name, password, code or PIN: it does not say which
	Code    Why = "code"  // the one-time code is asked for
	Slow    Why = "slow"  // too many attempts
	Link    Why = "link"  // of no use
	Input   Why = "input"
	Not     Why = "not" // what is asked for is not to be had here
)

func refuse(why Why, format string, args ...any) *Refused {
	return &Refused{Why: why, Says: fmt.Sprintf(format, args...)}
}

// what a session holds.
const (
	signInKey  = "signIn"  // the sign-in that it is of
	currentKey = "current" // to whom the bay's tablet is switched
	untilKey   = "until"   // … and until when
	passkeyKey = "passkey" // what a passkey is asked for
)

func init() {
	gob.Register(time.Time{})
}

// Session is the session of a cookie, as a context that the other methods take. An error means that the database does not answer.
func (d *Door) Session(ctx context.Context, cookie string) (context.Context, error) {
	return d.sessions.Load(ctx, cookie)
}

// In is who is behind a session.
type In struct {
	store.In
	SignIn string
	Nobody bool // the bay's tablet, which nobody has switched to themselves
}

// ErrOut is a session that is of nobody: it never began, or has ended.
var ErrOut = errors.New("nobody is signed in")

// Who is behind a session. It returns ErrOut.
func (d *Door) Who(session context.Context) (In, error) {
	id := d.sessions.GetString(session, signInKey)
	if id == "" {
		return In{}, ErrOut
	}
	current := d.sessions.GetString(session, currentKey)
	if time.Now().After(d.sessions.GetTime(session, untilKey)) {
		current = ""
	}
	in, err := d.store.Who(session, id, current)
	if errors.Is(err, store.ErrNobody) && current != "" { // who switched has left
		current = ""
		in, err = d.store.Who(session, id, "")
	}
	if errors.Is(err, store.ErrNobody) {
		return In{}, ErrOut
	}
	if err != nil {
		return In{}, err
	}
	return In{In: in, SignIn: id, Nobody: in.Shared && current == ""}, nil
}

// Still is who is behind a sign-in that was found before, as they are now. It returns ErrOut.
func (d *Door) Still(ctx context.Context, was In) (In, error) {
	in, err := d.store.Who(ctx, was.SignIn, "")
	if errors.Is(err, store.ErrNobody) {
		return In{}, ErrOut
	}
	return In{In: in, SignIn: was.SignIn, Nobody: in.Shared}, err
}

// Kept writes what was changed in a session, and is the cookie that the browser is to have.
func (d *Door) Kept(session context.Context) (*http.Cookie, error) {
	cookie := d.cookie()
	switch d.sessions.Status(session) {
	case scs.Modified:
		token, expiry, err := d.sessions.Commit(session)
		if err != nil {
			return nil, err
		}
		cookie.Value, cookie.Expires, cookie.MaxAge = token, expiry, int(time.Until(expiry).Seconds())
	case scs.Destroyed:
		cookie.MaxAge = -1
	default:
		return nil, nil
	}
	return cookie, nil
}

func (d *Door) cookie() *http.Cookie {
	c := d.sessions.Cookie
	return &http.Cookie{Name: c.Name, Path: c.Path, HttpOnly: c.HttpOnly, Secure: c.Secure, SameSite: c.SameSite}
}

// begin signs somebody in: the session gets a new name, so that one that was known before is of no use.
func (d *Door) begin(session context.Context, p people.Person, how, agent string) error {
	if err := d.sessions.RenewToken(session); err != nil {
		return err
	}
	if old := d.sessions.GetString(session, signInKey); old != "" {
		if in, err := d.store.Who(session, old, ""); err == nil {
			if err := d.store.End(session, people.Person{ID: in.Signed, Workshop: in.Person.Workshop}, old, ""); err != nil {
				return err
			}
		}
	}
	if err := d.sessions.Clear(session); err != nil {
		return err
	}
	id, err := d.store.Begin(session, p, how, Agent(agent))
	if err == nil {
		d.sessions.Put(session, signInKey, id)
	}
	return err
}

// Out ends the session, and its sign-in with it: the cookie is of no use to anybody after that.
func (d *Door) Out(session context.Context, in In) error {
	if err := d.store.End(session, people.Person{ID: in.Signed, Workshop: in.Person.Workshop}, in.SignIn, ""); err != nil {
		return err
	}
	return d.sessions.Destroy(session)
}

// OutElsewhere ends somebody's sign-ins: one, or where none is named all but this one.
func (d *Door) OutElsewhere(session context.Context, in In, signIn string) error {
	if signIn != "" {
		return d.store.End(session, in.Person, signIn, "")
	}
	return d.store.End(session, in.Person, "", in.SignIn)
}

// OutAll ends all sign-ins of somebody.
func (d *Door) OutAll(ctx context.Context, p people.Person) error { return d.store.End(ctx, p, "", "") }

// mostAgent is how much of what a browser says of itself is kept.
const mostAgent = 200

// Agent is what a browser says of itself, as it is kept.
func Agent(said string) string {
	said = strings.ToValidUTF8(strings.ReplaceAll(said, "\x00", ""), "")
	if r := []rune(said); len(r) > mostAgent {
		return string(r[:mostAgent])
	}
	return said
}

// tokenBytes is how much chance there is in a link.
const tokenBytes = 24

// Token is a new name of a link, which nobody guesses.
func Token() string {
	b := make([]byte, tokenBytes)
	_, _ = rand.Read(b) // it never fails
	return base64.RawURLEncoding.EncodeToString(b)
}
