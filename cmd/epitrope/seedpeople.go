package main

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// The people of the demo.
const (
	demoOwner      = "Mara Tolvey"
	demoForeman    = "Ivo Brandl"
	demoDesigner   = "Sanna Keel"
	demoInstaller  = "Teo Varga"
	demoApprentice = "Pim Aldous"
	demoReader     = "Ruth Okell"
)

// demoWorkshop is what the demo's workshop is called.
const demoWorkshop = "Tolvey's bay"

// seedPeople makes the demo's workshop and its people. None of them has a password: they come in through the demo's own door alone.
func seedPeople(ctx context.Context, s *store.Store) (map[string]people.Person, error) {
	d := s.Door()
	if begun, err := d.Begun(ctx, store.FirstWorkshop); err != nil || begun {
		return seeded(ctx, s, err)
	}
	token := door.Token()
	if err := d.FirstLink(ctx, store.FirstWorkshop, token, time.Now().Add(time.Minute)); err != nil {
		return nil, err
	}
	owner, err := d.Join(ctx, token, store.Joining{Name: demoOwner, SignIn: door.SignInName(demoOwner), Workshop: demoWorkshop,
		Address: "tolveys-bay"})
	if err != nil {
		return nil, err
	}
	staff := map[string]people.Person{demoOwner: owner}
	for _, p := range []struct {
		name string
		role people.Role
	}{{demoForeman, people.Foreman}, {demoDesigner, people.Designer}, {demoInstaller, people.Installer}, {demoApprentice,
		people.Apprentice},
		{demoReader, people.Reader}} {
		token := door.Token()
		l := store.Link{Kind: store.InvitationLink, Role: p.role, ExpiresAt: time.Now().Add(time.Minute)}
		if _, err := s.As(owner).AddLink(ctx, token, l, "invited", string(p.role)); err != nil {
			return nil, err
		}
		if staff[p.name], err = d.Join(ctx, token, store.Joining{Name: p.name, SignIn: door.SignInName(p.name)}); err != nil {
			return nil, err
		}
	}
	return staff, nil
}

// seeded are the people of a workshop that was begun before.
func seeded(ctx context.Context, s *store.Store, err error) (map[string]people.Person, error) {
	if err != nil {
		return nil, err
	}
	list, err := s.People(ctx)
	staff := map[string]people.Person{}
	for _, p := range list {
		staff[p.Name] = p.Of()
	}
	return staff, err
}

// seedTalk puts a question of the demo in, which nobody has answered.
func seedTalk(ctx context.Context, s *store.Store, staff map[string]people.Person, j store.Job) error {
	return s.As(staff[demoApprentice]).AddComment(ctx, j.ID, store.Comment{ID: uuid.NewSHA1(uuid.NameSpaceOID,
		[]byte(provenDemo+"asks")).String(),
		About: "part", Subject: "coupling", Named: "Relay", Asks: true, Mentions: fmt.Sprintf("{%s}", staff[demoForeman].ID),
		Text: "@" + demoForeman +
			" the bracket sits 40 mm from the heater duct. Is that far enough, or does the relay go to the other side?"})
}
