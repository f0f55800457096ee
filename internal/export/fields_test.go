package export_test

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/parts"
	"epitrope/core/procedure"
	"epitrope/core/section"
	"epitrope/core/study"
	"epitrope/internal/jobtest"
	"epitrope/internal/pack"
)

// records are the fields that nothing follows from: names, remarks, colours, dates, places and how sheets are written.
var records = []string{"title", "customer", "plate", "remarks", "vehicle.model", "card.name", "card.price", "card.currency",
	"card.pricedOn",
	"written.units", "written.paper",
	"relay.name", "loads.*.name", "gear.*.name", "gear.*.fault", "found.*.colour", "found.*.remark", "feeds.*.name", "colours.feed",
	"colours.return", "colours.signal", "colours.house", "points.*.kind", "points.*.where", "points.*.size", "dates.*.kind",
	"dates.*.what", "dates.*.due", "dates.*.everyDays", "dates.*.bay", "dates.*.done",
	"fitted.*.what", "fitted.*.serial", "fitted.*.lot", "settings.*.name", "settings.*.how", "known.*",
	"built.*"}

// bases are jobs in which fields are tried: in some of them what a field needs beside it is there.
var bases = []string{
	`{}`,
	`{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm","place":"seat",
		"capacityAh":100},"pins":{"coupling":"vsr"},"relay":{"ratedA":60}}`,
	`{"alternator":{"label":"90/180 A","regulation":"variable"},"aux":{"chemistry":"lifepo4","count":2},"wants":{"emergencyStart":"yes"},
		"pins":{"coupling":"changeover"},"vehicle":{"winch":"yes","sensor":"yes"},"extras":{"monitor":"yes","disconnect":"yes",
		"peakA":60,"isolator":"front","managementA":100},
		"profile":{"disable":"yes"},"schools":{"negative":"post"},"solar":{"through":"yes"},"day":{"solarW":200,"outsideC":-8}}`,
	`{"vehicle":{"kind":"tow-caravan"},"aux":{"place":"trailer"},"extras":{"socketA":8}}`,
	`{"vehicle":{"kind":"ute-tray","bonded":"no"},"alternator":{"regulation":"fixed","knownBy":"label"},"aux":{"chemistry":"agm",
		"place":"rear"},"pins":{"coupling":"contactor","return":"cable"},"schools":{"emergency":"crank","inSeries":"yes"}}`,
	`{"alternator":{"label":"90/180 A","volts":14.4,"regulation":"fixed","knownBy":"test"},
		"aux":{"chemistry":"lifepo4","restV":13.2,"loadedV":13.0,"loadedA":20},
		"card":{"outputA":30,"detectOnV":13.2},"day":{"trigger":"voltage","pattern":"own","own":"park 6 h, crank 2 s, highway 2 h, park 2 h",
		"outsideC":5},"startBattery":{"restV":12.6,"loadedV":12.4,"loadedA":40},
		"placing":{"lengthMM":300,"widthMM":250,"heightMM":150},"fit":{"lengthMM":330,"widthMM":173,"heightMM":220,"recessLengthMM":340,
		"recessWidthMM":180,"recessHeightMM":245,"openingLengthMM":340,"openingWidthMM":180},"cable":{"insulation":85}}`,
	`{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm"},"have":{"coupling":"vsr",
		"couplingA":60,"fuseA":60,"fuses":2,"size":"16 mm2","metres":10,"relayA":100},"loads":{"r1":{"kind":"fridge"}},
		"gear":{"r1":{"kind":"contactor","works":"works"}},"feeds":{"r1":{"name":"F22","ratingA":15,"off":"dead","on":"live","running":"live",
		"accessory":"dead","cranking":"live","slept":"dead"}},"signal":{"feed":"r1"},"settings":{"r1":{"name":"A","absorptionV":14.2,
		"leadA":"battery","leadB":"open"},"r2":{"name":"B","for":"agm","absorptionV":14.4,"leadA":"ground","leadB":"open"}},
		"profile":{"broken":"a"},"found":{"r1":{"role":"start","endA":"start battery","endB":"relay",
		"size":"16 mm2","lengthM":5,"fuseA":60,"fuseMM":100,"amps":30,"sources":"both","fuseBA":60},"r2":{"role":"aux",
		"endA":"relay","endB":"aux battery","size":"16 mm2","lengthM":1,"fuseBA":60,"fuseA":60}},
		"joints":{"c1to":{"mV":40,"atA":40}},"routes":{"startM":5,"auxM":0.9}}`,
	`{"aux":{"chemistry":"agm"},"settings":{"r1":{"name":"A","absorptionV":14.2,"leadA":"open"},"r2":{"name":"B","for":"agm",
		"absorptionV":14.4,"leadA":"ground","leadB":"open"}},"profile":{"broken":"a"}}`,
	`{"aux":{"chemistry":"agm"},"found":{"r1":{"role":"start","size":"16 mm2","fuseA":80}}}`,
	`{"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover"},"gear":{"r1":{"kind":"isolator","works":"works"}}}`,
	`{"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover"},"gear":{"r1":{"kind":"changeover","works":"works"}}}`,
	`{"aux":{"chemistry":"agm","place":"bonnet"},"pins":{"coupling":"second"},"vehicle":{"secondRoom":"yes"}}`,
	`{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm","place":"seat"},
		"pins":{"coupling":"selector"},"extras":{"bond":"yes"},"vehicle":{"winch":"yes"}}`,
	`{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"lifepo4"},
		"pins":{"coupling":"splitter"}}`,
	`{"aux":{"chemistry":"agm"},"arranged":{"from":"stud","fromA":20,"fromH":0.5},"bank":{"r1":{"ah":100},"r2":{"ah":60}},
		"drilling":{"bolts":4,"thread":"M6"},"mains":{"outputA":20,"generatorW":1000,"absorptionV":14.4}}`,
	`{"aux":{"chemistry":"lifepo4","capacityAh":300},"pins":{"coupling":"highcurrent"},"alternator":{"label":"150/250 A"}}`,
}

// No answer is accepted and ignored: each that is no record changes a figure, a verdict, a note, a
// part or a step of some job.
func TestNoAnswerIsIgnored(t *testing.T) {
	before := make([]told, len(bases))
	for i, base := range bases {
		was := tell(t, base)
		before[i] = told{sync.OnceValue(was.judged), sync.OnceValue(was.sheets), sync.OnceValue(was.days)}
	}
	every := jobtest.Fewer(1, 5) // in the usual run a fifth of the fields, all of them in the long one
	for i, f := range job.Fields {
		if slices.Contains(records, f.Path) || i%every != 0 {
			continue
		}
		assert.True(t, moves(t, f, before), "%s changes nothing", f.Path)
	}
	for _, path := range records {
		assert.True(t, slices.ContainsFunc(job.Fields, func(f job.Field) bool { return f.Path == path }), "%s is no field", path)
	}
}

// told is what a job is told: what is decided and judged, all its sheets, and how its days go; the quickest
// first.
type told struct{ judged, sheets, days func() string }

func (t told) at(stage int) string { return []func() string{t.judged, t.sheets, t.days}[stage]() }

// tell takes all answers about a job but the echo of what was answered.
func tell(t *testing.T, document string) told {
	t.Helper()
	doc, problems := job.Decode([]byte(document))
	require.Empty(t, problems, document)
	d := design.Of(doc, parts.Stock())
	return told{func() string {
		return encode(t, []any{d.System, section.ShownStates(d), judge.Notes(d), judge.Checks(d), judge.SettingsOf(d),
			judge.ChargingOf(d), d.Methods})
	}, func() string {
		p := pack.New(d, pack.Workshop{})
		p.Document, p.Plan.Job, p.Plan.Facts, p.Plan.Questions, p.Plan.Title = job.Document{}, "", nil, nil, nil
		p.Plan.StandIns, p.Plan.Summary = nil, ""
		return encode(t, p) + encode(t, procedure.CalendarOf(d))
	}, func() string {
		return encode(t, study.Try(d, study.Window{}, nil))
	}}
}

func encode(t *testing.T, v any) string {
	data, err := json.Marshal(v)
	require.NoError(t, err)
	return string(data)
}

// trial is one of the jobs, told so far.
type trial struct{ stage, base int }

// worked is where fields of a section moved something: the next one most likely does there too. Those that show
// in a run through time alone are looked for there first.
var worked = map[string][]trial{"day": {{2, 0}, {2, 2}, {2, 5}}, "relay": {{2, 1}}, "card": {{2, 5}}}

// moves says whether an answer to a field changes what some job is told.
func moves(t *testing.T, f job.Field, before []told) bool {
	path := strings.Replace(f.Path, "*", "r1", 1)
	if strings.HasPrefix(path, "joints.") {
		path = strings.Replace(path, "r1", "c1to", 1)
	}
	with := func(base string, v any) (string, bool) {
		var doc map[string]any
		require.NoError(t, json.Unmarshal([]byte(base), &doc))
		at, keys := doc, strings.Split(path, ".")
		for _, key := range keys[:len(keys)-1] {
			next, ok := at[key].(map[string]any)
			if !ok {
				next = map[string]any{}
				at[key] = next
			}
			at = next
		}
		at[keys[len(keys)-1]] = v
		out := encode(t, doc)
		_, problems := job.Decode([]byte(out))
		return out, len(problems) == 0
	}
	section, _, _ := strings.Cut(f.Path, ".")
	order := slices.Clone(worked[section])
	for stage := range 3 {
		for base := range bases {
			if at := (trial{stage, base}); !slices.Contains(worked[section], at) {
				order = append(order, at)
			}
		}
	}
	for _, at := range order {
		for _, v := range tries(f) {
			document, ok := with(bases[at.base], v)
			if ok && tell(t, document).at(at.stage) != before[at.base].at(at.stage) {
				if !slices.Contains(worked[section], at) {
					worked[section] = append(worked[section], at)
				}
				return true
			}
		}
	}
	return false
}

// tries are answers that a field takes.
func tries(f job.Field) []any {
	switch f.Kind {
	case job.Choice:
		list := make([]any, len(f.Choices))
		for i, c := range f.Choices {
			list[i] = c.Value
		}
		return list
	case job.Level:
		var list []any
		for _, c := range f.Choices {
			v, err := strconv.ParseFloat(c.Value, 64)
			if err != nil {
				panic(err) // a level is a number
			}
			list = append(list, v)
		}
		return list
	case job.Number:
		return []any{f.Max, f.Min, f.Min + 0.03*(f.Max-f.Min), f.Min + 0.3*(f.Max-f.Min), f.Min + 0.7*(f.Max-f.Min)}
	case job.CableKey:
		return []any{"4 mm2", "50 mm2"}
	case job.Cables:
		return []any{"25 mm2, 4 AWG", "1 AWG"}
	case job.LabelKey:
		return []any{"40 A", "150/250 A"}
	case job.Driving:
		return []any{"park 8 h, crank 2 s, town 20 min, park 14 h"}
	case job.Resting:
		return []any{"0 % 11, 50 % 13, 100 % 14"}
	case job.Date:
		return []any{"2030-05-01"}
	}
	return []any{"x", "r1", "r2"}
}
