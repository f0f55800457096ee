package load_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"time"

	"github.com/google/uuid"
)

// person works on jobs of its own, and remembers what was acknowledged. What was not is sent again, as a
// browser does.
type person struct {
	at   string
	name string
	rand *rand.Rand
	ctx  context.Context

	cookie string

	jobs    []*kept
	refused []string // answers that no such request should have
	sent    int      // requests, those sent again among them
	again   int
}

// kept is a job with what the server acknowledged of it.
type kept struct {
	key, id, title string
	version        int
	saves          int // acknowledged
	ticks          []string
	issued         map[int]bool // versions
	found          bool
}

// send sends a request until it is answered; false where the time is up.
func (p *person) send(method, path, key string, body, into any) (status int, answered bool) {
	data, err := json.Marshal(body)
	if err != nil {
		panic(err) // of this file's own types
	}
	for first := true; ; first = false {
		p.sent++
		if !first {
			p.again++
		}
		status, err := p.try(method, path, key, data, into)
		if err == nil && status < 500 {
			return status, true
		}
		if p.ctx.Err() != nil {
			return 0, false
		}
		time.Sleep(30 * time.Millisecond)
	}
}

func (p *person) try(method, path, key string, data []byte, into any) (int, error) {
	// What is under way when the time is up is waited for: its answer counts.
	ctx, cancel := context.WithTimeout(context.Background(), 15*time.Second)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, method, p.at+path, bytes.NewReader(data))
	if err != nil {
		return 0, err
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Cookie", p.cookie)
	if key != "" {
		req.Header.Set("Idempotency-Key", key)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, err
	}
	defer res.Body.Close()
	answer, err := io.ReadAll(res.Body)
	if err != nil {
		return 0, err
	}
	if into != nil && res.StatusCode < 300 {
		err = json.Unmarshal(answer, into)
	}
	return res.StatusCode, err
}

func document(title string) map[string]any {
	return map[string]any{"format": "epitrope-job", "version": 1, "title": title,
		"vehicle": map[string]any{"model": title}, "alternator": map[string]any{"label": "120 A"}}
}

// work does something over and over until the time is up.
func (p *person) work() {
	for p.ctx.Err() == nil {
		if len(p.jobs) == 0 || p.rand.IntN(8) == 0 {
			p.create()
			continue
		}
		k := p.jobs[p.rand.IntN(len(p.jobs))]
		switch p.rand.IntN(6) {
		case 0:
			p.tick(k)
		case 1:
			p.issue(k)
		case 2:
			p.find(k)
		default:
			p.save(k)
		}
	}
}

func (p *person) expect(what string, status int, want ...int) bool {
	for _, w := range want {
		if status == w {
			return true
		}
	}
	p.refused = append(p.refused, fmt.Sprintf("%s: %d", what, status))
	return false
}

type opened struct {
	ID    string
	Draft struct{ Version int }
}

func (p *person) create() {
	k := &kept{key: uuid.NewString(), issued: map[int]bool{}}
	k.title = p.name + " " + k.key
	var got opened
	status, answered := p.send("POST", "/api/jobs", k.key, document(k.title), &got)
	if answered && p.expect("create", status, 201) {
		k.id, k.version = got.ID, got.Draft.Version
		p.jobs = append(p.jobs, k)
	}
}

func (p *person) save(k *kept) {
	title := fmt.Sprintf("%s %s %d", p.name, k.key, k.saves+1)
	var got struct{ Version int }
	status, answered := p.send("PUT", "/api/jobs/"+k.id+"/draft", "", map[string]any{"base": k.version, "by": p.name,
		"document": document(title)}, &got)
	if answered && p.expect("save", status, 200) {
		k.title, k.version, k.saves = title, got.Version, k.saves+1
	}
}

func (p *person) tick(k *kept) {
	id := uuid.NewString()
	tick := []map[string]any{{"id": id, "step": "in-hand", "done": true, "by": p.name, "at": time.Now().UTC()}}
	status, answered := p.send("POST", "/api/jobs/"+k.id+"/ticks", "", tick, nil)
	if answered && p.expect("tick", status, 200) {
		k.ticks = append(k.ticks, id)
	}
}

func (p *person) issue(k *kept) {
	status, answered := p.send("POST", "/api/jobs/"+k.id+"/revisions", "", map[string]any{"base": k.version}, nil)
	if answered && p.expect("issue", status, 201) {
		k.issued[k.version] = true
	}
}

func (p *person) find(k *kept) {
	status, answered := p.send("POST", "/api/jobs/"+k.id+"/finds", "", map[string]any{}, nil)
	if answered && p.expect("find", status, 201) {
		k.found = true
	}
}
