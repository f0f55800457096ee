package testdata

import "embed"

// Arranged are complete jobs of ways to put a run together that are not the usual ones.
//
//go:embed arranged/*.json
var Arranged embed.FS
