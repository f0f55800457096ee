package listing

import (
	"context"

	"epitrope/core/procedure"
	"epitrope/internal/pack"
	"epitrope/internal/store"
)

// Workshop is what the workshop has of its own: the parts of its book, and the pace of its
// past jobs.
func Workshop(ctx context.Context, s *store.Store) (own pack.Workshop, err error) {
	list, err := s.Parts(ctx)
	if err != nil {
		return own, err
	}
	for _, p := range list {
		own.Parts = append(own.Parts, p.Of())
	}
	ticks, err := s.PastTicks(ctx)
	if err != nil {
		return own, err
	}
	var jobs [][]procedure.Done
	for i, t := range ticks {
		if i == 0 || ticks[i-1].JobID != t.JobID {
			jobs = append(jobs, nil)
		}
		last := len(jobs) - 1
		jobs[last] = append(jobs[last], procedure.Done{Step: t.Step, By: t.ByWhom, AtS: float64(t.TickedAt.UnixMilli()) / 1000, Minutes: t.Usual})
	}
	own.Pace = procedure.PaceOf(jobs...)
	own.Settings, _, err = s.Settings(ctx)
	return own, err
}
