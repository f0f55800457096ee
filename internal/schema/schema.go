// Package schema publishes the JSON Schemas of the open formats.
package schema

import (
	"fmt"
	"maps"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/plan"
)

const dialect = "https://json-schema.org/draft/2020-12/schema"

// Job is the schema of the job document, from the table of its fields.
func Job() map[string]any {
	root := object()
	root["$schema"], root["title"] = dialect, "Epitrope job"
	properties(root)["format"] = map[string]any{"const": job.Format}
	properties(root)["version"] = map[string]any{"const": job.Version}
	root["required"] = []string{"format", "version"}
	for _, f := range job.Fields {
		at := root
		keys := strings.Split(f.Path, ".")
		for _, key := range keys[:len(keys)-1] {
			if properties(at)[key] == nil {
				properties(at)[key] = object()
			}
			at = properties(at)[key].(map[string]any)
		}
		properties(at)[keys[len(keys)-1]] = field(f)
	}
	rows(root)
	return root
}

// rows turns what stands for any row of a list into what the schema says of all of them.
func rows(o map[string]any) {
	inner, ok := o["properties"].(map[string]any)
	if !ok {
		return
	}
	if row, ok := inner["*"]; ok {
		delete(inner, "*")
		o["additionalProperties"], o["maxProperties"] = row, job.MostRows
	}
	for _, one := range inner {
		if nested, ok := one.(map[string]any); ok {
			rows(nested)
		}
	}
}

func object() map[string]any {
	return map[string]any{"type": "object", "additionalProperties": false, "properties": map[string]any{}}
}

func properties(o map[string]any) map[string]any { return o["properties"].(map[string]any) }

// field is the schema of one field. A quantity may also be text with its unit.
func field(f job.Field) map[string]any {
	s := map[string]any{"title": f.Label, "description": f.Allowed(1)}
	switch f.Kind {
	case job.Text:
		s["type"], s["maxLength"] = "string", int(f.Max)
	case job.Choice:
		var values []string
		for _, c := range f.Choices {
			values = append(values, c.Value)
		}
		s["enum"] = values
	case job.Level:
		var values []any
		for _, c := range f.Choices {
			v, _ := f.Read(c.Value, 1)
			values = append(values, v)
		}
		s["enum"] = values
	case job.Number:
		high := f.Max
		if f.PerSystem {
			high *= 2
			s["description"] = f.Allowed(1) + "; twice that at 24 V"
		}
		s["anyOf"] = []any{
			map[string]any{"type": "number", "minimum": f.Min, "maximum": high},
			map[string]any{"type": "string", "description": "with a unit"}}
	default:
		s["type"], s["examples"] = "string", []string{f.Example}
	}
	return s
}

// Plan is the schema of the plan, from its Go types.
func Plan() map[string]any {
	registry := huma.NewMapRegistry("#/$defs/", huma.DefaultSchemaNamer)
	root := map[string]any{"$schema": dialect, "title": "Epitrope plan"}
	maps.Copy(root, map[string]any{"$ref": registry.Schema(reflect.TypeFor[plan.Plan](), true, "Plan").Ref})
	defs := map[string]any{}
	for name, s := range registry.Map() {
		defs[name] = s
	}
	root["$defs"] = defs
	return root
}

// Named returns a schema by what it describes. The error names those there are.
func Named(what string) (map[string]any, error) {
	switch what {
	case "job":
		return Job(), nil
	case "plan":
		return Plan(), nil
	}
	return nil, fmt.Errorf("%q has no schema; allowed are job and plan", what)
}
