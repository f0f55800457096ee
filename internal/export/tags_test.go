package export

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"codeberg.org/go-pdf/fpdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
