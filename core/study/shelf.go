package study

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"epitrope/core/battery"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Shelved is a charger of the workshop's parts book held against a job: the job decided with its card. Its
// level is that of the sizing and of what its card says; open where nothing speaks against it, but its card
// leaves something unsaid that decides.
type Shelved struct {
	Key    string     `json:"key"`
	Item   parts.Item `json:"item"`
	Sizing Sizing     `json:"sizing"`
	SeesV  float64    `json:"seesV" doc:"Its input at the hardest state that it charges in; 0 where there is none"`
	Unsaid []string   `json:"unsaid" doc:"What its card does not say, and the plan reckons with in its stead"`
	Comes  string     `json:"comes" doc:"In stock, or when it comes; empty where the book does not say"`
	grave
}

// Shelf is the chargers of a parts book on a job, those that fit first, and of them the cheapest.
type Shelf struct {
	Chargers []Shelved `json:"chargers"`
	Others   []Offered `json:"others" doc:"Relays, contactors, selectors, changeovers, breakers and batteries: of each kind those that fit first"`
	Left     int       `json:"left" doc:"Parts of the book that were not looked at, as there are too many"`
}

// mostShelved are the chargers that are held against a job at once.
const mostShelved = 200

// ShelfOf holds the chargers of a parts book against a job.
func ShelfOf(now *design.Design, items []parts.Item, goOn Progress) Shelf {
	chargers := slices.DeleteFunc(slices.Clone(items), func(i parts.Item) bool { return i.Kind != "charger" || i.RatingA == nil })
	shelf := Shelf{Left: max(0, len(chargers)-mostShelved)}
	chargers = chargers[:len(chargers)-shelf.Left]
	list := make([]Shelved, len(chargers))
	many(len(chargers), goOn, func(i int, _ func() bool) { list[i] = shelved(now, chargers[i]) })
	shelf.Chargers = slices.DeleteFunc(list, func(s Shelved) bool { return s.Key == "" }) // told to stop
	shelf.offer(now, items, goOn)
	slices.SortStableFunc(shelf.Chargers, func(a, b Shelved) int {
		return cmp.Or(cmp.Compare(rank(a.Sizing.Level), rank(b.Sizing.Level)), cmp.Compare(a.Item.Currency, b.Item.Currency),
			cmp.Compare(asks(a.Item), asks(b.Item)), cmp.Compare(a.Key, b.Key))
	})
	return shelf
}

// offer holds the rest of a book against a job.
func (s *Shelf) offer(now *design.Design, items []parts.Item, goOn Progress) {
	others := slices.DeleteFunc(slices.Clone(items), func(i parts.Item) bool { return !offers(i) })
	left := max(0, len(others)-mostShelved)
	others, s.Left = others[:len(others)-left], s.Left+left
	already := map[string]bool{}
	for _, n := range judge.Notes(now) {
		already[n.ID] = true
	}
	list := make([]Offered, len(others))
	many(len(others), goOn, func(i int, _ func() bool) { list[i] = offered(now, already, others[i]) })
	s.Others = slices.DeleteFunc(list, func(o Offered) bool { return o.Key == "" }) // told to stop
	sortOffered(s.Others)
}

func rank(l verdict.Level) int {
	return slices.Index([]verdict.Level{verdict.Good, verdict.Open, verdict.Caution, verdict.Bad}, l)
}

// asks is its price: last where the book has none.
func asks(i parts.Item) float64 {
	if i.Price == nil {
		return 1e9
	}
	return *i.Price
}

func shelved(now *design.Design, item parts.Item) Shelved {
	changes := job.OfPart(item)
	changes["pins.coupling"], changes["pins.chargerCount"], changes["arranged.besideA"] = string(oneCharger(now)), nil, nil
	maps.Copy(changes, told(now, item))
	s := Shelved{Key: item.Key(), Item: item, Unsaid: unsaid(now, item), Comes: comes(item)}
	doc, problems := job.With(now.Doc, changes)
	if len(problems) > 0 { // a book may hold what a card of a job may not
		wrong := problems.Error()
		s.Sizing = Sizing{Label: item.Name, Level: verdict.Bad, Changes: map[string]any{}, Against: []string{wrong}}
		return s
	}
	d := now.With(doc)
	s.Sizing = sizing(item.Name, changes, d, now)
	s.SeesV = unit.Round(d.Hardest().InV, 2)
	s.against(now)
	s.suits(now, d)
	s.stops(d)
	if s.Sizing.Level == verdict.Good && len(s.Unsaid) > 0 {
		s.Sizing.Level = verdict.Open
	}
	return s
}

// against adds what the book says against a charger: its profiles, and that there is none.
func (s *Shelved) against(now *design.Design) {
	has := s.Item.Profiles
	if len(has) > 0 && !slices.Contains(has, now.Facts.Chemistry.ID) {
		names := make([]string, len(has))
		for i, id := range has {
			c, _ := battery.ByID(id) // the book lets no other in
			names[i] = c.Label
		}
		s.is(verdict.Bad, "it has no profile for "+now.Facts.Chemistry.Label+", only for "+strings.Join(names, ", "))
	}
	if s.Item.Stock != nil && *s.Item.Stock < 1 {
		s.is(verdict.Caution, "none in stock")
	}
}

// atTheRun are the columns of a plan that a charger's choice shows in.
var atTheRun = []string{"coupling", "f1", "c1", "c2", "f2"}

// stops adds what the plan with it would stop at, and a fuse that cannot hold what it draws.
func (s *Shelved) stops(d *design.Design) {
	if most := s.Item.MaxFuseA; most != nil && *most < d.Start.Amps {
		s.is(verdict.Bad, "its sheet allows a fuse of "+unit.Plain(*most, "A", 1)+" and it draws "+unit.Text(d.Start.Amps, "A", 0))
	}
	for _, n := range judge.Notes(d) {
		if n.Severity == verdict.Stop && slices.Contains(atTheRun, n.Column) {
			s.is(verdict.Bad, n.Text)
		}
	}
}

// unsaid are what a card does not say and a job turns on, with what is reckoned with instead.
func unsaid(now *design.Design, item parts.Item) []string {
	list, stock := []string{}, item.Card()
	add := func(missing bool, text string) {
		if missing {
			list = append(list, text)
		}
	}
	add(item.CutOutV == nil, "where it stops: "+unit.Text(stock.CutOutV*now.Facts.N, "V", 1)+" reckoned")
	add(item.RestartV == nil, "where it begins again: "+unit.Text(stock.RestartV*now.Facts.N, "V", 1)+" reckoned")
	add(item.MaxAmbientC == nil, "how hot its place may be: "+unit.Text(stock.MaxAmbientC, "°C", 0)+" reckoned")
	add(item.Efficiency == nil, "its efficiency: "+unit.Text(100*stock.EfficiencyLow, "%", 0)+" reckoned at worst")
	add(item.MaxFuseA == nil, "the largest fuse before it: none reckoned")
	add(len(item.Profiles) == 0, "whether it has a profile for "+now.Facts.Chemistry.Label)
	add(len(item.VoltsIn) == 0 && now.Facts.N != 1, "whether it is made for "+unit.Text(now.Facts.SystemV.Value, "V", 0)+" in")
	add(len(item.VoltsOut) == 0 && now.Facts.AuxN != 1, "whether it is made for "+unit.Text(now.Facts.AuxV.Value, "V", 0)+" out")
	add(item.WakesBy == "", "how it knows that the engine runs")
	add(item.Isolated == "", "whether its two minus are joined inside")
	add(item.Terminals == "", "what its cables go on")
	add(item.LargestSize == "" && item.Terminals != "" && item.Terminals != parts.Clamps, "how thick a cable its terminals take")
	add(len(item.Has) == 0 && (sunThrough(now) || now.Facts.Chemistry.Managed()), "what is in it besides")
	return list
}

// comes says when one is at hand.
func comes(item parts.Item) string {
	switch {
	case item.Stock != nil && *item.Stock >= 1:
		return unit.Plain(*item.Stock, "", 0) + " in stock"
	case item.LeadDays != nil:
		return "in " + unit.Plain(*item.LeadDays, "days", 0)
	case item.Stock != nil:
		return "not in stock"
	}
	return ""
}
