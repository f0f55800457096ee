package server

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/prove"
	"epitrope/internal/answers"
	"epitrope/internal/instrument"
	"epitrope/internal/people"
)

// MeterAsked is a reading that an instrument is to take.
type MeterAsked struct {
	Document Input  `json:"document"`
	Reading  string `json:"reading" minLength:"1" maxLength:"60"`
	Found    bool   `json:"found,omitempty" doc:"Of the installation that was found, not of the one that is designed"`
	Meter    string `json:"meter" minLength:"1" maxLength:"60" doc:"By its name in the settings: nothing else is reached"`
}

// MeterRead is what an instrument shows.
type MeterRead struct {
	Entry string `json:"entry" doc:"As it would be typed"`
	With  string `json:"with"`
}

func (a *api) registerMeters(h huma.API) {
	on(h, people.Install, huma.Operation{OperationID: "readMeter", Method: http.MethodPost, Path: "/api/meter", MaxBodyBytes: maxBody,
		Summary: "Read an instrument that the settings list", Errors: []int{413, 422, 502, 503}}, a.readMeter)
}

func (a *api) readMeter(ctx context.Context, in *struct{ Body MeterAsked }) (*body[MeterRead], error) {
	doc, _ := job.Decode(in.Body.Document)
	set, _, err := a.store(ctx).Settings(ctx)
	if err != nil {
		return nil, answer(err)
	}
	names := []string{}
	for _, m := range set.Meters {
		names = append(names, m.Name)
	}
	at := slices.Index(names, in.Body.Meter)
	if at < 0 {
		return nil, inputProblem(job.Problems{{Field: "meter", Value: short(in.Body.Meter), Wrong: "is not in the settings",
			Allowed: "one of those that the settings list: " + strings.Join(names, ", ")}})
	}
	doc, _ = answers.Installed(doc, in.Body.Found)
	r, there := prove.Wider(a.designs.of(ctx, doc)).Reading(in.Body.Reading)
	if !there {
		return nil, inputProblem(job.Problems{{Field: "reading", Value: short(in.Body.Reading), Wrong: "is none of this installation's",
			Allowed: "the id of one of its readings"}})
	}
	text, with, err := instrument.Read(ctx, set.Meters[at], r)
	if err != nil {
		return nil, problem(http.StatusBadGateway, "meter", err.Error()+".")
	}
	return &body[MeterRead]{MeterRead{text, with}}, nil
}
