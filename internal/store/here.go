package store

import (
	"context"
	"time"

	"epitrope/internal/people"
)

// hereFor is how long a window that says nothing is taken to be open.
const hereFor = 50 * time.Second

// Present is somebody who has a job open.
type Present struct {
	PersonID string
	Name     string
	Role     people.Role
	Page     string // the window, by a name of its own
}

// Here notes that who acts has a job open in a window, and says who has it open. What is of long ago goes.
func (s *Store) Here(ctx context.Context, jobID, page string) (list []Present, err error) {
	db := s.of(ctx)
	if _, err := s.get(db, jobID); err != nil {
		return nil, named(err)
	}
	if err := db.Exec("DELETE FROM here WHERE workshop_id = ? AND at < now() - make_interval(secs => ?)", s.workshop,
		hereFor.Seconds()).Error; err != nil {
		return nil, named(err)
	}
	if err := db.Exec(`INSERT INTO here (workshop_id, job_id, person_id, page) VALUES (?, ?, ?, ?)
		ON CONFLICT (workshop_id, job_id, person_id, page) DO UPDATE SET at = now()`, s.workshop, jobID, s.by.ID, page).Error; err != nil {
		return nil, named(err)
	}
	err = db.Raw(`SELECT h.person_id, p.name, p.role, h.page::text AS page FROM here h
		JOIN people p ON p.workshop_id = h.workshop_id AND p.id = h.person_id
		WHERE h.workshop_id = ? AND h.job_id = ? AND h.at >= now() - make_interval(secs => ?) ORDER BY p.name, h.page`,
		s.workshop, jobID, hereFor.Seconds()).Scan(&list).Error
	return list, named(err)
}

// Left notes that a window has closed a job.
func (s *Store) Left(ctx context.Context, jobID, page string) error {
	return named(s.of(ctx).Exec("DELETE FROM here WHERE workshop_id = ? AND job_id = ? AND person_id = ? AND page = ?", s.workshop, jobID,
		s.by.ID, page).Error)
}
