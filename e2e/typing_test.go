package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/performance"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

// watchKeys notes for each key when it was painted, how long the page worked on
// it (its handlers with what they set off, then style, layout and painting; not
// the wait for the next frame between the two), and whether the figure was there.
const watchKeys = `(() => {
	window.keyed = []
	addEventListener('keydown', e => {
		if (!/^\d$/.test(e.key)) return
		const from = e.timeStamp, begun = performance.now()
		const next = then => { const { port1, port2 } = new MessageChannel(); port1.onmessage = then; port2.postMessage(0) }
		let handled = 0
		next(() => handled ||= performance.now() - begun)
		requestAnimationFrame(() => {
			const frame = performance.now()
			handled ||= frame - begun
			const there = !!document.querySelector('[data-fresh], .pen.open')
			next(() => keyed.push([performance.now() - from, handled + performance.now() - frame, there]))
		})
	}, true)
	return true
})()`

// plainPage is a page of as many nodes, to which a key adds a figure.
const plainPage = `(n => {
	document.body.innerHTML = '<svg viewBox="0 0 1200 800" style="width:100%">' + '<g><text x="10" y="20">5</text></g>'.repeat(n / 2) + '</svg>'
	const svg = document.querySelector('svg')
	addEventListener('keydown', () => {
		const t = document.createElementNS('http://www.w3.org/2000/svg', 'text')
		t.setAttribute('x', Math.random() * 1000); t.setAttribute('y', 100); t.textContent = '7'; t.dataset.fresh = ''
		svg.append(t)
	})
	return true
})`

func BenchmarkTyping(b *testing.B) {
	perKey := map[int]float64{}
	defer func() {
		if x := perKey[500] / perKey[50]; perKey[500] > 0 && x > 1.5 {
			b.Errorf("a key among 500 notes is %.1f times the work of one among 50; 1.5 at most", x)
		}
	}()
	for _, notes := range []int{50, 500} {
		b.Run(fmt.Sprint(notes), func(b *testing.B) {
			p := sit(b, true)
			p.visit("/charts")
			id := evalLater[int](p, fmt.Sprintf(`fetch('/api/lines', {method:'POST', headers:{'Content-Type':'application/json'}, body:JSON.stringify(
				{title:'Long', key:'C', feel:'straight', tempo:96, beats:4, text:'| C7 | F7 | C7 | %% |\n'.repeat(40), low:5, high:9,
				notes:[...Array(%d)].map((_, i) => ({start:i*480, length:480, string:3, fret:5 + i %% 4, note:''}))})}).then(r => r.json()).then(l => l.id)`, notes))
			p.visit(fmt.Sprintf("/lines/%d", id))
			p.until(`document.querySelectorAll('.grid .fret').length > 20`)
			time.Sleep(2 * time.Second)
			p.do(chromedp.Focus(`.grid`))
			eval[bool](p, watchKeys)
			nodes := eval[int](p, `document.querySelectorAll('*').length`)
			worksBefore := tasks(b, p)
			for i := range 60 {
				p.keys(fmt.Sprint(5+i%4), kb.ArrowRight)
				time.Sleep(40 * time.Millisecond)
			}
			p.until(`keyed.length === 60`)
			drawn := eval[[]float64](p, `keyed.map(k => k[0]).sort((a, b) => a - b)`)
			worked := eval[[]float64](p, `keyed.map(k => k[1]).sort((a, b) => a - b)`)
			perKey[notes] = (tasks(b, p) - worksBefore) * 1000 / 60
			b.ReportMetric(perKey[notes], "ms-tasks-a-key")
			shown := eval[int](p, `keyed.filter(k => k[2]).length`)
			p.saved()
			b.ReportMetric(float64(shown), "shown-of-60")

			q := tab(b, p.base)
			q.visit("/charts")
			q.until(`document.querySelector('h1')`)
			eval[bool](q, plainPage+fmt.Sprintf(`(%d)`, nodes))
			eval[bool](q, watchKeys)
			for range 60 {
				q.keys("7")
				time.Sleep(40 * time.Millisecond)
			}
			q.until(`keyed.length === 60`)
			plain := eval[[]float64](q, `keyed.map(k => k[0]).sort((a, b) => a - b)`)
			require.Len(b, plain, 60)
			b.ReportMetric(float64(nodes), "nodes")
			b.ReportMetric(drawn[30], "ms-drawn-median")
			b.ReportMetric(drawn[59], "ms-drawn-worst")
			b.ReportMetric(worked[30], "ms-worked-median")
			b.ReportMetric(worked[59], "ms-worked-worst")
			b.ReportMetric(plain[30], "ms-plain-median")
			b.ReportMetric(plain[59], "ms-plain-worst")
			b.ReportMetric(0, "ns/op")
		})
	}
}

// BenchmarkPlaying measures how busy the page is while the band plays: its tasks
// in per cent of the time, on the Bench and on a line, and what is hung anew.
func BenchmarkPlaying(b *testing.B) {
	p := listen(b)
	busy := map[string]float64{}
	for name, path := range map[string]string{"bench": "/bench/6", "line": "/lines"} {
		p.visit(path)
		if name == "line" {
			p.click(".lines a", "Slipway, first chorus")
			p.lineID()
		}
		p.until(`document.querySelector('.strip .play')`)
		p.click(".strip .play", "Play")
		p.until(`window.ear?.node`)
		time.Sleep(3 * time.Second)
		eval[bool](p, `(() => { window.hung = 0; new MutationObserver(all => all.forEach(m => hung += [...m.addedNodes].filter(n => n.querySelector?.('svg')).length)).observe(document.querySelector('main'), {childList: true, subtree: true}); return true })()`)
		before := tasks(b, p)
		time.Sleep(10 * time.Second)
		busy[name] = 10 * (tasks(b, p) - before)
		b.ReportMetric(busy[name], "%busy-"+name)
		b.ReportMetric(eval[float64](p, `hung`), "hung-"+name)
		p.click(".strip .play", "Stop")
	}
	if x := busy["line"] / busy["bench"]; x > 1.5 {
		b.Errorf("a line that plays is %.1f times the work of the Bench; 1.5 at most", x)
	}
	b.ReportMetric(0, "ns/op")
}

// tasks is how long a page was at work so far, in seconds.
func tasks(b *testing.B, p *player) float64 {
	_, err := chromedp.Call(p.ctx, performance.Enable, performance.EnableParams{})
	require.NoError(b, err)
	m, err := chromedp.Call(p.ctx, performance.GetMetrics, cdp.Empty{})
	require.NoError(b, err)
	for _, x := range m.Metrics {
		if x.Name == "TaskDuration" {
			return x.Value
		}
	}
	return 0
}
