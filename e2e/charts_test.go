package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
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

// A key chosen while chords are written: the player says whether they move or are named
// anew; while they cannot be read the key is not lost. A dialog that is only opened, and
// a line begun over a chart, leave its key alone.
func TestAChosenKeyIsNotLost(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts/6")
	p.sees(".preview", "F7")
	p.choose("key", "F")
	p.click(".ask button", "They stay")
	p.sees(".preview", "V7") // C7 in F
	p.until(`!document.querySelector('.ask')`)
	p.click("button", "undo key")
	p.until(`document.querySelector('.p-select:has(#key)').innerText.trim() === 'C'`)
	p.choose("key", "G")
	p.click(".ask button", "Neither")
	p.until(`document.querySelector('.p-select:has(#key)').innerText.trim() === 'C'`)
	p.write("#text", "| C7 | nonsense |")
	p.choose("key", "A♭")
	p.click(".ask button", "Move the chords")
	p.sees(".problems", "nonsense")
	p.until(`document.querySelector('.p-select:has(#key)').innerText.includes('A♭') && document.querySelector('.ask')`)
	p.click(".ask button", "They stay")
	p.write("#text", "| Ab7 | Db7 |")
	p.sees(".preview", "I7")

	p.visit("/bench/4") // in E♭
	p.sees(".meta", "E♭")
	p.visit("/lines")
	p.click("button", "New line")
	p.until(`document.querySelector('.p-select:has(#line-key)')?.innerText.includes('E♭')`)
	p.shut()
	p.visit("/bench/4")
	p.sees(".meta", "E♭")
}

func TestKeysAndTurnaroundsRewriteTheChart(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts/6")
	p.sees(".preview", "F7")
	p.choose("key", "F♯")
	p.click(".ask button", "Move the chords")
	p.sees(".preview", "C♯7")
	p.choose("turnaround", "Three")
	p.sees(".swap", "2 of 12 bars are others")
	p.sees(".swap li", "A♯m7")
	p.inBothLooks(".swap", "what a turnaround would change")
	p.click(".swap button", "Leave it")
	p.until(`!document.querySelector('.swap') && !document.querySelector('.preview').innerText.includes('A♯m7')`)
	p.choose("turnaround", "Three")
	p.click(".swap button", "Put it in")
	p.sees(".preview", "A♯m7")
	p.click("button", "undo turnaround")
	p.until(`!document.querySelector('.preview').innerText.includes('A♯m7')`)
	p.choose("turnaround", "Dominants in half steps")
	p.click(".swap button", "Put it in")
	p.sees(".preview", "A7")
	p.saved()
	p.click("button", "Play it")
	p.sees(".meta", "F♯")
	p.click(`[data-bar="12"] button`, "")
	p.sees(".crossing .now", "G♯7")
}

func TestDeletingCanBeUndone(t *testing.T) {
	p := sit(t, true)
	p.visit("/charts")
	p.click("button", "delete Low Water")
	p.until(`document.querySelectorAll('.charts li').length === 5`)
	p.click(".told button", "Undo")
	p.sees(".charts", "Low Water")
	p.write("input[aria-label='find a chart']", "pier")
	p.until(`document.querySelectorAll('.charts li').length === 1`)
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

func TestAddressesThatLeadNowhere(t *testing.T) {
	p := sit(t, true)
	for path, says := range map[string]string{
		"/bench/99": "there is no such chart", "/charts/99": "there is no such chart", "/nowhere/at/all": "leads nowhere",
		"/bench/6?own=20-40": "the nearest is", "/atlas/77": "there is no such chart",
	} {
		p.visit(path)
		p.sees("main", says)
	}
	p.visit("/bench/6?bar=99&frets=90-99&labels=colour")
	p.sees(".crossing .now", "C7")
}

func TestBlankNecksAreFilledAndChecked(t *testing.T) {
	p := sit(t, true)
	p.visit("/atlas/6?necks=blank")
	p.until(`document.querySelectorAll('.cell svg').length === 15`)
	p.click(`svg[aria-label^="C7, frets 7"] [data-cell="6:8"]`, "") // its root
	p.click(`svg[aria-label^="C7, frets 7"] [data-cell="5:9"]`, "") // nothing of C7
	p.do(chromedp.Focus(chromedp.CSS(`svg[aria-label^="F7, frets 7"]`)))
	p.keys(kb.ArrowRight, " ") // F7: string 6, fret 8, its fifth
	p.until(`document.querySelectorAll('[data-filled]').length === 3`)
	p.click("header button", "Check")
	p.sees(".score", "2 right, 1 wrong")
	p.until(`document.querySelectorAll('[data-missing]').length > 100 && document.querySelectorAll('.wrong').length === 1`)
	p.click("header button", "Go on filling")
	p.until(`document.querySelectorAll('[data-filled] .dot').length === 3`)
}
