package testdata

import "embed"

// Systems is what the demo jobs, and those of jobs and signals, become: components and
// wires by name, so that what is made of them is tested without deciding them again.
//
//go:embed systems.json
var Systems embed.FS
