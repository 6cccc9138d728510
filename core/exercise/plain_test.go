package exercise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/arpeggio"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/score"
)

var window = neck.Region{Low: 7, High: 11}

func TestARunGoesUpAndDownInEighths(t *testing.T) {
	in := neck.Standard()
	p, notes := Run(arpeggio.Make(in, harmony.MustParse("C7"), window, neck.UsualHand, nil), 4)
	assert.Equal(t, "R 3 5 b7 R 3 5 b7 R b7 5 3 R b7 5 3 R", degrees(notes))
	require.Len(t, p.Bars, 3, "seventeen eighths take three bars")
	assert.Equal(t, 3*3840, notes[16].End(), "the last note is held to the bar line")
	require.NoError(t, score.Score{Progression: p, In: in, Notes: notes}.Check())
	p, notes = Run(arpeggio.Run{Chord: harmony.MustParse("C7")}, 4)
	assert.Empty(t, notes)
	assert.Len(t, p.Bars, 1)
}

func TestACrossingWritesItsMovesTheBestFirst(t *testing.T) {
	in := neck.Standard()
	a, b := harmony.MustParse("C7"), harmony.MustParse("F7")
	moves := crossing.Between(in, a, b, window, crossing.Ranking{Order: harmony.UsualOrder})
	p, notes := Crossing(in, a, b, moves, 4, neck.UsualHand)
	require.Len(t, notes, 2*len(moves))
	assert.Equal(t, "C7", p.Bars[0].Changes[0].Chord.String())
	assert.Equal(t, "F7", p.Bars[1].Changes[0].Chord.String())
	for i, m := range moves {
		assert.Equal(t, string(m.From.Degree), notes[2*i].Degree)
		assert.Equal(t, string(m.To.Degree), notes[2*i+1].Degree)
		assert.Equal(t, m.HalfSteps, notes[2*i+1].Pitch.MIDI()-notes[2*i].Pitch.MIDI())
	}
	require.NoError(t, score.Score{Progression: p, In: in, Notes: notes}.Check())
}

func TestAThreadIsANoteAsLongAsItsChord(t *testing.T) {
	in := neck.Standard()
	f, _ := form.FormByID("jazz-blues")
	p := f.In(form.Key{})
	var stops []crossing.Stop
	for _, place := range p.Places() {
		stops = append(stops, crossing.Stop{Chord: place.Chord, Allowed: []harmony.Role{harmony.Third}})
	}
	targets, _, err := crossing.Tie(t.Context(), in, stops, crossing.Range{Region: window})
	require.NoError(t, err)
	notes := Thread(in, p, targets, neck.UsualHand)
	require.Len(t, notes, len(p.Places()))
	for i, place := range p.Places() {
		assert.Equal(t, place.Length*score.Tick, notes[i].Length)
		tone, ok := place.Chord.ToneAt(notes[i].Pitch.MIDI() % 12)
		require.True(t, ok)
		assert.Equal(t, harmony.Third, tone.Degree.Role())
	}
	require.NoError(t, score.Score{Progression: p, In: in, Notes: notes}.Check())
}
