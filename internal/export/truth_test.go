package export_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/method"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/retrofit"
	"epitrope/core/run"
	"epitrope/core/study"
	"epitrope/core/verdict"
	"epitrope/internal/export"
	"epitrope/internal/jobtest"
	"epitrope/internal/pack"
	"epitrope/testdata"
)

// spoken is everything that is said of a job.
type spoken struct {
	d    *design.Design
	pack pack.Pack
	text string
}

func speak(t *testing.T, data []byte) spoken {
	t.Helper()
	pack := packOf(t, data, "A4")
	d := jobtest.Design(t, string(data))
	told := allText(t, []any{pack.Plan, pack.Modes, pack.Found, pack.Steps, study.Schools(d)})
	return spoken{d: d, pack: pack, text: told + pdfText(t, pack)}
}

// allText are sentences as they are told to a program.
func allText(t *testing.T, of any) string {
	t.Helper()
	var text bytes.Buffer
	to := json.NewEncoder(&text)
	to.SetEscapeHTML(false)
	require.NoError(t, to.Encode(of))
	return text.String()
}

// pdfText are those of a pack on paper.
func pdfText(t *testing.T, p pack.Pack) string {
	t.Helper()
	pdf, err := export.PDF(p)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "pack.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	return strings.Join(strings.Fields(poppler(t, "pdftotext", file, "-raw")), " ")
}

// notes are those of a severity; "" for any.
func (s spoken) notes(of string) []string {
	ids := []string{}
	for _, n := range s.pack.Plan.Notes {
		if of == "" || n.Severity == of {
			ids = append(ids, n.ID)
		}
	}
	return ids
}

// said answers what a verdict asks, by where it asks it.
var said = map[string]func(t *testing.T, s spoken, what string) bool{
	"note":    func(_ *testing.T, s spoken, what string) bool { return among(s.notes(""), what) },
	"stop":    func(_ *testing.T, s spoken, what string) bool { return among(s.notes(verdict.Stop), what) },
	"caution": func(_ *testing.T, s spoken, what string) bool { return among(s.notes(verdict.Beware), what) },
	"check": func(_ *testing.T, s spoken, what string) bool {
		level := jobtest.CheckLevel(s.pack.Plan, what)
		return level != "" && level != string(verdict.Good)
	},
	"good": func(_ *testing.T, s spoken, what string) bool {
		return jobtest.CheckLevel(s.pack.Plan, what) == string(verdict.Good)
	},
	"any": func(_ *testing.T, s spoken, what string) bool {
		return slices.ContainsFunc(strings.Fields(what), func(id string) bool {
			return among(s.notes(""), id) || jobtest.CheckLevel(s.pack.Plan, id) != ""
		})
	},
	"says": func(_ *testing.T, s spoken, what string) bool { return strings.Contains(s.text, what) },
	"mode": func(t *testing.T, s spoken, what string) bool {
		at, rule := what[:strings.LastIndex(what, " ")], what[strings.LastIndex(what, " ")+1:]
		place := strings.Split(at, "/")
		return jobtest.Line(t, s.pack.Modes, place[0], place[1], place[2]).Rule == rule
	},
	"finding": func(t *testing.T, s spoken, what string) bool {
		key, id, _ := strings.Cut(what, " ")
		i := slices.IndexFunc(s.pack.Found.Wires, func(w retrofit.WireVerdict) bool { return w.Key == key })
		require.GreaterOrEqual(t, i, 0)
		return slices.ContainsFunc(s.pack.Found.Wires[i].Findings, func(f retrofit.WireFinding) bool { return f.ID == id })
	},
	"gear": func(t *testing.T, s spoken, what string) bool {
		key, fragment, _ := strings.Cut(what, " ")
		i := slices.IndexFunc(s.pack.Found.Gear, func(g retrofit.GearVerdict) bool { return g.Key == key })
		require.GreaterOrEqual(t, i, 0)
		return strings.Contains(s.pack.Found.Gear[i].Why, fragment)
	},
	"fate": func(_ *testing.T, s spoken, what string) bool {
		fates := []string{}
		for _, w := range s.pack.Found.Wires {
			fates = append(fates, w.Key+" "+w.Fate)
		}
		for _, g := range s.pack.Found.Gear {
			fates = append(fates, g.Key+" "+g.Fate)
		}
		return slices.Contains(fates, what)
	},
	"cure": func(_ *testing.T, s spoken, what string) bool {
		path, value, _ := strings.Cut(what, "=")
		return slices.ContainsFunc(s.pack.Plan.Notes, func(n judge.Note) bool {
			return slices.ContainsFunc(n.Cures, func(c verdict.Cure) bool { return c.Path == path && c.Value == value })
		})
	},
	"saved": func(_ *testing.T, s spoken, _ string) bool {
		return !slices.ContainsFunc([]*run.Sized{&s.d.Start, &s.d.Aux}, func(r *run.Sized) bool {
			return r.Fuse.RatingA > r.Trial.AmpacityA+0.5 && !among(s.notes(verdict.Stop), "fuse.over")
		})
	},
	"best":   func(_ *testing.T, s spoken, what string) bool { return s.pack.Plan.Signal.Best == what },
	"chosen": func(_ *testing.T, s spoken, what string) bool { return string(s.d.Kind) == what },
	"ruled": func(_ *testing.T, s spoken, what string) bool {
		kind, id, _ := strings.Cut(what, " ")
		return slices.ContainsFunc(methodOf(s, kind).Reasons, func(r method.Reason) bool { return r.ID == id && r.Effect == method.RulesOut })
	},
	"reason": func(_ *testing.T, s spoken, what string) bool {
		kind, id, _ := strings.Cut(what, " ")
		return slices.ContainsFunc(methodOf(s, kind).Reasons, func(r method.Reason) bool { return r.ID == id })
	},
	"unruled": func(_ *testing.T, s spoken, what string) bool { return !methodOf(s, what).RuledOut },
	"step": func(_ *testing.T, s spoken, what string) bool {
		return slices.ContainsFunc(s.pack.Steps, func(one procedure.Step) bool { return one.ID == what })
	},
	"holds": func(_ *testing.T, s spoken, what string) bool {
		return slices.ContainsFunc(week(s).Aims, func(m study.Met) bool { return m.ID == what && m.Met })
	},
	"week": func(_ *testing.T, s spoken, what string) bool {
		id, level, _ := strings.Cut(what, " ")
		return slices.ContainsFunc(week(s).Verdicts, func(v study.Verdict) bool { return v.ID == id && string(v.Level) == level })
	},
}

func week(s spoken) study.Trial { return study.Try(s.d, study.Window{}, nil) }

func methodOf(s spoken, kind string) method.Candidate {
	i := slices.IndexFunc(s.pack.Plan.Methods, func(m method.Candidate) bool { return string(m.Kind) == kind })
	return s.pack.Plan.Methods[i]
}

// among says whether a list holds an id, or anything at all where "*" is asked.
func among(list []string, id string) bool {
	return id == "*" && len(list) > 0 || slices.Contains(list, id)
}

// What a master must say of complete jobs is said, and what must not be said is not.
func TestMastersVerdicts(t *testing.T) {
	data, err := fs.ReadFile(testdata.Truth, "truth/verdicts.csv")
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(data)).ReadAll()
	require.NoError(t, err)
	heard := map[string]spoken{}
	kinds := map[string]bool{}
	kindField, _ := job.FieldAt("vehicle.kind")
	for _, row := range rows[1:] {
		name, rule, must, where, what := row[0], row[1], row[2], row[3], row[4]
		if _, ok := heard[name]; !ok {
			data, err := fs.ReadFile(testdata.Truth, "truth/"+name+".json")
			require.NoError(t, err)
			heard[name] = speak(t, data)
			kinds[job.Str(heard[name].d.Doc.Vehicle.Kind)] = true
		}
		require.Contains(t, said, where, name)
		assert.Equal(t, must == "+", said[where](t, heard[name], what), "%s, rule %s: %s %s %s", name, rule, must, where, what)
	}
	assert.GreaterOrEqual(t, len(heard), 40)
	assert.Len(t, kinds, len(kindField.Choices))
}

// Sizes that rest on what nobody answered say so on the pack's cover, on the command line's first line and
// in the plan; with every question answered nothing stands in.
func TestStandInsAreSaid(t *testing.T) {
	open := packOf(t, []byte(`{"aux":{"capacityAh":200}}`), "A4")
	assert.Contains(t, open.Plan.Summary, "stand-ins")
	assert.Contains(t, open.Plan.StandIns, "Daily use: 50 Ah")
	assert.NotContains(t, strings.Join(open.Plan.StandIns, "; "), "200 Ah")
	cover := pdfText(t, open)
	assert.Contains(t, cover, "are stand-ins")
	assert.Contains(t, cover, "Daily use: 50 Ah")
	answered := map[string]any{"alternator.knownBy": "test"}
	for _, q := range open.Plan.Questions {
		for _, path := range q.Fields {
			f, _ := job.FieldAt(path)
			for _, fact := range open.Plan.Facts {
				if fact.Path != path {
					continue
				}
				answered[path] = fact.Text
				if len(f.Choices) > 0 {
					answered[path] = f.Choices[0].Value
				}
			}
		}
	}
	doc, problems := job.With(open.Document, answered)
	require.Empty(t, problems)
	done := plan.Decide(doc, parts.Stock())
	assert.NotContains(t, done.Summary, "stand-ins")
	assert.Empty(t, done.StandIns)
}
