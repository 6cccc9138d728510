package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A lick is changed where it stands: kept by itself, gone back through by name,
// shown at once in another tab, and not lost while it cannot be kept.
func TestALickIsChangedWhereItStands(t *testing.T) {
	p := sit(t, true)
	p.visit("/licks/40")
	p.until(`document.querySelector('.lick [data-note]')`)
	title := p.title("/api/licks/40")
	other := tab(t, p.base)
	other.visit("/licks/40")
	other.until(`document.querySelector('.lick [data-note]')`)

	p.write("input.name", "Capstan")
	p.saved()
	assert.Equal(t, "Capstan", p.title("/api/licks/40"))
	other.until(`document.querySelector('input.name').value === 'Capstan'`)

	p.click("button", "Change")
	before := eval[string](p, `document.querySelector('#lick-notes').value`)
	p.write("#lick-notes", "R/e b3/es 3/e huh")
	p.sees(".fields [role=alert]", "huh")
	p.until(`document.querySelector('header [role=status]').innerText.startsWith('not saved yet')`)
	p.write("#lick-notes", "R/e b3/es 3/e 5/q")
	p.until(`new Set([...document.querySelectorAll('.lick > .sheet [data-note]')].map(e => e.dataset.note)).size === 4`)
	p.saved()
	assert.Equal(t, "R/e b3/es 3/e 5/q", evalLater[string](p, `fetch('/api/licks/40').then(r => r.json()).then(l => l.text)`))
	p.click("button", "undo notes")
	p.until(`document.querySelector('#lick-notes').value === %q`, before)
	p.click("button", "undo title")
	p.until(`document.querySelector('input.name').value === %q`, title)
	p.saved()
	assert.Equal(t, title, p.title("/api/licks/40"))

	// What is to be kept does not get through; the page is loaded anew.
	p.write("#lick-tagged", "fog")
	p.keys(kb.Tab)
	p.saved()
	p.deaf(true)
	p.write("input.name", "Foghorn")
	p.until(`document.querySelector('header [role=status]').innerText.startsWith('not saved yet')`)
	p.do(chromedp.Reload())
	p.until(`document.querySelector('input.name')?.value === 'Foghorn'`)
	p.deaf(false)
	p.saved()
	assert.Equal(t, "Foghorn", p.title("/api/licks/40"))
}
