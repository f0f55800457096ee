package spice

import (
	"bufio"
	"bytes"
	"context"
	"fmt"
	"os/exec"
	"strconv"
	"strings"
	"time"
)

// Through is what ngspice finds through time: each row a moment, its time first.
type Through [][]float64

// Transient runs a netlist that prints columns of numbers with wrdata.
func Transient(netlist string) (Through, error) {
	ctx, cancel := context.WithTimeout(context.Background(), 120*time.Second)
	defer cancel()
	cmd := exec.CommandContext(ctx, Program, "-b", "/dev/stdin")
	cmd.Stdin = strings.NewReader(netlist)
	out, _ := cmd.CombinedOutput()
	var rows Through
	lines := bufio.NewScanner(bytes.NewReader(out))
	for lines.Scan() {
		if row, ok := numbers(lines.Text()); ok {
			rows = append(rows, row)
		}
	}
	if len(rows) < 2 || bytes.Contains(out, []byte("timestep too small")) || bytes.Contains(out, []byte("aborted")) {
		return nil, fmt.Errorf("ngspice printed no run through time:\n%s", bytes.TrimSpace(out))
	}
	return rows, nil
}

func numbers(line string) ([]float64, bool) {
	fields := strings.Fields(line)
	if len(fields) < 2 {
		return nil, false
	}
	row := make([]float64, len(fields))
	for i, f := range fields {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil {
			return nil, false
		}
		row[i] = v
	}
	return row, true
}

// At is a column at a time, in proportion between the rows around it.
func (r Through) At(column int, t float64) float64 {
	for i, row := range r {
		if row[0] < t {
			continue
		}
		if i == 0 {
			return row[column]
		}
		before := r[i-1]
		share := (t - before[0]) / (row[0] - before[0])
		return before[column] + share*(row[column]-before[column])
	}
	return r[len(r)-1][column]
}
