package modes

// Rules are all judgements of a line of the table.
func Rules() []string {
	var list []string
	for _, j := range judgements {
		list = append(list, j.rule)
	}
	return list
}
