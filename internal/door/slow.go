package door

import (
	"context"
	"time"
)

// slow is how fast somebody may be wrong: free attempts within an hour, then twice as long a wait each time.
type slow struct {
	free   int
	most   time.Duration
	shared bool // by several people: that one of them was right says nothing of the others
}

// How fast: at one account from one address, from one address at any account, at one account from anywhere. The last is the mildest:
// whoever owns the account must not be kept out of it by others.
var (
	hereAtThis  = slow{free: 5, most: 15 * time.Minute}
	fromHere    = slow{free: 20, most: 15 * time.Minute, shared: true}
	atThis      = slow{free: 50, most: time.Minute}
	byPIN       = slow{free: 4, most: time.Hour}
	withLink    = slow{free: 30, most: 15 * time.Minute, shared: true}
	ofAPassword = slow{free: 8, most: 15 * time.Minute}
)

// attempt is something that may be wrong, under the names that it is counted by.
type attempt map[string]slow

// counted counts an attempt before it is looked at, so that many at once count too. It refuses while any of its names waits.
func (d *Door) counted(ctx context.Context, a attempt) error {
	for who, s := range a {
		wait, err := d.store.Wrong(ctx, who, s.free, s.most)
		if err != nil {
			return err
		}
		if wait > 0 {
			r := refuse(Slow, "Too many attempts were wrong. Try again in %s.", inWords(wait))
			r.Wait = wait
			return r
		}
	}
	return nil
}

// right forgets what was counted of who was right.
func (d *Door) right(ctx context.Context, a attempt) error {
	for who, s := range a {
		forget := d.store.Right
		if s.shared {
			forget = d.store.NotWrong
		}
		if err := forget(ctx, who); err != nil {
			return err
		}
	}
	return nil
}

func inWords(wait time.Duration) string {
	if wait > 90*time.Second {
		return (wait + time.Minute).Truncate(time.Minute).String()
	}
	return (wait + time.Second).Truncate(time.Second).String()
}
