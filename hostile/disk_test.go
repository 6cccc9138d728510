package hostile

import (
	"crypto/sha256"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// On a disk of six megabytes: when it is full that is said, nothing is lost, and
// when there is room again it goes on.
func TestTheDiskFull(t *testing.T) {
	dir := t.TempDir()
	if err := syscall.Mount("tmpfs", dir, "tmpfs", 0, "size=6m"); err != nil {
		t.Skipf("no small disk can be mounted here: %v", err)
	}
	t.Cleanup(func() { syscall.Unmount(dir, syscall.MNT_DETACH) })
	p := start(t, "serve", dir)
	lick := func(i int) (int, []byte) {
		var notes []string
		for k := range 256 {
			notes = append(notes, fmt.Sprintf(`{"start":%d,"length":240,"degree":"R","octave":0}`, k*240))
		}
		return p.ask("POST", "/api/licks", fmt.Sprintf(`{"title":"Lick %d","chord":"7","ofKey":false,"tags":[],"notes":[%s]}`, i, strings.Join(notes, ",")))
	}
	kept, full := 0, 0
	for i := range 2000 {
		status, data := lick(i)
		if status == 201 {
			kept++
			continue
		}
		assert.Equal(t, 507, status)
		assert.Contains(t, string(data), "the disk is full; nothing was saved")
		if full++; full > 5 {
			break
		}
	}
	require.Positive(t, full)
	var total string
	_, data := p.ask("GET", "/api/licks?limit=1000", nil)
	total = string(data)
	assert.Equal(t, kept, strings.Count(total, `"title"`), "what was acknowledged is there, and no more")
	require.NoError(t, syscall.Mount("tmpfs", dir, "tmpfs", syscall.MS_REMOUNT, "size=30m"))
	status, data := lick(9999)
	assert.Equal(t, 201, status, string(data))
	assert.Contains(t, p.errs.String(), "disk is full", "the cause is in the log")
	p.kill()
	p = start(t, "serve", dir)
	_, data = p.ask("GET", "/api/licks?limit=1000", nil)
	assert.Equal(t, kept+1, strings.Count(string(data), `"title"`))
	t.Logf("%d licks until the disk was full, %d refusals, none lost", kept, full)
}

func TestForeignAndDamagedFiles(t *testing.T) {
	good := t.TempDir()
	p := start(t, "demo", good)
	p.end()
	whole, err := os.ReadFile(filepath.Join(good, "undaris.db"))
	require.NoError(t, err)
	damaged := append([]byte(nil), whole...)
	for i := 3*4096 + 20; i < len(damaged); i += 13 {
		damaged[i] ^= 0xA5
	}
	foreign := append([]byte(nil), whole...)
	copy(foreign[68:], "Memo")
	for says, data := range map[string][]byte{
		"made by another program":       foreign,
		"is damaged":                    damaged,
		"it is not a database":          []byte(strings.Repeat("a shopping list\n", 100)),
		"cannot be used, and was left ": whole[:len(whole)/2],
	} {
		dir := t.TempDir()
		path := filepath.Join(dir, "undaris.db")
		require.NoError(t, os.WriteFile(path, data, 0o600))
		out, err := command(t, "serve", dir).CombinedOutput()
		require.Error(t, err, says)
		assert.Contains(t, string(out), says)
		assert.NotContains(t, string(out), "goroutine")
		now, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Equal(t, sha256.Sum256(data), sha256.Sum256(now), says)
		t.Logf("%s", strings.TrimSpace(string(out)))
	}
}

func TestTwoProgramsOneDirectory(t *testing.T) {
	dir := t.TempDir()
	start(t, "demo", dir)
	out, err := command(t, "serve", dir).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "another Undaris (process")
	locked := t.TempDir()
	require.NoError(t, os.Chmod(locked, 0o500))
	if os.Geteuid() == 0 { // root may write anywhere
		cmd := command(t, "serve", locked)
		cmd.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: 65534, Gid: 65534}}
		require.NoError(t, os.Chmod(filepath.Dir(cmd.Path), 0o755))
		require.NoError(t, exec.Command("chown", "65534", locked).Run())
		for up := filepath.Dir(locked); up != os.TempDir() && up != "/"; up = filepath.Dir(up) {
			os.Chmod(up, 0o755)
		}
		out, err = cmd.CombinedOutput()
	} else {
		out, err = command(t, "serve", locked).CombinedOutput()
	}
	require.Error(t, err)
	assert.Contains(t, string(out), "cannot be written to")
	t.Logf("%s", strings.TrimSpace(string(out)))
}

// The file taken away while the program runs.
func TestTheDatabaseRemoved(t *testing.T) {
	dir := t.TempDir()
	p := start(t, "demo", dir)
	for _, name := range []string{"", "-wal", "-shm"} {
		os.Remove(filepath.Join(dir, "undaris.db"+name))
	}
	status, data := p.ask("POST", "/api/licks", `{"title":"Lost","chord":"7","ofKey":false,"tags":[],"notes":[{"start":0,"length":960,"degree":"R","octave":0}]}`)
	assert.Equal(t, 503, status)
	assert.Contains(t, string(data), "was removed or replaced")
	rescued, _ := filepath.Glob(filepath.Join(dir, "*.rescued"))
	assert.Len(t, rescued, 1)
	t.Logf("%s", data)
}
