package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
)

// Regions of every kind are tried in regions.page.test.ts; here whether what stands in one can be used by everyone: the one
// that is furthest from the common ones.
func TestARegionCanBeUsedByEveryone(t *testing.T) {
	p := sit(t, true)
	p.do(chromedp.EmulateViewport(1280, 1800))
	p.visit("/charts")
	const tuning = `"tuning": "B1,D2,A2,D3,G3,B3,E4", "frets": 24, "capo": 2`
	const frame = `"title": "Region", "key": "A", "feel": "shuffle", "tempo": 96, "beats": 4, "text": "| A7 | D7 | A7 | E7 |"`
	ids := evalLater[[]int](p, `(async () => {
		const send = (path, method, body) => fetch(path, {method, headers: {'Content-Type': 'application/json', 'If-Match': '*'}, body}).then(r => r.json())
		await send('/api/player', 'PUT', '{`+tuning+`, "scale": 660, "left": true, "comfort": 110, "habit": "stay"}')
		const chart = await send('/api/charts', 'POST', '{`+frame+`}')
		const line = await send('/api/lines', 'POST', '{`+frame+`, `+tuning+`, "low": 5, "high": 10, "palette": "minor-pentatonic", "notes": []}')
		return [chart.id, line.id] })()`)
	for _, place := range []struct{ path, ready string }{
		{fmt.Sprintf("/bench/%d?own=5-10", ids[0]), ".thread .about"},
		{fmt.Sprintf("/atlas/%d?own=5-10", ids[0]), ".cell svg g"},
		{fmt.Sprintf("/lines/%d?panel=drill", ids[1]), "#drill"},
	} {
		p.visit(place.path)
		p.until(`document.querySelector(%q)`, place.ready)
		p.inBothLooks("main", place.path)
	}
	p.click(".work-panel button", "Lay it over the chords")
	p.until(`document.querySelectorAll('.grid [data-note]').length > 10`)
	p.inBothLooks("main", "an exercise")
}
