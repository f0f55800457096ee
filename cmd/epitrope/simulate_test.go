package main

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/study"
	"epitrope/internal/instrument"
)

const parkedVan = `{"format":"epitrope-job","version":1,"alternator":{"label":"90/180 A"},"aux":{"chemistry":"agm","capacityAh":100},` +
	`"day":{"days":2}}`

// A job is run through its days: as text with its verdicts, as JSON with its energy, as CSV
// with a line at even moments.
func TestSimulate(t *testing.T) {
	code, out, errs := epitrope(t, parkedVan, "simulate", "-")
	require.Zero(t, code, errs)
	for _, said := range []string{"2 days", "Wh  kept by the aux battery", "practitioner's word override"} {
		assert.Contains(t, out, said)
	}
	code, out, _ = epitrope(t, parkedVan, "simulate", "--days", "1", "--json", "-")
	require.Zero(t, code)
	var trial study.Trial
	require.NoError(t, json.Unmarshal([]byte(out), &trial))
	assert.InDelta(t, 1, trial.Days, 0.01)
	sum := 0.0
	for _, s := range trial.Energy {
		if s.Kind == "source" {
			sum += s.Wh
		} else {
			sum -= s.Wh
		}
	}
	assert.InDelta(t, 0, sum, 10, "what is given goes somewhere; each line is rounded to 1 Wh")

	code, out, _ = epitrope(t, parkedVan, "simulate", "--days", "1", "--every", "600", "--csv", "-")
	require.Zero(t, code)
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, study.TableHead, rows[0])
	assert.InDelta(t, 24*6, len(rows)-1, 2, "every ten minutes of a day")
	assert.Contains(t, out, "\r\n", "RFC 4180")
}

// It drives by a track, and says what it cannot write as a netlist.
func TestSimulateByTrack(t *testing.T) {
	file := filepath.Join(t.TempDir(), "drive.csv")
	var rows strings.Builder
	rows.WriteString("time s,speed km/h\n")
	for s := range 120 {
		fmt.Fprintf(&rows, "%d,%d\n", s*30, 80*(s%2))
	}
	require.NoError(t, os.WriteFile(file, []byte(rows.String()), 0o600))
	code, out, errs := epitrope(t, parkedVan, "simulate", "--track", file, "-")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "Wh")
}

func TestSimulateRefuses(t *testing.T) {
	bad := filepath.Join(t.TempDir(), "bad.csv")
	require.NoError(t, os.WriteFile(bad, []byte("colour,shape\nred,round\n"), 0o600))
	for want, args := range map[string][]string{
		"--every: 0.5 is out of range; allowed are 1 to 3600 s": {"simulate", "--every", "0.5", "-"},
		"day.days": {"simulate", "--days", "99", "-"},
		"--track":  {"simulate", "--track", "nowhere.gpx", "-"},
		bad:        {"simulate", "--track", bad, "-"},
		"FILE":     {"simulate"},
	} {
		code, out, errs := epitrope(t, parkedVan, args...)
		assert.Equal(t, 2, code, "%v", args)
		assert.Contains(t, errs, want, "%v", args)
		assert.Empty(t, out, "%v", args)
	}
	code, _, errs := epitrope(t, `{"format":"epitrope-job","version":1,"aux":{"capacityAh":"lots"}}`, "simulate", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "aux.capacityAh")
}

// Every simulated recording is classified as what it is; one that is too short says what to
// record.
func TestClassify(t *testing.T) {
	for _, s := range instrument.Simulations {
		code, log, _ := epitrope(t, "", "log", s.ID)
		require.Zero(t, code, s.ID)
		code, out, errs := epitrope(t, log, "classify", "--json", "-")
		require.Zero(t, code, "%s: %s", s.ID, errs)
		var j struct {
			Class   string
			Why     string
			Missing []string
		}
		require.NoError(t, json.Unmarshal([]byte(out), &j))
		assert.NotEmpty(t, j.Class, s.ID)
		assert.NotEmpty(t, j.Why, s.ID)
	}
	for name, class := range map[string]string{"fixed.csv": "fixed", "variable.csv": "variable", "compensated.csv": "compensated"} {
		code, out, errs := epitrope(t, "", "classify", filepath.Join("../../testdata/logs", name))
		require.Zero(t, code, "%s: %s", name, errs)
		assert.True(t, strings.HasPrefix(out, class), "%s: %s", name, out)
	}
	_, out, _ := epitrope(t, "", "classify", "../../testdata/logs/short.csv")
	assert.Contains(t, out, "record: ")
}

func TestClassifyRefuses(t *testing.T) {
	for want, args := range map[string][]string{"give one FILE": {"classify"}, "nowhere.csv": {"classify", "nowhere.csv"},
		"give one KIND": {"log"}, "rope": {"log", "rope"}} {
		code, _, errs := epitrope(t, "", args...)
		assert.Equal(t, 2, code, "%v", args)
		assert.Contains(t, errs, want, "%v", args)
	}
	code, _, errs := epitrope(t, "a,b\nred,blue\n", "classify", "-")
	assert.Equal(t, 2, code)
	assert.NotEmpty(t, errs)
}
