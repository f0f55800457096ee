package working

import (
	"unicode"
	"unicode/utf8"
)

// Kilo is a great current as shown.
func Kilo(amps float64) string { return Text(amps/1000, "kA", 1) }

// Span is hours as people say them, days where there are many.
func Span(h float64) string {
	switch {
	case h < 2:
		return Text(h*60, "min", 0)
	case h < 72:
		return Text(h, "h", 0)
	}
	return Text(h/24, "days", 0)
}

// Capital is a text with a capital first letter.
func Capital(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	if size == 0 {
		return text
	}
	return string(unicode.ToUpper(first)) + text[size:]
}
