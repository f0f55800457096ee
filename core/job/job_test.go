package job_test

import (
	"encoding/json"
	"math"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/working"
)

// The table of fields and the document name the same fields, with the same kinds.
func TestFieldsAreTheDocument(t *testing.T) {
	inDocument := map[string]reflect.Kind{}
	var walk func(string, reflect.Type)
	walk = func(prefix string, s reflect.Type) {
		for i := range s.NumField() {
			f := s.Field(i)
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			switch of := f.Type; {
			case of.Kind() == reflect.Struct:
				walk(prefix+name+".", of)
				continue
			case of.Kind() == reflect.Map && of.Elem().Kind() == reflect.Struct:
				walk(prefix+name+".*.", of.Elem())
				continue
			case of.Kind() == reflect.Map:
				inDocument[prefix+name+".*"] = of.Elem().Kind()
				continue
			}
			kind := f.Type.Kind()
			if kind == reflect.Pointer {
				kind = f.Type.Elem().Kind()
			}
			inDocument[prefix+name] = kind
		}
	}
	walk("", reflect.TypeFor[job.Document]())
	delete(inDocument, "format")
	delete(inDocument, "version")
	for _, f := range job.Fields {
		kind, ok := inDocument[f.Path]
		require.True(t, ok, "%s is not in the document", f.Path)
		numeric := f.Kind == job.Number || f.Kind == job.Level
		assert.Equal(t, numeric, kind == reflect.Float64, f.Path)
		delete(inDocument, f.Path)
	}
	assert.Empty(t, inDocument, "fields of the document that the table lacks")
}

// What is shown as an example is read: of every field, and of every kind of quantity.
func TestExamplesAreRead(t *testing.T) {
	for _, f := range job.Fields {
		if f.Example != "" {
			for _, text := range examples(f) {
				_, err := f.Read(text, 1)
				assert.NoError(t, err, "%s: %q", f.Path, text)
			}
		}
		if f.Kind != job.Number {
			continue
		}
		_, shown, _ := strings.Cut(f.Allowed(1), "such as ")
		for _, text := range strings.Split(shown, ", ") {
			_, err := f.Read(text, 1)
			if err != nil {
				assert.ErrorContains(t, err, "out of range", "%s: %q", f.Path, text)
			}
		}
	}
}

// examples are a field's, one by one: of a cable several are named, all else is one.
func examples(f job.Field) []string {
	if f.Kind == job.CableKey {
		return strings.Split(f.Example, ", ")
	}
	return []string{f.Example}
}

func TestDecodeTakesAnyUnit(t *testing.T) {
	doc, problems := job.Decode([]byte(`{
		"alternator": {"label": " 90-180 a "},
		"aux": {"capacityAh": "1.2 kWh"}, "use": {"dailyAh": "840 Wh", "drivenHours": "1h30"},
		"routes": {"startM": "12 ft 6", "auxM": 0.9}, "bays": {"startC": "140F"},
		"cable": {"insulation": "105 °C"}, "pins": {"startSize": "6 b&s", "startFuseA": "60 A"}}`))
	require.Empty(t, problems)
	assert.Equal(t, "90/180 A", *doc.Alternator.Label)
	assert.Equal(t, 100.0, *doc.Aux.CapacityAh)
	assert.Equal(t, 70.0, *doc.Use.DailyAh)
	assert.Equal(t, 1.5, *doc.Use.DrivenHours)
	assert.InDelta(t, 3.81, *doc.Routes.StartM, 1e-9)
	assert.InDelta(t, 60, *doc.Bays.StartC, 1e-9)
	assert.Equal(t, 105.0, *doc.Cable.Insulation)
	assert.Equal(t, "6 AWG", *doc.Pins.StartSize)
	assert.Equal(t, 60.0, *doc.Pins.StartFuseA)
}

// Every problem names its field, the value and what is allowed; the rest is kept.
func TestDecodeNamesWhatItRefuses(t *testing.T) {
	cases := []struct{ text, field, wrong string }{
		{`{"use":{"dailyAh":-3}}`, "use.dailyAh", "out of range"},
		{`{"use":{"dailyAh":1e308}}`, "use.dailyAh", "out of range"},
		{`{"use":{"dailyAh":1e999}}`, "use.dailyAh", "out of range"},
		{`{"use":{"dailyAh":"lots"}}`, "use.dailyAh", "is not a charge"},
		{`{"use":{"dailyAh":true}}`, "use.dailyAh", "is not a quantity"},
		{`{"use":{"dailyAh":[1]}}`, "use.dailyAh", "is not a quantity"},
		{`{"routes":{"startM":"0 m"}}`, "routes.startM", "out of range"},
		{`{"routes":{"startM":"5 kg"}}`, "routes.startM", "is not a length"},
		{`{"alternator":{"label":"10000 A"}}`, "alternator.label", "is not an alternator label"},
		{`{"alternator":{"volts":28}}`, "alternator.volts", "out of range"},
		{`{"vehicle":{"kind":"spaceship"}}`, "vehicle.kind", "is not known"},
		{`{"vehicle":{"wings":2}}`, "vehicle.wings", "is not a field of a job"},
		{`{"vehicle":7}`, "vehicle", "is not an object"},
		{`{"pins":{"startSize":"8 mm"}}`, "pins.startSize", "outside diameter"},
		{`{"pins":{"startFuseA":61}}`, "pins.startFuseA", "is not one of them"},
		{`{"title":"` + strings.Repeat("é", 121) + `"}`, "title", "has 121 characters"},
		{`{"loads":{"k1":{"watts":-1}}}`, "loads.k1.watts", "out of range"},
		{`{"loads":{"k1":{"flavour":1}}}`, "loads.k1.flavour", "is not a field of a job"},
		{`{"loads":{"K 1":{"watts":1}}}`, "loads.K 1", "cannot name a row"},
		{`{"loads":{"k1":3}}`, "loads.k1", "is not an object"},
		{`{"found":{"k1":{"size":"8 mm"}}}`, "found.k1.size", "outside diameter"},
		{`{"known":{"routes/startM":"guessed"}}`, "known.routes/startM", "is not known"},
		{`{"known":{"routes/nowhere":"book"}}`, "known.routes/nowhere", "cannot name a row"},
		{`{"bogus":1}`, "bogus", "is not a field of a job"},
		{`{"version":2}`, "version", "newer than this build reads"},
		{`{"version":0}`, "version", "is not a version"},
		{`{"format":"other"}`, "format", "is another format"},
		{``, "", "is not JSON"},
		{`null`, "", "is no object"},
		{`[1]`, "", "is no object"},
		{`{"title":"a"}}`, "", "goes on after its end, at line 1, column 14"},
		{"{\n  \"title\": \"a\",\n  nope\n}", "", "line 3"},
		{`{"title":"a"`, "", "ends too early"},
		{`{"title":"a","title":"b"}`, "title", "stands twice"},
		{`{"loads":{"k1":{"watts":1,"watts":2}}}`, "loads.k1.watts", "stands twice"},
		{`{"a":` + strings.Repeat(`{"a":`, 20) + `1` + strings.Repeat(`}`, 21), "a.a.a.a.a.a.a.a.a.a.a.a.a", "too deep"},
		{`{"title":"a\u0000b"}`, "title", "holds U+0000"},
		{`{"title":"\u202eevil"}`, "title", "holds U+202E"},
		{`{"card":{"currency":"12$"}}`, "card.currency", "is not a currency"},
		{`{"card":{"pricedOn":"yesterday"}}`, "card.pricedOn", ""},
		{`{"loads":{"k1":{"watts":"1,200 W"}}}`, "loads.k1.watts", "may be 1200 or 1.2"},
		{`{"dates":{"k1":{"everyDays":"1,825"}}}`, "dates.k1.everyDays", "may be 1825 or 1.825"},
		{`{"pins":{"startSize":"16,500 mm2"}}`, "pins.startSize", "may be 16500 or 16.5"},
		{`{} {}`, "", "goes on after its end"},
		{"{\"title\":\"\xff\"}", "", "not valid UTF-8 at line 1, column 11"},
		{`{"title":"` + strings.Repeat("x", job.MaxBytes) + `"}`, "", "bytes"},
	}
	for _, c := range cases {
		_, problems := job.Decode([]byte(c.text))
		require.Len(t, problems, 1, c.text)
		assert.Equal(t, c.field, problems[0].Field, c.text)
		assert.Contains(t, problems[0].Wrong, c.wrong, c.text)
		assert.NotEmpty(t, problems[0].Allowed, c.text)
		assert.LessOrEqual(t, len(problems[0].Value), 70)
	}
	doc, problems := job.Decode([]byte(`{"title":"kept","use":{"dailyAh":-1,"drivenHours":2}}`))
	assert.Len(t, problems, 1)
	assert.Equal(t, "kept", doc.Title)
	assert.Equal(t, 2.0, *doc.Use.DrivenHours)
	assert.Nil(t, doc.Use.DailyAh)
}

func TestLimitsGrowWithTheSystem(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"vehicle":{"systemVolts":24},"alternator":{"volts":28.4},"use":{"dailyAh":"1680 Wh"}}`))
	require.Empty(t, problems)
	assert.Equal(t, 70.0, *doc.Use.DailyAh)
	assert.Equal(t, 2.0, doc.Resolve(coupling.DCDC).N)
}

func TestEncodeIsStable(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"use":{"drivenHours":2},"title":"A","aux":{"place":"rear"}}`))
	require.Empty(t, problems)
	again, problems := job.Decode(doc.Encode())
	require.Empty(t, problems)
	assert.Equal(t, doc.Encode(), again.Encode())
	assert.Equal(t, doc.Digest(), again.Digest())
	assert.JSONEq(t, `{"format":"epitrope-job","version":1,"title":"A","aux":{"place":"rear"},"use":{"drivenHours":2}}`, string(doc.Encode()))
}

func TestDiffSaysWhatChanged(t *testing.T) {
	from, _ := job.Decode([]byte(`{"title":"A","aux":{"capacityAh":100,"chemistry":"agm"}}`))
	to, _ := job.Decode([]byte(`{"aux":{"capacityAh":200,"chemistry":"agm"},"vehicle":{"kind":"wagon"}}`))
	assert.Equal(t, []job.Change{
		{Path: "aux.capacityAh", Label: "Aux battery capacity", From: "100 Ah", To: "200 Ah"},
		{Path: "title", Label: "Title", From: "A", To: ""},
		{Path: "vehicle.kind", Label: "Vehicle", From: "", To: "wagon"},
	}, job.Diff(from, to))
	assert.Empty(t, job.Diff(from, from))
	rows, _ := job.Decode([]byte(`{"title":"A","aux":{"capacityAh":100,"chemistry":"agm"},"loads":{"k1":{"kind":"fridge","hours":24},` +
		`"k2":{"kind":"fan","name":"roof"}},"known":{"aux/capacityAh":"book"}}`))
	labels := []string{}
	for _, c := range job.Diff(from, rows) {
		labels = append(labels, c.Label)
	}
	assert.Equal(t, []string{"Aux battery capacity: Known by", "Hours a day (compressor fridge)", "Load (compressor fridge)", "Load (roof)",
		"Called (roof)"}, labels)
}

// What was not answered is assumed, says why, and is a value that would be allowed.
func TestResolveAssumesOpenly(t *testing.T) {
	for _, k := range []coupling.Kind{coupling.DCDC, coupling.VSR} {
		facts := job.New().Resolve(k)
		for _, f := range facts.List {
			assert.Equal(t, working.Assumed, f.Origin, f.Path)
			assert.NotEmpty(t, f.Why, f.Path)
			assert.NotEmpty(t, f.Text, f.Path)
		}
		assert.True(t, facts.Varies(), "not known is taken as variable")
		for _, q := range facts.Questions() {
			assert.False(t, q.Settled, q.ID)
		}
	}
}

// Six answers give a first full plan.
func TestSixQuestionsComeFirst(t *testing.T) {
	questions := job.New().Resolve(coupling.DCDC).Questions()
	for i, q := range questions {
		assert.Equal(t, i < 6, q.First, q.ID)
	}
	doc, problems := job.Decode([]byte(`{"vehicle":{"kind":"wagon"},"alternator":{"label":"120 A"},"aux":{"chemistry":"agm",` +
		`"capacityAh":100,"place":"rear"},"use":{"dailyAh":40,"drivenHours":2}}`))
	require.Empty(t, problems)
	for _, q := range doc.Resolve(coupling.DCDC).Questions() {
		assert.Equal(t, q.First, q.Settled, q.ID)
	}
}

// A test or the label settles the regulation; the model year does not.
func TestWhatProvesRegulation(t *testing.T) {
	for knownBy, varies := range map[string]bool{"test": false, "label": false, "year": true, "guess": true} {
		doc, _ := job.Decode([]byte(`{"alternator":{"regulation":"fixed","knownBy":"` + knownBy + `"}}`))
		assert.Equal(t, varies, doc.Resolve(coupling.DCDC).Varies(), knownBy)
	}
	doc, _ := job.Decode([]byte(`{"alternator":{"regulation":"variable","knownBy":"test"}}`))
	assert.True(t, doc.Resolve(coupling.DCDC).Varies())
}

// Every place lies inside its vehicle, behind the start battery's side of it.
func TestPlacesAreOnTheVehicle(t *testing.T) {
	for _, b := range job.Bodies {
		for _, p := range b.Places {
			assert.True(t, p.At.X > b.Start.X && p.At.X < b.LengthM && p.At.Y > 0 && p.At.Y < b.HeightM, "%s %s", b.Kind, p.ID)
			assert.Greater(t, job.Route(b.Start, p.At), p.At.X-b.Start.X, "a route is longer than the straight line")
		}
		for _, o := range b.Outlines {
			for _, at := range o {
				assert.True(t, at.X >= 0 && at.X <= b.LengthM && at.Y >= 0 && at.Y <= b.HeightM, b.Kind)
			}
		}
	}
}

// What holds for every vehicle of a model goes into its book; what holds for this one, or
// was only assumed, does not.
func TestForBook(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"title":"A","vehicle":{"model":"Heron 3","kind":"wagon","loadA":30,"year":2015},
"alternator":{"label":"120 A"},"routes":{"startM":4,"auxM":1},
		"aux":{"capacityAh":100},"feeds":{"f1":{"name":"F22","on":"live"}},"points":{"p1":{"kind":"earth","where":"behind the left rear trim"}},
"known":{"routes/auxM":"assumed"}}`))
	require.Empty(t, problems)
	assert.JSONEq(t, `{"format":"epitrope-job","version":1,"vehicle":{"model":"Heron 3","kind":"wagon","year":2015},
"alternator":{"label":"120 A"},"routes":{"startM":4},
		"feeds":{"f1":{"name":"F22","on":"live"}},"points":{"p1":{"kind":"earth",
"where":"behind the left rear trim"}}}`, string(doc.ForBook().Encode()))
	newer, _ := job.Decode([]byte(`{"alternator":{"label":"180 A"},"feeds":{"f2":{"name":"F3","off":"live"}}}`))
	over := doc.ForBook().Over(newer)
	assert.Equal(t, "180 A", *over.Alternator.Label, "the newest answer holds")
	assert.Len(t, over.Feeds, 2, "and no row is lost")
	assert.Equal(t, 4.0, *over.Routes.StartM)
}

func FuzzDecode(f *testing.F) {
	f.Add([]byte(`{"use":{"dailyAh":"840 Wh"},"pins":{"startSize":"6 AWG"}}`))
	f.Add([]byte(`{"version":1,"vehicle":{"systemVolts":24},"alternator":{"volts":28}}`))
	f.Add([]byte(`{"a":{"b":{"c":[]}}}`))
	f.Add([]byte(`{"loads":{"k1":{"kind":"fridge","hours":24}},"found":{"w1":{"size":"16 mm2","sources":"both"}},` +
		`"known":{"routes/startM":"book"},"gear":{"":{}}}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		doc, problems := job.Decode(data)
		for _, p := range problems {
			assert.NotEmpty(t, p.Wrong)
			assert.NotEmpty(t, p.Allowed)
		}
		again, rest := job.Decode(doc.Encode())
		require.Empty(t, rest, "what was read can be read again")
		require.Equal(t, doc.Encode(), again.Encode())
		facts := doc.Resolve(coupling.DCDC)
		assert.False(t, math.IsNaN(facts.StartM.Value))
		_, err := json.Marshal(facts.Questions())
		require.NoError(t, err)
	})
}
