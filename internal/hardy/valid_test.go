package hardy_test

import (
	"fmt"
	"math/rand/v2"
	"os"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// Of the documents that are drawn: how many are tried with make test, and of how many the long answers are
// asked too.
const (
	sample       = 40
	methodsEvery = 25
	daysEvery    = 100
)

// mostMemory is what all of it may take, in bytes.
const mostMemory = 512 << 20

// Whatever validation lets through is answered. EPITROPE_VALID says for how long documents are drawn, as
// "1h"; EPITROPE_SEED where they begin.
func TestWhateverIsLetThroughIsAnswered(t *testing.T) {
	long, err := time.ParseDuration(os.Getenv("EPITROPE_VALID"))
	forLong := err == nil
	var first uint64
	_, _ = fmt.Sscan(os.Getenv("EPITROPE_SEED"), &first)
	began := time.Now()
	var next atomic.Uint64
	var wait sync.WaitGroup
	var most atomic.Uint64
	for range runtime.GOMAXPROCS(0) {
		wait.Go(func() {
			for {
				n := next.Add(1) - 1
				if forLong && time.Since(began) > long || !forLong && n >= sample {
					return
				}
				if !one(t, first+n) {
					return
				}
				if n%100 == 0 {
					var m runtime.MemStats
					runtime.ReadMemStats(&m)
					most.Store(max(most.Load(), m.Sys))
				}
			}
		})
	}
	wait.Wait()
	assert.Less(t, most.Load(), uint64(mostMemory), "memory, in bytes")
	t.Logf("%d documents in %s, at most %d MB", next.Load()-uint64(runtime.GOMAXPROCS(0)), time.Since(began).Round(time.Second),
		most.Load()>>20)
}

// one drives the document of a seed; it says whether that could be drawn.
func one(t *testing.T, seed uint64) bool {
	name := fmt.Sprintf("seed %d", seed)
	doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 20))))
	if !assert.Empty(t, problems, name) {
		return false
	}
	to := decided
	switch {
	case seed%daysEvery == 0:
		to = days
	case seed%methodsEvery == 0:
		to = methods
	}
	drive(t, name, doc, to)
	return true
}

// So is every document that stands here, and each that once was not.
func TestDocumentsOfOldAreAnswered(t *testing.T) {
	documents, err := testdata.Documents()
	require.NoError(t, err)
	names := []string{}
	for name := range documents {
		names = append(names, name)
	}
	slices.Sort(names)
	every := jobtest.Fewer(1, 3)
	for i, name := range names {
		if i%every != 0 {
			continue
		}
		doc, problems := job.Decode(documents[name])
		require.Empty(t, problems, name)
		drive(t, name, doc, decided)
	}
	for _, text := range onceBroken {
		doc, problems := job.Decode([]byte(text))
		require.Empty(t, problems, text)
		drive(t, text, doc, methods)
	}
}

// onceBroken are documents that once ended in a panic or in no answer.
var onceBroken = []string{
	`{"bays":{"startC":90}}`,
	`{"pins":{"startSize":"2.5 mm2","auxSize":"2.5 mm2"}}`,
	`{"card":{"outputA":250}}`,
	`{"aux":{"capacityAh":1359.63},"card":{"outputA":60,"standbyA":5},"alternator":{"idleA":1},"pins":{"chargerCount":2}}`,
	`{"found":{"r":{"role":"return","state":"taped"},"s":{"role":"start","fuseForm":"taped"}}}`,
	`{"have":{"fuses":0}}`,
}
