package server

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/core/unit"
	"epitrope/internal/export"
	"epitrope/internal/instrument"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// ProofEntry is a reading as it was entered, or what was said at a gate or of a trip.
type ProofEntry struct {
	ID      string    `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Kind    string    `json:"kind" enum:"reading,waiver,statement,trip"`
	Subject string    `json:"subject" minLength:"1" maxLength:"60" doc:"The reading, or the gate"`
	Entry   string    `json:"entry" minLength:"1" maxLength:"500" doc:"As it was entered: “12.61 V”; the reason; what was done"`
	By      string    `json:"by" maxLength:"60" doc:"As the server knows them: what is sent here is not read"`
	Person  string    `json:"person,omitempty" doc:"Who entered it, by id; otherwise who sends it"`
	With    string    `json:"with,omitempty" maxLength:"120" doc:"The meter, or the file"`
	State   string    `json:"state,omitempty" maxLength:"300" doc:"Of the vehicle then"`
	At      time.Time `json:"at" doc:"By the clock of whoever read it; it decides nothing"`

	Waits         bool   `json:"waits,omitempty" doc:"For a countersignature; what is sent here is not read"`
	Countersigned string `json:"countersigned,omitempty" doc:"Who stands for it; what is sent here is not read"`
}

// SentEntry is an entry as sent: one that cannot be used keeps none of the others from being kept.
type SentEntry json.RawMessage

// UnmarshalJSON keeps the bytes as they came.
func (e *SentEntry) UnmarshalJSON(b []byte) error {
	*e = append((*e)[:0], b...)
	return nil
}

// Schema describes it to the API's document.
func (SentEntry) Schema(_ huma.Registry) *huma.Schema {
	return &huma.Schema{Description: "A ProofEntry; one that is none is refused alone"}
}

// RefusedEntry is an entry that cannot be kept.
type RefusedEntry struct {
	ID       string        `json:"id"`
	Problems []job.Problem `json:"problems"`
}

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
	waits := map[string]bool{}
	for _, id := range waiting {
		waits[id] = true
	}
	for _, e := range entries { // of two readings of one thing the later stands
		if e.Kind == store.ReadingEntry {
			waits[e.Subject] = e.Waits
		}
	}
	out.Gates = signoff.Gates(d, pack.Steps, signoff.Done{Steps: done, Findings: out.Findings, Photos: photos, Said: said, Waiting: waits})
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

// read reads an entry as sent.
func (e SentEntry) read() (out ProofEntry, problems job.Problems) {
	refuse := func(field string, value any, wrong, allowed string) {
		problems = append(problems, job.Problem{Field: field, Value: short(value), Wrong: wrong, Allowed: allowed})
	}
	if err := json.Unmarshal(e, &out); err != nil {
		refuse("", string(e), "is no entry", "an object with id, kind, subject, entry and at")
		return out, problems
	}
	if len(out.ID) != uuidLength || uuid.Validate(out.ID) != nil {
		refuse("id", out.ID, "is no identifier", "a UUID")
	}
	kinds := []string{store.ReadingEntry, store.WaiverEntry, store.StatementEntry, store.TripEntry}
	if !slices.Contains(kinds, out.Kind) {
		refuse("kind", out.Kind, "is not known", "one of "+strings.Join(kinds, ", "))
	}
	text := func(field, value string, least, most int) {
		if n := utf8.RuneCountInString(strings.TrimSpace(value)); n < least || utf8.RuneCountInString(value) > most {
			refuse(field, value, fmt.Sprintf("has %d characters", n), fmt.Sprintf("%d to %d", least, most))
		}
		if strings.ContainsFunc(value, unit.Unwritable) {
			refuse(field, value, "holds characters that no page shows as they are", "text")
		}
	}
	text("subject", out.Subject, 1, 60)
	text("entry", out.Entry, 1, 500)
	text("with", out.With, 0, 120)
	text("state", out.State, 0, 300)
	if out.At.Year() < 2000 || out.At.Year() > 9999 {
		refuse("at", out.At.Format(time.RFC3339), "is no time of such work", "a time from the year 2000 on")
	}
	return out, problems
}

func (a *api) addProof(ctx context.Context, in *struct {
	JobPath
	Body []SentEntry `maxItems:"500"`
}) (*body[ProofRecord], error) {
	entries, refused := []store.ProofEntry{}, []RefusedEntry{}
	for _, sent := range in.Body {
		e, problems := sent.read()
		if len(problems) > 0 {
			refused = append(refused, RefusedEntry{e.ID, problems})
			continue
		}
		by, why, err := a.authorOf(ctx, e.Person)
		if err != nil {
			return nil, answer(err)
		}
		if why != "" {
			refused = append(refused, RefusedEntry{e.ID, notTheirs(e.Person, why)})
			continue
		}
		entries = append(entries, store.ProofEntry{ID: strings.ToLower(e.ID), Kind: e.Kind, Subject: e.Subject, Entry: e.Entry, ByWhom: by.Name,
			PersonID: by.column, Awaits: by.Role.Waits() && e.Kind != store.TripEntry, WithWhat: e.With, State: e.State, TakenAt: e.At})
	}
	if err := a.store(ctx).AddProof(ctx, in.ID, entries); err != nil {
		return nil, answer(err)
	}
	out, err := a.proofRecord(ctx, &in.JobPath)
	if err == nil {
		out.Body.Refused = refused
	}
	return out, err
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

func shownEntries(entries []store.ProofEntry, stand map[string]store.Countersign) []ProofEntry {
	out := make([]ProofEntry, len(entries))
	for i, e := range entries {
		by := stand[e.ID].ByWhom
		out[i] = ProofEntry{ID: e.ID, Kind: e.Kind, Subject: e.Subject, Entry: e.Entry, By: e.ByWhom, With: e.WithWhat, State: e.State, At: e.TakenAt.UTC(),
			Waits: e.Awaits && by == "", Countersigned: by}
	}
	return out
}
