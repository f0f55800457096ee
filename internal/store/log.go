package store

import (
	"context"
	"time"
)

// Logged is something that happened to a job.
type Logged struct {
	At   time.Time
	Kind string // made, issued, signed, begun, installed, or the kind of its entry
	By   string
	Says string // as it was entered
	What string // its subject: a revision's or certificate's number, an entry's subject
	Case string

	Failed string // as it is counted among what failed
}

// Log is what happened to a job over the years, the oldest first.
func (s *Store) Log(ctx context.Context, jobID string) (list []Logged, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	err = s.of(ctx).Raw(`SELECT l.at, l.kind, coalesce(p.name, l.by_whom) AS by, l.says, l.what, l.case_id AS case, l.failed FROM (
		SELECT j.created_at AS at, 'made' AS kind, NULL::uuid AS person_id, '' AS by_whom, '' AS says, '' AS what, '' AS case_id,
				0 AS arrived, '' AS failed
			FROM jobs j WHERE j.workshop_id = @workshop AND j.id = @job
		UNION ALL SELECT r.issued_at, 'issued', r.person_id, '', '', r.number::text, '', 0, ''
			FROM job_revisions r WHERE r.workshop_id = @workshop AND r.job_id = @job
		UNION ALL SELECT g.signed_at, 'signed', g.person_id, g.by_whom, '', g.number::text, '', 0, ''
			FROM signoffs g WHERE g.workshop_id = @workshop AND g.job_id = @job
		UNION ALL (SELECT k.ticked_at, 'begun', k.person_id, k.by_whom, '', '', '', 0, '' FROM step_ticks k
			WHERE k.workshop_id = @workshop AND k.job_id = @job AND k.done ORDER BY k.arrived LIMIT 1)
		UNION ALL (SELECT k.ticked_at, 'installed', k.person_id, k.by_whom, '', '', '', 0, '' FROM step_ticks k
			WHERE k.workshop_id = @workshop AND k.job_id = @job AND k.done ORDER BY k.arrived DESC LIMIT 1)
		UNION ALL SELECT e.taken_at, e.kind, e.person_id, e.by_whom, e.entry, e.subject, coalesce(e.case_id::text, ''), e.arrived,
				coalesce(f.says, '')
			FROM proof_entries e LEFT JOIN failures f ON f.workshop_id = e.workshop_id AND f.entry_id = e.id
			WHERE e.workshop_id = @workshop AND e.job_id = @job
				AND e.kind IN ('complaint', 'mended', 'bypass', 'closed', 'changed', 'noted', 'trip')
		) l LEFT JOIN people p ON p.workshop_id = @workshop AND p.id = l.person_id ORDER BY l.at, l.arrived`,
		map[string]any{"workshop": s.workshop, "job": jobID}).Scan(&list).Error
	return list, named(err)
}
