package e2e

import (
	"fmt"
	"sort"
	"strings"
	"testing"
)

// stepping presses the key to the next chord sixty times, and tells of each what the page
// worked until it could be painted, and when it was, in milliseconds.
const stepping = `new Promise(async done => {
	const frame = () => new Promise(requestAnimationFrame)
	const turn = () => new Promise(r => { const c = new MessageChannel(); c.port1.onmessage = r; c.port2.postMessage(0) })
	const shown = () => document.querySelector('[aria-current=true]')?.textContent
	const out = []
	for (let i = 0; i < 60; i++) {
		for (let rest = 0; rest < 5; rest++) { await frame(); await turn() }
		const was = shown(), start = performance.now()
		document.body.dispatchEvent(new KeyboardEvent('keydown', {key: 'ArrowRight', bubbles: true}))
		for (let n = 0; shown() === was && n < 3000; n++) await Promise.resolve()
		document.body.getBoundingClientRect()
		const laid = performance.now()
		await frame()
		await turn()
		out.push([laid - start, performance.now() - start])
	}
	done(out)
})`

// plainSteps is a page of 600 nodes of SVG, of which a key moves as many as a step on the
// Bench does: the tones, the arrivals and the palette of a chord.
const plainSteps = `(() => {
	document.body.innerHTML = '<b aria-current=true>0</b><svg viewBox="0 0 1200 800" width="1200" height="800">' +
		'<g><circle r="9" /><text>5</text></g>'.repeat(200) + '</svg>'
	const marks = [...document.querySelectorAll('g')], at = document.querySelector('b')
	let n = 0
	addEventListener('keydown', () => {
		at.textContent = ++n
		marks.slice(0, 60).forEach((g, i) => { g.setAttribute('transform', 'translate(' + (i * 37 + n * 61) % 1200 + ' ' + (i * 91 + n * 17) % 800 + ')'); g.lastChild.textContent = i + n })
	})
	return true
})()`

// BenchmarkStepBesidePlain steps through a twelve-bar on the Bench, and beside it through a plain
// page; medians in milliseconds.
func BenchmarkStepBesidePlain(b *testing.B) {
	p := sit(b, true)
	p.visit("/bench/6?frets=7-11")
	p.until(`document.querySelectorAll('[data-spot]').length > 5`)
	q := tab(b, p.base)
	q.visit("/charts")
	q.until(`document.querySelector('h1')`)
	eval[bool](q, plainSteps)
	times := map[string][]float64{}
	for b.Loop() {
		for name, page := range map[string]*player{"bench": p, "plain": q} {
			for _, step := range evalLater[[][2]float64](page, stepping) {
				times[name+"-work"], times[name+"-painted"] = append(times[name+"-work"], step[0]), append(times[name+"-painted"], step[1])
			}
		}
	}
	for name, all := range times {
		sort.Float64s(all)
		b.ReportMetric(all[len(all)/2], "ms-"+name)
	}
	b.ReportMetric(0, "ns/op")
}

// BenchmarkBarStep steps through a chart of 96 bars with two chords a bar. It
// reports, in milliseconds, the page's own work from the key press until the
// next frame can be painted (script, style and layout; a frame is 16.7), and the
// time until that frame has been painted, which waits for the screen.
func BenchmarkBarStep(b *testing.B) {
	p := sit(b, true)
	p.visit("/charts")
	text := strings.Repeat("| C7 A7 | Dm7 G7 | Em7 Eb7 | F7 F#dim7 ", 24) + "|"
	id := evalLater[int](p, `fetch('/api/charts', {method: 'POST', headers: {'content-type': 'application/json'}, body: JSON.stringify({title: 'Long', key: 'C', feel: 'jazz', tempo: 120, beats: 4, text: '`+text+`'})}).then(r => r.json()).then(c => c.id)`)
	p.visit(fmt.Sprintf("/bench/%d", id))
	p.until(`document.querySelectorAll('[data-bar]').length === 96`)
	var work, painted []float64
	for b.Loop() {
		for _, step := range evalLater[[][2]float64](p, stepping) {
			work, painted = append(work, step[0]), append(painted, step[1])
		}
	}
	for name, all := range map[string][]float64{"work": work, "painted": painted} {
		sort.Float64s(all)
		b.ReportMetric(all[len(all)/2], "ms-"+name+"-median")
		b.ReportMetric(all[len(all)*95/100], "ms-"+name+"-p95")
	}
}
