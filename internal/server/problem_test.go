package server

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What the schema's check says comes apart into what is wrong and what is allowed.
func TestSchemaProblemsInWords(t *testing.T) {
	for message, want := range map[string][2]string{
		`expected value to be one of "A4, Letter"`:      {"cannot be used here", "one of A4, Letter"},
		"expected number <= 600":                        {"cannot be used here", "number <= 600"},
		"expected string to be RFC 3339 date":           {"cannot be used here", "RFC 3339 date"},
		"expected length <= 60":                         {"cannot be used here", "length <= 60"},
		"expected required property csv to be present":  {"is not there", "csv has to be there"},
		"unexpected property":                           {"is not a field here", "the fields that the API's document names"},
		"invalid character 'x' looking for a beginning": {"invalid character 'x' looking for a beginning", "what the API's document says"},
	} {
		wrong, allowed := inWords(message)
		assert.Equal(t, want, [2]string{wrong, allowed}, message)
	}
}
