package prove_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// Every reading of every job, legal ones at random too, has its picture: probes and clamp lie within it.
func TestEveryReadingHasItsPicture(t *testing.T) {
	list := []*design.Design{jobtest.Design(t, `{"vehicle":{"kind":"ute-tray"}}`)}
	documents, err := testdata.Documents()
	require.NoError(t, err)
	for _, data := range documents {
		doc, problems := job.Decode(data)
		require.Empty(t, problems)
		list = append(list, design.Of(doc, parts.Stock()))
	}
	r := rand.New(rand.NewPCG(28, 11))
	for range jobtest.Fewer(300, 20) {
		doc, _ := job.Decode(jobtest.Random(r))
		list = append(list, design.Of(doc, parts.Stock()))
	}
	drawn := 0
	for _, d := range list {
		p := prove.Of(d)
		pictures := p.Pictures()
		require.Len(t, pictures, len(p.Readings))
		for _, reading := range p.Readings {
			picture := pictures[reading.ID]
			for _, at := range []*prove.Place{picture.Red, picture.Black, picture.Clamp} {
				if at != nil {
					drawn++
					assert.True(t, at.X >= -0.5 && at.X <= picture.Last+0.5, "%s: %+v", reading.ID, picture)
				}
			}
			if reading.Unit == prove.Volts {
				assert.True(t, picture.Red != nil && picture.Black != nil, "%s: a probe has no place", reading.ID)
			}
		}
	}
	assert.Greater(t, drawn, 1000)
}
