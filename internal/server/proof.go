package server

import (
	"context"
	"io"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/internal/export"
	"epitrope/internal/instrument"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// ProofRecord is all that was entered, photographed and signed on a job.
type ProofRecord struct {
	Entries []ProofEntry   `json:"entries" doc:"In the order in which the server got them: of two readings of one thing the later stands"`
	Refused []RefusedEntry `json:"refused" doc:"What was sent and cannot be kept; all else is"`
	Photos  []Photo        `json:"photos"`
	Signed  []Signed       `json:"signed" doc:"The newest first"`
}

// Proving is a document with what was entered, done and photographed.
type Proving struct {
	Document Input          `json:"document"`
	Entries  []ProofEntry   `json:"entries" maxItems:"5000"`
	Done     []string       `json:"done" maxItems:"1000" doc:"Steps that are ticked, by id"`
	Waiting  []string       `json:"waiting,omitempty" maxItems:"1000" doc:"… of which these wait for a countersignature"`
	Photos   map[string]int `json:"photos" doc:"How many there are, by what they are tied to"`
}

// AskedReading is a reading with where it is taken.
type AskedReading struct {
	prove.Reading
	Where   string        `json:"where" doc:"Where probes or clamp go, in words"`
	Base    string        `json:"base" doc:"What it is expected to be with nothing read before it, in words"`
	Picture prove.Picture `json:"picture"`
}

// Proven is a proof as far as it has come.
type Proven struct {
	Stations []prove.Station    `json:"stations"`
	Readings []AskedReading     `json:"readings" doc:"In the order in which they are taken; the pieces of a stretch behind it"`
	Stops    []string           `json:"stops" doc:"What the plan may not be built with; then there is nothing to read"`
	Unsteady bool               `json:"unsteady" doc:"With the engine running it comes to no stand"`
	Findings prove.Findings     `json:"findings"`
	Wrong    []prove.EntryError `json:"wrong" doc:"Entries that are no readings"`
	Gates    []signoff.Gate     `json:"gates"`
	MayShow  []PhotoOf          `json:"mayShow" doc:"What photographs may be tied to"`
	Steps    map[string]string  `json:"steps" doc:"What its steps are called, by id"`
	Reserved []string           `json:"reserved" doc:"What local rules keep for a licensed person"`
}

// PhotoOf is what a photograph may be tied to.
type PhotoOf struct {
	Tied string `json:"tied"`
	Name string `json:"name"`
}

// mostProving is the largest request about a proof.
const mostProving = maxBody + 2<<20

func (a *api) registerProof(h huma.API) {
	on(h, people.Work, huma.Operation{OperationID: "prove", Method: http.MethodPost, Path: "/api/proof", MaxBodyBytes: mostProving,
		Summary: "What a document's installation is to be read at, what was read means, and which gates are open",
		Errors:  []int{413, 422, 503}}, a.prove)
	on(h, people.Look, huma.Operation{OperationID: "proofRecord", Method: http.MethodGet, Path: "/api/jobs/{id}/proof",
		Summary: "What was read, said, photographed and signed on a job", Errors: []int{404, 410, 503}}, a.proofRecord)
	on(h, people.Install, huma.Operation{OperationID: "addProof", Method: http.MethodPost, Path: "/api/jobs/{id}/proof", MaxBodyBytes: maxBody,
		Summary: "Keep entries of a proof; all of a job come back, and which cannot be kept", Errors: []int{404, 410, 413, 422, 503}}, a.addProof)
	file := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/octet-stream": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	on(h, people.Install, huma.Operation{OperationID: "readProofFile", Method: http.MethodPost, Path: "/api/jobs/{id}/proof/file",
		RequestBody: file,
		Summary:     "Read a file of readings, or a logger's file of one", Errors: []int{404, 410, 413, 422, 503}}, a.readProofFile)
}

// entered are the readings among entries, with what was said at gates.
func entered(entries []ProofEntry) (read []prove.Entry, said []signoff.Said) {
	for _, e := range entries {
		switch e.Kind {
		case store.ReadingEntry:
			read = append(read, prove.Entry{Reading: e.Subject, Text: e.Entry})
		case store.WaiverEntry, store.StatementEntry:
			said = append(said, signoff.Said{Gate: e.Subject, Waives: e.Kind == store.WaiverEntry, By: e.By, Text: e.Entry,
				At: e.At.Format(time.RFC3339), Waits: e.Waits, Countersigned: e.Countersigned})
		}
	}
	return read, said
}

// built is the design of a document as it was built.
func (a *api) built(ctx context.Context, doc job.Document) *design.Design {
	if len(doc.Built) > 0 {
		doc, _ = doc.AsBuilt()
	}
	return a.designs.of(ctx, doc)
}

// proven is how far a proof has come.
func (a *api) proven(d *design.Design, pack export.Pack, entries []ProofEntry, steps, waiting []string, photos map[string]int) Proven {
	p := pack.Proof
	read, said := entered(entries)
	taken, wrong := p.Read(read)
	out := Proven{Stations: p.Stations, Readings: []AskedReading{}, Stops: p.Stops, Unsteady: p.Unsteady, Findings: p.Judge(taken),
		Wrong:    wrong,
		Reserved: signoff.Reserved(d)}
	if out.Stops == nil {
		out.Stops = []string{}
	}
	if out.Stations == nil {
		out.Stations = []prove.Station{}
	}
	out.MayShow, out.Steps = mayShow(d), map[string]string{}
	for _, s := range pack.Steps {
		out.Steps[s.ID] = s.Title
	}
	pictures := p.Pictures()
	for _, r := range p.Readings {
		out.Readings = append(out.Readings, AskedReading{r, r.Where(), p.Expected(r), pictures[r.ID]})
	}
	done := map[string]bool{}
	for _, id := range steps {
		done[id] = true
	}
	stepsWait, readingsWait := map[string]bool{}, map[string]bool{}
	for _, id := range waiting {
		stepsWait[id] = true
	}
	for _, e := range entries { // of two readings of one thing the later stands
		if e.Kind == store.ReadingEntry {
			readingsWait[e.Subject] = e.Waits
		}
	}
	out.Gates = signoff.Gates(d, pack.Steps, signoff.Done{Steps: done, Findings: out.Findings, Photos: photos, Said: said,
		StepsWait: stepsWait, ReadingsWait: readingsWait})
	return out
}

// mayShow is what photographs may be tied to besides steps.
func mayShow(d *design.Design) []PhotoOf {
	list := []PhotoOf{}
	for _, s := range signoff.Shown {
		list = append(list, PhotoOf(s))
	}
	for _, c := range d.System.Components {
		list = append(list, PhotoOf{c.ID, c.Name})
	}
	return list
}

func (a *api) prove(ctx context.Context, in *struct{ Body Proving }) (*body[Proven], error) {
	doc, _ := job.Decode(in.Body.Document) // as the plan does: what can be used of it
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	d := a.built(ctx, doc)
	return &body[Proven]{a.proven(d, export.NewPack(d, own), in.Body.Entries, in.Body.Done, in.Body.Waiting, in.Body.Photos)}, nil
}

// ProofFile is what a file says at a proof.
type ProofFile struct {
	Entries []prove.Entry `json:"entries" doc:"Not kept yet: whoever reads enters them under a name"`
}

// maxProofFile is the largest file of readings, in bytes.
const maxProofFile = 8 << 20

func (a *api) readProofFile(ctx context.Context, in *struct {
	JobPath
	Evidence
	Reading string `query:"reading" maxLength:"60" doc:"The reading that a logger's file is"`
}) (*body[ProofFile], error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	var entries []prove.Entry
	if err := a.readers.take(ctx, func() error {
		data, err := io.ReadAll(http.MaxBytesReader(nil, io.NopCloser(in.body), maxProofFile))
		if err == nil {
			entries, err = instrument.Entries(data, prove.Of(a.built(ctx, j.Doc())), in.Reading)
		}
		return err
	}); err != nil {
		return nil, unread("file", err, "a file with the heads reading and value, or a logger's with time and volts or amps, of at most 8 MB")
	}
	return &body[ProofFile]{ProofFile{entries}}, nil
}

func (a *api) proofRecord(ctx context.Context, in *JobPath) (*body[ProofRecord], error) {
	entries, err := a.store(ctx).Proof(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	stand, err := a.store(ctx).Countersigns(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	out := ProofRecord{Entries: shownEntries(entries, stand), Refused: []RefusedEntry{}, Photos: []Photo{}, Signed: []Signed{}}
	photos, err := a.store(ctx).Photos(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	for _, p := range photos {
		out.Photos = append(out.Photos, photo(p))
	}
	signed, err := a.store(ctx).Signoffs(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	for _, s := range signed {
		out.Signed = append(out.Signed, Signed{s.ID, s.Number, s.Version, s.ByWhom, s.SignedAt.UTC()})
	}
	return &body[ProofRecord]{out}, nil
}
