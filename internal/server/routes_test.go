package server_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/server"
	"epitrope/internal/store"
)

// route is an operation of the API's document.
type route struct {
	id, method, path, act string
}

// routes are all of the document, in its order of paths.
func routes(t *testing.T) (list []route) {
	t.Helper()
	doc, err := server.OpenAPI()
	require.NoError(t, err)
	var read struct {
		Paths map[string]map[string]struct {
			OperationID string `json:"operationId"`
			Act         string `json:"x-act"`
		} `json:"paths"`
	}
	require.NoError(t, json.Unmarshal(doc, &read))
	for path, methods := range read.Paths {
		for method, op := range methods {
			require.NotEmpty(t, op.Act, "%s %s has no act", method, path)
			list = append(list, route{op.OperationID, strings.ToUpper(method), path, op.Act})
		}
	}
	slices.SortFunc(list, func(a, b route) int { return strings.Compare(a.path+a.method, b.path+b.method) })
	return list
}

// bodies are what is sent where something is taken, so that it is the door that answers, and not what checks a body.
var bodies = map[string]string{
	"saveDraft": `{"base":1,"document":{"format":"epitrope-job","version":1,"title":"Mine now"}}`, "issueRevision": `{"base":1}`,
	"addTask": `{"kind":"sweep","document":{"format":"epitrope-job","version":1},"sweep":{` +
		`"across":{"path":"use.drivenHours"},"up":{"path":"use.dailyAh"}}}`, "addFinds": `{}`, "addTicks": `[]`, "addProof": `[]`,
	"readProofFile": "reading,value\nstart-rest,12.6 V\n", "sign": `{"id":"` + oneID + `","version":1}`,
	"judgeTrip": `{"hours":2,"from":50,"to":80}`, "readTrip": "time,soc\n0,50\n7200,80\n",
	"addAddressee": `{"kind":"mail","address":"bay@weir.example","wants":["due"],"hour":7,"zone":"UTC"}`,
	"here":         `{"page":"` + oneID + `"}`,
	"trace":        `{"document":{"format":"epitrope-job","version":1},"evidence":{"format":"epitrope-evidence","version":1,"seen":[]}}`,
	"comment":      `{"id":"` + oneID + `","about":"job","text":"whose is it?"}`,
	"countersign":  `{"id":"` + oneID + `","of":"` + oneID + `"}`, "setRole": `{"role":"owner"}`,
	"addPhoto": "a picture", "addOwnerLink": "", "restoreJob": "", "resetLink": "", "driveMethod": `{}`,
}

const oneID = "6cf963fd-3c2a-49ca-b657-b2875d1e1a37"

// ids are what stands in the addresses of a workshop's things.
type ids struct{ job, task, person, invitation, link, photo, addressee string }

func (i ids) in(r route) string {
	of := map[string]string{"jobs": i.job, "tasks": i.task, "people": i.person, "addressees": i.addressee}[strings.Split(r.path, "/")[2]]
	if strings.Contains(r.path, "/invitations/") {
		of = i.invitation
	}
	return strings.NewReplacer("{id}", of, "{number}", "1", "{photo}", i.photo, "{link}", i.link, "{coupling}", "vsr").Replace(r.path)
}

func nobodys() ids {
	id := uuid.NewString()
	return ids{id, id, id, id, id, id, id}
}

// ask sends a route's request as a cookie's person, and is the answer.
func ask(t *testing.T, h *httptest.Server, r route, address, cookie string) (int, string) {
	t.Helper()
	if r.id == "addPhoto" {
		address += "?tied=before&at=2031-05-02T09:00:00Z"
	}
	body := bodies[r.id]
	req, err := http.NewRequest(r.method, h.URL+address, strings.NewReader(body))
	require.NoError(t, err)
	req.Header.Set("Cookie", cookie)
	switch {
	case strings.HasPrefix(body, "{"), strings.HasPrefix(body, "["):
		req.Header.Set("Content-Type", "application/json")
	case r.id == "addPhoto":
		req.Header.Set("Content-Type", "image/jpeg")
	case body != "":
		req.Header.Set("Content-Type", "application/octet-stream")
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	var read io.Reader = res.Body
	if res.Header.Get("Content-Type") == "text/event-stream" {
		read = io.LimitReader(res.Body, 1) // it goes on for as long as it is listened to
	}
	data, err := io.ReadAll(read)
	require.NoError(t, err)
	return res.StatusCode, string(data)
}

// served is a server with both doors of the demo open, without anybody signed in by itself.
func served(t *testing.T, s *store.Store) *httptest.Server {
	t.Helper()
	d := door.New(s, door.Where{Demo: true})
	t.Cleanup(d.Close)
	h := httptest.NewServer(server.New(s, pages, &server.Busy{}, server.Way{Demo: true}, d))
	t.Cleanup(h.Close)
	return h
}

// roleTable is where the table of routes and roles is kept, for people to read.
const roleTable = "../../docs/roles.md"

// Every route as every role: what each may do is what docs/roles.md says, line for line. A new route is not there yet: whoever adds it
// looks at what each role may, and writes it anew with EPITROPE_WRITE=roles.
func TestEveryRouteAsEveryRole(t *testing.T) {
	s := dbtest.Store(t)
	h := served(t, s)
	owner := dbtest.Begun(t, s, store.FirstWorkshop, "first")
	staff := map[people.Role]people.Person{people.Owner: owner}
	for _, role := range people.Roles[1:] {
		staff[role] = dbtest.Joined(t, s, owner, role, "Some "+string(role), "")
	}
	var table strings.Builder
	fmt.Fprintf(&table, "| what | route | act |%s\n|---|---|---|%s\n", heads(), strings.Repeat("---|", len(people.Roles)))
	for _, r := range routes(t) {
		status, said := ask(t, h, r, nobodys().in(r), "")
		if r.act == "anyone" {
			assert.NotContains(t, said, "Nobody is signed in", r.id)
			fmt.Fprintf(&table, "| %s | %s %s | %s |%s\n", r.id, r.method, r.path, r.act, strings.Repeat(" yes |", len(people.Roles)))
			continue
		}
		assert.Equal(t, http.StatusUnauthorized, status, "%s: nobody", r.id)
		fmt.Fprintf(&table, "| %s | %s %s | %s |", r.id, r.method, r.path, r.act)
		for _, role := range people.Roles {
			status, said := ask(t, h, r, nobodys().in(r), signedIn(t, h, staff[role]))
			require.NotEqual(t, http.StatusUnauthorized, status, "%s as %s: %s", r.id, role, said)
			table.WriteString(map[bool]string{true: " – |", false: " yes |"}[status == http.StatusForbidden])
		}
		table.WriteString("\n")
	}
	kept, err := os.ReadFile(roleTable)
	require.NoError(t, err)
	before, after, found := strings.Cut(string(kept), tableMark)
	require.True(t, found)
	if os.Getenv("EPITROPE_WRITE") == "roles" {
		require.NoError(t, os.WriteFile(roleTable, []byte(before+tableMark+"\n"+table.String()), 0o644))
		return
	}
	assert.Equal(t, strings.TrimSpace(after), strings.TrimSpace(table.String()),
		"see what each role may, then EPITROPE_WRITE=roles go test")
}

const tableMark = "<!-- every route as every role -->"

func heads() (out string) {
	for _, r := range people.Roles {
		out += " " + string(r) + " |"
	}
	return out
}

// filledWorkshop puts something of everything into a workshop, marked so that it is known where it is seen.
func filledWorkshop(t *testing.T, h *httptest.Server, s *store.Store, owner people.Person, mark string) (out ids) {
	t.Helper()
	cookie := signedIn(t, h, owner)
	send := func(method, path, body, kind string, to any) {
		t.Helper()
		req, err := http.NewRequest(method, h.URL+path, strings.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Cookie", cookie)
		req.Header.Set("Content-Type", kind)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.Less(t, res.StatusCode, 300, "%s %s: %s", method, path, data)
		if to != nil {
			require.NoError(t, json.Unmarshal(data, to))
		}
	}
	var job struct{ ID string }
	send("POST", "/api/jobs", `{"format":"epitrope-job","version":1,"title":"`+mark+`","vehicle":{"model":"`+mark+`"},`+
		`"dates":{"look":{"what":"`+mark+`","due":"2026-01-02"}}}`, "application/json", &job)
	at := "/api/jobs/" + job.ID
	send("POST", at+"/revisions", `{"base":1}`, "application/json", nil)
	var task struct{ ID string }
	send("POST", at+"/tasks",
		`{"kind":"sweep","document":{"format":"epitrope-job","version":1},"sweep":{"across":{"path":"use.drivenHours"},`+
			`"up":{"path":"use.dailyAh"}}}`, "application/json", &task)
	send("POST", at+"/ticks", `[{"id":"`+uuid.NewString()+`","step":"in-hand","done":true,"note":"`+mark+`","at":"2031-03-02T10:00:00Z"}]`,
		"application/json", nil)
	send("POST", at+"/proof",
		`[{"id":"`+uuid.NewString()+`","kind":"statement","subject":"crimps","entry":"`+mark+`","at":"2031-03-02T10:00:00Z"}]`,
		"application/json", nil)
	send("POST", at+"/comments", `{"id":"`+uuid.NewString()+`","about":"job","text":"`+mark+`","asks":true}`, "application/json", nil)
	photo := uuid.NewString()
	send("PUT", at+"/photos/"+photo+"?tied=before&at=2031-05-02T09:00:00Z", string(picture(t, 20, 10)), "image/jpeg", nil)
	send("POST", "/api/people/invitations", `{"role":"reader"}`, "application/json", nil)
	send("PUT", "/api/parts", `{"kind":"fuse","name":"`+mark+`","rating A":"60"}`, "application/json", nil)
	send("POST", at+"/finds", `{}`, "application/json", nil)
	var told server.Addressees
	send("POST", "/api/addressees", `{"kind":"mail","address":"x@`+strings.ReplaceAll(strings.ToLower(mark), " ",
		"-")+`.example","wants":["due"],"hour":7,"zone":"UTC"}`,
		"application/json", &told)
	other := dbtest.Joined(t, s, owner, people.Installer, mark, "")
	var staff server.Workforce
	send("GET", "/api/people", "", "", &staff)
	link, err := s.As(owner).AddLink(t.Context(), door.Token(), store.Link{Kind: store.OwnerLink, JobID: &job.ID,
		ExpiresAt: staff.Invitations[0].Expires},
		"x", "")
	require.NoError(t, err)
	return ids{job.ID, task.ID, other.ID, staff.Invitations[0].ID, link.ID, photo, told.List[0].ID}
}

// Every route at another workshop: its ids answer like ones that do not exist, and nothing of it is seen in any list, count or file.
func TestEveryRouteAtAnotherWorkshop(t *testing.T) {
	const mark = "Xylophone seventeen"
	s := dbtest.Store(t)
	h := served(t, s)
	ours := dbtest.Begun(t, s, store.FirstWorkshop, "ours")
	theirs := dbtest.Workshop(t, s, "theirs")
	own := filledWorkshop(t, h, s, ours, "Ours alone")
	foreign := filledWorkshop(t, h, s, theirs, mark)
	for _, r := range routes(t) {
		if r.act == "anyone" {
			continue
		}
		cookie := signedIn(t, h, ours)
		none := nobodys()
		wantStatus, want := ask(t, h, r, none.in(r), cookie)
		cookie = signedIn(t, h, ours) // some end with their answer
		status, said := ask(t, h, r, foreign.in(r), cookie)
		assert.NotContains(t, said, mark, r.id)
		if !strings.Contains(r.path, "{") || r.id == "driveMethod" {
			continue
		}
		assert.Equal(t, wantStatus, status, r.id)
		for _, id := range []string{foreign.job, foreign.task, foreign.person, foreign.invitation, foreign.link, foreign.photo,
			foreign.addressee} {
			said = strings.ReplaceAll(said, id, none.job)
		}
		assert.Equal(t, want, said, r.id)
		if status < 300 {
			assert.Contains(t, []string{"listTasks"}, r.id, "it answers for what is not there: %s", said)
		}
		// What is one's own is found: the ids above are refused for being another's, and for nothing else.
		if r.method == http.MethodGet && !strings.Contains(r.path, "{number}") && r.id != "between" { // which asks for a revision
			ownStatus, _ := ask(t, h, r, own.in(r), signedIn(t, h, ours))
			assert.Equal(t, http.StatusOK, ownStatus, r.id)
		}
	}
	// Nothing of it was changed either.
	after, err := s.As(theirs).Get(t.Context(), foreign.job)
	require.NoError(t, err)
	assert.Equal(t, mark, after.Doc().Title)
	list, err := s.As(theirs).People(t.Context())
	require.NoError(t, err)
	for _, p := range list {
		assert.Nil(t, p.LeftAt, p.Name)
	}
}
