package e2e

import (
	"testing"

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

// Every way to practise says what it asks, in order, and is judged.
func TestEveryWayToPractise(t *testing.T) {
	p := sit(t, true)
	p.visit("/practice/6?do=changes")
	for _, m := range evalLater[[]struct {
		ID     string
		Stages []string
	}](p, `fetch('/api/catalogue').then(r => r.json()).then(c => c.modes)`) {
		p.visit("/practice/6?do=changes&mode=" + m.ID)
		for i, says := range append(m.Stages, m.Stages[len(m.Stages)-1]) {
			p.sees(".stage", says)
			p.click("footer button", "Have a simulated player play it")
			p.until(`document.querySelector('.result') && (%d < 1 || document.querySelectorAll('.choruses li').length === %d)`, i, i+1)
		}
	}
	// One has the band drop its chords; what the player set stays.
	p.visit("/practice/6?do=changes&mode=dropped")
	p.until(stores + `.get('band').dropped`)
	p.click(".rooms button", "Calls")
	p.until(`!` + stores + `.get('band').dropped && !` + stores + `.get('band').settings.dropChords`)
	// Through the twelve keys the band plays along; a turnaround is imagined over the chart's own.
	p.visit("/practice/6?do=changes&mode=twelve-keys")
	p.sees(".grid li:nth-child(12)", "G7")
	p.sees(".strip", "Through the twelve keys")
	p.visit("/practice/6?do=changes&mode=imagined")
	p.sees(".grid li:nth-child(11)", "Em7")
	p.until(`!document.querySelector('.strip').innerText.includes('twelve keys')`)
	p.click(".tick-box", "climb in tempo")
	p.sees(".tick-box", "comes clean: 96")
	p.visit("/practice/6?do=changes&mode=tones")
	p.until(`document.querySelector('.tick-box input')?.checked === false`) // each way has a ladder of its own
	p.visit("/practice/99?do=changes")
	p.sees("h1", "Nothing can be played here")
}
