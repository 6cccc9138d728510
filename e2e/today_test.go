package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/demo"
)

// An evening from the plan to the log: what is planned is changed by hand, started,
// left in the middle by a reload, gone through to its end, and noted.
func TestAnEveningFromThePlanToTheLog(t *testing.T) {
	p := sitWith(t, browser, demo.All)
	p.visit("/practice/6?do=today")
	p.do(chromedp.EmulateViewport(1280, 2400)) // nothing lies under the strip at the foot
	p.until(`document.querySelectorAll('.items li').length >= 5`)
	p.inBothLooks("main", "a plan")
	titles := func() []string {
		return eval[[]string](p, `[...document.querySelectorAll('.items .title')].map(e => e.firstElementChild.innerText)`)
	}
	before := titles()
	assert.Contains(t, eval[string](p, `document.querySelector('.items li:last-child .kind').innerText`), "music")
	p.click(".items li:nth-child(3) [aria-label^='something else']", "")
	p.until(`document.querySelectorAll('.items .title')[2].firstElementChild.innerText !== %q`, before[2])
	assert.Equal(t, before[:2], titles()[:2], "the others stay")
	p.click(".items li:nth-child(1) [aria-label^='a minute less']", "")
	p.sees("header", "19 minutes")
	p.click(".items li:nth-child(3) [aria-label^='keep']", "")
	kept := titles()[2]
	p.click("header button", "Plan anew")
	p.until(`[...document.querySelectorAll('.items .title')].some(e => e.firstElementChild.innerText === %q)`, kept)

	noted := func() int {
		return evalLater[int](p, `fetch('/api/log').then(r => r.json()).then(l => l.total)`)
	}
	had := noted()
	p.click("header button", "Start")
	p.until(`document.querySelector('.plan-strip')`)
	steps := eval[int](p, stores+`.get('plan').kept.items.length`)
	sawCalls, sawChanges := false, false
	for i := range steps {
		p.sees(".plan-strip .at", "of")
		p.until(stores+`.get('plan').kept.at === %d`, i)
		switch eval[string](p, stores+`.get('plan').item.kind`) {
		case "calls":
			p.until(`new URLSearchParams(location.search).get('do') === 'calls' && document.querySelector('.call .chord')`)
			assert.NotEmpty(t, eval[string](p, `(q => q.get('keys') ?? q.get('mixed'))(new URLSearchParams(location.search))`))
			if !sawCalls { // one is let go, which is noted too; and the page is lost on the way
				p.click("footer button", "Skip")
				p.visit("/practice/6?do=today")
				p.sees(".plan-strip", "of")
				assert.Equal(t, i, eval[int](p, stores+`.get('plan').kept.at`), "it goes on where it was left")
			}
			sawCalls = true
		case "line":
			p.until(`location.pathname.startsWith('/lines/') && document.querySelector('.strip .play.on')`)
		case "warm-up", "changes", "music":
			if eval[string](p, stores+`.get('plan').item.mode`) == "melody" { // a line over its chart is begun
				p.sees(".p-dialog", "empty bars")
				p.shut()
				break
			}
			p.until(`new URLSearchParams(location.search).get('do') === 'changes' && document.querySelector('.strip .play.on')`) // by itself
			if !sawChanges {
				p.click(".strip .play", "Stop")
				p.click("footer button", "Have a simulated player play it")
				p.until(`document.querySelector('.result')`)
			}
			sawChanges = true
		}
		p.click(".plan-strip button", "Next")
	}
	assert.True(t, sawCalls && sawChanges)
	p.until(`!document.querySelector('.plan-strip')`)
	p.visit("/practice/6?do=today")
	p.sees("main", "That was it for today")
	assert.Equal(t, had+2, noted(), "a call and a chorus")
}

// A plan of three quarters of an hour has a line to play; come to from there, the band
// begins by itself, at the tempo that is asked for.
func TestALineFromThePlan(t *testing.T) {
	p := sitWith(t, browser, demo.All)
	p.visit("/practice/6?do=today")
	p.click("header .segments button", "45")
	p.until(`[...document.querySelectorAll('.items .kind')].length >= 9 && ` + stores + `.get('plan').kept.items.some(i => i.kind === 'line')`)
	p.click("header button", "Start")
	p.sees(".plan-strip .at", "1 of")
	for range 12 {
		if eval[string](p, stores+`.get('plan').item.kind`) == "line" {
			break
		}
		p.click(".plan-strip button", "Next")
	}
	p.until(`location.pathname === '/lines/' + ` + stores + `.get('plan').item.line`)
	p.until(`document.querySelector('.strip .play.on') && ` + stores + `.get('band').tempo === ` + stores + `.get('plan').item.tempo && !location.search.includes('play')`)
}

// The log is maps: a spot tells what is behind it and leads to practising it.
func TestTheLogIsMaps(t *testing.T) {
	p := sitWith(t, browser, demo.All)
	p.visit("/practice/6?do=log")
	p.do(chromedp.EmulateViewport(1280, 2400))
	p.until(`document.querySelectorAll('.wheel .cell').length === 60`)
	p.inBothLooks("main", "the log")
	p.click(".wheel [data-cell='C 1']", "")
	p.sees(".why h2", "C, frets 0 to 4, C shape")
	p.until(`document.querySelectorAll('.why li').length >= 3`)
	p.click(".why a", "Practise this")
	p.until(`new URLSearchParams(location.search).get('keys') === 'C' && document.querySelector('.call .chord')`)

	p.visit("/practice/6?do=log")
	p.click(".changes button", "")
	p.sees(".why h2", "right at once")
	all := eval[string](p, `document.querySelector('header .soft').innerText`)
	p.click(".segments button", "a week")
	p.until(`document.querySelector('header .soft').innerText !== %q`, all)
	p.until(`document.querySelectorAll('[aria-label="strings and positions"] button').length > 0`)
	p.click("[aria-label='degrees and directions'] button", "")
	p.until(`document.querySelector(".why h2").innerText.includes("ward")`)
	p.sees("figcaption", "the newest take on top")
	p.until(`document.querySelector('svg[aria-label^="minutes played"] rect')`)
	// A take that was kept is heard from the bar that it is about.
	kept := evalLater[int](p, `(async () => {
		const json = {'Content-Type': 'application/json'}
		const c = await fetch('/api/charts/6').then(r => r.json())
		const over = {title: c.title, key: c.key, feel: c.feel, tempo: c.tempo, beats: c.beats, text: c.text, low: 7, high: 11, notes: []}
		const heard = await fetch('/api/practice/simulate', {method: 'POST', headers: json, body: JSON.stringify({over, seed: 4, wrong: 0.3})}).then(r => r.json())
		const row = await fetch('/api/log/takes', {method: 'POST', headers: json, body: JSON.stringify({chart: 6, title: 'Slipway Shuffle, once more', mode: 'land', line: over, tempo: 96, heard})}).then(r => r.json())
		const take = await fetch('/api/takes', {method: 'POST', headers: json, body: JSON.stringify({title: 'Slipway Shuffle, once more', tempo: 96, changes: 5, landed: 3, good: 'a', try: 'b', line: over, heard})}).then(r => r.json())
		await fetch('/api/log/' + row.id + '/take', {method: 'PUT', headers: json, body: JSON.stringify({take: take.id})})
		return take.id})()`)
	require.NotZero(t, kept)
	p.visit("/practice/6?do=log&of=6")
	p.sees(".changes", "C7")
	for i := range eval[int](p, `document.querySelectorAll('.changes button').length`) {
		p.click(fmt.Sprintf(".changes li:nth-child(%d) button", i+1), "")
		p.until(`document.querySelectorAll('.why li').length > 0`)
		if eval[bool](p, `!!document.querySelector('.why a[aria-label*="from bar"]')`) {
			break
		}
	}
	p.click(".why a[aria-label*='from bar']", "")
	p.until(`new URLSearchParams(location.search).get('take') === '%d'`, kept)
	p.sees(".takes .chosen", "bar")
	p.click(".takes .chosen [aria-label^='hear']", "")
	p.until(`(window.ear?.node, ` + stores + `.get('band').beat >= 4)`)
	p.click(".takes .chosen [aria-label^='hear']", "")
	p.visit("/practice/6?do=log")
	p.sees("h1", "Log")
	csv := evalLater[string](p, `fetch('/api/log/files/csv').then(r => r.text())`)
	require.Contains(t, csv, "Slipway Shuffle")

	// Another player has a log of their own; two of one name are refused.
	p.visit("/practice/6?do=today")
	p.click("header button", "Player")
	p.click(".players input", "")
	p.keys("player")
	p.click(".players button", "Another player")
	p.sees(".players .trouble", "of that name already")
	p.click(".players input", "")
	p.keys(kb.End, " two")
	p.click(".players button", "Another player")
	p.sees("header", "player two")
	p.sees("main", "Nothing is known yet")
	// Who leaves is gone, with a way back; whoever is left plays on.
	p.click("header button", "player two")
	p.click(".players [aria-label^='remove']", "")
	p.until(`[...document.querySelectorAll('header button')].some(b => b.innerText.trim() === 'Player')`)
	p.click(".told button", "Undo")
	p.until(`fetch('/api/players').then(r => r.json()).then(l => l.length === 2)`)

	// What was played on another instrument is told apart.
	evalLater[bool](p, `(async () => {
		const json = {'Content-Type': 'application/json', 'If-Match': '*'}
		await fetch('/api/player', {method: 'PUT', headers: json, body: JSON.stringify({tuning: 'E1,A1,D2,G2', frets: 20, scale: 864, capo: 0, left: false, comfort: 110, habit: 'stay'})})
		return fetch('/api/log/calls', {method: 'POST', headers: json, body: JSON.stringify({chart: 6, kind: 'tones', key: 'C', chord: 'F7', degree: '3', window: {low: 7, high: 11}, says: 'upward', how: 'right'})}).then(r => r.ok)})()`)
	p.visit("/practice/6?do=log")
	p.click("header .p-select[aria-label='on which instrument'], header .p-select:has([aria-label='on which instrument'])", "")
	p.click("[role=option]", "Bass")
	p.sees("header", "1 things asked")
	p.inBothLooks("main", "the log of one instrument")

	p = sit(t, true)
	p.visit("/practice/6?do=log")
	p.sees("h1", "Nothing practised yet")
	p.visit("/practice/6?do=today")
	p.sees("main", "Nothing is known yet")
}
