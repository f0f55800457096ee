package server

import (
	"testing"
	"time"
)

// AskStillEvery has open streams ask more often, for a test, whether who listens is still signed in.
func AskStillEvery(t *testing.T, every time.Duration) {
	t.Helper()
	was := stillEvery
	stillEvery = every
	t.Cleanup(func() { stillEvery = was })
}
