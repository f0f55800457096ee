package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/prove"
	"epitrope/core/trip"
	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/jobtest"
	"epitrope/internal/server"
	"epitrope/internal/standin"
)

const provenJob = `{"format":"epitrope-job","version":1,"title":"Relay at the front","alternator":{"label":"80/140 A",` +
	`"regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm","capacityAh":100},` +
	`"use":{"dailyAh":20},"routes":{"startM":1,"auxM":2},` +
	`"pins":{"coupling":"vsr"}}`

func opened(t *testing.T, h *httptest.Server) string {
	t.Helper()
	var job server.Opened
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs", provenJob, &job).StatusCode)
	return job.ID
}

func entry(kind, subject, text string) answers.ProofEntry {
	return answers.ProofEntry{ID: uuid.NewString(), Kind: kind, Subject: subject, Entry: text, By: "Ivo", With: "meter 2", State: "key out"}
}

// send posts entries, each given a time.
func send(t *testing.T, h *httptest.Server, id string, entries ...answers.ProofEntry) server.ProofRecord {
	t.Helper()
	list := []string{}
	for _, e := range entries {
		data, err := json.Marshal(e)
		require.NoError(t, err)
		list = append(list, strings.Replace(string(data), "0001-01-01T00:00:00Z", "2031-05-02T09:30:00Z", 1))
	}
	var out server.ProofRecord
	res := call(t, "POST", h.URL+"/api/jobs/"+id+"/proof", "["+strings.Join(list, ",")+"]", &out)
	require.Equal(t, 200, res.StatusCode)
	return out
}

// What is entered is kept in the order in which it came, once, whatever cannot be kept beside it.
func TestReadingsAreKeptOnce(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	first, second := entry("reading", "start-rest", "142"), entry("reading", "start-rest", "14.2 V")
	send(t, h, id, first)
	nobody := entry("reading", "aux-rest", "12.4")
	nobody.Person = uuid.NewString()
	got := send(t, h, id, first, second, nobody, entry("guess", "aux-rest", "12.4"))
	require.Len(t, got.Entries, 2)
	assert.Equal(t, "142", got.Entries[0].Entry, "the earlier one stays")
	assert.Equal(t, "14.2 V", got.Entries[1].Entry)
	assert.Equal(t, "meter 2", got.Entries[1].With)
	require.Len(t, got.Refused, 2)
	assert.Equal(t, "person", got.Refused[0].Problems[0].Field)
	assert.Contains(t, got.Refused[1].Problems[0].Allowed, "reading, waiver")
	missing := call(t, "GET", h.URL+"/api/jobs/"+uuid.NewString()+"/proof", "", nil)
	assert.Equal(t, 404, missing.StatusCode)
}

// proven puts all that a sign-off asks for on a job.
func proven(t *testing.T, h *httptest.Server, id string) {
	t.Helper()
	d := jobtest.Design(t, provenJob)
	p := prove.Of(d)
	list := []answers.ProofEntry{entry("statement", "crimps", "hexagonal die, pulled"), entry("statement", "built", "as drawn")}
	for _, taken := range standin.Build(d, p, 3).Readings() {
		r, _ := p.Reading(taken.ID)
		list = append(list, entry("reading", r.ID, r.Says(taken.Value)))
	}
	assert.Empty(t, send(t, h, id, list...).Refused)
	var made answers.Made
	call(t, "POST", h.URL+"/api/make", provenJob, &made)
	ticks := []string{}
	for _, s := range made.Steps {
		ticks = append(ticks, fmt.Sprintf(`{"id":%q,"step":%q,"done":true,"by":"Ivo","at":"2031-05-02T09:00:00Z"}`, uuid.NewString(), s.ID))
	}
	require.Equal(t, 200, call(t, "POST", h.URL+"/api/jobs/"+id+"/ticks", "["+strings.Join(ticks, ",")+"]", nil).StatusCode)
}

// Nothing is signed while a gate is open; then all of it is frozen, and stays as it was when the job goes on.
func TestSigning(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	signing := fmt.Sprintf(`{"id":%q,"version":1}`, uuid.NewString())
	var refusal struct{ Detail string }
	res := call(t, "POST", h.URL+"/api/jobs/"+id+"/signoffs", signing, &refusal)
	assert.Equal(t, 409, res.StatusCode)
	assert.Contains(t, refusal.Detail, "Hidden joints photographed")
	assert.Contains(t, refusal.Detail, "Read them", "each with what closes it")
	proven(t, h, id)
	require.Equal(t, 409, call(t, "POST", h.URL+"/api/jobs/"+id+"/signoffs", signing, nil).StatusCode, "the photograph is not there yet")
	put(t, h, id, uuid.NewString(), picture(t, 40, 30), 200)
	stale := strings.Replace(signing, `"version":1`, `"version":2`, 1)
	assert.Equal(t, 409, call(t, "POST", h.URL+"/api/jobs/"+id+"/signoffs", stale, nil).StatusCode)
	var signed server.Signed
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs/"+id+"/signoffs", signing, &signed).StatusCode)
	assert.Equal(t, 1, signed.Number)
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs/"+id+"/signoffs", signing, &signed).StatusCode)
	assert.Equal(t, 1, signed.Number, "sent twice it counts once")
	certificate := fetched(t, h.URL+"/api/jobs/"+id+"/signoffs/1/certificate.pdf")
	assert.True(t, bytes.HasPrefix(certificate, []byte("%PDF-")))
	send(t, h, id, entry("reading", "charge", "3 A"))
	assert.Equal(t, certificate, fetched(t, h.URL+"/api/jobs/"+id+"/signoffs/1/certificate.pdf"))
	var record server.ProofRecord
	call(t, "GET", h.URL+"/api/jobs/"+id+"/proof", "", &record)
	require.Len(t, record.Signed, 1)
	pack := fetched(t, h.URL+"/api/jobs/"+id+"/pack.pdf")
	assert.Greater(t, len(pack), 10_000)
	var brought trip.Brought
	require.Equal(t, 200, call(t, "POST", h.URL+"/api/jobs/"+id+"/trip", `{"hours":2,"from":50,"to":50}`, &brought).StatusCode)
	assert.Equal(t, trip.Nothing, brought.Level)
	assert.NotEmpty(t, brought.Causes)
	assert.Equal(t, 422, call(t, "POST", h.URL+"/api/jobs/"+id+"/trip", `{"hours":2,"from":50,"to":500}`, nil).StatusCode)
}

func fetched(t *testing.T, address string) []byte {
	t.Helper()
	res, err := http.Get(address)
	require.NoError(t, err)
	defer res.Body.Close()
	require.Equal(t, 200, res.StatusCode, address)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return data
}

func picture(t *testing.T, w, h int) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for x := range w {
		img.Set(x, h/2, color.RGBA{200, uint8(x), 40, 255})
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, nil))
	return b.Bytes()
}

func put(t *testing.T, h *httptest.Server, job, id string, data []byte, want int) (out server.Photo) {
	t.Helper()
	req, err := http.NewRequest(http.MethodPut, h.URL+"/api/jobs/"+job+"/photos/"+id+"?tied=covered&at=2031-05-02T09:00:00Z",
		bytes.NewReader(data))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "image/jpeg")
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	said, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Equal(t, want, res.StatusCode, string(said))
	if want == 200 {
		require.NoError(t, json.Unmarshal(said, &out))
	} else {
		assert.Contains(t, string(said), "JPEG or PNG")
	}
	return out
}

// A photograph loses what its camera wrote beside its points, keeps its digest, and what is none is refused with words.
func TestPhotographs(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	plain := picture(t, 60, 40)
	exif := append([]byte{0xff, 0xd8, 0xff, 0xe1, 0, 40}, []byte("Exif\x00\x00GPS 48.1234 N 11.5678 E ........")...)
	exif = append(exif[:2+2+40], plain[2:]...)
	name := uuid.NewString()
	got := put(t, h, id, name, exif, 200)
	kept := fetched(t, h.URL+"/api/jobs/"+id+"/photos/"+name)
	assert.NotContains(t, string(kept), "GPS")
	assert.NotContains(t, string(kept), "Exif")
	assert.Len(t, got.Digest, 64)
	again := put(t, h, id, name, picture(t, 10, 10), 200)
	assert.Equal(t, got.Digest, again.Digest, "sent twice it counts once")
	large := put(t, h, id, uuid.NewString(), picture(t, 3000, 900), 200)
	assert.Equal(t, 2000, large.Width)
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 8, 8))))
	put(t, h, id, uuid.NewString(), b.Bytes(), 200)
	put(t, h, id, uuid.NewString(), []byte("%PDF-1.7 no picture"), 422)
	put(t, h, id, uuid.NewString(), plain[:len(plain)/2], 422)
	put(t, h, id, uuid.NewString(), nil, 422)
	put(t, h, id, uuid.NewString(), bomb(60_000), 422)
	other := opened(t, h)
	res, err := http.Get(h.URL + "/api/jobs/" + other + "/photos/" + name)
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, 404, res.StatusCode, "of another job")
}

// bomb is the head of a PNG that says it has side × side points.
func bomb(side uint32) []byte {
	head := []byte{0, 0, 0, 13, 'I', 'H', 'D', 'R', byte(side >> 24), byte(side >> 16), byte(side >> 8), byte(side), byte(side >> 24),
		byte(side >> 16), byte(side >> 8), byte(side), 8, 2, 0, 0, 0}
	sum := crc32.ChecksumIEEE(head[4:])
	head = append(head, byte(sum>>24), byte(sum>>16), byte(sum>>8), byte(sum))
	return append([]byte("\x89PNG\r\n\x1a\n"), head...)
}

// Nothing is reached from the server but what the settings list.
func TestOnlyListedInstrumentsAreRead(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	touched := make(chan bool, 1)
	at, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = at.Close() }()
	go func() {
		if conn, err := at.Accept(); err == nil {
			touched <- true
			_ = conn.Close()
		}
	}()
	ask := func(meter string) (int, string) {
		var refusal struct{ Detail string }
		res := call(t, "POST", h.URL+"/api/meter", fmt.Sprintf(`{"document":%s,"reading":"start-rest","meter":%q}`, provenJob, meter),
			&refusal)
		return res.StatusCode, refusal.Detail
	}
	status, says := ask(at.Addr().String())
	assert.Equal(t, 422, status)
	assert.Contains(t, says, "is not in the settings")
	assert.Empty(t, touched)
	var kept server.KeptSettings
	call(t, "GET", h.URL+"/api/settings", "", &kept)
	text, err := json.Marshal(kept.Settings)
	require.NoError(t, err)
	with := func(address string) string {
		return fmt.Sprintf(`{"version":%d,"settings":%s,"meters":[{"name":"bench","address":%q,"speaks":"scpi"}]}}`, kept.Version,
			strings.TrimSuffix(string(text), "}"), address)
	}
	for _, address := range []string{"nowhere", "host:0", "host:99999", ":5025", "http://host:80"} {
		assert.Equal(t, 422, call(t, "PUT", h.URL+"/api/settings", with(address), nil).StatusCode, address)
	}
	require.Equal(t, 200, call(t, "PUT", h.URL+"/api/settings", with(at.Addr().String()), nil).StatusCode)
	status, says = ask("bench")
	assert.Equal(t, 502, status)
	assert.Contains(t, says, "does not answer")
	assert.True(t, <-touched)
}

// What is entered and cannot be read is met with words, beside all else.
func TestProvingSaysWhatIsWrong(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	ask := func(text string) answers.Proven {
		var out answers.Proven
		body := fmt.Sprintf(`{"document":%s,"entries":[{"id":%q,"kind":"reading","subject":"start-rest","entry":%q,"by":"Ivo",`+
			`"at":"2031-05-02T09:00:00Z"}],"done":[],"photos":{}}`, provenJob, uuid.NewString(), text)
		require.Equal(t, 200, call(t, "POST", h.URL+"/api/proof", body, &out).StatusCode)
		return out
	}
	for text, says := range map[string]string{"142": "12.", "-13.4": "changed over", "12600 mV": "", "12,6": ""} {
		out := ask(text)
		require.Len(t, out.Findings.Verdicts, 1, text)
		assert.Contains(t, strings.Join(out.Findings.Verdicts[0].Slips, "; "), map[bool]string{true: says}[says == "changed over"], text)
	}
	assert.Contains(t, ask("OL").Wrong[0].Wrong, "over the meter's range")
	assert.Contains(t, ask("lots").Wrong[0].Allowed, "14.2 V")
	out := ask("12.6 V")
	assert.NotEmpty(t, out.Gates)
	assert.Equal(t, "start-rest", out.Readings[0].ID)
	assert.NotNil(t, out.Readings[0].Picture.Red)
}
