package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
)

// The Bench with its thread, the Atlas, a line and an exercise in regions of every kind; what stands
// there can be used by everyone, tried in the region that is furthest from the common one: strings apart, three notes a string, eight frets, seven strings left-handed, a
// bass on two of its strings.
func TestEveryPlaceInEveryRegion(t *testing.T) {
	for name, c := range map[string]struct {
		tuning, left  string
		frets, scale  int
		key, text     string
		low, high     int
		strings, mine string // as they are written, and a test of a string
		capo          int
	}{
		"strings 5 and 2":                               {"E2,A2,D3,G3,B3,E4", "false", 22, 648, "C", "| C7 | F7 | C7 | G7 |", 0, 12, "5,2", "s === 5 || s === 2", 0},
		"three notes a string in B♭":                    {"E2,A2,D3,G3,B3,E4", "false", 22, 648, "Bb", "| Bb7 | Eb7 | Bb7 | F7 |", 5, 10, "", "s >= 1 && s <= 6", 0},
		"frets 5 to 12":                                 {"E2,A2,D3,G3,B3,E4", "false", 22, 648, "A", "| A7 | D7 | A7 | E7 |", 5, 12, "", "s >= 1 && s <= 6", 0},
		"a left-handed seven-string":                    {"B1,E2,A2,D3,G3,B3,E4", "true", 24, 660, "E", "| E7 | A7 | E7 | B7 |", 4, 9, "7,6,5,4", "s >= 4 && s <= 7", 0},
		"a left-handed drop-D seven-string with a capo": {"B1,D2,A2,D3,G3,B3,E4", "true", 24, 660, "A", "| A7 | D7 | A7 | E7 |", 5, 10, "", "s >= 1 && s <= 7", 2},
		"a bass on strings 3 and 4":                     {"E1,A1,D2,G2", "false", 20, 864, "G", "| G7 | C7 | G7 | D7 |", 2, 9, "4,3", "s === 3 || s === 4", 0},
	} {
		t.Run(name, func(t *testing.T) {
			p := sit(t, true)
			p.do(chromedp.EmulateViewport(1280, 1800))
			p.visit("/charts")
			ids := evalLater[[]int](p, fmt.Sprintf(`(async () => {
				const json = {'Content-Type': 'application/json', 'If-Match': '*'}
				const send = (path, method, body) => fetch(path, {method, headers: json, body: JSON.stringify(body)}).then(r => r.json())
				await send('/api/player', 'PUT', {tuning: %q, frets: %d, scale: %d, capo: %d, left: %s, comfort: 110, habit: 'stay'})
				const chart = await send('/api/charts', 'POST', {title: 'Region', key: %q, feel: 'shuffle', tempo: 96, beats: 4, text: %q})
				const line = await send('/api/lines', 'POST', {title: 'Region', key: %q, feel: 'shuffle', tempo: 96, beats: 4, text: %q, low: %d, high: %d, strings: %q, tuning: %q, frets: %d, capo: %d, palette: 'minor-pentatonic', notes: []})
				return [chart.id, line.id] })()`,
				c.tuning, c.frets, c.scale, c.capo, c.left, c.key, c.text, c.key, c.text, c.low, c.high, c.strings, c.tuning, c.frets, c.capo))
			own := fmt.Sprintf("own=%d-%d&on=%s", c.low, c.high, c.strings)
			usable := func(what string) {
				if c.capo > 0 {
					p.inBothLooks("main", what+": "+name)
				}
			}
			mine := fmt.Sprintf(`[...document.querySelectorAll('[data-spot]')].every(e => { const [s, f] = e.dataset.spot.split(':').map(Number); return (%s) && f >= %d && f <= %d })`, c.mine, c.low, c.high)

			p.visit(fmt.Sprintf("/bench/%d?%s", ids[0], own))
			p.until(`document.querySelectorAll('[data-spot]').length >= 3 && ` + mine)
			p.sees(".thread .about", "half steps")
			p.click(".thread button", "List")
			p.until(fmt.Sprintf(`[...document.querySelectorAll('[role=dialog] tbody tr')].length === 4 && [...document.querySelectorAll('[role=dialog] tbody td:nth-child(3)')].every(e => { const [s, f] = e.innerText.split(':').map(Number); return (%s) && f >= %d && f <= %d })`, c.mine, c.low, c.high))
			p.shut()
			usable("the Bench")

			p.visit(fmt.Sprintf("/atlas/%d?%s", ids[0], own))
			p.until(`document.querySelectorAll('.cell svg').length === 3 && document.querySelectorAll('.cell svg g').length >= 9`)
			usable("the Atlas")

			p.visit(fmt.Sprintf("/lines/%d", ids[1]))
			kept := func(more string) string {
				return fmt.Sprintf(`fetch('/api/lines/%d').then(r => r.json()).then(l => l.notes.length > 3 && l.notes.every(n => { const s = n.string; return (%s) })%s)`, ids[1], c.mine, more)
			}
			p.click("[role=tab]", "Write")
			p.choose("wish-word", "box blues")
			p.click(".work-panel button", "Write")
			p.until(kept(""))
			usable("a line")
			p.click("[role=tab]", "Exercise")
			p.click(".work-panel button", "Lay it over the chords")
			p.until(kept(` && l.exercise === 'run'`))
			usable("an exercise")
		})
	}
}
