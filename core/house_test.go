package core_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What of the code a reader can take in: a package at most an eighth of the core, a file, a
// line. A struct's tag cannot be broken, and does not count.
const (
	mostShare = 8
	mostLines = 310
	mostWide  = 140
)

var tagged = regexp.MustCompile("`(json|query|path|gorm|enum|doc):.*`")

// sources are the paths of our own files with an ending, below some folders; generated ones and
// what others made are left out.
func sources(t *testing.T, folders []string, endings ...string) []string {
	t.Helper()
	var list []string
	for _, folder := range folders {
		require.NoError(t, filepath.WalkDir(filepath.Join("..", folder), func(path string, d fs.DirEntry, err error) error {
			if err == nil && d.IsDir() && d.Name() == "node_modules" {
				return filepath.SkipDir
			}
			if err == nil && slices.Contains(endings, filepath.Ext(path)) && !strings.Contains(path, "gen.") && !strings.Contains(path, "dist/") {
				list = append(list, path)
			}
			return err
		}))
	}
	require.NotEmpty(t, list)
	return list
}

func read(t *testing.T, path string) string {
	t.Helper()
	text, err := os.ReadFile(path)
	require.NoError(t, err)
	return string(text)
}

func TestNothingIsTooLongToRead(t *testing.T) {
	whole, packages := 0, map[string]int{}
	for _, path := range sources(t, []string{"core", "internal", "cmd"}, ".go") {
		lines := strings.Split(read(t, path), "\n")
		if strings.HasPrefix(path, "../core/") {
			whole += len(lines)
			packages[filepath.Dir(path)] += len(lines)
		}
		assert.LessOrEqual(t, len(lines), mostLines, path)
		for i, line := range lines {
			if !tagged.MatchString(line) {
				assert.LessOrEqual(t, utf8.RuneCountInString(line), mostWide, "%s:%d", path, i+1)
			}
		}
	}
	for path, lines := range packages {
		assert.LessOrEqual(t, mostShare*lines, whole, "%s has %d lines of %d", path, lines, whole)
	}
}

// shown are the fields that hold what people read.
var shown = []string{"Text", "Says", "Why", "Label", "Rating", "Summary", "What", "Part", "Verdict", "Weakest"}

// cutting are the functions that ask a text what it is made of.
var cutting = []string{"HasPrefix", "HasSuffix", "Contains", "ContainsAny", "Cut", "CutPrefix", "CutSuffix", "Fields", "FieldsFunc",
	"Split", "SplitN",
	"Index", "LastIndex", "TrimPrefix", "TrimSuffix", "Trim", "Replace", "ReplaceAll", "EqualFold", "MatchString", "FindStringSubmatch"}

// asks are the places at which a file asks a displayed text what it means.
func asks(t *testing.T, name, code string) []string {
	t.Helper()
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, name, code, 0)
	require.NoError(t, err)
	var list []string
	displayed := func(e ast.Expr) (is bool) {
		ast.Inspect(e, func(n ast.Node) bool {
			if call, ok := n.(*ast.CallExpr); ok && len(call.Args) == 0 {
				return false // a method, such as a scanner's Text
			}
			if s, ok := n.(*ast.SelectorExpr); ok && slices.Contains(shown, s.Sel.Name) {
				is = true
			}
			return true
		})
		return is
	}
	found := func(n ast.Node) { list = append(list, set.Position(n.Pos()).String()) }
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.CallExpr:
			if f, ok := n.Fun.(*ast.SelectorExpr); ok && slices.Contains(cutting, f.Sel.Name) && slices.ContainsFunc(n.Args, displayed) {
				found(n)
			}
		case *ast.SliceExpr:
			if s, ok := n.X.(*ast.SelectorExpr); ok && slices.Contains(shown, s.Sel.Name) {
				found(n)
			}
		}
		return true
	})
	return list
}

// What people read is made last and asked by nobody: no program cuts a figure out of a sentence
// or asks what it begins with.
func TestNoTextIsAskedForItsMeaning(t *testing.T) {
	for code, want := range map[string]int{
		`strings.HasPrefix(c.Rating, "0 ")`:              1,
		`strings.Cut(strings.ToLower(note.Text), "A")`:   1,
		`ratings.FindStringSubmatch(p.Columns[0].Label)`: 1,
		`c.Rating[:2]`:                           1,
		`strings.HasPrefix(note.ID, "profile.")`: 0,
		`strings.ToUpper(note.Text)`:             0,
	} {
		assert.Len(t, asks(t, "a.go", "package a\nvar _ = "+code), want, code)
	}
	for _, path := range sources(t, []string{"core", "internal", "cmd"}, ".go") {
		if !strings.HasSuffix(path, "_test.go") {
			assert.Empty(t, asks(t, path, read(t, path)))
		}
	}
	screen := regexp.MustCompile(`\.(text|says|why|label|rating|summary|what|part|name|title)\??` +
		`\.(startsWith|endsWith|includes|indexOf|split|match|replace|slice|substring)\(`)
	assert.True(t, screen.MatchString(`c.name.replace(" battery", "")`))
	for _, path := range sources(t, []string{"web/src"}, ".ts", ".tsx") {
		if !strings.Contains(path, ".test.") {
			assert.Empty(t, screen.FindAllString(read(t, path), -1), path)
		}
	}
}

// A file that the documents name is there.
func TestDocumentsNameWhatIsThere(t *testing.T) {
	named := regexp.MustCompile("`([a-z]+/[a-z]+\\.(?:go|ts|tsx))`|\\]\\(([a-z]+/[a-zA-Z/.]+)\\)")
	for _, path := range append(sources(t, []string{"docs"}, ".md"), "../README.md") {
		for _, m := range named.FindAllStringSubmatch(read(t, path), -1) {
			there := slices.ContainsFunc([]string{"", "core", "internal", "cmd", "web/src", "docs"}, func(root string) bool {
				_, err := os.Stat(filepath.Join("..", root, m[1]+m[2]))
				return err == nil
			})
			assert.True(t, there, "%s: %s", path, m[1]+m[2])
		}
	}
}

// Which coupling it is, the arrangements say (design/coupling_*.go), and the rules and words
// that are about one by its nature; nobody else asks.
func TestNobodyAsksWhichCouplingItIs(t *testing.T) {
	byNature := []string{"../core/coupling/", "../core/method/", "../core/parts/", "../core/design/coupling_", "../core/design/arrangement.go",
		"../core/plan/read.go", "../core/study/sizings.go"}
	kinds := regexp.MustCompile(`(==|!=|case) (string\()?coupling\.` +
		`(VSR|SecondAlternator|DCDC\w*|ManualSelector|SwitchedContactor|TrailerCharger)\b`)
	assert.True(t, kinds.MatchString("case coupling.VSR:") && kinds.MatchString("k == coupling.DCDC "))
	for _, path := range sources(t, []string{"core"}, ".go") {
		if strings.HasSuffix(path, "_test.go") || slices.ContainsFunc(byNature, func(p string) bool { return strings.HasPrefix(path, p) }) {
			continue
		}
		assert.Empty(t, kinds.FindAllString(read(t, path), -1), path)
	}
}

// Numbers in what is said are written in one place: by unit.Say, unit.Text and their like. A netlist
// is for a program, and writes as that reads.
func TestQuantitiesAreWrittenInOnePlace(t *testing.T) {
	byHand := regexp.MustCompile(`(Sprintf|Errorf|Fprintf)\(.*%\.\d[fg]`)
	for _, path := range sources(t, []string{"core"}, ".go") {
		if strings.Contains(path, "core/unit/") || strings.HasSuffix(path, "netlist.go") || strings.HasSuffix(path, "_test.go") {
			continue
		}
		for i, line := range strings.Split(read(t, path), "\n") {
			assert.False(t, byHand.MatchString(line), "%s:%d: %s", path, i+1, line)
		}
	}
}
