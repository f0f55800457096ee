package harness

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"epitrope/core/parts"
)

// Piece is cable that is there: an offcut, or what is left on a reel.
type Piece struct {
	Name    string  `json:"name"`
	Size    string  `json:"size"`
	Colour  string  `json:"colour" doc:"Empty: of any colour"`
	LengthM float64 `json:"lengthM"`
}

// Pieces are the cables of the workshop's book as pieces to cut from: as long as there is
// stock, of the colour that their name says.
func Pieces(book []parts.Item, s Scheme) []Piece {
	var list []Piece
	for _, i := range book {
		if i.Kind != "cable" || i.Stock == nil || *i.Stock <= 0 {
			continue
		}
		p := Piece{Name: i.Name, Size: i.Size, LengthM: *i.Stock}
		for _, colour := range []string{s.Feed, s.Return, s.Signal, s.House} {
			if slices.Contains(strings.Fields(strings.ToLower(i.Name)), strings.ToLower(colour)) {
				p.Colour = colour
			}
		}
		list = append(list, p)
	}
	return list
}

// Cut is one piece of cable with what is cut from it, in turn.
type Cut struct {
	From    string   `json:"from" doc:"Name of the piece; empty for new cable"`
	Size    string   `json:"size"`
	Colour  string   `json:"colour"`
	LengthM float64  `json:"lengthM" doc:"Of the piece; of new cable, what is cut from it"`
	Cuts    []CutFor `json:"cuts"`
	LeftM   float64  `json:"leftM"`
}

// CutFor is a length to be cut, marked with its wire.
type CutFor struct {
	Wire    string  `json:"wire"`
	LengthM float64 `json:"lengthM"`
}

// mostTries is how many ways of cutting one kind of cable are tried before the best that
// was found holds.
const mostTries = 60_000

// CutList cuts the wires from pieces that are there, so that as little new cable as can be
// is needed, and then so that what is left over comes in as long a piece as can be. Wires
// come in any order, pieces in theirs. Small lists are cut best of all ways; long ones as
// well as so many tries find.
func CutList(wires []Lead, pieces []Piece) []Cut {
	type kind struct{ size, colour string }
	var kinds []kind
	need := map[kind][]CutFor{}
	for _, w := range wires {
		k := kind{w.one(), w.Colour}
		if _, ok := need[k]; !ok {
			kinds = append(kinds, k)
		}
		for range w.Cables {
			need[k] = append(need[k], CutFor{w.Number, w.CutM})
		}
	}
	list := []Cut{}
	taken := make([]bool, len(pieces))
	for _, k := range kinds {
		var have []int
		for i, p := range pieces {
			if !taken[i] && p.Size == k.size && (p.Colour == "" || p.Colour == k.colour) {
				have = append(have, i)
			}
		}
		list = append(list, cutKind(k.size, k.colour, need[k], pieces, have, taken)...)
	}
	return list
}

const mm = 1000

// cutKind cuts one size and colour.
func cutKind(size, colour string, need []CutFor, pieces []Piece, have []int, taken []bool) []Cut {
	slices.SortStableFunc(need, func(a, b CutFor) int { return cmp.Compare(b.LengthM, a.LengthM) })
	room := make([]int, len(have))
	for i, p := range have {
		room[i] = int(math.Floor(pieces[p].LengthM*mm + 1e-6))
	}
	lengths := make([]int, len(need))
	for i, n := range need {
		lengths[i] = int(math.Round(n.LengthM * mm))
	}
	at := assign(lengths, room)
	var list []Cut
	for i, p := range have {
		c := Cut{From: pieces[p].Name, Size: size, Colour: colour, LengthM: pieces[p].LengthM, LeftM: pieces[p].LengthM}
		for j, n := range need {
			if at[j] == i {
				c.Cuts = append(c.Cuts, n)
				c.LeftM -= n.LengthM
			}
		}
		if len(c.Cuts) > 0 {
			taken[p] = true
			c.LeftM = math.Round(c.LeftM*mm) / mm
			list = append(list, c)
		}
	}
	fresh := Cut{Size: size, Colour: colour}
	for j, n := range need {
		if at[j] < 0 {
			fresh.Cuts = append(fresh.Cuts, n)
			fresh.LengthM += n.LengthM
		}
	}
	if len(fresh.Cuts) > 0 {
		fresh.LengthM = math.Round(fresh.LengthM*mm) / mm
		list = append(list, fresh)
	}
	return list
}

// assign says from which piece each length is cut, −1 from new cable: so that least is new,
// and, of those ways, that the squares of what is left over are largest, as one long piece is
// of more use than two short ones. Lengths come longest first.
func assign(lengths, room []int) []int {
	s := search{lengths: lengths, room: slices.Clone(room), at: make([]int, len(lengths)), tries: mostTries}
	s.rest = make([]int, len(lengths)+1)
	for i := len(lengths) - 1; i >= 0; i-- {
		s.rest[i] = s.rest[i+1] + lengths[i]
	}
	s.bestNew = math.MaxInt
	s.from(0, 0)
	return s.best
}

// search goes through the ways of cutting, the longest first, each from the tightest piece
// that holds it first.
type search struct {
	lengths, room, at, best []int
	rest                    []int // of the lengths from here on
	bestNew                 int
	bestLeft                float64
	tries                   int
}

func (s *search) from(i, fresh int) {
	if s.best != nil && s.tries <= 0 {
		return
	}
	s.tries--
	if i == len(s.lengths) {
		left := 0.0
		for _, r := range s.room {
			left += float64(r) * float64(r)
		}
		if fresh < s.bestNew || fresh == s.bestNew && left > s.bestLeft {
			s.best, s.bestNew, s.bestLeft = slices.Clone(s.at), fresh, left
		}
		return
	}
	total := 0
	for _, r := range s.room {
		total += r
	}
	if fresh+max(0, s.rest[i]-total) > s.bestNew {
		return // not even if all that is left were used to the last
	}
	order := make([]int, 0, len(s.room))
	for p, r := range s.room {
		if r >= s.lengths[i] && !slices.ContainsFunc(order, func(o int) bool { return s.room[o] == r }) {
			order = append(order, p)
		}
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(s.room[a], s.room[b]) })
	for _, p := range order {
		s.room[p] -= s.lengths[i]
		s.at[i] = p
		s.from(i+1, fresh)
		s.room[p] += s.lengths[i]
	}
	s.at[i] = -1
	s.from(i+1, fresh+s.lengths[i])
}
