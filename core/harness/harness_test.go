package harness

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/system"
)

func wireByNumber(t testing.TB, list []Lead, number string) Lead {
	t.Helper()
	for _, w := range list {
		if w.Number == number {
			return w
		}
	}
	t.Fatalf("no wire %s", number)
	return Lead{}
}

// Every wire of the demo van: numbered, coloured, with its ends, and long enough.
func TestWires(t *testing.T) {
	s := systems(t)["6-mobile-vet.json"]
	list := Leads(&s, UsualScheme)
	c1 := wireByNumber(t, list, "C1")
	assert.Equal(t, "red", c1.Colour)
	assert.Equal(t, "tube lug 16 mm², M5", c1.From.Lug, "the fuse's stud")
	assert.Equal(t, "ferrule 16 mm²", c1.To.Lug, "the charger's cage clamp")
	assert.InDelta(t, 5.35, c1.CutM, 0.051, "5.25 m and 50 mm at each end, to the next 50 mm")
	assert.Positive(t, c1.Hole, "it passes the bulkhead")
	assert.Contains(t, c1.From.Label, "to DC-DC 30")
	assert.Equal(t, "black", wireByNumber(t, list, "N1").Colour)
	assert.Equal(t, "violet", wireByNumber(t, list, "T1B").Colour)
	assert.Zero(t, wireByNumber(t, list, "C1A").Hole)
	seen := map[string]bool{}
	for name, s := range systems(t) {
		numbers := map[string]bool{}
		for _, w := range Leads(&s, UsualScheme) {
			assert.False(t, numbers[w.Number], "%s: %s twice", name, w.Number)
			numbers[w.Number] = true
			assert.GreaterOrEqual(t, w.CutM, w.RouteM+2*endM-1e-9, "%s %s", name, w.Number)
			assert.NotEmpty(t, w.From.Name, "%s %s", name, w.Number)
			assert.NotEmpty(t, w.To.Name, "%s %s", name, w.Number)
			assert.GreaterOrEqual(t, w.Sleeve, 3.0)
			seen[w.Colour] = true
		}
	}
	assert.Len(t, seen, 4, "red, black, violet, orange")
}

// The parts list is the wire list summed, for every job.
func TestPartsListIsTheWireListSummed(t *testing.T) {
	for name, s := range systems(t) {
		wires := Leads(&s, UsualScheme)
		list := PartsList(&s, wires, nil, CutList(wires, nil))
		metres, ends := 0.0, 0.0
		for _, w := range wires {
			metres += w.CutM * float64(w.Cables)
			ends += 2 * float64(w.Cables)
		}
		fuses, holders, ratings, batteries, plugs := 0, 0, map[string]bool{}, 0, 0
		for _, c := range s.Components {
			switch d := c.Device.(type) {
			case system.Fuse:
				fuses++
				if d.Family.Resets == protect.Never {
					holders, ratings[c.Rating] = holders+1, true
				}
			case system.Bank, system.Member:
				if !c.Existing {
					batteries++
				}
			case system.Plug:
				plugs++
			}
		}
		gotM, gotEnds, gotFuses, gotSpares, gotHolders, gotDown, gotPlugs := 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0
		for _, l := range list.Lines {
			assert.Positive(t, l.Count, "%s: %s", name, l.What)
			assert.Equal(t, l.Count, l.Order, "%s: nothing is there", name)
			switch l.Kind {
			case "cable":
				gotM += l.Count
			case "connector":
				gotEnds += l.Count
			case "plug":
				gotPlugs += l.Count
			case "fuse":
				if strings.HasSuffix(l.What, "spare") {
					gotSpares += l.Count
				} else {
					gotFuses += l.Count
				}
			case "other":
				if strings.HasPrefix(l.What, "hold-down") {
					gotDown += l.Count
				}
			case "holder":
				gotHolders += l.Count
			}
		}
		assert.InDelta(t, metres, gotM, 1e-6, name)
		assert.InDelta(t, ends, gotEnds, 1e-9, name)
		assert.InDelta(t, float64(fuses), gotFuses, 1e-9, name)
		assert.InDelta(t, float64(holders), gotHolders, 1e-9, name)
		assert.InDelta(t, float64(len(ratings)), gotSpares, 1e-9, "%s: one spare of each rating", name)
		assert.InDelta(t, float64(batteries), gotDown, 1e-9, name)
		assert.InDelta(t, 2*float64(plugs), gotPlugs, 1e-9, "%s: a plug and its mate", name)
		assert.Equal(t, len(list.Lines), list.Unpriced, name)
	}
}

func figure(v float64) *float64 { return &v }

// The wires of a run stand in the order in which the current goes through them.
func TestLeadsFollowTheCurrent(t *testing.T) {
	for name, want := range map[string]string{"09-join-through-sixty.json": "C1A C1 C2 C2C N2 N1 K1A K1B T1B S1A S1B S1C G2",
		"3-sound-recordist.json": "C1A C1 C2 Q1A C2C H1A H1 H1B N1 G1 H1N"} {
		s := systems(t)[name]
		var got []string
		for _, l := range Leads(&s, UsualScheme) {
			got = append(got, l.Number)
		}
		assert.Equal(t, want, strings.Join(got, " "), name)
	}
}

// A kit is held against what of its parts is priced one by one; bought, it is a line of its
// own, and they are neither paid nor ordered.
func TestKitAgainstLooseParts(t *testing.T) {
	s := systems(t)["6-mobile-vet.json"]
	wires := Leads(&s, UsualScheme)
	book := []parts.Item{
		{Kind: "kit", Name: "Own kit", RatingA: figure(40), Price: figure(350), Currency: "EUR"},
		{Kind: "kit", Name: "Dearer kit", RatingA: figure(40), Price: figure(500), Currency: "EUR"},
		{Kind: "kit", Name: "For another charger", RatingA: figure(25), Price: figure(200), Currency: "EUR"},
		{Kind: "kit", Name: "Without a price", RatingA: figure(40)},
		{Kind: "charger", Name: "Own box", RatingA: figure(40), Price: figure(300), Currency: "EUR"},
		{Kind: "cable", Name: "16 mm² red", Size: "16 mm²", Price: figure(10), Currency: "EUR"},
		{Kind: "other", Name: "printed label", Price: figure(0.5), Currency: "EUR"},
	}
	list := PartsList(&s, wires, book, CutList(wires, nil))
	require.Len(t, list.Kits, 2)
	red := 0.0
	for _, w := range wires {
		if w.Size == "16 mm²" && w.Colour == "red" {
			red += 10 * w.CutM
		}
	}
	require.NotNil(t, list.Kits[0].Loose)
	assert.InDelta(t, 300+red, *list.Kits[0].Loose, 0.005)
	assert.Positive(t, list.Kits[0].Unpriced)
	assert.Contains(t, list.Kits[0].Says, "more, and ", "%.2f and more against 350", 300+red)
	assert.Contains(t, list.Kits[1].Says, "those with a price cost")
	kit := list.AsKit()
	require.Equal(t, "Own kit", kit.Lines[0].What)
	labels := 0.5 * 2 * float64(len(wires))
	assert.Equal(t, []Sum{{"EUR", math.Round(100*(350+labels)) / 100}}, kit.Sums)
	for _, l := range kit.Lines[1:] {
		assert.False(t, l.InKit && (l.Order != 0 || l.Sum != nil || l.Price != nil || l.Currency != "" || l.PricedOn != ""), l.What)
	}
	assert.Len(t, list.Lines, len(kit.Lines)-1, "the list itself stays")
	assert.NotNil(t, list.Lines[0].Sum)
}

// exhaustive is the least new cable there can be, in mm, by trying every way.
func exhaustive(lengths []int, room []int) int {
	if len(lengths) == 0 {
		return 0
	}
	best := lengths[0] + exhaustive(lengths[1:], room)
	for i := range room {
		if room[i] >= lengths[0] {
			room[i] -= lengths[0]
			best = min(best, exhaustive(lengths[1:], room))
			room[i] += lengths[0]
		}
	}
	return best
}

// Small lists are cut as well as can be; every list is feasible.
func TestCutListAgainstTheOptimum(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 4))
	for round := range 300 {
		var wires []Lead
		var pieces []Piece
		var lengths, room []int
		for i := range 2 + chance.IntN(6) {
			m := float64(200+50*chance.IntN(60)) / 1000
			wires = append(wires, Lead{Number: fmt.Sprintf("C%d", i), Size: "16 mm²", Colour: "red", CutM: m, Cables: 1})
			lengths = append(lengths, int(math.Round(m*1000)))
		}
		for i := range chance.IntN(4) {
			m := float64(300+10*chance.IntN(500)) / 1000
			pieces = append(pieces, Piece{Name: fmt.Sprintf("offcut %d", i), Size: "16 mm²", LengthM: m})
			room = append(room, int(math.Round(m*1000)))
		}
		list := CutList(wires, pieces)
		fresh := feasible(t, wires, list)
		assert.InDelta(t, float64(exhaustive(lengths, room))/1000, fresh, 1e-6, "round %d", round)
	}
}

// feasible checks that every wire is cut once, from a piece that holds it, and returns the
// new cable.
func feasible(t *testing.T, wires []Lead, list []Cut) (fresh float64) {
	t.Helper()
	cut := map[string]float64{}
	for _, c := range list {
		sum := 0.0
		for _, f := range c.Cuts {
			cut[f.Wire] += f.LengthM
			sum += f.LengthM
		}
		if c.From == "" {
			fresh += c.LengthM
			assert.InDelta(t, sum, c.LengthM, 1e-6)
			continue
		}
		assert.InDelta(t, c.LengthM-sum, c.LeftM, 1e-3)
		assert.GreaterOrEqual(t, c.LeftM, -1e-6, c.From)
	}
	for _, w := range wires {
		assert.InDelta(t, w.CutM*float64(w.Cables), cut[w.Number], 1e-6, w.Number)
	}
	return fresh
}

// A long list is still cut, within 5 % of what could be at best: what does not fit on the
// pieces at all is new.
func TestLongCutList(t *testing.T) {
	var wires []Lead
	var pieces []Piece
	total := 0.0
	for i := range 40 {
		m := 0.35 + 0.05*float64(i%23)
		wires = append(wires, Lead{Number: fmt.Sprintf("C%d", i), Size: "2 × 16 mm²", each: "16 mm²", Colour: "red", CutM: m, Cables: 2})
		total += 2 * m
	}
	for i := range 12 {
		pieces = append(pieces, Piece{Name: fmt.Sprintf("p%d", i), Size: "16 mm²", Colour: "red", LengthM: 3.1 + 0.17*float64(i)})
		total -= 3.1 + 0.17*float64(i)
	}
	pieces = append(pieces, Piece{Name: "other", Size: "25 mm²", LengthM: 50},
		Piece{Name: "black", Size: "16 mm²", Colour: "black", LengthM: 50})
	list := CutList(wires, pieces)
	fresh := feasible(t, wires, list)
	assert.LessOrEqual(t, fresh, 1.05*math.Max(total, 1), "at best %.2f m", total)
	for _, c := range list {
		assert.False(t, strings.HasPrefix(c.From, "other") || c.From == "black")
	}
}
