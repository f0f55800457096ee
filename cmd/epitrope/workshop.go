package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"epitrope/internal/door"
	"epitrope/internal/store"
)

// runWorkshop adds and lists workshops of a server, and lets somebody back in who has lost what they sign in with.
func runWorkshop(args []string, _ io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope workshop", flag.ContinueOnError)
	database := databaseFlag(set)
	at := set.String("at", "http://localhost:8080", "the server's `address`, for the links that are printed")
	workshop := set.String("workshop", "", "reset: the workshop's sign-in `name`, where there are several")
	person := set.String("person", "", "reset: what somebody signs in with")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	if len(rest) != 1 {
		return badInput("say what to do: add, list or reset")
	}
	logTo(os.Stderr)
	ctx := context.Background()
	s, err := openStore(ctx, *database)
	if err != nil {
		return err
	}
	defer s.Close()
	d := s.Door()
	switch rest[0] {
	case "add":
		return addWorkshop(ctx, out, d, *at)
	case "list":
		list, err := d.Workshops(ctx)
		for _, w := range list {
			fmt.Fprintf(out, "%s\t%s\n", *w.Address, w.Name)
		}
		return err
	case "reset":
		return resetPerson(ctx, out, d, *at, *workshop, *person)
	}
	return badInput("%q is not known; say add, list or reset", rest[0])
}

func addWorkshop(ctx context.Context, out io.Writer, d *store.Door, at string) error {
	id, err := d.AddWorkshop(ctx)
	if err != nil {
		return err
	}
	token := door.Token()
	if err := d.FirstLink(ctx, id, token, time.Now().Add(firstFor)); err != nil {
		return err
	}
	fmt.Fprintf(out, "Its owner begins it with this link; it is good once, for seven days:\n  %s/join#%s\n", strings.TrimRight(at, "/"),
		token)
	return nil
}

// resetPerson prints a link that sets somebody's password anew: whoever may run this has the database anyway.
func resetPerson(ctx context.Context, out io.Writer, d *store.Door, at, workshop, person string) error {
	if person == "" {
		return badInput("--person is missing: what somebody signs in with")
	}
	list, err := d.Workshops(ctx)
	if err != nil {
		return err
	}
	var found []store.Workshop
	for _, w := range list {
		if workshop == "" || *w.Address == workshop {
			found = append(found, w)
		}
	}
	if len(found) != 1 {
		return badInput("--workshop %q names %d workshops; \"epitrope workshop list\" prints them", workshop, len(found))
	}
	a, err := d.Account(ctx, found[0].ID, door.SignInName(person))
	if errors.Is(err, store.ErrNobody) {
		return badInput("--person %q: nobody of %s signs in so", person, found[0].Name)
	}
	if err != nil {
		return err
	}
	token := door.Token()
	if err := d.ResetLink(ctx, a.Person, token, time.Now().Add(24*time.Hour)); err != nil {
		return err
	}
	fmt.Fprintf(out, "With this link %s sets a password anew; it is good once, for a day:\n  %s/reset#%s\n", a.Person.Name,
		strings.TrimRight(at, "/"), token)
	return nil
}
