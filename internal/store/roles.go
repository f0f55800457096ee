package store

import (
	"context"
	"crypto/hmac"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgconn/ctxwatch"
	"github.com/jackc/pgx/v5/pgxpool"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// role is who a connection is to the database: neither owns a table, and neither is a superuser.
type role string

// The roles of the application, made by the migrations.
const (
	forPeople  role = "epitrope_app"        // sees the rows of one workshop
	background role = "epitrope_background" // works for all workshops in turn
	atTheDoor  role = "epitrope_door"       // signs people in: it alone sees what they sign in with, and no job
)

// workshopSetting is what a connection's workshop is called there: the policies of row security go by it.
const workshopSetting = "epitrope.workshop"

// mostConnections is how many connections each has at most, and idleFor for how long an idle one is kept.
var mostConnections = map[role]int32{forPeople: 12, background: 4, atTheDoor: 4}

const idleFor = 5 * time.Minute

// givenUp is how long after whoever asked has left a query that hangs is given up.
const givenUp = 3 * time.Second

// password is a role's, of the owner's own: every server that may connect as the owner finds the same one.
func (r role) password(owner string) string {
	sum := hmac.New(sha256.New, []byte(owner))
	sum.Write([]byte(r))
	return hex.EncodeToString(sum.Sum(nil))
}

// as is how a role connects.
func (r role) as(owner *pgx.ConnConfig) *pgx.ConnConfig {
	config := owner.Copy()
	config.User, config.Password = string(r), r.password(owner.Password)
	return config
}

// pool opens connections as they are needed. What is for people is bound to a workshop each time that it is taken: to that of
// whoever takes it, or to none, and then the database answers nothing.
func (r role) pool(ctx context.Context, address string, owner *pgx.ConnConfig) (*pgxpool.Pool, error) {
	config, err := pgxpool.ParseConfig(withTimeout(address))
	if err != nil {
		return nil, err
	}
	config.ConnConfig = r.as(owner)
	config.ConnConfig.RuntimeParams["jit"] = "off" // no query here is so long that compiling it pays
	config.MaxConns, config.MinConns, config.MaxConnIdleTime = mostConnections[r], 0, idleFor
	// Whoever leaves in the middle of a query must not leave their deadline on a connection that the next one takes: what it had
	// read ahead then fails them. A query ends by itself; what hangs is given up a little later.
	config.ConnConfig.BuildContextWatcherHandler = func(c *pgconn.PgConn) ctxwatch.Handler {
		return &pgconn.DeadlineContextWatcherHandler{Conn: c.Conn(), DeadlineDelay: givenUp}
	}
	switch r {
	case forPeople:
		config.PrepareConn = bind
	case atTheDoor:
		config.ConnConfig.RuntimeParams["search_path"] = "door, public"
	}
	return pgxpool.NewWithConfig(ctx, config)
}

// workshopKey is where a context holds the workshop that its connections are bound to.
type workshopKey struct{}

func bound(ctx context.Context, workshop string) context.Context {
	return context.WithValue(ctx, workshopKey{}, workshop)
}

// bind binds a connection that is taken to the workshop of whoever takes it. One that cannot be bound is not used.
func bind(ctx context.Context, conn *pgx.Conn) (ok bool, err error) {
	workshop, _ := ctx.Value(workshopKey{}).(string)
	is := conn.PgConn().CustomData()
	if was, set := is[workshopSetting]; set && was == workshop {
		return true, nil
	}
	delete(is, workshopSetting)
	if _, err := conn.Exec(ctx, "SELECT set_config($1, $2, false)", workshopSetting, workshop); err != nil {
		return false, err
	}
	is[workshopSetting] = workshop
	return true, nil
}

func orm(db *sql.DB) (*gorm.DB, error) {
	return gorm.Open(postgres.New(postgres.Config{Conn: db}), &gorm.Config{
		Logger: logger.NewSlogLogger(slog.Default(), logger.Config{LogLevel: logger.Silent}),
	})
}

// letIn lets the roles connect: whoever owns the database gives them their passwords, once.
func letIn(ctx context.Context, owner *pgx.ConnConfig, db *sql.DB) error {
	for _, r := range []role{forPeople, background, atTheDoor} {
		if c, err := pgx.ConnectConfig(ctx, r.as(owner)); err == nil {
			_ = c.Close(ctx)
			continue
		}
		// The password is hexadecimal, and a role's name a constant: neither is anybody's input.
		_, err := db.ExecContext(ctx, fmt.Sprintf("ALTER ROLE %s LOGIN PASSWORD '%s'", r, r.password(owner.Password)))
		var pg *pgconn.PgError
		if errors.As(err, &pg) && pg.Code == "XX000" { // another server does the same just now
			err = nil
		}
		if err != nil {
			return fmt.Errorf("let %s connect; the database's owner needs CREATEROLE: %w", r, err)
		}
	}
	return nil
}
