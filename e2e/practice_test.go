package e2e

import (
	"testing"

	"undaris/e2e/studio"
)

// Over the band calls come round by themselves, on the bar.
func TestCallsComeRoundOverTheBand(t *testing.T) {
	p := sit(t, true)
	p.visit("/practice/6?seed=5&ask=tones&band=yes")
	p.until(`document.querySelector('.cover')`)
	p.click(".strip .play", "Play")
	p.until(`document.querySelector('.play.on')`)
	for range 40 { // so fast that it is soon over
		p.keys("]")
	}
	p.sees(".sum", "0 of 1") // let go after four bars
	p.sees(".sum", "0 of 2")
	p.sees("footer", "every 8 bars")
}

// One press from opening to the count-in of what was practised last, wherever one is; and the ear is remembered: it is on again
// with the first press, where the browser need not ask.
func TestOnePressGoesOn(t *testing.T) {
	p := microphone(t, recording(slipway(t, 9, 3), studio.Take{Sound: studio.Clean, Seed: 3}))
	p.visit("/practice/6?do=changes&mode=land")
	p.click("header button", "The ear")
	p.click(".p-dialog button", "Listen")
	p.until(stores + `.get('ear').on`)
	p.click(".p-dialog .p-dialog-close-button", "")
	p.click(".strip .play", "Play")
	p.until(`document.querySelector('.play.on')`)
	p.click(".strip .play", "Stop")
	p.until(`!document.querySelector('.play.on')`)
	p.visit("/charts")
	p.click(".strip .on", "Go on:")
	p.until(`location.pathname === '/practice/6' && document.querySelector('.play.on')`)
	p.sees(".strip .where", "count-in")
	p.click(".strip .play", "Stop")
	p.until(stores + `.get('ear').on`)
}
