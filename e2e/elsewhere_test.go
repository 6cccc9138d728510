package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// title reads a kept thing's title from the API.
func (p *player) title(path string) string {
	p.t.Helper()
	return evalLater[string](p, fmt.Sprintf(`fetch(%q).then(r => r.json()).then(c => c.title)`, path))
}

// Two windows on one chart: what the other has changed is not overwritten unasked.
func TestTwoWindowsOnOneChart(t *testing.T) {
	a := sit(t, true)
	b := tab(t, a.base)
	for _, p := range []*player{a, b} {
		p.visit("/charts/6")
		p.until(`document.querySelector('#title')?.value === 'Slipway Shuffle'`)
	}
	// What one tab has kept is shown in the other at once.
	a.write("#title", "Theirs")
	a.keys("\t")
	a.saved()
	b.until(`document.querySelector('#title').value === 'Theirs'`)
	// With the other away meanwhile, both change the same: the player decides.
	evalLater[int](a, `fetch('/api/charts/6').then(r => r.json()).then(({title, key, feel, tempo, beats, text}) => fetch('/api/charts/6', {method: 'PUT',
		headers: {'content-type': 'application/json', 'if-match': '*'}, body: JSON.stringify({title: 'Away', key, feel, tempo, beats, text})})).then(r => r.status)`)
	b.write("#title", "Mine")
	b.sees("[role=dialog]", "was changed in another window")
	assert.Equal(t, "Away", b.title("/api/charts/6"), "nothing is saved before the player has said")
	b.click("[role=dialog] button", "Take theirs")
	b.until(`document.querySelector('#title').value === 'Away'`)
	b.click("button", "undo what was changed elsewhere")
	b.until(`document.querySelector('#title').value === 'Mine'`)
	b.saved()
	assert.Equal(t, "Mine", b.title("/api/charts/6"))
	b.click("button", "Play it")
	b.until(`location.pathname === '/bench/6'`)

	// What one decides about the chart and the other writes in it are joined.
	a.visit("/bench/6")
	a.until(`document.querySelector('[data-spot]')`)
	evalLater[int](b, `fetch('/api/charts/6').then(r => r.json()).then(({title, key, feel, tempo, beats, text}) => fetch('/api/charts/6', {method: 'PUT',
		headers: {'content-type': 'application/json', 'if-match': '*'}, body: JSON.stringify({title: 'Joined', key, feel, tempo, beats, text})})).then(r => r.status)`)
	a.keys("p")
	a.until(`fetch('/api/charts/6').then(r => r.json()).then(c => JSON.stringify(c.plan) !== '{}' && c.title === 'Joined')`)
	assert.False(t, eval[bool](a, `!!document.querySelector('[role=dialog]')`))
}

func TestTwoBrowsersOnOneLine(t *testing.T) {
	a := sit(t, true)
	a.visit("/lines")
	a.click(".lines a", "Slipway, first chorus")
	id := a.lineID()
	b := tab(t, a.base, chromedp.WithNewBrowserContext()) // another browser
	b.visit(fmt.Sprintf("/lines/%d", id))
	b.lineID()
	notes := len(a.kept(id).Notes)
	drop := func(p *player) {
		p.click("[data-note]", "")
		p.keys("\b")
	}
	drop(a)
	a.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === %d)`, id, notes-1)
	b.do(chromedp.Focus(chromedp.CSS(".grid")))
	b.keys("-") // the first note shorter
	b.sees("[role=dialog]", "was changed in another window")
	b.click("[role=dialog] button", "Take theirs")
	b.until(`!document.querySelector('[role=dialog]')`)
	b.until(`new Set([...document.querySelectorAll('[data-note]')].map(e => e.dataset.note)).size === %d`, notes-1)
	b.saved()
	assert.Len(t, b.kept(id).Notes, notes-1)

	drop(b)
	b.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === %d)`, id, notes-2)
	drop(a)
	drop(a)
	drop(a)
	a.saved() // the same note and two others: joined without asking
	a.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === %d)`, id, notes-4)
}

// Tabs of one browser learn of each other's changes at once.
func TestTwoTabsOnOneLine(t *testing.T) {
	a := sit(t, true)
	a.visit("/lines")
	a.click(".lines a", "Slipway, first chorus")
	id := a.lineID()
	b := tab(t, a.base)
	b.visit(fmt.Sprintf("/lines/%d", id))
	b.lineID()
	notes := len(a.kept(id).Notes)
	for i, p := range []*player{a, b, a} {
		p.click("[data-note]", "")
		p.keys("\b")
		for _, q := range []*player{a, b} {
			q.until(`new Set([...document.querySelectorAll('[data-note]')].map(e => e.dataset.note)).size === %d`, notes-1-i)
			q.saved()
		}
	}
	assert.Len(t, b.kept(id).Notes, notes-3)
	assert.False(t, eval[bool](b, `!!document.querySelector('[role=dialog]')`))
}

// Typed faster than the core answers: nothing vanishes, and two figures for two notes stay two.
func TestTypingFasterThanTheAnswers(t *testing.T) {
	a := sit(t, true)
	a.visit("/lines")
	a.click("button", "New line")
	a.choose("line-start", "empty bars")
	a.click("[role=dialog] button", "Begin")
	a.until(`/^\/lines\/\d+$/.test(location.pathname) && document.querySelector('.grid .pen')`)
	var id int
	_, err := fmt.Sscanf(a.address(), "/lines/%d", &id)
	assert.NoError(t, err)
	a.slow.Store(150)
	a.do(chromedp.Focus(chromedp.CSS(".grid")))
	const typed = 60
	for i := range typed {
		a.keys(fmt.Sprint(1+i%9), kb.ArrowRight)
	}
	a.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === %d)`, id, typed)
	for i, n := range a.kept(id).Notes {
		assert.Equal(t, []int{i * 480, 1 + i%9}, []int{n.Start, n.Fret})
	}
	a.slow.Store(0)
	a.saved()
	for range typed {
		a.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	}
	a.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === 0)`, id)
}

func TestTwoBrowsersOnOneLick(t *testing.T) {
	a := sit(t, true)
	b := tab(t, a.base, chromedp.WithNewBrowserContext())
	for _, p := range []*player{a, b} {
		p.visit("/licks/1")
		p.until(`document.querySelector('input.name')?.value`)
	}
	a.write("input.name", "Theirs")
	a.saved()
	b.write("input.name", "Mine")
	b.sees("[role=dialog]", "They differ in the title")
	b.click("[role=dialog] button", "Keep both")
	b.until(`!document.querySelector('[role=dialog]')`)
	assert.Equal(t, "Theirs", b.title("/api/licks/1"))
	b.until(`fetch('/api/licks').then(r => r.json()).then(all => all.some(l => l.title === 'Mine (mine)'))`)
}

// The tab closed as soon as something was done.
func TestATabClosedAtOnceLosesNothing(t *testing.T) {
	a := sit(t, true)
	a.visit("/lines")
	a.click(".lines a", "Slipway, first chorus")
	id := a.lineID()
	notes := len(a.kept(id).Notes)
	b := tab(t, a.base)
	b.visit(fmt.Sprintf("/lines/%d", id))
	b.lineID()
	b.click("[data-note]", "")
	b.keys("\b")
	b.until(`new Set([...document.querySelectorAll('[data-note]')].map(e => e.dataset.note)).size === %d`, notes-1)
	b.close()
	time.Sleep(100 * time.Millisecond)
	a.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === %d)`, id, notes-1)
}

// The program stopped in the middle of the work and started again: what was not kept yet is kept then.
func TestUnsentWorkIsSentLater(t *testing.T) {
	a := sit(t, true)
	a.visit("/lines")
	a.click(".lines a", "Slipway, first chorus")
	id := a.lineID()
	notes := len(a.kept(id).Notes)
	a.deaf(true)
	a.click("[data-note]", "")
	a.keys("\b")
	a.sees("main", "Undaris does not answer")
	assert.Len(t, a.kept(id).Notes, notes)
	a.deaf(false)
	a.visit(fmt.Sprintf("/lines/%d", id)) // a new page, and the program is there again
	a.lineID()
	a.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === %d)`, id, notes-1)
	a.until(`new Set([...document.querySelectorAll('[data-note]')].map(e => e.dataset.note)).size === %d`, notes-1)
}

// A machine that slept while the band played: it has stopped, and says so; Play goes on.
func TestAMachineThatSleeps(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.click(".play", "Play")
	p.sees(".strip .where", "bar 1")
	eval[bool](p, `(() => { const now = Date.now; Date.now = () => now() + 60000; return true })()`)
	p.sees(".strip .trouble", "This machine slept")
	p.until(`!document.querySelector('.play.on')`)
	p.click(".play", "Play")
	p.until(`document.querySelector('.play.on') && !document.querySelector('.strip .trouble')`)
	p.sees(".strip .where", "bar 1")
}
