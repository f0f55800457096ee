package store

import (
	"context"
	"strconv"
	"strings"
	"time"
	"unicode"

	"golang.org/x/text/unicode/norm"
	"gorm.io/gorm"
)

// Listing is what lists show of a job. It is stored with the draft that it was made of, so that no list decides
// a job.
type Listing struct {
	Title, Customer, Vehicle  string
	Words                     string `gorm:"-"` // what else it is found by: plate, model, parts, serial numbers and lots
	Summary, Weakest, Settled string
	Severity                  string `gorm:"default:none"`
	Readings                  int    // that its proof asks for; 0 where nobody has worked that out
	ListedBy                  string // the rules that made it; empty where it waits to be made
	Dates                     []Date `gorm:"-"`
}

// Filter is which jobs a list has: those that wait for something, and those with a weak point so bad. Empty: whatever they are.
type Filter struct{ Stage, Severity string }

// PageSize is how many rows a page of a list has.
const PageSize = 50

// Page is where a page of the list of jobs begins: after a job, by when it was saved and its number. The zero
// value is the first.
type Page struct {
	SavedAt time.Time
	Number  int64
}

// List returns a page of the jobs that are not deleted, last saved first, without their documents; of those
// alone that a filter lets through and that have every word of search somewhere at the beginning of one of theirs, or within it from three
// letters on. more says that there is another page.
func (s *Store) List(ctx context.Context, search string, of Filter, after Page) (jobs []Job, more bool, err error) {
	q := s.own(ctx).Omit("document").Where("deleted_at IS NULL").Order("saved_at DESC, number DESC").Limit(PageSize + 1)
	if after.Number > 0 {
		q = q.Where("(saved_at, number) < (?, ?)", after.SavedAt, after.Number)
	}
	if of.Stage != "" {
		q = q.Where("stage = ?", of.Stage)
	}
	if of.Severity != "" {
		q = q.Where("severity = ?", of.Severity)
	}
	for _, word := range strings.Fields(plainText(search)) {
		q = q.Where(`search LIKE ?`, likeWord(word))
	}
	err = q.Find(&jobs).Error
	if len(jobs) > PageSize {
		return jobs[:PageSize], true, named(err)
	}
	return jobs, false, named(err)
}

// leastInside is how long a word has to be to be looked for within others: an index has words by three letters.
const leastInside = 3

func likeWord(word string) string {
	escaped := strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace(word)
	if len([]rune(word)) < leastInside {
		return "% " + escaped + "%"
	}
	return "%" + escaped + "%"
}

// plainText is text as it is searched: in lower case, without accents.
func plainText(text string) string {
	bare := strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Mn, r) {
			return -1
		}
		return r
	}, norm.NFD.String(text))
	return strings.ToLower(norm.NFC.String(bare))
}

// searched is what a job is found by.
func searched(number int64, l Listing) string {
	return " " + padded(number) + " " + strconv.FormatInt(number, 10) + " " + searchedWords(l) + " "
}

func searchedWords(l Listing) string {
	return plainText(strings.Join([]string{l.Title, l.Customer, l.Vehicle, l.Words}, " "))
}

// padded is a job's number as it is shown.
func padded(number int64) string {
	text := strconv.FormatInt(number, 10)
	return strings.Repeat("0", max(0, 4-len(text))) + text
}

// columns are what a listing changes of a job's row.
func (l Listing) columns(number int64, version int) map[string]any {
	if l.Severity == "" {
		l.Severity = "none"
	}
	return map[string]any{"title": l.Title, "customer": l.Customer, "vehicle": l.Vehicle, "summary": l.Summary, "weakest": l.Weakest,
		"severity": l.Severity, "settled": l.Settled, "listed_by": l.ListedBy, "listed_version": version, "readings": l.Readings,
		"search": searched(number, l)}
}

// Unlisted returns jobs of any workshop whose listing other rules made, or none did: the last saved first.
func (s *Store) Unlisted(ctx context.Context, rules string, count int) ([]Job, error) {
	var jobs []Job
	err := s.all.WithContext(ctx).Where("deleted_at IS NULL AND (listed_by < ? OR listed_by > ?)", rules, rules).Order("saved_at " +
		"DESC").Limit(count).Find(&jobs).Error
	return jobs, named(err)
}

// relistInBays has the listings of what stands in a bay made anew: what it waits for is not in the book as it was.
func (s *Store) relistInBays(tx *gorm.DB) error {
	return s.mine(tx).Model(&Job{}).Where("id IN (SELECT job_id FROM job_dates WHERE workshop_id = ? AND open AND kind = 'fit')",
		s.workshop).
		Update("listed_by", "").Error
}

// Relist stores a job's listing, unless its draft was saved meanwhile.
func (s *Store) Relist(ctx context.Context, j Job, l Listing) error {
	return named(s.all.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		res := tx.Model(&Job{}).Where("id = ? AND version = ?", j.ID, j.Version).Updates(l.columns(j.Number, j.Version))
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		return putDates(tx, j, l.Dates)
	}))
}
