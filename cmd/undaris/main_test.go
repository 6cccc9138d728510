package main

import (
	"bufio"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var built = sync.OnceValues(func() (string, error) {
	dir, err := os.MkdirTemp("", "undaris-test-")
	if err != nil {
		return "", err
	}
	path := filepath.Join(dir, "undaris")
	out, err := exec.Command("go", "build", "-tags", "nomsgpack", "-o", path, ".").CombinedOutput()
	if err != nil {
		err = fmt.Errorf("%w: %s", err, out)
	}
	return path, err
})

func TestMain(m *testing.M) {
	code := m.Run()
	if path, err := built(); err == nil {
		os.RemoveAll(filepath.Dir(path))
	}
	os.Exit(code)
}

// binary builds the program once.
func binary(t *testing.T) string {
	path, err := built()
	require.NoError(t, err)
	return path
}

func TestTheProgramItself(t *testing.T) {
	undaris := binary(t)
	out, err := exec.Command(undaris, "version").Output()
	require.NoError(t, err)
	assert.Regexp(t, `^undaris \d+\.\d+\.\d+\n$`, string(out))

	fails := func(says string, args ...string) {
		out, err := exec.Command(undaris, args...).CombinedOutput()
		assert.Error(t, err, args)
		assert.Contains(t, string(out), says)
		assert.NotContains(t, string(out), "goroutine")
	}
	fails("Undaris listens on 127.0.0.1 there", "serve", "--addr", "0.0.0.0:0", "--data", t.TempDir())
	fails("is no address", "serve", "--addr", "nowhere", "--data", t.TempDir())
	broken := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(broken, "undaris.db"), []byte(strings.Repeat("no database ", 50)), 0o600))
	fails("cannot be used, and was left as it is", "serve", "--addr", "127.0.0.1:0", "--data", broken)
	data, err := os.ReadFile(filepath.Join(broken, "undaris.db"))
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(string(data), "no database "))
}

// A backup is written while the program runs, and restored elsewhere gives the same one;
// where a program runs, restoring from the command line is refused.
func TestBackupAndRestore(t *testing.T) {
	dir, other := t.TempDir(), t.TempDir()
	undaris := binary(t)
	cmd := exec.Command(undaris, "demo", "--addr", "127.0.0.1:0", "--data", dir)
	stdout, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	t.Cleanup(func() { _ = cmd.Process.Kill(); _ = cmd.Wait() })
	_, err = bufio.NewReader(stdout).ReadString('\n')
	require.NoError(t, err)
	first := filepath.Join(other, "first.json")
	out, err := exec.Command(undaris, "backup", first, "--data", dir).CombinedOutput()
	require.NoError(t, err, string(out))
	out, err = exec.Command(undaris, "restore", first, "--data", dir).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "another Undaris")
	out, err = exec.Command(undaris, "restore", first, "--data", filepath.Join(other, "data")).CombinedOutput()
	require.NoError(t, err, string(out))
	assert.Contains(t, string(out), "Restored: ")
	again, err := exec.Command(undaris, "backup", "-", "--data", filepath.Join(other, "data")).Output()
	require.NoError(t, err)
	whole, err := os.ReadFile(first)
	require.NoError(t, err)
	assert.Equal(t, string(whole), string(again))
	require.NoError(t, os.WriteFile(first, whole[:len(whole)/2], 0o600))
	out, err = exec.Command(undaris, "restore", first, "--data", filepath.Join(other, "data")).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "it was cut; nothing was changed")
	_, err = exec.Command(undaris, "backup", "-", "--data", t.TempDir()).CombinedOutput()
	assert.Error(t, err)
}

func TestDemoServesAndStopsCleanly(t *testing.T) {
	dir := t.TempDir()
	cmd := exec.Command(binary(t), "demo", "--addr", "127.0.0.1:0", "--data", dir)
	stdout, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	line, err := bufio.NewReader(stdout).ReadString('\n')
	require.NoError(t, err)
	address := strings.TrimSpace(line[strings.Index(line, "http://"):])
	resp, err := http.Get(address + "/api/charts")
	require.NoError(t, err)
	resp.Body.Close()
	assert.Equal(t, 200, resp.StatusCode)
	require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
	done := make(chan error, 1)
	go func() { done <- cmd.Wait() }()
	select {
	case err := <-done:
		assert.NoError(t, err, "a clean stop exits with 0")
	case <-time.After(8 * time.Second):
		t.Fatal("it did not stop")
	}
	assert.NoFileExists(t, filepath.Join(dir, "undaris.db-wal"), "everything is written")
}
