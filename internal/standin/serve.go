package standin

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"epitrope/core/prove"
	"epitrope/internal/instrument"
)

// Bench is a vehicle with a meter on it and somebody who works at it: its protocols ask one and the same.
type Bench struct {
	mu      sync.Mutex
	vehicle *Vehicle
	hands   Hands
	at      string   // the reading that the probes are held at
	errors  []string // SCPI's queue
}

// NewBench puts a vehicle on a bench, with its first reading.
func NewBench(v *Vehicle) *Bench {
	b := &Bench{vehicle: v}
	if len(v.Proof.Readings) > 0 {
		first := v.Proof.Readings[0]
		b.hands.Station, b.at = first.Station, first.ID
	}
	return b
}

// Every is how often telemetry sends a line.
const Every = time.Second

// Errors of SCPI-99.
const (
	noError   = `0,"No error"`
	undefined = `-113,"Undefined header"`
	badData   = `-224,"Illegal parameter value"`
)

// notANumber and overload are what SCPI-99 has for a reading that comes to no stand, and for one over the range.
const (
	notANumber = "NAN"
	overload   = "9.9E+37"
)

// Serve answers at a listener until the context ends: one goroutine for each who asks.
func Serve(ctx context.Context, at net.Listener, answer func(context.Context, net.Conn)) error {
	stop := context.AfterFunc(ctx, func() { _ = at.Close() })
	defer stop()
	for {
		conn, err := at.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return err
		}
		go func() {
			defer func() { _ = conn.Close() }()
			answer(ctx, conn)
		}()
	}
}

// Meter speaks SCPI-99 with whoever asks: *IDN?, SYST:ERR?, MEAS:VOLT:DC?, MEAS:CURR:DC?, MEAS:RES?, MEAS:TEMP?. Beside it there are
// commands for the hands: OPER:STAT, OPER:RPM, OPER:LAMP, OPER:SUN, PROB, and READ:AS?, which sets all that a reading asks for.
func (b *Bench) Meter(_ context.Context, conn net.Conn) {
	lines := bufio.NewScanner(conn)
	lines.Buffer(make([]byte, 512), 4096)
	for lines.Scan() {
		for _, command := range strings.Split(lines.Text(), ";") {
			if answer, says := b.Command(strings.TrimSpace(command)); says {
				if _, err := fmt.Fprintf(conn, "%s\n", answer); err != nil {
					return
				}
			}
		}
	}
}

// Command does one command; says is false where there is nothing to answer.
func (b *Bench) Command(line string) (answer string, says bool) {
	b.mu.Lock()
	defer b.mu.Unlock()
	head, rest, _ := strings.Cut(line, " ")
	rest = strings.TrimSpace(rest)
	switch strings.ToUpper(head) {
	case "":
		return "", false
	case "*IDN?":
		return instrument.StandIn + ",0,1", true
	case "*RST", "*CLS":
		b.errors = nil
		return "", false
	case "SYST:ERR?":
		if len(b.errors) == 0 {
			return noError, true
		}
		first := b.errors[0]
		b.errors = b.errors[1:]
		return first, true
	case "MEAS:VOLT:DC?":
		return b.measure(prove.Volts), true
	case "MEAS:CURR:DC?":
		return b.measure(prove.Amps), true
	case "MEAS:RES?":
		return b.measure(prove.Ohms), true
	case "MEAS:TEMP?":
		return b.measure(prove.Kelvin), true
	case "READ:AS?":
		station, id, _ := strings.Cut(rest, ",")
		if r, there := b.vehicle.Proof.Reading(id); !there || r.Station != station {
			return "NO", true
		}
		b.hands, b.at = Hands{Station: station}, id
		return "OK", true
	case "PROB?":
		return b.at, true
	case "OPER:STAT?":
		return b.hands.Station, true
	}
	if !b.handle(strings.ToUpper(head), rest) {
		b.fail(undefined)
	}
	return "", false
}

// handle does what hands do; known is false where there is no such command.
func (b *Bench) handle(head, rest string) (known bool) {
	on := strings.EqualFold(rest, "ON") || rest == "1"
	ok := on || strings.EqualFold(rest, "OFF") || rest == "0"
	switch head {
	case "PROB":
		if _, ok = b.vehicle.Proof.Reading(rest); ok {
			b.at = rest
		}
	case "OPER:STAT":
		ok = slices.ContainsFunc(b.vehicle.Proof.Stations, func(s prove.Station) bool { return s.ID == rest })
		if ok {
			b.hands.Station = rest
		}
	case "OPER:RPM":
		rpm, err := strconv.ParseFloat(rest, 64)
		if ok = err == nil && rpm >= 0 && rpm <= 6000; ok {
			b.hands.RPM = rpm
		}
	case "OPER:LAMP":
		b.hands.Lamps = ok && on
	case "OPER:SUN":
		b.hands.Sun = ok && on
	default:
		return false
	}
	if !ok {
		b.fail(badData)
	}
	return true
}

func (b *Bench) fail(with string) {
	if len(b.errors) < 20 {
		b.errors = append(b.errors, with)
	}
}

// measure is what the meter shows, at a setting: in the wrong one, nothing that means anything.
func (b *Bench) measure(setting prove.Unit) string {
	r, there := b.vehicle.Proof.Reading(b.at)
	if !there || r.Unit != setting {
		b.fail(badData)
		return overload
	}
	value, ok := b.vehicle.ReadsAs(r, b.hands)
	switch {
	case !ok:
		return notANumber
	case r.Unit == prove.Ohms && value > 1e4:
		return overload
	}
	return strconv.FormatFloat(value, 'E', 5, 64)
}

// Telemetry sends a line of a charger's telemetry every second.
func (b *Bench) Telemetry(ctx context.Context, conn net.Conn) {
	out := json.NewEncoder(conn)
	tick := time.NewTicker(Every)
	defer tick.Stop()
	for {
		if err := out.Encode(b.line(time.Now())); err != nil {
			return
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

func (b *Bench) line(now time.Time) instrument.Telemetry {
	b.mu.Lock()
	defer b.mu.Unlock()
	inV, outV, outA, stage := b.vehicle.Charging(b.hands)
	digit := func(v, d float64) *float64 {
		if math.IsNaN(v) {
			return nil
		}
		v = math.Round(v/d) * d
		return &v
	}
	return instrument.Telemetry{At: now.UTC(), InV: digit(inV, 0.01), OutV: digit(outV, 0.01), OutA: digit(outA, 0.1), Stage: stage}
}

// Readings are all that a proof asks for, as whoever takes them writes them down: the pieces of a stretch where that is out.
func (v *Vehicle) Readings() (taken []prove.Taken) {
	take := func(r prove.Reading) {
		value, ok := v.Reads(r)
		taken = append(taken, prove.Taken{ID: r.ID, Value: value, Jumps: !ok})
	}
	for _, r := range v.Proof.Readings {
		if r.Of == "" {
			take(r)
		}
	}
	asked := v.Proof.Judge(taken).Bands
	for _, r := range v.Proof.Readings {
		if _, is := asked[r.ID]; is && r.Of != "" {
			take(r)
		}
	}
	return taken
}
