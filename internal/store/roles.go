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
	"github.com/jackc/pgx/v5/stdlib"
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
)

// workshopSetting is what a connection's workshop is called there: the policies of row security go by it.
const workshopSetting = "epitrope.workshop"

// How many connections each has at most, and for how long an idle one is kept.
const (
	mostConnections = 16
	idleFor         = 5 * time.Minute
)

// password is a role's, of the owner's own: every server that may connect as the owner finds the same one.
func (r role) password(owner string) string {
	sum := hmac.New(sha256.New, []byte(owner))
	sum.Write([]byte(r))
	return hex.EncodeToString(sum.Sum(nil))
}

// as is how a role connects; workshop is whose rows it sees, empty for all.
func (r role) as(owner *pgx.ConnConfig, workshop string) *pgx.ConnConfig {
	config := owner.Copy()
	config.User, config.Password = string(r), r.password(owner.Password)
	if workshop != "" {
		config.RuntimeParams[workshopSetting] = workshop
	}
	return config
}

// pool opens connections as they are needed.
func pool(config *pgx.ConnConfig) (*gorm.DB, error) {
	db := stdlib.OpenDB(*config)
	db.SetMaxOpenConns(mostConnections)
	db.SetConnMaxIdleTime(idleFor)
	return orm(db)
}

func orm(db *sql.DB) (*gorm.DB, error) {
	return gorm.Open(postgres.New(postgres.Config{Conn: db}), &gorm.Config{
		Logger: logger.NewSlogLogger(slog.Default(), logger.Config{LogLevel: logger.Silent}),
	})
}

// letIn lets the roles connect: whoever owns the database gives them their passwords, once.
func letIn(ctx context.Context, owner *pgx.ConnConfig, db *sql.DB) error {
	for _, r := range []role{forPeople, background} {
		if c, err := pgx.ConnectConfig(ctx, r.as(owner, "")); err == nil {
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
