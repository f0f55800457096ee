package store

import (
	"context"
	"log/slog"
	"strings"
	"sync"
	"time"

	"github.com/jackc/pgx/v5"
)

// Change is that something of a workshop changed, by whichever server: what, and of which job.
type Change struct {
	What string // job, revision, ticks, proof, countersigns, comments, tasks, settings, parts, here; "" where anything may have changed
	Job  string // by id; empty where it is no job's
}

// changesChannel is what the database's triggers tell changes on.
const changesChannel = "epitrope_changes"

// relisten is how long to wait before a database that went away is listened to again.
const relisten = time.Second

// heardAhead is how many changes may wait for one who listens; who falls behind further is told that anything may have changed.
const heardAhead = 64

// changes tells those who listen on this server what changed. It listens to the database over one connection, while somebody listens.
type changes struct {
	connect func(context.Context) (*pgx.Conn, error)
	mutex   sync.Mutex
	by      map[string]map[chan Change]bool // by workshop
	stop    context.CancelFunc
}

// Changes are what changes in the workshop from now on, until the context ends. The first says that anything may have changed:
// what was read before it is read again.
func (s *Store) Changes(ctx context.Context) <-chan Change {
	out := make(chan Change, heardAhead)
	s.changes.add(s.workshop, out)
	context.AfterFunc(ctx, func() { s.changes.drop(s.workshop, out) })
	return out
}

func (c *changes) add(workshop string, out chan Change) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if c.by[workshop] == nil {
		c.by[workshop] = map[chan Change]bool{}
	}
	c.by[workshop][out] = true
	if c.stop != nil {
		out <- Change{}
		return
	}
	ctx, stop := context.WithCancel(context.Background())
	c.stop = stop
	go c.listen(ctx)
}

func (c *changes) drop(workshop string, out chan Change) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	delete(c.by[workshop], out)
	if len(c.by[workshop]) == 0 {
		delete(c.by, workshop)
	}
	if len(c.by) == 0 && c.stop != nil {
		c.stop()
		c.stop = nil
	}
}

// listen hears the database until the context ends, and again after it went away.
func (c *changes) listen(ctx context.Context) {
	for ctx.Err() == nil {
		if err := c.hear(ctx); err != nil && ctx.Err() == nil {
			slog.Warn("changes are not heard at present", "error", err)
			select {
			case <-time.After(relisten):
			case <-ctx.Done():
			}
		}
	}
}

func (c *changes) hear(ctx context.Context) error {
	conn, err := c.connect(ctx)
	if err != nil {
		return err
	}
	defer func() { _ = conn.Close(context.WithoutCancel(ctx)) }()
	if _, err := conn.Exec(ctx, "LISTEN "+changesChannel); err != nil {
		return err
	}
	c.tell(ctx, "", Change{}) // what happened before is not known
	for {
		n, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		workshop, rest, _ := strings.Cut(n.Payload, " ")
		what, job, _ := strings.Cut(rest, " ")
		c.tell(ctx, workshop, Change{what, job})
	}
}

// tell tells those of a workshop, or all where it is empty.
func (c *changes) tell(ctx context.Context, workshop string, change Change) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if ctx.Err() != nil {
		return // another listens by now
	}
	for of, list := range c.by {
		if workshop != "" && of != workshop {
			continue
		}
		for out := range list {
			select {
			case out <- change:
			default: // it is behind: the oldest gives way to word that anything may have changed
				select {
				case <-out:
				default:
				}
				select {
				case out <- Change{}:
				default:
				}
			}
		}
	}
}
