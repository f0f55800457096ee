package store

import (
	"context"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"epitrope/core/parts"
)

// Part is a version of a part in the workshop's book.
type Part struct {
	ID         int64 `gorm:"primaryKey"`
	WorkshopID string
	Key        string
	Item       json.RawMessage `gorm:"type:jsonb"`
	Withdrawn  bool
	SavedAt    time.Time `gorm:"default:now()"`
}

// TableName is the parts' table.
func (Part) TableName() string { return "part_versions" }

// Of reads the part.
func (p Part) Of() (item parts.Item) {
	if err := json.Unmarshal(p.Item, &item); err != nil {
		panic(err) // the store wrote it
	}
	return item
}

// Parts are the parts of the book, withdrawn ones left out, by kind and name.
func (s *Store) Parts(ctx context.Context) ([]Part, error) {
	var list []Part
	err := s.of(ctx).Raw(`SELECT * FROM (SELECT DISTINCT ON (key) * FROM part_versions
WHERE workshop_id = ? ORDER BY key, id DESC) newest WHERE NOT withdrawn ORDER BY key`, s.workshop).Scan(&list).Error
	return list, named(err)
}

// PutParts keeps parts as the newest of their keys, all or none; one that is there as it is counts once.
func (s *Store) PutParts(ctx context.Context, items []parts.Item) error {
	list, err := s.Parts(ctx)
	if err != nil {
		return err
	}
	there := map[string]parts.Item{}
	for _, p := range list {
		there[p.Key] = p.Of()
	}
	items = slices.DeleteFunc(slices.Clone(items), func(i parts.Item) bool { return reflect.DeepEqual(there[i.Key()], i) })
	if len(items) == 0 {
		return nil
	}
	rows := make([]Part, len(items))
	for i, item := range items {
		encoded, err := json.Marshal(item)
		if err != nil {
			return err
		}
		rows[i] = Part{WorkshopID: s.workshop, Key: item.Key(), Item: encoded}
	}
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.CreateInBatches(&rows, 500).Error; err != nil {
			return err
		}
		if err := s.note(tx, nil, "changed the parts book", fmt.Sprintf("%d of its parts, %s first", len(items), items[0].Name)); err != nil {
			return err
		}
		return s.relistInBays(tx)
	}))
}

// WithdrawPart takes a part out of the book. Its versions stay.
func (s *Store) WithdrawPart(ctx context.Context, key string) error {
	var p Part
	res := s.own(ctx).Where("key = ?", key).Order("id DESC").Limit(1).Find(&p)
	if res.Error != nil {
		return named(res.Error)
	}
	if res.RowsAffected == 0 || p.Withdrawn {
		return ErrNotFound
	}
	gone := Part{WorkshopID: s.workshop, Key: key, Item: p.Item, Withdrawn: true}
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Clauses(clause.Returning{}).Create(&gone).Error; err != nil {
			return err
		}
		if err := s.note(tx, nil, "took a part out of the book", p.Of().Name); err != nil {
			return err
		}
		return s.relistInBays(tx)
	}))
}
