package main

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func epitrope(t *testing.T, input string, args ...string) (code int, out, errs string) {
	t.Helper()
	var o, e bytes.Buffer
	code = carryOut(args, strings.NewReader(input), &o, &e)
	return code, o.String(), e.String()
}

// The example of the documentation.
func TestCableExample(t *testing.T) {
	code, out, _ := epitrope(t, "", "cable", "--amps", "12", "--one-way", "2.3m", "--drop", "2%", "--reference-volts", "10.7", "--json")
	require.Zero(t, code)
	var got map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &got))
	for key, want := range map[string]any{"ruleAreaMM2": 4.45, "size": "6 mm²", "decidedBy": "drop", "fuseA": 15.0, "ampacityA": 50.0} {
		assert.Equal(t, want, got[key], key)
	}
	for _, key := range []string{"dropV", "dropPercent", "conductorC", "working"} {
		assert.Contains(t, got, key)
	}
}

func TestCableTakesAnyUnit(t *testing.T) {
	_, metric, _ := epitrope(t, "", "cable", "--amps", "12", "--one-way", "1.9812m", "--bay", "35C", "--json")
	_, imperial, _ := epitrope(t, "", "cable", "--amps", "12000 mA", "--one-way", "6ft6", "--bay", "95F", "--insulation", "185F", "--json")
	assert.Equal(t, metric, imperial)
	code, out, _ := epitrope(t, "", "cable", "--amps", "12", "--one-way", "2m", "--size", "6 AWG", "--return", "chassis", "--bay", "engine")
	assert.Zero(t, code)
	assert.Contains(t, out, "6 AWG, decided by pinned")
	assert.Contains(t, out, "R = r·l·(1 + α·(T − 20))")
}

// Bad input exits with 2 and names the flag, the value and what is allowed.
func TestBadFlagsAreNamed(t *testing.T) {
	cases := [][]string{
		{"--amps", "is not a current", "cable", "--amps", "", "--one-way", "2m"},
		{"--amps", "0.05 to 1000 A", "cable", "--amps", "10000", "--one-way", "2m"},
		{"-amps", "0.05 to 1000 A", "cable", "--amps=-3", "--one-way", "2m"},
		{"-one-way", "0.05 to 50 m", "cable", "--amps", "3", "--one-way", "0m"},
		{"-one-way", "is not a length", "cable", "--amps", "3", "--one-way", "2kg"},
		{"--one-way is missing", "0.05 to 50 m", "cable", "--amps", "3"},
		{"--bay", "engine, cabin or a temperature", "cable", "--amps", "3", "--one-way", "2m", "--bay", "roof"},
		{"--insulation", "70, 85 and 105", "cable", "--amps", "3", "--one-way", "2m", "--insulation", "65C"},
		{"--return", "cable chassis", "cable", "--amps", "3", "--one-way", "2m", "--return", "rope"},
		{"--size", "outside diameter", "cable", "--amps", "3", "--one-way", "2m", "--size", "8 mm"},
		{"--amps 1000 A", "no cable", "cable", "--amps", "1000", "--one-way", "50m"},
		{"unknown flag --bogus", "", "cable", "--bogus"},
		{"is not a command", "epitrope plan", "paint"},
		{"give one FILE", "", "plan"},
		{"no such file", "", "plan", "/nowhere.json"},
		{"has no schema", "job and plan", "schema", "van"},
		{"--at", "allowed are cruise, early, idle, eased", "netlist", "../../testdata/demo/6-mobile-vet.json", "--at", "flying"},
		{"--address", "passwords", "serve", "--address", "0.0.0.0:80", "--database", "x"},
	}
	for _, c := range cases {
		code, _, errs := epitrope(t, "", c[2:]...)
		assert.Equal(t, 2, code, c)
		assert.Contains(t, errs, c[0], c)
		assert.Contains(t, errs, c[1], c)
	}
	code, _, _ := epitrope(t, "")
	assert.Equal(t, 2, code)
}

func TestPlanReadsFilesAndStandardInput(t *testing.T) {
	code, out, _ := epitrope(t, `{"format":"epitrope-job","version":1,"title":"x"}`, "plan", "-", "--json")
	require.Zero(t, code)
	var p struct{ Format, Coupling string }
	require.NoError(t, json.Unmarshal([]byte(out), &p))
	assert.Equal(t, "epitrope-plan", p.Format)

	names, err := filepath.Glob("../../testdata/demo/*.json")
	require.NoError(t, err)
	require.NotEmpty(t, names)
	for _, name := range names {
		code, out, errs := epitrope(t, "", "plan", name)
		assert.Zero(t, code, errs)
		assert.Contains(t, out, "Aux battery")
		assert.Contains(t, out, "Local vehicle and caravan electrical codes")
	}

	bad := filepath.Join(t.TempDir(), "bad.json")
	require.NoError(t, os.WriteFile(bad, []byte(`{"use":{"dailyAh":"lots"}}`), 0o600))
	code, _, errs := epitrope(t, "", "plan", bad)
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, `use.dailyAh: "lots" is not a charge`)
	assert.Contains(t, errs, "allowed: 1 to 1000 Ah")
}

// A state that a charger does not bear says why, and not what would flow.
func TestPlanSaysWhyAStateFails(t *testing.T) {
	const starved = `{"format":"epitrope-job","version":1,"alternator":{"label":"70/140 A"},"startBattery":{"capacityAh":70},` +
		`"aux":{"chemistry":"agm","capacityAh":120,` +
		`"place":"rear"},"routes":{"startM":5.6},"pins":{"chargerA":30,"chargerCount":2,"startSize":"16 mm2"}}`
	code, out, errs := epitrope(t, starved, "plan", "-")
	require.Zero(t, code, errs)
	assert.Regexp(t, `(?m)at the aux battery; the charger (stops below|asks) [^;]*$`, out)
	assert.NotRegexp(t, `out\s?the charger`, out)
}

func TestNetlistIsWritten(t *testing.T) {
	code, out, errs := epitrope(t, "", "netlist", "../../testdata/demo/6-mobile-vet.json", "--at", "idle")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "* Mobile vet, high-roof van, idle")
	assert.Contains(t, out, "r_c1 c1_from c1_to")
	assert.Contains(t, out, ".end\n")
}

func TestHelpAndSchema(t *testing.T) {
	code, out, _ := epitrope(t, "", "cable", "--help")
	assert.Zero(t, code)
	assert.Contains(t, out, "-one-way")
	code, out, _ = epitrope(t, "", "schema", "job", "--json")
	assert.Zero(t, code)
	assert.True(t, json.Valid([]byte(out)))
	code, out, _ = epitrope(t, "", "help")
	assert.Zero(t, code)
	assert.Contains(t, out, "epitrope serve")
}

// Methods, modes and what was found are judged from a file too.
func TestJudgingCommands(t *testing.T) {
	const doc = `{"format":"epitrope-job","version":1,"alternator":{"regulation":"fixed","knownBy":"test","volts":14.4},` +
		`"aux":{"chemistry":"agm","place":"seat"},` +
		`"day":{"days":1},"found":{"w1":{"role":"start","endA":"a","endB":"b","size":"16 mm2","lengthM":2}}}`
	for command, says := range map[string]string{"methods": "voltage-sensing relay: best for this job",
		"modes": "to work on C1: F1 taken out; F2 taken out", "found": "is there a fuse at end A"} {
		code, out, errs := epitrope(t, doc, command, "-")
		require.Zero(t, code, errs)
		assert.Contains(t, out, says, command)
		code, out, _ = epitrope(t, doc, command, "--json", "-")
		require.Zero(t, code)
		assert.True(t, json.Valid([]byte(out)), command)
		code, _, errs = epitrope(t, `{"use":{"dailyAh":-1}}`, command, "-")
		assert.Equal(t, 2, code)
		assert.Contains(t, errs, "use.dailyAh")
	}
}

// The chargers of a file of parts are held against a job.
func TestShelfCommand(t *testing.T) {
	book := filepath.Join(t.TempDir(), "parts.csv")
	require.NoError(t, os.WriteFile(book, []byte("kind,name,rating A,profiles\ncharger,Bench box,20,agm\ncharger,Gel box,20,gel\n"), 0o600))
	const doc = `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm"},"use":{"dailyAh":20}}`
	code, out, errs := epitrope(t, doc, "shelf", "--book", book, "-")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "Bench box: open; against it: nothing; its card does not say: where it stops: 11.8 V reckoned")
	assert.Contains(t, out, "it has no profile for AGM, only for gel")
	code, out, _ = epitrope(t, doc, "shelf", "--json", "--book", book, "-")
	require.Zero(t, code)
	assert.True(t, json.Valid([]byte(out)))
	code, _, errs = epitrope(t, doc, "shelf", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "--book is missing")
}

// A file of parts is checked line by line.
func TestPartsCommand(t *testing.T) {
	code, out, errs := epitrope(t, "kind,name,rating A\ncharger,Bench box,35\nfuse,Strip,60\n", "parts", "-")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "parts that can be used: 2")
	code, out, errs = epitrope(t, "kind,name,rating A\ncharger,Bench box,35\nfuse,Strip,sixty\n", "parts", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, out, "parts that can be used: 1")
	assert.Contains(t, errs, `line 3: rating A "sixty" is not a current; allowed: 0.5 to 600 A`)
	code, _, errs = epitrope(t, "", "parts", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "there is no table in it")
}

// What a job takes to make, in each form; a wrong word is named with those allowed.
func TestMake(t *testing.T) {
	const van = "../../testdata/demo/6-mobile-vet.json"
	for what, begins := range map[string]string{"wires": "wire,from", "cuts": "from,size", "parts": "kind,what", "drawing": "<svg ",
		"steps": "[", "pack": "%PDF-", "wire-labels": "%PDF-", "fuse-labels": "%PDF-", "owner-label": "%PDF-"} {
		code, out, errs := epitrope(t, "", "make", van, "--what", what, "--book", "../../testdata/demo/parts.csv")
		require.Zero(t, code, errs)
		assert.True(t, strings.HasPrefix(out, begins), "%s: %.40q", what, out)
	}
	code, out, _ := epitrope(t, "", "make", van, "--what", "parts", "--book", "../../testdata/demo/parts.csv")
	assert.Zero(t, code)
	assert.Contains(t, out, "16 mm² red,4.6,EUR,2026-10-01")
	code, _, errs := epitrope(t, "", "make", van, "--what", "song")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "cuts, drawing, fuse-labels, owner-label, pack, parts, steps, wire-labels, wires")
	code, _, errs = epitrope(t, "", "make", van, "--what", "wire-labels", "--stock", "a5")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, `--stock "a5" is not known; allowed are a4-65`)
	code, _, errs = epitrope(t, "kind,name\nfuse,\n", "make", van, "--book", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "line 2")
	code, out, _ = epitrope(t, `{"format":"epitrope-job","version":1,"dates":{"d1":{"what":"Look","due":"2031-04-30"}}}`, "calendar", "-")
	assert.Zero(t, code)
	assert.Contains(t, out, "DTSTART;VALUE=DATE:20310430")
}

// The proof of a job, and what readings of it mean, from files alone.
func TestProve(t *testing.T) {
	doc := `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},` +
		`"use":{"dailyAh":20}}`
	code, out, errs := epitrope(t, doc, "prove", "-")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "Fuses out, both batteries connected")
	assert.Contains(t, out, "red on Start battery 30, black on Start battery 31")
	readings := filepath.Join(t.TempDir(), "r.csv")
	require.NoError(t, os.WriteFile(readings, []byte("reading,value\nstart-rest,12.5\nholder-f2,-12.4\n"), 0o600))
	code, out, errs = epitrope(t, doc, "prove", "--readings", readings, "-")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "Start battery at rest: 12.50 V, as expected")
	assert.Contains(t, out, "Holder of F2, battery's side: −12.40 V, out")
	assert.Contains(t, out, "plus and minus of the Aux battery are changed over")
	code, out, _ = epitrope(t, doc, "prove", "--json", "--readings", readings, "-")
	require.Zero(t, code)
	var told struct{ Verdicts []struct{ Level string } }
	require.NoError(t, json.Unmarshal([]byte(out), &told))
	assert.Equal(t, "out", told.Verdicts[1].Level)
	require.NoError(t, os.WriteFile(readings, []byte("reading,value\nstart-rest,OL\n"), 0o600))
	code, _, errs = epitrope(t, doc, "prove", "--readings", readings, "-")
	assert.NotZero(t, code)
	assert.Contains(t, errs, "line 2: value")
}

// A fault is traced from files alone: first what may be wrong, then what is, and wrong evidence is named.
func TestTrace(t *testing.T) {
	doc := `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},` +
		`"use":{"dailyAh":20}}`
	evidence := filepath.Join(t.TempDir(), "e.json")
	write := func(seen string) {
		require.NoError(t, os.WriteFile(evidence, []byte(`{"format":"epitrope-evidence","version":1,"seen":`+seen+`}`), 0o600))
	}
	code, out, errs := epitrope(t, doc, "trace", "--symptoms")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "no-charge: ")
	write(`[{"symptom":"no-charge"}]`)
	code, out, errs = epitrope(t, doc, "trace", "--evidence", evidence, "-")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "next: ")
	assert.NotContains(t, out, "look now")
	write(`[{"symptom":"no-charge"},{"reading":"at-f1-in-fast-idle","entry":"14.2 V"},{"reading":"at-f1-out-fast-idle","entry":"0.0 V"}]`)
	code, out, errs = epitrope(t, doc, "trace", "--evidence", evidence, "-")
	require.Zero(t, code, errs)
	assert.Regexp(t, `(?m)^\d+ % blown f1: F1 is blown`, out)
	code, out, errs = epitrope(t, doc, "trace", "--json", "--evidence", evidence, "-")
	require.Zero(t, code, errs)
	var told struct {
		Suspects []struct {
			ID    string
			Share float64
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &told))
	assert.Equal(t, "blown f1", told.Suspects[0].ID)
	write(`[{"reading":"charge","entry":"plenty"}]`)
	code, _, errs = epitrope(t, doc, "trace", "--evidence", evidence, "-")
	assert.NotZero(t, code)
	assert.Contains(t, errs, "seen[0].reading")
	assert.Contains(t, errs, "31.5 A")
	require.NoError(t, os.WriteFile(evidence, []byte(`{"format":"epitrope-job"}`), 0o600))
	code, _, errs = epitrope(t, doc, "trace", "--evidence", evidence, "-")
	assert.NotZero(t, code)
	assert.Contains(t, errs, "epitrope-evidence")
}
