package server

import (
	"context"
	"crypto/sha256"
	"errors"
	"log/slog"
	"net/http"
	"net/url"
	"time"

	"github.com/danielgtaylor/huma/v2"
	lru "github.com/hashicorp/golang-lru/v2"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Anyone is the act of an operation that needs nobody to be signed in: signing in itself, and what a link is for.
const Anyone people.Act = "anyone"

// Tablet is the act of what is done on the bay's tablet before somebody has switched to themselves.
const Tablet people.Act = "tablet"

// actKey is where an operation says which act it is, in the API's document too.
const actKey = "x-act"

// on registers an operation, with the one act that it is: without one it does not compile.
func on[I, O any](h huma.API, act people.Act, op huma.Operation, handler func(context.Context, *I) (*O, error)) {
	op.Extensions = map[string]any{actKey: string(act)}
	if act != Anyone {
		op.Errors = append(op.Errors, http.StatusUnauthorized, http.StatusForbidden)
	}
	huma.Register(h, op, handler)
}

// asking is who asks, and how.
type asking struct {
	in      door.In
	known   bool            // somebody is signed in
	session context.Context //nolint:containedctx // the library keeps a session in a context
	from    door.From
	direct  bool // from this machine itself, with nothing between
	origin  *url.URL
	ahead   time.Duration // our clock, of the device's
}

type askingKey struct{}

// who is who asks; of nobody it is the zero value.
func who(ctx context.Context) asking {
	a, _ := ctx.Value(askingKey{}).(asking)
	return a
}

// person is who asks, as what is written bears them.
func person(ctx context.Context) people.Person { return who(ctx).in.Person }

// may says whether who asks may do something.
func (a asking) may(act people.Act) bool {
	switch {
	case act == Tablet:
		return a.known && a.in.Shared
	case !a.known || a.in.Nobody:
		return false
	case a.in.Shared:
		return a.in.Person.Role.MayInBay(act)
	}
	return a.in.Person.Role.May(act)
}

// How long who asks is taken to be who they were: where only something is worked out, so that a key does not wait for the
// database, and while the database does not answer.
const (
	workFor   = 5 * time.Second
	outageFor = 15 * time.Minute
	mostKept  = 1024
)

// guard lets in who may, by the operation's act.
type guard struct {
	door *door.Door
	api  huma.API
	seen *lru.Cache[[sha256.Size]byte, seen]
}

// seen is who was behind a cookie, and when.
type seen struct {
	in door.In
	at time.Time
}

func newGuard(d *door.Door, api huma.API) *guard {
	kept, err := lru.New[[sha256.Size]byte, seen](mostKept)
	if err != nil {
		panic(err) // only a size below one is refused
	}
	return &guard{d, api, kept}
}

// check is the middleware of every operation.
func (g *guard) check(ctx huma.Context, next func(huma.Context)) {
	act := people.Act(ctx.Operation().Extensions[actKey].(string))
	asks := came(ctx.Context())
	cookie := ""
	if c, err := huma.ReadCookie(ctx, g.door.CookieName()); err == nil {
		cookie = c.Value
	}
	asks.ahead = ahead(ctx.Header(clockHead))
	if err := g.find(ctx.Context(), cookie, act, &asks); err != nil {
		g.refuse(ctx, err)
		return
	}
	switch {
	case act == Anyone || asks.may(act):
		next(huma.WithValue(ctx, askingKey{}, asks))
	case !asks.known:
		g.refuse(ctx, problem(http.StatusUnauthorized, "out", "Nobody is signed in here. What was typed is kept in this browser."))
	case asks.in.Nobody:
		g.refuse(ctx, problem(http.StatusUnauthorized, "nobody", "This is the bay's tablet: say who you are first, with your PIN."))
	case asks.in.Shared && asks.in.Person.Role.May(act):
		g.refuse(ctx, problem(http.StatusForbidden, "role",
			"The bay's tablet does what the bay does and no more; sign in elsewhere for this."))
	default:
		g.refuse(ctx, mayNot(asks.in.Person.Role))
	}
}

// clockHead is the head of a request that says what its device's clock says. A clock that is off by more than offBy is put right.
const (
	clockHead = "Device-Clock"
	offBy     = 2 * time.Minute
)

// ahead is by how much our clock is ahead of a device's; 0 where both say nearly the same, or the device says nothing.
func ahead(said string) time.Duration {
	at, err := time.Parse(time.RFC3339, said)
	if by := time.Since(at); err == nil && by.Abs() > offBy {
		return by.Round(time.Second)
	}
	return 0
}

// byOurClock is a time that a device's clock gave.
func (a asking) byOurClock(at time.Time) time.Time { return at.Add(a.ahead) }

func mayNot(r people.Role) *Refusal {
	return problem(http.StatusForbidden, "role", "As "+string(r)+" one does not do this here. The workshop's owner says who does what.")
}

// find finds who asks.
func (g *guard) find(ctx context.Context, cookie string, act people.Act, asks *asking) (err error) {
	key := sha256.Sum256([]byte(cookie))
	was, kept := g.seen.Get(key)
	if kept && act == people.Work && time.Since(was.at) < workFor {
		asks.in, asks.known = was.in, true
		return nil
	}
	switch {
	case cookie == "" && act != Anyone:
		return nil
	case kept && !was.in.Shared && !ofTheDoor[act]:
		// What a session holds changes at the door alone: whether its sign-in has ended is asked, and no more.
		asks.in, err = g.door.Still(ctx, was.in)
	default:
		if asks.session, err = g.door.Session(ctx, cookie); err == nil && cookie != "" {
			asks.in, err = g.door.Who(asks.session)
		}
	}
	switch {
	case err == nil && cookie != "":
		asks.known = true
		g.seen.Add(key, seen{asks.in, time.Now()})
		return nil
	case errors.Is(err, door.ErrOut):
		g.seen.Remove(key)
		return nil
	case err != nil && ctx.Err() == nil && kept && act == people.Work && time.Since(was.at) < outageFor:
		asks.in, asks.known = was.in, true // the database is away: what needs none of it goes on
		return nil
	}
	return answer(store.Away(err))
}

// ofTheDoor are the acts that a session is needed for, and not only who is behind it.
var ofTheDoor = map[people.Act]bool{Anyone: true, Tablet: true, people.Self: true, people.Invite: true}

// forget has who asked found again.
func (g *guard) forget() { g.seen.Purge() }

func (g *guard) refuse(ctx huma.Context, err error) {
	var p *Refusal
	if errors.As(err, &p) && p.Status == http.StatusForbidden {
		slog.Warn("refused by role", "operation", ctx.Operation().OperationID, "from", came(ctx.Context()).from.Address)
	}
	if !errors.As(err, &p) {
		_ = huma.WriteErr(g.api, ctx, http.StatusInternalServerError, "", err)
		return
	}
	ctx.SetHeader("Content-Type", p.ContentType(""))
	ctx.SetStatus(p.Status)
	_, _ = ctx.BodyWriter().Write(p.encoded())
}

// cameKey is where the request's own way is kept: from where, and to which address.
type cameKey struct{}

// came is how a request came, with nobody known yet.
func came(ctx context.Context) asking {
	a, _ := ctx.Value(cameKey{}).(asking)
	return a
}
