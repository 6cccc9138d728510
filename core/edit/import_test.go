package edit

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// A line without chords comes to lie on a chart's, which go round as often as it takes; where
// the metres differ the notes stay on their beats, and that is said.
func TestALineLaidOverAChart(t *testing.T) {
	in := neck.Standard()
	read := func(text string, beats int) score.Score {
		p, err := form.Read(text, beats, form.Key{})
		require.NoError(t, err)
		return score.Score{Tempo: 96, In: in, Progression: p}
	}
	for _, c := range []struct {
		line, chart  string
		beats, under int
		want         string
		says, not    string
	}{
		{"| N.C. | N.C. |", "| C7 | F7 | G7 |", 4, 4, "| C7 | F7 | G7 |", "the chart's chords were laid under it", "goes round"},
		{"| N.C. | N.C. | N.C. |", "| C7 | F7 |", 4, 4, "| C7 | F7 |\n| C7 |", "the chart has 2 bars and the line 3: it goes round again", "without"},
		{"| N.C. | N.C. |", "| C7 | F7 |", 3, 4, "| C7 | F7 |", "the file has 3 quarters in a bar and the chart 4", "goes round"},
		{"| N.C. | N.C. | N.C. |", "| C7 | 2/4 F7 |", 4, 4, "| C7 | 2/4 F7 |\n| 4/4 C7 |", "change in other bars", "without"},
		{"| C7 | N.C. |", "| F7 |", 4, 4, "| C7 | N.C. |", "it has chords of its own", "goes round"},
		{"| N.C. |", "", 4, 4, "| N.C. |", "no chords; the bars are without", "laid"},
	} {
		s := read(c.line, c.beats)
		for bar := range s.Bars {
			s.Notes = append(s.Notes, score.Note{Start: s.At(bar), Length: score.Tick, Pitch: pitch.At(60, pitch.Roots[0])})
		}
		under := score.Score{In: in, Progression: form.Progression{Beats: 4}}
		if c.chart != "" {
			under = read(c.chart, c.under)
		}
		l, err := Import(s, nil, under, neck.UsualHand)
		require.NoError(t, err, c.line)
		assert.Equal(t, c.want, l.Text(), c.line)
		said := strings.Join(l.Said, "; ")
		assert.Contains(t, said, c.says, c.line)
		assert.NotContains(t, said, c.not, c.line)
		assert.Len(t, l.Notes, len(s.Notes))
		for i, n := range l.Notes {
			assert.Equal(t, s.Notes[i].Start, n.Start)
		}
		require.NoError(t, l.Check())
	}
}

// Names follow the chords wherever chords arrive: a line without them that is laid over a chart names each chord tone as the chord
// does, whatever its file called it.
func TestNamesFollowTheChordsOfAChart(t *testing.T) {
	for _, f := range form.Forms {
		for _, key := range form.AllKeys(f.Minor) {
			under := score.Score{Key: key, Tempo: 96, Progression: f.In(key), In: neck.Standard()}
			s := score.Score{Key: form.Key{}, Tempo: 96, Progression: form.Progression{Beats: 4, Bars: []form.Bar{{Changes: []form.Change{{Chord: harmony.Chord{None: true}}}}}}}
			for _, place := range under.Places() {
				for i, tone := range place.Chord.Tones {
					midi := 52 + pitch.Class(tone.Name.Class()-52)
					name := form.Key{}.Spell(midi % 12)
					if i%2 == 0 { // as somebody writes who thinks in sharps
						name = form.Key{Tonic: pitch.Name{Letter: 5}}.Spell(midi % 12)
					}
					s.Notes = append(s.Notes, score.Note{Start: under.BeatOf(place)*score.Tick + i*240, Length: 240, Pitch: pitch.At(midi, name)})
				}
			}
			score.Sort(s.Notes)
			l, err := Import(s, nil, under, neck.UsualHand)
			require.NoError(t, err)
			for _, n := range l.Notes {
				chord, sounds := l.ChordAt(n.Start)
				require.True(t, sounds)
				tone, ok := chord.ToneAt(n.Pitch.MIDI() % 12)
				require.True(t, ok)
				assert.Contains(t, []pitch.Name{tone.Name, tone.Name.Simpler()}, n.Pitch.Name, "%s over %s in %s, %s", n.Pitch, chord, f.ID, key)
			}
		}
	}
}
