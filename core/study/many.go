package study

import (
	"fmt"
	"runtime"
	"runtime/debug"
	"sync"
	"sync/atomic"
)

// Progress is told how many runs of how many are done, from any of the workers, and
// says whether to go on. nil goes on.
type Progress func(done, of int) (goOn bool)

// many does count pieces of work on all processors but one, each by its number, and returns
// false where it was told to stop. work is told how to ask whether to stop within a
// piece.
func many(count int, progress Progress, work func(i int, halt func() bool)) (whole bool) {
	var next, done atomic.Int64
	var stop atomic.Bool
	var wait sync.WaitGroup
	var fell atomic.Value
	for range min(max(1, runtime.GOMAXPROCS(0)-1), count) { // one is left for whoever waits for an answer
		wait.Go(func() {
			defer func() { // a panic is the caller's, not the process's
				if p := recover(); p != nil {
					fell.CompareAndSwap(nil, fmt.Sprintf("%v\n%s", p, debug.Stack()))
					stop.Store(true)
				}
			}()
			for !stop.Load() {
				i := int(next.Add(1)) - 1
				if i >= count {
					return
				}
				work(i, stop.Load)
				if n := done.Add(1); progress != nil && !progress(int(n), count) {
					stop.Store(true)
				}
			}
		})
	}
	wait.Wait()
	if p := fell.Load(); p != nil {
		panic(p)
	}
	return !stop.Load()
}
