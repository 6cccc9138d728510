package hostile

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"undaris/e2e/room"
)

// The figures that must hold.
const (
	maxWork     = time.Second            // of any legal request, and of any refusal
	maxResident = 150                    // MB, whatever is asked
	maxAfter    = 100 * time.Millisecond // until work stops when the asker has gone
	maxEnding   = time.Second            // from SIGTERM to the end
)

var built = sync.OnceValues(func() (string, error) {
	dir, err := os.MkdirTemp("", "undaris-hostile")
	if err != nil {
		return "", err
	}
	path := filepath.Join(dir, "undaris")
	cmd := exec.Command("go", "build", "-o", path, "undaris/cmd/undaris")
	out, err := cmd.CombinedOutput()
	if err != nil {
		return "", fmt.Errorf("%w: %s", err, out)
	}
	return path, nil
})

func TestMain(m *testing.M) {
	if err := room.Open(); err != nil {
		fmt.Println("no network of the test's own:", err)
		os.Exit(1)
	}
	code := m.Run()
	if path, err := built(); err == nil {
		os.RemoveAll(filepath.Dir(path))
	}
	os.Exit(code)
}

// program is a running undaris.
type program struct {
	t    testing.TB
	cmd  *exec.Cmd
	url  string
	errs *bytes.Buffer
	done chan error
}

// command prepares the program on a data directory.
func command(t testing.TB, use, dir string) *exec.Cmd {
	path, err := built()
	require.NoError(t, err)
	return exec.Command(path, use, "--addr", "127.0.0.1:0", "--data", dir)
}

// start runs it until it listens.
func start(t testing.TB, use, dir string) *program {
	t.Helper()
	p, ok := started(t, command(t, use, dir))
	require.True(t, ok, p.errs.String())
	return p
}

// started runs a command until it listens; false where it does not.
func started(t testing.TB, cmd *exec.Cmd) (*program, bool) {
	t.Helper()
	p := &program{t: t, cmd: cmd, errs: &bytes.Buffer{}, done: make(chan error, 1)}
	out, err := p.cmd.StdoutPipe()
	require.NoError(t, err)
	p.cmd.Stderr = p.errs
	require.NoError(t, p.cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	go func() { p.done <- p.cmd.Wait() }()
	if err != nil {
		return p, false
	}
	p.url = strings.TrimSpace(line[strings.Index(line, "http://"):])
	t.Cleanup(p.kill)
	return p, true
}

func (p *program) kill() {
	p.cmd.Process.Kill()
	select {
	case err := <-p.done:
		p.done <- err
	case <-time.After(5 * time.Second):
	}
}

// alive fails the test when the program has ended.
func (p *program) alive() {
	p.t.Helper()
	select {
	case err := <-p.done:
		p.done <- err
		require.Fail(p.t, "the program ended", "%v\n%s", err, tail(p.errs.String()))
	default:
	}
}

func tail(s string) string { return s[max(0, len(s)-3000):] }

// peak is the most memory that was resident since reset, in MB.
func (p *program) peak() int {
	status, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", p.cmd.Process.Pid))
	require.NoError(p.t, err)
	m := regexp.MustCompile(`VmHWM:\s+(\d+) kB`).FindSubmatch(status)
	kb, _ := strconv.Atoi(string(m[1]))
	return kb >> 10
}

// reset begins to measure the peak anew.
func (p *program) reset() {
	os.WriteFile(fmt.Sprintf("/proc/%d/clear_refs", p.cmd.Process.Pid), []byte("5"), 0)
}

// busy is how much processor time the program has used.
func (p *program) busy() time.Duration {
	stat, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", p.cmd.Process.Pid))
	require.NoError(p.t, err)
	fields := strings.Fields(string(stat[bytes.LastIndexByte(stat, ')')+2:]))
	user, _ := strconv.Atoi(fields[11])
	system, _ := strconv.Atoi(fields[12])
	return time.Duration(user+system) * 10 * time.Millisecond
}

// ask sends a request and returns the status and the body.
func (p *program) ask(method, path string, body any, header ...string) (int, []byte) {
	p.t.Helper()
	status, data, err := p.try(method, path, body, header...)
	require.NoError(p.t, err, "%s %s\n%s", method, path, tail(p.errs.String()))
	return status, data
}

func (p *program) try(method, path string, body any, header ...string) (int, []byte, error) {
	var send io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case []byte:
		send, kind = bytes.NewReader(b), "application/octet-stream"
	case string:
		send = strings.NewReader(b)
	default:
		data, err := json.Marshal(b)
		if err != nil {
			return 0, nil, err
		}
		send = bytes.NewReader(data)
	}
	req, err := http.NewRequest(method, p.url+path, send)
	if err != nil {
		return 0, nil, err
	}
	if body != nil {
		req.Header.Set("Content-Type", kind)
	}
	req.Header.Set("If-Match", "*")
	for i := 0; i+1 < len(header); i += 2 {
		req.Header.Set(header[i], header[i+1])
	}
	resp, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, nil, err
	}
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	return resp.StatusCode, data, err
}

// timed asks, and fails when it took too long or was a fault of the program.
func (p *program) timed(what, method, path string, body any) (status int, data []byte, took time.Duration) {
	p.t.Helper()
	p.reset()
	begun := p.busy()
	now := time.Now()
	status, data = p.ask(method, path, body)
	took = time.Since(now)
	work := p.busy() - begun
	p.alive()
	says := string(data[:min(len(data), 160)])
	if status < 400 {
		says = fmt.Sprintf("%d bytes", len(data))
	}
	p.t.Logf("%-44s %d in %4d ms, %4d ms of work, peak %3d MB: %s", what, status, took.Milliseconds(), work.Milliseconds(), p.peak(), says)
	require.Less(p.t, status, 500, what)
	require.LessOrEqual(p.t, min(work, took), maxWork, what)
	require.LessOrEqual(p.t, p.peak(), maxResident, what)
	return status, data, took
}

// end asks the program to stop and tells how long that took.
func (p *program) end() time.Duration {
	now := time.Now()
	require.NoError(p.t, p.cmd.Process.Signal(syscall.SIGTERM))
	select {
	case err := <-p.done:
		p.done <- err
		require.NoError(p.t, err, "a clean stop exits with 0")
	case <-time.After(10 * time.Second):
		require.Fail(p.t, "it did not stop")
	}
	return time.Since(now)
}
