package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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

func TestAChorusShowsTheArrivalsOfItsThread(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.sees(".crossing", "C7 to F7")
	thread := threadOf(p, 6, 7)
	require.Len(t, thread, 12)
	bars := []string{"C", "F", "C", "C", "F", "F", "C", "C", "G", "F", "C", "G"}
	for bar := range bars {
		next := (bar + 1) % 12
		for bars[next] == bars[bar] {
			next = (next + 1) % 12
		}
		to := thread[next]
		here := thread[bar]
		p.sees(".crossing h2", bars[bar]+"7 to "+bars[next]+"7")
		// The arrival that the thread chose is ringed on the neck, or stays under the hand.
		p.until(`document.querySelector('[data-arrival="%d:%d"]')`, to.String, to.Fret)
		if here.String != to.String || here.Fret != to.Fret {
			p.until(`document.querySelector('[data-arrival="%d:%d"] .chosen') || document.querySelector('[data-spot="%d:%d"]')`, to.String, to.Fret, to.String, to.Fret)
		}
		p.until(`document.querySelector('[data-target="%d"]')`, bar)
		p.keys(kb.ArrowRight)
	}
	p.sees(".crossing h2", "C7 to F7")
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

func TestPalettesAndOnePlaceOverEveryChord(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=2-6")
	p.sees(".blend", "Add E")
	p.sees(".blend .notes", "wants 3")
	p.keys("p", "p") // minor blues, major pentatonic
	p.sees(".blend .p-select", "major pentatonic")
	p.sees(".blend", "Add B♭")
	p.click(`[data-palette="2:3"]`, "") // D in the major pentatonic
	p.sees(".blend .place", "bent a whole step the 3")
	p.sees(".blend .place", "bent a half step the ♭7")
	p.sees(".blend .place", "5, rest")
	p.visit("/bench/6?frets=2-6&bar=9")
	p.sees(".blend .p-select", "major pentatonic")
	p.visit("/bench/6?frets=7-11&dim=palette")
	p.until(`document.querySelector('[data-layer=palette]').classList.contains('faded')`)
	p.click(".layers button", "bends")
	p.until(`document.querySelector('[data-layer=bends]').classList.contains('faded') && location.search.includes('bends')`)
	assert.Positive(t, eval[int](p, `document.querySelectorAll('[data-bend]').length`))
}

func TestImaginedTurnaroundIsFollowedAndItsRubMarked(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11&bar=11")
	p.sees(".crossing h2", "C7 to G7")
	p.click(".thread button", "Targets")
	p.choose("imagine", "Three")
	p.shut()
	p.sees(`[data-bar="11"]`, "Em7")
	p.sees(`[data-bar="11"]`, "A7")
	p.sees(`[data-bar="11"]`, "band C7")
	p.sees(`[data-bar="11"] .rubs`, "C♯")
	p.sees(".crossing h2", "Em7 to A7")
	p.keys(kb.ArrowRight)
	p.sees(".run-card", "A7")
	p.keys("u")
	p.sees(".crossing h2", "C7 to G7")
}

func TestThreadsOfOtherKinds(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11")
	p.click(".thread button", "Targets")
	p.choose("thread-mode", "ladder")
	p.shut()
	p.sees(".thread .about", "chorus 1 of 4")
	p.keys(kb.End, kb.ArrowRight)
	p.sees(".thread .about", "chorus 2 of 4")
	p.until(`document.querySelector('[data-target="0"] title').textContent.trim().startsWith('b7')`)
	p.click(".thread button", "List")
	p.until(`document.querySelectorAll('[role=dialog] tbody tr').length === 48`)
	p.click("[role=dialog] button", "Copy")
	p.sees("[role=dialog] [role=status]", "opied")
	p.shut()
	// No thread on three strings of one fret: said plainly, with the way out.
	p.visit("/bench/6?own=1-1")
	p.sees(".thread .problem", "No thread: in bar")
}

func TestMusicStandIsTurnedByPedal(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11&bar=4")
	p.sees(".crossing", "C7 to F7")
	p.keys("m")
	p.sees(".stand .now", "C7")
	p.sees(".stand .next", "F7")
	p.until(`document.querySelector('[data-stand-arrival]')`)
	p.keys(kb.PageDown)
	p.sees(".stand .now", "F7")
	p.sees(".stand .where", "bar 5")
	assert.Greater(t, eval[float64](p, `parseFloat(getComputedStyle(document.querySelector('.stand .now')).fontSize)`), 80.0)
	p.keys("m")
	p.sees(".crossing", "F7 to C7")
	assert.Contains(t, p.address(), "bar=5")
}

// Marks may touch, but none hides another: with all layers on, the centres of the
// marks in the window are apart, and what stays is shown beside its mark.
func TestNoMarkHidesAnother(t *testing.T) {
	p := sit(t, true)
	for _, path := range []string{"/bench/6?frets=7-11", "/bench/4?frets=10-14&bar=6", "/bench/5?frets=6-10&bar=9"} {
		p.visit(path)
		p.until(`document.querySelectorAll('[data-arrival]').length > 3`)
		for range 6 {
			hidden := eval[[]string](p, `(() => {
				const seen = {}, out = []
				for (const e of document.querySelectorAll('.neck [data-spot], .neck [data-arrival]')) {
					const m = e.transform.baseVal.consolidate().matrix, at = Math.round(m.e) + ',' + Math.round(m.f)
					if (seen[at]) out.push(at)
					seen[at] = true
				}
				return out
			})()`)
			assert.Empty(t, hidden, path)
			p.keys(kb.ArrowRight)
		}
	}
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
