package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
)

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
