package standin_test

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
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/network"
	"epitrope/core/prove"
	"epitrope/core/system"
	"epitrope/internal/instrument"
	"epitrope/internal/jobtest"
	"epitrope/internal/settings"
	"epitrope/internal/spice"
	"epitrope/internal/standin"
)

const charger = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
	"capacityAh":100},"use":{"dailyAh":20},"pins":{"chargerA":30}}`

func vehicle(t testing.TB, seed uint64) (*design.Design, *standin.Vehicle) {
	t.Helper()
	d := jobtest.Design(t, charger)
	return d, standin.Build(d, prove.Of(d), seed)
}

func serve(t *testing.T, answer func(context.Context, net.Conn)) string {
	t.Helper()
	at, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, stop := context.WithCancel(context.Background())
	ended := make(chan error, 1)
	go func() { ended <- standin.Serve(ctx, at, answer) }()
	t.Cleanup(func() { stop(); assert.NoError(t, <-ended) })
	return at.Addr().String()
}

// The meter is read over SCPI as any other is: what it shows is the vehicle's, in the state that the reading asks for.
func TestTheMeterSpeaksSCPI(t *testing.T) {
	d, v := vehicle(t, 7)
	m := settings.Meter{Name: "bench", Address: serve(t, standin.NewBench(v).Meter), Speaks: settings.SCPI}
	for id, want := range map[string][2]float64{"start-rest": {12, 13}, "charge": {27, 33}, "start-running": {13.8, 14.7}, "apart": {-0.5,
		0.5},
		"profile": {14.3, 15}, "back-ohm": {0, 0.6}} {
		r, there := prove.Of(d).Reading(id)
		require.True(t, there, id)
		text, with, err := instrument.Read(context.Background(), m, r)
		require.NoError(t, err, id)
		assert.Contains(t, with, "stand-in")
		taken, err := r.Entered(text)
		require.NoError(t, err, "%s: %s", id, text)
		assert.True(t, taken.Value >= want[0] && taken.Value <= want[1], "%s: %s", id, text)
	}
	look, _ := prove.Of(d).Reading("engages")
	_, _, err := instrument.Read(context.Background(), m, look)
	assert.ErrorContains(t, err, "looked at")
}

// A learner who forgets the engine, or leaves the lamps on, reads what is then there.
func TestHandsAreTheLearners(t *testing.T) {
	_, v := vehicle(t, 7)
	b := standin.NewBench(v)
	say := func(line string) string { a, _ := b.Command(line); return a }
	measure := func(what string) float64 {
		f, err := strconv.ParseFloat(say(what), 64)
		require.NoError(t, err)
		return f
	}
	say("OPER:STAT key-out")
	say("PROB charge")
	assert.InDelta(t, 0, measure("MEAS:CURR:DC?"), 0.5, "the engine does not run")
	say("OPER:STAT fast-idle")
	held := measure("MEAS:CURR:DC?")
	assert.Greater(t, held, 25.0)
	say("OPER:RPM 0")
	say("PROB start-running")
	before := measure("MEAS:VOLT:DC?")
	say("OPER:LAMP ON")
	assert.LessOrEqual(t, measure("MEAS:VOLT:DC?"), before+0.05)
	assert.Equal(t, "9.9E+37", say("MEAS:CURR:DC?"), "set to amps, the probes at a battery")
	assert.Contains(t, say("SYST:ERR?"), "-224")
	assert.Contains(t, say("SYST:ERR?"), "No error")
	_, says := b.Command("OPER:TURBO ON")
	assert.False(t, says)
	assert.Contains(t, say("SYST:ERR?"), "-113")
	assert.Equal(t, "NO", say("READ:AS? key-out,charge"), "a reading of another station")
}

// Whatever is sent, the meter stands, and answers to what it knows.
func FuzzCommand(f *testing.F) {
	for _, line := range []string{"*IDN?", "MEAS:VOLT:DC?", "OPER:RPM 1e999", "PROB", "READ:AS? ,", "OPER:STAT warm", ";;", "\x00"} {
		f.Add(line)
	}
	d := jobtest.Design(f, charger)
	b := standin.NewBench(standin.Build(d, prove.Of(d), 1))
	f.Fuzz(func(t *testing.T, line string) {
		b.Command(line)
		is, says := b.Command("*IDN?")
		assert.True(t, says && strings.HasPrefix(is, instrument.StandIn))
	})
}

// A charger's telemetry is a line of JSON a second.
func TestTelemetry(t *testing.T) {
	d, v := vehicle(t, 7)
	b := standin.NewBench(v)
	b.Command("OPER:STAT fast-idle")
	address := serve(t, b.Telemetry)
	conn, err := net.Dial("tcp", address)
	require.NoError(t, err)
	defer func() { _ = conn.Close() }()
	_ = conn.SetReadDeadline(time.Now().Add(10 * time.Second))
	line, err := bufio.NewReader(conn).ReadBytes('\n')
	require.NoError(t, err)
	var got instrument.Telemetry
	require.NoError(t, json.Unmarshal(line, &got))
	assert.InDelta(t, 30, *got.OutA, 3)
	assert.Equal(t, "bulk", got.Stage)
	m := settings.Meter{Name: "charger", Address: address, Speaks: settings.TelemetryOut}
	r, _ := prove.Of(d).Reading("charge")
	text, _, err := instrument.Read(context.Background(), m, r)
	require.NoError(t, err)
	assert.Regexp(t, `^(2[7-9]|3[0-3])(\.\d+)? A$`, text)
	r, _ = prove.Of(d).Reading("start-rest")
	_, _, err = instrument.Read(context.Background(), m, r)
	assert.ErrorContains(t, err, "says nothing of")
}

// A hidden fault is what its library says: a blown fuse brings nothing to the aux battery.
func TestAHiddenFaultIsRead(t *testing.T) {
	d, v := vehicle(t, 7)
	at := slices.IndexFunc(fault.Of(d), func(f fault.Fault) bool { return f.ID == "blown f2" })
	require.GreaterOrEqual(t, at, 0)
	r, _ := prove.Of(d).Reading("charge")
	sound, _ := v.Reads(r)
	blown, _ := v.With(fault.Of(d)[at], 0).Reads(r)
	assert.Greater(t, sound, 25.0)
	assert.InDelta(t, 0, blown, 0.5)
}

// The same seed is the same vehicle, another another.
func TestSeeds(t *testing.T) {
	_, a := vehicle(t, 1)
	_, b := vehicle(t, 1)
	_, c := vehicle(t, 2)
	assert.Equal(t, a.Readings(), b.Readings())
	assert.NotEqual(t, a.Readings(), c.Readings())
}

// Vehicles that ngspice solves, and not the product, are as the bands expect them: a tenth of two hundred.
func TestVehiclesOfAnotherSolver(t *testing.T) {
	if spice.Missing() {
		t.Skip("ngspice is not here")
	}
	likely, possible, all := 0, 0, 0
	for _, document := range []string{charger, `{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},
		"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":20},"routes":{"startM":1,"auxM":2},"pins":{"coupling":"vsr"}}`} {
		d := jobtest.Design(t, document)
		p := prove.Of(d)
		for seed := range uint64(10) {
			v := standin.Build(d, p, 500+seed)
			for _, m := range p.Judge(solvedElsewhere(t, v)).Verdicts {
				all++
				if m.Level == prove.AsExpected {
					likely++
				}
				if m.Level == prove.AsExpected || m.Level == prove.JustOut {
					possible++
				} else {
					t.Logf("seed %d: %s %s, expected %s", seed, m.ID, m.Read, m.Expect)
				}
			}
		}
	}
	t.Logf("%d readings: %d likely, %d possible", all, likely, possible)
	assert.GreaterOrEqual(t, float64(likely), 0.92*float64(all))
	assert.GreaterOrEqual(t, float64(possible), 0.99*float64(all))
}

// solvedElsewhere are a vehicle's readings of volts and amps by ngspice.
func solvedElsewhere(t *testing.T, v *standin.Vehicle) (taken []prove.Taken) {
	t.Helper()
	running := map[string]circuit.Position{prove.FastIdle: {Joined: v.Design.Is.Senses, Stopped: v.Design.Is.Senses}}
	volts := map[string]map[string]float64{}
	for _, r := range v.Proof.Readings {
		if r.Of != "" || r.Unit != prove.Volts && r.Unit != prove.Amps || r.ID == "lets-go" || r.ID == "profile" {
			continue
		}
		at, known := running[r.Station]
		if !known {
			at = circuit.Position{Stopped: true}
		}
		if volts[r.Station] == nil {
			c := v.Circuit(r.Station, at)
			netlist, err := c.Netlist(fmt.Sprint(r.Station))
			require.NoError(t, err)
			volts[r.Station], err = spice.Rest(netlist)
			require.NoError(t, err, r.Station)
		}
		node := func(name string) float64 { return volts[r.Station][network.SpiceName(name)] }
		value := node(r.Red.Node()) - node(r.Black.Node())
		if r.Unit == prove.Amps {
			wire, there := v.Design.System.Wire(r.Clamp)
			if !there { // round all leads at the battery: its one lead
				wire, there = last(&v.Design.System)
			}
			require.True(t, there)
			from, to := wire.Ends()
			value = (node(from) - node(to)) / v.Ohm(wire.ID)
		}
		taken = append(taken, prove.Taken{ID: r.ID, Value: v.Metered(r, value)})
	}
	return taken
}

// last is the wire that ends at the aux battery's plus.
func last(sys *system.System) (system.Wire, bool) {
	for _, w := range sys.Wires {
		if w.Role == system.Feed && w.To == (system.Terminal{Component: "aux", Terminal: "30"}) {
			return w, true
		}
	}
	return system.Wire{}, false
}

// No value is not a number, whatever the seed.
func TestEveryReadingIsANumber(t *testing.T) {
	for seed := range uint64(20) {
		_, v := vehicle(t, seed)
		for _, r := range v.Readings() {
			assert.False(t, math.IsNaN(r.Value) || math.IsInf(r.Value, 0), "%d %s", seed, r.ID)
		}
	}
}
