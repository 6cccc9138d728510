package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// By keys alone: past the places to what is shown, to the heading of another place, back to where the way began, and back
// through the ways to practise.
func TestKeysLeadOnAndBack(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts")
	p.sees("main", "Slipway Shuffle")
	// What follows the focus is there once the first place is drawn.
	p.until(`performance.getEntriesByType('resource').some(e => /AtTheFoot.*js/.test(e.name) && performance.now() - e.responseEnd > 300)`)
	p.keys(kb.Tab)
	p.until(`document.activeElement.innerText === 'Skip to what is shown' && document.activeElement.getBoundingClientRect().left >= 0`)
	p.keys(kb.Enter)
	p.until(`document.activeElement.id === 'place'`)
	eval[bool](p, `([...document.querySelectorAll('main a')].find(a => a.innerText.includes('Slipway Shuffle')).focus(), true)`)
	p.keys(kb.Enter)
	p.until(`location.pathname.startsWith('/bench/') && document.activeElement.tagName === 'H1'`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`location.pathname === '/charts' && document.activeElement.innerText?.includes('Slipway Shuffle')`)

	p.visit("/practice/6?do=today")
	p.click(".rooms button", "Log")
	p.until(`location.search.includes('do=log')`)
	p.click(".rooms button", "Takes")
	p.until(`location.search.includes('do=takes')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`location.pathname === '/practice/6' && location.search.includes('do=log')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`location.pathname === '/practice/6' && location.search.includes('do=today')`)
}

// Space is the band's, also behind a click; where the focus came by keys it presses what has it. Letters are changed, and
// switched off: then nothing but what is meant happens, and all of it is kept.
func TestSpaceAndLetters(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6")
	p.sees("h1", "Slipway Shuffle")
	theme := `document.documentElement.dataset.theme ?? document.documentElement.className`
	p.click("nav button", "Stage")
	before := eval[string](p, theme)
	p.keys(" ")
	p.until(`document.querySelector('.play.on')`)
	assert.Equal(t, before, eval[string](p, theme), "the button is not pressed again")
	p.keys(" ")
	p.until(`!document.querySelector('.play.on')`)
	p.keys(kb.Tab, kb.Tab)
	eval[bool](p, `([...document.querySelectorAll('nav button')].find(b => /Paper|Stage/.test(b.innerText)).focus(), true)`)
	p.keys(" ")
	p.until(theme + ` !== '` + before + `'`)
	p.keys("l")
	p.until(`document.querySelector('.strip').innerText.includes('chord') || ` + stores + `.get('band').loop`)

	p.keys("?")
	p.click("summary", "Other letters")
	p.click(".keys li button[aria-label*='loop the chord']", "L")
	p.keys("s") // is taken
	p.sees(".keys [role=alert]", "S is taken: paper or stage.")
	p.keys("q")
	p.until(`document.querySelector(".keys li button[aria-label*='loop the chord'][aria-label^='Q']")`)
	p.shut()
	looped := `JSON.stringify(` + stores + `.get('band').loop ?? null)`
	was := eval[string](p, looped)
	p.keys("l")
	p.keys("q")
	p.until(looped + ` !== '` + was + `'`)
	p.do(chromedp.Reload())
	p.sees("h1", "Slipway Shuffle")
	p.until(`document.querySelector('.strip [title*="(Q)"]')`)
	p.keys("?")
	p.click(".keys label", "single letters")
	p.shut()
	shown := eval[string](p, theme)
	p.keys("s", "n", "q")
	p.keys(" ")
	p.until(`document.querySelector('.play.on')`)
	assert.Equal(t, shown, eval[string](p, theme))
	p.keys(" ")
}
