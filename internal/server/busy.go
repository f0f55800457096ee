package server

import (
	"net/http"
	"strings"
	"sync/atomic"
	"time"

	"github.com/labstack/echo/v5"
)

// lately is how long after a request people are taken to be at work.
const lately = 250 * time.Millisecond

// Busy knows when somebody last asked for something, so that what has time makes room.
type Busy struct{ asked atomic.Int64 }

// Now says whether somebody asked for something lately.
func (b *Busy) Now() bool { return time.Since(time.UnixMilli(b.asked.Load())) < lately }

func (b *Busy) see(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if !waits(c.Request()) {
			b.asked.Store(time.Now().UnixMilli())
		}
		return next(c)
	}
}

// waits says whether somebody only asks how far a task is, and so waits for it: it would be
// held up by those who look on.
func waits(r *http.Request) bool {
	return r.Method == http.MethodGet && strings.HasPrefix(r.URL.Path, "/api/tasks/")
}
