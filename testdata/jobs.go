package testdata

import "embed"

// Jobs are complete jobs of all kinds of vehicle and coupling, and jobs/verdicts.csv what
// the rules of the trade say of every coupling on each: chosen, and in a cell + for a
// rule that favours it, ~ for one that warns, − (as -) for one that rules it out.
//
//go:embed jobs/*
var Jobs embed.FS
