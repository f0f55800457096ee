package plan_test

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/plan"
)

// kept checks that all that was stored still stands where it stood, whatever came beside it.
func kept(t *testing.T, at string, stored, now any) {
	t.Helper()
	switch stored := stored.(type) {
	case map[string]any:
		is, ok := now.(map[string]any)
		require.True(t, ok, at)
		for key, value := range stored {
			kept(t, at+"."+key, value, is[key])
		}
	case []any:
		is, ok := now.([]any)
		require.True(t, ok && len(is) == len(stored), at)
		for i, value := range stored {
			kept(t, fmt.Sprintf("%s[%d]", at, i), value, is[i])
		}
	default:
		assert.Equal(t, stored, now, at)
	}
}

func plain(t *testing.T, text []byte) (v any) {
	t.Helper()
	require.NoError(t, json.Unmarshal(text, &v))
	return v
}

// Every version of a document that was ever written is read for ever: what was issued stays
// as it was issued. A new version needs a file of its own here.
func TestEveryVersionIsRead(t *testing.T) {
	for version := 1; version <= plan.Version; version++ {
		stored, err := os.ReadFile(fmt.Sprintf("../../testdata/versions/plan-%d.json", version))
		require.NoError(t, err)
		p, err := plan.Read(stored)
		require.NoError(t, err)
		assert.Equal(t, version, p.Version)
		again, err := json.Marshal(p)
		require.NoError(t, err)
		kept(t, fmt.Sprint("version ", version), plain(t, stored), plain(t, again))
	}
	for version := 1; version <= job.Version; version++ {
		stored, err := os.ReadFile(fmt.Sprintf("../../testdata/versions/job-%d.json", version))
		require.NoError(t, err)
		doc, problems := job.Decode(stored)
		require.Empty(t, problems)
		kept(t, fmt.Sprint("version ", version), plain(t, stored), plain(t, doc.Encode()))
	}
}
