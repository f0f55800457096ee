package design_test

import (
	"maps"
	"slices"
	"testing"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/internal/jobtest"
)

// A decision over the jobs of testdata, in turn.
func BenchmarkDesign(b *testing.B) {
	all := jobtest.Complete(b)
	docs := []job.Document{}
	for _, name := range slices.Sorted(maps.Keys(all)) {
		docs = append(docs, all[name])
	}
	book, i := parts.Stock(), 0
	for b.Loop() {
		design.Of(docs[i%len(docs)], book)
		i++
	}
}
