package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// spotsOn are the strings that marks lie on.
const spotsOn = `[...new Set([...document.querySelectorAll('[data-spot]')].map(e => +e.dataset.spot.split(':')[0]))].sort().join(',')`

// The Bench in regions of every kind: strings apart, three notes a string, a window of
// eight frets, seven strings left-handed, a bass on two of its strings; chosen in one
// panel, kept in the address, stepped through by the arrow keys.
func TestTheBenchInAnyRegion(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1400))
	p.visit("/bench/6")
	p.click(".windows button[aria-haspopup]", "")
	p.click(".own .strings button", "string 6")
	for _, s := range []string{"string 4", "string 3", "string 1"} {
		p.click(".own .strings button", s)
	}
	p.sees(".own .strings", "a low voice and a high one")
	p.write("#own-low input, input#own-low", "0")
	p.write("#own-high input, input#own-high", "12")
	p.keys(kb.Tab)
	p.inBothLooks(".own", "the ways to divide the neck")
	p.click(".own button", "Use it")
	p.sees(".windows .on", "0–12 on 5, 2")
	p.until(spotsOn + ` === '2,5'`)
	assert.Contains(t, p.address(), "own=0-12&on=5")
	p.inBothLooks("main", "the Bench on two strings")
	p.visit(p.address()) // it can be come back to
	p.until(spotsOn + ` === '2,5'`)

	// It is where the chart was left; another chart is where it was.
	p.visit("/bench/5")
	p.until(`document.querySelectorAll('[data-spot]').length > 5`)
	assert.NotContains(t, p.address(), "own=")
	p.visit("/bench/6")
	p.until(spotsOn + ` === '2,5'`)
	p.click(".windows button", "7–11")
	p.until(spotsOn + `.length > 6`)

	// Three notes a string: from the tonic, and on to the next. On a page that need not scroll,
	// since the panel closes when it does.
	p.do(chromedp.EmulateViewport(1280, 1100))
	p.visit("/bench/6")
	p.until(spotsOn + `.length > 6`)
	p.click(".windows button[aria-haspopup]", "")
	p.click(".own .ways .p-select", "")
	p.click("[role=option]", "three notes a string")
	p.sees(".own .ways", "every string is picked alike")
	p.click(".own .regions button", "from step 1")
	p.until(`document.querySelectorAll('.shape circle:not(.unison)').length === 18`)
	p.until(`!document.querySelector("[role=dialog]")`)
	before := p.address()
	p.keys(kb.ArrowUp)
	p.until(`location.pathname + location.search !== %q && document.querySelectorAll('.shape circle:not(.unison)').length === 18`, before)
	p.click(".windows button[aria-haspopup]", "")
	p.click(".own button", "Back to positions")
	p.until(`!document.querySelector('.neck .shape') && !location.search.includes('way')`)

	// What a region does not hold is told, with where it lies nearest.
	p.visit("/bench/6?own=5-5&on=3")
	p.sees(".cards", "Not in this region")
	p.visit("/bench/6?own=5-9&on=7") // strings that are not there
	p.sees("main", "the nearest is frets 5 to 9")
	p.click("main button", "Back to positions")
	p.until(spotsOn + `.length > 6`)
}

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

// Each mark tells how far the next chord is; what leads there from both sides is named.
func TestStepsToTheNextChord(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6?frets=7-11&bar=2")
	p.sees(".crossing .enclosed", "enclose")
	p.click(".labels button", "steps")
	p.until(`location.search.includes('labels=steps')`)
	labels := `Object.fromEntries([...document.querySelectorAll('[data-spot]')].map(e => [e.dataset.degree, e.querySelector('text').textContent]))`
	p.until(`(l => l.R === '−1' && l['3'] === '+1' && l['5'] === '=' && l.b7 === '+1')(` + labels + `)`) // F7 to C7
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

// A line is written on the strings of its region, and an exercise too; the region stays
// with it.
func TestALineOnTwoStrings(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1400))
	p.visit("/lines/3")
	p.until(`document.querySelector('.grid [data-note]')`)
	p.click("[role=tab]", "Write")
	p.choose("wish-strings", "strings 5 and 2")
	p.write("#wish-low input, input#wish-low", "2")
	p.write("#wish-high input, input#wish-high", "11")
	p.keys(kb.Tab)
	p.click(".work-panel button", "Write")
	kept := `fetch('/api/lines/3').then(r => r.json()).then(l => l.strings === '5,2' && l.notes.length > 4 && l.notes.every(n => n.string === 5 || n.string === 2)%s)`
	p.until(kept, "")
	p.click("[role=tab]", "Exercise")
	p.click(".work-panel button", "Lay it over the chords")
	p.until(kept, " && l.exercise !== ''")
	p.visit("/lines/3")
	p.sees("header", "frets 2–11 on 5, 2")
}

// Both boxes on one neck: each note tells which box it is from, and over each chord one
// of the two is proposed, with the reason.
func TestBothBoxesOnOneNeck(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1400))
	p.visit("/bench/6?frets=7-11")
	p.click(".blend .p-select", "")
	p.click("[role=option]", "minor and major pentatonic, box by box")
	p.sees(".blend .box [aria-pressed=true]", "major")
	p.sees(".blend .box", "E is the 3 of C7; F of the minor box is its 11, tension")
	p.until(`document.querySelector('[data-bar="1"]').innerText.includes('major') && document.querySelector('[data-bar="2"]').innerText.includes('minor')`)
	p.until(`document.querySelectorAll('[data-slide]').length > 0`)
	p.until(`['minor', 'major', 'both'].every(b => document.querySelector('[data-palette].' + b))`)
	p.inBothLooks("main", "both boxes on the neck")
	p.click("[data-bar='2']", "")
	p.sees(".blend .box [aria-pressed=true]", "minor")
	p.sees(".blend .box", "E of the major box is its 7, passing")

	// The player knows better, and can take that back.
	p.click(".blend .box button", "major")
	p.sees(".blend .box", "Your choice. Proposed is the minor box")
	p.visit(p.address())
	p.sees(".blend .box [aria-pressed=true]", "major")
	p.until(`document.querySelector('[data-bar="2"]').innerText.includes('major')`)
	p.click(".blend .box button", "minor")
	p.until(`!document.querySelector('.blend .box').innerText.includes('Your choice')`)

	// A palette of one's own, of the steps that are pressed.
	p.click(".blend .p-select", "")
	p.click(".make", "")
	p.write("#palette-name", "Quayside five")
	for _, step := range []string{"♭5", "2"} {
		p.click(".steps button", step)
	}
	p.inBothLooks("[role=dialog]", "a palette of one's own")
	p.click("[role=dialog] button", "Keep it")
	p.sees(".blend .p-select", "Quayside five")
	p.until(`fetch('/api/charts/6').then(r => r.json()).then(c => c.plan.palette.startsWith('own:1 '))`)
}
