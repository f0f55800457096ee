package door

import (
	"context"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/trustelem/zxcvbn/frequency"
)

// How much work a hash is: 19 MiB, two passes, one lane.
//
// Source: OWASP Password Storage Cheat Sheet, argon2id (from memory).
var work = &argon2id.Params{Memory: 19 * 1024, Iterations: 2, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// Limits of a password. There is no rule about what is in it: only how long it is, and that it is not among the best known.
const (
	LeastPassword = 10
	MostPassword  = 128
)

// How many hashes are worked out at a time, and how many may wait for theirs.
const (
	atOnce  = 2
	inQueue = 16
)

// hashing works out hashes, a few at a time, so that signing in takes memory and processors from nobody.
type hashing struct {
	turns chan struct{}
	queue chan struct{}
	none  string // the hash of nobody's password, for who is not known
}

func newHashing() *hashing {
	none, err := argon2id.CreateHash(Token(), work)
	if err != nil {
		panic(err) // only without any randomness
	}
	return &hashing{make(chan struct{}, atOnce), make(chan struct{}, inQueue), none}
}

// take waits for a turn, and refuses where too many wait.
func (h *hashing) take(ctx context.Context) (done func(), err error) {
	select {
	case h.queue <- struct{}{}:
	default:
		return nil, &Refused{Why: Slow, Says: "Too many sign in just now; try again in a moment.", Wait: 2 * time.Second}
	}
	select {
	case h.turns <- struct{}{}:
		return func() { <-h.turns; <-h.queue }, nil
	case <-ctx.Done():
		<-h.queue
		return nil, ctx.Err()
	}
}

// hash is what is kept of a password or a PIN.
func (h *hashing) hash(ctx context.Context, secret string) (string, error) {
	done, err := h.take(ctx)
	if err != nil {
		return "", err
	}
	defer done()
	return argon2id.CreateHash(secret, work)
}

// holds says whether a secret is that of a hash. Where there is none it takes as long, and is false.
func (h *hashing) holds(ctx context.Context, secret, hash string) (bool, error) {
	done, err := h.take(ctx)
	if err != nil {
		return false, err
	}
	defer done()
	there := hash != ""
	if !there {
		hash = h.none
	}
	same, err := argon2id.ComparePasswordAndHash(secret, hash)
	return same && there, err
}

// known are passwords that are tried first.
//
// Source: the frequency list of the zxcvbn library, about 30,000.
var known = sync.OnceValue(func() map[string]bool {
	out := map[string]bool{}
	for _, p := range frequency.FrequencyLists["passwords"] {
		out[p] = true
	}
	return out
})

// CheckPassword says what is wrong with a password, and nothing where it will do; about are words that anybody knows of who chooses it.
func CheckPassword(password string, about ...string) (wrong, allowed string) {
	n := utf8.RuneCountInString(password)
	lower := strings.ToLower(strings.TrimSpace(password))
	switch {
	case n < LeastPassword:
		return "is too short", "at least 10 characters, whatever they are; a few words do well"
	case n > MostPassword || !utf8.ValidString(password):
		return "is too long", "at most 128 characters"
	case known()[lower], known()[strings.TrimRight(lower, "0123456789!.?")], once(lower):
		return "is one of the best known, which are tried first", "one that nobody else has"
	}
	for _, a := range append(about, "epitrope") {
		a = strings.ToLower(a)
		if len(a) > 3 && strings.Trim(strings.Replace(lower, a, "", 1), " 0123456789!.?-_") == "" {
			return "is little more than a name that is known here", "one that nobody else would try"
		}
	}
	return "", ""
}

// once says whether a password is one short thing again and again.
func once(password string) bool {
	for n := 1; n <= min(4, len(password)/2); n++ {
		if strings.Trim(strings.ReplaceAll(password, password[:n], ""), " ") == "" {
			return true
		}
	}
	return false
}
