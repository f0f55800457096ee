package load_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/listing"
	"epitrope/internal/store"
)

// fill gives a workshop so many jobs with what lists show of them, as of long ago.
const fill = `INSERT INTO jobs (workshop_id, document, title, customer, vehicle, summary, weakest, severity, settled,
	listed_by, listed_version, search, saved_at) SELECT $1, '{"format":"epitrope-job","version":1}', 'Van ' || n, 'Customer ' || n,
	'panel van', 'DC-DC charger, 30 A', 'a weak joint',
	'caution', '3 of 21 answers', $3, 1, ' van customer ' || n || ' ',
	now() - n * interval '1 hour' FROM generate_series(1, $2) n`

// staffed begins so many workshops with so many jobs each, and is a cookie of each owner.
func (m *machine) staffed(workshops, jobs int) (cookies []string) {
	m.t.Helper()
	ctx := context.Background()
	s, err := store.Open(ctx, m.database)
	require.NoError(m.t, err)
	defer func() { require.NoError(m.t, s.Close()) }()
	d := door.New(s, door.Where{Demo: true})
	defer d.Close()
	c, err := pgx.Connect(ctx, m.database)
	require.NoError(m.t, err)
	defer c.Close(ctx)
	for i := range workshops {
		id := store.FirstWorkshop
		if i > 0 {
			id, err = s.Door().AddWorkshop(ctx)
			require.NoError(m.t, err)
		}
		owner := dbtest.Begun(m.t, s, id, fmt.Sprintf("w%d", i))
		_, err = c.Exec(ctx, fill, id, jobs, listing.Rules())
		require.NoError(m.t, err)
		session, err := d.Session(ctx, "")
		require.NoError(m.t, err)
		require.NoError(m.t, d.InDemo(session, owner.ID, door.From{}))
		cookie, err := d.Kept(session)
		require.NoError(m.t, err)
		cookies = append(cookies, cookie.Name+"="+cookie.Value)
	}
	_, err = c.Exec(ctx, "ANALYZE")
	require.NoError(m.t, err)
	return cookies
}

// Somebody guesses passwords twenty times a second, under ever other names: what two dozen people at work wait for meanwhile, and what the
// server takes, beside the same without. EPITROPE_LOAD says for how long each; without it nothing is done.
func TestGuessersSlowNobody(t *testing.T) {
	long := loadTime(t)
	m := start(t)
	cookies := m.staffed(1, 100)
	for _, guesses := range []bool{false, true} {
		w := m.busy(t, long, 24, cookies, guesses)
		t.Logf("guesses: %v", guesses)
		w.tell(t)
		t.Logf("the server's memory: %s", m.memory(t))
	}
}
