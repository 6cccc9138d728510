package e2e

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/e2e/studio"
)

// A recording whose tempo drifts plays its chart in the band's place: each of its beats is heard where the clock has it, at its
// own tempo, at another one, round a loop and over the end of a chorus; a player who plays along with it is judged.
func TestARecordingIsTheBand(t *testing.T) {
	p := listen(t)
	chart := p.post("/api/charts", map[string]any{"title": "Four on the tape", "key": "C", "feel": "straight", "tempo": 90, "beats": 4, "text": "| C7 | F7 | C7 | G7 |"})
	const rate = 44100
	var beats []float64
	var strokes []studio.Stroke
	at := 0.6
	scale := []float64{48, 50, 52, 53, 55, 57, 59, 60, 62, 64, 65, 67, 69, 71, 72, 74}
	for i := range 33 {
		beats = append(beats, at)
		if i < 32 {
			strokes = append(strokes, studio.Stroke{At: at, Length: 0.4, MIDI: scale[i%16], String: 1 + i%3})
		}
		at += 60 / (96 + 8*math.Sin(float64(i)/5)) // eight beats a minute to and fro
	}
	take := studio.Take{Rate: rate, Strokes: strokes, Sound: studio.Clean, Length: at + 1, Seed: 1}
	var anchors []any
	for i, at := range beats {
		anchors = append(anchors, map[string]any{"beat": i, "at": at})
	}
	id := p.keptSound("The drifting tape", studio.WAV(take.Render(), rate), map[string]any{"anchors": anchors}, map[string]any{"seconds": at, "chart": chart})

	p.visit(fmt.Sprintf("/by-ear/%d", id))
	p.sees(".meta", "0:2")
	p.click("header button", "Play along")
	p.until(`location.pathname === '/practice/` + fmt.Sprint(chart) + `' && new URLSearchParams(location.search).get('record') === '` + fmt.Sprint(id) + `'`)
	p.until(`document.querySelector('.play.on')`)
	p.sees(".strip .where", "The drifting tape")
	band := stores + `.get('band')`
	eval[bool](p, `(() => { const e = `+stores+`.get('sound').engine(), on = e.onAnchor; window.anchors = []; e.onAnchor = (a) => { anchors.push(a); on(a) }; return true })()`)
	p.until(`window.ear?.node && anchors.length`)
	own := eval[float64](p, band+`.tempo`)
	assert.InDelta(t, 97.0, own, 4, "its own tempo")
	p.until(band + `.chorus === 1 && ` + band + `.beat > 2`) // over the end of a chorus
	eval[bool](p, `(`+band+`.setTempo(70), true)`)
	p.until(band + `.beat > 6`)
	eval[bool](p, `(`+band+`.setLoop({from: 4, to: 8}), true)`)
	p.recorded(46)
	samples, heard := p.samples()
	start := eval[float64](p, `ear.record.start`)
	type anchor struct {
		Frame, Tick, FramesPerTick float64
	}
	told := eval[[]anchor](p, `anchors`)
	require.GreaterOrEqual(t, len(told), 4)
	var apart []float64
	wrong, n := 0, 0
	for i, a := range told {
		until := start + float64(len(samples)) - heard
		if i+1 < len(told) {
			until = min(until, told[i+1].Frame)
		}
		if a.Tick < 0 {
			continue
		}
		for beat := math.Ceil(a.Tick / 960); ; beat++ {
			frame := a.Frame + (beat*960-a.Tick)*a.FramesPerTick
			if frame > until-heard*0.05 {
				break
			}
			when := (frame - start) / heard
			apart = append(apart, 1000*math.Abs(sharpest(samples, heard, when-0.15, when+0.15)-when))
			midi := pitchAt(samples, heard, when+0.12, when+0.4)
			if math.Abs(midi-scale[int(beat)%16]) > 0.5 {
				wrong++
			}
			n++
		}
	}
	require.Greater(t, n, 40)
	slices.Sort(apart)
	t.Logf("%d beats: in the middle %.0f ms, %.0f at p90, %.0f at p95, %.0f at most off; %d other notes", n, apart[n/2], apart[n*90/100], apart[n*95/100], apart[n-1], wrong)
	assert.LessOrEqual(t, apart[n*90/100], 20.0)
	assert.LessOrEqual(t, wrong, n/20)

	// What the ear would hear of it by itself is known.
	p.until(band + `.notes(0, 16 * 960).length > 10`)
	notes := eval[[][2]float64](p, band+`.notes(0, 16 * 960)`)
	right := 0
	for _, n := range notes {
		if int(math.Round(n[1])) == int(scale[int(math.Round(n[0]/960))%16]) && math.Abs(n[0]/960-math.Round(n[0]/960)) < 0.1 {
			right++
		}
	}
	assert.GreaterOrEqual(t, right, 14, "%v", notes)

	// Our own band is back by one choice, and the address says so.
	eval[bool](p, `(`+band+`.setLoop(undefined), `+band+`.setTempo(120), true)`)
	p.click("footer button", "Have a simulated player play it")
	p.until(`document.querySelector('.result')?.innerText.includes('landed') || document.querySelector('.result')?.innerText.includes('of 4')`)
	p.click(".play", "Stop")
	p.click(".more", "Band")
	p.choose("who-plays", "our band")
	p.until(`!new URLSearchParams(location.search).get('record')`)
	assert.Equal(t, 90.0, eval[float64](p, band+`.tempo`), "the chart's tempo")
}
