package network

// Balance returns the current left over at every node, in A, and the power left
// over in the whole circuit, in W: both are zero in a solution. Power is what all
// elements together give to the nodes; nothing is lost between them.
func Balance(c *Circuit, s Solution) (into []float64, power float64) {
	e := equations{n: len(c.names), off: s.Off}
	e.g = make([]float64, (e.n-1)*(e.n-1))
	e.i = make([]float64, e.n-1)
	into = make([]float64, e.n)
	for i, element := range c.Elements {
		e.reset()
		element.stamp(&e, s.Volts, s.modes[i])
		for row := range e.n - 1 {
			amps := e.i[row]
			for column := range e.n - 1 {
				amps -= e.g[row*(e.n-1)+column] * s.Volts[column+1]
			}
			into[row+1] += amps
			power += amps * s.Volts[row+1]
		}
	}
	return into, power
}
