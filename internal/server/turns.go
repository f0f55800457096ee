package server

import (
	"context"
	"runtime"
)

// turns lets only so many do something at once; the others wait until it is their turn, or until they leave.
type turns chan struct{}

func newTurns(atOnce int) turns { return make(turns, atOnce) }

// Of what is run through time as many are computed at once as there are processors: more would only take
// memory, and time from whoever types.
func newRunning() turns { return newTurns(runtime.GOMAXPROCS(0)) }

// take does something when it is its turn. Its error is that of what is done, or of whoever has left.
func (t turns) take(ctx context.Context, do func() error) error {
	select {
	case t <- struct{}{}:
	case <-ctx.Done():
		return ctx.Err()
	}
	defer func() { <-t }()
	return do()
}

// taken is an answer that is computed when it is its turn.
func taken[T any](ctx context.Context, t turns, compute func() T) (*body[T], error) {
	var out body[T]
	err := t.take(ctx, func() error { out.Body = compute(); return nil })
	return &out, answer(err)
}
