package network

import (
	"math"
	"slices"
)

// matrix is the conductances of the equations G·x = i, taken apart into triangles. The
// order in which its rows are eliminated is chosen once, the row with the fewest
// neighbours first, so that a circuit that is one long run costs little more than its
// length; what is nowhere joined is never touched. The diagonal is what is divided by:
// it outweighs its row wherever every node has a way to ground.
type matrix struct {
	n     int
	place []int   // by unknown (1 to n): its place in the order
	later [][]int // by place: the places after it that it meets while eliminating
	base  []float64
	lu    []float64
	y     []float64
}

// newMatrix makes room for n unknowns, of which pairs meet.
func newMatrix(n int, pairs [][2]int) *matrix {
	m := &matrix{n: n, place: make([]int, n+1), later: make([][]int, n), base: make([]float64, n*n), lu: make([]float64, n*n),
		y: make([]float64, n)}
	meets := make([]bool, n*n)
	for _, p := range pairs {
		if p[0] > 0 && p[1] > 0 && p[0] != p[1] {
			meets[(p[0]-1)*n+p[1]-1], meets[(p[1]-1)*n+p[0]-1] = true, true
		}
	}
	degree := make([]int, n)
	for i := range n {
		for j := range n {
			if meets[i*n+j] {
				degree[i]++
			}
		}
	}
	room := make([]int, 0, 4*n)
	for at := range n {
		best := -1
		for i := range n {
			if degree[i] >= 0 && (best < 0 || degree[i] < degree[best]) {
				best = i
			}
		}
		begin := len(room)
		for j := range n {
			if degree[j] >= 0 && j != best && meets[best*n+j] {
				room = append(room, j)
			}
		}
		list := room[begin:len(room):len(room)]
		m.place[best+1], m.later[at], degree[best] = at, list, -1
		for _, a := range list {
			degree[a]--
			for _, b := range list {
				if a != b && !meets[a*n+b] {
					meets[a*n+b] = true
					degree[a]++
				}
			}
		}
	}
	for at := range m.later {
		for i, unknown := range m.later[at] {
			m.later[at][i] = m.place[unknown+1]
		}
		slices.Sort(m.later[at])
	}
	return m
}

// add puts a conductance into an entry of some values, by unknowns; 0 is ground and has
// none.
func (m *matrix) add(to []float64, row, column int, s float64) {
	if row > 0 && column > 0 {
		to[m.place[row]*m.n+m.place[column]] += s
	}
}

// between joins two unknowns by a conductance.
func (m *matrix) between(to []float64, a, b int, s float64) {
	m.add(to, a, a, s)
	m.add(to, b, b, s)
	m.add(to, a, b, -s)
	m.add(to, b, a, -s)
}

// factor takes the matrix apart. It returns the place at which nothing sets a voltage,
// or −1.
func (m *matrix) factor() int {
	n := m.n
	for k := range n {
		top := m.lu[k*n : k*n+n]
		pivot := top[k]
		if math.Abs(pivot) < 1e-14 || math.IsNaN(pivot) {
			return k
		}
		later := m.later[k]
		inverse := 1 / pivot
		for _, i := range later {
			row := m.lu[i*n : i*n+n]
			if row[k] == 0 {
				continue
			}
			f := row[k] * inverse
			row[k] = f
			for _, j := range later {
				row[j] -= f * top[j]
			}
		}
	}
	return -1
}

// solve finds the voltages that currents into the unknowns raise; x[0] stays ground.
func (m *matrix) solve(i, x []float64) {
	n := m.n
	for u := 1; u <= n; u++ {
		m.y[m.place[u]] = i[u]
	}
	for k := range n {
		if m.y[k] == 0 {
			continue
		}
		for _, r := range m.later[k] {
			m.y[r] -= m.lu[r*n+k] * m.y[k]
		}
	}
	for k := n - 1; k >= 0; k-- {
		sum := m.y[k]
		row := m.lu[k*n : k*n+n]
		for _, c := range m.later[k] {
			sum -= row[c] * m.y[c]
		}
		m.y[k] = sum / row[k]
	}
	x[0] = 0
	for u := 1; u <= n; u++ {
		x[u] = m.y[m.place[u]]
	}
}
