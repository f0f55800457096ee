package server

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/people"
)

// Board is what the jobs of the workshop wait for.
type Board struct {
	Stages []BoardStage `json:"stages" doc:"In the order in which a foreman looks: complaints first, what waits for nothing last"`
}

// BoardStage is one thing that jobs wait for.
type BoardStage struct {
	Stage string     `json:"stage" enum:"complaint,signature,reading,part,bay,answer,done"`
	Count int        `json:"count"`
	Jobs  []BoardJob `json:"jobs" doc:"Those that were saved last; of what waits for nothing none"`
}

// BoardJob is a job on the board.
type BoardJob struct {
	ID       string     `json:"id"`
	Number   int64      `json:"number"`
	Title    string     `json:"title"`
	Customer string     `json:"customer,omitempty"`
	Vehicle  string     `json:"vehicle,omitempty"`
	Severity string     `json:"severity" enum:"stop,caution,remark,none"`
	Settled  string     `json:"settled,omitempty"`
	SavedAt  time.Time  `json:"savedAt"`
	Says     string     `json:"says,omitempty" doc:"A complaint's words, or an open question's"`
	At       *time.Time `json:"at,omitempty" doc:"When that was said, or the last reading was taken"`
	Bay      string     `json:"bay,omitempty"`
	Due      string     `json:"due,omitempty" doc:"The day in its bay"`
	Some     int        `json:"some" doc:"Readings that were taken, or parts that are to come"`
	Of       int        `json:"of" doc:"… of so many; 0 where nobody has worked that out"`
}

func (a *api) registerBoard(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "board", Method: http.MethodGet, Path: "/api/board",
		Summary: "What the jobs of the workshop wait for", Errors: []int{503}}, a.board)
}

func (a *api) board(ctx context.Context, _ *struct{}) (*body[Board], error) {
	list, err := a.store(ctx).Board(ctx)
	if err != nil {
		return nil, answer(err)
	}
	out := Board{Stages: []BoardStage{}}
	for _, j := range list {
		if n := len(out.Stages); n == 0 || out.Stages[n-1].Stage != j.Stage {
			out.Stages = append(out.Stages, BoardStage{j.Stage, j.Count, []BoardJob{}})
		}
		if j.ID == "" {
			continue
		}
		of := &out.Stages[len(out.Stages)-1]
		of.Jobs = append(of.Jobs, BoardJob{ID: j.ID, Number: j.Number, Title: j.Title, Customer: j.Customer, Vehicle: j.Vehicle,
			Severity: j.Severity, Settled: j.Settled, SavedAt: j.SavedAt.UTC(), Says: j.Says, At: j.At, Bay: j.Bay, Due: j.Due,
			Some: j.Read, Of: j.Of})
	}
	return &body[Board]{out}, nil
}
