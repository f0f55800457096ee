package hardy_test

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"regexp"
	"runtime/debug"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/section"
	"epitrope/core/signoff"
	"epitrope/core/study"
	"epitrope/core/trace"
	"epitrope/core/trip"
	"epitrope/internal/answers"
	"epitrope/internal/export"
	"epitrope/internal/networktest"
	"epitrope/internal/pack"
)

// depth is how much is asked of a document: what every keystroke asks, what a screen asks once, or what is run
// through time too.
type depth int

const (
	decided depth = iota
	methods
	days
)

// hang is what no single answer may take, where that is asked: on a machine that does nothing else. Where it does, the
// processor's time says so.
const hang = 5 * time.Second

var timed = os.Getenv("EPITROPE_VALID") != ""

// mostSent is what no single answer may have, in bytes.
const mostSent = 8 << 20

// driver asks everything of one document.
type driver struct {
	t    testing.TB
	name string
	slow *[]string // the answers that took longer than hang
}

// ask has one answer made and holds it to what must be so of any.
func (a driver) ask(what string, answer func() any) {
	began, worked := time.Now(), cpu()
	defer func() {
		if p := recover(); p != nil {
			a.t.Errorf("%s: %s panics: %v\n%s", a.name, what, p, debug.Stack())
		}
	}()
	sent, err := json.Marshal(answer())
	assert.NoError(a.t, err, "%s: %s cannot be sent", a.name, what)
	assert.Less(a.t, len(sent), mostSent, "%s: %s, in bytes", a.name, what)
	if timed {
		if took := min(time.Since(began), cpu()-worked); took > hang {
			*a.slow = append(*a.slow, fmt.Sprintf("%s took %s", what, took))
		}
	}
}

// cpu is the processor's time that was taken until now.
func cpu() time.Duration {
	var u syscall.Rusage
	_ = syscall.Getrusage(syscall.RUSAGE_SELF, &u) // of oneself it cannot fail
	return time.Duration(u.Utime.Nano() + u.Stime.Nano())
}

// others are the documents that are driven at the same time: one whose answers come late is driven again when
// there is no other.
var others sync.RWMutex

// drive asks everything of a document, to a depth.
func drive(t testing.TB, name string, doc job.Document, to depth) {
	var slow []string
	others.RLock()
	driver{t, name, &slow}.all(doc, to)
	others.RUnlock()
	if len(slow) == 0 {
		return
	}
	others.Lock()
	defer others.Unlock()
	t.Logf("%s, beside another: %s", name, strings.Join(slow, ", "))
	slow = nil
	driver{t, name, &slow}.all(doc, to)
	assert.Empty(t, slow, "%s alone", name)
}

// all asks everything of a document, to a depth.
func (a driver) all(doc job.Document, to depth) {
	t, name := a.t, a.name
	var d *design.Design
	a.ask("decision", func() any { d = design.Of(doc, parts.Stock()); return nil })
	if d == nil {
		return
	}
	a.ask("pack", func() any {
		p := pack.New(d, shelf)
		a.solvedOrNamed(d, p.Plan.States)
		a.rowsAreNamed(p.Modes)
		ofOneVehicle(t, name, d, p)
		return p
	})
	a.ask("calendar", func() any { return procedure.CalendarOf(d) })
	a.ask("pictures", func() any { return []any{prove.Of(d).Pictures(), signoff.Gates(d, nil, signoff.Done{})} })
	a.ask("as found", func() any {
		before, missing := answers.Installed(doc, true)
		found := design.Of(before, parts.Stock())
		return []any{retrofit.InALine(found), missing, answers.PartsIn(found)}
	})
	a.ask("book", func() any { return doc.ForBook().BookAnswers() })
	if to >= methods {
		a.ask("causes", func() any { return prove.Of(d).Judge([]prove.Taken{{ID: "lost-start", Value: 1.5}}) })
		a.ask("trip", func() any { return trip.Of(d, trip.Drive{Hours: 2, From: 50, To: 55}, 0) })
		a.ask("again", func() any { return a.same(doc, d) })
		a.ask("methods", func() any { return study.Consequences(d) })
		a.ask("schools", func() any { return study.Schools(d) })
		a.ask("sizings", func() any { return study.Sizings(d) })
		a.ask("shelf", func() any { return study.ShelfOf(d, onTheShelf(), nil) })
		a.ask("moves", func() any { return study.Moves(d) })
		a.ask("netlists", func() any { return a.netlists(d) })
		a.ask("PDF", func() any {
			got, err := export.PDF(pack.New(d, shelf))
			assert.NoError(t, err, "%s", name)
			return len(got)
		})
	}
	if to >= days {
		a.ask("trace", func() any {
			return answers.TraceFault(d, nil, trace.Evidence{Seen: []trace.Observed{{Symptom: "no-charge"}},
				Baseline: []prove.Entry{{Reading: "charge", Text: "10 A"}}})
		})
		a.ask("days", func() any { return study.Try(d, study.Window{}, nil) })
		a.ask("compared", func() any { return compared(d) })
		a.ask("before and after", func() any { return study.RetrofitOf(d, nil) })
		for _, kind := range coupling.Kinds() {
			a.ask("method "+string(kind), func() any { return study.Drive(d, kind, nil) })
		}
	}
}

// netlists are the circuit of every state that has a solution.
func (a driver) netlists(d *design.Design) any {
	for _, s := range d.States {
		c, solved, err := d.CircuitAt(s.ID)
		if err != nil {
			continue
		}
		_, err = c.Netlist("any title", solved.Resting()...)
		assert.NoError(a.t, err, "%s: %s", a.name, s.ID)
	}
	return nil
}

// compared is the design beside one with less cable and one that is read in feet.
func compared(d *design.Design) any {
	list, _ := study.Compare(d, []study.Variant{{Label: "short", Changes: map[string]any{"routes.startM": "4 ft"}},
		{Label: "other", Changes: map[string]any{"pins.coupling": "vsr"}}}, nil)
	return list
}

// shelf is a workshop with parts of its own.
var shelf = ownParts()

func ownParts() pack.Workshop {
	num := func(v float64) *float64 { return &v }
	own := pack.Workshop{}
	for _, kind := range parts.ItemKinds {
		for _, amps := range []float64{5, 60, 150} {
			own.Parts = append(own.Parts, parts.Item{Kind: kind, Name: fmt.Sprintf("%s %g", kind, amps), RatingA: num(amps), Size: "16 mm2",
				Price: num(amps / 2), Currency: "EUR", PricedOn: "2026-01-01", Stock: num(amps / 10), CountedOn: "2026-02-01"})
		}
	}
	return own
}

// same says that a document decided anew, after it was written and read, comes to the same plan.
func (a driver) same(doc job.Document, d *design.Design) any {
	read, problems := job.Decode(doc.Encode())
	assert.Empty(a.t, problems, "%s: what was written cannot be read", a.name)
	assert.Equal(a.t, doc.Digest(), read.Digest(), "%s: read again it is another document", a.name)
	again := design.Of(read, parts.Stock())
	assert.Equal(a.t, plan.Of(d).Summary, plan.Of(again).Summary, "%s", a.name)
	return nil
}

// reason is a sentence that says why there is no working point: which part asks how much of
// what, and what its line could give, or below what it stops and what it would see.
var reason = regexp.MustCompile(`^the (charger|house|vehicle|winch) (asks [0-9.]+ (W|A) and its line can give at most [0-9.]+ (W|A)|` +
	`stops below [0-9.]+ V and would see [0-9.]+ V)$`)

// solvedOrNamed holds every state to a solution that balances, or a reason.
func (a driver) solvedOrNamed(d *design.Design, states []section.State) {
	for _, s := range states {
		if s.Fails != "" {
			assert.Regexp(a.t, reason, s.Fails, "%s: %s", a.name, s.ID)
			continue
		}
		assert.NotEmpty(a.t, s.Points, "%s: %s", a.name, s.ID)
		c, solved, err := d.CircuitAt(s.ID)
		if !assert.NoError(a.t, err, "%s: %s", a.name, s.ID) {
			continue
		}
		into, _ := networktest.Balance(c, networktest.Read{T: a.t, Solution: solved})
		for node, left := range into {
			assert.Less(a.t, math.Abs(left), leftOverA, "%s: %s leaves %g A at %s", a.name, s.ID, left, c.Names()[node])
		}
	}
}

// leftOverA is what may be left over at a node, in A: of circuits with short circuits of tens of thousands.
const leftOverA = 1e-3

// rowsAreNamed holds every row of the mode table to a sentence that a practitioner understands.
func (a driver) rowsAreNamed(m modes.Modes) {
	for _, r := range m.Rows {
		assert.NotContains(a.t, r.Why, "steady state", a.name)
		assert.NotContains(a.t, r.Why, "settle", a.name)
		for _, part := range strings.Split(r.Why, "It comes to no stand: ")[1:] {
			why, _, _ := strings.Cut(part+" ", ". ")
			assert.Regexp(a.t, reason, why, a.name)
		}
	}
}

// onTheShelf are the smallest and the largest charger that a parts book lets in, and one of which it says the least.
func onTheShelf() []parts.Item {
	of := func(v float64) *float64 { return &v }
	return []parts.Item{
		{Kind: "charger", Name: "least", RatingA: of(0.5), Efficiency: of(50), CutOutV: of(9), MaxFuseA: of(1), StandbyA: of(0),
			MaxAmbientC: of(20)},
		{Kind: "charger", Name: "most", RatingA: of(600), Efficiency: of(99), CutOutV: of(13), MaxFuseA: of(600), StandbyA: of(5),
			MaxAmbientC: of(110)},
		{Kind: "charger", Name: "large", RatingA: of(300), CutOutV: of(13)}, {Kind: "charger", Name: "says nothing", RatingA: of(30)},
	}
}
