package job

import (
	"fmt"
	"slices"
	"strings"
)

// byPath finds a field by its path as the table writes it.
var byPath = func() map[string]Field {
	m := make(map[string]Field, len(Fields))
	for _, f := range Fields {
		if f.Choices == nil {
			f.Choices = []Option{}
		}
		m[f.Path] = f
	}
	return m
}()

// lists are the sections whose keys name rows.
var lists = func() map[string]bool {
	m := map[string]bool{}
	for _, f := range Fields {
		if list, _, ok := strings.Cut(f.Path, ".*"); ok {
			m[list] = true
		}
	}
	return m
}()

// mostKey is how long the name of a row may be: names are given by whoever adds it, so
// that two people who add rows at once do not meet.
const mostKey = 24

// pattern is a path as the table writes it: the row of a list as *. ok is false where a
// row's name cannot be used.
func pattern(path string) (p string, ok bool) {
	list, rest, found := strings.Cut(path, ".")
	if !found || !lists[list] {
		return path, true
	}
	key, field, inRow := strings.Cut(rest, ".")
	if aboutAnswers[list] {
		return list + ".*", !inRow && knows(key) && (list != builtList || slices.Contains(BuiltPaths, strings.ReplaceAll(key, "/", ".")))
	}
	if !inRow {
		return path, goodKey(key)
	}
	return list + ".*." + field, goodKey(key)
}

func goodKey(key string) bool {
	if key == "" || len(key) > mostKey {
		return false
	}
	for _, r := range key {
		if (r < 'a' || r > 'z') && (r < '0' || r > '9') {
			return false
		}
	}
	return true
}

// FieldAt returns the field of a path, with the path itself; ok is false where there is
// none.
func FieldAt(path string) (f Field, ok bool) {
	p, ok := pattern(path)
	if !ok {
		return Field{}, false
	}
	f, ok = byPath[p]
	return f, ok
}

// isSection says whether a path holds fields below it.
func isSection(path string) bool {
	if list, key, ok := strings.Cut(path, "."); ok && lists[list] && !aboutAnswers[list] && !strings.Contains(key, ".") {
		return goodKey(key)
	}
	for _, f := range Fields {
		if strings.HasPrefix(f.Path, path+".") {
			return true
		}
	}
	return false
}

// The lists that say something of answers, by the answer's path with / for its points: how it
// is known, and what was really built.
const (
	knownList = "known"
	builtList = "built"
)

var aboutAnswers = map[string]bool{knownList: true, builtList: true}

func knows(key string) bool {
	p, ok := pattern(strings.ReplaceAll(key, "/", "."))
	_, is := byPath[p]
	list, _, _ := strings.Cut(key, "/")
	return ok && is && !aboutAnswers[list]
}

// rowNames is what may name a row of a list.
func rowNames(path string) string {
	list, _, _ := strings.Cut(path, ".")
	switch list {
	case builtList:
		return strings.ReplaceAll("one of "+strings.Join(BuiltPaths, ", "), ".", "/")
	case knownList:
		return "the path of an answer with / for its points"
	}
	return fmt.Sprintf("up to %d small letters and digits", mostKey)
}
