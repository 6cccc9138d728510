package e2e

import (
	"testing"
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
