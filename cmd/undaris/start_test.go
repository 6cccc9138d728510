package main

import (
	"bufio"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// started is the program without a word, with a library of its own; said is what it says first, and
// end ends it.
func started(t *testing.T, undaris, data string) (said []string, end func()) {
	t.Helper()
	cmd := exec.Command(undaris, "--no-open", "--data", data)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	end = func() { _ = cmd.Process.Kill(); _ = cmd.Wait() }
	t.Cleanup(end)
	for lines := bufio.NewScanner(out); lines.Scan(); {
		if said = append(said, lines.Text()); strings.HasPrefix(lines.Text(), "Its data is in") {
			return said, end
		}
	}
	require.Fail(t, "it ended", said)
	return nil, nil
}

// What a browser keeps belongs to an address, so a library keeps its own: where it runs already it is
// shown, where a stranger is at its address it takes another and says what that means.
func TestALibraryKeepsItsAddress(t *testing.T) {
	undaris, data := binary(t), t.TempDir()
	stranger, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer stranger.Close()
	kept := func() string {
		text, err := os.ReadFile(filepath.Join(data, "address"))
		require.NoError(t, err)
		return strings.TrimSpace(string(text))
	}
	require.NoError(t, os.WriteFile(filepath.Join(data, "address"), []byte(stranger.Addr().String()+"\n"), 0o600))

	said, end := started(t, undaris, data)
	assert.Contains(t, said[0], "Another program is at "+stranger.Addr().String())
	mine := kept()
	assert.NotEqual(t, stranger.Addr().String(), mine)
	assert.Contains(t, strings.Join(said, "\n"), "Undaris is at http://"+mine)
	resp, err := http.Get("http://" + mine + "/api/charts")
	require.NoError(t, err)
	resp.Body.Close()
	assert.Equal(t, 200, resp.StatusCode)

	again, err := exec.Command(undaris, "--no-open", "--data", data).CombinedOutput()
	require.NoError(t, err, string(again))
	assert.Equal(t, "Undaris is running already, at http://"+mine+"\n", string(again))
	end()

	said, end = started(t, undaris, data)
	assert.Equal(t, "Undaris is at http://"+mine, said[0], "the same as before")
	end()
	for _, nonsense := range []string{"", "nowhere", "0.0.0.0:80", strings.Repeat("9", 5000)} {
		require.NoError(t, os.WriteFile(filepath.Join(data, "address"), []byte(nonsense), 0o600))
		assert.Equal(t, usualAddress, keptAddress(data), nonsense)
	}
}

func TestATakenAddressIsSaid(t *testing.T) {
	undaris := binary(t)
	stranger, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer stranger.Close()
	out, err := exec.Command(undaris, "demo", "--addr", stranger.Addr().String(), "--data", t.TempDir()).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "another program is at "+stranger.Addr().String()+" already")
	for _, args := range [][]string{{"--version"}, {"version"}} {
		out, err = exec.Command(undaris, args...).Output()
		require.NoError(t, err)
		assert.Regexp(t, `^undaris \d+\.\d+\.\d+\n$`, string(out))
	}
	out, err = exec.Command(undaris, "--help").Output()
	require.NoError(t, err)
	for _, word := range []string{"--no-open", "--data", "backup", "restore", "demo", "serve"} {
		assert.Contains(t, string(out), word)
	}
	assert.NotContains(t, string(out), "openapi")
}

func TestWhereEachSystemKeepsData(t *testing.T) {
	env := func(pairs ...string) func(string) string {
		return func(name string) string {
			for i := 0; i < len(pairs); i += 2 {
				if pairs[i] == name {
					return pairs[i+1]
				}
			}
			return ""
		}
	}
	for _, c := range []struct {
		system, home string
		env          func(string) string
		want         string
	}{
		{"linux", "/home/reed", env(), "/home/reed/.local/share/undaris"},
		{"linux", "/home/reed", env("XDG_DATA_HOME", "/data"), "/data/undaris"},
		{"linux", "/home/reed", env("XDG_DATA_HOME", "not/absolute"), "/home/reed/.local/share/undaris"},
		{"freebsd", "/home/reed", env("LocalAppData", "x"), "/home/reed/.local/share/undaris"},
		{"darwin", "/Users/Reed Sands", env("XDG_DATA_HOME", "/data"), "/Users/Reed Sands/Library/Application Support/undaris"},
		{"windows", `C:\Users\Reed Sands`, env("LocalAppData", `D:\Local`), `D:\Local\undaris`},
		{"windows", `C:\Users\Reed Sands`, env(), `C:\Users\Reed Sands\AppData\Local\undaris`},
		{"linux", "", env(), ""}, {"darwin", "", env(), ""}, {"windows", "", env(), ""},
	} {
		got, err := dataDirOn(c.system, "undaris", c.home, c.env)
		assert.Equal(t, c.want, got, c)
		assert.Equal(t, c.want == "", err != nil, c)
	}
	for _, system := range []string{"linux", "darwin", "windows"} {
		command := opener(system, "http://127.0.0.1:4760")
		assert.Equal(t, "http://127.0.0.1:4760", command[len(command)-1], system)
	}
}

// The browser is opened at the address, and told once which one was taken by another program.
func TestTheBrowserIsToldWhereUndarisWas(t *testing.T) {
	if runtime.GOOS != "linux" {
		t.Skip("the browser is opened by another command there")
	}
	undaris, data, at := binary(t), t.TempDir(), t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(at, "xdg-open"), []byte("#!/bin/sh\necho \"$1\" >> "+at+"/opened\n"), 0o700))
	t.Setenv("PATH", at+":"+os.Getenv("PATH"))
	stranger, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer stranger.Close()
	was := stranger.Addr().String()
	require.NoError(t, os.WriteFile(filepath.Join(data, "address"), []byte(was+"\n"), 0o600))
	opened := func(n int) string {
		var lines []string
		require.Eventually(t, func() bool {
			text, _ := os.ReadFile(filepath.Join(at, "opened"))
			lines = strings.Fields(string(text))
			return len(lines) == n
		}, 20*time.Second, 20*time.Millisecond)
		return lines[n-1]
	}
	for n, want := range []string{"/#was=" + was, ""} {
		cmd := exec.Command(undaris, "--data", data)
		require.NoError(t, cmd.Start())
		got := opened(n + 1)
		address, err := os.ReadFile(filepath.Join(data, "address"))
		require.NoError(t, err)
		assert.Equal(t, "http://"+strings.TrimSpace(string(address))+want, got)
		require.NoError(t, cmd.Process.Signal(os.Interrupt))
		_ = cmd.Wait()
	}
}
