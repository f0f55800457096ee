package store

import (
	"context"
	"errors"
	"time"

	"github.com/jackc/pgx/v5/pgconn"
)

// Addressee is where a workshop is told what concerns it: an address that its owner listed.
type Addressee struct {
	ID         string `gorm:"primaryKey;default:gen_random_uuid()"`
	WorkshopID string
	Kind       string // MailTo or Webhook
	Address    string
	PersonID   *string // whose it is
	Wants      string  // of due, asked, mentioned, signed, failed, with commas between
	Hourly     bool    // otherwise once a day
	Hour       int     // of the day, there
	Zone       string
	Secret     string
	ListedBy   string
	ListedAt   time.Time `gorm:"default:now()"`
	EndedAt    *time.Time
	ToldUntil  time.Time `gorm:"default:now()"`
	NextAt     time.Time
	BusyUntil  time.Time `gorm:"default:now()"`
	SentAt     *time.Time
	Tries      int
	Problem    string
}

// The kinds of addressee.
const (
	MailTo  = "mail"
	Webhook = "webhook"
)

// MostAddressees is how many a workshop may list.
const MostAddressees = 20

// ErrManyAddressees is one more than there may be.
var ErrManyAddressees = errors.New("there are 20 addresses already: take one off the list first")

// ErrNoAddressee is an addressee that there is not.
var ErrNoAddressee = errors.New("there is no such address on the list")

// ErrListed is an address that stands on the list.
var ErrListed = errors.New("this address is on the list already")

// Name is what the workshop is called.
func (s *Store) Name(ctx context.Context) (name string, err error) {
	return name, named(s.of(ctx).Raw("SELECT coalesce(name, '') FROM workshops WHERE id = ?", s.workshop).Scan(&name).Error)
}

// Addressees are the workshop's, as they were listed.
func (s *Store) Addressees(ctx context.Context) (list []Addressee, err error) {
	return list, named(s.own(ctx).Where("ended_at IS NULL").Order("listed_at, id").Find(&list).Error)
}

// AddAddressee lists an address.
func (s *Store) AddAddressee(ctx context.Context, a Addressee) error {
	list, err := s.Addressees(ctx)
	if err != nil {
		return err
	}
	if len(list) >= MostAddressees {
		return ErrManyAddressees
	}
	a.WorkshopID, a.ListedBy = s.workshop, s.by.ID
	if err := s.of(ctx).Create(&a).Error; err != nil {
		if pg := (*pgconn.PgError)(nil); errors.As(err, &pg) && pg.Code == "23505" {
			return ErrListed
		}
		return named(err)
	}
	return s.Note(ctx, "", "listed", a.Address)
}

// EndAddressee takes an address off the list: nothing is told there any longer.
func (s *Store) EndAddressee(ctx context.Context, id string) error {
	var a Addressee
	done := s.of(ctx).Raw("UPDATE addressees SET ended_at = now() WHERE workshop_id = ? AND id = ? AND ended_at IS NULL RETURNING *",
		s.workshop,
		id).Scan(&a)
	if done.Error != nil {
		return named(done.Error)
	}
	if a.ID == "" {
		return ErrNoAddressee
	}
	return s.Note(ctx, "", "unlisted", a.Address)
}

// busyFor is how long a server that takes an addressee may be at it.
const busyFor = 3 * time.Minute

// ClaimAddressee takes one of any workshop that is to be told now; ok is false where there is none.
func (s *Store) ClaimAddressee(ctx context.Context) (a Addressee, ok bool, err error) {
	err = s.all.WithContext(ctx).Raw(`UPDATE addressees SET busy_until = now() + make_interval(secs => ?)
		WHERE id = (SELECT id FROM addressees WHERE ended_at IS NULL AND next_at <= now() AND busy_until <= now()
			ORDER BY next_at FOR UPDATE SKIP LOCKED LIMIT 1)
		RETURNING *`, busyFor.Seconds()).Scan(&a).Error
	return a, a.ID != "", named(err)
}

// Told notes that an addressee has been told everything until a moment, and when next.
func (s *Store) Told(ctx context.Context, a Addressee, until, next time.Time, sent bool) error {
	return named(s.all.WithContext(ctx).Exec(`UPDATE addressees SET told_until = ?, next_at = ?, busy_until = now(), tries = 0, problem = '',
		sent_at = CASE WHEN ? THEN now() ELSE sent_at END WHERE id = ?`, until, next, sent, a.ID).Error)
}

// NotTold notes why an addressee could not be told, and when that is tried again.
func (s *Store) NotTold(ctx context.Context, a Addressee, why string, again time.Time) error {
	return named(s.all.WithContext(ctx).Exec(`UPDATE addressees SET next_at = ?, busy_until = now(), tries = tries + 1, problem = left(?, 300)
		WHERE id = ?`, again, why, a.ID).Error)
}

// Happened is something to be told: what, on which job, by whom.
type Happened struct {
	Kind   string // asked, mentioned, signed, failed
	JobID  string
	Number int64
	Title  string
	By     string
	Said   string
	At     time.Time
}

// Happenings are what happened in the workshop after a moment and until another: questions, what names a person (or anybody, where it
// is nobody's), what was signed, tasks that failed.
func (s *Store) Happenings(ctx context.Context, after, until time.Time, person *string) (list []Happened, err error) {
	err = s.of(ctx).Raw(`SELECT h.*, j.number, j.title, coalesce(p.name, '') AS by FROM (
			SELECT 'asked' AS kind, job_id, person_id, text AS said, at FROM comments WHERE workshop_id = @workshop AND asks
			UNION ALL SELECT 'mentioned', job_id, person_id, text, at FROM comments WHERE workshop_id = @workshop
				AND CASE WHEN CAST(@person AS uuid) IS NULL THEN cardinality(mentions) > 0 ELSE CAST(@person AS uuid) = ANY (mentions) END
			UNION ALL SELECT 'signed', job_id, person_id, 'certificate ' || number, signed_at FROM signoffs WHERE workshop_id = @workshop
			UNION ALL SELECT 'failed', job_id, NULL, 'a ' || tasks.kind || ' came to no end: ' || problem, ended_at FROM tasks
				WHERE workshop_id = @workshop AND state = 'failed'
		) h JOIN jobs j ON j.workshop_id = @workshop AND j.id = h.job_id AND j.deleted_at IS NULL
		LEFT JOIN people p ON p.workshop_id = @workshop AND p.id = h.person_id
		WHERE h.at > @after AND h.at <= @until ORDER BY h.at LIMIT 200`,
		map[string]any{"workshop": s.workshop, "person": person, "after": after, "until": until}).Scan(&list).Error
	return list, named(err)
}

// ReadSince are the jobs of which something was read after a moment and until another.
func (s *Store) ReadSince(ctx context.Context, after, until time.Time) (ids []string, err error) {
	err = s.of(ctx).Raw(`SELECT DISTINCT e.job_id::text FROM proof_entries e JOIN jobs j ON j.workshop_id = e.workshop_id AND j.id = e.job_id
			AND j.deleted_at IS NULL
		WHERE e.workshop_id = ? AND e.kind = 'reading' AND e.received_at > ? AND e.received_at <= ? LIMIT 50`, s.workshop, after, until).
		Scan(&ids).Error
	return ids, named(err)
}
