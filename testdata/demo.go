// Package testdata holds the demo jobs and books: made-up people, places, parts and
// vehicles.
package testdata

import "embed"

// Demo is the demo jobs, one document a file, and the workshop's books.
//
//go:embed demo/*.json demo/*.csv
var Demo embed.FS
