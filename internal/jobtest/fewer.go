package jobtest

import "os"

// Fewer is how many are tried: in the long tests of make check, and in the usual run.
func Fewer(long, usual int) int {
	if os.Getenv("EPITROPE_CHECK") == "all" {
		return long
	}
	return usual
}
