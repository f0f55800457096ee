package door_test

import (
	"context"
	"math/bits"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

const good = "seven wet otters"

var here = door.From{Address: "192.0.2.7", Agent: "a browser"}

// at is a door with a workshop behind it that its owner has begun, with a password.
func at(t *testing.T) (*door.Door, *store.Store) {
	t.Helper()
	s := dbtest.Store(t)
	d := door.New(s, door.Where{})
	t.Cleanup(d.Close)
	token := door.Token()
	require.NoError(t, s.Door().FirstLink(t.Context(), store.FirstWorkshop, token, time.Now().Add(time.Hour)))
	require.NoError(t, d.Join(session(t, d, ""), door.Joining{Token: token, Name: "Odile Marrow", SignIn: "Odile", Password: good,
		Workshop: "Ångström & Söhne"}, here))
	return d, s
}

func session(t *testing.T, d *door.Door, cookie string) context.Context {
	t.Helper()
	ctx, err := d.Session(t.Context(), cookie)
	require.NoError(t, err)
	return ctx
}

// signedIn is a session of the owner, with its cookie.
func signedIn(t *testing.T, d *door.Door, given door.Given) (context.Context, string) {
	t.Helper()
	ctx := session(t, d, "")
	require.NoError(t, d.SignIn(ctx, given, here))
	cookie, err := d.Kept(ctx)
	require.NoError(t, err)
	return session(t, d, cookie.Value), cookie.Value
}

func why(t *testing.T, err error) door.Why {
	t.Helper()
	var r *door.Refused
	require.ErrorAs(t, err, &r)
	return r.Why
}

func TestSigningInAndOut(t *testing.T) {
	d, s := at(t)
	list, err := s.Door().Workshops(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, "angstrom-sohne", *list[0].Address)

	for name, given := range map[string]door.Given{"wrong password": {Name: "odile", Password: "seven wet otter"},
		"nobody": {Name: "nobody", Password: good}, "another workshop": {Workshop: "elsewhere", Name: "odile", Password: good}} {
		err := d.SignIn(session(t, d, ""), given, here)
		assert.Equal(t, door.Unknown, why(t, err), name)
		assert.Equal(t, "Workshop, name or password is not right.", err.Error(), "%s: it does not say which", name)
	}
	ctx, cookie := signedIn(t, d, door.Given{Name: " ODILE ", Password: good})
	in, err := d.Who(ctx)
	require.NoError(t, err)
	assert.Equal(t, people.Owner, in.Person.Role)
	assert.Equal(t, "Odile Marrow", in.Person.Name)

	require.NoError(t, d.Out(ctx, in))
	_, err = d.Kept(ctx)
	require.NoError(t, err)
	_, err = d.Who(session(t, d, cookie))
	require.ErrorIs(t, err, door.ErrOut, "a stolen cookie dies at sign-out")
}

func TestASignInEndsForWhoLeavesAndIsNotRevivedByACookie(t *testing.T) {
	d, s := at(t)
	ctx, _ := signedIn(t, d, door.Given{Name: "odile", Password: good})
	in, err := d.Who(ctx)
	require.NoError(t, err)
	second := dbtest.Joined(t, s, in.Person, people.Owner, "Ada", "")
	require.NoError(t, s.As(second).Leave(t.Context(), in.Person.ID))
	_, err = d.Who(ctx)
	require.ErrorIs(t, err, door.ErrOut)
	assert.Equal(t, door.Unknown, why(t, d.SignIn(session(t, d, ""), door.Given{Name: "odile", Password: good}, here)))
	require.ErrorIs(t, s.As(second).Leave(t.Context(), second.ID), store.ErrLastOwner)
}

// Each guess is counted before it is looked at, so that many at once count too; others sign in meanwhile.
func TestGuessesAreSlowedDown(t *testing.T) {
	d, _ := at(t)
	attacker := door.From{Address: "203.0.113.9"}
	var mutex sync.Mutex
	refused := map[door.Why]int{}
	var wait sync.WaitGroup
	began := time.Now()
	for range 40 {
		wait.Go(func() {
			ctx, err := d.Session(context.Background(), "")
			if err == nil {
				err = d.SignIn(ctx, door.Given{Name: "odile", Password: "guessed again"}, attacker)
			}
			mutex.Lock()
			defer mutex.Unlock()
			refused[why(t, err)]++
		})
	}
	wait.Wait()
	// Six at once, and another after each wait of 1, 2, 4 … seconds, however long this machine took.
	few := 6 + bits.Len(uint(time.Since(began).Seconds()))
	assert.LessOrEqual(t, refused[door.Unknown], few, "a few are looked at")
	assert.GreaterOrEqual(t, refused[door.Slow], 40-few)
	var r *door.Refused
	require.ErrorAs(t, d.SignIn(session(t, d, ""), door.Given{Name: "odile", Password: good}, attacker), &r)
	assert.Equal(t, door.Slow, r.Why, "the right one is not looked at either while it waits")
	assert.Positive(t, r.Wait)
	require.NoError(t, d.SignIn(session(t, d, ""), door.Given{Name: "odile", Password: good}, here), "who owns the account is not kept out")
}

func TestOneTimeCodes(t *testing.T) {
	d, _ := at(t)
	ctx, _ := signedIn(t, d, door.Given{Name: "odile", Password: good})
	in, err := d.Who(ctx)
	require.NoError(t, err)
	secret, address, err := d.NewCodes(in.Person, "Ångström: & Söhne")
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(address, "otpauth://totp/"), address)
	now, err := totp.GenerateCode(secret, time.Now())
	require.NoError(t, err)
	assert.Equal(t, door.Unknown, why(t, d.SetCodes(t.Context(), in.Person, "not mine", secret, now)))
	assert.Equal(t, door.Code, why(t, d.SetCodes(t.Context(), in.Person, good, secret, "000000")))
	require.NoError(t, d.SetCodes(t.Context(), in.Person, good, secret, now))

	given := door.Given{Name: "odile", Password: good}
	assert.Equal(t, door.Code, why(t, d.SignIn(session(t, d, ""), given, here)), "it is asked for")
	given.Code = now
	assert.Equal(t, door.Code, why(t, d.SignIn(session(t, d, ""), given, here)), "none counts twice")
	next, err := totp.GenerateCode(secret, time.Now().Add(30*time.Second))
	require.NoError(t, err)
	given.Code = next[:3] + " " + next[3:]
	require.NoError(t, d.SignIn(session(t, d, ""), given, here))
	given.Password = "seven wet otter"
	assert.Equal(t, door.Unknown, why(t, d.SignIn(session(t, d, ""), given, here)), "a code is nothing without the password")
	require.NoError(t, d.SetCodes(t.Context(), in.Person, good, "", ""))
	require.NoError(t, d.SignIn(session(t, d, ""), door.Given{Name: "odile", Password: good}, here))
}

func TestANewPasswordSignsOutElsewhere(t *testing.T) {
	d, _ := at(t)
	ctx, _ := signedIn(t, d, door.Given{Name: "odile", Password: good})
	elsewhere, _ := signedIn(t, d, door.Given{Name: "odile", Password: good})
	in, err := d.Who(ctx)
	require.NoError(t, err)
	require.NoError(t, d.SetPassword(ctx, in, good, "eleven dry otters"))
	_, err = d.Who(ctx)
	require.NoError(t, err)
	_, err = d.Who(elsewhere)
	require.ErrorIs(t, err, door.ErrOut)
	require.Error(t, d.SignIn(session(t, d, ""), door.Given{Name: "odile", Password: good}, here))
}

func TestLinksAreGoodOnce(t *testing.T) {
	d, s := at(t)
	ctx, _ := signedIn(t, d, door.Given{Name: "odile", Password: good})
	in, err := d.Who(ctx)
	require.NoError(t, err)
	link := func(l store.Link) string {
		token := door.Token()
		_, err := s.As(in.Person).AddLink(t.Context(), token, l, "x", "")
		require.NoError(t, err)
		return token
	}
	soon := time.Now().Add(time.Hour)
	invitation := link(store.Link{Kind: store.InvitationLink, Role: people.Installer, ExpiresAt: soon})
	teo := door.Joining{Token: invitation, Name: "Teo Varga", SignIn: "teo", Password: good}
	for _, wrong := range []struct{ name, signIn, password, says string }{
		{"", "teo", good, "Your name is missing"}, {"Teo", " ", good, "sign in with is missing"}, {"Teo\x00", "teo", good, "no page shows"},
		{"Odile Marrow", "teo", good, "has that name already"}, {"Teo", "ODILE", good, "has that name already"},
		{"Teo", "teo", "short", "too short"}, {"Teo", "teo", "qwertyuiop", "best known"}, {"Teo", "teo", "password123", "best known"},
		{"Teo Varga", "teo", "Teo Varga 2031!", "a name that is known here"}, {"Teo", "teo", "abababababab", "best known"},
		{strings.Repeat("x", 61), "teo", good, "at most 60"}, {"Teo", "teo", strings.Repeat("x y", 60), "too long"},
	} {
		err := d.Join(session(t, d, ""), door.Joining{Token: invitation, Name: wrong.name, SignIn: wrong.signIn, Password: wrong.password},
			here)
		assert.Equal(t, door.Input, why(t, err), wrong.says)
		assert.Contains(t, err.Error(), wrong.says)
	}
	require.NoError(t, d.Join(session(t, d, ""), teo, here))
	teo.SignIn, teo.Name = "teo2", "Teo2"
	assert.Equal(t, door.Link, why(t, d.Join(session(t, d, ""), teo, here)), "once")
	assert.Equal(t, door.Link, why(t, d.Reset(session(t, d, ""), invitation, good, here)))
	teo.Token = link(store.Link{Kind: store.InvitationLink, Role: people.Installer, ExpiresAt: time.Now().Add(-time.Second)})
	assert.Equal(t, door.Link, why(t, d.Join(session(t, d, ""), teo, here)), "it has expired")
	teo.Token = link(store.Link{Kind: store.OwnerLink, ExpiresAt: soon})
	assert.Equal(t, door.Link, why(t, d.Join(session(t, d, ""), teo, here)), "a vehicle's owner is not let in")

	reset := link(store.Link{Kind: store.ResetLink, PersonID: &in.Person.ID, ExpiresAt: soon})
	assert.Equal(t, door.Link, why(t, d.Join(session(t, d, ""), door.Joining{Token: reset, Name: "x", SignIn: "x", Password: good}, here)))
	require.NoError(t, d.Reset(session(t, d, ""), reset, "eleven dry otters", here))
	_, err = d.Who(ctx)
	require.ErrorIs(t, err, door.ErrOut)
	assert.Equal(t, door.Link, why(t, d.Reset(session(t, d, ""), reset, good, here)))
	for range 40 { // who tries many is slowed down
		err = d.Reset(session(t, d, ""), door.Token(), good, door.From{Address: "203.0.113.80"})
	}
	assert.Equal(t, door.Slow, why(t, err))
}

func TestTheBaysTablet(t *testing.T) {
	d, s := at(t)
	ctx, _ := signedIn(t, d, door.Given{Name: "odile", Password: good})
	in, err := d.Who(ctx)
	require.NoError(t, err)
	assert.Equal(t, door.Not, why(t, d.Switch(ctx, in, in.Person.ID, "7302")), "only the tablet is switched")
	for pin, says := range map[string]string{"12": "4 to 8", "123456789": "4 to 8", "12a4": "4 to 8", "1111": "tried first",
		"1234": "tried first"} {
		assert.ErrorContains(t, d.SetPIN(t.Context(), in.Person, good, pin), says)
	}
	require.NoError(t, d.SetPIN(t.Context(), in.Person, good, "7302"))
	stranger := dbtest.Workshop(t, s, "elsewhere")

	require.NoError(t, d.Share(ctx, in))
	cookie, err := d.Kept(ctx)
	require.NoError(t, err)
	ctx = session(t, d, cookie.Value)
	in, err = d.Who(ctx)
	require.NoError(t, err)
	assert.True(t, in.Nobody)
	list, err := d.AtTablet(ctx, in)
	require.NoError(t, err)
	require.Len(t, list, 1, "those who have a PIN, of this workshop")
	assert.Equal(t, door.Unknown, why(t, d.Switch(ctx, in, stranger.ID, "7302")))
	assert.Equal(t, door.Unknown, why(t, d.Switch(ctx, in, list[0].ID, "7303")))
	require.NoError(t, d.Switch(ctx, in, list[0].ID, "7302"))
	in, err = d.Who(ctx)
	require.NoError(t, err)
	assert.False(t, in.Nobody)
	require.NoError(t, d.Leave(ctx, in))
	in, err = d.Who(ctx)
	require.NoError(t, err)
	assert.True(t, in.Nobody)
	for range 6 {
		err = d.Switch(ctx, in, list[0].ID, "0000")
	}
	assert.Equal(t, door.Slow, why(t, err), "ten thousand PINs are few: it has to wait")
}

func TestPasskeysNeedAName(t *testing.T) {
	for address, has := range map[string]bool{"http://localhost:8080": true, "http://127.0.0.1:8080": false, "http://[::1]:8080": false,
		"https://bay.example": true, "http://bay.example": false, "https://192.168.1.2": false} {
		u, err := url.Parse(address)
		require.NoError(t, err)
		assert.Equal(t, has, door.WhyNoPasskeys(u) == "", address)
	}
	d, _ := at(t)
	u, _ := url.Parse("http://127.0.0.1:8080")
	_, err := d.At(u).AskPasskey(session(t, d, ""))
	assert.Equal(t, door.Not, why(t, err))
	u, _ = url.Parse("http://localhost:8080")
	ctx := session(t, d, "")
	_, err = d.At(u).AskPasskey(ctx)
	require.NoError(t, err)
	assert.Equal(t, door.Unknown, why(t, d.At(u).ByPasskey(ctx, []byte(`{"id":"x"}`), here)))
	assert.Equal(t, door.Not, why(t, d.At(u).ByPasskey(ctx, []byte(`{}`), here)), "what it was asked counts once")
}

func FuzzCheckPassword(f *testing.F) {
	for _, p := range []string{"", "password", good, "aaaaaaaaaa", "é", strings.Repeat("x", 200), "\xff\xfe"} {
		f.Add(p, "Odile")
	}
	f.Fuzz(func(t *testing.T, password, about string) {
		wrong, allowed := door.CheckPassword(password, about)
		assert.Equal(t, wrong == "", allowed == "", "what is wrong is said with what is allowed")
	})
}
