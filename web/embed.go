// Package web holds the built web application.
package web

import "embed"

// Dist is the built application; it is empty but for a marker where the
// application was not built.
//
//go:embed all:dist
var Dist embed.FS
