// Package testdata holds the demo jobs: made-up people, places and vehicles.
package testdata

import "embed"

// Demo is the demo jobs, one document a file.
//
//go:embed demo/*.json
var Demo embed.FS
