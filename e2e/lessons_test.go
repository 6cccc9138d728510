package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// download writes what a link of the page would save to a file of the test.
func (p *player) download(link, name string) string {
	p.t.Helper()
	text := evalLater[string](p, fmt.Sprintf(`fetch(document.querySelector(%q).href).then(r => r.text())`, link))
	file := filepath.Join(p.t.TempDir(), name)
	require.NoError(p.t, os.WriteFile(file, []byte(text), 0o600))
	return file
}

// take picks options of a MultiSelect and shuts its panel.
func (p *player) take(label string, options ...string) {
	p.t.Helper()
	p.click(".p-multiselect:has(#"+label+")", "")
	for _, o := range options {
		p.click(".p-multiselect-option", o)
	}
	p.keys("\x1b")
	p.until(`!document.querySelector('.p-multiselect-overlay')`)
}

// An assignment is made, opened by another player, done, returned and read.
func TestAnAssignmentIsSetAndReturned(t *testing.T) {
	p := sit(t, true)
	p.visit("/practice/6?do=lessons")
	p.do(chromedp.EmulateViewport(1280, 1600))
	p.sees("h1", "No lessons yet")
	p.click("header button", "Set an assignment")
	p.write("#lesson-title", "Thirds by Friday")
	p.write("#lesson-words", "Slowly at first.")
	p.take("lesson-charts", "Slipway Shuffle")
	p.click(".p-dialog button", "An exercise")
	p.sees(".set legend", "Exercise 1")
	p.click(".p-dialog button", "An aim")
	p.sees(".p-dialog", "Aim 1")
	p.inBothLooks(".p-dialog", "an assignment being made")
	p.click(".p-dialog button", "Set it")
	p.sees(".lesson h2", "Thirds by Friday")
	p.sees(".things", "Up and down")
	p.sees(".aims", "Slipway Shuffle, Land on chord tones: 80 % of the changes met, 2 times in a row")
	given := p.download(".lesson header a", "thirds.undaris.json")

	// Another player opens it.
	p.visit("/practice/6?do=today")
	p.click("header button", "Player")
	p.write(".players input", "Bram")
	p.click(".players button", "Another player")
	p.sees("header", "Bram")
	p.visit("/practice/6?do=lessons")
	p.sees("h1", "No lessons yet")
	bad := filepath.Join(t.TempDir(), "song.json")
	require.NoError(t, os.WriteFile(bad, []byte(`{"kind": "a song"}`), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{bad}))
	p.sees(".trouble", "song.json: this is no file of Undaris")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{given}))
	p.sees(".lesson h2", "Thirds by Friday")
	p.sees(".lesson .words", "Slowly at first.")
	p.sees(".aims", "not tried yet")
	p.inBothLooks("main", "an assignment")

	// It is done: the aim leads to where it is practised. In the plan a simulated player may stand in.
	p.visit("/practice/6?do=today")
	p.until(`[...document.querySelectorAll('.items .why')].some(e => e.innerText.includes('Player asks for it'))`)
	p.click("header button", "Start")
	p.sees(".plan-strip", "of")
	p.visit("/practice/6?do=lessons")
	p.click(".aims a", "Practise")
	p.until(`new URLSearchParams(location.search).get('mode') === 'land' && document.querySelector('.strip .play.on')`)
	p.click(".strip .play", "Stop")
	reached := func() bool {
		return evalLater[int](p, `fetch('/api/assignments').then(r => r.json()).then(l => l[0].reached)`) == 1
	}
	for i := 0; i < 20 && !reached(); i++ { // it errs as it likes
		p.click("footer button", "Have a simulated player play it")
		p.until(`document.querySelector('.result') && (%d < 1 || document.querySelectorAll('.choruses li').length === %d)`, i, min(8, i+1))
	}
	p.visit("/practice/6?do=lessons")
	p.sees(".aims", "reached, ")
	p.until(`document.querySelector('.aims .tick.reached')`)
	p.write(".return textarea", "Harder than it looks")
	p.until(`decodeURIComponent(document.querySelector('.return a').href).includes('looks')`)
	back := p.download(".return a", "results.undaris.json")

	// It is returned and read.
	p.visit("/practice/6?do=today")
	p.click("header button", "Bram")
	p.click(".players button", "Player")
	p.until(`[...document.querySelectorAll('header button')].some(b => b.innerText.trim() === 'Player')`)
	p.visit("/practice/6?do=lessons")
	p.sees(".lesson", "Give the file to a pupil")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), []string{back}))
	p.sees(".results h3", "Bram")
	p.sees(".results .words", "Harder than it looks")
	p.sees(".aims .far", "Bram reached")
	p.inBothLooks("main", "results")
	assert.Contains(t, eval[string](p, `document.querySelector('.results').innerText`), "1 of 1 reached")
}
