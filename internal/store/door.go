package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"epitrope/internal/people"
)

// Door is what signing in needs of the database, over all workshops: it sees no job.
type Door struct{ db *gorm.DB }

// Door is the database as whoever signs people in sees it.
func (s *Store) Door() *Door { return &Door{s.door} }

// Workshop is one of a server.
type Workshop struct {
	ID      string
	Name    string
	Address *string // what one signs in at; nil until somebody has begun it
}

// Workshops are all that somebody has begun.
func (d *Door) Workshops(ctx context.Context) (list []Workshop, err error) {
	err = d.db.WithContext(ctx).Raw("SELECT id, name, address FROM workshops WHERE address IS NOT NULL ORDER BY name").Scan(&list).Error
	return list, named(err)
}

// Named is a begun workshop by its address. It returns ErrNobody.
func (d *Door) Named(ctx context.Context, address string) (w Workshop, err error) {
	return w, d.one(ctx, &w, "SELECT id, name, address FROM workshops WHERE address = ?", address)
}

func (d *Door) one(ctx context.Context, to any, sql string, values ...any) error {
	found := d.db.WithContext(ctx).Raw(sql, values...).Scan(to)
	if found.Error == nil && found.RowsAffected == 0 {
		return ErrNobody
	}
	return named(found.Error)
}

// AddWorkshop makes a workshop that nobody has begun.
func (d *Door) AddWorkshop(ctx context.Context) (id string, err error) {
	return id, d.one(ctx, &id, "INSERT INTO workshops (id) VALUES (gen_random_uuid()) RETURNING id")
}

// Secrets are what somebody signs in with.
type Secrets struct {
	PersonID   string `gorm:"primaryKey"`
	WorkshopID string
	Password   string // argon2id
	PIN        string `gorm:"column:pin"` // argon2id
	TOTP       string `gorm:"column:totp"`
	TOTPStep   int64  `gorm:"column:totp_step"`
}

// TableName is the secrets' table.
func (Secrets) TableName() string { return "door.secrets" }

// Account is somebody with what they sign in with.
type Account struct {
	Person  PersonRow
	Secrets Secrets
}

// Account is who signs in so at a workshop. It returns ErrNobody.
func (d *Door) Account(ctx context.Context, workshop, signIn string) (Account, error) {
	return d.account(ctx, "workshop_id = ? AND sign_in = ?", workshop, signIn)
}

// AccountOf is somebody's. It returns ErrNobody.
func (d *Door) AccountOf(ctx context.Context, person string) (Account, error) {
	return d.account(ctx, "id = ?", person)
}

func (d *Door) account(ctx context.Context, where string, values ...any) (a Account, err error) {
	if err = d.one(ctx, &a.Person, "SELECT * FROM people WHERE left_at IS NULL AND "+where, values...); err != nil {
		return a, err
	}
	return a, d.one(ctx, &a.Secrets, "SELECT * FROM door.secrets WHERE person_id = ?", a.Person.ID)
}

// WithPIN are the people of a workshop who have a PIN, by name.
func (d *Door) WithPIN(ctx context.Context, workshop string) (list []PersonRow, err error) {
	err = d.db.WithContext(ctx).Raw(`SELECT p.* FROM people p JOIN door.secrets s ON s.person_id = p.id
		WHERE p.workshop_id = ? AND p.left_at IS NULL AND s.pin <> '' ORDER BY lower(p.name)`, workshop).Scan(&list).Error
	return list, named(err)
}

// PutSecret keeps one of somebody's secrets: password, pin or totp; empty takes it away.
func (d *Door) PutSecret(ctx context.Context, p people.Person, which, secret, did string) error {
	return named(d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		change := map[string]any{which: secret}
		if which == "totp" {
			change["totp_step"] = 0
		}
		if err := tx.Model(&Secrets{}).Where("person_id = ?", p.ID).Updates(change).Error; err != nil {
			return err
		}
		return noteAt(tx, p, did, "")
	}))
}

// UseStep counts a one-time code as used: false where it, or a later one, was used already.
func (d *Door) UseStep(ctx context.Context, person string, step int64) (bool, error) {
	used := d.db.WithContext(ctx).Exec("UPDATE door.secrets SET totp_step = ? WHERE person_id = ? AND totp_step < ?", step, person, step)
	return used.RowsAffected == 1, named(used.Error)
}

// noteAt writes into a workshop's trail what somebody did at the door.
func noteAt(tx *gorm.DB, p people.Person, did, what string) error {
	return tx.Exec("INSERT INTO trail (workshop_id, person_id, did, what) VALUES (?, ?, ?, left(?, 400))", p.Workshop, optional(p.ID), did,
		what).Error
}

// Begin keeps that somebody signed in, and is its name.
func (d *Door) Begin(ctx context.Context, p people.Person, how, agent string) (id string, err error) {
	err = d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		in := SignIn{WorkshopID: p.Workshop, PersonID: p.ID, How: how, Agent: agent}
		if err := tx.Clauses(clause.Returning{Columns: []clause.Column{{Name: "id"}}}).Create(&in).Error; err != nil {
			return err
		}
		id = in.ID
		return noteAt(tx, p, "signed in", how)
	})
	return id, named(err)
}

// How long one stays signed in: since somebody last did something, and at most.
const (
	IdleDays   = 7
	LongestFor = 30 * 24 * time.Hour
)

// In is who is signed in.
type In struct {
	Person people.Person
	Shared bool   // it is the bay's tablet
	Signed string // who signed the tablet in, or the person
}

// Who is behind a sign-in that has not ended; current, where it is not empty, is to whom its tablet was switched. It
// returns ErrNobody where it has ended, and ErrNobody where they have left. It keeps that they were seen.
func (d *Door) Who(ctx context.Context, signIn, current string) (In, error) {
	var row struct {
		ID, WorkshopID, Name, Role, Signed string
		Shared, Stale                      bool
	}
	err := d.one(ctx, &row, `SELECT p.id, p.workshop_id, p.name, p.role, i.shared, i.person_id AS signed,
			i.seen_at < now() - interval '1 minute' AS stale
		FROM sign_ins i JOIN people p ON p.workshop_id = i.workshop_id AND p.id = coalesce(CAST(? AS uuid), i.person_id)
		JOIN people o ON o.workshop_id = i.workshop_id AND o.id = i.person_id AND o.left_at IS NULL
		WHERE i.id = ? AND i.ended_at IS NULL AND p.left_at IS NULL AND i.seen_at > now() - make_interval(days => ?)
			AND i.began_at > now() - make_interval(secs => ?)`, optional(current), signIn, IdleDays, LongestFor.Seconds())
	if err != nil {
		return In{}, err
	}
	if row.Stale {
		err = d.db.WithContext(ctx).Exec("UPDATE sign_ins SET seen_at = now() WHERE id = ?", signIn).Error
	}
	return In{people.Person{ID: row.ID, Workshop: row.WorkshopID, Name: row.Name, Role: people.Role(row.Role)}, row.Shared, row.Signed},
		named(err)
}

// Share makes a sign-in the bay's tablet.
func (d *Door) Share(ctx context.Context, p people.Person, signIn string) error {
	return named(d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Exec("UPDATE sign_ins SET shared = true WHERE id = ? AND workshop_id = ?", signIn, p.Workshop).Error; err != nil {
			return err
		}
		return noteAt(tx, p, "made a bay's tablet", "")
	}))
}

// End ends a sign-in of somebody, or with none named all but one.
func (d *Door) End(ctx context.Context, p people.Person, signIn, but string) error {
	tx := d.db.WithContext(ctx).Model(&SignIn{}).Where("person_id = ? AND ended_at IS NULL", p.ID)
	if signIn != "" {
		tx = tx.Where("id = ?", signIn)
	}
	if but != "" {
		tx = tx.Where("id <> ?", but)
	}
	return named(tx.Update("ended_at", gorm.Expr("now()")).Error)
}

// Wrong counts an attempt under some names, and says until when each of them has to wait before the next: none up to free of
// them within an hour, then twice as long each time, up to most.
func (d *Door) Wrong(ctx context.Context, who string, free int, most time.Duration) (waits time.Duration, err error) {
	sum := sha256.Sum256([]byte(who))
	var row struct{ Waits float64 }
	// While it waits nothing is counted, and the wait is not made longer. What was counted bears this statement's own time: one that
	// queued for the row may find a later one.
	err = d.db.WithContext(ctx).Raw(`INSERT INTO door.wrongs AS w (who, count, until, last) VALUES (decode(@who, 'hex'), 1, now(), now())
		ON CONFLICT (who) DO UPDATE SET
			count = CASE WHEN w.until > now() THEN w.count WHEN w.last < now() - interval '1 hour' THEN 1 ELSE w.count + 1 END,
			last = CASE WHEN w.until > now() THEN w.last ELSE now() END,
			until = CASE WHEN w.until > now() OR w.last < now() - interval '1 hour' OR w.count < @free THEN w.until
				ELSE now() + make_interval(secs => least(@most, power(2, least(w.count - @free, 20)))) END
		RETURNING CASE WHEN last = now() THEN 0 ELSE extract(epoch FROM until - now()) END AS waits`,
		map[string]any{"who": hex.EncodeToString(sum[:]), "free": free, "most": most.Seconds()}).Scan(&row).Error
	return time.Duration(max(0, row.Waits) * float64(time.Second)), named(err)
}

// NotWrong takes back one attempt that was counted.
func (d *Door) NotWrong(ctx context.Context, who string) error {
	sum := sha256.Sum256([]byte(who))
	return named(d.db.WithContext(ctx).Exec("UPDATE door.wrongs SET count = greatest(count - 1, 0) WHERE who = ?", sum[:]).Error)
}

// Right forgets how often somebody was wrong.
func (d *Door) Right(ctx context.Context, who string) error {
	sum := sha256.Sum256([]byte(who))
	return named(d.db.WithContext(ctx).Exec("DELETE FROM door.wrongs WHERE who = ?", sum[:]).Error)
}

// Passkey is one of somebody's.
type Passkey struct {
	ID         []byte `gorm:"primaryKey"`
	PersonID   string
	WorkshopID string
	Name       string
	Credential json.RawMessage `gorm:"type:jsonb"`
	MadeAt     time.Time       `gorm:"default:now()"`
	UsedAt     *time.Time
}

// TableName is the passkeys' table.
func (Passkey) TableName() string { return "door.passkeys" }

// Passkeys are somebody's, the oldest first.
func (d *Door) Passkeys(ctx context.Context, person string) (list []Passkey, err error) {
	err = d.db.WithContext(ctx).Where("person_id = ?", person).Order("made_at").Find(&list).Error
	return list, named(err)
}

// AddPasskey keeps one.
func (d *Door) AddPasskey(ctx context.Context, p people.Person, name string, id []byte, credential json.RawMessage) error {
	return named(d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&Passkey{ID: id, PersonID: p.ID, WorkshopID: p.Workshop, Name: name,
			Credential: credential}).Error; err != nil {
			return err
		}
		return noteAt(tx, p, "added a passkey", name)
	}))
}

// UsedPasskey keeps how a passkey counts after it was used.
func (d *Door) UsedPasskey(ctx context.Context, id []byte, credential json.RawMessage) error {
	return named(d.db.WithContext(ctx).Model(&Passkey{}).Where("id = ?", id).
		Updates(map[string]any{"credential": credential, "used_at": gorm.Expr("now()")}).Error)
}

// DropPasskey takes one of somebody's away.
func (d *Door) DropPasskey(ctx context.Context, p people.Person, id []byte) error {
	return named(d.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		dropped := tx.Where("person_id = ? AND id = ?", p.ID, id).Delete(&Passkey{})
		if dropped.Error != nil {
			return dropped.Error
		}
		if dropped.RowsAffected == 0 {
			return ErrNobody
		}
		return noteAt(tx, p, "took a passkey away", fmt.Sprintf("%x", id[:min(4, len(id))]))
	}))
}

// ErrTaken is a name that somebody of the workshop has.
var ErrTaken = errors.New("somebody of this workshop has that name")
