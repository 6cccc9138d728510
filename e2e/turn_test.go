package e2e

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/e2e/studio"
)

// heardBefore puts a recording with settled notes beside the database: its sound, and a stretch of it in hand.
func (p *player) heardBefore(title string, strokes []studio.Stroke, rate int, from, to float64) (id int) {
	p.t.Helper()
	take := studio.Take{Rate: rate, Strokes: strokes, Sound: studio.Clean, Length: to + 2, Seed: 2}
	var notes []any
	for i, s := range strokes {
		notes = append(notes, map[string]any{"id": i + 1, "at": s.At, "length": s.Length, "pitch": int(s.MIDI), "sure": 1, "settled": true})
	}
	anchors := []any{map[string]any{"beat": 0, "at": 0.5}, map[string]any{"beat": 8, "at": 4.5}}
	return p.keptSound(title, studio.WAV(take.Render(), rate), map[string]any{"from": from, "to": to, "anchors": anchors, "notes": notes}, nil)
}

// In the gap behind a round the player answers into the microphone, one note a half step too high: what was played is set
// beside the record, and told.
func TestMyTurnIsSetBesideTheRecord(t *testing.T) {
	const rate = 44100
	phrase := func(at float64, pitches ...float64) (out []studio.Stroke) {
		for i, midi := range pitches {
			out = append(out, studio.Stroke{At: at + 0.5*float64(i), Length: 0.45, MIDI: midi, String: 2})
		}
		return out
	}
	// What the microphone hears: a mark by which the test finds its place, and five seconds later the answer.
	const answer = 9.0
	played := append([]studio.Stroke{{At: 2, Length: 0.2, MIDI: 40, String: 6}}, phrase(answer, 57, 60, 63, 65)...)
	mine := studio.Take{Rate: 48000, Strokes: played, Sound: studio.Clean, Seed: 3, Length: answer + 6}
	p := microphone(t, studio.WAV(mine.Render(), 48000))
	p.visit("/by-ear")
	id := p.heardBefore("Asked and answered", phrase(0.5, 57, 60, 62, 65), rate, 0.5, 2.5)
	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.until(`!document.querySelector('.heads button[disabled]')`)
	p.sees("main", "4 of 4 settled")
	// Once it has sounded nothing has to be loaded any more.
	p.click(".foot .play", "Play")
	p.until(`document.querySelector('.foot .time').innerText >= '0:00.7'`)
	p.click(".foot .play", "Stop")
	// The ear is turned on by asking for a turn.
	p.click(".foot button", "my turn")
	p.until(stores + `.get('ear').on`)
	eval[bool](p, `(`+stores+`.get('ear').kept.delay = 0, true)`)
	evalLater[bool](p, `new Promise(done => { const ear = `+stores+`.get('ear'), context = `+stores+`.get('sound').engine().context
		const stop = ear.tell(n => { const o = n.observations.find(o => o.kind === 'attack'); if (!o) return; stop()
			const late = context.currentTime - o.frame / context.sampleRate
			// The gap is to begin with the answer: the round before it lasts two seconds.
			setTimeout(() => { document.querySelector('.foot .play').click(); done(true) }, 1000 * (`+fmt.Sprint(answer-2)+` - late - 2 - 0.1)) }) })`)
	p.sees(".turn", "your turn")
	p.sees(".answered", "of 4 notes as on the record")
	says := eval[string](p, `document.querySelector('.answered').innerText`)
	t.Log(says)
	assert.Contains(t, says, "3 of 4 notes as on the record")
	assert.Contains(t, says, "Note 3 was a half step too high.")
	p.until(`document.querySelectorAll('.roll .mine').length === 4`)
	p.click(".foot .play", "Stop")
}

// A note is dragged to another half step and another moment, is settled by that, and one step back has it where it was.
func TestANoteByEarIsDragged(t *testing.T) {
	p := sit(t, false)
	p.visit("/by-ear")
	id := p.heardBefore("To be moved", []studio.Stroke{{At: 1, Length: 0.5, MIDI: 60, String: 3}, {At: 2, Length: 0.5, MIDI: 64, String: 3}}, 22050, 0.5, 4.5)
	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.until(`!document.querySelector('.heads button[disabled]') && document.querySelectorAll('.note').length === 2`)
	notes := fmt.Sprintf(`fetch('/api/recordings/%d').then(r => r.json()).then(r => r.hearing.notes.map(n => [n.at, n.pitch]))`, id)
	at := eval[[2]float64](p, `(() => { const b = document.querySelector('.note g').getBoundingClientRect(); return [b.x + b.width / 2, b.y + b.height / 2] })()`)
	wide := eval[float64](p, `document.querySelector('.roll .frame').getBoundingClientRect().width`)
	mouse := func(kind input.DispatchMouseEventType, x, y float64) {
		p.do(chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1)))
	}
	step := eval[float64](p, `(() => { const rows = [...document.querySelectorAll('.roll .black')].map(r => r.getBoundingClientRect().height); return rows[0] })()`)
	mouse("mousePressed", at[0], at[1])
	mouse("mouseMoved", at[0]+wide/16, at[1]-step)
	mouse("mouseMoved", at[0]+wide/8, at[1]-2*step)
	mouse("mouseReleased", at[0]+wide/8, at[1]-2*step)
	p.until(notes + `.then(l => l[0][1] === 62 && Math.abs(l[0][0] - 1.5) < 0.02)`)
	p.sees(".card", "settled")
	p.click("header .history button", "")
	p.until(notes + `.then(l => l[0][1] === 60 && Math.abs(l[0][0] - 1) < 0.001)`)
}

// What lasts longer than is held at once is taken in parts: which is asked, what is found lies where it is in the recording.
func TestALongRecordingIsTakenInParts(t *testing.T) {
	p := sit(t, false)
	const rate, minutes = 8000, 34
	sound := make([]float64, minutes*60*rate)
	// A click each half second in its second part.
	for beat := 0.0; beat < 18*60; beat += 0.5 {
		at := int((15*60 + 0.25 + beat) * rate)
		for k := range 200 {
			sound[at+k] = 0.6 * float64(1-2*(k/4%2)) * float64(200-k) / 200
		}
	}
	p.visit("/by-ear")
	id := p.keptSound("A whole evening", studio.WAV(sound, rate), nil, nil)
	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.sees(".parts", "This lasts 34:00. At most 20 minutes are taken in hand at once: which?")
	assert.Equal(t, []string{"0:00 to 20:00", "15:00 to 34:00"}, eval[[]string](p, `[...document.querySelectorAll('.parts button')].map(b => b.innerText.trim())`))
	p.inBothLooks("main", "parts of a recording")
	p.click(".parts button", "15:00")
	p.until(`document.querySelector('.parts button[aria-pressed=true]')?.innerText.includes('15:00')`)
	p.sees(".meta", "34:00")
	p.until(`/ (60|120) beats a minute · bar 1 at 15:0/.test(document.querySelector('.meta').innerText)`) // clicks that are all alike
	p.until(`fetch('/api/recordings/%d').then(r => r.json()).then(r => Math.abs(r.hearing.anchors[0]?.at - 900) < 2)`, id)
}

// BenchmarkTenMinutes opens a recording of ten minutes, both sides: when it is first drawn, when it sounds, when it is whole and
// read to its last second, what the page holds, how many frames are drawn while it plays, and how soon another speed is heard.
func BenchmarkTenMinutes(b *testing.B) {
	p := listen(b)
	const rate, seconds = 44100, 600
	var four []studio.Stroke
	for i := range 8 {
		four = append(four, studio.Stroke{At: 0.5 * float64(i), Length: 0.4, MIDI: 57 + float64(i), String: 1 + i%3})
	}
	bar := studio.Take{Rate: rate, Strokes: four, Sound: studio.Clean, Length: 4, Seed: 1}
	some := bar.Render()[:4*rate]
	var mono []float64
	for len(mono) < seconds*rate {
		mono = append(mono, some...)
	}
	p.keptSound("Ten minutes", studio.Sides(rate, mono, mono), nil, nil)
	p.visit("/by-ear")
	p.sees("li", "Ten minutes")
	eval[bool](p, `(() => { const t0 = window.t0 = performance.now(); window.took = {}
		const look = () => { const c = document.querySelector('.whole canvas')
			if (!took.drawn && c && c.width && [...c.getContext('2d').getImageData(0, 40, c.width, 1).data].some(v => v)) took.drawn = performance.now() - t0
			if (!took.whole && document.querySelector('.place .whole') && [...document.querySelectorAll('.hint')].every(h => !h.innerText.includes('is read'))) took.whole = performance.now() - t0
			if (!took.beats && document.querySelector('.meta')?.innerText.includes('beats')) took.beats = performance.now() - t0
			if (!took.beats) requestAnimationFrame(look) }
		document.querySelector('li a').click(); look(); return true })()`)
	p.click(".foot .play", "Play")
	p.until(`window.ear?.node && ear.take().then(() => ear.rms() > 0.003 && (took.sounds ??= performance.now() - t0))`)
	p.until(`took.whole`)
	evalLater[bool](p, `new Promise(done => { const look = () => took.beats || performance.now() - t0 > 90000 ? done(true) : setTimeout(look, 50); look() })`)
	took := eval[map[string]float64](p, `took`)
	for name, ms := range took {
		b.ReportMetric(ms, "ms-"+name)
	}
	b.ReportMetric(evalLater[float64](p, `new Promise(done => { let n = 0; const end = performance.now() + 3000; const look = () => { n++; performance.now() < end ? requestAnimationFrame(look) : done(n / 3) }; look() })`), "frames/s")
	b.ReportMetric(rendererMB(b), "MB")
	b.ReportMetric(0, "ns/op")
}

// BenchmarkAnotherSpeed is how long after the press another speed is heard: twenty clicks a second become ten.
func BenchmarkAnotherSpeed(b *testing.B) {
	p := listen(b)
	const rate = 44100
	clicks := make([]float64, 30*rate)
	for at := 0; at+400 < len(clicks); at += rate / 20 {
		for k := range 200 {
			clicks[at+k] = 0.6 * float64(1-2*(k/8%2)) * float64(200-k) / 200
		}
	}
	p.visit("/by-ear")
	id := p.recording("Clicks", studio.WAV(clicks, rate), 0.5, 20)
	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.until(`!document.querySelector('.heads button[disabled]')`)
	p.click(".foot .play", "Play")
	p.until(`window.ear?.node && document.querySelector('.foot .time').innerText >= '0:02.0'`)
	pressed := eval[float64](p, `(() => { const t = ear.context.currentTime; [...document.querySelectorAll('.foot button')].find(b => b.innerText.trim() === '½').click(); return t })()`)
	p.recorded(5)
	samples, heard := p.samples()
	start := eval[float64](p, `ear.record.start`) / heard
	hop := int(heard / 1000)
	var at []float64
	for i := 3 * hop; i+hop < len(samples); i += hop {
		if level(samples[i:i+hop]) > 0.03 && level(samples[i-3*hop:i-hop]) < 0.02 && (len(at) == 0 || float64(i)/heard-at[len(at)-1] > 0.03) {
			at = append(at, float64(i)/heard)
		}
	}
	for i := 1; i < len(at); i++ {
		if begins := start + at[i-1] - pressed; begins > -0.05 && at[i]-at[i-1] > 0.075 {
			b.ReportMetric(1000*max(0, begins), "ms")
			break
		}
	}
	b.ReportMetric(0, "ns/op")
}

// rendererMB is what the largest of the browser's pages holds, in megabytes.
func rendererMB(b *testing.B) (most float64) {
	list, err := filepath.Glob("/proc/[0-9]*/status")
	require.NoError(b, err)
	for _, path := range list {
		line, _ := os.ReadFile(filepath.Join(filepath.Dir(path), "cmdline"))
		status, _ := os.ReadFile(path)
		if !bytes.Contains(line, []byte("--type=renderer")) {
			continue
		}
		for text := range strings.Lines(string(status)) {
			var kb float64
			if n, _ := fmt.Sscanf(text, "VmRSS: %f kB", &kb); n == 1 {
				most = max(most, kb/1024)
			}
		}
	}
	return most
}
