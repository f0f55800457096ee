package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const demoVet = "../../testdata/demo/6-mobile-vet.json"

// Words follow the units, figures for machines do not, and a workshop's reels are what a job without its own is made of.
func TestUnitsOnTheCommandLine(t *testing.T) {
	settings := filepath.Join(t.TempDir(), "settings.json")
	require.NoError(t, os.WriteFile(settings, []byte(`{"units":{"area":"awg","length":"ft","temperature":"F","torque":"lbft"},
		"habits":{"feed":"orange"},"paper":"Letter"}`), 0o600))
	for _, c := range []struct {
		args     []string
		has, not []string
	}{
		{[]string{"plan", demoVet}, []string{" m ", "°C"}, []string{" ft", "°F"}},
		{[]string{"plan", "--units", "ft,F", demoVet}, []string{"17 ft 9 in", "°F", "mm²"}, []string{" m ", "°C"}},
		{[]string{"plan", "--units=awg", demoVet}, []string{" AWG", " m "}, []string{"°F"}},
		{[]string{"plan", demoVet, "--settings", settings}, []string{" AWG", " ft ", "°F"}, []string{"°C"}},
		{[]string{"plan", "--settings", settings, "--units", "m", demoVet}, []string{" m ", "°C"}, []string{" ft ", "°F"}},
		{[]string{"plan", "--json", "--units", "ft", demoVet}, []string{`"m"`}, []string{" ft"}},
		{[]string{"methods", "--units", "F", demoVet}, nil, []string{"°C"}},
		{[]string{"modes", "--units", "ft", demoVet}, nil, nil},
		{[]string{"found", "--units", "ft", demoVet}, nil, nil},
		{[]string{"make", "--what", "wires", "--units", "ft", demoVet}, []string{"route ft", "conduit in"}, []string{"route m"}},
		{[]string{"make", "--what", "wires", "--settings", settings, demoVet}, []string{",orange,", "tube lug 4 AWG"}, []string{",red,"}},
		{[]string{"make", "--what", "parts", "--units", "ft", demoVet}, []string{",ft,"}, []string{",m,"}},
		{[]string{"make", "--what", "cuts", "--units", "ft", demoVet}, []string{"left ft"}, nil},
		{[]string{"make", "--what", "drawing", "--units", "ft", demoVet}, nil, []string{" m<"}},
		{[]string{"make", "--what", "steps", "--units", "lbft", demoVet}, []string{"lb·ft"}, []string{"N·m"}},
		{[]string{"cable", "--amps", "12", "--one-way", "6ft6", "--units", "awg,ft,F"}, []string{" AWG", "°F", " m"}, nil},
		{[]string{"simulate", "--units", "F", demoVet}, []string{"°F"}, []string{"°C"}},
	} {
		code, out, errs := epitrope(t, "", c.args...)
		require.Zero(t, code, "%v: %s", c.args, errs)
		for _, text := range c.has {
			assert.Contains(t, out, text, "%v", c.args)
		}
		for _, text := range c.not {
			assert.NotContains(t, out, text, "%v", c.args)
		}
	}
	for args, wrong := range map[string]string{
		"--units=furlong":          `--units: unit "furlong" is not known; allowed are mm2, awg, auto, m, ft, C, F, Nm, lbft`,
		"--settings=nowhere.json":  "nowhere.json",
		"--settings=" + demoVet:    "cannot be read",
		"--settings=" + wrongIn(t): "paper: A5 is not known",
	} {
		code, _, errs := epitrope(t, "", "plan", args, demoVet)
		assert.Equal(t, 2, code)
		assert.Contains(t, errs, wrong, args)
	}
}

func wrongIn(t *testing.T) string {
	name := filepath.Join(t.TempDir(), "wrong.json")
	require.NoError(t, os.WriteFile(name, []byte(`{"paper":"A5","habits":{"sizes":"8 mm"}}`), 0o600))
	return name
}
