package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// Every chord has its shape where the hand is, a grip that is strummed, and the same
// fingering elsewhere.
func TestEveryChordHasAShapeAndAGrip(t *testing.T) {
	p := listen(t)
	p.visit("/bench/6?frets=4-8")
	for bar, want := range map[int][2]string{1: {"C7, G shape", ""}, 2: {"F7, C shape", "× 8 7 8 6 ×"}, 9: {"G7, D shape", ""}} {
		p.click(fmt.Sprintf("[data-bar='%d']", bar), "")
		p.sees(".run-card h2", want[0])
		p.sees(".run-card .held", "grip "+want[1])
	}
	p.click("[data-bar='2']", "")
	p.sees(".run-card .held", "G7 7–11")
	p.keys("g")
	p.until(`window.ear?.node && ear.take().then(() => ear.rms() > 0.003)`)
	p.click(".run-card .held button", "G7")
	p.sees(".windows .on", "7–11")
}

// Any place answers, marked or not, pressed or come to by keys.
func TestAnyFretAnswers(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.until(`document.querySelectorAll('[data-spot]').length > 5`)
	at := eval[[]float64](p, `(() => { const r = document.querySelector('.neck svg').getBoundingClientRect(); const n = [...document.querySelectorAll('.numbers text')].find(e => e.textContent.trim() === '3').getBoundingClientRect(); return [n.x + n.width / 2, r.y + 18] })()`)
	p.do(chromedp.MouseClickXY(at[0], at[1]))
	p.sees(".blend .place", "G4 at 1:3")
	p.sees(".blend .place", "the key's 5")
	p.sees(".blend .place", "also at")
	p.sees(".blend .place", "F7 9, colour")
	p.do(chromedp.Focus(chromedp.CSS(".neck")))
	p.keys(kb.ArrowRight, kb.ArrowRight, kb.ArrowUp, kb.Enter) // from string 6, fret 7
	p.sees(".blend .place", "G♭3")
	p.sees(".blend .place", "at 5:9")
	assert.NotContains(t, p.address(), "bar=", "the arrows went along the neck")
}
