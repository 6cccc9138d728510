package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// A line is written with a closing, licks are laid on chosen bars and led into, it is dressed
// with ornaments whose plain level stays, and the picking hand is proposed.
func TestLinesAreClosedLedIntoAndDressed(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1100))
	p.visit("/lines/3?panel=write")
	p.until(`document.querySelector('.grid [data-note]')`)
	p.choose("wish-word", "box blues")
	p.choose("wish-closing", "turnaround: walking down")
	p.click(".do button", "Write")
	p.saved()
	p.inBothLooks("aside", "what is wished")

	id := p.lineID()
	notes := func() int { return len(p.kept(id).Notes) }
	p.visit("/lines/3?panel=lick")
	p.until(`document.querySelector('.grid [data-note]')`)
	p.click("[aria-label=where] button", "bars")
	p.write("#lick-bars", "1 5 99")
	p.sees(".hint", "“99” is no bar of this line")
	p.write("#lick-bars", "1 5 9")
	p.choose("lick-join", "chromatic walk")
	before := notes()
	p.click(".do button", "Put it in")
	p.saved()
	assert.NotEqual(t, before, notes())

	p.click(".grid [data-note]", "")
	p.click(".do button", "Lead into this note")
	p.until(`document.querySelector('.fixes')`)
	p.inBothLooks("aside", "what leads into a note")

	p.visit("/lines/3?panel=dress")
	p.until(`document.querySelector('.grid [data-note]')`)
	p.click(".do button", "Add them")
	p.sees(".hint", "ornamented")
	p.saved()
	full := eval[string](p, `document.querySelector('.grid').innerHTML`)
	p.click("[aria-label='which level is shown and heard'] button", "plain")
	p.until(`location.search.includes('level=plain')`)
	assert.NotEqual(t, full, eval[string](p, `document.querySelector('.grid').innerHTML`), "the ornaments are not drawn")
	p.inBothLooks("aside", "how a line is dressed")
	adorned := 0
	for _, n := range p.kept(id).Notes {
		if n.Trill > 0 || n.Turn > 0 || n.Double > 0 {
			adorned++
		}
	}
	assert.Positive(t, adorned, "they are kept all the same")
	p.click(".pickings button", "strict alternate")
	p.saved()
	stroke := 0
	for _, n := range p.kept(id).Notes {
		if n.Stroke != "" {
			stroke++
		}
	}
	assert.Positive(t, stroke)
	p.click(".do button", "Take them away")
	p.until(`!document.querySelector("[aria-label='which level is shown and heard']")`)
}
