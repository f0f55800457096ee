package server

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"time"
	_ "time/tzdata" // places keep their own time where the machine has no book of it

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/alternator"
	"epitrope/core/job"
	"epitrope/internal/instrument"
	"epitrope/internal/people"
	"epitrope/internal/track"
)

// Tracked is a track as a pattern of driving.
type Tracked struct {
	Driving string            `json:"driving" doc:"For the field day.own"`
	Hours   float64           `json:"hours" doc:"That were recorded"`
	Days    []track.DrivenDay `json:"days" doc:"Hours with the engine running by local day; empty where the track has no date"`
	Says    []string          `json:"says" doc:"What was left out or taken some way"`
}

// Tested is what a logged recording says of an alternator.
type Tested struct {
	Judgement alternator.Judgement  `json:"judgement"`
	Proves    alternator.Regulation `json:"proves" enum:"fixed,compensated,variable,unknown" doc:"For the field alternator.regulation; unknown where it proves none"`
}

// The largest file of evidence that is read, in bytes: a fortnight at one point a second; how long it may take
// to come; and how many are read at once, the others waiting.
const (
	maxEvidence   = 96 << 20
	evidenceComes = time.Minute
	readAtOnce    = 2
)

// Evidence is a file that is read as it comes, never all at once.
type Evidence struct{ body io.Reader }

// Resolve takes the file over from the request.
func (e *Evidence) Resolve(ctx huma.Context) []error {
	_ = ctx.SetReadDeadline(time.Now().Add(evidenceComes)) // not every connection has one
	e.body = http.MaxBytesReader(nil, io.NopCloser(ctx.BodyReader()), maxEvidence)
	return nil
}

func (a *api) registerEvidence(h huma.API) {
	binary := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/octet-stream": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	on(h, people.Work, huma.Operation{OperationID: "readTrack", Method: http.MethodPost, Path: "/api/track", RequestBody: binary,
		Summary: "Read a GPX track, or a table of time and speed or rpm, as a pattern of driving", Errors: []int{413, 422}}, a.readTrack)
	on(h, people.Work, huma.Operation{OperationID: "testRegulation", Method: http.MethodPost, Path: "/api/regulation", RequestBody: binary,
		Summary: "Judge a logged recording of the start battery: how its alternator is regulated", Errors: []int{413, 422}},
		a.testRegulation)
}

// unread is what is answered for a file that cannot be read.
func unread(field string, err error, allowed string) error {
	var large *http.MaxBytesError
	if errors.As(err, &large) {
		return problem(http.StatusRequestEntityTooLarge, "input", fmt.Sprintf("The file is larger than %d MB.", maxEvidence>>20))
	}
	return inputProblem(job.Problems{{Field: field, Wrong: err.Error(), Allowed: allowed}})
}

func (a *api) readTrack(ctx context.Context, in *struct {
	Evidence
	Zone string `query:"zone" maxLength:"60" doc:"The time zone of the days, such as Europe/Berlin; UTC where none is named"`
}) (*body[Tracked], error) {
	place, err := time.LoadLocation(in.Zone)
	if err != nil {
		return nil, inputProblem(job.Problems{{Field: "zone", Value: short(in.Zone), Wrong: "is no time zone",
			Allowed: "a name of the time-zone database, such as Europe/Berlin"}})
	}
	var got track.Read
	if err := a.readers.take(ctx, func() (err error) { got, err = track.File(in.body); return err }); err != nil {
		return nil, unread("track", err, "GPX with time, or a table with time and speed or rpm")
	}
	says := got.Says
	if says == nil {
		says = []string{}
	}
	return &body[Tracked]{Tracked{Driving: got.Pattern.String(), Hours: got.Seconds / 3600, Days: got.Days(place), Says: says}}, nil
}

func (a *api) testRegulation(ctx context.Context, in *struct{ Evidence }) (*body[Tested], error) {
	var j alternator.Judgement
	err := a.readers.take(ctx, func() error {
		recording, err := instrument.Log(in.body)
		if err != nil {
			return err
		}
		j, err = alternator.Classify(recording.Readings)
		j.Taken = append(append([]string{}, recording.Says...), j.Taken...)
		return err
	})
	if err != nil {
		return nil, unread("log", err, "a table with a line of heads: time and volts, and rpm or speed where there are")
	}
	return &body[Tested]{Tested{Judgement: j, Proves: j.Proves()}}, nil
}
