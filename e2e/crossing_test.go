package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// target is a target of the thread as the API tells it.
type target struct {
	Step, String, Fret int
	Degree             string
	Pinned             bool
}

// threadOf asks for the thread of a chart in a position, for what the page shows
// to be held against.
func threadOf(p *player, chart, low int) map[int]target {
	list := evalLater[[]target](p, fmt.Sprintf(`fetch('/api/charts/%d/map').then(r => r.json()).then(m => m.byPosition[m.positions.findIndex(x => x.low === %d)].thread.targets)`, chart, low))
	out := map[int]target{}
	for _, t := range list {
		out[t.Step] = t
	}
	return out
}

func TestATargetChosenByHandRedrawsTheThread(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing", "C7 to F7")
	line := eval[string](p, `document.querySelector('.thread[d]').getAttribute('d')`)
	p.click(".crossing li button", "C to C") // the root stays as the fifth
	p.until(`document.querySelector('.thread[d]').getAttribute('d') !== %q`, line)
	p.until(`document.querySelector('[data-target="1"] .pinned')`)
	thread := threadOf(p, 6, 7)
	assert.Equal(t, "5", thread[1].Degree)
	assert.True(t, thread[1].Pinned)
	p.sees(`[data-bar="2"]`, "C")
	// Another by the key, then back by undo, twice.
	p.keys("t")
	p.until(`!document.querySelector('[data-target="1"] title').textContent.trim().startsWith('5')`)
	p.keys("u", "u")
	p.until(`document.querySelector('.thread[d]').getAttribute('d') === %q`, line)
	// On the neck itself.
	p.click(`[data-arrival="5:8"]`, "")
	p.until(`document.querySelector('[data-target="1"] title').textContent.trim().startsWith('R, F at 5:8')`)
	p.click(".crossing button", "Let the thread choose again")
	p.until(`document.querySelector('.thread[d]').getAttribute('d') === %q`, line)
}

func TestCardsLightTheNeckAndTheWaveTakesTargets(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing", "C7 to F7")
	hover := func(css string) {
		at := eval[[]float64](p, fmt.Sprintf(`(() => { const e = document.querySelector(%q); e.scrollIntoView({block: 'center'}); const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`, css))
		p.do(chromedp.MouseEvent("mouseMoved", at[0], at[1]))
	}
	hover(".crossing li:nth-child(2) button")
	p.until(`document.querySelectorAll('.lit circle').length >= 2 && document.querySelectorAll('.lit line').length >= 1`)
	hover(".blend .notes button")
	p.until(`document.querySelectorAll('.lit circle').length >= 2`)
	bends := eval[int](p, `document.querySelectorAll('[data-bend]').length`)
	assert.Positive(t, bends)
	hover("h1")
	p.until(`document.querySelectorAll('.lit circle').length === 0`)

	// In bar 9 of the wave the thread takes the note whose rail is clicked.
	was := threadOf(p, 6, 7)[8]
	rail := eval[[]float64](p, `(() => {
		document.querySelector('.wave').scrollIntoView({block: 'center'})
		const w = document.querySelector('.wave svg').getBoundingClientRect()
		const t = document.querySelector('[data-target="8"]').getBoundingClientRect()
		return [w.x + w.width * 8.7 / 12, t.y + t.height + 12]
	})()`)
	for range 30 { // down to the next rail
		p.do(chromedp.MouseClickXY(rail[0], rail[1]))
		if rail[1] += 3; eval[bool](p, `!!document.querySelector('[data-target="8"] .pinned')`) {
			break
		}
	}
	p.until(`document.querySelector('[data-target="8"] .pinned')`)
	now := threadOf(p, 6, 7)[8]
	assert.True(t, now.Pinned)
	assert.NotEqual(t, [2]int{was.String, was.Fret}, [2]int{now.String, now.Fret})
}
