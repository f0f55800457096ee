// Package spice runs netlists through ngspice and reads what it prints, to check
// our own solutions against something that we did not write.
package spice

import (
	"bufio"
	"bytes"
	"context"
	"errors"
	"fmt"
	"os/exec"
	"regexp"
	"strconv"
	"strings"
	"time"
)

// Program is the simulator, Debian's package of the same name.
const Program = "ngspice"

var printed = regexp.MustCompile(`^v\(([a-z0-9_]+)\)\[.*\] = (\S+)$`)

// Rest returns the node voltages that ngspice comes to for a netlist that switches a
// circuit on from rest, by node name.
func Rest(netlist string) (map[string]float64, error) {
	ctx, cancel := context.WithTimeout(context.Background(), 60*time.Second)
	defer cancel()
	cmd := exec.CommandContext(ctx, Program, "-b", "/dev/stdin")
	cmd.Stdin = strings.NewReader(netlist)
	out, _ := cmd.CombinedOutput() // it exits with 1 even when all is well

	volts := map[string]float64{}
	lines := bufio.NewScanner(bytes.NewReader(out))
	for lines.Scan() {
		if m := printed.FindStringSubmatch(strings.TrimSpace(lines.Text())); m != nil {
			v, err := strconv.ParseFloat(m[2], 64)
			if err != nil {
				return nil, fmt.Errorf("ngspice printed %q", lines.Text())
			}
			volts[m[1]] = v
		}
	}
	if len(volts) == 0 || bytes.Contains(out, []byte("imestep too small")) || bytes.Contains(out, []byte("aborted")) {
		return nil, fmt.Errorf("%w:\n%s", ErrNoPoint, out)
	}
	return volts, nil
}

var analysed = regexp.MustCompile(`Total analysis time \(seconds\) = (\S+)`)

// SolvingTime runs a netlist that prints its use of resources, and returns what ngspice says
// that its analysis took, in s: not its start, nor its reading.
func SolvingTime(netlist string) (float64, error) {
	ctx, cancel := context.WithTimeout(context.Background(), 60*time.Second)
	defer cancel()
	cmd := exec.CommandContext(ctx, Program, "-b", "/dev/stdin")
	cmd.Stdin = strings.NewReader(netlist)
	out, _ := cmd.CombinedOutput()
	m := analysed.FindSubmatch(out)
	if m == nil {
		return 0, fmt.Errorf("ngspice does not say how long it took:\n%s", out)
	}
	return strconv.ParseFloat(string(m[1]), 64)
}

// ErrNoPoint is a netlist whose run through time the simulator does not finish.
var ErrNoPoint = errors.New("ngspice came to no end")

// Missing says whether the simulator is not installed.
func Missing() bool {
	_, err := exec.LookPath(Program)
	return err != nil
}
