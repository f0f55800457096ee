package server

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
	"epitrope/internal/tell"
)

// Addressee is an address that is told what concerns the workshop.
type Addressee struct {
	ID      string    `json:"id"`
	Kind    string    `json:"kind" enum:"mail,webhook"`
	Address string    `json:"address"`
	Person  string    `json:"person,omitempty" doc:"Whose it is, by id: of what is mentioned they are told what names them"`
	Wants   []string  `json:"wants" doc:"Of due, asked, mentioned, signed, failed"`
	Hourly  bool      `json:"hourly" doc:"At most once an hour; otherwise once a day"`
	Hour    int       `json:"hour" doc:"Of the day, there"`
	Zone    string    `json:"zone"`
	Next    time.Time `json:"next"`
	Sent    time.Time `json:"sent,omitzero" doc:"Last"`
	Problem string    `json:"problem,omitempty" doc:"Why it could not be told; it is tried again, and nothing is left out"`
}

// NewAddressee is one to be listed.
type NewAddressee struct {
	Kind    string   `json:"kind" enum:"mail,webhook"`
	Address string   `json:"address" minLength:"3" maxLength:"300"`
	Person  string   `json:"person,omitempty"`
	Wants   []string `json:"wants" minItems:"1" maxItems:"5" enum:"due,asked,mentioned,signed,failed"`
	Hourly  bool     `json:"hourly,omitempty"`
	Hour    int      `json:"hour" minimum:"0" maximum:"23"`
	Zone    string   `json:"zone" minLength:"1" maxLength:"60" doc:"Of the IANA database, such as Europe/Vienna"`
}

// Addressees is the list of addresses, and what can be reached from here.
type Addressees struct {
	List   []Addressee `json:"list"`
	Mail   bool        `json:"mail" doc:"This server sends mail"`
	Secret string      `json:"secret,omitempty" doc:"Once, of a webhook that was just listed: what its messages are signed with"`
}

type addresseePath struct {
	ID string `path:"id" format:"uuid" pattern:"^[0-9a-fA-F-]{36}$" patternDescription:"a UUID"`
}

func (a *api) registerAddressees(h huma.API) {
	at := func(id, method, path, summary string, errs ...int) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, Errors: append(errs, 503)}
	}
	on(h, people.Tell, at("addressees", http.MethodGet, "/api/addressees", "Who is told what concerns the workshop"), a.addressees)
	on(h, people.Tell, at("addAddressee", http.MethodPost, "/api/addressees", "List an address", 409, 422), a.addAddressee)
	on(h, people.Tell, at("endAddressee", http.MethodDelete, "/api/addressees/{id}", "Take an address off the list", 404), a.endAddressee)
	on(h, people.Tell, at("tryAddressee", http.MethodPost, "/api/addressees/{id}/try", "Send a test to an address of the list", 404, 422),
		a.tryAddressee)
}

func (a *api) addressees(ctx context.Context, _ *struct{}) (*body[Addressees], error) {
	list, err := a.store(ctx).Addressees(ctx)
	if err != nil {
		return nil, answer(err)
	}
	out := Addressees{List: []Addressee{}, Mail: a.post.SMTP != nil}
	for _, x := range list {
		shown := Addressee{ID: x.ID, Kind: x.Kind, Address: x.Address, Wants: strings.Split(x.Wants, ","), Hourly: x.Hourly, Hour: x.Hour,
			Zone: x.Zone, Next: x.NextAt.UTC(), Problem: x.Problem}
		if x.PersonID != nil {
			shown.Person = *x.PersonID
		}
		if x.SentAt != nil {
			shown.Sent = x.SentAt.UTC()
		}
		out.List = append(out.List, shown)
	}
	return &body[Addressees]{out}, nil
}

func (a *api) addAddressee(ctx context.Context, in *struct{ Body NewAddressee }) (*body[Addressees], error) {
	b := in.Body
	slices.Sort(b.Wants)
	row := store.Addressee{Kind: b.Kind, Address: strings.TrimSpace(b.Address), PersonID: optionalID(b.Person),
		Wants: strings.Join(slices.Compact(b.Wants), ","), Hourly: b.Hourly, Hour: b.Hour, Zone: b.Zone}
	var problems job.Problems
	refuse := func(field, value, wrong, allowed string) {
		problems = append(problems, job.Problem{Field: field, Value: short(value), Wrong: wrong, Allowed: allowed})
	}
	if _, err := time.LoadLocation(b.Zone); err != nil {
		refuse("zone", b.Zone, "is no zone", "a name of the IANA database, such as Europe/Vienna")
	}
	if b.Kind == store.Webhook {
		if err := a.post.CheckWebhook(row.Address); err != nil {
			refuse("address", row.Address, err.Error(), "an https address, such as https://hooks.example/epitrope")
		}
		row.Secret = door.Token()
	} else if err := tell.CheckMail(row.Address); err != nil {
		refuse("address", row.Address, err.Error(), "an address such as bay@workshop.example")
	}
	if b.Person != "" {
		if p, err := a.store(ctx).Person(ctx, b.Person); err != nil || p.LeftAt != nil {
			refuse("person", b.Person, "does not work here", "somebody of the workshop, by id")
		}
	}
	if len(problems) > 0 {
		return nil, inputProblem(problems)
	}
	row.NextAt = tell.Next(row, time.Now())
	if err := a.store(ctx).AddAddressee(ctx, row); err != nil {
		if errors.Is(err, store.ErrListed) || errors.Is(err, store.ErrManyAddressees) {
			return nil, problem(http.StatusConflict, "about:blank", err.Error())
		}
		return nil, answer(err)
	}
	out, err := a.addressees(ctx, nil)
	if err == nil {
		out.Body.Secret = row.Secret
	}
	return out, err
}

func (a *api) endAddressee(ctx context.Context, in *addresseePath) (*body[Addressees], error) {
	if err := a.store(ctx).EndAddressee(ctx, in.ID); err != nil {
		return nil, noAddressee(err)
	}
	return a.addressees(ctx, nil)
}

func noAddressee(err error) error {
	if errors.Is(err, store.ErrNoAddressee) {
		return problem(http.StatusNotFound, "about:blank", err.Error())
	}
	return answer(err)
}

func (a *api) tryAddressee(ctx context.Context, in *addresseePath) (*struct{}, error) {
	list, err := a.store(ctx).Addressees(ctx)
	if err != nil {
		return nil, answer(err)
	}
	at := slices.IndexFunc(list, func(x store.Addressee) bool { return strings.EqualFold(x.ID, in.ID) })
	if at < 0 {
		return nil, noAddressee(store.ErrNoAddressee)
	}
	name, err := a.store(ctx).Name(ctx)
	if err != nil {
		return nil, answer(err)
	}
	m := tell.Message{ID: list[at].ID + ".test." + door.Token()[:8], Workshop: name, Until: time.Now().UTC(), Items: []tell.Item{}}
	if err := (tell.Teller{Post: a.post}).Send(ctx, list[at], m); err != nil {
		return nil, inputProblem(job.Problems{{Field: "address", Value: list[at].Address, Wrong: "could not be told: " + err.Error(),
			Allowed: "an address that can be reached from this server"}})
	}
	return nil, nil
}
