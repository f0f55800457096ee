package store

import (
	"context"
	"crypto/sha256"
	"errors"
	"time"

	"github.com/jackc/pgx/v5/pgconn"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"epitrope/internal/people"
)

// Link lets somebody in who has no password. What it is called is kept as a digest alone.
type Link struct {
	ID         string `gorm:"primaryKey;default:gen_random_uuid()"`
	WorkshopID string
	Kind       string
	Digest     []byte
	Role       people.Role
	PersonID   *string
	JobID      *string
	MadeBy     *string
	MadeAt     time.Time `gorm:"default:now()"`
	ExpiresAt  time.Time
	UsedAt     *time.Time
	RevokedAt  *time.Time
}

// The kinds of links.
const (
	FirstLink      = "first"      // begins a workshop, as its owner
	InvitationLink = "invitation" // makes a person of a role
	ResetLink      = "reset"      // sets somebody's password anew
	OwnerLink      = "owner"      // shows a vehicle's owner what was handed over
)

// ErrNoLink is a link that there is not, or that was used, taken back or has expired.
var ErrNoLink = errors.New("this link is not, or no longer, of use")

func digest(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

// AddLink keeps a link of the workshop by its token.
func (s *Store) AddLink(ctx context.Context, token string, l Link, did, what string) (Link, error) {
	l.WorkshopID, l.Digest, l.MadeBy = s.workshop, digest(token), s.whom()
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if l.JobID != nil {
			if _, err := s.get(tx, *l.JobID); err != nil {
				return err
			}
		}
		if err := tx.Clauses(clause.Returning{}).Create(&l).Error; err != nil {
			return err
		}
		return s.note(tx, l.JobID, did, what)
	})
	return l, named(err)
}

// Links are those of the workshop that are of use, or a job's.
func (s *Store) Links(ctx context.Context, kind, job string) (list []Link, err error) {
	q := s.own(ctx).Where("kind = ? AND used_at IS NULL AND revoked_at IS NULL AND expires_at > now()", kind)
	if job != "" {
		q = q.Where("job_id = ?", job)
	}
	err = q.Order("made_at DESC").Limit(100).Find(&list).Error
	return list, named(err)
}

// LinkOf is a link of the workshop that is of use.
func (s *Store) LinkOf(ctx context.Context, id string) (l Link, err error) {
	err = s.own(ctx).Where("id = ? AND used_at IS NULL AND revoked_at IS NULL", id).Take(&l).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return l, ErrNoLink
	}
	return l, named(err)
}

// Revoke takes a link back.
func (s *Store) Revoke(ctx context.Context, l Link, did string) error {
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if err := s.mine(tx.Model(&Link{})).Where("id = ?", l.ID).Update("revoked_at", gorm.Expr("now()")).Error; err != nil {
			return err
		}
		return s.note(tx, l.JobID, did, string(l.Role))
	}))
}

// Link is one by its token, while it is of use. It returns ErrNoLink.
func (d *Door) Link(ctx context.Context, token string) (l Link, w Workshop, err error) {
	return link(d.db.WithContext(ctx), token)
}

func link(tx *gorm.DB, token string) (l Link, w Workshop, err error) {
	found := tx.Raw("SELECT * FROM links WHERE digest = ? AND used_at IS NULL AND revoked_at IS NULL AND expires_at > now()",
		digest(token)).Scan(&l)
	if found.Error == nil && found.RowsAffected == 0 {
		return l, w, ErrNoLink
	}
	if found.Error != nil {
		return l, w, named(found.Error)
	}
	return l, w, named(tx.Raw("SELECT id, name, address FROM workshops WHERE id = ?", l.WorkshopID).Scan(&w).Error)
}

// Begun says whether somebody has begun a workshop.
func (d *Door) Begun(ctx context.Context, workshop string) (begun bool, err error) {
	err = d.db.WithContext(ctx).Raw("SELECT address IS NOT NULL FROM workshops WHERE id = ?", workshop).Scan(&begun).Error
	return begun, named(err)
}

// FirstLink makes the link that begins a workshop; those made before are taken back.
func (d *Door) FirstLink(ctx context.Context, workshop, token string, until time.Time) error {
	return named(d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Model(&Link{}).Where("workshop_id = ? AND kind = 'first' AND used_at IS NULL AND revoked_at IS NULL", workshop).
			Update("revoked_at", gorm.Expr("now()")).Error; err != nil {
			return err
		}
		l := Link{WorkshopID: workshop, Kind: FirstLink, Digest: digest(token), Role: people.Owner, ExpiresAt: until}
		return tx.Omit("id", "made_at").Create(&l).Error
	}))
}

// ResetLink makes a link that sets somebody's password anew, by the program itself.
func (d *Door) ResetLink(ctx context.Context, p PersonRow, token string, until time.Time) error {
	return named(d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		l := Link{WorkshopID: p.WorkshopID, Kind: ResetLink, Digest: digest(token), PersonID: &p.ID, ExpiresAt: until}
		if err := tx.Omit("id", "made_at").Create(&l).Error; err != nil {
			return err
		}
		return noteAt(tx, people.Person{Workshop: p.WorkshopID}, "reset link", p.Name)
	}))
}

// Joining is who comes in by a link, and what they sign in with.
type Joining struct {
	Name, SignIn, Password string // the password as its hash
	Workshop, Address      string // of a workshop that is begun
}

// Join uses a link that makes a person, once. It returns ErrNoLink, or ErrTaken.
func (d *Door) Join(ctx context.Context, token string, j Joining) (p people.Person, err error) {
	err = d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		l, err := use(tx, token)
		if err != nil {
			return err
		}
		if l.Kind == FirstLink {
			if err := tx.Exec("UPDATE workshops SET name = ?, address = ? WHERE id = ?", j.Workshop, j.Address,
				l.WorkshopID).Error; err != nil {
				return err
			}
		}
		row := PersonRow{WorkshopID: l.WorkshopID, Name: j.Name, SignIn: j.SignIn, Role: l.Role}
		if err := tx.Clauses(clause.Returning{}).Create(&row).Error; err != nil {
			return err
		}
		if err := tx.Create(&Secrets{PersonID: row.ID, WorkshopID: row.WorkshopID, Password: j.Password}).Error; err != nil {
			return err
		}
		p = row.Of()
		return noteAt(tx, p, "joined", string(l.Role))
	})
	var pg *pgconn.PgError
	if errors.As(err, &pg) && pg.Code == "23505" {
		err = ErrTaken
	}
	return p, named(err)
}

// Reset uses a link that sets a password anew: the second factor goes with the old one, and whoever is signed in is signed out.
func (d *Door) Reset(ctx context.Context, token, password string) (p people.Person, err error) {
	err = d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		l, err := use(tx, token)
		if err != nil {
			return err
		}
		var row PersonRow
		if err := tx.Raw("SELECT * FROM people WHERE id = ? AND left_at IS NULL", l.PersonID).Scan(&row).Error; err != nil || row.ID == "" {
			return errors.Join(ErrNoLink, err)
		}
		p = row.Of()
		if err := tx.Model(&Secrets{}).Where("person_id = ?", p.ID).Updates(map[string]any{"password": password, "totp": "",
			"totp_step": 0}).Error; err != nil {
			return err
		}
		if err := tx.Model(&SignIn{}).Where("person_id = ? AND ended_at IS NULL", p.ID).Update("ended_at",
			gorm.Expr("now()")).Error; err != nil {
			return err
		}
		return noteAt(tx, p, "set their password anew", "")
	})
	return p, named(err)
}

// use takes a link for good.
func use(tx *gorm.DB, token string) (l Link, err error) {
	if l, _, err = link(tx, token); err != nil {
		return l, err
	}
	used := tx.Exec("UPDATE links SET used_at = now() WHERE id = ? AND used_at IS NULL", l.ID)
	if used.Error == nil && used.RowsAffected == 0 { // somebody else did meanwhile
		return l, ErrNoLink
	}
	return l, used.Error
}
