package store

import (
	"context"

	"gorm.io/gorm/clause"
)

// authority is the one row of its table.
type authority struct{ Certificate, Key []byte }

// TableName is the authority's table.
func (authority) TableName() string { return "door.authority" }

// Authority is what vouches for the server on a workshop's own network, made once for a database: certificate and key, in PEM.
func (d *Door) Authority(ctx context.Context, make func() (certificate, key []byte, err error)) (certificate, key []byte, err error) {
	var row authority
	read := func() error { return d.one(ctx, &row, "SELECT certificate, key FROM door.authority") }
	if err := read(); err == nil {
		return row.Certificate, row.Key, nil
	}
	if certificate, key, err = make(); err != nil {
		return nil, nil, err
	}
	// Of several servers that start at once, one's is kept, and the others take it.
	if err := d.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&authority{certificate, key}).Error; err != nil {
		return nil, nil, named(err)
	}
	err = read()
	return row.Certificate, row.Key, err
}
