package testdata

import "embed"

// Truth are complete jobs of all kinds of vehicle, and truth/verdicts.csv what a master of the
// trade would say on each and what must not be said, by which rule: written from the trade's
// rules, not from what comes out.
//
//go:embed truth/*
var Truth embed.FS
