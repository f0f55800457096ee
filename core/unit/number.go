package unit

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Unclear is a number that may be read two ways.
type Unclear struct{ Text, One, Other string }

func (e *Unclear) Error() string { return fmt.Sprintf("%q %s", e.Text, e.Wrong()) }

// Wrong says what is wrong, without the text itself.
func (e *Unclear) Wrong() string {
	return fmt.Sprintf("may be %s or %s: write which", e.One, e.Other)
}

// grouped are thousands set apart by blanks, as in “1 200”.
var grouped = regexp.MustCompile(`(^|[^\d.,])(\d{1,3})((?:[ \x{00a0}\x{202f}]\d{3})+)($|[^\d])`)

// ungroup takes blanks out of numbers that are written in groups.
func ungroup(text string) string {
	return grouped.ReplaceAllStringFunc(text, func(s string) string {
		m := grouped.FindStringSubmatch(s)
		return m[1] + m[2] + strings.NewReplacer(" ", "", "\u00a0", "", "\u202f", "").Replace(m[3]) + m[4]
	})
}

// digits are a sign, and digits with points and commas among them.
var digits = regexp.MustCompile(`^[-+−]?[\d.,]*\d[\d.,]*$`)

// Number reads a number as people write it: with a decimal point or comma, or thousands in groups. It returns an
// *Unclear where it may be read two ways, as “1,200” may. The result is finite.
func Number(text string) (float64, error) {
	refuse := fmt.Errorf("%q is not a number", clip(text))
	if len(text) > longest || !digits.MatchString(text) {
		return 0, refuse
	}
	plain := strings.Replace(text, "−", "-", 1)
	comma, point := strings.Count(plain, ","), strings.Count(plain, ".")
	switch {
	case comma > 0 && point > 0: // the last one is the decimal mark
		group, mark := ",", "."
		if strings.LastIndex(plain, ",") > strings.LastIndex(plain, ".") {
			group, mark = mark, group
		}
		whole, part, _ := strings.Cut(plain, mark)
		if strings.Contains(part, mark) || strings.Contains(part, group) || !inThrees(whole, group) {
			return 0, refuse
		}
		plain = strings.ReplaceAll(whole, group, "") + "." + part
	case comma > 1 || point > 1:
		group := map[bool]string{true: ",", false: "."}[comma > 1]
		if !inThrees(plain, group) {
			return 0, refuse
		}
		plain = strings.ReplaceAll(plain, group, "")
	case comma == 1:
		whole, part, _ := strings.Cut(plain, ",")
		plain = whole + "." + part
		if inThrees(text, ",") && strings.Trim(whole, "+-0") != "" {
			return 0, &Unclear{Text: clip(text), One: whole + part, Other: strings.TrimRight(plain, "0")}
		}
	}
	v, err := strconv.ParseFloat(plain, 64)
	if err != nil || math.IsInf(v, 0) || math.IsNaN(v) {
		return 0, refuse
	}
	return v, nil
}

// inThrees says whether digits are in groups of three, the first of one to three.
func inThrees(text, group string) bool {
	parts := strings.Split(strings.TrimLeft(text, "+-−"), group)
	for i, p := range parts {
		if i == 0 && (p == "" || len(p) > 3) || i > 0 && len(p) != 3 {
			return false
		}
	}
	return true
}
