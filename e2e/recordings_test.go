package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"math"
	"net/http"
	"slices"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/e2e/studio"
)

// recording puts a sound beside the database, with a stretch in hand, and tells its number.
func (p *player) recording(title string, wav []byte, from, to float64) (id int) {
	p.t.Helper()
	return p.keptSound(title, wav, map[string]any{"from": from, "to": to, "anchors": []any{map[string]any{"beat": 0, "at": 0.5}, map[string]any{"beat": 8, "at": 4.5}}}, nil)
}

// keptSound puts a sound beside the database, with what is known of it, and tells its number.
func (p *player) keptSound(title string, wav []byte, known, more map[string]any) (id int) {
	p.t.Helper()
	hearing := map[string]any{"cents": 0, "beats": 4, "anchors": []any{}, "first": 0, "feel": "", "chords": "", "markers": []any{}, "from": 0, "to": 0, "low": 0, "high": 0, "notes": []any{}}
	maps.Copy(hearing, known)
	body := map[string]any{"title": title, "seconds": 0, "hearing": hearing}
	maps.Copy(body, more)
	id = p.post("/api/recordings", body)
	req, _ := http.NewRequest("PUT", fmt.Sprintf("%s/api/recordings/%d/file", p.base, id), bytes.NewReader(wav))
	req.Header.Set("Content-Type", "audio/wav")
	kept, err := http.DefaultClient.Do(req)
	require.NoError(p.t, err)
	kept.Body.Close()
	require.Equal(p.t, 200, kept.StatusCode)
	return id
}

// post sends a body and tells the number of what was made of it.
func (p *player) post(path string, body any) (id int) {
	p.t.Helper()
	sent, err := json.Marshal(body)
	require.NoError(p.t, err)
	resp, err := http.Post(p.base+path, "application/json", bytes.NewReader(sent))
	require.NoError(p.t, err)
	defer resp.Body.Close()
	said, _ := io.ReadAll(resp.Body)
	var made struct{ ID int }
	require.NoError(p.t, json.Unmarshal(said, &made), string(said))
	return made.ID
}

// From a heard phrase to a lick over other chords: the band's tape is rendered when it is first opened, its beat and its
// tuning are found, two bars go round at half speed, they are heard, two notes are put right, and what came of it is a lick
// that leads back to where it was heard. The presses are counted.
func TestALickOffARecording(t *testing.T) {
	p := sit(t, true)
	p.visit("/by-ear")
	presses := 0
	click := func(css, text string) { presses++; p.click(css, text) }
	keys := func(list ...string) { presses += len(list); p.keys(list...) }
	click("a", "Ferry Slip Players")
	p.sees(".meta", "94 beats a minute")
	p.sees(".meta", "bar 1 at 0:00.4")
	p.until(`document.querySelector('.meta').innerText.match(/−(2[5-9]|3[0-5]) cents/)`)
	p.sees(".roll", "bar 2")
	p.until(`[...document.querySelectorAll('.roll .chord')].map(c => c.textContent.trim()).join() === 'C7?,F7?'`)
	click(".foot button", "½")
	click(".foot .play", "Play")
	p.until(`document.querySelector('.big').innerText === '47'`)
	p.until(`document.querySelector('.foot .time').innerText > '0:01.0'`)
	click(".heads button", "Hear it")
	p.until(`document.querySelectorAll('.note').length > 5`)
	// The first notes of the line that the band's guitar plays.
	told := `[...document.querySelectorAll('.note')].map(n => n.getAttribute('aria-label'))`
	p.until(told + `.filter(t => / over /.test(t)).length > 5`)
	first := eval[[]string](p, told)
	for _, want := range []string{"E", "F♯", "G", "B♭"} {
		assert.True(t, slices.ContainsFunc(first, func(s string) bool { return len(s) > len(want) && s[:len(want)] == want }), "%s in %v", want, first)
	}
	keys(".", kb.Enter)
	p.until(`document.querySelector('header b').innerText.startsWith('1 of')`)
	keys(kb.ArrowUp) // another pitch settles it, too
	p.until(`document.querySelector('header b').innerText.startsWith('2 of')`)
	keys(kb.ArrowDown)
	click(".heads button", "sure")
	p.until(`Number(document.querySelector('header b').innerText.split(' ')[0]) > 3`)
	click(".foot .play", "Stop")
	p.until(`document.querySelector('.foot .play').innerText.includes('Play')`)
	p.inBothLooks("main", "a recording")
	p.do(chromedp.EmulateViewport(390, 844))
	p.until(`document.documentElement.scrollWidth <= innerWidth`)
	p.do(chromedp.EmulateViewport(1280, 800))
	click("header button", "Make a lick")
	p.write("#lick-title", "Off the tape")
	click("[role=dialog] button", "Keep")
	p.until(`location.pathname.startsWith('/licks/')`)
	p.sees(".beside", "hear it on the record")
	p.sees(".beside", "Ferry Slip Players, third take, 0:00.4 to")
	t.Logf("%d presses from the shelf to the lick", presses)
	assert.LessOrEqual(t, presses, 14)
	// Through the changes of another chart.
	p.click("header button", "Through the changes")
	p.click("[role=dialog] button", "Begin")
	p.until(`location.pathname.startsWith('/lines/')`)
	p.click("button", "Export and more")
	p.click("[role=menuitem]", "simulated player")
	p.sees(".take", "Try:")
	p.visit("/licks")
	p.click("a", "Off the tape")
	p.click(".record", "hear it on the record")
	p.until(`document.querySelector('input.name')?.value.startsWith('Ferry Slip Players')`)
	p.until(`document.querySelector('.foot .play')?.innerText.includes('Stop')`)
}

// A file is opened by its chooser, its name is its title; what is no sound is said to be none, and the rest works.
func TestAFileIsOpenedByEar(t *testing.T) {
	p := sit(t, false)
	p.visit("/by-ear")
	p.sees("main", "No recordings yet")
	p.inBothLooks("main", "no recordings")
	drop := func(name, kind, bytes string) {
		p.until(`(() => {
			const t = window.dropped = new DataTransfer()
			t.items.add(new File([new Uint8Array(%s)], %q, {type: %q}))
			window.dispatchEvent(new DragEvent('dragover', {dataTransfer: t, bubbles: true, cancelable: true}))
			return !!document.querySelector('.over')
		})()`, bytes, name, kind)
		eval[bool](p, `(window.dispatchEvent(new DragEvent('drop', {dataTransfer: window.dropped, bubbles: true, cancelable: true})), true)`)
	}
	drop("no_sound-at all.mp3", "audio/mpeg", "[1,2,3,4,5,6,7,8,9]")
	p.until(`location.pathname === '/by-ear/1'`)
	p.until(`document.querySelector('input.name')?.value === 'no sound-at all'`)
	p.sees("[role=alert]", "This file cannot be heard")
	p.click("nav a", "By ear")
	p.sees("li", "no sound-at all")
	drop("empty.wav", "audio/wav", "[]")
	p.sees("body", "This file is empty")
	wav, _ := json.Marshal(ints(studio.WAV(tone(1, 16000), 16000)))
	drop("A tone.wav", "", string(wav))
	p.until(`location.pathname === '/by-ear/2'`)
	p.sees(".meta", "0:01")
	p.click("header, .p-toast, nav a", "By ear")
}

func ints(b []byte) []int {
	out := make([]int, len(b))
	for i, x := range b {
		out[i] = int(x)
	}
	return out
}

func tone(seconds float64, rate int) []float64 {
	out := make([]float64, int(seconds*float64(rate)))
	for i := range out {
		out[i] = 0.3 * math.Sin(2*math.Pi*330*float64(i)/float64(rate))
	}
	return out
}

// Half as quick a phrase has its pitches within 15 cents and its strokes within 20 ms of where they would be; where a loop comes
// round a tone goes on without a click.
func TestARecordingIsSlowed(t *testing.T) {
	p := listen(t)
	const rate = 44100
	var strokes []studio.Stroke
	pitches := []float64{57, 60, 64, 67, 62, 65, 69, 55}
	for i, midi := range pitches {
		strokes = append(strokes, studio.Stroke{At: 0.5 + 0.5*float64(i), Length: 0.42, MIDI: midi, String: 1 + i%3})
	}
	take := studio.Take{Rate: rate, Strokes: strokes, Sound: studio.Clean, Length: 5.5, Seed: 1}
	id := p.recording("Phrase", studio.WAV(take.Render(), rate), 0.5, 4.5)
	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.sees(".meta", "0:0")
	p.until(`!document.querySelector('.heads button[disabled]')`)
	p.click(".foot button", "½")
	p.click(".foot .play", "Play")
	p.until(`window.ear?.node && document.querySelector('.foot .time').innerText >= '0:00.6'`)
	p.recorded(9)
	samples, heard := p.samples()
	begins := onsetsIn(samples, heard)
	require.GreaterOrEqual(t, len(begins), 7)
	// Where in a second the strokes fall: where most of them do.
	phase, most := 0.0, 0
	for _, at := range begins {
		same := 0
		for _, other := range begins {
			if math.Abs(math.Mod(other-at+10.5, 1)-0.5) < 0.03 {
				same++
			}
		}
		if same > most {
			phase, most = math.Mod(at, 1), same
		}
	}
	var apart, cents []float64
	// Each stroke is where what is sharp in the sound rises most, about where it is to be.
	var at []float64
	for k := range 8 {
		at = append(at, sharpest(samples, heard, phase+float64(k)-0.25, phase+float64(k)+0.25)-float64(k))
	}
	middle := slices.Sorted(slices.Values(at))[4]
	for _, x := range at {
		apart = append(apart, 1000*math.Abs(x-middle))
	}
	// From where on in the phrase the record begins is known by the first pitch that is heard.
	for _, at := range begins[:min(len(begins), 8)] {
		midi := pitchAt(samples, heard, at+0.15, at+0.6)
		near := math.Inf(1)
		for _, want := range pitches {
			if math.Abs(midi-want) < math.Abs(near) {
				near = midi - want
			}
		}
		cents = append(cents, math.Abs(near)*100)
	}
	slices.Sort(apart)
	slices.Sort(cents)
	t.Logf("strokes off by %.0f ms at most, pitches by %.0f cents at most", apart[len(apart)-1], cents[len(cents)-1])
	assert.LessOrEqual(t, apart[len(apart)*95/100], 20.0)
	assert.LessOrEqual(t, cents[len(cents)*95/100], 15.0)

	// A tone of whole waves goes round.
	id = p.recording("Tone", studio.WAV(tone(4, rate), rate), 1, 2)
	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.sees(".meta", "0:04")
	p.until(`!document.querySelector('.heads button[disabled]')`)
	p.click(".foot .play", "Play")
	p.until(`window.ear?.node && document.querySelector('.foot .time').innerText >= '0:01.3'`)
	eval[bool](p, `(ear.clear(), true)`)
	p.recorded(5)
	samples, heard = p.samples()
	worst, usual := 0.0, 0.0
	quiet := math.Inf(1)
	for i := 2; i < len(samples); i++ {
		bend := math.Abs(samples[i] - 2*samples[i-1] + samples[i-2])
		worst, usual = max(worst, bend), usual+bend
	}
	usual /= float64(len(samples))
	window := int(heard / 50)
	for i := 0; i+window < len(samples); i += window {
		quiet = min(quiet, level(samples[i:i+window]))
	}
	t.Logf("the sharpest bend is %.1f times the usual, the quietest fiftieth of a second %.0f %% of the middle", worst/usual, 100*quiet/level(samples))
	assert.Less(t, worst/usual, 8.0, "no click where it comes round")
	assert.Greater(t, quiet, 0.35*level(samples), "and no hole")
}

func level(x []float64) float64 {
	sum := 0.0
	for _, v := range x {
		sum += v * v
	}
	return math.Sqrt(sum / float64(max(1, len(x))))
}

// samples are what was recorded, and how many a second.
func (p *player) samples() (list []float64, rate float64) {
	p.t.Helper()
	list = evalLater[[]float64](p, `ear.take().then(() => [...ear.record.samples])`)
	return list, eval[float64](p, `ear.context.sampleRate`)
}

// onsetsIn are the seconds at which something is struck.
func onsetsIn(x []float64, rate float64) (out []float64) {
	hop := int(rate / 400)
	var levels []float64
	for i := 0; i+hop < len(x); i += hop {
		levels = append(levels, level(x[i:i+hop]))
	}
	most := slices.Max(levels)
	for i := 4; i < len(levels); i++ {
		rise := levels[i] - slices.Min(levels[i-4:i])
		at := float64(i*hop) / rate
		if rise > 0.22*most && (len(out) == 0 || at-out[len(out)-1] > 0.4) {
			out = append(out, at)
		}
	}
	return out
}

// sharpest is the second between two at which what is sharp in a sound rises most.
func sharpest(x []float64, rate, from, to float64) (at float64) {
	hop := int(rate / 400)
	most := 0.0
	energy := func(i int) (sum float64) {
		for k := max(1, i); k < min(len(x), i+2*hop); k++ {
			d := x[k] - x[k-1]
			sum += d * d
		}
		return math.Sqrt(sum)
	}
	for i := max(0, int(from*rate)); i < min(len(x)-2*hop, int(to*rate)); i += hop / 2 {
		if rise := energy(i+hop) - energy(i-2*hop); rise > most {
			most, at = rise, float64(i+hop)/rate
		}
	}
	return at
}

// pitchAt is the pitch between two seconds, by the lag at which the sound is most like itself, as a MIDI number.
func pitchAt(x []float64, rate, from, to float64) float64 {
	a, b := int(from*rate), min(len(x), int(to*rate))
	if b-a < int(rate/5) {
		return math.NaN()
	}
	s := x[a:b]
	corr := func(lag int) (sum float64) {
		for i := 0; i+lag < len(s); i++ {
			sum += s[i] * s[i+lag]
		}
		return sum / float64(len(s)-lag)
	}
	low, high := int(rate/1200), int(rate/75)
	best := low
	values := make([]float64, high+2)
	for lag := low - 1; lag <= high+1; lag++ {
		values[lag] = corr(lag)
	}
	for lag := low; lag <= high; lag++ {
		if values[lag] > values[best]*1.02 && values[lag] >= values[lag-1] && values[lag] >= values[lag+1] {
			best = lag
		}
	}
	u, v, w := values[best-1], values[best], values[best+1]
	period := float64(best)
	if d := u - 2*v + w; d < 0 {
		period += (u - w) / (2 * d)
	}
	return 69 + 12*math.Log2(rate/period/440)
}
