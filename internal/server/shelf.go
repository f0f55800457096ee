package server

import (
	"context"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
)

// shelf holds the workshop's chargers against a document.
func (a *api) shelf(ctx context.Context, in *struct{ Body Input }) (*body[study.Shelf], error) {
	doc, _ := job.Decode(in.Body)
	list, err := a.store.Parts(ctx)
	if err != nil {
		return nil, answer(err)
	}
	items := make([]parts.Item, len(list))
	for i, p := range list {
		items[i] = p.Of()
	}
	return taken(ctx, a.running, func() study.Shelf {
		return study.ShelfOf(a.designs.of(doc), items, func(int, int) bool { return ctx.Err() == nil })
	})
}
