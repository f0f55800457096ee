package store_test

import (
	"context"
	"encoding/json"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/internal/dbtest"
	"epitrope/internal/people"
	"epitrope/internal/settings"
	"epitrope/internal/store"
)

// ours and theirs are two workshops of one database, each with a row in every table; as the owner sees it, db.
func twoWorkshops(t *testing.T) (ours, theirs *store.Store, db *pgx.Conn) {
	t.Helper()
	ctx, address := context.Background(), dbtest.Address(t)
	ours, err := store.Open(ctx, address)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, ours.Close()) })
	db, err = pgx.Connect(ctx, address)
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close(ctx) })
	owner := dbtest.Begun(t, ours, store.FirstWorkshop, "ours")
	theirs = ours.As(dbtest.Workshop(t, ours, "theirs"))
	ours = ours.As(owner)
	for _, s := range []*store.Store{ours, theirs} {
		filled(t, s)
	}
	return ours, theirs, db
}

// filled puts a row into every table of a workshop.
func filled(t *testing.T, s *store.Store) {
	t.Helper()
	ctx := context.Background()
	j, err := s.Create(ctx, "", store.Draft{Document: job.New(), Listing: store.Listing{Title: "x", Dates: []store.Date{
		{Key: "k", What: "look at it", Kind: "other", Due: "2031-05-02", Until: "2031-05-02", Open: true}}}})
	require.NoError(t, err)
	_, err = s.Issue(ctx, j.ID, 1, func(_ store.Job, r *store.Revision) error { r.Plan = json.RawMessage(`{}`); return nil })
	require.NoError(t, err)
	_, err = s.AddTask(ctx, "", j.ID, "sweep", json.RawMessage(`{}`), job.New())
	require.NoError(t, err)
	require.NoError(t, s.AddFind(ctx, j.ID, "van", job.New()))
	require.NoError(t, s.PutParts(ctx, []parts.Item{{Kind: "connector", Name: "lug"}}))
	_, err = s.PutSettings(ctx, settings.Usual(), 0)
	require.NoError(t, err)
	now := time.Now()
	tick := uuid.NewString()
	apprentice := dbtest.Joined(t, s, s.By(), people.Apprentice, "Pim", "")
	require.NoError(t, s.AddTicks(ctx, j.ID, []store.Tick{{ID: tick, Step: "rest", Done: true, Awaits: true, PersonID: &apprentice.ID,
		TickedAt: now}}))
	require.NoError(t, s.Countersign(ctx, j.ID, uuid.NewString(), tick))
	require.NoError(t, s.AddComment(ctx, j.ID, store.Comment{ID: uuid.NewString(), About: "job", Text: "why?", Asks: true, Mentions: "{}"}))
	_, err = s.Here(ctx, j.ID, uuid.NewString())
	require.NoError(t, err)
	require.NoError(t, s.AddAddressee(ctx, store.Addressee{Kind: store.MailTo, Address: "bay@weir.example", Wants: "due", Zone: "UTC",
		NextAt: now}))
	_, err = s.Door().Begin(ctx, apprentice, "link", "")
	require.NoError(t, err)
	entry := uuid.NewString()
	require.NoError(t, s.AddProof(ctx, j.ID, []store.ProofEntry{{ID: entry, Kind: "changed", Subject: "aux", Entry: "swollen", ByWhom: "Ivo",
		TakenAt: now}}, store.Failure{EntryID: entry, Says: "Aux battery changed", Part: "aux battery", FailedAt: now}))
	require.NoError(t, s.AddPhoto(ctx, j.ID, store.Photo{ID: uuid.NewString(), Tied: "before", ByWhom: "Ivo", TakenAt: now, Width: 1,
		Height: 1,
		Digest: "0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef", Content: []byte{1}}))
	_, err = s.Sign(ctx, j.ID, 1, store.Signoff{ID: uuid.NewString(), ByWhom: "Ivo", SignedAt: now}, func(_ store.Job,
		out *store.Signoff) error {
		out.Frozen, out.Certificate = json.RawMessage(`{}`), []byte{1}
		return nil
	})
	require.NoError(t, err)
}

// tables are all that hold rows of a workshop.
func tables(t *testing.T, db *pgx.Conn) (list []string) {
	t.Helper()
	rows, err := db.Query(context.Background(), `SELECT table_name FROM information_schema.tables WHERE table_schema = 'public'
		AND table_type = 'BASE TABLE' AND table_name NOT LIKE 'goose%' ORDER BY 1`)
	require.NoError(t, err)
	list, err = pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(t, err)
	require.Greater(t, len(list), 10)
	return list
}

// With no word of a workshop in a query, nothing of another is seen, changed, taken out or put in, in any table.
func TestNothingForeignWithoutAWord(t *testing.T) {
	ours, theirs, db := twoWorkshops(t)
	for _, table := range tables(t, db) {
		var there, seen int64
		require.NoError(t, db.QueryRow(context.Background(), "SELECT count(*) FROM "+table).Scan(&there))
		require.NoError(t, store.Raw(ours).Raw("SELECT count(*) FROM "+table).Scan(&seen).Error)
		assert.Positive(t, seen, "%s: one's own is there", table)
		assert.Equal(t, there, 2*seen, "%s: half of the rows are another's", table)
		column := map[bool]string{true: "id", false: "workshop_id"}[table == "workshops"]
		res := store.Raw(ours).Exec("DELETE FROM " + table + " WHERE " + column + " = '" + theirs.By().Workshop + "'")
		if res.Error == nil { // append-only tables refuse at all
			assert.Zero(t, res.RowsAffected, table)
		}
		var left int64
		require.NoError(t, db.QueryRow(context.Background(), "SELECT count(*) FROM "+table).Scan(&left))
		assert.Equal(t, there, left, table)
	}
	err := store.Raw(ours).Exec(`INSERT INTO jobs (workshop_id, document) VALUES (?, '{}')`, theirs.By().Workshop).Error
	require.ErrorContains(t, err, "row-level security")
	err = store.Raw(ours).Exec(`UPDATE jobs SET workshop_id = ?`, theirs.By().Workshop).Error
	require.ErrorContains(t, err, "row-level security")
}

// Another workshop's ids answer like ones that do not exist.
func TestForeignIdsDoNotExist(t *testing.T) {
	ours, theirs, _ := twoWorkshops(t)
	ctx := context.Background()
	jobs, _, err := theirs.List(ctx, "", store.Filter{}, store.Page{})
	require.NoError(t, err)
	foreign := jobs[0]
	nobodys := uuid.NewString()
	for what, ask := range map[string]func(id string) error{
		"get":     func(id string) error { _, err := ours.Get(ctx, id); return err },
		"proof":   func(id string) error { _, err := ours.Proof(ctx, id); return err },
		"photos":  func(id string) error { _, err := ours.Photos(ctx, id); return err },
		"signed":  func(id string) error { _, err := ours.Signoff(ctx, id, 1); return err },
		"ticks":   func(id string) error { _, err := ours.Ticks(ctx, id); return err },
		"tick":    func(id string) error { return ours.AddTicks(ctx, id, []store.Tick{{ID: uuid.NewString(), Step: "x"}}) },
		"delete":  func(id string) error { return ours.Delete(ctx, id) },
		"restore": func(id string) error { return ours.Restore(ctx, id) },
		"save": func(id string) error {
			_, err := ours.Save(ctx, id, 1, store.Draft{Document: job.New()})
			return err
		},
		"trail":    func(id string) error { _, err := ours.Trail(ctx, id, time.Now()); return err },
		"comments": func(id string) error { _, err := ours.Comments(ctx, id); return err },
		"comment": func(id string) error {
			return ours.AddComment(ctx, id, store.Comment{ID: nobodys, About: "job", Text: "x", Mentions: "{}"})
		},
		"countersign": func(id string) error { return ours.Countersign(ctx, id, nobodys, nobodys) },
		"link": func(id string) error {
			_, err := ours.AddLink(ctx, nobodys, store.Link{Kind: store.OwnerLink, JobID: &id, ExpiresAt: time.Now().Add(time.Hour)}, "x",
				"")
			return err
		},
		"revision": func(id string) error { _, err := ours.Revision(ctx, id, 1); return err },
	} {
		theirsErr, nobodysErr := ask(foreign.ID), ask(nobodys)
		require.Error(t, theirsErr, what)
		assert.Equal(t, nobodysErr.Error(), theirsErr.Error(), what)
	}
	list, _, err := ours.List(ctx, "", store.Filter{}, store.Page{})
	require.NoError(t, err)
	assert.Len(t, list, 1)
}

// The application is no superuser, owns no table, and every table has its wall: a new one without is found here.
func TestTheApplicationOwnsNothing(t *testing.T) {
	ours, _, db := twoWorkshops(t)
	var super, bypass bool
	require.NoError(t, store.Raw(ours).Raw("SELECT rolsuper, rolbypassrls FROM pg_roles WHERE rolname = session_user").Row().Scan(&super,
		&bypass))
	assert.False(t, super || bypass)
	for _, table := range tables(t, db) {
		var owner string
		var walls, policies int
		require.NoError(t, db.QueryRow(context.Background(), `SELECT tableowner, rowsecurity::int,
			(SELECT count(*) FROM pg_policies p WHERE p.tablename = t.tablename) FROM pg_tables t WHERE tablename = $1`, table).
			Scan(&owner, &walls, &policies))
		assert.NotContains(t, owner, "epitrope_", table)
		assert.Equal(t, 1, walls, table)
		assert.Contains(t, []int{2, 3}, policies, "%s: one's own, the background's, and some the door's", table)
	}
	require.ErrorContains(t, store.Raw(ours).Exec("ALTER TABLE jobs DISABLE ROW LEVEL SECURITY").Error, "must be owner")
	require.Error(t, store.Raw(ours).Exec("SET ROLE epitrope_background").Error)
}

// A connection that is taken for no workshop answers nothing, even after it was somebody's; and the same one serves another in turn.
func TestAConnectionIsBoundAsItIsTaken(t *testing.T) {
	ours, theirs, _ := twoWorkshops(t)
	var n int64
	require.NoError(t, store.Raw(ours).Raw("SELECT count(*) FROM jobs").Scan(&n).Error)
	require.Error(t, store.Unbound(ours).Raw("SELECT count(*) FROM jobs").Scan(&n).Error)
	for range 20 { // over a few connections, one after the other
		for _, s := range []*store.Store{ours, theirs} {
			var of []string
			require.NoError(t, store.Raw(s).Raw("SELECT DISTINCT workshop_id FROM jobs").Scan(&of).Error)
			require.Equal(t, []string{s.By().Workshop}, of)
		}
	}
}

// What people sign in with is seen at the door alone, and the door sees no job.
func TestSecretsAreSeenAtTheDoorAlone(t *testing.T) {
	ours, _, db := twoWorkshops(t)
	for _, table := range []string{"sessions", "secrets", "passkeys", "wrongs"} {
		require.ErrorContains(t, store.Raw(ours).Exec("SELECT * FROM door."+table).Error, "permission denied", table)
		require.NoError(t, store.AtTheDoor(ours).Exec("SELECT * FROM door."+table).Error)
	}
	at := map[string]bool{"workshops": true, "people": true, "sign_ins": true, "links": true}
	for _, table := range tables(t, db) {
		err := store.AtTheDoor(ours).Exec("SELECT * FROM " + table).Error
		assert.Equal(t, at[table], err == nil, "%s: %v", table, err)
	}
	require.Error(t, store.AtTheDoor(ours).Exec("UPDATE people SET role = 'owner'").Error, "nobody is made an owner at the door")
}
