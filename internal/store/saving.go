package store

import (
	"cmp"
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"epitrope/core/job"
)

// Save stores a draft on top of version base. It returns *Stale with what changed where somebody else saved
// meanwhile; a draft that is already stored is no write, and what the same window saved on top of base, its
// answer lost, is no conflict, so that a save may be sent again.
func (s *Store) Save(ctx context.Context, id string, base int, d Draft) (Job, error) {
	if out, done, err := s.saveNext(ctx, id, base, d); done || err != nil {
		return out, err
	}
	var out Job
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		current, err := s.get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), id)
		if err != nil {
			return err
		}
		out = current
		was := current.Doc()
		if was.Digest() == d.Document.Digest() {
			return nil
		}
		if current.Version != base {
			if own, err := s.savedBy(tx, id, base, d.By); err != nil || !own {
				return cmp.Or(err, s.stale(tx, current, base))
			}
		}
		out.Version, out.Document, out.SavedAt = current.Version+1, d.Document.Encode(), time.Now()
		columns := d.Listing.columns(current.Number, out.Version)
		columns["version"], columns["document"], columns["saved_at"] = out.Version, out.Document, out.SavedAt
		if err := tx.Model(&Job{}).Where("id = ?", id).Updates(columns).Error; err != nil {
			return err
		}
		if len(was.Dates)+len(d.Listing.Dates) > 0 {
			if err := putDates(tx, out, d.Listing.Dates); err != nil {
				return err
			}
		}
		return tx.Create(&save{s.workshop, id, out.Version, out.Document, d.By, s.whom()}).Error
	})
	return out, named(err)
}

// saveNext is the usual save in one statement: of a job without dates, on the version that is the newest. done
// is false where it is another.
func (s *Store) saveNext(ctx context.Context, id string, base int, d Draft) (out Job, done bool, err error) {
	if len(d.Listing.Dates) > 0 || len(d.Document.Dates) > 0 {
		return out, false, nil
	}
	var saved []Job
	l, document := d.Listing.columns(0, base+1), d.Document.Encode()
	err = s.of(ctx).Raw(`WITH next AS (
		UPDATE jobs SET version = @version, document = CAST(@document AS jsonb), saved_at = now(), title = @title, customer = @customer,
			vehicle = @vehicle,
			summary = @summary, weakest = @weakest, severity = @severity, settled = @settled, listed_by = @listed, listed_version = @version,
			readings = @readings,
			search = ' ' || lpad(number::text, greatest(4, length(number::text)), '0') || ' ' || number || ' ' || @words || ' '
		WHERE workshop_id = @workshop AND id = @id AND version = @base AND deleted_at IS NULL AND document <> CAST(@document AS jsonb)
			AND NOT EXISTS (SELECT FROM job_dates WHERE workshop_id = @workshop AND job_id = @id)
		RETURNING id, workshop_id, number, version, document, created_at, saved_at
	), kept AS (
		INSERT INTO job_saves (workshop_id, job_id, version, document, by_window, person_id)
		SELECT workshop_id, id, version, document, @by, CAST(@person AS uuid) FROM next
	) SELECT * FROM next`, map[string]any{"version": base + 1, "document": string(document), "title": l["title"], "customer": l["customer"],
		"vehicle": l["vehicle"], "summary": l["summary"], "weakest": l["weakest"], "severity": l["severity"], "settled": l["settled"],
		"listed": l["listed_by"], "readings": l["readings"], "words": searchedWords(d.Listing), "workshop": s.workshop, "id": id, "base": base,
		"by": d.By, "person": s.whom()}).Scan(&saved).Error
	if err != nil || len(saved) == 0 {
		return out, false, named(err)
	}
	return saved[0], true, nil
}

// savedBy says whether everything that was saved on top of a version was saved by one window.
func (s *Store) savedBy(tx *gorm.DB, id string, base int, by string) (bool, error) {
	if by == "" {
		return false, nil
	}
	var others int64
	err := s.mine(tx).Model(&save{}).Where("job_id = ? AND version > ? AND by_window <> ?", id, base, by).Count(&others).Error
	return others == 0, err
}

// stale says what changed between the version a writer had and the current one.
func (s *Store) stale(tx *gorm.DB, current Job, base int) error {
	var had save
	err := s.mine(tx).Where("job_id = ? AND version = ?", current.ID, base).Take(&had).Error
	if err != nil && !errors.Is(err, gorm.ErrRecordNotFound) {
		return err
	}
	from := job.New()
	if err == nil {
		from = decode(had.Document)
	}
	return &Stale{Current: current, Changes: job.Diff(from, current.Doc())}
}
