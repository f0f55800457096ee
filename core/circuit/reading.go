package circuit

// Had is a reading of an element or a node that this installation need not have: none
// there, none read.
func Had(value float64, err error) float64 {
	if err != nil {
		return 0
	}
	return value
}
