package door_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/people"
)

// demo is a workshop behind its own door, and behind a demo's; who owns it, with a password, and somebody without.
func demo(t *testing.T) (plain, d *door.Door, owner door.In, nobodys people.Person) {
	t.Helper()
	plain, s := at(t)
	ctx, _ := signedIn(t, plain, door.Given{Name: "odile", Password: good})
	owner, err := plain.Who(ctx)
	require.NoError(t, err)
	d = door.New(s, door.Where{Demo: true})
	t.Cleanup(d.Close)
	return plain, d, owner, dbtest.Joined(t, s, owner.Person, people.Installer, "Teo", "")
}

// Somebody with a password is nobody of a demo, were the demo's door opened on a real workshop.
func TestTheDemosDoorIsForTheDemosPeople(t *testing.T) {
	plain, d, in, nobodys := demo(t)
	assert.Equal(t, door.Not, why(t, d.InDemo(session(t, d, ""), in.Person.ID, here)))
	require.NoError(t, d.InDemo(session(t, d, ""), nobodys.ID, here))
	assert.Equal(t, door.Not, why(t, plain.InDemo(session(t, plain, ""), nobodys.ID, here)), "there is no such door elsewhere")
}

// Two windows that open the demo at once are of one sign-in: the second does not end what the first is about to ask.
func TestASecondWindowOfTheDemoLeavesTheFirstItsSession(t *testing.T) {
	_, d, _, who := demo(t)
	first := session(t, d, "")
	require.NoError(t, d.InDemo(first, who.ID, here))
	cookie, err := d.Kept(first)
	require.NoError(t, err)
	require.NoError(t, d.InDemo(session(t, d, cookie.Value), who.ID, here))
	now, err := d.Who(session(t, d, cookie.Value))
	require.NoError(t, err)
	assert.Equal(t, who.ID, now.Person.ID)
}
