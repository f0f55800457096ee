package unit

import (
	"fmt"
	"strings"
	"unicode"
)

// Unwritable says whether a character controls what stands around it: what no database keeps, and what turns
// text round. A line's end and a tab do neither.
func Unwritable(r rune) bool {
	switch {
	case r == '\n' || r == '\t':
		return false
	case unicode.IsControl(r):
		return true
	}
	return r >= 0x202a && r <= 0x202e || r >= 0x2066 && r <= 0x2069 || r == 0x200e || r == 0x200f || r == 0xfeff
}

// Written is a text with each character that cannot be written told by its number.
func Written(text string) string {
	if !strings.ContainsFunc(text, Unwritable) {
		return text
	}
	var b strings.Builder
	for _, r := range text {
		if Unwritable(r) {
			fmt.Fprintf(&b, "U+%04X", r)
			continue
		}
		b.WriteRune(r)
	}
	return b.String()
}
