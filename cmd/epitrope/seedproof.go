package main

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"epitrope/core/design"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/internal/instrument"
	"epitrope/internal/people"
	"epitrope/internal/settings"
	"epitrope/internal/standin"
	"epitrope/internal/store"
)

// provenDemo is the demo job that is being proven, and how far it has come.
const (
	provenDemo = "demo/3-sound-recordist.json"
	provenTill = prove.FastIdle
)

// standInPort is where the demo's stand-in for that job's vehicle answers.
const standInPort = 15025

// seedProof puts the demo's readings in: of a stand-in's vehicle, up to the engine.
func seedProof(ctx context.Context, s *store.Store, staff map[string]people.Person, j store.Job, d *design.Design) error {
	p := prove.Of(d)
	v := standin.Build(d, p, 4)
	at := time.Now().Add(-4 * time.Hour)
	entries := []store.ProofEntry{}
	by := staff[demoInstaller]
	for _, station := range p.Stations {
		if station.ID == provenTill {
			break
		}
		for _, r := range p.Readings {
			if r.Station != station.ID || r.Of != "" {
				continue
			}
			value, ok := v.Reads(r)
			at = at.Add(2 * time.Minute)
			if station.ID != p.Stations[0].ID {
				by = staff[demoApprentice] // who has somebody stand for it
			}
			entries = append(entries, store.ProofEntry{ID: uuid.NewSHA1(uuid.NameSpaceOID, []byte(provenDemo+r.ID)).String(),
				Kind: signoff.ReadingEntry, Subject: r.ID, Entry: instrument.Written(r, prove.Taken{ID: r.ID, Value: value, Jumps: !ok}),
				ByWhom: by.Name, PersonID: &by.ID, Awaits: by.Role.Waits(), WithWhat: "stand-in meter",
				State: strings.Join(append([]string{station.Name}, station.Setup...), "; "), TakenAt: at})
		}
	}
	return s.AddProof(ctx, j.ID, entries)
}

// seedInstruments lists the demo's stand-in in the settings.
func seedInstruments(ctx context.Context, s *store.Store) error {
	set, version, err := s.Settings(ctx)
	if err != nil || version > 0 {
		return err
	}
	set = set.Or(settings.Usual())
	set.Meters = []settings.Meter{
		{Name: "stand-in meter", Address: fmt.Sprintf("127.0.0.1:%d", standInPort), Speaks: settings.SCPI},
		{Name: "stand-in charger", Address: fmt.Sprintf("127.0.0.1:%d", standInPort+1), Speaks: settings.TelemetryOut},
	}
	_, err = s.PutSettings(ctx, set, version)
	return err
}
