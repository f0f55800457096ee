package load_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// people work at once while server and database are killed; fewKills is how often with make test, and EPITROPE_KILLS
// says otherwise.
const (
	people   = 12
	fewKills = 4
)

// However often server and database are killed while people work: what was acknowledged is stored, once.
func TestNothingAcknowledgedIsLostOrDoubled(t *testing.T) {
	kills := fewKills
	if said, err := strconv.Atoi(os.Getenv("EPITROPE_KILLS")); err == nil {
		kills = said
	}
	m := start(t)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	var wait sync.WaitGroup
	cookies := m.staffed(3, 1)
	all := make([]*person, people)
	for i := range all {
		all[i] = &person{at: "http://" + m.address, name: fmt.Sprintf("p%d", i), rand: rand.New(rand.NewPCG(uint64(i), 20)), ctx: ctx,
			cookie: cookies[i%len(cookies)]}
		wait.Go(all[i].work)
	}
	for kill := range kills {
		time.Sleep(time.Duration(400+rand.IntN(900)) * time.Millisecond)
		if kill%2 == 0 {
			m.killServer()
			m.startServer()
		} else {
			m.killDatabase()
		}
		m.ready()
	}
	time.Sleep(time.Second)
	stop()
	wait.Wait()
	m.ready()

	c, err := pgx.Connect(context.Background(), m.database)
	require.NoError(t, err)
	defer c.Close(context.Background())
	jobs, saves, ticks, issued, again := 0, 0, 0, 0, 0
	for _, p := range all {
		assert.Empty(t, p.refused, "%s", p.name)
		again += p.again
		for _, k := range p.jobs {
			stored(t, c, k)
			jobs, saves, ticks, issued = jobs+1, saves+k.saves, ticks+len(k.ticks), issued+len(k.issued)
		}
	}
	assert.Positive(t, jobs)
	t.Logf("%d kills: %d jobs, %d saves, %d ticks and %d revisions were acknowledged, %d requests sent again", kills, jobs, saves, ticks,
		issued, again)
}

// stored holds a job in the database to what was acknowledged of it.
func stored(t *testing.T, c *pgx.Conn, k *kept) {
	t.Helper()
	one := func(query string, args ...any) (n int) {
		require.NoError(t, c.QueryRow(context.Background(), query, args...).Scan(&n), query)
		return n
	}
	assert.Equal(t, 1, one(`SELECT count(*) FROM jobs WHERE made_as = $1`, k.key), "%s is made once", k.key)
	assert.Equal(t, 1, one(`SELECT count(*) FROM jobs WHERE id = $1`, k.id))
	// The last save may have been stored and its answer lost when the time was up: one more, and no other.
	latest := one(`SELECT version FROM jobs WHERE id = $1`, k.id)
	assert.Contains(t, []int{k.version, k.version + 1}, latest, "%s", k.id)
	assert.Equal(t, latest, one(`SELECT count(*) FROM job_saves WHERE job_id = $1`, k.id), "each version is saved once")
	assert.Equal(t, 1, one(`SELECT count(*) FROM job_saves WHERE job_id = $1 AND version = $2 AND document ->> 'title' = $3`, k.id, k.version,
		k.title), "%s at version %d is “%s”", k.id, k.version, k.title)
	for _, tick := range k.ticks {
		assert.Equal(t, 1, one(`SELECT count(*) FROM step_ticks WHERE id = $1`, tick))
	}
	for version := range k.issued {
		assert.Equal(t, 1, one(`SELECT count(*) FROM job_revisions WHERE job_id = $1 AND version = $2`, k.id, version), "issued once")
	}
	finds := one(`SELECT count(*) FROM vehicle_finds WHERE job_id = $1`, k.id)
	assert.Equal(t, finds, one(`SELECT count(DISTINCT (model_key, document)) FROM vehicle_finds WHERE job_id = $1`, k.id),
		"each find counts once")
	if k.found {
		assert.Positive(t, finds)
	}
}
