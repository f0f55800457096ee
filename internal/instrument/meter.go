package instrument

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net"
	"strconv"
	"strings"
	"time"

	"epitrope/core/prove"
	"epitrope/internal/settings"
)

// Telemetry is a line of a charger's telemetry: an open format of ours. What a charger does not know is left out.
type Telemetry struct {
	At    time.Time `json:"at,omitzero"`
	InV   *float64  `json:"inV,omitempty" doc:"Across its input"`
	OutV  *float64  `json:"outV,omitempty"`
	OutA  *float64  `json:"outA,omitempty" doc:"Into the aux battery"`
	Stage string    `json:"stage,omitempty" doc:"rest, bulk, absorption or float"`
}

// How long an instrument may take to answer, and how long a line of it may be.
const (
	dialFor   = 2 * time.Second
	answerFor = 4 * time.Second
	lineMost  = 4096
)

// StandIn is how a stand-in names itself: it is told what is read, as nobody holds its probes.
const StandIn = "Epitrope,stand-in"

// overload is what SCPI-99 has for a reading over the range.
const overload = 9.9e37

// Read reads an instrument on the workshop's network, by lines over TCP: the text is the reading as it would be typed.
func Read(ctx context.Context, m settings.Meter, r prove.Reading) (text, with string, err error) {
	dialer := net.Dialer{Timeout: dialFor}
	conn, err := dialer.DialContext(ctx, "tcp", m.Address)
	if err != nil {
		return "", "", fmt.Errorf("%s at %s does not answer: is it on, and on this network", m.Name, m.Address)
	}
	defer func() { _ = conn.Close() }()
	_ = conn.SetDeadline(time.Now().Add(answerFor))
	lines := bufio.NewReaderSize(conn, lineMost)
	if m.Speaks == settings.TelemetryOut {
		text, err = telemetry(m, lines, r)
		return text, m.Name, err
	}
	return scpi(m, conn, lines, r)
}

// measures are the queries of SCPI-99 for each unit.
var measures = map[prove.Unit]string{prove.Volts: "MEAS:VOLT:DC?", prove.Amps: "MEAS:CURR:DC?", prove.Ohms: "MEAS:RES?",
	prove.Kelvin: "MEAS:TEMP?"}

func scpi(m settings.Meter, conn net.Conn, lines *bufio.Reader, r prove.Reading) (text, with string, err error) {
	query, measured := measures[r.Unit]
	if !measured {
		return "", "", errors.New("this is looked at, not measured")
	}
	ask := func(line string) (string, error) {
		if _, err := fmt.Fprintf(conn, "%s\n", line); err != nil {
			return "", fmt.Errorf("%s has hung up", m.Name)
		}
		got, err := lines.ReadString('\n')
		if err != nil {
			return "", fmt.Errorf("%s does not answer to %s", m.Name, line)
		}
		return strings.TrimSpace(got), nil
	}
	is, err := ask("*IDN?")
	if err != nil {
		return "", "", err
	}
	if strings.HasPrefix(is, StandIn) {
		if got, err := ask("READ:AS? " + r.Station + "," + r.ID); err != nil || got != "OK" {
			return "", "", fmt.Errorf("the stand-in cannot show %q: is it of this job", r.ID)
		}
	}
	got, err := ask(query)
	if err != nil {
		return "", "", err
	}
	value, err := strconv.ParseFloat(got, 64)
	switch {
	case err != nil:
		return "", "", fmt.Errorf("%s answers %q to %s, which is no number", m.Name, short(got), query)
	case math.IsNaN(value):
		return prove.Jumping, m.Name + ", " + short(is), nil
	case math.Abs(value) >= overload:
		return "OL", m.Name + ", " + short(is), nil
	}
	return plain(value, r.Unit), m.Name + ", " + short(is), nil
}

// telemetry reads the next line of a charger.
func telemetry(m settings.Meter, lines *bufio.Reader, r prove.Reading) (string, error) {
	line, err := lines.ReadSlice('\n')
	if err != nil {
		return "", fmt.Errorf("%s sends no line", m.Name)
	}
	var t Telemetry
	if err := json.Unmarshal(line, &t); err != nil {
		return "", fmt.Errorf("%s sends what is no line of telemetry: %q", m.Name, short(string(line)))
	}
	value, knows := t.Of(r)
	if !knows {
		return "", fmt.Errorf("%s says nothing of “%s”: a meter does", m.Name, r.What)
	}
	return plain(value, r.Unit), nil
}

// Of is what a line of telemetry says of a reading.
func (t Telemetry) Of(r prove.Reading) (value float64, knows bool) {
	from := map[string]*float64{"input": t.InV, "aux-charge": t.OutV, "profile": t.OutV, "charge": t.OutA}[r.ID]
	if from == nil || math.IsNaN(*from) || math.IsInf(*from, 0) {
		return 0, false
	}
	return *from, true
}
