package protect

// studs are the bolts of each family's fuses. Source: from memory; the part's sheet wins.
var studs = map[string]string{Strip30.ID: "M5", Strip51.ID: "M8", Bolt.ID: "M8", Ceramic.ID: "M8", Breaker.ID: "M6", AutoBreaker.ID: "M6"}

// lugMost is the thickest cable, in mm², that lugs for a stud are sold for. Source: from memory.
var lugMost = map[string]float64{"M5": 35, "M6": 70, "M8": 120, "M10": 150}

// LugMost is the thickest cable, in mm², that lugs for a stud are sold for; 0 for what is no stud.
func LugMost(stud string) float64 { return lugMost[stud] }

// Stud is the bolt that a cable's lug goes on, "" where there is none.
func (f Family) Stud() string { return studs[f.ID] }

// Bolting are those of families on whose studs a cable of mm2 is bolted; all of them where it goes on none.
func Bolting(families []Family, mm2 float64) []Family {
	list := []Family{}
	for _, f := range families {
		if most, bolted := lugMost[f.Stud()]; !bolted || mm2 <= most {
			list = append(list, f)
		}
	}
	if len(list) == 0 {
		return families
	}
	return list
}
