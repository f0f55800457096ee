package prove_test

import (
	"testing"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/prove"
)

// What a proof takes to list its readings with their bands, and what was read takes to be judged.
func BenchmarkProof(b *testing.B) {
	doc, _ := job.Decode([]byte(relay))
	for b.Loop() {
		prove.Of(design.Of(doc, parts.Stock()))
	}
}

func BenchmarkCauses(b *testing.B) {
	doc, _ := job.Decode([]byte(relay))
	for b.Loop() {
		prove.Of(design.Of(doc, parts.Stock())).Judge([]prove.Taken{{ID: "lost-start", Value: 1.5}})
	}
}
