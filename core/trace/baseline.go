package trace

import (
	"fmt"
	"strings"

	"epitrope/core/prove"
)

// nearer is the trace of the same installation as it came out when it was proven: of all that it may be, what comes nearest to what
// was read then. Without such readings it is the trace itself. The last one is kept.
func (t *Trace) nearer(baseline []prove.Entry) (near *Trace, wrong []Unusable) {
	taken, by := []prove.Taken{}, strings.Builder{}
	for k, e := range baseline {
		r, there := t.proof.Reading(e.Reading)
		if !there { // of a proof from before a change: it says nothing here
			continue
		}
		got, err := r.Entered(e.Text)
		if err != nil {
			wrong = append(wrong, Unusable{k, "baseline", cut(e.Reading + " " + e.Text), err.Error()})
			continue
		}
		taken = append(taken, got)
		fmt.Fprintln(&by, got)
	}
	if len(taken) == 0 {
		return t, wrong
	}
	t.nearMu.Lock()
	defer t.nearMu.Unlock()
	if t.near == nil || t.nearBy != by.String() {
		t.near, t.nearBy = of(t.d, t.proof.Nearest(taken, tries)), by.String()
	}
	return t.near, wrong
}
