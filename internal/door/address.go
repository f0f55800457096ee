package door

import (
	"regexp"
	"strings"
	"unicode"

	"golang.org/x/text/runes"
	"golang.org/x/text/transform"
	"golang.org/x/text/unicode/norm"
)

// address is what a workshop's sign-in name looks like.
var address = regexp.MustCompile(`^[a-z0-9][a-z0-9-]{0,39}$`)

var between = regexp.MustCompile(`[^a-z0-9]+`)

// mostAddress is how long it may be.
const mostAddress = 40

// addressOf makes a sign-in name of a workshop's name.
func addressOf(name string) string {
	plain, _, err := transform.String(transform.Chain(norm.NFD, runes.Remove(runes.In(unicode.Mn)), norm.NFC), strings.ToLower(name))
	if err != nil {
		plain = name
	}
	out := strings.Trim(between.ReplaceAllString(plain, "-"), "-")
	if len(out) > mostAddress {
		out = strings.TrimRight(out[:mostAddress], "-")
	}
	if out == "" {
		return "workshop"
	}
	return out
}
