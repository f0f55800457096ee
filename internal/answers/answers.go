// Package answers is what a document comes to, as screens ask for it: one and the same on the server and on a device that is away
// from it. It knows no database and no network; what the workshop has of its own is handed to it.
package answers

import (
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/study"
	"epitrope/internal/pack"
)

// Planned is a document as read, what could not be used of it, and its plan.
type Planned struct {
	Document job.Document  `json:"document" doc:"As read: only what can be used"`
	Problems []job.Problem `json:"problems"`
	Plan     plan.Plan     `json:"plan"`
}

// Plan plans a document as it was sent; decide decides it.
func Plan(sent []byte, decide func(job.Document) *design.Design) Planned {
	doc, problems := Read(sent)
	return Planned{doc, problems, plan.Of(decide(doc))}
}

// Read is what can be used of a document as it was sent, and what cannot.
func Read(sent []byte) (job.Document, job.Problems) {
	doc, problems := job.Decode(sent)
	if problems == nil {
		problems = job.Problems{}
	}
	return doc, problems
}

// AsBuilt is a document as it was built.
func AsBuilt(doc job.Document) job.Document {
	if len(doc.Built) > 0 {
		doc, _ = doc.AsBuilt()
	}
	return doc
}

// PlaceChoice is a place that a kind of vehicle has.
type PlaceChoice struct {
	Kind  string `json:"kind"`
	Value string `json:"value"`
	Label string `json:"label"`
}

// Vocabulary is what a screen needs to ask the questions.
type Vocabulary struct {
	Fields []job.Field   `json:"fields"`
	Places []PlaceChoice `json:"places"`
}

// Words are the fields of a job and what they take.
func Words() Vocabulary {
	v := Vocabulary{Places: []PlaceChoice{}}
	for _, f := range job.Fields {
		if f.Choices == nil {
			f.Choices = []job.Option{}
		}
		v.Fields = append(v.Fields, f)
	}
	for _, b := range job.Bodies {
		for _, p := range b.Places {
			v.Places = append(v.Places, PlaceChoice{b.Kind, p.ID, p.Label})
		}
	}
	return v
}

// Judged is every coupling on a document, the trade's disagreements, and the charger's
// size, each with what it comes to in the circuit. Through time a coupling is run when it
// is asked for.
type Judged struct {
	Methods []study.Consequence `json:"methods"`
	Schools []study.School      `json:"schools"`
	Sizings []study.Sizing      `json:"sizings"`
}

// Prices are the workshop's own.
func Prices(own pack.Workshop) *study.Prices {
	return &study.Prices{Book: own.Parts, Currency: own.Settings.Currency, HourlyRate: own.Settings.HourlyRate, Pace: own.Pace}
}

// Judge holds every coupling, school and charger against a design; prices may be nil.
func Judge(d *design.Design, prices *study.Prices) Judged {
	j := Judged{study.Consequences(d), study.Schools(d), study.Sizings(d)}
	if prices != nil {
		prices.Methods(d, j.Methods)
		prices.Schools(d, j.Schools)
	}
	return j
}

// Tried is a design run through its days.
type Tried struct {
	Problems []job.Problem `json:"problems" doc:"What could not be used of the document"`
	Trial    study.Trial   `json:"trial"`
}

// Decider decides documents with the cards of a book, under a workshop's habits, and keeps the last.
func Decider(habits parts.Habits) func(job.Document) *design.Design {
	book := parts.Stock()
	book.Habits = habits
	var kept *design.Design
	var of string
	return func(doc job.Document) *design.Design {
		if digest := doc.Digest(); kept == nil || digest != of {
			kept, of = design.Of(doc, book), digest
		}
		return kept
	}
}
