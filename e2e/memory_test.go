package e2e

import (
	"bytes"
	"context"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/storage"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/demo"
	"undaris/server"
	"undaris/store"
	"undaris/web"
)

// remembered is what the browser keeps in one of its stores, as text.
func (p *player) remembered(store string) string {
	p.t.Helper()
	return evalLater[string](p, fmt.Sprintf(`new Promise(done => { const r = indexedDB.open('undaris'); r.onsuccess = () => {
		const all = r.result.transaction(%q).objectStore(%q).getAll(); all.onsuccess = () => { r.result.close(); done(JSON.stringify(all.result)) } } })`, store, store))
}

// port is one address behind which one database or another is served.
type port struct {
	url    string
	stores []*store.Store
	open   atomic.Int32
	deaf   atomic.Bool // nothing is answered
}

func portOf(t *testing.T, fills ...func(*store.Store) error) *port {
	p := &port{}
	handlers := make([]http.Handler, len(fills))
	for i, fill := range fills {
		s, err := store.Open(t.TempDir())
		require.NoError(t, err)
		require.NoError(t, fill(s))
		p.stores = append(p.stores, s)
		handlers[i] = server.New(s, web.Files(), slog.New(slog.DiscardHandler))
		t.Cleanup(func() { s.Close() })
	}
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if p.deaf.Load() {
			panic(http.ErrAbortHandler)
		}
		handlers[p.open.Load()].ServeHTTP(w, r)
	}))
	t.Cleanup(srv.Close)
	p.url = srv.URL
	return p
}

// own is a browser of its own, with a memory of its own.
func own(t *testing.T, url string) *player {
	return tab(t, url, chromedp.WithNewBrowserContext())
}

func plainLine(title string) func(*store.Store) error {
	return func(s *store.Store) error {
		return s.CreateLine(&store.Line{Title: title, Key: "C", Feel: "shuffle", Tempo: 90, Beats: 4, Text: "| C7 | F7 | C7 | C7 |", Low: 0, High: 12, Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Notes: []store.LineNote{}, Locked: []int{}})
	}
}

func (p *player) fret(figures ...string) {
	p.t.Helper()
	p.do(chromedp.Focus(chromedp.CSS(".grid")))
	p.keys(figures...)
}

func (p *port) notes(t *testing.T, of int, line uint) int {
	l, err := p.stores[of].Line(line)
	require.NoError(t, err)
	return len(l.Notes)
}

// Unsent work of one database never reaches a thing of another: it is offered, in words, and
// becomes a new one or is let go. Where its own database comes back it is taken up.
func TestWorkOfAnotherDatabaseIsOffered(t *testing.T) {
	port := portOf(t, plainLine("Ebb"), plainLine("Flow"))
	p := own(t, port.url)
	p.visit("/lines/1")
	p.until(`document.querySelector('.grid .pen')`)
	port.deaf.Store(true)
	p.fret("5", kb.ArrowRight, "7")
	p.sees("main", "not saved yet")
	port.open.Store(1)
	port.deaf.Store(false)
	p.until(`document.querySelector('.line header input')?.value === 'Flow'`) // the open tab turns
	p.sees(".notes", "Something else is open in Undaris now")
	p.visit("/lines/1") // and so does a page that is opened anew
	p.until(`document.querySelector('.line header input')?.value === 'Flow'`)
	p.sees(".notes", "Ebb")
	p.sees(".notes", "in other data than what is open now")
	p.sees(".notes", "the notes (2 here, 0 there)")
	p.inBothLooks(".notes", "work of another database")
	assert.Zero(t, port.notes(t, 1, 1), "nothing was put into the other's line")
	p.click(".notes button", "Keep it as a new one")
	p.until(`location.pathname === '/lines/2'`)
	p.until(`document.querySelector('.line header input')?.value === 'Ebb (mine)'`)
	assert.Equal(t, 2, port.notes(t, 1, 2))
	p.until(`!document.querySelector('.notes [role=group]')`)

	// Once more, and its own database comes back: it is there as it was left.
	port.open.Store(0)
	p.visit("/lines/1")
	p.until(`document.querySelector('.line header input')?.value === 'Ebb' && document.querySelector('.grid .pen')`)
	port.deaf.Store(true)
	p.fret("3")
	p.sees("main", "not saved yet")
	port.open.Store(1)
	port.deaf.Store(false)
	p.until(`document.querySelector('.line header input')?.value === 'Flow'`)
	port.open.Store(0)
	p.visit("/lines/1")
	p.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.notes.length === 1)`)
	p.until(`document.querySelectorAll('.grid .fret').length === 1`)
	assert.Zero(t, port.notes(t, 1, 1))
}

// After a restore what was open turns to what is there, and what was not saved is not put
// into it unasked.
func TestARestoreIsNotReplacedByWhatItReplaced(t *testing.T) {
	port := portOf(t, plainLine("Ebb"))
	p := own(t, port.url)
	p.visit("/lines/1")
	p.until(`document.querySelector('.grid .pen')`)
	var saved bytes.Buffer
	require.NoError(t, port.stores[0].Backup(context.Background(), &saved, true))
	p.fret("5")
	p.saved()
	port.deaf.Store(true)
	p.fret(kb.ArrowRight, "8")
	p.sees("main", "not saved yet")
	_, err := port.stores[0].Restore(context.Background(), bytes.NewReader(saved.Bytes()), store.Asked{Empty: true})
	require.NoError(t, err)
	port.deaf.Store(false)
	p.sees(".notes", "Something else is open in Undaris now")
	p.sees(".notes", "was never saved")
	p.until(`document.querySelectorAll('.grid .fret').length === 0`)
	assert.Zero(t, port.notes(t, 0, 1))
	p.click(".notes button", "Let it go")
	p.until(`!document.querySelector('.notes [role=group]')`)
	p.visit("/lines/1")
	p.until(`document.querySelector('.grid .pen')`)
	assert.Zero(t, port.notes(t, 0, 1))
}

// Two tabs that were offline and are closed have lost nothing: the next one takes up both.
func TestTwoTabsOfflineAndClosed(t *testing.T) {
	port := portOf(t, plainLine("Ebb"))
	keeping := own(t, port.url)
	keeping.visit("/charts")
	keeping.sees("h1", "Charts")
	tabs := []*player{}
	for range 2 {
		// In the same browser as the one that stays open.
		q := tabIn(t, keeping.ctx, port.url)
		q.visit("/lines/1")
		q.until(`document.querySelector('.grid .pen')`)
		tabs = append(tabs, q)
	}
	port.deaf.Store(true)
	for i, q := range tabs {
		for range 4 * i {
			q.fret(kb.ArrowRight)
		}
		q.fret("1", kb.ArrowRight, "2", kb.ArrowRight, "3")
		q.sees("main", "not saved yet")
	}
	for _, q := range tabs {
		q.close()
	}
	port.deaf.Store(false)
	keeping.visit("/lines/1")
	keeping.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.notes.length === 6)`)
	keeping.saved()
	keeping.until(`document.querySelectorAll('.grid .fret').length === 6`)
	assert.False(t, eval[bool](keeping, `!!document.querySelector('[role=dialog]')`))
}

// What was done to a line, a lick and a chart that are deleted elsewhere is asked about.
func TestDeletedElsewhere(t *testing.T) {
	p := sit(t, true)
	for path, title := range map[string]string{"/lines/1": ".line header input", "/licks/1": "input.name", "/charts/6": "#title"} {
		for _, press := range []string{"Bring it back", "Keep it as a new one", "Let it go"} {
			p.visit(path)
			p.until(`document.querySelector(%q)?.value`, title)
			before := eval[string](p, fmt.Sprintf(`document.querySelector(%q).value`, title))
			evalLater[int](p, fmt.Sprintf(`fetch('/api%s', {method: 'DELETE', headers: {'If-Match': '*'}}).then(r => r.status)`, path))
			p.paste(title, "Written on "+press) // at once: the page asks as soon as half a second later
			p.sees("[role=dialog]", "was deleted in another window")
			p.click("[role=dialog] button", press)
			p.until(`!document.querySelector('[role=dialog]')`)
			if press != "Bring it back" {
				evalLater[int](p, fmt.Sprintf(`fetch('/api%s/restore', {method: 'POST'}).then(r => r.status)`, path))
			}
			kind := filepath.Dir(path)
			want := map[string]string{"Bring it back": "Written on Bring it back", "Keep it as a new one": before, "Let it go": before}[press]
			p.until(`fetch('/api%s').then(r => r.json()).then(l => l.title === %q)`, path, want)
			p.until(`fetch('/api%s').then(r => r.json()).then(all => all.some(l => l.title.startsWith('Written on Keep it')) === %t)`, kind, press != "Bring it back")
		}
	}
}

// To go back after another tab's change was joined takes back mine, and leaves theirs.
func TestUndoTakesBackMineAlone(t *testing.T) {
	a := sit(t, true)
	a.visit("/lines/1")
	a.lineID()
	b := tab(t, a.base)
	b.visit("/lines/1")
	b.lineID()
	notes := len(a.kept(1).Notes)
	a.write(".line header input", "Mine")
	a.saved()
	b.until(`document.querySelector('.line header input').value === 'Mine'`)
	b.click("[data-note]", "")
	b.keys("\b")
	b.saved()
	a.until(`new Set([...document.querySelectorAll('[data-note]')].map(e => e.dataset.note)).size === %d`, notes-1)
	a.click("button", "undo title")
	a.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.title !== 'Mine' && l.notes.length === %d)`, notes-1)
	b.click("button", "undo deletion")
	b.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.title !== 'Mine' && l.notes.length === %d)`, notes)
}

// Without room in the browser, and without any storage, everything works, and it is said at
// once what cannot be promised.
func TestABrowserThatKeepsNothing(t *testing.T) {
	port := portOf(t, demo.Fill)
	p := own(t, port.url)
	// As a browser does whose site data are blocked.
	p.before(`for (const name of ['indexedDB', 'localStorage', 'sessionStorage']) Object.defineProperty(window, name, { get() { throw new DOMException('denied', 'SecurityError') } })`)
	for _, path := range []string{"/bench/6", "/charts", "/charts/6", "/licks", "/licks/1", "/lines", "/lines/1", "/sets", "/practice", "/practice/6?do=changes", "/practice/6?do=log", "/practice/6?do=today", "/stand/6", "/bench/6/atlas"} {
		p.visit(path)
		p.until(`document.querySelector('main')?.innerText.trim().length > 20`)
		if path != "/stand/6" {
			p.sees(".notes", "This browser keeps nothing for Undaris")
		}
	}
	p.inBothLooks(".notes", "a browser that keeps nothing")
	p.visit("/lines/1")
	p.lineID()
	p.write(".line header input", "Kept all the same")
	p.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.title === 'Kept all the same')`)
	p.click(".notes button", "I see")
	p.until(`!document.querySelector('.notes')`)
}

func TestABrowserThatIsFull(t *testing.T) {
	port := portOf(t, plainLine("Ebb"))
	p := own(t, port.url)
	p.visit("/lines/1")
	p.until(`document.querySelector('.grid .pen')`)
	size := 1.0
	_, err := chromedp.Call(p.ctx, storage.OverrideQuotaForOrigin, storage.OverrideQuotaForOriginParams{Origin: port.url, QuotaSize: &size})
	require.NoError(t, err)
	port.deaf.Store(true)
	p.fret("5")
	p.sees("main", "not saved yet")
	// A browser does not look at how much room there is each time; what it lets in is put by, and no word is due.
	for i := 0; i < 20 && !eval[bool](p, `!!document.querySelector('.notes')?.innerText.includes('no room left')`); i++ {
		time.Sleep(300 * time.Millisecond)
		p.fret(fmt.Sprint(5 + i%2))
	}
	p.sees(".notes", "no room left")
	port.deaf.Store(false)
	p.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.notes.length === 1)`)
}

// What is practised while nothing answers is noted later: once, and as it was.
func TestTheLogWaits(t *testing.T) {
	port := portOf(t, demo.Fill)
	p := own(t, port.url)
	p.visit("/practice/6?do=calls&ask=tones&seed=3")
	p.until(`document.querySelector('.chord')`)
	before := evalLater[int](p, `fetch('/api/log').then(r => r.json()).then(l => l.total)`)
	time.Sleep(300 * time.Millisecond) // more calls are fetched ahead
	port.deaf.Store(true)
	for range 2 {
		p.keys(kb.ArrowRight)
		p.keys("h")
	}
	p.until(`new Promise(done => { const r = indexedDB.open('undaris'); r.onsuccess = () => { const all = r.result.transaction('entries').objectStore('entries').count(); all.onsuccess = () => { r.result.close(); done(all.result === 2) } } })`)
	p.do(chromedp.Navigate("about:blank"))
	port.deaf.Store(false)
	p.visit("/charts")
	p.until(`fetch('/api/log').then(r => r.json()).then(l => l.total === %d && l.rows.slice(0, 2).every(r => r.kind === 'skip'))`, before+2)
	p.until(`new Promise(done => { const r = indexedDB.open('undaris'); r.onsuccess = () => { const all = r.result.transaction('entries').objectStore('entries').count(); all.onsuccess = () => { r.result.close(); done(all.result === 0) } } })`)
	p.visit("/charts")
	p.sees("h1", "Charts")
	assert.Equal(t, before+2, evalLater[int](p, `fetch('/api/log').then(r => r.json()).then(l => l.total)`))
}

// What older programs kept, without saying of which database, is offered and never applied;
// choices go to the player in hand.
func TestWhatOlderProgramsKept(t *testing.T) {
	port := portOf(t, plainLine("Ebb"))
	p := own(t, port.url)
	p.visit("/charts")
	p.sees("h1", "Charts")
	eval[bool](p, `(() => {
		localStorage.setItem('undaris-unsent:/api/lines/1', JSON.stringify({version: 1, body: {title: 'Old work', key: 'C', feel: 'shuffle', tempo: 90, beats: 4, text: '| C7 |', low: 0, high: 12, notes: [{id: 1, start: 0, length: 480, string: 1, fret: 5, note: 'A4', finger: 1}]}}))
		localStorage.setItem('undaris-theme', 'stage')
		localStorage.setItem('undaris-rungs', JSON.stringify({'line 1': {tempo: 77, row: 0}}))
		return true })()`)
	p.visit("/lines/1")
	p.until(`document.documentElement.dataset.theme === 'stage' && document.querySelector('.grid .pen')`)
	p.sees(".notes", "by an older Undaris")
	assert.Zero(t, port.notes(t, 0, 1))
	assert.Contains(t, p.remembered("settings"), `"line 1":{"tempo":77`)
	assert.Equal(t, 0, eval[int](p, `localStorage.length`))
	p.visit("/lines/1") // it is not dropped
	p.sees(".notes", "Old work")
	p.click(".notes button", "Keep it as a new one")
	p.until(`location.pathname === '/lines/2'`)
	assert.Equal(t, 1, port.notes(t, 0, 2))
}

// A database file that is copied back by hand is another history: nothing of the one that was
// replaced is written over it, but what is done from then on is kept.
func TestAFileCopiedBackByHand(t *testing.T) {
	dir := t.TempDir()
	s, err := store.Open(dir)
	require.NoError(t, err)
	require.NoError(t, plainLine("Ebb")(s))
	var now atomic.Pointer[http.Handler]
	serve := func() {
		h := server.New(s, web.Files(), slog.New(slog.DiscardHandler))
		now.Store(&h)
	}
	serve()
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) { (*now.Load()).ServeHTTP(w, r) }))
	t.Cleanup(func() { srv.Close(); s.Close() })
	p := own(t, srv.URL)
	p.visit("/lines/1")
	p.until(`document.querySelector('.grid .pen')`)
	again := func() {
		require.NoError(t, s.Close())
		s, err = store.Open(dir)
		require.NoError(t, err)
		serve()
	}
	require.NoError(t, s.Close())
	aside, err := os.ReadFile(filepath.Join(dir, store.FileName))
	require.NoError(t, err)
	s, err = store.Open(dir)
	require.NoError(t, err)
	serve()
	p.fret("5")
	p.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.notes.length === 1)`)
	p.saved()
	require.NoError(t, s.Close())
	require.NoError(t, os.WriteFile(filepath.Join(dir, store.FileName), aside, 0o600))
	s, err = store.Open(dir)
	require.NoError(t, err)
	again()
	p.fret(kb.ArrowRight, "8")
	p.until(`fetch('/api/lines/1').then(r => r.json()).then(l => l.notes.length === 1 && l.notes[0].fret === 8)`)
	p.saved()
}
