package e2e

import (
	"fmt"
	"os"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// listened is what is heard of a WAV: how long it is, how loud its loudest second and its end
// are, and how much of it lies at the limit.
type listened struct {
	Seconds, Loud, Tail, Peak float64
	Rate                      int
}

// hearing reckons it.
const hearing = `window.heard = async (wav) => {
	const view = new DataView(wav), rate = view.getUint32(24, true), all = new Int16Array(wav.slice(44))
	const level = (from, to) => { let sum = 0; for (let i = from; i < to; i++) sum += (all[i] / 32768) ** 2; return Math.sqrt(sum / Math.max(1, to - from)) }
	let loud = 0
	for (let i = 0; i < all.length; i += rate * 2) loud = Math.max(loud, level(i, Math.min(all.length, i + rate * 2)))
	let peak = 0
	for (const x of all) peak = Math.max(peak, Math.abs(x))
	return { rate, seconds: all.length / 2 / rate, loud, tail: level(all.length - rate * 0.1, all.length), peak: peak / 32768 }
}`

// The band is written into a file as it is set, with how far it is, and can be stopped.
func TestTheBandIsWrittenIntoAFile(t *testing.T) {
	p := sit(t, true)
	p.before(hearing + `
		window.saved = []
		const make = URL.createObjectURL
		URL.createObjectURL = (b) => (b.type === 'audio/wav' && saved.push(b), make.call(URL, b))`)
	p.visit("/bench/6")
	p.sees(".strip", "Slipway")
	p.click(".strip .more", "Band")
	p.write("#along-choruses", "1")
	p.keys("\t")
	p.inBothLooks("[role=dialog]", "the band's panel")
	p.click("[role=dialog] button", "Save as WAV")
	p.sees(".strip .writing", "as WAV")
	p.until(`saved.length === 1`)
	p.until(`!document.querySelector('.writing')`)
	heard := evalLater[listened](p, `saved[0].arrayBuffer().then(heard)`)
	const bars, tempo = 1 + 12 + 1, 96.0
	assert.InDelta(t, bars*4*60/tempo, heard.Seconds, 8.5, "a bar counted in, a chorus, the last chord and its end")
	assert.GreaterOrEqual(t, heard.Seconds, bars*4*60/tempo)
	assert.Equal(t, 44100, heard.Rate)
	assert.Greater(t, heard.Loud, 0.03)
	assert.Less(t, heard.Tail, 0.001)
	assert.InDelta(t, 0.97, heard.Peak, 0.01)

	p.write("#along-choruses", "32")
	p.keys("\t")
	p.click("[role=dialog] button", "Save as WAV")
	p.until(`document.querySelector('.writing progress')?.value > 0.01`)
	p.keys(kb.Escape)
	p.inBothLooks(".strip", "the strip while a file is written")
	p.click(".writing button", "Stop writing")
	p.until(`!document.querySelector('.writing')`)
	assert.Equal(t, 1, eval[int](p, `saved.length`))

	// A line, and asked for again while it is written; then the licks that are shown.
	p.visit("/lines/1")
	p.until(`document.querySelectorAll('.grid [data-note]').length > 10`)
	for range 2 {
		p.click("button", "Export and more")
		p.click("[role=menuitem]", "WAV, with the band")
		p.until(`document.querySelector('.writing progress')?.value > 0.01`)
	}
	p.until(`saved.length === 1 && !document.querySelector('.writing')`)
	heard = evalLater[listened](p, `saved[0].arrayBuffer().then(heard)`)
	assert.Greater(t, heard.Loud, 0.03)
	assert.Less(t, heard.Tail, 0.001)
	p.visit("/licks?tag=trill")
	p.until(`document.querySelectorAll('.card [data-note]').length > 2`)
	p.click("button", "Export")
	p.click("[role=menuitem]", "WAV, with the band")
	p.until(`saved.length === 1 && !document.querySelector('.writing')`)
	heard = evalLater[listened](p, `saved[0].arrayBuffer().then(heard)`)
	assert.Greater(t, heard.Loud, 0.03)
	assert.Less(t, heard.Tail, 0.001)
}

// Every fourth line and lick of the demo (EVERY=1: each) sounds by itself and ends in silence; so does a line over
// its band, in each feel that there is.
func TestEveryLineAndLickSoundsAndEnds(t *testing.T) {
	p := sit(t, true)
	p.before(hearing)
	p.visit("/licks")
	p.sees("h1", "Licks")
	const alone = "&without=drums&without=bass&without=chords"
	var urls []string
	step := 4
	if os.Getenv("EVERY") != "" {
		step = 1
	}
	for _, kind := range []string{"licks", "lines"} {
		all := evalLater[[]struct {
			ID   int
			Feel string
		}](p, fmt.Sprintf(`fetch('/api/%s?limit=1000').then(r => r.json()).then(l => (l.rows ?? l).map(x => ({id: x.id, feel: x.feel ?? ''})))`, kind))
		require.NotEmpty(t, all)
		feels := map[string]bool{}
		for i, one := range all {
			if kind == "licks" {
				if i%step == 0 {
					urls = append(urls, fmt.Sprintf("/api/licks/files/midi?id=%d&choruses=1&countIn=false", one.ID)+alone)
				}
				continue
			}
			url := fmt.Sprintf("/api/lines/%d/files/midi?choruses=1&ending=own", one.ID)
			if i%step == 0 {
				urls = append(urls, url+alone)
			}
			if !feels[one.Feel] {
				feels[one.Feel] = true
				urls = append(urls, url)
			}
		}
	}
	t.Log(len(urls), "files")
	require.Greater(t, len(urls), 60/step)
	for _, url := range urls {
		heard := evalLater[listened](p, fmt.Sprintf(`%s.get('writing').write({ title: 'x', load: () => fetch(%q).then(r => r.arrayBuffer()) }).then(heard)`, stores, url))
		assert.Greater(t, heard.Seconds, 1.5, url)
		assert.Greater(t, heard.Loud, 0.01, url)
		assert.Less(t, heard.Tail, 0.001, url)
	}
}
