package export

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"codeberg.org/go-pdf/fpdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// plainPDF is a file of two pages with two pieces that belong to a structure, and that.
func plainPDF(t testing.TB) ([]byte, *element) {
	t.Helper()
	root := &element{kind: "Document"}
	s := &sheet{Fpdf: fpdf.New("P", "mm", "A4", ""), at: root, marks: map[int]int{}}
	s.SetFont("Helvetica", "", 12)
	s.AddPage()
	s.in("H1", func() { s.show(func() { s.Text(20, 20, "First") }) })
	s.AddPage()
	s.in("Figure", func() {
		s.at.alt = "seen: Ω 😀"
		s.show(func() { s.Text(20, 20, "Second") })
	})
	var out bytes.Buffer
	require.NoError(t, s.Output(&out))
	return out.Bytes(), root
}

// What is tagged is read back by another program in the order of its structure, and what
// was there before is still there, byte for byte.
func TestTagged(t *testing.T) {
	pdf, root := plainPDF(t)
	got, err := tag(pdf, root)
	require.NoError(t, err)
	assert.True(t, bytes.HasPrefix(got, pdf), "an update is appended")
	if _, err := exec.LookPath("pdfinfo"); err != nil {
		t.Skip("pdfinfo is not installed")
	}
	file := filepath.Join(t.TempDir(), "tagged.pdf")
	require.NoError(t, os.WriteFile(file, got, 0o600))
	said, err := exec.Command("pdfinfo", "-struct-text", file).CombinedOutput()
	require.NoError(t, err)
	assert.Equal(t, "Document H1 (block) \"First\" Figure \"Second\"", strings.Join(strings.Fields(string(said)), " "))
	info, err := exec.Command("pdfinfo", file).CombinedOutput()
	require.NoError(t, err)
	assert.Regexp(t, `Tagged:\s+yes`, string(info))
}

// A row that is taller than a page goes on over pages, with the heads on each and no line of
// it lost; everything written is in the structure once.
func TestTallRows(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil {
		t.Skip("pdftotext is not installed")
	}
	root := &element{kind: "Document"}
	s := &sheet{Fpdf: fpdf.New("P", "mm", "A4", ""), at: root, marks: map[int]int{}}
	s.AddUTF8FontFromBytes(regular, "", goregular.TTF)
	s.AddUTF8FontFromBytes(regular, "B", gobold.TTF)
	s.SetMargins(marginMM, marginMM+6, marginMM)
	s.SetAutoPageBreak(false, 0)
	s.AddPage()
	var lines []string
	for i := range 200 {
		lines = append(lines, fmt.Sprintf("line%03d", i))
	}
	s.table([]column{{"Headed", 1}, {"Beside", 1}}, [][]string{{"first", "row"}, {strings.Join(lines, "\n"), "short"}, {"last", "row"}})
	var out bytes.Buffer
	require.NoError(t, s.Output(&out))
	pages := s.PageNo()
	assert.Equal(t, 5, pages, "the first row, then 200 lines of 3.7 mm on pages of 250")
	file := filepath.Join(t.TempDir(), "tall.pdf")
	require.NoError(t, os.WriteFile(file, out.Bytes(), 0o600))
	text, err := exec.Command("pdftotext", file, "-").Output()
	require.NoError(t, err)
	for _, l := range append(lines, "first", "short", "last") {
		assert.Equal(t, 1, strings.Count(string(text), l), l)
	}
	assert.Equal(t, pages, strings.Count(string(text), "Headed"))
	marks := 0
	var count func(e *element)
	count = func(e *element) {
		for _, kid := range e.kids {
			switch kid := kid.(type) {
			case *element:
				count(kid)
			case shown:
				marks++
				assert.Less(t, kid.mark, s.marks[kid.page])
			}
		}
	}
	count(root)
	sum := 0
	for _, n := range s.marks {
		sum += n
	}
	assert.Equal(t, sum, marks)
}

// A file that is not laid out as it should be is refused, and never a panic.
func FuzzTag(f *testing.F) {
	pdf, root := plainPDF(f)
	f.Add(pdf)
	f.Add([]byte("startxref\n0\n%%EOF"))
	f.Add([]byte("xref\n0 2\n\n\ntrailer\n<<\n/Size 2\n/Root 1 0 R\n>>\nstartxref\n0\n%%EOF\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := tag(data, root)
		if err == nil {
			assert.True(t, bytes.HasPrefix(got, data))
		} else {
			assert.ErrorIs(t, err, errTags)
		}
	})
}
