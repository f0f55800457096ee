package export_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/export"
)

// words are where a page's words stand, by poppler, in mm from its upper left corner.
type word struct {
	page                   int
	left, top, right, foot float64
	text                   string
}

var wordAt = regexp.MustCompile(`<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">(.*?)</word>`)

func wordsOf(t *testing.T, pdf []byte) (list []word) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "labels.pdf")
	require.NoError(t, os.WriteFile(path, pdf, 0o600))
	text, err := exec.Command("pdftotext", "-bbox", path, "-").Output()
	require.NoError(t, err)
	page := -1
	for _, line := range strings.Split(string(text), "\n") {
		if strings.Contains(line, "<page ") {
			page++
		}
		if m := wordAt.FindStringSubmatch(line); m != nil {
			mm := func(s string) float64 { v, _ := strconv.ParseFloat(s, 64); return v * 25.4 / 72 }
			list = append(list, word{page, mm(m[1]), mm(m[2]), mm(m[3]), mm(m[4]), m[5]})
		}
	}
	return list
}

// On every stock each word stands within one label, and every end of every cable has its number.
func TestLabelsStandWithinTheirStock(t *testing.T) {
	text, err := os.ReadFile("../../testdata/demo/3-sound-recordist.json")
	require.NoError(t, err)
	p := packOf(t, text, "A4")
	ends := map[string]int{}
	for _, l := range p.Leads {
		ends[l.Number] += 2 * max(l.Cables, 1)
	}
	for _, stock := range export.Stocks {
		for _, of := range []string{export.WireLabels, export.FuseLabels, export.OwnerLabel} {
			pdf, err := export.LabelsPDF(p, of, stock, 2)
			require.NoError(t, err)
			words := wordsOf(t, pdf)
			require.NotEmpty(t, words, stock.ID)
			numbers := map[string]int{}
			for _, w := range words {
				across, down := 0, 0
				if stock.StepX > 0 {
					across, down = int((w.left-stock.Left)/stock.StepX), int((w.top-stock.Top)/stock.StepY)
				}
				left, top := stock.Left+float64(across)*stock.StepX, stock.Top+float64(down)*stock.StepY
				// A glyph's box is taller than its ink: half a millimetre of it may stand over the edge.
				assert.True(t, w.left >= left && w.right <= left+stock.Wide && w.top >= top-0.5 && w.foot <= top+stock.High+0.5, "%s %s: %+v",
					stock.ID, of, w)
				assert.Less(t, across, stock.Across)
				assert.Less(t, down, stock.Down)
				if w.page == 0 && stock.Across > 1 {
					assert.GreaterOrEqual(t, down*stock.Across+across, 2, "what was used stays free")
				}
				numbers[w.text]++
			}
			if of == export.WireLabels {
				for number, count := range ends {
					assert.GreaterOrEqual(t, numbers[number], count, "%s: %s", stock.ID, number)
				}
			}
		}
	}
	again, err := export.LabelsPDF(p, export.WireLabels, export.Stocks[0], 0)
	require.NoError(t, err)
	same, err := export.LabelsPDF(p, export.WireLabels, export.Stocks[0], 0)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(again, same))
}

// The stock itself fits its paper.
func TestStockFitsItsPaper(t *testing.T) {
	for _, s := range export.Stocks {
		wide, high := map[string]float64{"A4": 210, "Letter": 215.9}[s.Paper], map[string]float64{"A4": 297, "Letter": 279.4}[s.Paper]
		if wide == 0 {
			continue
		}
		assert.LessOrEqual(t, s.Left+float64(s.Across-1)*s.StepX+s.Wide, wide+0.01, s.ID)
		assert.LessOrEqual(t, s.Top+float64(s.Down-1)*s.StepY+s.High, high+0.01, s.ID)
		// The same margin on both sides, as stock is cut.
		assert.InDelta(t, s.Left, wide-(s.Left+float64(s.Across-1)*s.StepX+s.Wide), 1, s.ID)
		assert.InDelta(t, s.Top, high-(s.Top+float64(s.Down-1)*s.StepY+s.High), 1.5, s.ID)
	}
	_, known := export.StockNamed("a4-65")
	assert.True(t, known)
	_, known = export.StockNamed("")
	assert.False(t, known)
}
