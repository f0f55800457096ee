package instrument_test

import (
	"bufio"
	"context"
	"fmt"
	"net"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/prove"
	"epitrope/internal/instrument"
	"epitrope/internal/jobtest"
	"epitrope/internal/settings"
)

// talks is an instrument that gives one answer to each query, the last to all that follow; “” hangs up.
func talks(t *testing.T, answers ...string) string {
	t.Helper()
	at, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = at.Close() })
	go func() {
		for {
			conn, err := at.Accept()
			if err != nil {
				return
			}
			go func() {
				defer func() { _ = conn.Close() }()
				lines := bufio.NewScanner(conn)
				for i := 0; lines.Scan(); i++ {
					answer := answers[min(i, len(answers)-1)]
					if answer == "" {
						return
					}
					fmt.Fprintln(conn, answer)
				}
			}()
		}
	}()
	return at.Addr().String()
}

func proof(t testing.TB) *prove.Proof {
	t.Helper()
	return prove.Of(jobtest.Design(t, `{"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":20}}`))
}

// SCPI-99: a number in scientific notation; 9.9E37 is over the range, NAN no number.
func TestMeters(t *testing.T) {
	r, _ := proof(t).Reading("start-rest")
	for _, c := range []struct {
		answers     []string
		text, wrong string
	}{
		{[]string{"Maker,Model,1,2", "+1.26130E+01"}, "12.613 V", ""},
		{[]string{"Maker,Model,1,2", "-2.5e-3"}, "-0.0025 V", ""},
		{[]string{"Maker,Model,1,2", "2.1E-05"}, "0.000021 V", ""},
		{[]string{"Maker,Model,1,2", "1.2E+07"}, "12000000 V", ""},
		{[]string{"Maker,Model,1,2", "9.90000000E+37"}, "OL", ""},
		{[]string{"Maker,Model,1,2", "NAN"}, "jumps", ""},
		{[]string{"Maker,Model,1,2", "twelve"}, "", `answers "twelve" to MEAS:VOLT:DC?, which is no number`},
		{[]string{"Maker,Model,1,2", ""}, "", "does not answer to MEAS:VOLT:DC?"},
		{[]string{""}, "", "does not answer to *IDN?"},
		{[]string{instrument.StandIn + ",0,1", "NO"}, "", "the stand-in cannot show"},
	} {
		m := settings.Meter{Name: "bench", Address: talks(t, c.answers...), Speaks: settings.SCPI}
		text, with, err := instrument.Read(context.Background(), m, r)
		if c.wrong != "" {
			assert.ErrorContains(t, err, c.wrong)
			continue
		}
		require.NoError(t, err, c.answers)
		assert.Equal(t, c.text, text)
		assert.Contains(t, with, "bench")
	}
	gone := settings.Meter{Name: "bench", Address: "127.0.0.1:1", Speaks: settings.SCPI}
	_, _, err := instrument.Read(context.Background(), gone, r)
	assert.ErrorContains(t, err, "does not answer: is it on, and on this network")
}

// A file of readings, a logger's file of one, and what is neither.
func TestEntries(t *testing.T) {
	p := proof(t)
	log := func(values ...string) string { return "time,volts\n0," + strings.Join(values, "\n1,") }
	rising := "time,volts\n"
	for i := range 40 {
		rising += fmt.Sprintf("%d,%.2f\n", i, 12+float64(i)/20)
	}
	for _, c := range []struct{ name, file, asked, text, wrong string }{
		{"readings", "reading,value\nstart-rest,12.6 V\naux-rest,\"12,4\"\n", "", "12.6 V", ""},
		{"steady", log("12.1", "12.61", "12.62", "12.61"), "start-rest", "12.61 V", ""},
		{"still rising", rising, "start-rest", "jumps", ""},
		{"amps for volts", "time,amps\n0,3\n1,3\n", "start-rest", "", "name no time with volts"},
		{"of a look", log("12.1"), "engages", "", "one of volts or amps"},
		{"of none", log("12.1"), "", "", "one of volts or amps"},
		{"a picture", "\xff\xd8\xff\xe0JFIF", "start-rest", "", "heads"},
		{"nothing", "time,volts\n", "start-rest", "", "no recording"},
	} {
		got, err := instrument.Entries([]byte(c.file), p, c.asked)
		if c.wrong != "" {
			assert.ErrorContains(t, err, c.wrong, c.name)
			continue
		}
		require.NoError(t, err, c.name)
		assert.Equal(t, c.text, got[0].Text, c.name)
	}
}

// By hand: 30 A for an hour are 30 Ah, 30 % of 100 Ah.
func TestTripFiles(t *testing.T) {
	drive, err := instrument.Trip(strings.NewReader("time,SOC %\n0,50\n3600,62\n7200,74\n"), 100)
	require.NoError(t, err)
	assert.InDelta(t, 2, drive.Hours, 1e-9)
	assert.InDelta(t, 50, drive.From, 1e-9)
	assert.InDelta(t, 74, drive.To, 1e-9)
	drive, err = instrument.Trip(strings.NewReader("time,amps\n0,30\n1800,30\n3600,30\n"), 100)
	require.NoError(t, err)
	assert.InDelta(t, 80, drive.To, 1e-9)
	for file, wrong := range map[string]string{"time,SOC %\n0,50\n": "no drive", "time,speed\n0,50\n": "name no time with charge",
		"":                             "no recording",
		"time,SOC %\n0,50\n3600,142\n": "142 % is no state of charge"} {
		_, err := instrument.Trip(strings.NewReader(file), 100)
		assert.ErrorContains(t, err, wrong)
	}
}

// Whatever is in a file, it is read or refused with words.
func FuzzEntries(f *testing.F) {
	f.Add([]byte("time,volts\n0,12.6\n"), "start-rest")
	f.Add([]byte("reading,value\nstart-rest,jumps\n"), "")
	f.Add([]byte("time;battery V\n0;12,6\n"), "start-rest")
	p := proof(f)
	f.Fuzz(func(t *testing.T, data []byte, asked string) {
		entries, err := instrument.Entries(data, p, asked)
		if err != nil {
			assert.NotEmpty(t, err.Error())
			return
		}
		_, wrong := p.Read(entries)
		for _, w := range wrong {
			assert.Equal(t, "OL", w.Value, "what was read of a file is a reading, or over the range")
		}
	})
}

func FuzzTrip(f *testing.F) {
	f.Add("time,SOC %\n0,50\n3600,62\n")
	f.Add("time,amps\n0,30\n1800,30\n")
	f.Fuzz(func(t *testing.T, text string) {
		drive, err := instrument.Trip(strings.NewReader(text), 100)
		if field, _ := drive.Check(); err == nil {
			assert.Empty(t, field)
		}
	})
}
