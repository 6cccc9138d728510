// Package e2e drives the real application in headless Chromium, as a player would.
package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	goruntime "runtime"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"undaris/demo"
	"undaris/e2e/room"
	"undaris/server"
	"undaris/store"
	"undaris/web"
)

// browser is started once; each test gets a tab and a server of its own.
var browser context.Context

func TestMain(m *testing.M) {
	if _, err := fs.Stat(web.Files(), "index.html"); err != nil {
		fmt.Println("the front end is not built; run make build first")
		os.Exit(1)
	}
	if err := room.Open(); err != nil {
		fmt.Println("no network of the test's own:", err)
		os.Exit(1)
	}
	alloc, stop := chromedp.NewExecAllocator(context.Background(), flags()...)
	var cancel context.CancelFunc
	browser, cancel = chromedp.NewContext(alloc)
	if err := chromedp.Do(browser); err != nil {
		fmt.Println("Chromium does not start:", err)
		os.Exit(1)
	}
	code := m.Run()
	cancel()
	stop()
	os.Exit(code)
}

// flags are those of every browser, and more.
func flags(more ...chromedp.ExecAllocatorOption) []chromedp.ExecAllocatorOption {
	own := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.NoSandbox, chromedp.WindowSize(1280, 800),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true))
	if path := os.Getenv("BROWSER"); path != "" { // of those in parallel: see run
		own = append(own, chromedp.ExecPath(path))
	}
	return append(own, more...)
}

// player is a tab with the application in it.
type player struct {
	t     testing.TB
	ctx   context.Context
	base  string
	gone  func()        // the program stops answering
	close func()        // the tab is closed
	deaf  func(bool)    // what is to be kept does not get through
	slow  *atomic.Int64 // how many milliseconds the study of a line takes longer
	rough func(bool)    // every answer comes 0 to 2 seconds late, and one of five not at all
	sure  func(bool)    // simulated players do not err
}

// sit opens a tab on an application with the demo data, or with nothing.
func sit(t testing.TB, fill bool) *player { return sitIn(t, browser, fill) }

// sitIn does so in a browser of its own.
func sitIn(t testing.TB, browser context.Context, fill bool) *player {
	how := func(*store.Store) error { return nil }
	if fill {
		how = demo.Fill
	}
	return sitWith(t, browser, how)
}

// sitWith does so with the data that fill puts there.
func sitWith(t testing.TB, browser context.Context, fill func(*store.Store) error) *player {
	s, err := store.Open(t.TempDir())
	require.NoError(t, err)
	require.NoError(t, fill(s))
	mux := http.NewServeMux()
	mux.Handle("/", server.New(s, web.Files(), slog.New(slog.DiscardHandler)))
	mux.Handle("/test/", http.StripPrefix("/test/", http.FileServer(http.Dir("testdata"))))
	mux.Handle("/modules/", http.StripPrefix("/modules/", http.FileServer(http.Dir("../web/node_modules"))))
	var deaf atomic.Bool
	var slow atomic.Int64
	var rough, sure atomic.Bool
	web := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if deaf.Load() && r.Method == http.MethodPut {
			panic(http.ErrAbortHandler)
		}
		if rough.Load() && strings.HasPrefix(r.URL.Path, "/api/lines/") {
			time.Sleep(time.Duration(rand.IntN(2000)) * time.Millisecond)
			switch rand.IntN(10) {
			case 0: // asked, but never answered
				mux.ServeHTTP(httptest.NewRecorder(), r)
				panic(http.ErrAbortHandler)
			case 1: // never heard
				panic(http.ErrAbortHandler)
			}
		}
		if sure.Load() && r.URL.Path == "/api/practice/simulate" {
			var wish map[string]any
			if json.NewDecoder(r.Body).Decode(&wish) == nil {
				wish["wrong"], wish["late"] = 0, 0
				body, _ := json.Marshal(wish)
				r.Body, r.ContentLength = io.NopCloser(bytes.NewReader(body)), int64(len(body))
			}
		}
		if strings.HasSuffix(r.URL.Path, "/study") {
			time.Sleep(time.Duration(slow.Load()) * time.Millisecond)
		}
		mux.ServeHTTP(w, r)
	}))
	t.Cleanup(func() {
		web.Close()
		s.Close()
	})
	p := tabIn(t, browser, web.URL)
	p.deaf, p.slow, p.rough, p.sure = deaf.Store, &slow, rough.Store, sure.Store
	p.gone = func() { web.CloseClientConnections(); web.Listener.Close() }
	return p
}

// tab opens a tab on an application.
func tab(t testing.TB, base string, how ...chromedp.ContextOption) *player {
	return tabIn(t, browser, base, how...)
}

func tabIn(t testing.TB, browser context.Context, base string, how ...chromedp.ContextOption) *player {
	ctx, cancel := chromedp.NewContext(browser, how...)
	limit := time.Duration(4*busy()) * time.Minute
	if _, measuring := t.(*testing.B); measuring {
		limit = 10 * time.Minute
	}
	ctx, stop := context.WithTimeout(ctx, limit)
	p := &player{t: t, ctx: ctx, base: base}
	p.close = sync.OnceFunc(func() { stop(); cancel() })
	var faults []string
	exceptions := chromedp.Events(ctx, runtime.ExceptionThrown)
	go func() {
		for e, err := range exceptions {
			if err != nil {
				return
			}
			faults = append(faults, fmt.Sprint(e.ExceptionDetails.Text, " ", e.ExceptionDetails.Exception))
		}
	}()
	t.Cleanup(func() {
		if t.Failed() {
			p.keep()
		}
		p.close()
		require.Empty(t, faults, "the page threw")
	})
	return p
}

// keep saves a picture of a failed test where ARTIFACTS says.
func (p *player) keep() {
	if dir := os.Getenv("ARTIFACTS"); dir != "" {
		if png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot()); err == nil {
			_ = os.WriteFile(fmt.Sprintf("%s/%s.png", dir, strings.ReplaceAll(p.t.Name(), "/", "-")), png, 0o600)
		}
	}
}

func (p *player) do(actions ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, actions...))
}

func (p *player) visit(path string) {
	p.t.Helper()
	p.do(chromedp.Navigate(p.base + path))
}

// eval evaluates an expression in the page.
func eval[T any](p *player, js string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js))
	require.NoError(p.t, err, js)
	return v
}

// evalLater evaluates an expression that is a promise, and waits for it.
func evalLater[T any](p *player, js string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	return v
}

// until waits for an expression to become true.
func (p *player) until(js string, args ...any) {
	p.t.Helper()
	js = fmt.Sprintf(js, args...)
	deadline := time.Now().Add(25 * time.Second)
	longer := sync.OnceFunc(func() { // a busy machine is slow, which is no fault of the page
		if n := busy(); n > 1 {
			p.t.Logf("the machine is busy: waiting %.0f times as long", n)
			deadline = deadline.Add(time.Duration(25*(n-1)) * time.Second)
		}
	})
	for {
		ok, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("(async () => !!(await ("+js+")))()", chromedp.EvalAwaitPromise))
		if err == nil && ok {
			return
		}
		if time.Now().After(deadline) {
			longer()
		}
		if time.Now().After(deadline) {
			body := eval[string](p, `[...document.querySelectorAll('[role=dialog]')].map(d => 'a dialog: ' + d.innerText.slice(0, 300) + '\n').join('')
				+ 'in hand: ' + document.activeElement?.outerHTML.slice(0, 200) + '\n'
				+ document.getAnimations().filter(a => a.playState === 'running').map(a => 'running: ' + (a.animationName ?? a.transitionProperty) + ' of ' + a.effect?.target?.className + '\n').join('')
				+ document.body.innerText.slice(0, 1200)`)
			require.Fail(p.t, "never became true", "%s (%v)\n%s", js, err, body)
		}
		time.Sleep(15 * time.Millisecond)
	}
}

// busy is how many times as much work waits for the machine as it has cores for; 8 at the most.
func busy() float64 {
	var load float64
	if text, err := os.ReadFile("/proc/loadavg"); err == nil {
		fmt.Sscan(string(text), &load)
	}
	return min(8, max(1, load/float64(goruntime.NumCPU())))
}

// sees waits for a text in an element.
func (p *player) sees(css, text string) {
	p.t.Helper()
	p.until(`[...document.querySelectorAll(%q)].some(e => e.innerText.replace(/\s+/g, ' ').includes(%q))`, css, text)
}

// soon tells whether a text is to be seen somewhere within so many seconds.
func (p *player) soon(css, text string, seconds float64) bool {
	for end := time.Now().Add(time.Duration(seconds * float64(time.Second))); time.Now().Before(end); time.Sleep(50 * time.Millisecond) {
		if eval[bool](p, fmt.Sprintf(`[...document.querySelectorAll(%q)].some(e => e.innerText.replace(/\s+/g, ' ').includes(%q))`, css, text)) {
			return true
		}
	}
	return false
}

// click clicks the first element of the selector whose text or label contains text. Where the page
// moved under the pointer, so that the press met something else, it is pressed again: a press that
// met the element and brought nothing is a fault of the page.
func (p *player) click(css, text string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll(%q)].find(e => ((e.getAttribute('aria-label') ?? '') + e.innerText).includes(%q))`, css, text)
	for range 20 {
		p.until("%s", find)
		// A player clicks what stands still and lies on top.
		p.until(`(async () => {
			const e = %s
			if (!e) return false
			e.scrollIntoView({block: 'nearest'})
			const box = () => { const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] }
			const meets = x => e.contains(x) || x?.contains(e)
			const before = box()
			await new Promise(requestAnimationFrame)
			await new Promise(requestAnimationFrame)
			const now = window.clickAt = box()
			if (before[0] !== now[0] || before[1] !== now[1] || !meets(document.elementFromPoint(...now))) return false
			window.clickMet = window.clickCame = undefined
			// An option of a list is taken as the press goes down, and the list may be gone before it comes up.
			window.clickLost = () => window.clickMet && !window.clickCame && document.contains(e) && !e.disabled && !e.closest('[role=option]')
			let down
			document.addEventListener('pointerdown', d => (window.clickMet = meets(down = d.target)), {capture: true, once: true})
			window.addEventListener('click', c => (window.clickCame = c.target === down || e.contains(c.target)), {capture: true, once: true})
			return true
		})()`, find)
		at := eval[[]float64](p, `window.clickAt`)
		p.do(chromedp.MouseClickXY(at[0], at[1]))
		switch eval[string](p, `window.clickMet === false ? 'missed' : window.clickLost?.() ? 'lost' : ''`) {
		case "":
			return
		case "lost": // it went down on what lay there, and came up on something else
			p.t.Logf("a press was lost: %s %s", css, text)
		}
	}
	require.Fail(p.t, "never stood still under the pointer", "%s %s", css, text)
}

// keys presses keys one after the other.
func (p *player) keys(keys ...string) {
	p.t.Helper()
	for _, k := range keys {
		p.do(chromedp.KeyEvent(k))
	}
}

// choose picks an option of a drop-down list.
func (p *player) choose(id, option string) {
	p.t.Helper()
	p.click(".p-select:has(#"+id+")", "")
	p.click("[role=option]", option)
	p.until(`!document.querySelector('[role=option]')`)
}

// shut closes the open dialog.
func (p *player) shut() {
	p.t.Helper()
	p.click(".p-dialog-close-button", "")
	p.until(`!document.querySelector('[role=dialog]')`)
}

// write puts a text into a field in place of what it holds.
func (p *player) write(css, text string) {
	p.t.Helper()
	// What is just opening takes the focus when it is open.
	p.until(`document.querySelector(%q) && !document.querySelector('.p-dialog-enter-active')`, css)
	for try := range 3 {
		p.do(chromedp.Focus(chromedp.CSS(css)))
		before := eval[string](p, fmt.Sprintf(`(e => { e.select(); return String(e.value) })(document.querySelector(%q))`, css))
		if text == "" {
			p.keys("\b")
			return
		}
		p.do(chromedp.SendKeys(chromedp.CSS(css), text))
		// A player who sees that nothing came of it writes it again.
		if now := eval[string](p, fmt.Sprintf(`String(document.querySelector(%q)?.value ?? %q)`, css, text)); now != before || now == text {
			return
		}
		p.t.Logf("what was typed was lost, try %d: %s %s", try+1, css, text)
	}
}

// paste puts a text into a field in place of what it holds, in one go.
func (p *player) paste(css, text string) {
	p.t.Helper()
	p.do(chromedp.Focus(chromedp.CSS(css)))
	eval[bool](p, fmt.Sprintf(`(() => { document.querySelector(%q).select(); return true })()`, css))
	_, err := chromedp.Call(p.ctx, input.InsertText, input.InsertTextParams{Text: text})
	require.NoError(p.t, err)
}

// degrees are the degrees on the neck, by place.
func (p *player) degrees() map[string]string {
	p.t.Helper()
	return eval[map[string]string](p, `Object.fromEntries([...document.querySelectorAll('[data-spot]')].map(e => [e.dataset.spot, e.dataset.degree]))`)
}

func (p *player) address() string { return eval[string](p, `location.pathname + location.search`) }
