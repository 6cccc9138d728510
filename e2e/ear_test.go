package e2e

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/e2e/studio"
)

// microphone starts a browser that hears a recording; without one it has no
// microphone at all.
func microphone(t testing.TB, wav []byte, more ...chromedp.ExecAllocatorOption) *player {
	how := append(more, chromedp.Flag("autoplay-policy", "no-user-gesture-required"))
	if wav != nil {
		path := filepath.Join(t.TempDir(), "microphone.wav")
		require.NoError(t, os.WriteFile(path, wav, 0o600))
		how = append(how, chromedp.Flag("use-fake-device-for-media-stream", true), chromedp.Flag("use-fake-ui-for-media-stream", true),
			chromedp.Flag("use-file-for-fake-audio-capture", path+"%noloop"))
	}
	alloc, stop := chromedp.NewExecAllocator(context.Background(), flags(how...)...)
	t.Cleanup(stop)
	own, cancel := chromedp.NewContext(alloc)
	t.Cleanup(cancel)
	require.NoError(t, chromedp.Do(own))
	return sitIn(t, own, true)
}

// stores are those of the page.
const stores = `document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s`

const (
	marker = 2.0 // seconds into a recording: one note to find the time by
	begins = 5.0 // and where the first bar is played
)

// recording renders strokes that begin at a bar of a line.
func recording(strokes []studio.Stroke, take studio.Take) []byte {
	take.Rate = 48000
	take.Strokes = append([]studio.Stroke{{At: marker, Length: 0.3, MIDI: 64, String: 1}}, strokes...)
	for _, s := range strokes {
		take.Length = max(take.Length, s.At+s.Length+3)
	}
	return studio.WAV(take.Render(), take.Rate)
}

// hears turns the ear on and waits for the marker; what is played then lies behind
// the band by what the page is told.
func (p *player) hears() {
	p.click("header button", "The ear")
	p.click(".p-dialog button", "Listen")
	p.until(stores + `.get('ear').on`)
	evalLater[bool](p, `new Promise(done => { const ear = `+stores+`.get('ear'); const stop = ear.tell(n => { for (const o of n.observations) if (o.kind === 'attack') { window.marked = o.frame; stop(); done(true) } }) })`)
	p.click(".p-dialog .p-dialog-close-button", "")
}

// inTime sets the delay to what it is: from where the band's first bar is to where
// the recording's is.
func (p *player) inTime() {
	evalLater[bool](p, `new Promise(done => { const ear = `+stores+`.get('ear'), band = `+stores+`.get('band')
		const look = () => { const at = band.at(marked); const later = band.at(marked + 48000 * 60)
			if (!later) return requestAnimationFrame(look)
			const perTick = band.rate() * 60 / band.tempo / 960
			const zero = marked + 48000 * 60 - later.tick * perTick
			ear.kept.delay = (marked + `+fmt.Sprint(begins-marker)+` * band.rate() - zero) / band.rate()
			done(true) }
		look() })`)
	p.t.Logf("delay %.3f s", eval[float64](p, stores+`.get('ear').kept.delay`))
}

func TestALineIsHeardThroughTheMicrophone(t *testing.T) {
	scratch := sit(t, true)
	scratch.visit("/lines")
	notes := evalLater[[]struct{ Start, Length, String, Midi int }](scratch, `fetch('/api/lines').then(r => r.json()).then(async l => { const id = l.find(x => x.title.startsWith('Slipway, first')).id
		const line = await fetch('/api/lines/' + id).then(r => r.json())
		const study = await fetch('/api/lines/study', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify(Object.fromEntries(Object.entries(line).filter(([k]) => !['id', 'version', 'bars', 'updated'].includes(k))))}).then(r => r.json())
		return study.score.notes.map(n => ({start: n.start, length: n.length, string: n.string, midi: n.midi})) })`)
	require.NotEmpty(t, notes)
	const tempo = 96.0
	var strokes []studio.Stroke
	for i, n := range notes {
		at := begins + float64(n.Start)/960*60/tempo
		midi := float64(n.Midi)
		if i == 3 {
			midi++ // one wrong note
		}
		strokes = append(strokes, studio.Stroke{At: at, Length: float64(n.Length) / 960 * 60 / tempo, MIDI: midi, String: n.String})
	}
	p := microphone(t, recording(strokes, studio.Take{Sound: studio.Clean, Seed: 3, Tempo: tempo}))
	p.visit("/lines")
	p.click(".lines a", "Slipway, first chorus")
	p.lineID()
	p.hears()
	p.do(chromedp.Focus(".grid"))
	p.click(".strip .play", "Play")
	p.until(stores + `.get('band').playing`)
	p.inTime()
	p.until(`document.querySelectorAll('[data-verdict=landed]').length > 2`)
	time.Sleep(3 * time.Second)
	var png []byte
	png, _ = chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	os.WriteFile("/tmp/live.png", png, 0o644)
	time.Sleep(22 * time.Second)
	p.until(`document.querySelector('.take')`)
	t.Log(eval[string](p, `document.querySelector('.take').innerText`))
	png, _ = chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	os.WriteFile("/tmp/taken.png", png, 0o644)
	assert.Equal(t, 1, eval[int](p, `document.querySelectorAll('[data-verdict=missed]').length`))
	_ = png
}
