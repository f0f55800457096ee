package store

import (
	"context"

	"gorm.io/gorm"
)

// Raw is the connections that a store's queries for people go over.
func Raw(s *Store) *gorm.DB { return s.of(context.Background()) }

// Unbound is the same connections, taken for no workshop.
func Unbound(s *Store) *gorm.DB { return s.db }

// AtTheDoor is the connections of what signs people in.
func AtTheDoor(s *Store) *gorm.DB { return s.door }
