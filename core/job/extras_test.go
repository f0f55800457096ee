package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/working"
)

func factsOf(t *testing.T, text string) job.Facts {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	return doc.Resolve(coupling.DCDC)
}

func noted(f job.Facts, path string) *job.Fact {
	for i := range f.List {
		if f.List[i].Path == path {
			return &f.List[i]
		}
	}
	return nil
}

// What is not fitted is not noted; what is has defaults that stay marked as assumed, by its
// chemistry and at its voltage.
func TestExtrasAreAssumedOnlyWhereTheyAreFitted(t *testing.T) {
	bare := factsOf(t, `{"extras":{"shuntA":300,"opensV":12,"winchA":200,"socketA":5}}`)
	for _, path := range []string{"extras.shuntA", "extras.opensV", "extras.winchA", "extras.socketA", "extras.isolator"} {
		assert.Nil(t, noted(bare, path), path)
	}
	assert.Equal(t, job.NoIsolator, bare.Extras.Isolator)
	lead := factsOf(t, `{"aux":{"chemistry":"agm"},"extras":{"disconnect":"yes","monitor":"yes"}}`)
	assert.InDelta(t, 11.8, lead.Extras.OpensV.Value, 1e-9)
	assert.Equal(t, working.Assumed, lead.Extras.OpensV.Origin)
	assert.InDelta(t, 50, lead.Extras.ShuntMV.Value, 1e-9)
	big := factsOf(t, `{"vehicle":{"systemVolts":24},"extras":{"disconnect":"yes"}}`)
	assert.InDelta(t, 24.8, big.Extras.OpensV.Value, 1e-9, "LiFePO4 at 24 V")
	own := factsOf(t, `{"extras":{"disconnect":"yes","opensV":"12.1 V"}}`)
	assert.InDelta(t, 12.1, own.Extras.OpensV.Value, 1e-9)
	assert.Equal(t, working.Surveyed, own.Extras.OpensV.Origin)
	trailer := factsOf(t, `{"vehicle":{"kind":"tow-caravan"},"extras":{"socketA":5}}`)
	assert.Equal(t, job.PermanentContact, trailer.Extras.SocketContact, "taken at its worst")
	winch := factsOf(t, `{"vehicle":{"winch":"yes"}}`)
	assert.True(t, winch.Extras.Winch)
	assert.Equal(t, job.WinchAtStart, winch.Extras.WinchFrom)
}

// Bad answers about extras and dates are named with what is allowed.
func TestBadExtrasAreNamed(t *testing.T) {
	for text, field := range map[string]string{
		`{"extras":{"isolator":"roof"}}`:                      "extras.isolator",
		`{"extras":{"isolatorA":5}}`:                          "extras.isolatorA",
		`{"extras":{"opensV":"9 A"}}`:                         "extras.opensV",
		`{"extras":{"bondSize":"8 mm"}}`:                      "extras.bondSize",
		`{"dates":{"d1":{"due":"1.5.2030"}}}`:                 "dates.d1.due",
		`{"dates":{"d1":{"everyDays":0}}}`:                    "dates.d1.everyDays",
		`{"dates":{"d1":{"kind":"party"}}}`:                   "dates.d1.kind",
		`{"card":{"detectOnV":20}}`:                           "card.detectOnV",
		`{"colours":{"feed":"` + string(make31()) + `"}}`:     "colours.feed",
		`{"built":{"extras/opensV":7,"pins/startFuseA":"x"}}`: "built.extras/opensV",
	} {
		_, problems := job.Decode([]byte(text))
		require.Len(t, problems, 1, text)
		assert.Equal(t, field, problems[0].Field)
		assert.NotEmpty(t, problems[0].Allowed)
	}
}

func make31() []byte {
	b := make([]byte, 31)
	for i := range b {
		b[i] = 'r'
	}
	return b
}

// A date is open until it was done on its day or after it.
func TestDatesAreOpen(t *testing.T) {
	day := func(s string) *string { return &s }
	assert.False(t, job.Due{}.Open())
	assert.True(t, job.Due{Due: day("2031-05-01")}.Open())
	assert.True(t, job.Due{Due: day("2031-05-01"), Done: day("2031-04-30")}.Open())
	assert.False(t, job.Due{Due: day("2031-05-01"), Done: day("2031-05-01")}.Open())
}

// The vehicle book takes answers one by one, as text, and gives them up again.
func TestBookAnswersOneByOne(t *testing.T) {
	doc, problems := job.New().Put("routes.startM", "12 ft 6", "measured")
	require.Empty(t, problems)
	doc, problems = doc.Put("feeds.f1.name", "F22", "")
	require.Empty(t, problems)
	answers := doc.BookAnswers()
	require.Len(t, answers, 2)
	assert.Equal(t, "feeds.f1.name", answers[0].Path)
	assert.Equal(t, "measured", answers[1].Known)
	assert.Equal(t, "3.81 m", answers[1].Text)
	again, problems := job.New().Put(answers[1].Path, answers[1].Text, answers[1].Known)
	require.Empty(t, problems)
	assert.InDelta(t, 3.81, *again.Routes.StartM, 1e-4)
	for _, path := range []string{"aux.capacityAh", "known.routes/startM", "vehicle.loadA", "nothing", "title"} {
		_, problems := doc.Put(path, "1", "")
		assert.Len(t, problems, 1, path)
	}
	gone := doc.Without([]string{"routes.startM"})
	assert.Nil(t, gone.Routes.StartM)
	assert.Empty(t, gone.Known)
	assert.Len(t, gone.BookAnswers(), 1)
	assert.Empty(t, doc.Without([]string{"*"}).BookAnswers())
}
