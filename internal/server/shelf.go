package server

import (
	"context"

	"epitrope/core/job"
	"epitrope/core/study"
)

// shelf holds the workshop's chargers against a document.
func (a *api) shelf(ctx context.Context, in *struct{ Body Input }) (*body[study.Shelf], error) {
	doc, _ := job.Decode(in.Body)
	items, err := a.items(ctx)
	if err != nil {
		return nil, err
	}
	return taken(ctx, a.running, func() study.Shelf {
		return study.ShelfOf(a.designs.of(ctx, doc), items, func(int, int) bool { return ctx.Err() == nil })
	})
}
