package load_test

import (
	"context"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// machine is a server and its database, each of which can be killed and started again.
type machine struct {
	t        testing.TB
	root     string // of the project
	dir      string // of the database
	database string
	address  string

	mutex  sync.Mutex
	server *exec.Cmd
	ended  chan struct{} // closed when the server has ended
}

// start brings a machine up; the test is skipped where there is no binary, or no database server.
func start(t testing.TB) *machine {
	t.Helper()
	root, err := filepath.Abs("../..")
	require.NoError(t, err)
	if _, err := os.Stat(filepath.Join(root, "bin/epitrope")); err != nil {
		t.Skip("bin/epitrope is not built; make test builds it")
	}
	if found, err := filepath.Glob("/usr/lib/postgresql/*/bin/postgres"); err != nil || len(found) == 0 {
		t.Skip("PostgreSQL is not installed; make test says how")
	}
	dir, err := os.MkdirTemp("/var/tmp", "epitrope-crash-")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	m := &machine{t: t, root: root, dir: filepath.Join(dir, "pg"), address: freeAddress(t)}
	t.Cleanup(func() {
		m.killServer()
		_ = exec.Command(filepath.Join(root, "scripts/postgres.sh"), "stop", m.dir).Run() // it may be dead
		_ = os.RemoveAll(dir)
	})
	m.database = m.startDatabase("")
	m.startServer()
	m.ready()
	return m
}

func freeAddress(t testing.TB) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	address := l.Addr().String()
	require.NoError(t, l.Close())
	return address
}

// startDatabase starts it, on a port where one is named, and returns its address.
func (m *machine) startDatabase(port string) string {
	cmd := exec.Command(filepath.Join(m.root, "scripts/postgres.sh"), "start", m.dir)
	cmd.Env = os.Environ()
	if port != "" {
		cmd.Env = append(cmd.Env, "EPITROPE_PG_PORT="+port)
	}
	out, _ := cmd.Output() // without an address it did not start
	return strings.TrimSpace(string(out))
}

// killDatabase kills it at once, and starts it again where it was.
func (m *machine) killDatabase() {
	data, err := os.ReadFile(filepath.Join(m.dir, "data/postmaster.pid"))
	require.NoError(m.t, err)
	lines := strings.Split(string(data), "\n")
	pid, err := strconv.Atoi(lines[0])
	require.NoError(m.t, err)
	_ = syscall.Kill(pid, syscall.SIGKILL) // it may be dead
	// Where nobody buries the dead, its number still stands for it: the file that names it goes.
	require.NoError(m.t, os.Remove(filepath.Join(m.dir, "data/postmaster.pid")))
	for range 100 {
		time.Sleep(100 * time.Millisecond)
		if m.startDatabase(lines[3]) == m.database {
			return
		}
	}
	m.t.Fatal("the database did not come back where it was")
}

func (m *machine) startServer() {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	m.server = exec.Command(filepath.Join(m.root, "bin/epitrope"), "serve", "--address", m.address, "--database", m.database)
	require.NoError(m.t, m.server.Start())
	ended, server := make(chan struct{}), m.server
	m.ended = ended
	go func() {
		_ = server.Wait() // it is killed
		close(ended)
	}()
}

// killServer kills it at once.
func (m *machine) killServer() {
	m.mutex.Lock()
	defer m.mutex.Unlock()
	if m.server == nil {
		return
	}
	_ = m.server.Process.Kill() // it may be dead
	<-m.ended
	m.server = nil
}

// ready waits until the server answers.
func (m *machine) ready() {
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	for ctx.Err() == nil {
		req, err := http.NewRequestWithContext(ctx, http.MethodGet, "http://"+m.address+"/health/ready", http.NoBody)
		require.NoError(m.t, err)
		if res, err := http.DefaultClient.Do(req); err == nil {
			res.Body.Close()
			if res.StatusCode == http.StatusOK {
				return
			}
		}
		select {
		case <-m.ended: // it was started while the database was away
			m.startServer()
		case <-time.After(50 * time.Millisecond):
		}
	}
	m.t.Fatal("the server did not come back")
}
