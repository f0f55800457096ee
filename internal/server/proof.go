package server

import (
	"context"
	"io"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/prove"
	"epitrope/internal/answers"
	"epitrope/internal/instrument"
	"epitrope/internal/pack"
	"epitrope/internal/people"
)

// ProofRecord is all that was entered, photographed and signed on a job.
type ProofRecord struct {
	Entries []answers.ProofEntry `json:"entries" doc:"In the order in which the server got them: of two readings of one thing the later stands"`
	Refused []RefusedEntry       `json:"refused" doc:"What was sent and cannot be kept; all else is"`
	Photos  []Photo              `json:"photos"`
	Signed  []Signed             `json:"signed" doc:"The newest first"`
}

// Proving is a document with what was entered, done and photographed.
type Proving struct {
	Document Input `json:"document"`
	answers.Entered
}

// mostProving is the largest request about a proof.
const mostProving = maxBody + 2<<20

func (a *api) registerProof(h huma.API) {
	on(h, people.Work, huma.Operation{OperationID: "prove", Method: http.MethodPost, Path: "/api/proof", MaxBodyBytes: mostProving,
		Summary: "What a document's installation is to be read at, what was read means, and which gates are open",
		Errors:  []int{413, 422, 503}}, a.prove)
	on(h, people.Look, huma.Operation{OperationID: "proofRecord", Method: http.MethodGet, Path: "/api/jobs/{id}/proof",
		Summary: "What was read, said, photographed and signed on a job", Errors: []int{404, 410, 503}}, a.proofRecord)
	on(h, people.Install, huma.Operation{OperationID: "addProof", Method: http.MethodPost, Path: "/api/jobs/{id}/proof",
		MaxBodyBytes: maxBody,
		Summary:      "Keep entries of a proof; all of a job come back, and which cannot be kept", Errors: []int{404, 410, 413, 422, 503}},
		a.addProof)
	file := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/octet-stream": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	on(h, people.Install, huma.Operation{OperationID: "readProofFile", Method: http.MethodPost, Path: "/api/jobs/{id}/proof/file",
		RequestBody: file,
		Summary:     "Read a file of readings, or a logger's file of one", Errors: []int{404, 410, 413, 422, 503}}, a.readProofFile)
}

// built is the design of a document as it was built.
func (a *api) built(ctx context.Context, doc job.Document) *design.Design {
	return a.designs.of(ctx, answers.AsBuilt(doc))
}

func (a *api) prove(ctx context.Context, in *struct{ Body Proving }) (*body[answers.Proven], error) {
	doc, _ := job.Decode(in.Body.Document) // as the plan does: what can be used of it
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	d := a.built(ctx, doc)
	return &body[answers.Proven]{answers.Prove(d, pack.New(d, own), in.Body.Entered)}, nil
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
	Traced  bool   `query:"traced" doc:"While a fault is traced: every reading that may be asked for, not the proof's alone"`
	Found   bool   `query:"found" doc:"Of the installation that was found, not of the one that is designed"`
}) (*body[ProofFile], error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	var entries []prove.Entry
	if err := a.readers.take(ctx, func() error {
		data, err := io.ReadAll(http.MaxBytesReader(nil, io.NopCloser(in.body), maxProofFile))
		if err == nil {
			doc, _ := answers.Installed(j.Doc(), in.Found)
			list := prove.Of
			if in.Traced {
				list = prove.Wider
			}
			entries, err = instrument.Entries(data, list(a.designs.of(ctx, doc)), in.Reading)
		}
		return err
	}); err != nil {
		return nil, unread("file", err,
			"a file with the heads reading and value, or a logger's with time and volts or amps, of at most 8 MB")
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
