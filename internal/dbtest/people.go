package dbtest

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Begun begins a workshop and is its owner, who has no password.
func Begun(t testing.TB, s *store.Store, workshop, address string) people.Person {
	t.Helper()
	ctx, token := context.Background(), door.Token()
	require.NoError(t, s.Door().FirstLink(ctx, workshop, token, time.Now().Add(time.Hour)))
	p, err := s.Door().Join(ctx, token, store.Joining{Name: "Odile Marrow", SignIn: "odile", Workshop: "Workshop " + address,
		Address: address})
	require.NoError(t, err)
	return p
}

// Joined is somebody new of a role, whom the owner has invited; a password is the hash of one, or empty.
func Joined(t testing.TB, s *store.Store, owner people.Person, role people.Role, name, password string) people.Person {
	t.Helper()
	ctx, token := context.Background(), door.Token()
	_, err := s.As(owner).AddLink(ctx, token, store.Link{Kind: store.InvitationLink, Role: role, ExpiresAt: time.Now().Add(time.Hour)},
		"invited", "")
	require.NoError(t, err)
	p, err := s.Door().Join(ctx, token, store.Joining{Name: name, SignIn: door.SignInName(name), Password: password})
	require.NoError(t, err)
	return p
}

// Workshop adds another workshop, with its owner.
func Workshop(t testing.TB, s *store.Store, address string) people.Person {
	t.Helper()
	id, err := s.Door().AddWorkshop(context.Background())
	require.NoError(t, err)
	return Begun(t, s, id, address)
}
