package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm"

	"epitrope/internal/settings"
)

// settingsRow is a version of a workshop's settings.
type settingsRow struct {
	ID         int64 `gorm:"primaryKey"`
	WorkshopID string
	Version    int
	Settings   json.RawMessage `gorm:"type:jsonb"`
	SavedAt    time.Time       `gorm:"default:now()"`
}

// TableName is the settings' table.
func (settingsRow) TableName() string { return "workshop_settings" }

// Settings are the workshop's settings with their version: the usual ones, version 0, where none were chosen.
func (s *Store) Settings(ctx context.Context) (settings.Preferences, int, error) {
	return settingsIn(s.own(ctx))
}

func settingsIn(own *gorm.DB) (settings.Preferences, int, error) {
	set := settings.Usual()
	var rows []settingsRow
	if err := own.Order("version DESC").Limit(1).Find(&rows).Error; err != nil || len(rows) == 0 {
		return set, 0, named(err)
	}
	if err := json.Unmarshal(rows[0].Settings, &set); err != nil {
		panic(err) // the store wrote it
	}
	return set, rows[0].Version, nil
}

// PutSettings keeps settings on top of a version, and has all listings made anew. It returns *SettingsStale where that
// is no longer the newest.
func (s *Store) PutSettings(ctx context.Context, set settings.Preferences, base int) (version int, err error) {
	encoded, err := json.Marshal(set)
	if err != nil {
		return 0, err
	}
	return base + 1, named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Exec("SELECT 1 FROM workshops WHERE id = ? FOR UPDATE", s.workshop).Error; err != nil {
			return err
		}
		current, newest, err := settingsIn(s.mine(tx))
		if err != nil {
			return err
		}
		if newest != base {
			return &SettingsStale{current, newest}
		}
		if err := tx.Create(&settingsRow{WorkshopID: s.workshop, Version: base + 1, Settings: encoded}).Error; err != nil {
			return err
		}
		if err := s.note(tx, nil, "changed the settings", ""); err != nil {
			return err
		}
		return s.mine(tx).Model(&Job{}).Where("listed_by <> ''").Update("listed_by", "").Error
	}))
}

// SettingsStale is a change of settings on top of a version that is no longer the newest.
type SettingsStale struct {
	Current settings.Preferences
	Version int
}

func (e *SettingsStale) Error() string { return "the settings were changed meanwhile" }
