package schema_test

import (
	"bytes"
	"encoding/json"
	"io/fs"
	"os"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/schema"
	"epitrope/testdata"
)

func compile(t *testing.T, what string) *jsonschema.Schema {
	t.Helper()
	s, err := schema.Named(what)
	require.NoError(t, err)
	b, err := json.Marshal(s)
	require.NoError(t, err)
	raw, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("mem:///"+what, raw))
	compiled, err := c.Compile("mem:///" + what)
	require.NoError(t, err)
	return compiled
}

func instance(t *testing.T, b []byte) any {
	t.Helper()
	v, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
	require.NoError(t, err)
	return v
}

// The demo jobs and their plans are what the published schemas say.
func TestDemoJobsMeetTheSchemas(t *testing.T) {
	jobs, plans := compile(t, "job"), compile(t, "plan")
	names, err := fs.Glob(testdata.Demo, "demo/*.json")
	require.NoError(t, err)
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Demo, name)
		require.NoError(t, err)
		assert.NoError(t, jobs.Validate(instance(t, data)), name)
		doc, problems := job.Decode(data)
		require.Empty(t, problems)
		assert.NoError(t, jobs.Validate(instance(t, doc.Encode())), name)
		b, err := json.Marshal(plan.Decide(doc, parts.Stock()))
		require.NoError(t, err)
		assert.NoError(t, plans.Validate(instance(t, b)), name)
	}
}

// What the schema refuses, the reader refuses too.
func TestSchemaAndReaderAgree(t *testing.T) {
	s := compile(t, "job")
	const head = `{"format":"epitrope-job","version":1,`
	for _, text := range []string{head + `"bogus":1}`, head + `"use":{"dailyAh":-3}}`, head + `"vehicle":{"kind":"spaceship"}}`,
		head + `"pins":{"chargerA":33}}`, head + `"title":7}`, `{"format":"other","version":1}`, `{"format":"epitrope-job","version":9}`} {
		assert.Error(t, s.Validate(instance(t, []byte(text))), text)
		_, problems := job.Decode([]byte(text))
		assert.NotEmpty(t, problems, text)
	}
}

// The committed schemas are those of the code; make generate writes them.
func TestPublishedSchemasAreCurrent(t *testing.T) {
	for _, what := range []string{"job", "plan"} {
		s, err := schema.Named(what)
		require.NoError(t, err)
		want, err := json.Marshal(s)
		require.NoError(t, err)
		have, err := os.ReadFile("../../docs/schema/" + what + ".json")
		require.NoError(t, err)
		assert.JSONEq(t, string(want), string(have), "run make generate")
	}
	_, err := schema.Named("van")
	require.EqualError(t, err, `"van" has no schema; allowed are job and plan`)
}
