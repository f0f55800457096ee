package unit

import (
	"fmt"
	"io"
	"math"
	"regexp"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Round rounds half away from zero to a number of decimals.
func Round(v float64, digits int) float64 {
	scale := math.Pow(10, float64(digits))
	r := math.Round(v*scale) / scale
	if r == 0 {
		return 0 // never minus zero
	}
	return r
}

// Text is a value as shown: rounded, with a true minus sign, and its unit.
func Text(v float64, unit string, digits int) string { return text(v, unit, digits, digits) }

// Apart are two values that a sentence holds against each other, with as many digits, up to four, as it takes
// for them to print differently.
func Apart(a, b float64, unit string, digits int) (one, other string) {
	for ; digits < 4 && a != b && Text(a, unit, digits) == Text(b, unit, digits); digits++ {
	}
	return Text(a, unit, digits), Text(b, unit, digits)
}

// Plain is Text without needless zeros: 16, 0.5, 7.5.
func Plain(v float64, unit string, digits int) string { return text(v, unit, digits, -1) }

func text(v float64, unit string, digits, shown int) string {
	figure := strings.Replace(strconv.FormatFloat(Round(v, digits), 'f', shown, 64), "-", "−", 1)
	if unit == "" {
		return figure
	}
	return figure + " " + unit
}

// Three is a value in three figures that mean something, for errors.
func Three(v float64, unit string) string {
	digits := 0
	if v != 0 {
		digits = min(6, max(0, 2-int(math.Floor(math.Log10(math.Abs(v))))))
	}
	return Text(v, unit, digits)
}

// Seconds is a time as shown, with two figures that mean something; +Inf has no end.
func Seconds(s float64) string {
	switch {
	case math.IsInf(s, 1):
		return "no end"
	case s < 1:
		return Text(s, "s", 2)
	case s < 20:
		return Text(s, "s", 1)
	case s < 120:
		return Text(s, "s", 0)
	case s < 2*3600:
		return Text(s/60, "min", 0)
	}
	return Text(s/3600, "h", 0)
}

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

// Say fills a sentence in as fmt.Sprintf does, with numbers written as Text writes them. Two that differ and
// stand in the same unit are written to as many digits as tell them apart.
func Say(sentence string, args ...any) string {
	list := make([]any, len(args))
	for i, arg := range args {
		list[i] = arg
		if v, is := arg.(float64); is {
			list[i] = &number{value: v}
		}
	}
	tellApart(sentence, list)
	return fmt.Sprintf(sentence, list...)
}

// number is a number in a sentence, written to more digits than that asks for where it has to be.
type number struct {
	value float64
	more  int
}

// Format writes it to the digits that the sentence asks for; all that mean something where it
// asks for none.
func (n *number) Format(f fmt.State, verb rune) {
	digits, asked := f.Precision()
	if verb == 'f' && asked {
		_, _ = io.WriteString(f, Text(n.value, "", digits+n.more))
		return
	}
	_, _ = fmt.Fprintf(f, fmt.FormatString(f, verb), n.value)
}

// filled is one place of a sentence that is filled in, with its digits and the unit behind it.
var filled = regexp.MustCompile(`%%|%(?:\.(\d))?[a-z](?: (%%|[^\s.,;:)]+))?`)

// tellApart gives those numbers of a sentence more digits that would else be written alike.
func tellApart(sentence string, args []any) {
	type place struct {
		number *number
		digits int
	}
	seen, at := map[string][]place{}, 0
	for _, m := range filled.FindAllStringSubmatch(sentence, -1) {
		if m[0] == "%%" {
			continue
		}
		if at == len(args) {
			return
		}
		n, is := args[at].(*number)
		at++
		if !is || m[1] == "" || m[2] == "" {
			continue
		}
		p := place{n, int(m[1][0] - '0')}
		for _, other := range seen[m[1]+m[2]] {
			for n.more < 4 && n.value != other.number.value &&
				Text(n.value, "", p.digits+n.more) == Text(other.number.value, "", p.digits+n.more) {
				n.more++
				other.number.more = max(other.number.more, n.more)
			}
		}
		seen[m[1]+m[2]] = append(seen[m[1]+m[2]], p)
	}
}

// Metres is a length of cable as shown: to the decimetre, to the centimetre where it is known to that.
func Metres(m float64) string {
	if Round(m, 1) == Round(m, 2) {
		return Text(m, "m", 1)
	}
	return Text(m, "m", 2)
}
