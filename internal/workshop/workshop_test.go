package workshop

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/parts"
)

const today = "2030-05-01"

const heads = "kind,name,rating A,size,price,currency,priced on,stock\n"

func read(t *testing.T, text string) File {
	t.Helper()
	f, err := ReadParts([]byte(text), today)
	require.NoError(t, err)
	return f
}

// Each line is used whole or not at all, and what is wrong is named with its line, field,
// value and what is allowed.
func TestLineByLine(t *testing.T) {
	for name, c := range map[string]struct{ line, says string }{
		"kind":       {"gizmo,A,30", `line 2: kind "gizmo" is none of them; allowed: charger, relay,`},
		"no kind":    {",A,30", `line 2: kind is missing; allowed: charger, relay,`},
		"no name":    {"charger,,30", `line 2: name is missing; allowed: what the workshop calls it`},
		"no rating":  {"charger,A", `line 2: rating A is missing; allowed: a charger says its current`},
		"rating":     {"charger,A,thirty", `line 2: rating A "thirty" is not a current; allowed: 0.5 to 600 A`},
		"range":      {"fuse,A,6000", `line 2: rating A "6000" is out of range; allowed: 0.5 to 600 A`},
		"bare mm":    {"cable,A,,8 mm", `line 2: size "8 mm" is not a cable size; allowed: such as 16 mm², 6 AWG, 8 mm auto; not mm alone`},
		"no size":    {"cable,A", `line 2: size is missing`},
		"currency":   {"charger,A,30,,100,dollars", `line 2: currency "dollars" is not a currency; allowed: its three capital letters`},
		"no money":   {"charger,A,30,,100", `line 2: currency is missing`},
		"date":       {"charger,A,30,,100,EUR,1/5/30", `line 2: priced on "1/5/30" is not a date; allowed: year-month-day, such as 2030-05-01`},
		"price":      {"charger,A,30,,-5,EUR", `line 2: price "-5" is out of range; allowed: 0 to 100000`},
		"more cells": {"charger,A,30,,,,,,,x", `line 2: line "x" has more cells than there are heads; allowed: 8 cells`},
	} {
		t.Run(name, func(t *testing.T) {
			f := read(t, heads+c.line+"\nfuse,good one,40\n")
			require.Len(t, f.Problems, 1)
			assert.Contains(t, f.Problems[0].String(), c.says)
			require.Len(t, f.Items, 1, "the good line is used")
			assert.Equal(t, heads+c.line+"\n", f.Rest, "the bad one is given back as it was")
		})
	}
}

func TestEntry(t *testing.T) {
	item, problems := ReadEntry(map[string]string{"kind": "charger", "name": "Bench box", "rating A": "35", "price": "12", "currency": "AUD"},
		today)
	require.Empty(t, problems)
	assert.Equal(t, "charger/bench box", item.Key())
	assert.Equal(t, today, item.PricedOn)
	_, problems = ReadEntry(map[string]string{"kind": "charger", "name": "Bench box", "rating A": "much", "colour": "red"}, today)
	require.Len(t, problems, 2)
	assert.Equal(t, "rating A", problems[0].Field)
	assert.Equal(t, "colour", problems[1].Field)
}

func TestDatesAreKept(t *testing.T) {
	f := read(t, heads+"charger,Bench box,30,,199.50,EUR,,4\nfuse,Strip,60,,3,EUR,2029-01-31,\n")
	require.Empty(t, f.Problems)
	assert.Equal(t, today, f.Items[0].PricedOn, "the day it was entered")
	assert.Equal(t, today, f.Items[0].CountedOn)
	assert.Equal(t, "2029-01-31", f.Items[1].PricedOn)
	assert.Empty(t, f.Items[1].CountedOn, "nobody counted")
}

// Dates are those that the standard library knows.
func TestDatesOfTheCalendar(t *testing.T) {
	for year := 1999; year <= 2001; year++ {
		for month := 0; month <= 13; month++ {
			for day := 0; day <= 32; day++ {
				text := fmt.Sprintf("%04d-%02d-%02d", year, month, day)
				_, err := time.Parse(time.DateOnly, text)
				_, problems := ReadEntry(map[string]string{"kind": "other", "name": "Tape", "priced on": text}, today)
				require.Equal(t, err == nil, len(problems) == 0, text)
			}
		}
	}
	for _, year := range []int{1900, 2000, 2024} {
		_, err := time.Parse(time.DateOnly, fmt.Sprintf("%d-02-29", year))
		_, problems := ReadEntry(map[string]string{"kind": "other", "name": "Tape", "priced on": fmt.Sprintf("%d-02-29", year)}, today)
		require.Equal(t, err == nil, len(problems) == 0, year)
	}
}

func TestForms(t *testing.T) {
	f := read(t, "\xef\xbb\xbfName;Kind;Rating A;Price;Currency\r\n\r\nBox;Charger;17,5 A;1,5;EUR\r\nBOX;charger;20;2;EUR\r\n\" two  words "+
		"\";holder;;;\r\n")
	require.Len(t, f.Items, 2)
	assert.InDelta(t, 17.5, *f.Items[0].RatingA, 1e-9)
	assert.InDelta(t, 1.5, *f.Items[0].Price, 1e-9)
	assert.Equal(t, "holder/two words", f.Items[1].Key())
	require.Len(t, f.Problems, 1)
	assert.Equal(t, `line 4: name "BOX" stands in line 3 already; allowed: one line for each part`, f.Problems[0].String())
	again, err := ReadParts([]byte(strings.Replace(f.Rest, "BOX", "Box two", 1)), today)
	require.NoError(t, err)
	assert.Len(t, again.Items, 1, "what was given back can be mended and read")
}

func TestWholeFiles(t *testing.T) {
	for text, says := range map[string]string{
		"":                       "there is no table in it",
		"kind,name,colour\n":     `line 1: head "colour" is not a column of parts; allowed: kind, name, rating A`,
		"kind,name,kind\n":       `line 1: head "kind" stands twice`,
		"kind,name\nfuse,\xff\n": "the file is not UTF-8 text",
		"kind,name\n" + strings.Repeat("other,x\n", MostLines+1): "has too many lines",
	} {
		_, err := ReadParts([]byte(text), today)
		assert.ErrorContains(t, err, says)
	}
}

// What is written is read again as it was, and no spreadsheet takes a name for a formula.
func TestThereAndBack(t *testing.T) {
	a, v := 40.0, 11.5
	items := []parts.Item{
		{Kind: "charger", Name: "=cmd|'/c'!A1", RatingA: &a, CutOutV: &v, Remark: "+1, \"boxed\"; -ish"},
		{Kind: "cable", Name: "'@red", Size: "6 AWG"},
	}
	written := WriteParts(items)
	assert.Contains(t, string(written), "'=cmd")
	f, err := ReadParts(written, today)
	require.NoError(t, err)
	assert.Empty(t, f.Problems)
	assert.Equal(t, items, f.Items)
}

// Whatever is read, nothing is lost: each line is used or given back; and what is used is
// written and read as it was.
func FuzzReadParts(f *testing.F) {
	f.Add(heads + "charger,Bench box,30,,199.50,EUR,,4\ncable,Red,,16 mm2,,,,\n")
	f.Add("kind;name;size\ncable;\"a\nb\";8 mm\n")
	f.Add("kind\tname\nother\t'=x\n")
	f.Add(";\n\nkind\nfam\x01;\nnam\x01\n\n\nzmwam;\"esze\n\n;\nw;\n\n")
	f.Add(";\f\nkind\nnam\x01;\nnam;mwame;\"s;ze\n\n;>>>w;\n\n")
	f.Add("\"\";\"\"\nkind\nnam;x\n")
	f.Add(";nAme\n \"\"\r\r")
	f.Fuzz(func(t *testing.T, text string) {
		file, err := ReadParts([]byte(text), today)
		if err != nil {
			return
		}
		again, err := ReadParts(WriteParts(file.Items), today)
		require.NoError(t, err)
		require.Empty(t, again.Problems)
		require.Equal(t, len(file.Items), len(again.Items))
		if len(file.Problems) > 0 {
			rest, err := ReadParts([]byte(file.Rest), today)
			require.NoError(t, err)
			lines := map[int]bool{}
			for _, p := range file.Problems {
				lines[p.Line] = true
			}
			back := map[int]bool{}
			for _, p := range rest.Problems {
				back[p.Line] = true
			}
			require.Equal(t, len(lines), len(rest.Items)+len(back), "every line that was not used is given back")
		}
	})
}
