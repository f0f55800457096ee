// Package dbtest gives each test a database of its own.
package dbtest

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net/url"
	"os"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"epitrope/internal/store"
)

// Env names the server that tests may make databases on; make test starts one.
const Env = "EPITROPE_TEST_DATABASE"

// Address makes an empty database and returns its address. The database is dropped
// when the test ends. Without a server the test is skipped, but for make test.
func Address(t testing.TB) string {
	t.Helper()
	server := os.Getenv(Env)
	if server == "" {
		t.Skip(Env + " is not set; make test sets it")
	}
	name := fmt.Sprintf("test_%d", rand.Uint64())
	do(t, server, "CREATE DATABASE "+name)
	t.Cleanup(func() { do(t, server, "DROP DATABASE "+name+" WITH (FORCE)") })
	at, err := url.Parse(server)
	require.NoError(t, err)
	at.Path = "/" + name
	return at.String()
}

func do(t testing.TB, server, statement string) {
	t.Helper()
	c, err := pgx.Connect(context.Background(), server)
	require.NoError(t, err)
	defer c.Close(context.Background())
	_, err = c.Exec(context.Background(), statement)
	require.NoError(t, err)
}

// Store opens a store on a database of its own.
func Store(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), Address(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	return s
}
