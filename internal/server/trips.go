package server

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/trip"
	"epitrope/internal/instrument"
	"epitrope/internal/people"
)

func (a *api) registerTrips(h huma.API) {
	binary := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		"application/octet-stream": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	on(h, people.Look, huma.Operation{OperationID: "judgeTrip", Method: http.MethodPost, Path: "/api/jobs/{id}/trip", MaxBodyBytes: maxBody,
		Summary: "What a drive brought, held against what was proven", Errors: []int{404, 410, 413, 422, 503}}, a.judgeTrip)
	on(h, people.Look, huma.Operation{OperationID: "readTrip", Method: http.MethodPost, Path: "/api/jobs/{id}/trip/file",
		RequestBody: binary,
		Summary:     "Read a monitor's file of a drive", Errors: []int{404, 410, 413, 422, 503}}, a.readTrip)
}

func (a *api) judgeTrip(ctx context.Context, in *struct {
	JobPath
	Body trip.Drive
}) (*body[trip.Brought], error) {
	if field, wrong := in.Body.Check(); field != "" {
		return nil, inputProblem(job.Problems{{Field: field, Wrong: wrong,
			Allowed: "hours driven, and what the monitor said before and after"}})
	}
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	signed, err := a.store(ctx).Signoffs(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	provenA := 0.0
	if len(signed) > 0 {
		var f frozen
		if err := json.Unmarshal(signed[0].Frozen, &f); err != nil {
			return nil, err
		}
		provenA = f.Signed.Values()["charge"]
	}
	return &body[trip.Brought]{trip.Of(a.built(ctx, j.Doc()), in.Body, provenA)}, nil
}

func (a *api) readTrip(ctx context.Context, in *struct {
	JobPath
	Evidence
}) (*body[trip.Drive], error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	var drive trip.Drive
	if err := a.readers.take(ctx, func() (err error) {
		drive, err = instrument.Trip(in.body, a.built(ctx, j.Doc()).Facts.AuxAh.Value)
		return err
	}); err != nil {
		return nil, unread("log", err, "a table with a line of heads: time, and charge in % or amps into the battery")
	}
	return &body[trip.Drive]{drive}, nil
}
