package answers

import (
	"encoding/json"
	"fmt"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/study"
	"epitrope/core/trace"
	"epitrope/core/unit"
	"epitrope/internal/pack"
	"epitrope/internal/said"
)

// Device answers on a device that is away from the server. It is not for two at once.
type Device struct {
	own    pack.Workshop
	decide func(job.Document) *design.Design
}

// NewDevice is a device with what the workshop has of its own.
func NewDevice(own pack.Workshop) *Device {
	return &Device{own, Decider(own.Settings.Stands())}
}

// Question is a question to the API, as a page asks it.
type Question struct {
	Path  string  `json:"path" doc:"/api/plan …"`
	From  float64 `json:"from,omitempty" doc:"Of a trial: where its window begins, in s"`
	To    float64 `json:"to,omitempty"`
	Units string  `json:"units,omitempty" doc:"As the head Units; otherwise the workshop's"`
	Today string  `json:"today" doc:"The day where the device is, as YYYY-MM-DD"`
}

// ErrElsewhere is a question that only the server answers.
var ErrElsewhere = fmt.Errorf("only the server answers this")

// methods is the path before the coupling that a document is driven with.
const methods = "/api/methods/"

// Answer answers a question about what was sent, as JSON: to the last character what the server answers. Its error is job.Problems
// where what was sent cannot be used.
func (d *Device) Answer(q Question, sent []byte) ([]byte, error) {
	value, err := d.value(q, sent)
	if err != nil {
		return nil, err
	}
	out, err := json.Marshal(value)
	if err != nil {
		return nil, err
	}
	units := d.own.Settings.Units
	if q.Units != "" {
		if asked, err := unit.ParseUnits(q.Units); err == nil {
			units = asked
		}
	}
	return said.JSON(out, units), nil
}

func (d *Device) value(q Question, sent []byte) (any, error) {
	goOn := func() bool { return false }
	now := func() *design.Design {
		doc, _ := job.Decode(sent) // what can be used of it
		return d.decide(doc)
	}
	switch q.Path {
	case "/api/vocabulary":
		return Words(), nil
	case "/api/plan":
		return Plan(sent, d.decide), nil
	case "/api/methods":
		return Judge(now(), Prices(d.own)), nil
	case "/api/modes":
		return modes.Of(now()), nil
	case "/api/moves":
		return study.Moves(now()), nil
	case "/api/built":
		return study.BuiltOf(now()), nil
	case "/api/retrofit":
		return study.RetrofitOf(now(), goOn), nil
	case "/api/shelf":
		return study.ShelfOf(now(), d.own.Parts, func(int, int) bool { return true }), nil
	case "/api/trial":
		doc, problems := Read(sent)
		return Tried{problems, study.Try(d.decide(doc), study.Window{FromS: q.From, ToS: q.To}, goOn)}, nil
	case "/api/dates":
		return Dates(now(), q.Today), nil
	case "/api/make":
		return Make(pack.New(now(), d.own)), nil
	case "/api/proof":
		return d.proof(sent)
	case "/api/trace":
		return d.trace(sent)
	}
	if kind, is := strings.CutPrefix(q.Path, methods); is {
		for _, k := range coupling.Kinds() {
			if string(k) == kind {
				return study.Drive(now(), k, goOn), nil
			}
		}
	}
	return nil, ErrElsewhere
}

func (d *Device) proof(sent []byte) (any, error) {
	var in struct {
		Document json.RawMessage `json:"document"`
		Entered
	}
	if err := json.Unmarshal(sent, &in); err != nil {
		return nil, err
	}
	doc, _ := job.Decode(in.Document)
	built := d.decide(AsBuilt(doc))
	return Prove(built, pack.New(built, d.own), in.Entered), nil
}

func (d *Device) trace(sent []byte) (any, error) {
	var in struct {
		Document json.RawMessage `json:"document"`
		Evidence trace.Evidence  `json:"evidence"`
		Found    bool            `json:"found"`
	}
	if err := json.Unmarshal(sent, &in); err != nil {
		return nil, err
	}
	doc, _ := job.Decode(in.Document)
	doc, missing := Installed(doc, in.Found)
	return TraceFault(d.decide(doc), missing, in.Evidence), nil
}
