package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// drag draws with the mouse from one place to another.
func (p *player) drag(x1, y1, x2, y2 float64) {
	p.t.Helper()
	p.do(chromedp.MouseEvent("mousePressed", x1, y1, chromedp.ButtonLeft, chromedp.ClickCount(1)))
	for i := 1.0; i <= 4; i++ {
		p.do(chromedp.MouseEvent("mouseMoved", x1+(x2-x1)*i/4, y1+(y2-y1)*i/4, chromedp.ButtonLeft))
	}
	p.do(chromedp.MouseEvent("mouseReleased", x2, y2, chromedp.ButtonLeft, chromedp.ClickCount(1)))
}

// fingers lays fingers down, moves them and takes them away: each goes from where its first pair says by what its second says.
func (p *player) fingers(each ...[4]float64) {
	p.t.Helper()
	touch := func(kind input.DispatchTouchEventType, part float64) {
		points := []*input.TouchPoint{}
		for i, f := range each {
			id := float64(i + 1)
			if kind != input.DispatchTouchEventTypeTouchEnd {
				points = append(points, &input.TouchPoint{X: f[0] + part*f[2], Y: f[1] + part*f[3], ID: &id})
			}
		}
		_, err := chromedp.Call(p.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: points})
		require.NoError(p.t, err)
	}
	touch(input.DispatchTouchEventTypeTouchStart, 0)
	for i := 1.0; i <= 5; i++ {
		touch(input.DispatchTouchEventTypeTouchMove, i/5)
	}
	touch(input.DispatchTouchEventTypeTouchEnd, 0)
}

func (p *player) middle(css string) [2]float64 {
	p.t.Helper()
	return eval[[2]float64](p, fmt.Sprintf(`(r => [r.x + r.width / 2, r.y + r.height / 2])(document.querySelector(%q).getBoundingClientRect())`, css))
}

// Bars of the sheet and of the wave that are drawn over go round; two loops take turns by a key, and those of a crossing by a press.
func TestLoopsAreDrawnByHand(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing .now", "C7")
	loop := func(want string) {
		t.Helper()
		p.until(`document.querySelector('[aria-label="loop these bars"]').value === %q && (new URLSearchParams(location.search).get('loop') ?? '') === %q`, want, want)
	}
	from, to := p.middle(`[data-bar="2"]`), p.middle(`[data-bar="4"]`)
	p.drag(from[0], from[1], to[0], to[1])
	loop("2-4")
	p.until(`document.querySelector('.bar.on').dataset.bar === '1'`) // it was no press
	p.drag(to[0], to[1], from[0], from[1])                           // from right to left it is the same
	loop("2-4")
	p.keys("o")
	loop("")
	bar := func(n float64) (x, y float64) {
		at := eval[[3]float64](p, `(r => [r.x, r.width, r.y + r.height - 12])(document.querySelector('.wave svg').getBoundingClientRect())`)
		return at[0] + at[1]*(n-0.5)/12, at[2]
	}
	x1, y := bar(9)
	x2, _ := bar(10)
	p.drag(x1, y, x2, y)
	loop("9-10")
	for _, want := range []string{"2-4", "9-10", "2-4"} {
		p.keys("o")
		loop(want)
	}
	p.until(`document.querySelector('.loop .side').getAttribute('aria-label') === 'loop A; loop B waits'`)
	p.click(".crossing button", "2 bars")
	loop("1-2")
	// In Practice too.
	p.visit("/practice/6?do=changes")
	p.until(`document.querySelector('.grid [data-bar="8"]')`)
	from, to = p.middle(`.grid [data-bar="5"]`), p.middle(`.grid [data-bar="8"]`)
	p.drag(from[0], from[1], to[0], to[1])
	p.until(`document.querySelector('[aria-label="loop these bars"]').value === '5-8'`)
}

// Two bars are counted where that is chosen; the first of them in half notes.
func TestTwoBarsAreCounted(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11&tempo=240")
	p.sees(".crossing .now", "C7")
	p.click(".strip button", "Band")
	p.click(".panel .segments button", "two bars")
	p.keys("\x1b")
	eval[bool](p, `(window.beats = [], (function look() { const b = `+stores+`.get('band').beat; if (b !== undefined) window.beats.push(b); requestAnimationFrame(look) })(), true)`)
	p.click(".play", "Play")
	p.sees(".strip .where", "count-in")
	p.sees(".strip .where", "bar 1")
	first := eval[float64](p, `window.beats[0]`)
	assert.InDelta(t, -8, first, 1.01, "two bars of four before the top")
	p.click(".play", "Stop")
}

// What is in view is told in a sentence when it is asked for, and what a pedal did when it was pressed.
func TestWhatIsInViewIsTold(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11&bar=4")
	p.sees(".crossing .now", "C7")
	p.until(`document.querySelector('.told')`) // it comes after the first drawing
	p.keys("i")
	p.sees(".told.seen", "Slipway Shuffle, bar 4 of 12")
	p.sees(".told.seen", "comes in a bar: land on")
	// A foot moves the loop while the band plays, and hears where to.
	p.click(".crossing button", "2 bars")
	p.until(`document.querySelector('[aria-label="loop these bars"]').value === '4-5'`)
	p.click(".play", "Play")
	p.until(stores + `.get('band').beat !== undefined`)
	p.keys(kb.PageDown)
	p.sees(".told.seen", "go round, tempo 96")
	// Who cannot see hears the bar and the landing to come, once.
	p.until(`/^bar \d+: [A-G]/.test(document.querySelector('p.hidden-text[role=status]')?.innerText ?? '')`)
	p.click(".play", "Stop")
	p.visit("/charts")
	p.sees("h1", "Charts")
	p.until(`document.querySelector('.told')`)
	p.keys("i")
	p.sees(".told.seen", "Charts: 6 entries")
}

// A finger goes through the bars and draws the neck along; two of them spread it. What it did is no press.
func TestAPhoneIsPlayedByFingers(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(390, 844))
	_, err := chromedp.Call(p.ctx, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true, MaxTouchPoints: 3})
	require.NoError(t, err)
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing .now", "C7")
	p.until(`document.querySelectorAll('[data-spot]').length > 5 && document.querySelector('.told')`)
	bar := `document.querySelector('.bar.on').dataset.bar`
	at := p.middle(".crossing .title")
	p.fingers([4]float64{at[0], at[1], -90, 4})
	p.until(bar + ` === '2'`)
	p.fingers([4]float64{at[0], at[1], 90, 4})
	p.until(bar + ` === '1'`)
	p.fingers([4]float64{at[0], at[1], -90, 80}) // that went down
	p.fingers([4]float64{at[0], at[1], -20, 0})  // and that was no more than a press
	frets := func() []int {
		return eval[[]int](p, `[...document.querySelectorAll('.numbers text')].map(t => Number(t.textContent))`)
	}
	before := frets()
	neck := p.middle(".bench .neck svg")
	p.fingers([4]float64{neck[0], neck[1] - 20, 150, 0})
	p.until(`Number(document.querySelector('.numbers text').textContent) < %d`, before[0])
	assert.Equal(t, len(before), len(frets()), "as many as before")
	assert.Equal(t, "1", eval[string](p, bar))
	p.until(`!document.querySelector('.blend .place')`) // no place was asked about
	now := frets()
	p.fingers([4]float64{neck[0] - 30, neck[1] - 20, -90, 0}, [4]float64{neck[0] + 30, neck[1] - 20, 90, 0})
	p.until(`document.querySelectorAll('.numbers text').length < %d`, len(now))
	assert.GreaterOrEqual(t, len(frets()), 4)
	p.do(chromedp.MouseClickXY(20, 20)) // and a press is one
}
