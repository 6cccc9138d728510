package e2e

import (
	"fmt"
	"sort"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// typed watches keys: of each how long until the page could paint what it did, and how long
// until the transaction that puts it by was complete, in milliseconds.
const typed = `(() => {
	window.drawn = []; window.sure = []
	let at = 0
	addEventListener('keydown', e => { if (!/^\d$/.test(e.key)) return; const start = at = performance.now()
		requestAnimationFrame(() => { const c = new MessageChannel(); c.port1.onmessage = () => drawn.push(performance.now() - start); c.port2.postMessage(0) }) }, true)
	const open = IDBDatabase.prototype.transaction
	IDBDatabase.prototype.transaction = function (stores, ...how) {
		const tx = open.call(this, stores, ...how), start = at
		if (start && [].concat(stores).includes('steps')) { at = 0; tx.addEventListener('complete', () => sure.push(performance.now() - start)) }
		return tx
	}
	return true
})()`

// BenchmarkTyped types frets at twenty keys a second into an empty line.
func BenchmarkTyped(b *testing.B) {
	p := sit(b, true)
	for b.Loop() {
		drawn, sure := p.typeFrets(b, 200)
		b.ReportMetric(at(drawn, 0.5), "ms-drawn-p50")
		b.ReportMetric(at(sure, 0.5), "ms-sure-p50")
		b.ReportMetric(at(sure, 0.99), "ms-sure-p99")
	}
	b.ReportMetric(0, "ns/op")
}

func at(all []float64, share float64) float64 {
	if len(all) == 0 {
		return -1
	}
	sort.Float64s(all)
	return all[min(len(all)-1, int(share*float64(len(all))))]
}

func (p *player) typeFrets(b testing.TB, n int) (drawn, sure []float64) {
	p.visit("/lines")
	p.blank()
	eval[bool](p, typed)
	p.do(chromedp.Focus(chromedp.CSS(".grid")))
	for i := range n {
		p.do(chromedp.KeyEvent(fmt.Sprint(1 + i%9)))
		p.do(chromedp.KeyEvent("ArrowRight"))
		time.Sleep(25 * time.Millisecond)
	}
	time.Sleep(time.Second)
	return eval[[]float64](p, `window.drawn`), eval[[]float64](p, `window.sure`)
}
