package battery

// LeastCharge is the least charge, 0 to 1, from which on something holds, found by so many
// halvings; 1 where it never does, 0 where it always does.
func LeastCharge(holds func(soc float64) bool, halvings int) float64 {
	low, high := 0.0, 1.0
	if holds(0) {
		return 0
	}
	for range halvings {
		if mid := (low + high) / 2; holds(mid) {
			high = mid
		} else {
			low = mid
		}
	}
	return high
}
