package testdata

import "embed"

// Signals are complete jobs whose verdict turns on a trigger, a profile, an extra or a
// signal, and signals/verdicts.csv what is raised on each, where, and what turns it.
//
//go:embed signals/*
var Signals embed.FS
