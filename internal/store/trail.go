package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// note writes into the trail what no other table of who did what has.
func (s *Store) note(tx *gorm.DB, job *string, did, what string) error {
	return tx.Exec("INSERT INTO trail (workshop_id, job_id, person_id, did, what) VALUES (?, ?, ?, ?, left(?, 400))", s.workshop, job,
		s.whom(), did,
		what).Error
}

// Note writes into the trail what somebody did; job is empty where it was on none.
func (s *Store) Note(ctx context.Context, job, did, what string) error {
	return named(s.note(s.of(ctx), optional(job), did, what))
}

// Did is something that somebody did.
type Did struct {
	At      time.Time
	JobID   string
	Number  int64 // of the job
	Title   string
	ByWhom  string
	Did     string
	What    string
	Detail  string
	Version int // of a save
	ID      string
}

// trailed are the append-only tables of who did what, each with what it says.
const trailed = `
	SELECT t.at, t.job_id, t.person_id, '' AS by_whom, t.did, t.what, '' AS detail, 0 AS version, t.id::text AS id FROM trail t
		WHERE t.workshop_id = @workshop
	UNION ALL SELECT s.saved_at, s.job_id, s.person_id, '', 'saved', '', '', s.version, s.version::text FROM job_saves s
		WHERE s.workshop_id = @workshop
	UNION ALL SELECT r.issued_at, r.job_id, r.person_id, '', 'issued', 'revision ' || r.number, '', 0, r.number::text FROM job_revisions r
		WHERE r.workshop_id = @workshop
	UNION ALL SELECT k.received_at, k.job_id, k.person_id, k.by_whom, CASE WHEN k.done THEN 'ticked' ELSE 'unticked' END, k.step, k.note, 0,
			k.id::text
		FROM step_ticks k WHERE k.workshop_id = @workshop
	UNION ALL SELECT e.received_at, e.job_id, e.person_id, e.by_whom, e.kind, e.subject, e.entry, 0, e.id::text FROM proof_entries e
		WHERE e.workshop_id = @workshop
	UNION ALL SELECT p.received_at, p.job_id, p.person_id, p.by_whom, 'photographed', p.tied, p.note, 0, p.id::text FROM photos p
		WHERE p.workshop_id = @workshop
	UNION ALL SELECT g.signed_at, g.job_id, g.person_id, g.by_whom, 'signed', 'certificate ' || g.number, '', 0, g.number::text FROM signoffs g
		WHERE g.workshop_id = @workshop
	UNION ALL SELECT c.at, c.job_id, c.person_id, '', 'countersigned', coalesce(k.step, e.subject, ''), coalesce(k.by_whom, e.by_whom, ''), 0,
			c.id::text FROM countersigns c
		LEFT JOIN step_ticks k ON k.workshop_id = c.workshop_id AND k.id = c.of
		LEFT JOIN proof_entries e ON e.workshop_id = c.workshop_id AND e.id = c.of
		WHERE c.workshop_id = @workshop
	UNION ALL SELECT m.at, m.job_id, m.person_id, '', CASE WHEN m.answers THEN 'answered' WHEN m.asks THEN 'asked' ELSE 'commented' END,
			m.named, m.text,
			0, m.id::text FROM comments m WHERE m.workshop_id = @workshop`

// MostTrail is how much of a trail is read at once.
const MostTrail = 200

// Trail is what was done on a job, or over the whole workshop where job is empty, before a moment, the newest first.
func (s *Store) Trail(ctx context.Context, job string, before time.Time) (list []Did, err error) {
	where := ""
	if job != "" {
		if _, err := s.Get(ctx, job); err != nil {
			return nil, err
		}
		where = " AND d.job_id = @job"
	}
	err = s.of(ctx).Raw(`SELECT d.at, coalesce(d.job_id::text, '') AS job_id, coalesce(j.number, 0) AS number, coalesce(j.title, '') AS title,
			coalesce(p.name, nullif(d.by_whom, ''), '') AS by_whom, d.did, d.what, d.detail, d.version, d.id
		FROM (`+trailed+`) d LEFT JOIN people p ON p.workshop_id = @workshop AND p.id = d.person_id
		LEFT JOIN jobs j ON j.workshop_id = @workshop AND j.id = d.job_id
		WHERE d.at < @before`+where+` ORDER BY d.at DESC, d.id DESC LIMIT @most`,
		map[string]any{"workshop": s.workshop, "job": job, "before": before, "most": MostTrail}).Scan(&list).Error
	return list, named(err)
}

// Saves are a job's documents as they were saved, by version.
func (s *Store) Saves(ctx context.Context, job string, from, to int) (map[int]Job, error) {
	var rows []save
	if err := s.own(ctx).Where("job_id = ? AND version BETWEEN ? AND ?", job, from, to).Find(&rows).Error; err != nil {
		return nil, named(err)
	}
	out := map[int]Job{}
	for _, r := range rows {
		out[r.Version] = Job{ID: job, Version: r.Version, Document: r.Document}
	}
	return out, nil
}
