package listing

import (
	"context"
	"log/slog"
	"time"

	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/internal/pack"
	"epitrope/internal/store"
)

// How many listings are renewed at a time, how long the renewing rests between two jobs, so that whoever types
// does not wait for it, and how often it looks for more.
const (
	atOnce    = 20
	restFor   = 10 * time.Millisecond
	lookEvery = time.Second
)

// Renew makes those listings anew that other rules made, until ctx ends.
func Renew(ctx context.Context, s *store.Store, book parts.Book) {
	look := time.NewTicker(lookEvery)
	defer look.Stop()
	for ctx.Err() == nil {
		jobs, err := s.Unlisted(ctx, Rules(), atOnce)
		if err != nil && ctx.Err() == nil {
			slog.Warn("listings could not be renewed", "error", err)
		}
		for _, j := range jobs {
			if ctx.Err() != nil {
				return
			}
			doc, own := j.Doc(), ownOf(ctx, s.Of(j.WorkshopID))
			book.Habits = own.Settings.Stands()
			l := Of(doc, func() *design.Design { return design.Of(doc, book) }, func() pack.Workshop { return own })
			if err := s.Relist(ctx, j, l); err != nil && ctx.Err() == nil {
				slog.Warn("a listing could not be stored", "job", j.ID, "error", err)
				break
			}
			time.Sleep(restFor)
		}
		if len(jobs) == atOnce && err == nil {
			continue
		}
		select {
		case <-ctx.Done():
		case <-look.C:
		}
	}
}

// ownOf is what the workshop has of its own, or nothing where the database does not say.
func ownOf(ctx context.Context, s *store.Store) pack.Workshop {
	own, err := Workshop(ctx, s)
	if err != nil {
		slog.Warn("the workshop's books could not be read", "error", err)
	}
	return own
}
