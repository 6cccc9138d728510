package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

func TestAWrongChordIsToldWhereItStands(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts/new")
	p.write("#text", "| C7 | Fmja7 | | G7 |")
	p.sees(".problems", `bar 2: cannot read "ja7" in "Fmja7"`)
	p.sees(".problems", "bar 3 is empty")
	p.until(`document.querySelector('header button:last-child').disabled`)
	p.click(".problems button", "bar 2")
	assert.Equal(t, "Fmja7", eval[string](p, `(() => { const e = document.querySelector('#text'); return e.value.slice(e.selectionStart, e.selectionEnd) })()`))
	// Nothing typed is lost over a reload.
	p.do(chromedp.Reload())
	p.sees(".problems", "bar 2")
	assert.Equal(t, "| C7 | Fmja7 | | G7 |", eval[string](p, `document.querySelector('#text').value`))
	p.click(".problems .p-button", "Write Fmaj7")
	p.click(".problems .p-button", "Repeat the bar before")
	p.sees(".preview", "Fmaj7")
	p.click("button", "Make chart")
	p.sees("[role=alert]", "a chart needs a title")
	p.write("#title", "Gangway")
	p.click("button", "Make chart")
	p.sees("h1", "Gangway")
	p.visit("/charts")
	p.sees(".charts", "Gangway")
	assert.Equal(t, 7, eval[int](p, `document.querySelectorAll('.charts li').length`))
}

func TestInstrumentIsCheckedAndUsed(t *testing.T) {
	p := sit(t, true)
	p.visit("/bench/6")
	p.sees(".crossing .now", "C7")
	p.click("nav button", "Neck")
	p.until(`document.querySelector('[role=dialog]')?.contains(document.activeElement) && document.getAnimations().every(a => a.playState !== 'running')`)
	p.write("#tuning", "E2,A2,D3,G3,H3,E4")
	p.click("[role=dialog] button", "Use this instrument")
	p.sees("[role=dialog] [role=alert]", `"H3" is not a pitch`)
	assert.Equal(t, "E2,A2,D3,G3,H3,E4", eval[string](p, `document.querySelector('#tuning').value`))
	p.choose("tuning-known", "Seven-string")
	p.click("[role=dialog] button", "left-handed")
	p.click("[role=dialog] button", "Use this instrument")
	p.until(`!document.querySelector('[role=dialog]') && document.querySelectorAll('.neck .string').length === 7`)
	// Left-handed: the nut is on the right.
	p.until(`document.querySelector('.nut').getBoundingClientRect().x > 900`)
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('.neck .string').length === 7`)
}
