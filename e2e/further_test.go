package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// Further than the next change: two tones at once through the last two bars, and from
// where the hand stands. The neck shows a way that is pointed at, and it can be heard.
func TestVoiceLeadingThroughSeveralChords(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1400))
	p.visit("/bench/6?frets=7-11")
	p.click(".crossing button", "Further")
	p.sees(".leading", "Voice leading")
	p.click(".leading button", "two")
	p.click(".leading button", "3 and 7")
	p.until(`document.querySelectorAll('.leading li').length === 2`)
	p.sees(".leading li", "2 half steps")
	p.click(".leading .p-select", "")
	p.click("[role=option]", "the last two bars")
	p.until(`document.querySelector('.leading li').innerText.match(/7/g).length >= 3`)
	p.inBothLooks("main", "voice leading")
	p.do(chromedp.Focus(".leading li button"))
	p.until(`document.querySelectorAll('.lit line').length >= 4`)
	p.visit(p.address())
	p.sees(".leading .p-select", "the last two bars")

	// A place that is pressed is where the hand stands: 1:8 is the root of C7, the 5 of F7.
	p.visit("/bench/6?frets=7-11&card=leading")
	p.click("[data-spot='1:8']", "")
	p.sees(".leading .hand", "From your hand at 1:8")
	p.sees(".leading li", "1:8")
	assert.Contains(t, p.address(), "hand=1")
	p.click(".leading button", "From anywhere")
	p.sees(".leading .hand", "Press a place on the neck")
	p.click(".leading button", "one tone")

	// What no hand can hold is said.
	p.visit("/bench/6?own=7-11&on=3&card=leading&voices=two")
	p.sees(".leading .problem", "no 2 tones of C7 lie under one hand in frets 7 to 11 on string 3")
	p.click("[aria-label='back to the wave and the cards']", "")
	p.sees(".run-card", "Run")
}

// A way that is pressed is heard, over its chords.
func TestVoiceLeadingIsHeard(t *testing.T) {
	p := listen(t)
	p.visit("/bench/6?frets=7-11&card=leading&voices=two&tones=guide")
	p.until(`document.querySelectorAll('.leading li').length === 2`)
	p.click(".leading li button", "")
	p.until(`document.querySelector('.strip .play.on')`)
	p.until(`window.ear?.node && ear.take().then(() => ear.rms() > 0.003)`)
	p.click(".strip .play", "Stop")
}

// Other arpeggios over the chord in hand: what suits first, or step by step; one is put
// on the neck in the chord's place, its tones named over the chord.
func TestOtherArpeggiosOverAChord(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1400))
	p.visit("/bench/6?frets=7-11")
	p.click(".run-card button", "Others")
	p.sees(".others li", "C7 itself")
	p.inBothLooks("main", "other arpeggios")
	p.click(".others button", "steps of the key")
	p.until(`document.querySelectorAll('.others li').length === 7`)
	p.click(".others .show", "Em7")
	p.until(`[...document.querySelectorAll('[data-spot]')].every(e => ['3', '5', '7', '9'].includes(e.dataset.degree))`)
	p.click(".others button", "of its scale")
	p.click(".others .show", "Em7♭5")
	p.until(`[...document.querySelectorAll('[data-spot]')].every(e => ['3', '5', 'b7', '9'].includes(e.dataset.degree))`)
	whole := eval[int](p, `document.querySelectorAll('[data-spot]').length`)
	p.click(".others .tick-box input", "")
	p.until(`document.querySelectorAll('[data-spot]').length < %d && document.querySelectorAll('.shape circle').length > 10`, whole)
}

// The Atlas in other ways to divide the neck, on strings apart; one fingering that serves
// several chords is told.
func TestTheAtlasInOtherRegions(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1600))
	p.visit("/atlas/6")
	p.sees(".caption", "C shape")
	p.until(`[...document.querySelectorAll('.caption')].filter(c => c.innerText.endsWith('fingering 1')).length > 1`)
	p.inBothLooks("main", "the atlas")
	p.click(".regions .p-select", "five positions")
	p.click("[role=option]", "three notes a string")
	p.sees(".regions", "every string is picked alike")
	p.until(`document.querySelectorAll('.cell svg').length >= 21`)
	p.click(".regions .p-select", "all strings")
	p.click("[role=option]", "strings 5 and 2")
	p.until(`document.querySelector('.cell .string.off')`)
	p.click(".regions .p-select", "every chord")
	p.click("[role=option]", "F7")
	p.until(`document.querySelectorAll('h3').length === 1`)
	assert.Contains(t, p.address(), "way=three")

	// From the Bench it opens in the Bench's own region.
	p.visit("/bench/6?own=5-12&on=3,2")
	p.click("header a", "Atlas")
	p.sees(".regions .p-select", "5–12 on 3, 2")
	p.until(`document.querySelectorAll('.cell svg').length === 3`)
}

// Blank necks: each place of a pitch will do, what is missing is named by its degree, and
// the marks are still there after a reload.
func TestBlankNecksAreKept(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1400))
	p.visit("/atlas/6?necks=blank&own=8-10&on=6,5&chord=C7")
	p.until(`document.querySelectorAll('.cell svg').length === 1`)
	for _, at := range []string{"6:8", "6:9"} {
		p.click("[data-cell='"+at+"']", "")
	}
	p.visit(p.address())
	p.until(`document.querySelectorAll('[data-filled]').length === 2`)
	p.click("header button", "Check")
	p.sees(".score", "1 right, 1 wrong, 1 missing: 5 once")
	p.sees(".score", "It took")
	p.click("header button", "Go on filling")
	p.click("[data-cell='5:10']", "")
	p.click("[data-cell='6:9']", "")
	p.click("header button", "Check")
	p.sees(".score", "2 right, 0 wrong, none missing")
	p.sees(".score", "the time before")
	p.click("header button", "Clear")
	p.until(`document.querySelectorAll('[data-filled]').length === 0`)
}
