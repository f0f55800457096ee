package server_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What docs/security.md leans on is there: each test and each file that it names.
func TestTheSecurityWalkNamesWhatIsThere(t *testing.T) {
	const root = "../.."
	walk, err := os.ReadFile(filepath.Join(root, "docs/security.md"))
	require.NoError(t, err)
	var tests, files strings.Builder
	for _, dir := range []string{"core", "internal", "cmd", "e2e/tests"} {
		require.NoError(t, filepath.WalkDir(filepath.Join(root, dir), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() {
				return err
			}
			files.WriteString(path + "\n")
			if strings.HasSuffix(path, "_test.go") {
				data, err := os.ReadFile(path)
				tests.Write(data)
				return err
			}
			return nil
		}))
	}
	named := regexp.MustCompile("`((?:Test|Fuzz)[A-Za-z]+)`").FindAllStringSubmatch(string(walk), -1)
	require.Greater(t, len(named), 15)
	for _, n := range named {
		assert.Contains(t, tests.String(), "func "+n[1]+"(", n[1])
	}
	for _, n := range regexp.MustCompile("`([a-zA-Z0-9/_]+\\.(?:go|sql|ts))`").FindAllStringSubmatch(string(walk), -1) {
		assert.Contains(t, files.String(), "/"+n[1]+"\n", n[1])
	}
}
