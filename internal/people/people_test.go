package people

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What a workshop expects of its roles, written before the table was asked.
func TestWhatAWorkshopExpects(t *testing.T) {
	for _, a := range Acts {
		assert.True(t, Owner.May(a), "an owner does all: %s", a)
		assert.False(t, Role("king").May(a), "nobody of an unknown role does anything: %s", a)
		if Reader.May(a) {
			assert.Contains(t, []Act{Look, Work, Self}, a, "who reads changes nothing of others")
		}
		if Apprentice.May(a) {
			assert.True(t, Installer.May(a), "an apprentice does nothing that an installer may not: %s", a)
		}
		for _, r := range Roles {
			assert.False(t, r.MayInBay(a) && !r.May(a), "the tablet gives nobody more: %s as %s", a, r)
		}
	}
	for _, a := range []Act{Sign, Countersign, Issue, Design, Settings, Invite, Tell} {
		assert.False(t, Apprentice.May(a), a)
	}
	for _, a := range []Act{Sign, Issue, Design, Settings, Invite, Self, Trail, HandOver, Books, Tell} {
		assert.False(t, Owner.MayInBay(a), "a PIN is no password: %s", a)
	}
	assert.True(t, Installer.May(Sign) && Installer.May(Countersign) && Installer.May(Install))
	assert.False(t, Designer.May(Sign) || Designer.May(Countersign), "who designs does not sign for the bay's work")
	for _, r := range Roles {
		assert.Equal(t, r == Apprentice, r.Waits(), r)
		assert.True(t, Owner.Over(r))
		assert.Equal(t, r != Owner && r != Foreman, Foreman.Over(r), r)
		assert.False(t, Installer.Over(r), r)
	}
	// What is decided is no survey.
	for path, surveyed := range map[string]bool{"routes.startM": true, "aux.restV": true, "built.x": true, "remarks": true,
		"pins.coupling": false,
		"title":         false, "limits.chargerDrop": false, "settings.x.value": false} {
		assert.Equal(t, surveyed, Surveyed(path), path)
	}
}

// Where a workshop's words go is its owner's to say: an address on the list reads questions, names and faults.
func TestTheOwnerAloneListsAddresses(t *testing.T) {
	for _, r := range Roles {
		assert.Equal(t, r == Owner, r.May(Tell), r)
	}
}
