package core_test

import (
	"encoding/json"
	"errors"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// layers of the core, lowest first: a package imports only from lower ones.
var layers = []string{"unit", "working", "cable", "protect", "battery", "profile", "alternator", "coupling", "network", "day", "parts",
	"need", "feed", "mount", "job", "method", "verdict", "system", "circuit", "run", "design", "rig", "section", "charging", "belief", "judge",
	"modes", "owner", "retrofit", "fault", "prove", "trace", "plan", "harness", "procedure", "signoff", "trip", "study"}

type listed struct {
	ImportPath string
	Imports    []string
}

func packages(t *testing.T, pattern string) []listed {
	t.Helper()
	cmd := exec.Command("go", "list", "-json=ImportPath,Imports", pattern)
	cmd.Dir = ".."
	out, err := cmd.Output()
	require.NoError(t, err)
	var all []listed
	dec := json.NewDecoder(strings.NewReader(string(out)))
	for {
		var p listed
		if err := dec.Decode(&p); errors.Is(err, io.EOF) {
			return all
		} else if err != nil {
			t.Fatal(err)
		}
		all = append(all, p)
	}
}

// The core imports only the standard library, gonum and itself, and its own layers
// run one way.
func TestCoreImportsDownward(t *testing.T) {
	seen := []string{}
	for _, p := range packages(t, "./core/...") {
		name, inside := strings.CutPrefix(p.ImportPath, "epitrope/core/")
		if !inside {
			continue
		}
		rank := slices.Index(layers, name)
		require.GreaterOrEqual(t, rank, 0, "%s has no layer", name)
		seen = append(seen, name)
		for _, i := range p.Imports {
			if below, ours := strings.CutPrefix(i, "epitrope/core/"); ours {
				assert.Less(t, slices.Index(layers, below), rank, "%s imports %s", name, below)
				continue
			}
			first, _, _ := strings.Cut(i, "/")
			assert.True(t, !strings.Contains(first, ".") && first != "epitrope" || strings.HasPrefix(i, "gonum.org/"), "%s imports %s", name, i)
		}
	}
	slices.Sort(seen)
	want := slices.Sorted(slices.Values(layers))
	assert.Equal(t, want, seen)
}

// Only the command and the adapters know the core; the core knows no clock, no
// file, no network and no chance.
func TestCoreIsPure(t *testing.T) {
	barred := []string{"os", "net", "net/http", "time", "math/rand", "database/sql", "log", "log/slog"}
	for _, p := range packages(t, "./core/...") {
		for _, i := range p.Imports {
			assert.NotContains(t, barred, i, p.ImportPath)
			if i == "math/rand/v2" {
				assert.Contains(t, []string{"epitrope/core/study", "epitrope/core/prove"}, p.ImportPath, "chance, by a given seed, is for "+
					"studies and proofs alone")
			}
		}
	}
	for _, p := range packages(t, "./internal/...") {
		for _, i := range p.Imports {
			assert.False(t, strings.HasPrefix(i, "epitrope/cmd"), "%s imports %s", p.ImportPath, i)
		}
	}
}

// The same code can answer in a browser.
func TestCoreBuildsForTheBrowser(t *testing.T) {
	cmd := exec.Command("go", "build", "-o", filepath.Join(t.TempDir(), "plan.a"), "./core/plan")
	cmd.Dir = ".."
	cmd.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
}
