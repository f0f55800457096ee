package job

import "strings"

// nearest is the known path that a wrong one was most likely meant to be; "" where none is near.
func nearest(path string) string {
	best, least := "", max(2, 1+len(path)/3)
	for _, f := range Fields {
		section, _, _ := strings.Cut(f.Path, ".")
		for _, known := range []string{f.Path, section} {
			if d := distance(path, known, least); d < least {
				best, least = known, d
			}
		}
	}
	return best
}

// distance is how many letters have to change, come or go to make b of a, or most where that is as many.
func distance(a, b string, most int) int {
	if len(a)-len(b) >= most || len(b)-len(a) >= most {
		return most
	}
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i := range len(a) {
		diagonal := row[0]
		row[0] = i + 1
		for j := range len(b) {
			change := diagonal
			if a[i] != b[j] {
				change++
			}
			diagonal = row[j+1]
			row[j+1] = min(change, row[j]+1, row[j+1]+1)
		}
	}
	return row[len(b)]
}
