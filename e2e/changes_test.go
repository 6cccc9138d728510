package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A chorus of thirds, played along by the simulated player, is judged change by
// change; the last two are kept, found again after a reload, set beside each other,
// heard, and made a line of.
func TestAChorusOfThirdsIsJudgedKeptAndWritten(t *testing.T) {
	p := listen(t)
	p.visit("/practice/6?do=changes&mode=thirds")
	p.sees(".stage", "the third on every change")
	p.sees(".hint", "Turn the ear on")
	p.click(".strip .play", "Play")
	p.until(`document.querySelector('.strip .where')?.innerText.includes('bar')`)
	p.click("footer button", "Have a simulated player play it")
	p.until(`document.querySelectorAll('[data-landing]').length === 2`) // while it plays
	assert.False(t, eval[bool](p, `!!document.querySelector('.result')`))
	p.click(".strip .play", "Stop")
	p.sees(".result", "changes are landed on the third")
	p.click("footer button", "Have a simulated player play it") // the band is silent: at once
	p.until(`document.querySelectorAll('.choruses li').length === 2`)
	assert.Equal(t, 9, eval[int](p, `document.querySelectorAll('[data-landing]').length`), "every change of the form")
	p.inBothLooks("main", "a chorus that was judged")
	p.keys("k")
	p.sees(".result", "Kept 2")

	p.visit("/practice/6?do=takes")
	p.until(`document.querySelectorAll('.takes li').length === 2`)
	p.until(`document.querySelectorAll('.compared article').length === 1 && document.querySelector('.compared [data-note]')`)
	p.click(".takes li:nth-child(2) .name", "")
	p.until(`document.querySelectorAll('.compared article').length === 2`)
	p.sees(".difference", "% of the changes")
	p.inBothLooks("main", "two takes")
	p.click(`.takes li [aria-label^=hear]`, "")
	p.until(`document.querySelector('.strip .play.on')`)
	p.click(".strip .play", "Stop")
	p.click(`.takes li [aria-label^=delete]`, "")
	p.until(`document.querySelectorAll('.takes li').length === 1`)
	p.click(`.takes li [aria-label^="make a line"]`, "")
	p.until(`location.pathname.startsWith('/lines/') && document.querySelector('.grid [data-note]')`)
	p.until(`[...document.querySelectorAll('header input')].some(i => i.value.includes('Played over') || i.value.includes('land on thirds'))`)
}

// Without an instrument: keys lie as the strings do, and what they play is judged.
func TestTheKeyboardIsAnInstrument(t *testing.T) {
	p := listen(t)
	p.do(chromedp.EmulateViewport(1280, 2400))
	p.visit("/practice/6?do=changes")
	p.click("header button", "Keys")
	p.until(`document.querySelectorAll('.press-neck .key').length >= 20`)
	p.inBothLooks("main", "a neck to press")
	p.click(".strip .play", "Play")
	p.until(`document.querySelector('.strip .where')?.innerText.includes('bar 1')`)
	p.keys("z") // the fourth string at the position's first fret
	p.until(`document.querySelector('[data-landing]')`)
	assert.False(t, eval[bool](p, `!!document.querySelector('[role=dialog]')`))
	p.keys("k") // a note, and no command
	p.click(".press-neck [data-cell='3:9']", "")
	p.click(".strip .play", "Stop")
	p.sees(".result", "changes")
	p.click("header button", "Keys")
	p.until(`!document.querySelector('.press-neck')`)
	p.keys("k")
	p.sees(".result", "Kept 1")
}

// A simulated player who sounds is heard by the ear, and what it plays is judged: this
// one does not err.
func TestASimulatedPlayerIsHeard(t *testing.T) {
	p := listen(t)
	p.sure(true)
	p.visit("/practice/6?do=changes")
	p.click("[aria-label='The ear']", "")
	p.click("[role=dialog] .tick-box", "as they sounded")
	p.click("[role=dialog] button", "Listen to a simulated player")
	p.sees("[role=dialog]", "heard by the same ear")
	p.inBothLooks("[role=dialog]", "the ear")
	p.keys(kb.Escape)
	// The first time everything is compiled while it sounds; it is the second that is judged.
	p.click(".strip .play", "Play")
	p.until(`document.querySelectorAll('[data-landing]').length >= 2`)
	p.click(".strip .play", "Stop")
	p.sees(".result", "changes are landed")
	p.click(".strip .play", "Play")
	p.until(`!document.querySelector('[data-landing]')`)
	p.until(`document.querySelectorAll('[data-landing]').length >= 3`)
	p.click(".strip .play", "Stop")
	p.sees(".result", "Keep the last two") // the first is shown until the second is judged
	landed := eval[[]string](p, `[...document.querySelectorAll('[data-landing]')].map(l => l.dataset.landing)`)
	assert.Equal(t, []string{"counts", "counts", "counts"}, landed[:3])

	// Kept, it can be heard as it sounded, in time: where its first note was heard, a stroke begins. (The
	// last is kept first. A stroke on the first beat that comes a little early belongs to the pass before, and may
	// sound here too.)
	p.click(".result button", "Keep the last two")
	p.sees(".result", "Kept 2")
	p.visit("/practice/6?do=takes")
	p.sees(".takes li", "as it sounded")
	levels := evalLater[[2]float64](p, `Promise.all([fetch('/api/takes/1').then(r => r.json()), fetch('/api/takes/1/sound').then(r => r.arrayBuffer())]).then(([take, wav]) => {
		const view = new DataView(wav), rate = view.getUint32(24, true), at = take.heard[0].at / 960 * 60 / take.tempo
		const loudest = (from, to) => {
			let most = 0
			for (let i = Math.max(0, Math.floor(from * rate)); i < to * rate && 46 + i * 2 <= wav.byteLength; i++) most = Math.max(most, Math.abs(view.getInt16(44 + i * 2, true)))
			return most
		}
		return [loudest(at - 0.15, at - 0.06), loudest(at - 0.06, at + 0.1)] })`)
	assert.Greater(t, levels[1], 600.0, "it sounds there")
	assert.Greater(t, levels[1], 1.3*levels[0], "and begins there")
	p.click(`.takes li [aria-label^=hear]`, "")
	p.until(`document.querySelector('.strip .play.on')`)
	p.click(".strip .play", "Stop")
}

// Who is lost is told the bar by one key, and sees nothing but the box until the next top.
func TestWhoIsLost(t *testing.T) {
	p := listen(t)
	p.visit("/practice/2?do=changes") // four bars
	p.click(".strip .play", "Play")
	p.until(`document.querySelector('.strip .where')?.innerText.includes('bar 2')`)
	p.keys("w")
	p.sees(".lost", "Stay in the box")
	told := eval[bool](p, `(() => {
		const bar = Number(/bar (\d+)/.exec(document.querySelector('.lost .bar').innerText)[1])
		return bar >= 2 && document.querySelectorAll('.lost [data-cell]').length > 20
	})()`)
	assert.True(t, told)
	p.inBothLooks(".lost", "where the band is")
	p.until(`!document.querySelector('.lost')`) // at the top
	p.keys("w")
	p.sees(".lost", "bar")
	p.keys("w")
	p.until(`!document.querySelector('.lost')`)
	p.click(".strip .play", "Stop")
}
