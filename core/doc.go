// Package core is the trade, computed. Each package below it is one subject of the
// trade; plan composes them. Nothing here knows a screen, a database or a clock.
package core
