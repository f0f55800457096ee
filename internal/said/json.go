// Package said writes what has been answered in the units that a workshop reads in. It stands at the
// edge: answers keep their figures in the units of the core, and only their words change.
package said

import (
	"bytes"
	"encoding/json"
	"slices"

	"epitrope/core/unit"
)

// kept are the members of an answer that are no words to be read: what was typed, what is sent back, and
// formulas, whose figures belong together.
var kept = map[string]bool{
	"document": true, "draft": true, "set": true, "value": true, "id": true, "key": true, "path": true, "filled": true,
	"formula": true, "inputs": true, "svg": true, "netlist": true, "unit": true,
}

// Value is an answer that is yet to be encoded, with its words in a system's units.
func Value(answer any, s unit.Units, typed ...string) (any, error) {
	encoded, err := json.Marshal(answer)
	return json.RawMessage(JSON(encoded, s, typed...)), err
}

// JSON is an answer with its words in a system's units. Members that hold what somebody typed stay.
func JSON(answer []byte, s unit.Units, typed ...string) []byte {
	if s.IsMetric() {
		return answer
	}
	r := reader{from: answer, in: s, typed: typed}
	r.out.Grow(len(answer) + len(answer)/16)
	r.value(false)
	r.out.Write(answer[r.kept:])
	return r.out.Bytes()
}

// reader goes through well-formed JSON once.
type reader struct {
	from     []byte
	at, kept int // kept is how far out stands for from
	in       unit.Units
	typed    []string
	out      bytes.Buffer
}

// value goes past a value; still keeps what is in it.
func (r *reader) value(still bool) {
	for r.at < len(r.from) {
		switch c := r.from[r.at]; c {
		case ' ', '\n', '\t', '\r':
			r.at++
		case '"':
			r.text(still)
			return
		case '[':
			r.list(still)
			return
		case '{':
			r.members(still)
			return
		default:
			begin := r.at
			for r.at < len(r.from) && bytes.IndexByte([]byte(",]}"), r.from[r.at]) < 0 {
				r.at++
			}
			r.at = max(r.at, begin+1) // a mark where a value should be holds nothing up
			return
		}
	}
}

func (r *reader) list(still bool) {
	r.at++
	for r.at < len(r.from) && r.from[r.at] != ']' {
		r.value(still)
		r.past(',')
	}
	r.at++
}

func (r *reader) members(still bool) {
	r.at++
	for r.at < len(r.from) && r.from[r.at] != '}' {
		r.past(' ')
		begin := r.at
		r.quoted()
		name := string(bytes.Trim(bytes.TrimSpace(r.from[begin:r.at]), `"`))
		r.past(':')
		r.value(still || kept[name] || slices.Contains(r.typed, name))
		r.past(',')
	}
	r.at++
}

// past goes on behind one mark and the space around it.
func (r *reader) past(mark byte) {
	for r.at < len(r.from) && bytes.IndexByte([]byte(" \n\t\r"), r.from[r.at]) >= 0 {
		r.at++
	}
	if r.at < len(r.from) && r.from[r.at] == mark {
		r.at++
	}
	for r.at < len(r.from) && bytes.IndexByte([]byte(" \n\t\r"), r.from[r.at]) >= 0 {
		r.at++
	}
}

// quoted goes past a quoted text.
func (r *reader) quoted() {
	for r.at++; r.at < len(r.from) && r.from[r.at] != '"'; r.at++ {
		if r.from[r.at] == '\\' {
			r.at++
		}
	}
	r.at = min(r.at+1, len(r.from))
}

func (r *reader) text(still bool) {
	begin := r.at
	r.quoted()
	if still || bytes.IndexByte(r.from[begin:r.at], ' ') < 0 {
		return
	}
	var text string
	if json.Unmarshal(r.from[begin:r.at], &text) != nil {
		return
	}
	said := r.in.Say(text)
	if said == text {
		return
	}
	quoted, err := json.Marshal(said)
	if err != nil {
		return
	}
	r.out.Write(r.from[r.kept:begin])
	r.out.Write(quoted)
	r.kept = r.at
}
