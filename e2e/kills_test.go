package e2e

import (
	"bufio"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// program is the real binary.
type program struct {
	cmd  *exec.Cmd
	addr string
}

func run(t testing.TB, path, dir, addr string) program {
	t.Helper()
	cmd := exec.Command(path, "demo", "--addr", addr, "--data", dir)
	var said strings.Builder
	cmd.Stderr = &said
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		_ = cmd.Wait()
	}
	require.NoError(t, err, said.String())
	return program{cmd, strings.Trim(line[strings.Index(line, "http://")+7:], "/\n ")}
}

func (p program) kill() {
	_ = p.cmd.Process.Kill()
	_ = p.cmd.Wait()
}

// TestKilledWhileOneWrites kills the program in the middle of edits, again and
// again: what the page called saved is there when it comes back, and the rest
// arrives. KILLS=50 kills it as often.
func TestKilledWhileOneWrites(t *testing.T) {
	rounds := 6
	if n, err := strconv.Atoi(os.Getenv("KILLS")); err == nil {
		rounds = n
	}
	path := filepath.Join(t.TempDir(), "undaris")
	out, err := exec.Command("go", "build", "-o", path, "../cmd/undaris").CombinedOutput()
	require.NoError(t, err, string(out))
	dir := t.TempDir()
	running := run(t, path, dir, "127.0.0.1:0")
	t.Cleanup(func() { running.kill() })
	p := tab(t, "http://"+running.addr)
	p.visit("/charts")
	id := p.blank()

	h := hand{notes: map[[2]int]sign{}, string: 1}
	r := rand.New(rand.NewPCG(5, 7))
	states := []string{strings.Join(h.list(), "\n")}
	kept := 0 // the state that the page called saved last
	for round := range rounds {
		for range 3 + r.IntN(8) {
			for _, key := range h.press(r) {
				p.strike(key)
			}
			states = append(states, strings.Join(h.list(), "\n"))
			time.Sleep(time.Duration(r.IntN(160)) * time.Millisecond)
			if strings.Contains(eval[string](p, `document.querySelector('.line .meta [role=status]').textContent`), "saved") &&
				!strings.Contains(eval[string](p, `document.querySelector('.line .meta [role=status]').textContent`), "not") {
				kept = len(states) - 1
			}
		}
		if r.IntN(2) == 0 {
			time.Sleep(time.Duration(r.IntN(900)) * time.Millisecond)
		}
		running.kill()
		running = run(t, path, dir, running.addr)
		stored := strings.Join(storedAt(t, running.addr, id), "\n")
		at := slices.Index(states[kept:], stored)
		require.GreaterOrEqual(t, at, 0, "round %d: what was saved is gone: in all states it is %d of %d, saved was %d\n%s\n\nnow\n%s", round, slices.Index(states, stored), len(states), kept, stored, states[len(states)-1])
	}
	p.saved()
	require.Equal(t, h.list(), p.stored(id))
}

// storedAt asks the program itself.
func storedAt(t testing.TB, addr string, id int) []string {
	t.Helper()
	resp, err := http.Get(fmt.Sprintf("http://%s/api/lines/%d", addr, id))
	require.NoError(t, err)
	defer resp.Body.Close()
	return signs(t, resp.Body)
}
