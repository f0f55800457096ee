package store

import "gorm.io/gorm"

// OpenFor connects for another workshop than the one that there is.
var OpenFor = open

// Raw is the connections that a store's queries for people go over.
func Raw(s *Store) *gorm.DB { return s.db }
