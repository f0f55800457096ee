package server_test

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"slices"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/store"
)

// fill puts jobs in as a workshop of years has them: most wait for nothing; a date in every third, one in ten of those in a bay.
const fill = `
INSERT INTO jobs (workshop_id, document, saved_at, title, customer, vehicle, summary, weakest, severity, settled, search, listed_by,
	stage)
SELECT w, '{"format":"epitrope-job","version":1,"aux":{"capacityAh":100}}', now() - n * interval '7 minutes', t, c, v,
	'DC-DC charger, 40 A. Start run 16 mm², fuse 70 A; aux run 10 mm², fuse 50 A; return by the chassis. 14.1 V at the aux battery.',
	'At idle, hot, the alternator has 6 A for everything.', 'caution', '4 of 20 settled',
		lower(' ' || n || ' ' || t || ' ' || c || ' ' || v || ' '), 'x',
	(ARRAY['done','done','done','done','done','answer','bay','reading','complaint'])[1 + n % 9]
FROM (SELECT '00000000-0000-0000-0000-000000000001'::uuid AS w, n,
	(ARRAY['Second battery','Bookmobile','Tray ute','Horse float','Camper refit','Service van','Ice-cream van','Tour bus'])[1 + n % 8]
		|| ' ' || n AS t,
	(ARRAY['Plover','Heron','Kestrel','Bittern','Wren','Teal','Dunlin'])[1 + n * 7 % 7] || ' ' || md5(n::text) AS c,
	(ARRAY['panel van','ute','motorhome','trailer'])[1 + n % 4] AS v FROM generate_series(1, $1) n) rows`

const fillDates = `
INSERT INTO job_dates (workshop_id, job_id, key, kind, what, bay, due, until, every_days, open, hours, waits)
SELECT workshop_id, id, 'd1', CASE WHEN number % 30 = 0 THEN 'fit' ELSE 'revisit' END, 'Look again', 'B' || number % 5,
	current_date + (number % 900)::int - 300, current_date + (number % 900)::int - 298, 0, true, 9, 2
FROM jobs WHERE number % 3 = 0`

// The lists of a workshop with many jobs: how long the slowest of a hundred takes.
func BenchmarkLists(b *testing.B) {
	for _, count := range []int{10_000, 100_000} {
		h := filled(b, count)
		for _, path := range []string{"/api/jobs", "/api/jobs?search=boo", "/api/jobs?search=heron+42", "/api/jobs?search=t",
			"/api/jobs?search=ab",
			"/api/jobs?search=nobody+here", "/api/jobs?search=99", "/api/due", "/api/week", "/api/board", "/api/jobs?stage=reading",
			"/api/jobs?search=boo&stage=bay"} {
			b.Run(fmt.Sprintf("%d%s", count, path), func(b *testing.B) {
				took := make([]time.Duration, 0, b.N)
				for b.Loop() {
					began := time.Now()
					res, err := http.Get(h.URL + path)
					require.NoError(b, err)
					_, err = io.Copy(io.Discard, res.Body)
					require.NoError(b, err)
					require.NoError(b, res.Body.Close())
					require.Equal(b, 200, res.StatusCode)
					took = append(took, time.Since(began))
				}
				slices.Sort(took)
				b.ReportMetric(float64(took[len(took)*99/100].Microseconds())/1000, "p99-ms")
			})
		}
	}
}

func filled(b *testing.B, count int) *httptest.Server {
	b.Helper()
	address := dbtest.Address(b)
	s, err := store.Open(context.Background(), address)
	require.NoError(b, err)
	b.Cleanup(func() { require.NoError(b, s.Close()) })
	c, err := pgx.Connect(context.Background(), address)
	require.NoError(b, err)
	defer c.Close(context.Background())
	_, err = c.Exec(context.Background(), fill, count)
	require.NoError(b, err)
	for _, statement := range []string{"ALTER TABLE job_dates DISABLE TRIGGER staged", fillDates, "ANALYZE"} {
		_, err = c.Exec(context.Background(), statement)
		require.NoError(b, err)
	}
	return serve(b, s)
}
