package mount_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/mount"
)

// UN R100, from memory: 20 g along a light vehicle: 30 kg pull with 5.9 kN.
func TestWhatACrashPulls(t *testing.T) {
	assert.InDelta(t, 5886, mount.Pull.Value(30, mount.ClassOf("light").Along), 0.5)
	assert.InDelta(t, 1471.5, mount.Pull.Value(30, mount.ClassOf("heavy").Across), 0.5)
	for _, c := range mount.Classes {
		assert.Greater(t, c.Along, c.Across, c.ID)
	}
}

// ISO 898-1: an M8 of class 8.8 has a stress area of 36.6 mm² and a proof load of 21.2 kN; in shear, with the
// reserve, far less.
func TestWhatBoltsHold(t *testing.T) {
	m8, ok := mount.ThreadOf("M8")
	assert.True(t, ok)
	assert.InDelta(t, 11712, mount.Holds.Value(1, m8.AsMM2), 1)
	assert.Less(t, mount.Holds.Value(1, m8.AsMM2), 21200.0)
	_, ok = mount.ThreadOf("M7")
	assert.False(t, ok)
}

// The lever: half-way between the axles half on each; behind the rear one the front is relieved.
func TestTheLever(t *testing.T) {
	assert.InDelta(t, 0.5, mount.RearShare(2.85, 1, 4.7), 1e-9)
	assert.InDelta(t, 1, mount.RearShare(4.7, 1, 4.7), 1e-9)
	assert.Greater(t, mount.RearShare(5.5, 1, 4.7), 1.0)
	assert.Less(t, mount.RearShare(0.5, 1, 4.7), 0.0)
}
