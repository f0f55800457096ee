package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// ProofEntry is a reading as it was entered, or what was said at a gate or of a trip.
type ProofEntry struct {
	ID         string `gorm:"primaryKey"`
	WorkshopID string
	JobID      string
	Kind       string
	Subject    string // the reading or the gate
	Entry      string // as it was entered
	ByWhom     string
	PersonID   *string
	Awaits     bool // a countersignature
	WithWhat   string
	State      string // of the vehicle then
	CaseID     *string
	AsFound    bool // it speaks of the installation that was found
	TakenAt    time.Time
	ReceivedAt time.Time `gorm:"default:now()"`
	Arrived    int64     `gorm:"->"`
}

// TableName is the entries' table.
func (ProofEntry) TableName() string { return "proof_entries" }

// Photo is a photograph of a job.
type Photo struct {
	ID         string `gorm:"primaryKey"`
	WorkshopID string
	JobID      string
	Tied       string // the step, the part or the gate that it shows
	Note       string
	ByWhom     string
	PersonID   *string
	TakenAt    time.Time
	ReceivedAt time.Time `gorm:"default:now()"`
	Digest     string    // SHA-256 of the content
	Width      int
	Height     int
	Content    []byte
	Arrived    int64 `gorm:"->"`
}

// Signoff is what was signed for, frozen.
type Signoff struct {
	ID          string `gorm:"primaryKey"`
	WorkshopID  string
	JobID       string
	Number      int
	Version     int
	ByWhom      string
	PersonID    *string
	SignedAt    time.Time       `gorm:"default:now()"`
	Frozen      json.RawMessage `gorm:"type:jsonb"`
	Certificate []byte
}

// add keeps rows of a job; one that is there already, by its id, counts once.
func add[T any](tx *gorm.DB, s *Store, jobID string, rows []T) error {
	if _, err := s.get(tx, jobID); err != nil || len(rows) == 0 {
		return err
	}
	return tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&rows).Error
}

// AddProof keeps what was entered at a job's proof, with what of it failed.
func (s *Store) AddProof(ctx context.Context, jobID string, entries []ProofEntry, failed ...Failure) error {
	for i := range entries {
		entries[i].WorkshopID, entries[i].JobID = s.workshop, jobID
	}
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if err := add(tx, s, jobID, entries); err != nil {
			return err
		}
		return s.putFailures(tx, jobID, failed)
	}))
}

// Proof is all that was entered at a job's proof, in the order in which it came.
func (s *Store) Proof(ctx context.Context, jobID string) (entries []ProofEntry, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	err = s.own(ctx).Where("job_id = ?", jobID).Order("arrived").Find(&entries).Error
	return entries, named(err)
}

// AddPhoto keeps a photograph of a job.
func (s *Store) AddPhoto(ctx context.Context, jobID string, p Photo) error {
	p.WorkshopID, p.JobID = s.workshop, jobID
	return named(add(s.of(ctx), s, jobID, []Photo{p}))
}

// Photos are a job's photographs without their content, in the order in which they came.
func (s *Store) Photos(ctx context.Context, jobID string) (photos []Photo, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	err = s.own(ctx).Omit("content").Where("job_id = ?", jobID).Order("arrived").Find(&photos).Error
	return photos, named(err)
}

// PhotosWhole are a job's photographs with their content, the newest so many, in the order in which they came.
func (s *Store) PhotosWhole(ctx context.Context, jobID string, most int) (photos []Photo, err error) {
	newest := s.own(ctx).Model(&Photo{}).Where("job_id = ?", jobID).Order("arrived DESC").Limit(most)
	err = s.of(ctx).Table("(?) AS newest", newest).Order("arrived").Find(&photos).Error
	return photos, named(err)
}

// Photo is a photograph of a job with its content.
func (s *Store) Photo(ctx context.Context, jobID, id string) (p Photo, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return p, err
	}
	return p, named(s.own(ctx).Where("job_id = ? AND id = ?", jobID, id).Take(&p).Error)
}

// Sign freezes what was signed for, as the job's next sign-off, on top of a version of its draft: what is frozen is made while
// nobody saves or signs. Sent twice, by its id, it counts once.
func (s *Store) Sign(ctx context.Context, jobID string, base int, out Signoff, freeze func(Job, *Signoff) error) (Signoff, error) {
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		j, err := s.get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), jobID)
		if err != nil {
			return err
		}
		var before Signoff
		found := s.mine(tx).Where("job_id = ? AND id = ?", jobID, out.ID).Limit(1).Find(&before)
		if found.Error != nil || found.RowsAffected > 0 {
			out = before
			return found.Error
		}
		if j.Version != base {
			return s.stale(tx, j, base)
		}
		var last int
		if err := s.mine(tx.Model(&Signoff{})).Where("job_id = ?", jobID).Select("coalesce(max(number), 0)").Scan(&last).Error; err != nil {
			return err
		}
		out.WorkshopID, out.JobID, out.Number, out.Version = s.workshop, jobID, last+1, j.Version
		out.PersonID = s.whom()
		if err := freeze(j, &out); err != nil {
			return err
		}
		return tx.Create(&out).Error
	})
	return out, named(err)
}

// Signoffs are a job's sign-offs without their certificates, the newest first.
func (s *Store) Signoffs(ctx context.Context, jobID string) (list []Signoff, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	err = s.own(ctx).Omit("certificate").Where("job_id = ?", jobID).Order("number DESC").Find(&list).Error
	return list, named(err)
}

// Signoff is a job's sign-off of a number, whole.
func (s *Store) Signoff(ctx context.Context, jobID string, number int) (out Signoff, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return out, err
	}
	return out, named(s.own(ctx).Where("job_id = ? AND number = ?", jobID, number).Take(&out).Error)
}
