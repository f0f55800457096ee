package export_test

import (
	"encoding/json"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/internal/export"
	"epitrope/internal/pack"
	"epitrope/testdata"
)

func packOf(t testing.TB, text []byte, paper string) pack.Pack {
	t.Helper()
	doc, problems := job.Decode(text)
	require.Empty(t, problems)
	p := pack.New(design.Of(doc, parts.Stock()), pack.Workshop{})
	p.Number, p.Revision, p.Dated, p.Paper = 47, "revision 3", saved, paper
	return p
}

// poppler runs one of its tools on a PDF; what it warns of fails the test.
func poppler(t *testing.T, tool, file string, args ...string) string {
	t.Helper()
	if _, err := exec.LookPath(tool); err != nil {
		t.Skip(tool + " is not installed")
	}
	cmd := exec.Command(tool, append(args, file)...)
	if tool == "pdftotext" {
		cmd = exec.Command(tool, append(args, file, "-")...)
	}
	var warned strings.Builder
	cmd.Stderr = &warned
	out, err := cmd.Output()
	require.NoError(t, err, warned.String())
	assert.Empty(t, warned.String(), tool)
	return string(out)
}

// unspaced is a text without what breaks and quotes its lines.
func unspaced(text string) string {
	return strings.NewReplacer(" ", "", "\n", "", `"`, "").Replace(text)
}

// Every demo job's pack opens without a warning, on both papers, with its fonts in it and
// job, revision and page on every sheet.
func TestPacksOpen(t *testing.T) {
	names, err := fs.Glob(testdata.Demo, "demo/*.json")
	require.NoError(t, err)
	for i, name := range names {
		data, err := fs.ReadFile(testdata.Demo, name)
		require.NoError(t, err)
		paper := []string{"A4", "Letter"}[i%2]
		p := packOf(t, data, paper)
		pdf, err := export.PDF(p)
		require.NoError(t, err)
		again, err := export.PDF(p)
		require.NoError(t, err)
		assert.Equal(t, pdf, again, "%s: the same each time", name)
		file := filepath.Join(t.TempDir(), path.Base(name)+".pdf")
		require.NoError(t, os.WriteFile(file, pdf, 0o600))
		info := poppler(t, "pdfinfo", file)
		assert.Contains(t, info, "Title:           "+p.Document.Title)
		pages := regexp.MustCompile(`Pages:\s+(\d+)`).FindStringSubmatch(info)[1]
		for _, font := range strings.Split(strings.TrimSpace(poppler(t, "pdffonts", file)), "\n")[2:] {
			assert.Regexp(t, `\byes\s+(yes|no)\s+yes\b`, font, "embedded, with its letters: %s", font)
		}
		structure := strings.Fields(poppler(t, "pdfinfo", file, "-struct"))
		assert.Subset(t, structure, []string{"Document", "H1", "H2", "P", "Table", "TR", "TH:", "TD", "Figure", "Sect"}, name)
		if i == 0 { // the tool takes seconds over each
			heard := unspaced(poppler(t, "pdfinfo", file, "-struct-text"))
			for _, step := range p.Steps {
				assert.Contains(t, heard, unspaced(step.Title), "%s: in the structure", name)
			}
		}
		text := poppler(t, "pdftotext", file, "-layout")
		sheets := strings.Split(strings.TrimSuffix(text, "\f"), "\f")
		assert.Equal(t, pages, fmt.Sprint(len(sheets)))
		for k, sheet := range sheets {
			assert.Contains(t, sheet, "job 0047, revision 3", "%s page %d", name, k+1)
			assert.Contains(t, sheet, fmt.Sprintf("page %d of %s", k+1, pages), "%s page %d", name, k+1)
		}
		for _, said := range []string{"Wires", "Cuts", "Parts", "Steps", "Expected readings", "What stays live", "For the owner", "Workings",
			"override any figure here", "HOLD POINT", "mm²", "Before you work on it"} {
			assert.Contains(t, text, said, name)
		}
		if strings.Contains(name, "bookmobile") {
			assert.Contains(t, text, "TEMPORARY")
			assert.Contains(t, text, "As found")
		}
		words := strings.Join(strings.Fields(text), " ")
		for _, w := range p.Leads {
			assert.Contains(t, words, w.Number, name)
		}
	}
}

// What a finished job always has, has its place in the pack: room for every reading, what was
// built otherwise with what it does, what was crimped, covered and left open.
func TestPackHasAllThatAFinishedJobHas(t *testing.T) {
	data, err := fs.ReadFile(testdata.Demo, "demo/1-bookmobile.json")
	require.NoError(t, err)
	var doc map[string]any
	require.NoError(t, json.Unmarshal(data, &doc))
	doc["built"] = map[string]string{"pins/startFuseA": "150"}
	data, err = json.Marshal(doc)
	require.NoError(t, err)
	p := packOf(t, data, "A4")
	pdf, err := export.PDF(p)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "all.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	text := strings.Join(strings.Fields(poppler(t, "pdftotext", file, "-layout")), " ")
	for _, said := range []string{
		"As built DC-DC charger, 30 A. Start run 25 mm², fuse 150 A", "Fuse at the start battery 60 A 150 A",
		"Stop, new: F1 at 150 A is more than C1 bears",
		"Expected readings Fuses out, both batteries connected. Every fuse of the work out", "Signal with the vehicle asleep",
		"clamp round every lead at the aux battery's plus,", "0 A, give or take", "Crimps End How many Tool and die Pulled, how By",
		"Seen before it was covered",
		"Photograph of its joints and grommets", "strap or clamp of the aux battery",
		"What it stands on Answer How it is known", "Regulation variable surveyed", "assumed: ", "Where it is now", "day 1", "Lead A",
		"a meter against minus shows",
	} {
		assert.Contains(t, text, said)
	}
	doc["built"] = nil
	data, err = json.Marshal(doc)
	require.NoError(t, err)
	pdf, err = export.PDF(packOf(t, data, "A4"))
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	assert.NotContains(t, poppler(t, "pdftotext", file, "-layout"), "As built")
}

// Whatever was typed is on paper, or left out where no letter of it can be shown; nothing
// breaks the file.
func TestPackOfStrangeWords(t *testing.T) {
	title := "Πέρκα (\\) <b> 漢字 😀 " + strings.Repeat("long", 25)
	text, err := json.Marshal(map[string]any{"title": title[:100], "customer": "ü\n)", "remarks": strings.Repeat("x ", 1900),
		"loads": map[string]any{"a1": map[string]any{"kind": "fridge", "name": strings.Repeat("W", 60)}}})
	require.NoError(t, err)
	pdf, err := export.PDF(packOf(t, text, "A4"))
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "strange.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	assert.Contains(t, poppler(t, "pdftotext", file), "Πέρκα")
}

// The drawing as SVG is XML, whatever the parts are called.
func FuzzSVG(f *testing.F) {
	f.Add("F1 <&>\"'", "70 A")
	f.Add("\x00\ufffe]]>", "é²")
	f.Fuzz(func(t *testing.T, name, rating string) {
		s := system.System{}
		s.Add(system.Component{ID: "start", Kind: system.KindBattery, Name: name, Rating: rating})
		s.Add(system.Component{ID: "aux", Kind: system.KindBattery, Name: rating, Rating: name})
		s.Join(system.Wire{ID: "c1", Role: system.Feed, From: system.Terminal{Component: "start", Terminal: "30"},
			To: system.Terminal{Component: "aux", Terminal: "30"}, Size: "16 mm²"})
		svg := export.SVG(harness.Draw(&s, []harness.Load{{ID: "l", Name: name, Rating: rating}}), name, unit.Metric)
		valid(t, svg)
	})
}

func BenchmarkPack(b *testing.B) {
	data, err := fs.ReadFile(testdata.Demo, "demo/6-mobile-vet.json")
	require.NoError(b, err)
	for b.Loop() {
		_, err := export.PDF(packOf(b, data, "A4"))
		require.NoError(b, err)
	}
}

// On no sheet and no card is what nobody tested told as known, and of what is not to be built no
// reading is expected.
func TestPackClaimsNothing(t *testing.T) {
	said := func(document string) string {
		return pdfText(t, packOf(t, []byte(document), "A4"))
	}
	const untested = `"signal":{"feed":"a"},"feeds":{"a":{"name":"F14","off":"dead","on":"live"}}`
	open := said(`{"aux":{"chemistry":"agm"},"pins":{"chargerA":10},` + untested + `}`)
	assert.Contains(t, open, "key off, engine stopped: not known")
	assert.NotContains(t, open, "key off, engine stopped: charging")
	assert.Contains(t, open, "key on, engine stopped: charging")
	assert.NotContains(t, open, "NOT TO BE BUILT")
	stopped := said(`{"aux":{"chemistry":"flooded","place":"rear"}}`)
	assert.Contains(t, stopped, "NOT TO BE BUILT")
	assert.Contains(t, stopped, "has no readings to expect")
	assert.NotContains(t, stopped, "it should show about")
}
