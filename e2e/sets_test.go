package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
)

// An evening's list is made, put in order, kept, and played through: when a chart has had its
// times and its last chord, the band counts in the next.
func TestASetIsPlayedThrough(t *testing.T) {
	p := listen(t)
	p.visit("/charts")
	p.sees("h1", "Charts")
	for _, title := range []string{"Short Pier", "Short Quay"} {
		evalLater[int](p, fmt.Sprintf(`fetch('/api/charts', {method: 'POST', headers: {'content-type': 'application/json'},
			body: JSON.stringify({title: %q, key: 'C', feel: 'straight', tempo: 240, beats: 4, text: '| C7 | F7 |'})}).then(r => r.status)`, title))
	}
	p.click("header a", "Sets")
	p.click(".p-button", "Make a set")
	p.until(`/^\/sets\/\d+$/.test(location.pathname)`)
	p.choose("set-add", "Short Quay")
	p.choose("set-add", "Short Pier")
	p.until(`document.querySelectorAll('.set li').length === 2`)
	p.click(".set li:nth-child(2) .does button", "earlier")
	p.until(`document.querySelector('.set li a').innerText === 'Short Pier'`)
	for i := 1; i <= 2; i++ {
		p.write(fmt.Sprintf(".set li:nth-child(%d) .times input", i), "1")
	}
	p.saved()
	p.inBothLooks(".set", "a set")
	p.click("header button", "Play it through")
	p.until(`document.querySelector('.set li.on')?.innerText.includes('Short Pier')`)
	p.until(`document.querySelector('.set section h2')?.innerText.includes('time 1 of 1')`)
	p.until(`document.querySelector('.set li.on')?.innerText.includes('Short Quay')`)
	p.until(`document.querySelector('.set section h2')?.innerText.includes('Short Quay')`)
	p.until(`!document.querySelector('.set li.on') && !document.querySelector('.play.on')`)
	p.click(".set li:nth-child(1) .does button", "take it out")
	p.saved()
	kept := evalLater[string](p, `fetch('/api' + location.pathname).then(r => r.json()).then(s => s.items.map(i => i.choruses).join())`)
	assert.Equal(t, "1", kept)
	p.visit("/sets")
	p.sees(".shelf li", "1 chart")
}
