package server

import (
	"context"
	"crypto/sha256"

	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/singleflight"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
)

// keptDesigns is how many designs are kept: those of a workshop's day.
const keptDesigns = 128

// decided are the designs of the documents that were last asked about, by digest: a section,
// its modes, its days and its pack ask of one and the same.
type decided struct {
	book     parts.Book
	settings *allSettled
	kept     *lru.Cache[[sha256.Size]byte, *design.Design]
	once     singleflight.Group
}

func newDecided(book parts.Book, settings *allSettled) *decided {
	kept, err := lru.New[[sha256.Size]byte, *design.Design](keptDesigns)
	if err != nil {
		panic(err) // only a size below one is refused
	}
	return &decided{book: book, settings: settings, kept: kept}
}

// of is the design of a document: the kept one, or decided once for all who ask meanwhile.
func (k *decided) of(ctx context.Context, doc job.Document) *design.Design {
	book := k.book
	book.Habits = k.settings.of(ctx).now().Stands()
	key := sha256.Sum256(doc.Under(book.Habits).Encode())
	if d, ok := k.kept.Get(key); ok {
		return d
	}
	d, _, _ := k.once.Do(string(key[:]), func() (any, error) {
		d := design.Of(doc, book)
		k.kept.Add(key, d)
		return d, nil
	})
	return d.(*design.Design)
}
