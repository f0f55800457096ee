package load_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/jobtest"
)

// editors edit at once, each pausing for some seconds between two edits.
const editors = 200

// waits are how long each kind of request took.
type waits struct {
	mutex sync.Mutex
	of    map[string][]time.Duration
}

func (w *waits) add(what string, took time.Duration) {
	w.mutex.Lock()
	defer w.mutex.Unlock()
	w.of[what] = append(w.of[what], took)
}

// Two hundred people edit while somebody runs maps and opens lists: what they wait for, and what the server
// takes. EPITROPE_LOAD says for how long; without it nothing is done.
func TestTwoHundredPeople(t *testing.T) {
	long := loadTime(t)
	m := start(t)
	cookies := m.staffed(workshops, jobsEach)
	m.busy(t, long, editors, cookies, false).tell(t)
	t.Logf("the server's memory: %s", m.memory(t))
}

// workshops share the server, with so many jobs each.
const (
	workshops = 100
	jobsEach  = 100
)

// loadTime is how long the load is to last; the test is skipped where nobody says.
func loadTime(t *testing.T) time.Duration {
	t.Helper()
	long, err := time.ParseDuration(os.Getenv("EPITROPE_LOAD"))
	if err != nil {
		t.Skip("EPITROPE_LOAD is not set; make bench sets it")
	}
	return long
}

// busy has so many people edit for a while, spread over workshops, somebody look on, and perhaps somebody guess passwords: what they
// waited for.
func (m *machine) busy(t *testing.T, long time.Duration, editors int, cookies []string, guesses bool) *waits {
	t.Helper()
	ctx, stop := context.WithTimeout(context.Background(), long)
	defer stop()
	docs := []job.Document{}
	complete := jobtest.Complete(t)
	for _, name := range sorted(complete) {
		docs = append(docs, complete[name])
	}
	w := &waits{of: map[string][]time.Duration{}}
	all := make([]*person, editors+1)
	var wait sync.WaitGroup
	for i := range all {
		all[i] = &person{at: "http://" + m.address, name: fmt.Sprintf("p%d", i), rand: rand.New(rand.NewPCG(uint64(i), 7)), ctx: ctx,
			cookie: cookies[i%len(cookies)]}
		if i == editors {
			wait.Go(func() { all[i].looks(docs[0], w) })
			continue
		}
		wait.Go(func() { all[i].edits(docs[i%len(docs)], w) })
	}
	if guesses {
		wait.Go(func() { m.guess(ctx, w) })
	}
	wait.Wait()
	for _, p := range all {
		assert.Empty(t, p.refused, p.name)
		assert.Zero(t, p.again, "%s: requests sent again", p.name)
	}
	return w
}

// tell logs how long each kind of request took.
func (w *waits) tell(t *testing.T) {
	t.Helper()
	for _, what := range sorted(w.of) {
		took := w.of[what]
		slices.Sort(took)
		t.Logf("%-8s %6d requests, median %v, p99 %v, most %v", what, len(took), took[len(took)/2].Round(time.Millisecond/10),
			took[len(took)*99/100].Round(time.Millisecond/10), took[len(took)-1].Round(time.Millisecond/10))
	}
}

// guessEvery is how often somebody guesses.
const guessEvery = 50 * time.Millisecond

// guess tries passwords under one name after another, and does not wait for the answer.
func (m *machine) guess(ctx context.Context, w *waits) {
	var wait sync.WaitGroup
	defer wait.Wait()
	for i := 0; ctx.Err() == nil; i++ {
		wait.Go(func() {
			began := time.Now()
			p := person{at: "http://" + m.address, ctx: ctx}
			status, err := p.try(http.MethodPost, "/api/door", "", fmt.Appendf(nil, `{"workshop":"w0","name":"odile%d","password":"guess %d"}`,
				i%30, i), nil)
			if err == nil {
				w.add(fmt.Sprintf("guess%d", status), time.Since(began))
			}
		})
		time.Sleep(guessEvery)
	}
}

func sorted[V any](of map[string]V) []string {
	names := []string{}
	for name := range of {
		names = append(names, name)
	}
	slices.Sort(names)
	return names
}

// memory is what the server has taken at most, by the system's book.
func (m *machine) memory(t *testing.T) string {
	t.Helper()
	data, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", m.server.Process.Pid))
	require.NoError(t, err)
	for line := range strings.Lines(string(data)) {
		if said, is := strings.CutPrefix(line, "VmHWM:"); is {
			return strings.TrimSpace(said)
		}
	}
	return "not known"
}

func (p *person) timed(w *waits, what, method, path string, body, into any, want ...int) bool {
	began := time.Now()
	status, answered := p.send(method, path, "", body, into)
	if !answered {
		return false
	}
	w.add(what, time.Since(began))
	return p.expect(what, status, want...)
}

// edits changes an answer of a job of its own every few seconds: a plan for each key, and a save.
func (p *person) edits(doc job.Document, w *waits) {
	time.Sleep(time.Duration(p.rand.IntN(4000)) * time.Millisecond)
	var got opened
	if !p.timed(w, "create", "POST", "/api/jobs", doc, &got, http.StatusCreated) {
		return
	}
	version := got.Draft.Version
	for p.ctx.Err() == nil {
		changed, problems := job.With(doc, map[string]any{"routes.startM": 1 + float64(p.rand.IntN(900))/100, "title": p.name})
		if len(problems) > 0 {
			p.refused = append(p.refused, problems.Error())
			return
		}
		if !p.timed(w, "plan", "POST", "/api/plan", changed, nil, http.StatusOK) {
			return
		}
		var saved struct{ Version int }
		if !p.timed(w, "save", "PUT", "/api/jobs/"+got.ID+"/draft", map[string]any{"base": version, "by": p.name, "document": changed},
			&saved,
			http.StatusOK) {
			return
		}
		version = saved.Version
		p.pause(2000 + p.rand.IntN(3000))
	}
}

func (p *person) pause(ms int) {
	select {
	case <-p.ctx.Done():
	case <-time.After(time.Duration(ms) * time.Millisecond):
	}
}

// looks runs maps one after another, and opens the lists.
func (p *person) looks(doc job.Document, w *waits) {
	var got opened
	if !p.timed(w, "create", "POST", "/api/jobs", doc, &got, http.StatusCreated) {
		return
	}
	ask := map[string]any{"kind": "sweep", "document": json.RawMessage(doc.Encode()),
		"sweep": map[string]any{"across": map[string]any{"path": "routes.startM"}, "up": map[string]any{"path": "use.dailyAh"}}}
	for p.ctx.Err() == nil {
		p.timed(w, "map", "POST", "/api/jobs/"+got.ID+"/tasks", ask, nil, http.StatusAccepted, http.StatusTooManyRequests)
		for _, path := range []string{"/api/jobs", "/api/jobs?search=p1", "/api/due", "/api/week"} {
			p.timed(w, "list", "GET", path, nil, nil, http.StatusOK)
		}
		p.pause(500)
	}
}
