package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// By keys alone: past the places to what is shown, to the heading of another place, back to where the way began, and back
// through the ways to practise.
func TestKeysLeadOnAndBack(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts")
	p.sees("main", "Slipway Shuffle")
	// What follows the focus is there once the first place is drawn.
	p.until(`performance.getEntriesByType('resource').some(e => /AtTheFoot.*js/.test(e.name) && performance.now() - e.responseEnd > 300)`)
	p.keys(kb.Tab)
	p.until(`document.activeElement.innerText === 'Skip to what is shown' && document.activeElement.getBoundingClientRect().left >= 0`)
	p.keys(kb.Enter)
	p.until(`document.activeElement.id === 'place'`)
	eval[bool](p, `([...document.querySelectorAll('main a')].find(a => a.innerText.includes('Slipway Shuffle')).focus(), true)`)
	p.keys(kb.Enter)
	p.until(`location.pathname.startsWith('/bench/') && document.activeElement.tagName === 'H1'`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`location.pathname === '/charts' && document.activeElement.innerText?.includes('Slipway Shuffle')`)

	p.visit("/practice/6?do=today")
	p.click(".rooms button", "Log")
	p.until(`location.search.includes('do=log')`)
	p.click(".rooms button", "Takes")
	p.until(`location.search.includes('do=takes')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`location.pathname === '/practice/6' && location.search.includes('do=log')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`location.pathname === '/practice/6' && location.search.includes('do=today')`)
}

// Space is the band's, also behind a click; where the focus came by keys it presses what has it. Letters are changed, and
// switched off: then nothing but what is meant happens, and all of it is kept.
func TestSpaceAndLetters(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6")
	p.sees("h1", "Slipway Shuffle")
	theme := `document.documentElement.dataset.theme ?? document.documentElement.className`
	p.click("nav button", "Stage")
	before := eval[string](p, theme)
	p.keys(" ")
	p.until(`document.querySelector('.play.on')`)
	assert.Equal(t, before, eval[string](p, theme), "the button is not pressed again")
	p.keys(" ")
	p.until(`!document.querySelector('.play.on')`)
	p.keys(kb.Tab, kb.Tab)
	eval[bool](p, `([...document.querySelectorAll('nav button')].find(b => /Paper|Stage/.test(b.innerText)).focus(), true)`)
	p.keys(" ")
	p.until(theme + ` !== '` + before + `'`)
	p.keys("l")
	p.until(`document.querySelector('.strip').innerText.includes('chord') || ` + stores + `.get('band').loop`)

	p.keys("?")
	p.click("summary", "Other letters")
	p.click(".keys li button[aria-label*='loop the chord']", "L")
	p.keys("s") // is taken
	p.sees(".keys [role=alert]", "S is taken: paper or stage.")
	p.keys("q")
	p.until(`document.querySelector(".keys li button[aria-label*='loop the chord'][aria-label^='Q']")`)
	p.shut()
	looped := `JSON.stringify(` + stores + `.get('band').loop ?? null)`
	was := eval[string](p, looped)
	p.keys("l")
	p.keys("q")
	p.until(looped + ` !== '` + was + `'`)
	p.do(chromedp.Reload())
	p.sees("h1", "Slipway Shuffle")
	p.until(`document.querySelector('.strip [title*="(Q)"]')`)
	p.keys("?")
	p.click(".keys label", "single letters")
	p.shut()
	shown := eval[string](p, theme)
	p.keys("s", "n", "q")
	p.keys(" ")
	p.until(`document.querySelector('.play.on')`)
	assert.Equal(t, shown, eval[string](p, theme))
	p.keys(" ")
}

// What opens beside a button takes the focus, has a name, and gives the focus back.
func TestWhatOpensGivesTheFocusBack(t *testing.T) {
	p := sit(t, true)
	for _, opens := range []struct{ path, ready, css, text, name string }{
		{"/bench/6?frets=7-11", ".crossing .now", ".strip button", "Band", "band"},
		{"/bench/6?frets=7-11", ".crossing .now", ".windows button", "elsewhere", "where on the neck"},
		{"/practice/6?ask=tones&seed=7", ".cover", ".practice-room button", "Asked", "what is asked"},
		{"/practice/6?do=changes", ".hint", "header button", "Hold to", "what is held to"},
		{"/practice/6?do=today", ".items li", "header button", "Player", "players"},
	} {
		p.visit(opens.path)
		p.until(`document.querySelector(%q)`, opens.ready)
		find := fmt.Sprintf(`[...document.querySelectorAll(%q)].find(e => e.innerText.includes(%q))`, opens.css, opens.text)
		p.until("%s", find)
		eval[bool](p, fmt.Sprintf(`(%s.focus(), true)`, find))
		p.keys(kb.Enter)
		p.until(`document.activeElement?.closest('[role=dialog]')?.getAttribute('aria-label') === %q`, opens.name)
		p.keys(kb.Escape)
		p.until(`!document.querySelector('[role=dialog]') && document.activeElement === %s`, find)
	}
}

// A call on the neck is answered by arrows, wherever its places lie.
func TestACallIsAnsweredByArrows(t *testing.T) {
	p := sit(t, true)
	p.visit("/practice/6?ask=tones&seed=7&by=neck")
	p.until(`document.querySelectorAll('[data-cell]').length > 20 && document.querySelectorAll('[data-cell][tabindex="0"]').length === 1`)
	eval[bool](p, `(document.querySelector('[data-cell][tabindex="0"]').focus(), true)`)
	at := func() string { return eval[string](p, `document.activeElement?.dataset.cell ?? ''`) }
	first := at()
	p.keys(kb.ArrowRight)
	assert.NotEqual(t, first, at())
	assert.NotContains(t, p.address(), "at=", "an arrow on the neck is no next call")
	// Through all of them until a tone is found.
	for range 6 {
		for range 6 {
			if eval[bool](p, `/[1-9]\d* found/.test(document.body.innerText) || !document.querySelector('[data-cell]')`) {
				return
			}
			p.keys(kb.Enter, kb.ArrowLeft)
		}
		p.keys(kb.ArrowUp, kb.ArrowRight, kb.ArrowRight, kb.ArrowRight, kb.ArrowRight, kb.ArrowRight)
	}
	require.Fail(t, "no tone was found by arrows")
}

// Eight notes are written by keys alone, from the opened page to the last of them, in at most sixty presses.
func TestEightNotesTakeFewPresses(t *testing.T) {
	p := sit(t, true)
	p.visit("/lines")
	id := p.post("/api/lines", map[string]any{"title": "Eight", "key": "A", "feel": "shuffle", "tempo": 96, "beats": 4, "text": "| A7 | D7 | A7 | E7 |", "tuning": "E2,A2,D3,G3,B3,E4", "frets": 22, "low": 5, "high": 8, "palette": "minor-pentatonic", "notes": []any{}})
	p.visit(fmt.Sprintf("/lines/%d", id))
	p.until(`document.querySelector('.line .grid')`)
	presses := 0
	press := func(keys ...string) {
		p.keys(keys...)
		presses += len(keys)
	}
	press(kb.Tab, kb.Enter) // past the places
	for !eval[bool](p, `!!document.activeElement?.matches('.line .grid')`) {
		require.Less(t, presses, 60)
		press(kb.Tab)
	}
	for i := range 8 {
		press([]string{"5", "8", "5", "7", "5", "7", "8", "5"}[i])
		if i%2 == 1 {
			press(kb.ArrowDown)
		}
		press(kb.ArrowRight)
	}
	p.until(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length === 8)`, id)
	t.Logf("%d presses", presses)
	assert.LessOrEqual(t, presses, 60)
}

// The thread is walked and turned by arrows in the wave, told as a musician tells it.
func TestTheThreadIsTurnedByArrows(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.until(`document.querySelector('.wave .keys')`)
	eval[bool](p, `(document.querySelector('.wave .keys').focus(), true)`)
	said := `document.querySelector('.wave .keys .hidden-text').textContent`
	p.until(said + `.startsWith('bar 1: ')`)
	p.keys(kb.ArrowRight)
	p.until(said + `.startsWith('bar 2: ') && new URLSearchParams(location.search).get('bar') === '2'`)
	before := eval[string](p, said)
	p.keys(kb.ArrowUp)
	p.until(said+` !== %q && document.querySelector('.wave .target .pinned')`, before)
	p.keys(kb.ArrowDown)
	p.until(said+` === %q`, before)
	assert.Regexp(t, `^bar 2: (root|(flat |sharp )?\d+), [A-G]( flat| sharp)?, string \d (fret \d+|open)$`, before)
}

// Three tasks at the Bench, by keys alone from the opened page: each in few presses.
func TestTasksTakeFewPresses(t *testing.T) {
	p := sit(t, true)
	for _, task := range []struct {
		name, path, ready string
		keys              []string
		done              string
		most              int
	}{
		{"the next change goes round at half the tempo, and plays", "/bench/6?frets=7-11", ".crossing .now", []string{"l", "l", `\`, " "},
			`location.search.includes('loop=change') || document.querySelector('.loop [aria-pressed=true]')?.innerText === 'Change'`, 4},
		{"the flat seven of bar 5 is aimed for", "/bench/6?frets=7-11&bar=4", ".crossing .now", []string{"t"}, `document.querySelector('.wave .pinned')`, 1},
		{"the music stand", "/bench/6?frets=7-11", ".crossing .now", []string{"m"}, `location.pathname === '/stand/6'`, 1},
	} {
		p.visit(task.path)
		p.until(`document.querySelector(%q) && document.querySelector('.told')`, task.ready)
		p.keys(task.keys...)
		p.until("%s", task.done)
		assert.LessOrEqual(t, len(task.keys), task.most, task.name)
	}
}

// Every place tells what stands in it, in a sentence.
func TestEveryPlaceTellsWhatIsInView(t *testing.T) {
	p := sit(t, true)
	for _, place := range screens {
		p.visit(place.path)
		p.until(`document.querySelector(%q) && document.querySelector('.told[role=status]')`, place.ready)
		p.keys("i")
		p.until(`document.querySelector('.told[role=status]').textContent.trim().length > 12`)
		words := eval[string](p, `document.querySelector('.told[role=status]').textContent`)
		t.Log(place.path, words)
		assert.NotRegexp(t, `[♭♯]|\d:\d|undefined|\.\.`, words, place.path)
		assert.Less(t, len(words), 1200, place.path)
	}
}
