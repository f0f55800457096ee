package job

import "epitrope/core/working"

// Question is what is asked above the section, in working order.
type Question struct {
	ID      string   `json:"id"`
	Ask     string   `json:"ask"`
	Fields  []string `json:"fields" doc:"Paths that answer it"`
	First   bool     `json:"first" doc:"One of the six that give a first full plan"`
	Settled bool     `json:"settled"`
}

var questions = []Question{
	{ID: "vehicle", Ask: "What kind of vehicle?", Fields: []string{"vehicle.kind"}, First: true},
	{ID: "label", Ask: "What does the alternator's label say?", Fields: []string{"alternator.label"}, First: true},
	{ID: "battery", Ask: "Which auxiliary battery?", Fields: []string{"aux.chemistry", "aux.capacityAh"}, First: true},
	{ID: "place", Ask: "Where does the aux battery sit?", Fields: []string{"aux.place"}, First: true},
	{ID: "use", Ask: "How much is used in a day?", Fields: []string{"use.dailyAh"}, First: true},
	{ID: "driven", Ask: "How many hours a day is the vehicle driven?", Fields: []string{"use.drivenHours"}, First: true},
	{ID: "regulation", Ask: "How is the alternator regulated?", Fields: []string{"alternator.regulation"}},
	{ID: "known", Ask: "How is the regulation known?", Fields: []string{"alternator.knownBy"}},
	{ID: "start-route", Ask: "How long is the route from the start battery to the coupling?", Fields: []string{"routes.startM"}},
	{ID: "aux-route", Ask: "How long is the route from the coupling to the aux battery?", Fields: []string{"routes.auxM"}},
	{ID: "earth", Ask: "How long is the negative lead to its earth point?", Fields: []string{"routes.earthM"}},
	{ID: "trigger-route", Ask: "How long is the route from the feed point to the coupling?", Fields: []string{"routes.triggerM"}},
	{ID: "load", Ask: "What does the vehicle itself take, lamps and blower on?", Fields: []string{"vehicle.loadA"}},
	{ID: "volts", Ask: "At what voltage does the alternator charge, warm, at cruise?", Fields: []string{"alternator.volts"}},
	{ID: "start-battery", Ask: "How big is the start battery?", Fields: []string{"startBattery.capacityAh"}},
	{ID: "start-bay", Ask: "How hot does it get along the start run?", Fields: []string{"bays.startC"}},
	{ID: "aux-bay", Ask: "How hot does it get at the aux battery?", Fields: []string{"bays.auxC"}},
	{ID: "start-lay", Ask: "How is the start run laid?", Fields: []string{"bays.startLay"}},
	{ID: "aux-lay", Ask: "How is the aux run laid?", Fields: []string{"bays.auxLay"}},
	{ID: "crank", Ask: "What does the starter take?", Fields: []string{"startBattery.crankA"}},
	{ID: "reels", Ask: "Which cable is on the reels?", Fields: []string{"cable.system", "cable.insulation"}},
}

// Questions lists what is asked of this job, and what of it is settled.
func (f Facts) Questions() []Question {
	open := map[string]bool{}
	for _, fact := range f.List {
		open[fact.Path] = fact.Origin == working.Assumed
	}
	list := make([]Question, 0, len(questions))
	for _, q := range questions {
		if q.ID == "known" && f.Regulation != "fixed" && f.Regulation != "compensated" {
			continue // nothing turns on how an unsteady one is known
		}
		if q.ID == "trigger-route" && !f.Coupling.Signal() {
			continue
		}
		q.Settled = true
		for _, path := range q.Fields {
			q.Settled = q.Settled && !open[path]
		}
		list = append(list, q)
	}
	return list
}
