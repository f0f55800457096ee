package procedure

import (
	"math"
	"slices"

	"epitrope/core/harness"
	"epitrope/core/unit"
)

// A workshop's day. Source: common practice, no source.
const (
	FirstHour = 8.0
	DayHours  = 7.5
)

// Slot is when a step is done, in the bay's own days.
type Slot struct {
	Step string  `json:"step"`
	Day  int     `json:"day" doc:"Counted from 1"`
	From float64 `json:"from" doc:"Hour of the day"`
	To   float64 `json:"to"`
}

// Wait is a part that is not there, and the first step that needs it.
type Wait struct {
	Part  string  `json:"part"`
	Order float64 `json:"order"`
	Unit  string  `json:"unit"`
	Step  string  `json:"step" doc:"Empty where no step names it"`
	Title string  `json:"title"`
}

// Schedule lays steps out over days of so many hours: in their order, each in one piece
// unless it is longer than a day.
func Schedule(list []Step, firstHour, dayHours float64) []Slot {
	out := make([]Slot, len(list))
	day, at := 1, 0.0
	for i, s := range list {
		h := s.Minutes / 60
		if at+h > dayHours+1e-9 && at > 0 {
			day, at = day+1, 0
		}
		out[i] = Slot{Step: s.ID, Day: day, From: unit.Round(firstHour+at, 2), To: unit.Round(firstHour+at+h, 2)}
		at += h
		for at > dayHours {
			day, at = day+1, at-dayHours
		}
	}
	return out
}

// Days is how many days of the bay the steps take; 0 for none.
func Days(slots []Slot) int {
	most := 0
	for _, s := range slots {
		most = max(most, s.Day)
	}
	return most
}

// Waits are the parts that have to be ordered, each with the first step that needs it.
func Waits(list []Step, leads []harness.Lead, needed harness.List) []Wait {
	wires := map[string]bool{}
	for _, w := range leads {
		wires[w.ID] = true
	}
	steps := func(id string) []string {
		if wires[id] {
			return []string{"hole-" + id, "lay-" + id, "end-" + id}
		}
		return []string{"fit-" + id}
	}
	out := []Wait{}
	for _, l := range needed.Lines {
		if l.Order <= 0 {
			continue
		}
		wait := Wait{Part: l.What, Order: l.Order, Unit: l.Unit}
		first := math.MaxInt
		for _, of := range l.Of {
			for _, id := range steps(of) {
				if at := slices.IndexFunc(list, func(s Step) bool { return s.ID == id }); at >= 0 && at < first {
					first, wait.Step, wait.Title = at, id, list[at].Title
				}
			}
		}
		out = append(out, wait)
	}
	return out
}

// BeforeTrades are the steps that have to be done before others close floor and walls.
func BeforeTrades(list []Step) []string {
	ids := []string{}
	for _, s := range list {
		if s.Stage == Lay || s.ID == "hold-cover" {
			ids = append(ids, s.ID)
		}
	}
	return ids
}
