// Package dbtest gives each test a database of its own.
package dbtest

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net/url"
	"os"
	"sync"
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
	return made(t, "template1")
}

// made makes a database that begins as another is, and returns its address.
func made(t testing.TB, as string) string {
	t.Helper()
	if os.Getenv(Env) == "" {
		t.Skip(Env + " is not set; make test sets it")
	}
	name := fmt.Sprintf("test_%d", rand.Uint64())
	do(t, "CREATE DATABASE "+name+" TEMPLATE "+as)
	t.Cleanup(func() { do(t, "DROP DATABASE "+name+" WITH (FORCE)") })
	return on(t, name)
}

// on is the address of a database on the server.
func on(t testing.TB, name string) string {
	t.Helper()
	at, err := url.Parse(os.Getenv(Env))
	require.NoError(t, err)
	at.Path = "/" + name
	return at.String()
}

func do(t testing.TB, statement string) {
	t.Helper()
	c, err := pgx.Connect(context.Background(), os.Getenv(Env))
	require.NoError(t, err)
	defer c.Close(context.Background())
	_, err = c.Exec(context.Background(), statement)
	require.NoError(t, err)
}

// tables is a database that has all tables and no rows, which stores begin as: a process of tests makes it once.
var tables = fmt.Sprintf("tables_%d", os.Getpid())

var makeTables sync.Once

// Store opens a store on a database of its own.
func Store(t testing.TB) *store.Store {
	t.Helper()
	makeTables.Do(func() {
		if os.Getenv(Env) == "" {
			return
		}
		do(t, "DROP DATABASE IF EXISTS "+tables)
		do(t, "CREATE DATABASE "+tables)
		s, err := store.Open(context.Background(), on(t, tables))
		require.NoError(t, err)
		require.NoError(t, s.Close())
	})
	s, err := store.Open(context.Background(), made(t, tables))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	return s
}
