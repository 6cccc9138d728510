package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// A line is played along with the band on a MIDI keyboard and judged; what was not
// played is grey, not wrong. A simulated player plays it too.
func TestALineIsPlayedAndJudged(t *testing.T) {
	p := sit(t, true)
	p.before(`window.midiInput = {}; navigator.requestMIDIAccess = async () => ({inputs: new Map([['a', window.midiInput]])})
		window.strike = (note) => { midiInput.onmidimessage({data: [0x90, note, 100], timeStamp: performance.now()}); midiInput.onmidimessage({data: [0x80, note, 0], timeStamp: performance.now() + 60}) }
		window.bandStore = () => document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s.get('band')`)
	p.visit("/lines")
	p.click(".lines a", "Slipway, first chorus")
	id := p.lineID()
	notes := p.kept(id).Notes

	p.click("button", "Export and more")
	p.click("[role=menuitem]", "simulated player")
	p.sees(".take", "Try:")
	p.until(`document.querySelectorAll('.grid [data-verdict]').length === %d`, len(notes))
	p.click(".take button", "close")
	p.until(`!document.querySelector('.take')`)

	p.click("button", "Export and more")
	p.click("[role=menuitem]", "Write and play by MIDI")
	p.sees(".line .meta", "hears MIDI")
	p.click("header button", "Hear")
	p.until(`window.bandStore().where(performance.now())?.tick > -3000`)
	// The first notes are struck as the band comes to them; the third a half step off.
	const struck = 6
	for i, n := range notes[:struck] {
		midi := eval[int](p, fmt.Sprintf(`(() => { const n = %q; return {C:0,D:2,E:4,F:5,G:7,A:9,B:11}[n[0]] + (n.match(/#/g)?.length ?? 0) - (n.match(/b/g)?.length ?? 0) + 12 * (Number(n.match(/-?\d$/)[0]) + 1) })()`, n.Note))
		if i == 2 {
			midi++
		}
		at := float64(n.Start)
		if n.Start%960 == 480 {
			at += 0.17 * 960 // the shuffle's second eighth
		}
		evalLater[bool](p, fmt.Sprintf(`new Promise(done => { const id = setInterval(() => {
			if ((bandStore().where(performance.now())?.tick ?? -1e9) < %f) return
			clearInterval(id); strike(%d); done(true)
		}, 3) })`, at, midi))
	}
	time.Sleep(100 * time.Millisecond)
	p.click("header button", "Hear")
	p.sees(".take", "Try:")
	count := func(kind string) int {
		return eval[int](p, fmt.Sprintf(`document.querySelectorAll('.grid [data-verdict="%s"]').length`, kind))
	}
	assert.Equal(t, struck-1, count("landed")+count("late")+count("early"))
	assert.GreaterOrEqual(t, count("landed"), struck-2)
	assert.Equal(t, 1, count("missed"))
	assert.Zero(t, count("unheard"), "what the band did not come to was not asked for")
	assert.Len(t, p.kept(id).Notes, len(notes), "what was played was not written")
	p.until(`fetch('/api/log').then(r => r.json()).then(l => l.total === 1 && l.rows[0].kind === 'take' && l.rows[0].line === %d)`, id)
}
