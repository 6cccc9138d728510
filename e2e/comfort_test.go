package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/formats/midi"
)

func TestTheLookIsChosenAndKept(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6")
	p.sees(".crossing .now", "C7")
	look := eval[string](p, `document.documentElement.dataset.theme`)
	p.keys("s")
	p.until(`document.documentElement.dataset.theme !== %q`, look)
	p.do(chromedp.Reload())
	p.sees(".crossing .now", "C7")
	p.until(`document.documentElement.dataset.theme !== %q`, look)
}

func TestANarrowScreenShowsTheWindowLarge(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(400, 800))
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing .now", "C7")
	p.until(`document.querySelectorAll('[data-spot]').length === 9`)
	assert.LessOrEqual(t, eval[float64](p, `document.documentElement.scrollWidth`), 400.0, "nothing sticks out")
	wide := eval[float64](p, `(() => { const t = [...document.querySelectorAll('.numbers text')]; return t[3].getBoundingClientRect().x - t[2].getBoundingClientRect().x })()`)
	assert.Greater(t, wide, 38.0, "frets are wide enough to touch")
	// Buttons are large enough for a thumb.
	small := eval[[]string](p, `[...document.querySelectorAll('.segments button, .links a, .layers button')].filter(e => e.checkVisibility() && e.getBoundingClientRect().height < 43.5).map(e => e.innerText)`)
	assert.Empty(t, small)
}

func TestEveryPartCanBeReachedByKeyboardAlone(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing .now", "C7")
	reached := map[string]bool{}
	for range 69 {
		p.keys(kb.Tab)
		reached[eval[string](p, `(() => { const e = document.activeElement; return (e.getAttribute('aria-label') ?? e.innerText ?? '').trim().split('\n')[0] })()`)] = true
	}
	for _, name := range []string{"Charts", "Atlas", "bar 2:", "note", "9–13", "arrivals", "Targets", "List", "palette"} {
		assert.True(t, reached[name], "%q among %v", name, reached)
	}
	// A step and a target without the mouse.
	eval[bool](p, `(document.querySelector('[data-bar="9"] button').focus(), true)`)
	p.keys(kb.Enter)
	p.sees(".crossing h2", "G7 to F7")
	eval[bool](p, `(document.querySelectorAll('.crossing li button:not(.hear)')[1].focus(), true)`)
	p.keys(kb.Enter)
	p.until(`document.querySelector('[data-target="9"] .pinned')`)
}

func TestTheBandIsDownloadedAndChartsAreCopied(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts")
	p.sees(".charts", "Slipway Shuffle")
	href := eval[string](p, `document.querySelector('a[download][aria-label*="Slipway"]').getAttribute('href')`)
	data := evalLater[[]int](p, `fetch('`+href+`').then(r => r.arrayBuffer()).then(b => [...new Uint8Array(b)])`)
	bytes := make([]byte, len(data))
	for i, b := range data {
		bytes[i] = byte(b)
	}
	file, err := midi.Read(t.Context(), bytes)
	require.NoError(t, err)
	assert.Equal(t, "Slipway Shuffle", file.Title)
	p.click("button", "copy Low Water")
	p.sees(".charts", "Low Water (copy)")
}

func TestWhenTheProgramIsGoneWorkIsNotLost(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts/new")
	p.write("#title", "Fog Signal")
	p.write("#text", "| Am7 | D7 | Gmaj7 | % |")
	p.sees(".preview", "Gmaj7")
	p.do(chromedp.Reload())
	p.sees(".preview", "Gmaj7")
	p.gone()
	p.click("button", "Make chart")
	p.sees("[role=alert]", "does not answer")
	assert.Equal(t, "Fog Signal", eval[string](p, `document.querySelector('#title').value`))
	assert.Contains(t, eval[string](p, `document.querySelector('#text').value`), "Am7")
	assert.Contains(t, p.remembered("slots"), "Am7")
}
