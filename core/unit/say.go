package unit

import (
	"slices"
	"strconv"
	"strings"
	"unicode"
)

// Say writes every quantity of a text of the core's in the system's units: "2.3 m" as
// "7 ft 7 in", "−20 to 60 °C" as "−4 to 140 °F". A figure keeps about the precision that it was
// written with, so that a round limit stays round; names (M8, 16 mm², 6 mm auto) and units over
// others (mV/K) stay.
func (s Units) Say(text string) string {
	if s.IsMetric() {
		return text
	}
	units := s.written()
	var out strings.Builder
	kept := 0 // what is written so far ends here
	for i := 0; i < len(text); {
		if c := text[i]; c < '0' || c > '9' {
			i++
			continue
		}
		q, end := quantityAt(text, i, units)
		if q != "" {
			out.WriteString(text[kept:signedFrom(text, i)])
			out.WriteString(q)
			kept = end
		}
		i = end
	}
	if kept == 0 {
		return text
	}
	out.WriteString(text[kept:])
	return out.String()
}

// quantityAt writes the quantity whose digits begin at i, and says where it ends; an empty text is none.
func quantityAt(text string, i int, units []written) (string, int) {
	first, decimals, end := figureAt(text, i)
	if !freeBefore(text, signedFrom(text, i)) {
		return "", end
	}
	figures, places, between, last := []float64{first * sign(text, i)}, []int{decimals}, []string{}, end
	for _, word := range []string{" to ", "–", " of ", " × ", " and "} {
		rest, found := strings.CutPrefix(text[end:], word)
		if !found || word == " and " && !strings.HasSuffix(text[:signedFrom(text, i)], "between ") {
			continue
		}
		at := len(text) - len(rest)
		at += len(rest) - len(strings.TrimLeft(rest, "−-"))
		if at < len(text) && text[at] >= '0' && text[at] <= '9' {
			second, d, e := figureAt(text, at)
			figures, places, between, last = append(figures, second*sign(text, at)), append(places, d), append(between, word), e
		}
		break
	}
	w, after := unitAt(text, last, units)
	if w == nil || w.write == nil || len(between) > 0 && between[0] == " × " && !strings.HasSuffix(w.unit, "m") {
		return "", end
	}
	var out strings.Builder
	name := ""
	for k, v := range figures {
		figure, unit := w.write(v, places[k])
		if figure == "" {
			return "", end
		}
		if k > 0 {
			if name != unit || strings.Contains(figure, " ") || strings.Contains(out.String(), " ") {
				out.WriteString(" " + name)
			}
			out.WriteString(between[k-1])
		}
		out.WriteString(figure)
		name = unit
	}
	return out.String() + " " + name, after
}

// figureAt reads the figure that begins at i, with how many decimals it has and where it ends.
func figureAt(text string, i int) (v float64, decimals, end int) {
	end = i
	point := -1
	for ; end < len(text); end++ {
		c := text[end]
		if c == '.' && point < 0 && end+1 < len(text) && text[end+1] >= '0' && text[end+1] <= '9' {
			point = end
		} else if c < '0' || c > '9' {
			break
		}
	}
	if point >= 0 {
		decimals = end - point - 1
	}
	v, _ = strconv.ParseFloat(text[i:end], 64)
	return v, decimals, end
}

// signedFrom is where the figure whose digits begin at i begins with its sign.
func signedFrom(text string, i int) int {
	for _, minus := range []string{"−", "-"} {
		if from := i - len(minus); strings.HasSuffix(text[:i], minus) && freeBefore(text, from) {
			return from
		}
	}
	return i
}

func sign(text string, i int) float64 {
	if strings.HasSuffix(text[:i], "−") || signedFrom(text, i) < i {
		return -1
	}
	return 1
}

// freeBefore says whether a figure may begin at i: not within a name, a date or another figure.
func freeBefore(text string, i int) bool {
	return i == 0 || strings.ContainsRune(" (\n\"“=≤≥<>±~,:", rune(text[i-1])) || strings.HasSuffix(text[:i], "\u00a0") ||
		slices.ContainsFunc([]string{"±", "≤", "≥", "“", "×", "≈", "–"}, func(p string) bool { return strings.HasSuffix(text[:i], p) })
}

// unitAt is the unit behind a figure that ends at i, and where that ends.
func unitAt(text string, i int, units []written) (*written, int) {
	rest, found := strings.CutPrefix(text[i:], " ")
	if !found {
		if rest, found = strings.CutPrefix(text[i:], "\u00a0"); !found {
			return nil, i
		}
	}
	for k := range units {
		after, is := strings.CutPrefix(rest, units[k].unit)
		if !is {
			continue
		}
		if !unitEnds(after) {
			return nil, i
		}
		return &units[k], len(text) - len(after)
	}
	return nil, i
}

// unitEnds says whether a unit ends before what follows: it is not over another, not in a name.
func unitEnds(after string) bool {
	if strings.HasPrefix(after, " auto") {
		return false
	}
	for _, r := range after {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) && !strings.ContainsRune("/·²³", r)
	}
	return true
}
