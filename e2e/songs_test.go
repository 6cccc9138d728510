package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A song is pasted as it was found: what it says of itself is taken over, its key is guessed,
// it is played in its order, and what is kept is what was written.
func TestASongIsChartedAsItIsWritten(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 900))
	p.visit("/charts/new")
	p.write("#title", "Harbour Round")
	p.write("#text", "Tempo: 104\n[Verse]\n|: G7 | C7 |1. G7 | D7 :|2. G7 | G7 |\n[Bridge]\n| Am7 | D7 |")
	p.sees("[role=status]", "Played: 10 bars: 1–4, 1–2, 5–8")
	p.sees("[role=status]", "The text says: 104 beats a minute")
	p.click("[role=status] button", "Take it over")
	p.until(`document.querySelector('#tempo').value === '104'`)
	p.sees("[role=status]", "This sounds like G")
	p.inBothLooks(".text", "what a text says")
	p.click("[role=status] button", "It is G")
	p.until(`![...document.querySelectorAll('[role=status]')].some(e => e.innerText.includes('This sounds like'))`)
	p.sees(".preview [data-tile='5']", "2.")
	p.write("#tags", "duo,  evening, duo")
	p.write("#remarks", "the horns come in at the bridge")
	p.click("header button", "Make chart")
	p.sees("h1", "Harbour Round")
	p.until(`document.querySelectorAll('.sheet .bar').length === 10`)
	p.sees(".sheet [data-bar='6'] .number", "2nd time")
	p.until(`/^\/bench\/\d+$/.test(location.pathname)`)
	text := evalLater[string](p, `fetch('/api/charts/' + location.pathname.split('/')[2]).then(r => r.json()).then(c => c.text)`)
	assert.Equal(t, "|: [Verse] G7 | C7 | 1. G7 | D7 :| 2. G7 | G7 |\n| [Bridge] Am7 | D7 |", text)
	p.inBothLooks(".sheet", "a song on the Bench")
	p.sees("header .remarks", "the horns come in at the bridge")
	id := strings.TrimPrefix(eval[string](p, `location.pathname`), "/bench/")
	p.visit("/charts")
	p.write("input[aria-label='find a chart']", "evening")
	p.until(`document.querySelectorAll('.charts li').length === 1`)
	p.sees(".charts li", "duo, evening")
	p.visit("/paper/" + id + "?of=thread&frets=7-11")
	p.until(`[...document.querySelectorAll('article text.section')].map(e => e.textContent).join() === 'Verse,Verse,Bridge'`)
	p.visit("/paper/" + id + "?of=chords")
	p.sees(".leaf", "the horns come in at the bridge")
}

// The same tune for the horn players, and the shapes behind a capo.
func TestATuneIsReadInOtherPitches(t *testing.T) {
	p := sit(t, true)
	p.visit("/paper/6?of=chords")
	p.sees(".leaf .under", "in C")
	p.choose("paper-reading", "E♭")
	p.sees(".leaf .under", "in A")
	p.sees(".leaf .under", "it sounds in C")
	p.sees(".leaf [data-bar='1']", "A7")
	// A line for the horns: its chords and notes a ninth higher, its places as they were.
	p.visit("/lines/3/paper")
	p.sees("article .under", "in C")
	at := func() int {
		return eval[int](p, `Number(document.querySelector('[data-note]')?.dataset.note ?? 0)`)
	}
	p.until(`document.querySelector('[data-note]')`)
	assert.Positive(t, at())
	p.choose("paper-reading", "B♭")
	p.sees("article .under", "in D")
	p.until(`document.querySelector('a[download]').href.includes('reading=bb')`)
	written := evalLater[string](p, `fetch(document.querySelector('a[download]').href).then(r => r.text())`)
	assert.Contains(t, written, "<fifths>2</fifths>")
	p.inBothLooks("article", "a line for the horns")
	p.visit("/paper/6?of=chords")
	p.choose("paper-reading", "capo 3")
	p.sees(".leaf [data-bar='1']", "A7")
	p.sees(".leaf .under", "the shapes to play with a capo at fret 3")
	p.choose("paper-reading", "B♭")
	p.sees(".leaf [data-bar='2']", "G7")
	p.inBothLooks("article", "chords on paper")
	p.visit("/paper/6?of=thread&reading=bb&frets=7-11")
	p.sees(".under", "written a whole step above")
	p.until(`document.querySelector('[data-note]')`)
}

// Several instruments are kept, one is in hand; the reach is measured on it.
func TestInstrumentsAreKeptAndTheReachIsMeasured(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1100))
	p.visit("/charts")
	p.sees("h1", "Charts")
	p.click("nav button, aside button", "Neck")
	p.write("#instrument-name", "the plank")
	p.click("[role=dialog] button", "Keep it")
	p.choose("tuning-known", "Bass")
	p.write("#instrument-name", "the log")
	p.click("[role=dialog] button", "Keep it")
	p.click("[role=dialog] .one button", "the plank")
	p.until(`document.querySelector('#tuning').value === 'E2,A2,D3,G3,B3,E4'`)
	p.click("summary", "Measure it")
	p.click(".frets button", "9")
	p.until(`document.querySelector('#comfort').value === '100'`)
	p.inBothLooks("[role=dialog]", "the instrument")
	p.click(".frets button", "8")
	p.click("[role=dialog] button", "Use this instrument")
	p.until(`!document.querySelector('[role=dialog]')`)
	kept := evalLater[string](p, `fetch('/api/player').then(r => r.json()).then(p => p.comfort + ' ' + p.instruments.map(i => i.name + ' ' + i.tuning).join('; '))`)
	assert.Equal(t, "77 the plank E2,A2,D3,G3,B3,E4; the log E1,A1,D2,G2", kept)
}

// The bars of a chart are chosen, typed over, moved by keys and by hand, doubled, taken out,
// copied and pasted, and each of it can be undone.
func TestBarsAreMovedByHand(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 900))
	p.visit("/charts/new")
	p.write("#text", "| C7 | F7 | G7 | A7 |\n| D7 | Em7 |")
	text := func(want string) {
		t.Helper()
		p.until(fmt.Sprintf(`document.querySelector('#text').value === %q`, want))
	}
	tile := func(n int, text string) { t.Helper(); p.sees(fmt.Sprintf("[data-tile='%d']", n), text) }
	tile(6, "Em7")
	p.click("[data-tile='2']", "")
	p.keys(kb.Enter)
	p.until(`document.querySelector('.tiles input')?.value === 'F7'`)
	p.do(chromedp.KeyEvent("Dm7 G7"))
	p.keys(kb.Enter)
	text("| C7 | Dm7 G7 | G7 | A7 |\n| D7 | Em7 |")
	tile(2, "Dm7")
	// What cannot be read stays to be mended.
	p.keys(kb.Enter)
	p.do(chromedp.KeyEvent("Hx7"))
	p.keys(kb.Enter)
	p.sees("[role=alert]", "Hx7")
	p.until(`document.querySelector('.tiles input')?.value === 'Hx7'`)
	p.keys(kb.Escape)
	p.until(`!document.querySelector('.tiles input')`)
	// Two bars go to the end, by the key and by hand.
	p.do(chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierShift)))
	p.until(`document.querySelectorAll('.tile[aria-pressed=true]').length === 2`)
	p.do(chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierAlt)))
	text("| C7 | A7 | Dm7 G7 | G7 |\n| D7 | Em7 |")
	tile(3, "Dm7")
	p.click("button", "undo")
	text("| C7 | Dm7 G7 | G7 | A7 |\n| D7 | Em7 |")
	tile(2, "Dm7")
	p.click("[data-tile='1']", "")
	eval[bool](p, `(() => {
		const data = new DataTransfer(), from = document.querySelector("[data-tile='1']"), to = document.querySelector("[data-tile='4']")
		const at = to.getBoundingClientRect()
		const how = { bubbles: true, cancelable: true, dataTransfer: data, clientX: at.right - 4, clientY: at.top + 4 }
		from.dispatchEvent(new DragEvent('dragstart', how))
		to.dispatchEvent(new DragEvent('dragover', how))
		to.dispatchEvent(new DragEvent('drop', how))
		from.dispatchEvent(new DragEvent('dragend', how))
		return data.getData('text/plain') === '| C7 |'
	})()`)
	text("| Dm7 G7 | G7 | A7 | C7 |\n| D7 | Em7 |")
	tile(4, "C7")
	p.click(".deeds button", "Double")
	text("| Dm7 G7 | G7 | A7 | C7 | C7 |\n| D7 | Em7 |")
	tile(5, "C7")
	p.click(".deeds button", "Take out")
	text("| Dm7 G7 | G7 | A7 | C7 |\n| D7 | Em7 |")
	tile(5, "D7")
	// Copied, and pasted behind the last; what comes from elsewhere brings its metre along.
	p.click("[data-tile='6']", "")
	eval[bool](p, `(() => {
		const data = new DataTransfer()
		data.setData('text/plain', '2/4 B7')
		document.querySelector("[data-tile='6']").dispatchEvent(new ClipboardEvent('paste', { bubbles: true, cancelable: true, clipboardData: data }))
		return true
	})()`)
	tile(7, "2/4")
	p.click("[data-tile='7']", "")
	copied := eval[string](p, `(() => {
		const data = new DataTransfer()
		document.querySelector("[data-tile='7']").dispatchEvent(new ClipboardEvent('copy', { bubbles: true, cancelable: true, clipboardData: data }))
		return data.getData('text/plain')
	})()`)
	assert.Equal(t, "| 2/4 B7 |", copied)
	p.inBothLooks(".tiles", "the bars")
	// In numerals and back.
	p.click("button.spelling", "numerals")
	p.until(`document.querySelector('#text').value.startsWith('| ii7 V7 | V7 | VI7 | I7 |')`)
	p.click("button.spelling", "chord names")
	p.until(`document.querySelector('#text').value.startsWith('| Dm7 G7 | G7 | A7 | C7 |')`)
}

// Bars of another length: counted on the strip, as long on the wave as they last, looped and
// gone to where they are, written as such on paper.
func TestBarsOfAnotherLength(t *testing.T) {
	p := listen(t)
	p.visit("/")
	made := evalLater[int](p, `fetch('/api/charts', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({title: 'Bollard Lane', key: 'C', feel: 'shuffle', tempo: 240, beats: 4,
		text: '| 1/4 G7 | 4/4 C7 | 2/4 F7 | 4/4 C7 A7 | 3/4 D7 |'})}).then(r => r.json()).then(c => c.id)`)
	p.visit(fmt.Sprintf("/bench/%d?loop=3-4", made))
	p.sees("h1", "Bollard Lane")
	p.sees(".sheet [data-bar='3'] .number", "2/4 3")
	p.until(`document.querySelector('.strip .loop input')?.value === '3-4'`)
	p.play()
	seen := evalLater[[]string](p, `(async () => {
		const seen = new Set()
		for (let i = 0; i < 400 && seen.size < 6; i++) {
			await new Promise(requestAnimationFrame)
			const on = document.querySelector('.sheet .bar.on')
			const where = document.querySelector('.strip .where b')?.innerText
			if (on && where === 'bar ' + on.dataset.bar) seen.add(on.dataset.bar + ': ' + document.querySelectorAll('.strip .where .beats i').length + ' beats, ' + document.querySelector('.strip .beats').dataset.beat)
		}
		return [...seen].sort()
	})()`)
	assert.Equal(t, []string{"3: 2 beats, 1", "3: 2 beats, 2", "4: 4 beats, 1", "4: 4 beats, 2", "4: 4 beats, 3", "4: 4 beats, 4"}, seen)
	p.click(".play", "Stop")
	p.visit(fmt.Sprintf("/paper/%d?of=thread", made))
	p.until(`document.querySelectorAll('[data-note]').length > 4`)
	assert.Equal(t, 5, eval[int](p, `document.querySelectorAll('[class*="timesignature" i]').length`), "a time at each change")
}

// A chart's swing is set in the editor, told by the band's panel, and may be left to the tempo.
func TestAChartHasItsSwing(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts/6")
	p.write("#swing", "99")
	p.keys("\t")
	p.sees("[role=alert]", "a swing of 99 %")
	p.write("#swing", "58")
	p.keys("\t")
	p.saved()
	p.inBothLooks("form", "how a chart is played")
	p.visit("/bench/6")
	p.sees(".strip", "Slipway")
	p.click(".strip .more", "Band")
	p.sees("[role=dialog]", "58 %, lightly swung; as the chart has it")
}
