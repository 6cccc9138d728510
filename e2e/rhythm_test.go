package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fakeMIDI is a MIDI instrument that strikes notes at any time of the page.
const fakeMIDI = `window.midiInput = {}; navigator.requestMIDIAccess = async () => ({inputs: new Map([['a', window.midiInput]])})
	window.strikeAt = (note, at) => { midiInput.onmidimessage({data: [0x90, note, 100], timeStamp: at}); midiInput.onmidimessage({data: [0x80, note, 0], timeStamp: at + 60}) }`

// A rhythm that a call asks for is judged when it is played.
func TestARhythmIsAskedFor(t *testing.T) {
	p := sit(t, true)
	p.before(fakeMIDI)
	p.visit("/practice/6?seed=3&ask=tones&by=play&pace=quarters&step=5")
	p.sees(".says", "in quarters at 96")
	p.click("header button", "MIDI")
	all := evalLater[[]struct{ Notes []struct{ Midi int } }](p, `fetch('/api/calls', {method: 'POST', headers: {'Content-Type': 'application/json'},
		body: JSON.stringify({chart: 6, kinds: ['tones'], paces: ['quarters'], tempo: 96, seed: 3})}).then(r => r.json())`)
	for i, want := range []string{"Right in", "Right, but not in time"} {
		for k, n := range all[i].Notes {
			at := 1000 + k*625 // a quarter at 96
			if i == 1 && k > 1 {
				at += 300
			}
			eval[bool](p, fmt.Sprintf(`(strikeAt(%d, %d), true)`, n.Midi, at))
		}
		p.sees(".verdict", want)
		if i == 0 {
			p.until(`!document.querySelector('.verdict')`)
		}
	}
}

// Above the goal of its ladder an exercise goes on in finer notes, lower.
func TestALadderGoesOnInFinerNotes(t *testing.T) {
	p := listen(t)
	p.before(fakeMIDI)
	p.visit("/lines")
	made := evalLater[struct {
		ID    int
		Notes []struct{ Start, Midi int }
	}](p, `(async () => { const post = (path, body) => fetch('/api' + path, {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify(body)}).then(r => r.json())
		const line = {title: 'Up and down', key: 'C', feel: 'straight', tempo: 120, beats: 4, text: '| C7 | F7 |', low: 7, high: 11, notes: []}
		const { score } = await post('/lines/drill', {line, task: {drill: 'run', pace: 'quarters'}})
		const { id } = await post('/lines', {...line, exercise: 'run', notes: score.notes.map(({start, length, note, string, fret, finger}) => ({start, length, note, string, fret, finger}))})
		localStorage.setItem('undaris-rungs', JSON.stringify({['line ' + id]: {tempo: 120, row: 2}}))
		return {id, notes: score.notes.map(n => ({start: n.start, midi: n.midi}))} })()`)
	require.NotEmpty(t, made.Notes)
	p.visit(fmt.Sprintf("/lines/%d", made.ID))
	p.until(`document.querySelectorAll('.grid .fret').length === %d`, len(made.Notes))
	p.click("button", "Export and more")
	p.click("[role=menuitem]", "Write and play by MIDI")
	p.sees(".line .meta", "hears MIDI")
	p.click("header button", "Hear")
	p.until(stores + `.get('band').where(performance.now())?.tick > -900`)
	for _, n := range made.Notes { // told at once, each with its time
		eval[bool](p, fmt.Sprintf(`(() => { const at = performance.now(), tick = %s.get('band').where(at).tick
			strikeAt(%d, at + (%d - tick) / 960 * 500); return true })()`, stores, n.Midi, n.Start))
	}
	p.click("header button", "Hear")
	p.until(`document.querySelectorAll('.grid .fret').length > %d`, len(made.Notes)) // eighths now
	assert.Contains(t, p.remembered("settings"), fmt.Sprintf(`"line %d":{"tempo":50`, made.ID), "eighths come a little slower than the quarters came")
}
