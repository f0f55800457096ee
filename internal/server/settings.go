package server

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/unit"
	"epitrope/internal/people"
	"epitrope/internal/said"
	"epitrope/internal/settings"
	"epitrope/internal/store"
)

// KeptSettings are a workshop's settings as they are kept.
type KeptSettings struct {
	Version  int                  `json:"version" doc:"Goes up with every change; 0: nobody chose yet"`
	Settings settings.Preferences `json:"settings"`
}

func (a *api) registerSettings(h huma.API) {
	on(h, people.Look, huma.Operation{OperationID: "getSettings", Method: http.MethodGet, Path: "/api/settings",
		Summary: "The workshop's settings", Errors: []int{503}}, a.getSettings)
	on(h, people.Settings, huma.Operation{OperationID: "putSettings", Method: http.MethodPut, Path: "/api/settings", MaxBodyBytes: maxBody,
		Summary: "Change the workshop's settings, on top of a version", Errors: []int{409, 413, 422, 503}}, a.putSettings)
}

func (a *api) getSettings(ctx context.Context, _ *struct{}) (*body[KeptSettings], error) {
	set, version, err := a.store(ctx).Settings(ctx)
	if err != nil {
		return nil, answer(err)
	}
	return &body[KeptSettings]{KeptSettings{version, set}}, nil
}

func (a *api) putSettings(ctx context.Context, in *struct{ Body KeptSettings }) (*body[KeptSettings], error) {
	if problems := in.Body.Settings.Check(); len(problems) > 0 {
		return nil, inputProblem(problems)
	}
	version, err := a.store(ctx).PutSettings(ctx, in.Body.Settings, in.Body.Version)
	var stale *store.SettingsStale
	if errors.As(err, &stale) {
		return nil, problem(http.StatusConflict, "stale", err.Error()+"; look at them as they are now, and change them again")
	}
	if err != nil {
		return nil, answer(err)
	}
	a.settings.of(ctx).take(in.Body.Settings)
	return &body[KeptSettings]{KeptSettings{version, in.Body.Settings}}, nil
}

// settingsFor is how long settings that were read are taken to hold: another server may have changed them.
const settingsFor = time.Second

// settled are the workshop's settings as they were last read: what is planned at every key does not wait for the database,
// nor does it fail with it.
type settled struct {
	store   *store.Store
	kept    atomic.Pointer[settings.Preferences]
	readAt  atomic.Int64
	reading atomic.Bool
}

// allSettled are those of all workshops that were asked for.
type allSettled struct {
	store *store.Store
	by    sync.Map // by workshop: *settled
}

func newAllSettled(s *store.Store) *allSettled { return &allSettled{store: s} }

// of are the settings of the workshop of who asks.
func (a *allSettled) of(ctx context.Context) *settled {
	if a.store == nil {
		return nil
	}
	workshop := person(ctx).Workshop
	if is, ok := a.by.Load(workshop); ok {
		return is.(*settled)
	}
	is, _ := a.by.LoadOrStore(workshop, &settled{store: a.store.Of(workshop)})
	return is.(*settled)
}

// now are the settings that hold.
func (s *settled) now() settings.Preferences {
	if s == nil || s.store == nil {
		return settings.Usual()
	}
	kept := s.kept.Load()
	if time.Since(time.UnixMilli(s.readAt.Load())) > settingsFor && s.reading.CompareAndSwap(false, true) {
		if kept == nil {
			s.read()
		} else {
			go s.read()
		}
	}
	if kept = s.kept.Load(); kept != nil {
		return *kept
	}
	return settings.Usual()
}

func (s *settled) read() {
	defer s.reading.Store(false)
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Second)
	defer cancel()
	before := s.kept.Load()
	set, _, err := s.store.Settings(ctx)
	if err != nil {
		slog.Warn("the settings could not be read", "error", err)
	} else if s.kept.CompareAndSwap(before, &set) { // unless they were changed meanwhile
		s.readAt.Store(time.Now().UnixMilli())
	}
}

func (s *settled) take(set settings.Preferences) {
	s.kept.Store(&set)
	s.readAt.Store(time.Now().UnixMilli())
}

// unitsHead is the head of a request that asks for other units than the workshop's, as a list of them.
const unitsHead = "Units"

// inUnits writes the words of an answer in the units that were asked for, or the workshop's.
func (a *allSettled) inUnits(ctx huma.Context, _ string, v any) (any, error) {
	units := settings.Usual().Units
	if who(ctx.Context()).known {
		units = a.of(ctx.Context()).now().Units
	}
	usual := units
	if asked := ctx.Header(unitsHead); asked != "" {
		var err error
		if units, err = unit.ParseUnits(asked); err != nil {
			units = usual
		}
	}
	if units.IsMetric() || asTyped[ctx.Operation().OperationID] {
		return v, nil
	}
	return said.Value(v, units, typedIn[ctx.Operation().OperationID]...)
}

// asTyped are the operations that answer with what somebody typed, and typedIn the members of other answers that are.
var (
	asTyped = map[string]bool{"listParts": true, "listModels": true, "getSettings": true, "putSettings": true, "ownWorkshop": true}
	typedIn = map[string][]string{"listJobs": {"title", "customer"}, "due": {"title", "what"}, "week": {"title"}, "openJob": {"title"}}
)
