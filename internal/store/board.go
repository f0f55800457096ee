package store

import (
	"context"
	"time"
)

// Stages are what a job may wait for, in the order in which a foreman looks; the last waits for nothing.
var Stages = []string{"complaint", "signature", "reading", "part", "bay", "answer", "done"}

// Staged is a job on the board, with why it stands where it does.
type Staged struct {
	Stage    string
	Count    int // jobs of its stage
	ID       string
	Number   int64
	Title    string
	Customer string
	Vehicle  string
	Severity string
	Settled  string
	SavedAt  time.Time
	Says     string     // a complaint's or a question's words
	Bay      string     // … of a bay
	Due      string     // when its bay is free
	At       *time.Time // since when it waits
	Read     int        // readings that were taken, or parts that are to come, or what is to be countersigned
	Of       int
}

// OnBoard is how many jobs of a stage the board shows.
const OnBoard = 5

// Board is what the jobs of the workshop wait for: of each stage how many, and those that were saved last.
func (s *Store) Board(ctx context.Context) (list []Staged, err error) {
	err = s.of(ctx).Raw(`WITH counts AS (SELECT stage, count(*) FROM jobs WHERE workshop_id = @workshop AND deleted_at IS NULL GROUP BY stage)
		SELECT g.stage, coalesce(n.count, 0) AS count, coalesce(j.id::text, '') AS id, coalesce(j.number, 0) AS number,
			coalesce(j.title, '') AS title,
			coalesce(j.customer, '') AS customer, coalesce(j.vehicle, '') AS vehicle, coalesce(j.severity, 'none') AS severity,
			coalesce(j.settled, '') AS settled, coalesce(j.saved_at, now()) AS saved_at, coalesce(why.says, '') AS says,
			coalesce(fit.bay, '') AS bay, coalesce(fit.due, '') AS due, why.at, coalesce(why.read, 0) AS read, coalesce(j.readings, 0) AS of
		FROM unnest(ARRAY['complaint', 'signature', 'reading', 'part', 'bay', 'answer', 'done']) WITH ORDINALITY g (stage, place)
		LEFT JOIN counts n ON n.stage = g.stage
		LEFT JOIN LATERAL (SELECT * FROM jobs WHERE workshop_id = @workshop AND stage = g.stage AND deleted_at IS NULL AND g.stage <> 'done'
			ORDER BY saved_at DESC, number DESC LIMIT @most) j ON true
		LEFT JOIN LATERAL (SELECT d.bay, d.due::text, d.waits FROM job_dates d WHERE d.workshop_id = @workshop AND d.job_id = j.id AND d.open
			AND d.kind = 'fit' AND g.stage IN ('part', 'bay', 'reading', 'signature') ORDER BY d.due LIMIT 1) fit ON true
		LEFT JOIN LATERAL (
			(SELECT e.entry AS says, e.taken_at AS at, 0 AS read FROM proof_entries e WHERE g.stage = 'complaint' AND e.workshop_id = @workshop
				AND e.job_id = j.id AND e.kind = 'complaint' ORDER BY e.arrived DESC LIMIT 1)
			UNION ALL (SELECT q.text, q.at, 0 FROM comments q WHERE g.stage = 'answer' AND q.workshop_id = @workshop AND q.job_id = j.id AND q.asks
				AND NOT EXISTS (SELECT FROM comments a WHERE a.workshop_id = @workshop AND a.thread = q.id AND a.answers)
				ORDER BY q.arrived LIMIT 1)
			UNION ALL (SELECT '', max(e.received_at), count(DISTINCT e.subject)::int FROM proof_entries e WHERE g.stage IN ('reading', 'signature')
				AND e.workshop_id = @workshop AND e.job_id = j.id AND e.kind IN ('reading', 'waiver') HAVING g.stage IN ('reading', 'signature'))
			UNION ALL (SELECT '', NULL, fit.waits WHERE g.stage = 'part')
			LIMIT 1) why ON true
		ORDER BY g.place, j.saved_at DESC, j.number DESC`, map[string]any{"workshop": s.workshop, "most": OnBoard}).Scan(&list).Error
	return list, named(err)
}
