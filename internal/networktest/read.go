package networktest

import (
	"testing"

	"epitrope/core/network"
)

// Read reads a solution in a test that fails where there is nothing to read.
type Read struct {
	T testing.TB
	network.Solution
}

func (r Read) must(v float64, err error) float64 {
	r.T.Helper()
	if err != nil {
		r.T.Fatal(err)
	}
	return v
}

// At is the voltage of a node.
func (r Read) At(node string) float64 { r.T.Helper(); return r.must(r.Solution.At(node)) }

// Across is the voltage of one node above another.
func (r Read) Across(plus, minus string) float64 {
	r.T.Helper()
	return r.must(r.Solution.Across(plus, minus))
}

// Through is what flows through an element, or what it gives.
func (r Read) Through(element string) float64 {
	r.T.Helper()
	return r.must(r.Solution.Through(element))
}
