package server

import (
	"context"
	"errors"
	"net/http"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Somebody is a person of the workshop.
type Somebody struct {
	ID   string      `json:"id"`
	Name string      `json:"name"`
	Role people.Role `json:"role" enum:"owner,foreman,designer,installer,apprentice,reader"`
}

func somebody(p people.Person) Somebody { return Somebody{p.ID, p.Name, p.Role} }

// Me is who asks, and how the door stands for whoever is not in.
type Me struct {
	Person   *Somebody    `json:"person,omitempty" doc:"Who is signed in; nobody where it is not there"`
	Workshop string       `json:"workshop" doc:"What it is called; empty for who is not in"`
	May      []people.Act `json:"may" doc:"What they may do"`
	Waits    bool         `json:"waits" doc:"What they sign for waits for a countersignature"`
	Tablet   bool         `json:"tablet" doc:"It is the bay's tablet, on which people switch by PIN"`
	Others   []Somebody   `json:"others" doc:"To whom it can be switched: at the tablet by PIN, in the demo without a word"`
	Surveyed []string     `json:"surveyed" doc:"The parts of a document that who may survey and not design may change"`
	Begun    bool         `json:"begun" doc:"There is a workshop"`
	Several  bool         `json:"several" doc:"There are several: which one is said when signing in"`
	Demo     bool         `json:"demo" doc:"It is the demo, on this machine"`
	Passkeys string       `json:"passkeys" doc:"Why there are no passkeys here; empty where there are"`
}

// opening is an answer that lets somebody in, or out.
type opening[T any] struct {
	SetCookie []http.Cookie `header:"Set-Cookie"`
	Body      T
}

// opened answers with who asks now, and the cookie that the browser is to have.
func (a *api) opened(ctx context.Context) (*opening[Me], error) {
	asks := who(ctx)
	a.guard.forget()
	cookie, err := a.door.Kept(asks.session)
	if err != nil {
		return nil, answer(store.Away(err))
	}
	asks.in, asks.known = door.In{}, false
	if in, err := a.door.Who(asks.session); err == nil {
		asks.in, asks.known = in, true
	} else if !errors.Is(err, door.ErrOut) {
		return nil, answer(store.Away(err))
	}
	me, err := a.meOf(ctx, asks)
	out := &opening[Me]{Body: me}
	if cookie != nil {
		out.SetCookie = []http.Cookie{*cookie}
	}
	return out, answer(err)
}

func (a *api) me(ctx context.Context, _ *struct{}) (*body[Me], error) {
	me, err := a.meOf(ctx, who(ctx))
	if err != nil {
		return nil, answer(err)
	}
	return &body[Me]{me}, nil
}

func (a *api) meOf(ctx context.Context, asks asking) (Me, error) {
	me := Me{May: []people.Act{}, Others: []Somebody{}, Surveyed: people.SurveyedParts(), Passkeys: a.doorOf(ctx).Passkeys()}
	me.Demo = a.door.Demo() && asks.direct
	door := a.base.Door()
	all, err := door.Workshops(ctx)
	if err != nil {
		return me, err
	}
	me.Begun, me.Several = len(all) > 0, len(all) > 1
	if me.Demo {
		list, err := a.base.People(ctx)
		if err != nil {
			return me, err
		}
		for _, p := range list {
			if p.LeftAt == nil {
				me.Others = append(me.Others, somebody(p.Of()))
			}
		}
	}
	if !asks.known {
		return me, nil
	}
	for _, w := range all {
		if w.ID == asks.in.Person.Workshop {
			me.Workshop = w.Name
		}
	}
	me.Tablet = asks.in.Shared
	if me.Tablet {
		list, err := a.door.AtTablet(ctx, asks.in)
		if err != nil {
			return me, err
		}
		me.Others = []Somebody{}
		for _, p := range list {
			me.Others = append(me.Others, somebody(p.Of()))
		}
	}
	if asks.in.Nobody {
		return me, nil
	}
	p := somebody(asks.in.Person)
	me.Person, me.Waits = &p, p.Role.Waits()
	for _, act := range people.Acts {
		if asks.may(act) {
			me.May = append(me.May, act)
		}
	}
	return me, nil
}
