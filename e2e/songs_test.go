package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Bars of another length: counted on the strip, as long on the wave as they last, looped and
// gone to where they are, written as such on paper.
func TestBarsOfAnotherLength(t *testing.T) {
	p := listen(t)
	p.visit("/")
	made := evalLater[int](p, `fetch('/api/charts', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({title: 'Bollard Lane', key: 'C', feel: 'shuffle', tempo: 240, beats: 4,
		text: '| no pickup 1/4 G7 | 4/4 C7 | 2/4 F7 | 4/4 C7 A7 | 3/4 D7 |'})}).then(r => r.json()).then(c => c.id)`)
	p.visit(fmt.Sprintf("/bench/%d?loop=3-4", made))
	p.sees("h1", "Bollard Lane")
	p.sees(".sheet [data-bar='3'] .number", "2/4 3")
	p.until(`document.querySelector('.strip .loop input')?.value === '3-4'`)
	p.play()
	seen := evalLater[[]string](p, `(async () => {
		const seen = new Set()
		for (let i = 0; i < 400 && seen.size < 6; i++) {
			await new Promise(requestAnimationFrame)
			const on = document.querySelector('.sheet .bar.on')
			const where = document.querySelector('.strip .where b')?.innerText
			if (on && where === 'bar ' + on.dataset.bar) seen.add(on.dataset.bar + ': ' + document.querySelectorAll('.strip .where .beats i').length + ' beats, ' + document.querySelector('.strip .beats').dataset.beat)
		}
		return [...seen].sort()
	})()`)
	assert.Equal(t, []string{"3: 2 beats, 1", "3: 2 beats, 2", "4: 4 beats, 1", "4: 4 beats, 2", "4: 4 beats, 3", "4: 4 beats, 4"}, seen)
	p.click(".play", "Stop")
	p.visit(fmt.Sprintf("/paper/%d?of=thread", made))
	p.until(`document.querySelectorAll('[data-note]').length > 4`)
	assert.Equal(t, 5, eval[int](p, `document.querySelectorAll('[class*="timesignature" i]').length`), "a time at each change")
}
