package study

import (
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A piece of work that panics is its caller's panic, which can be caught, and not the end of the process.
func TestAPanicIsTheCallers(t *testing.T) {
	assert.PanicsWithValue(t, "piece 3", func() {
		defer func() {
			p := recover()
			assert.Contains(t, p, "piece 3")
			panic("piece 3")
		}()
		many(8, nil, func(i int, _ func() bool) {
			if i == 3 {
				panic("piece 3")
			}
		})
	})
}

// Every piece is done once; told to stop, no more are begun.
func TestManyDoEachOnce(t *testing.T) {
	var done [50]atomic.Int32
	assert.True(t, many(len(done), nil, func(i int, _ func() bool) { done[i].Add(1) }))
	for i := range done {
		assert.EqualValues(t, 1, done[i].Load(), i)
	}
	var begun atomic.Int32
	assert.False(t, many(50, func(int, int) bool { return false }, func(int, func() bool) { begun.Add(1) }))
	assert.Less(t, begun.Load(), int32(50))
}
