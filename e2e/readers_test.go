package e2e

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/form"
)

// The files must be understood by readers of other makes.
func TestOtherReadersUnderstandTheFiles(t *testing.T) {
	p := sit(t, true)
	p.visit("/test/readers.html")
	p.until(`window.loaded`)

	chart, err := form.Read("| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |", 4, form.Key{})
	require.NoError(t, err)
	groove, err := band.GrooveOf("shuffle")
	require.NoError(t, err)
	perf, err := band.Play(t.Context(), chart, groove, band.Options{Choruses: 2, Seed: 3, CountIn: true})
	require.NoError(t, err)
	midi := evalLater[struct {
		Ticks   int
		Tempo   []float64
		Markers int
		Tracks  []struct {
			Name  string
			Notes int
		}
	}](p, `readMIDI('/api/charts/6/files/midi?choruses=2&seed=3')`)
	assert.Equal(t, band.Tick, midi.Ticks)
	require.NotEmpty(t, midi.Tempo)
	assert.InDelta(t, 96, slices.Min(midi.Tempo), 0.01) // it puts its own 120 beside it
	assert.Equal(t, len(perf.Markers), midi.Markers)
	require.Len(t, midi.Tracks, len(perf.Tracks)+1)
	for i, track := range perf.Tracks {
		assert.Equal(t, track.Name, midi.Tracks[i+1].Name)
		assert.InDelta(t, len(track.Notes), midi.Tracks[i+1].Notes, 6, track.Name) // a pitch struck twice at once is written once
	}

	for _, of := range []string{"thread", "run", "crossing"} {
		query := fmt.Sprintf("of=%s&low=7&high=11&step=1", of)
		written := evalLater[struct {
			Measures []struct{ Strokes []struct{ Notes []int } }
			Notes    []struct {
				ID   int
				Note string
			}
		}](p, fmt.Sprintf(`fetch('/api/charts/6/score?%s').then(r => r.json())`, query))
		engraved := evalLater[struct {
			Measures, Staves, Drawn int
			Sounding                []struct {
				Step   string
				Octave int
				Sharp  string
			}
		}](p, fmt.Sprintf(`engrave('/api/charts/6/files/musicxml?%s')`, query))
		assert.Equal(t, len(written.Measures), engraved.Measures, of)
		assert.Equal(t, 2, engraved.Staves, of)
		named := map[int]string{}
		for _, n := range written.Notes {
			named[n.ID] = n.Note
		}
		i := 0
		for _, m := range written.Measures {
			drawn := map[string]string{} // accidentals of the bar
			for _, k := range m.Strokes {
				for _, n := range k.Notes {
					require.Less(t, i, len(engraved.Sounding), of)
					got, name := engraved.Sounding[i], named[n]
					place := fmt.Sprint(got.Step, got.Octave)
					if got.Sharp != "" {
						drawn[place] = strings.ReplaceAll(got.Sharp, "n", "")
					}
					assert.Equal(t, strings.ToUpper(name), strings.ToUpper(got.Step)+strings.ToUpper(drawn[place])+fmt.Sprint(got.Octave), "note %d of the %s", i, of)
					i++
				}
			}
		}
		assert.Len(t, engraved.Sounding, i, of)
		assert.Greater(t, engraved.Drawn, 20, of)
	}
}

// Everything that leaves is opened by two readers of sheets, which draw as many accidentals as
// are written, and by two of MIDI, which count the same notes and find none that never ends.
func TestEverythingThatLeavesIsReadElsewhere(t *testing.T) {
	p := sit(t, true)
	p.visit("/test/readers.html")
	p.until(`window.loaded`)
	type thing struct {
		ID    uint
		Title string
	}
	all := func(path string) []thing {
		return evalLater[[]thing](p, fmt.Sprintf(`fetch('/api/%s?limit=1000').then(r => r.json()).then(l => (l.rows ?? l).map(x => ({id: x.id, title: x.title})))`, path))
	}
	var sheets, sounds []string
	for _, c := range all("charts") {
		sheets = append(sheets, fmt.Sprintf("/api/charts/%d/files/musicxml?of=chords&low=0&high=4", c.ID), fmt.Sprintf("/api/charts/%d/files/musicxml?of=thread&low=5&high=9", c.ID))
		sounds = append(sounds, fmt.Sprintf("/api/charts/%d/files/midi?choruses=2", c.ID))
	}
	for _, l := range all("lines") {
		sheets = append(sheets, fmt.Sprintf("/api/lines/%d/files/musicxml", l.ID))
		sounds = append(sounds, fmt.Sprintf("/api/lines/%d/files/midi?choruses=1&ending=own", l.ID))
	}
	licks := all("licks")
	require.NotEmpty(t, licks)
	for _, l := range licks {
		sheets = append(sheets, fmt.Sprintf("/api/licks/files/musicxml?id=%d", l.ID))
		sounds = append(sounds, fmt.Sprintf("/api/licks/files/midi?id=%d", l.ID))
	}
	require.Greater(t, len(sheets), 80)
	drawn := 0
	for _, url := range sheets {
		file := evalLater[struct{ Measures, Notes, Accidentals, Written, Pitches, Drawn int }](p, fmt.Sprintf(`display(%q)`, url))
		assert.Equal(t, []int{file.Pitches, file.Written}, []int{file.Notes, file.Accidentals}, "notes and accidentals of %s", url)
		assert.Greater(t, file.Drawn, 10, url)
		engraved := evalLater[struct{ Measures int }](p, fmt.Sprintf(`engrave(%q)`, url))
		assert.Equal(t, file.Measures, engraved.Measures, url)
		drawn += file.Accidentals
	}
	assert.Greater(t, drawn, 100)
	for _, url := range sounds {
		other := evalLater[[]struct {
			Notes, Open int
			Ends        bool
		}](p, fmt.Sprintf(`strikes(%q)`, url))
		one := evalLater[struct{ Tracks []struct{ Notes int } }](p, fmt.Sprintf(`readMIDI(%q)`, url))
		require.Len(t, one.Tracks, len(other), url)
		for i, track := range other {
			assert.Equal(t, []any{one.Tracks[i].Notes, 0, true}, []any{track.Notes, track.Open, track.Ends}, "track %d of %s", i, url)
		}
	}
}

// Chords are drawn once, with all they hold; silence is drawn as N.C.; repeats stand as repeats.
func TestOtherReadersDrawTheChords(t *testing.T) {
	p := sit(t, true)
	p.visit("/test/readers.html")
	p.until(`window.loaded`)
	id := evalLater[int](p, `fetch('/api/charts', {method: 'POST', headers: {'content-type': 'application/json'}, body: JSON.stringify({title: 'Signs', key: 'C', feel: 'shuffle', tempo: 96, beats: 4, text: '|: C7#9 | N.C. |1. F7 :|2. Bb13 | Dm7b5 . G7b9 . | C6/9 |'})}).then(r => r.json()).then(c => c.id)`)
	drawn := evalLater[struct {
		One, Other []string
		Measures   int
	}](p, fmt.Sprintf(`labels('/api/charts/%d/files/musicxml?of=chords&low=0&high=4')`, id))
	for text, times := range map[string]int{"C7(#9)": 1, "N.C.": 1, "F7": 1, "Bb13": 1, "Dm7b5": 1, "G7(b9)": 1, "C69": 1, "1": 1, "2": 1} {
		assert.Equal(t, times, counted(drawn.One, text), "%s in %q", text, drawn.One)
	}
	// The other draws them in pieces, with the signs of a font of its own, and has no half-diminished chords.
	other := strings.NewReplacer("\ued60", "b", "\ued62", "#").Replace(strings.Join(drawn.Other, " "))
	for _, text := range []string{"N.C.", "C 7 (add#9)", "F 7", "B b 13", "G 7 (addb9)", "C 6 (add9)"} {
		assert.Equal(t, 1, strings.Count(other, text), "%s in %q", text, other)
	}
	assert.Equal(t, 6, drawn.Measures, "repeats are not written out")
}

// counted is how often a text is among others.
func counted(texts []string, text string) (n int) {
	for _, t := range texts {
		if t == text {
			n++
		}
	}
	return n
}

// A pickup is an anacrusis to a reader of another make: a measure that is not counted, as long as it stands, before the first.
func TestOtherReadersSeeAnAnacrusis(t *testing.T) {
	p := sit(t, true)
	p.visit("/test/readers.html")
	p.until(`window.loaded`)
	make := func(path, body string) int {
		return evalLater[int](p, fmt.Sprintf(`fetch(%q, {method: 'POST', headers: {'content-type': 'application/json'}, body: JSON.stringify(%s)}).then(r => r.json()).then(c => c.id)`, path, body))
	}
	for beats := 1; beats < 4; beats++ {
		text := fmt.Sprintf("| pickup %d/4 G7 | C7 | F7 |", beats)
		chart := make("/api/charts", fmt.Sprintf(`{title: 'Lead %d', key: 'C', feel: 'shuffle', tempo: 96, beats: 4, text: %q}`, beats, text))
		line := make("/api/lines", fmt.Sprintf(`{title: 'Lead %d', key: 'C', feel: 'shuffle', tempo: 96, beats: 4, text: %q, low: 7, high: 11, notes: [{start: -480, length: 480, string: 3, fret: 9, note: ''}, {start: 0, length: 960, string: 3, fret: 9, note: ''}], locked: []}`, beats, text))
		for _, url := range []string{fmt.Sprintf("/api/charts/%d/files/musicxml?of=chords&low=0&high=4", chart), fmt.Sprintf("/api/lines/%d/files/musicxml", line)} {
			measures := evalLater[[]struct {
				Implicit bool
				Number   int
				Length   float64
			}](p, fmt.Sprintf(`firstMeasures(%q)`, url))
			require.Len(t, measures, 2, url)
			assert.True(t, measures[0].Implicit, url)
			assert.InDelta(t, float64(beats)/4, measures[0].Length, 0.001, url)
			assert.Equal(t, []any{false, 1}, []any{measures[1].Implicit, measures[1].Number}, url)
			assert.InDelta(t, 1, measures[1].Length, 0.001, url)
			drawn := evalLater[struct{ Measures int }](p, fmt.Sprintf(`engrave(%q)`, url))
			assert.Equal(t, 3, drawn.Measures, "and the other draws it as one: %s", url)
		}
	}
}
