package instrument

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"epitrope/core/prove"
	"epitrope/internal/table"
)

// mostReadings are the lines that a file of readings may have.
const mostReadings = 2000

// ReadProof reads a file of a proof's readings: the heads “reading” and “value”, one reading a line, in the order in which they
// were taken. Others may stand beside them. The error names the line.
func ReadProof(data []byte, p *prove.Proof) ([]prove.Taken, error) {
	heads, lines, err := table.Lines(data, mostReadings)
	if err != nil {
		return nil, err
	}
	column := func(name string) int {
		return slices.IndexFunc(heads.Cells, func(c string) bool { return strings.EqualFold(strings.TrimSpace(c), name) })
	}
	reading, value := column("reading"), column("value")
	if reading < 0 || value < 0 {
		return nil, table.Wrong(heads.Number, "heads", "", "lack “reading” or “value”")
	}
	taken := []prove.Taken{}
	for _, line := range lines {
		cell := func(i int) string {
			if i >= len(line.Cells) {
				return ""
			}
			return strings.TrimSpace(line.Cells[i])
		}
		r, there := p.Reading(cell(reading))
		if !there {
			return nil, table.Wrong(line.Number, "reading", short(cell(reading)), "is none of this proof's; allowed: "+strings.Join(ids(p), ", "))
		}
		t, err := r.Entered(cell(value))
		var wrong *prove.EntryError
		if errors.As(err, &wrong) {
			return nil, table.Wrong(line.Number, "value", wrong.Value, fmt.Sprintf("%s; allowed: %s", wrong.Wrong, wrong.Allowed))
		}
		taken = append(taken, t)
	}
	return taken, nil
}

func ids(p *prove.Proof) (list []string) {
	for _, r := range p.Readings {
		list = append(list, r.ID)
	}
	return list
}

// short is as much of a cell as is repeated.
func short(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}
