// Command run runs the browser's tests: some processes beside each other, each with a browser of
// its own, and at last, one after the other, those that need the machine for themselves.
//
//	go run ./e2e/run            # all of them
//	go run ./e2e/run Lick Line  # those whose names have one of these in them
package main

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"regexp"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"
)

// alone are tests that measure real time or hear through the microphone, and why: whatever works
// beside them would be heard.
var alone = map[string]string{
	"TestALineIsHeardThroughTheMicrophone": "microphone",
	"TestEveryRoomThroughTheMicrophone":    "microphone",
	"TestACallIsAnsweredByPlaying":         "microphone",
	"TestTheEarIsMeasuredAndUnplugged":     "microphone",
	"TestTheEarDoesNotDisturbTheSound":     "microphone, and gaps in the sound are counted",
	"TestABusyPageDoesNotDisturbTheSound":  "gaps in the sound are counted",
	"TestWhatIsShownIsWhatIsHeard":         "what is drawn is compared with the clock of the sound",
	"TestASimulatedPlayerIsHeard":          "a player plays in time with the band",
	"TestALineIsPlayedAndJudged":           "a player plays in time with the band",
	"TestCallsComeRoundOverTheBand":        "calls are answered in time with the band",
	"TestTheFirstEvening":                  "a key is pressed in time with the band",
	"TestATonesRestIsHeard":                "what sounds is compared with what is shown",
	"TestTheTransport":                     "the band goes on while it is asked where it is",
	"TestTheLadderClimbs":                  "passes of a loop are counted as they sound",
	"TestALadderGoesOnInFinerNotes":        "passes of a loop are counted as they sound",
	"TestARecordingIsSlowed":               "what sounds is measured",
	"TestMyTurnIsSetBesideTheRecord":       "microphone",
	"TestARecordingIsTheBand":              "what sounds is measured",
	"TestTheStandFollowsTheLaptop":         "two pages show the same moment",
	"TestALoopedBarRepeatsToTheSample":     "sound is compared to the sample",
}

// whole are tests that need a whole Chromium, and why.
var whole = map[string]string{
	"TestABrowserThatIsFull":         "the light one has no quota",
	"TestWithoutAMicrophoneItIsSaid": "the light one asks nobody for leave",
	"TestOnePressGoesOn":             "the light one does not say that it gave leave before",
}

// chunk is how many tests a process runs before the next takes over: starting a browser takes about
// a second, and with smaller ones no process waits long for another at the end.
const chunk = 6

// remembered is where the times of the last run are, by which the longest begin first.
const remembered = "bin/browser-times.json"

// outcome is what became of a test.
type outcome struct {
	name   string
	passed bool
	took   time.Duration
}

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	if err := run(ctx, os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// light is Debian's Chromium without its own windows and menus, which takes a sixth of the machine
// less: where it is installed the tests that run beside each other use it. BROWSER names another.
const light = "chromium-headless-shell"

func run(ctx context.Context, wanted []string) error {
	if _, err := exec.LookPath("chromium"); err != nil {
		return errors.New("there is no Chromium here; `make interface` installs Debian's")
	}
	var with string
	for _, name := range []string{os.Getenv("BROWSER"), light, "chromium"} {
		if path, err := exec.LookPath(name); err == nil {
			with = path
			break
		}
	}
	dir, err := os.MkdirTemp("", "browser-tests-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	binary := filepath.Join(dir, "e2e.test")
	if out, err := exec.CommandContext(ctx, "go", "test", "-c", "-o", binary, "./e2e").CombinedOutput(); err != nil {
		return fmt.Errorf("the tests do not build: %w\n%s", err, out)
	}
	list, err := command(ctx, binary, "-test.list", ".").Output()
	if err != nil {
		return fmt.Errorf("the tests cannot be listed: %w", err)
	}
	var beside, heavy, last []string
	for _, name := range strings.Fields(string(list)) {
		if !strings.HasPrefix(name, "Test") || len(wanted) > 0 && !slices.ContainsFunc(wanted, func(w string) bool { return strings.Contains(name, w) }) {
			continue
		}
		switch {
		case alone[name] != "":
			last = append(last, name)
		case whole[name] != "":
			heavy = append(heavy, name)
		default:
			beside = append(beside, name)
		}
	}
	if missing := slices.DeleteFunc(append(keys(alone), keys(whole)...), func(name string) bool { return slices.Contains(strings.Fields(string(list)), name) }); len(missing) > 0 {
		return fmt.Errorf("there are no tests %v, which are to run alone or in a whole browser", missing)
	}
	began := time.Now()
	times := readTimes()
	slices.SortStableFunc(beside, func(a, b string) int { return cmp.Compare(times[b], times[a]) })
	workers := runtime.NumCPU()
	if n, err := strconv.Atoi(os.Getenv("BROWSERS")); err == nil && n > 0 {
		workers = n
	}
	fmt.Printf("%d browser tests in %d processes of %s, then %d alone; %s\n", len(beside)+len(heavy), workers, filepath.Base(with), len(last), load())
	chunks := append([]chunked{{"chromium", heavy}}, spread(with, beside, chunk)...)
	all := inParallel(ctx, binary, chunks, workers)
	besideTook := time.Since(began).Round(time.Second)
	all = append(all, inParallel(ctx, binary, spread("chromium", last, 1), 1)...)
	var failed []string
	for _, o := range all {
		times[o.name] = o.took.Seconds()
		if !o.passed {
			failed = append(failed, o.name)
		}
	}
	writeTimes(times)
	slices.SortFunc(all, func(a, b outcome) int { return cmp.Compare(b.took, a.took) })
	for _, o := range all[:min(8, len(all))] {
		fmt.Printf("  %5.1f s  %s\n", o.took.Seconds(), o.name)
	}
	fmt.Printf("%d browser tests in %s, %s of it in parallel; %s\n", len(all), time.Since(began).Round(time.Second), besideTook, load())
	if len(failed) > 0 {
		return fmt.Errorf("failed: %s", strings.Join(failed, ", "))
	}
	if dealt := len(beside) + len(heavy) + len(last); len(all) != dealt {
		return fmt.Errorf("%d of %d tests told nothing", dealt-len(all), dealt)
	}
	return ctx.Err()
}

func keys(m map[string]string) (list []string) {
	for k := range m {
		list = append(list, k)
	}
	slices.Sort(list)
	return list
}

// chunked are tests that run in one process, with a browser.
type chunked struct {
	browser string
	names   []string
}

// spread deals tests into chunks, so that the longest, which come first, are in different ones.
func spread(browser string, names []string, size int) []chunked {
	chunks := make([]chunked, (len(names)+size-1)/size)
	for i, name := range names {
		c := &chunks[i%len(chunks)]
		c.browser, c.names = browser, append(c.names, name)
	}
	return chunks
}

func command(ctx context.Context, binary string, args ...string) *exec.Cmd {
	c := exec.CommandContext(ctx, binary, args...)
	c.Dir = "e2e"
	c.WaitDelay = 5 * time.Second
	return c
}

var told = regexp.MustCompile(`(?m)^--- (PASS|FAIL|SKIP): (\w+) \(([\d.]+)s\)`)

// inParallel runs chunks, so many at a time. What a failed one said is printed.
func inParallel(ctx context.Context, binary string, chunks []chunked, workers int) (all []outcome) {
	var mu sync.Mutex
	queue := make(chan chunked)
	var running sync.WaitGroup
	for range workers {
		running.Go(func() {
			for work := range queue {
				names := work.names
				if len(names) == 0 {
					continue
				}
				c := command(ctx, binary, "-test.v", "-test.timeout", "20m", "-test.run", "^("+strings.Join(names, "|")+")$")
				c.Env = append(os.Environ(), "BROWSER="+work.browser)
				var out bytes.Buffer
				c.Stdout, c.Stderr = &out, &out
				err := c.Run()
				mu.Lock()
				for _, m := range told.FindAllStringSubmatch(out.String(), -1) {
					seconds, _ := strconv.ParseFloat(m[3], 64)
					all = append(all, outcome{m[2], m[1] != "FAIL", time.Duration(seconds * float64(time.Second))})
				}
				if err != nil {
					fmt.Printf("%s\n%s\n", strings.Join(names, " "), out.String())
				}
				fmt.Printf("%4d tests told\n", len(all))
				mu.Unlock()
			}
		})
	}
	for _, work := range chunks {
		select {
		case queue <- work:
		case <-ctx.Done():
		}
	}
	close(queue)
	running.Wait()
	return all
}

// load says how busy the machine is, since all times depend on it.
func load() string {
	text, err := os.ReadFile("/proc/loadavg")
	if err != nil {
		return "how busy the machine is cannot be told"
	}
	return fmt.Sprintf("load %s on %d cores", strings.Fields(string(text))[0], runtime.NumCPU())
}

func readTimes() map[string]float64 {
	times := map[string]float64{}
	if text, err := os.ReadFile(remembered); err == nil {
		_ = json.Unmarshal(text, &times)
	}
	return times
}

func writeTimes(times map[string]float64) {
	if text, err := json.MarshalIndent(times, "", " "); err == nil {
		_ = os.WriteFile(remembered, text, 0o644)
	}
}
