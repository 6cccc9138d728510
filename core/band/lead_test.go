package band

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// lead writes notes on the second string, a beat each.
func lead(t *testing.T, ways ...score.Ornaments) (score.Score, []Note) {
	p, err := form.Read("| C7 | C7 |", 4, form.Key{})
	require.NoError(t, err)
	s := score.Score{Progression: p, In: neck.Standard(), Tempo: 100}
	for i, how := range ways {
		place := neck.Placement{String: 2, Fret: 5 + 2*i}
		midi := s.In.MIDI(place)
		s.Notes = append(s.Notes, score.Note{Start: i * Tick, Length: Tick, Placement: place, Pitch: pitch.At(midi, s.Key.Spell(midi%12)), Ornaments: how})
	}
	return s, Lead(s)
}

func last(n Note) int { return n.Bends[len(n.Bends)-1].Cents }

func TestHowALeadSounds(t *testing.T) {
	_, notes := lead(t, score.Ornaments{Bend: 4}, score.Ornaments{Bend: 2, Release: true}, score.Ornaments{Join: score.Slide},
		score.Ornaments{Scoop: 1}, score.Ornaments{Vibrato: true}, score.Ornaments{Dead: true}, score.Ornaments{Accent: true})
	assert.Equal(t, 200, last(notes[0]), "a whole step up, and held")
	top := 0
	for _, b := range notes[1].Bends {
		top = max(top, b.Cents)
	}
	assert.Equal(t, 100, top)
	assert.Zero(t, last(notes[1]), "and down again")
	assert.Equal(t, Bend{0, -200}, notes[2].Bends[0], "slid into from the note before")
	assert.Zero(t, last(notes[2]))
	assert.Equal(t, Bend{0, -100}, notes[3].Bends[0])
	low, high := 0, 0
	for _, b := range notes[4].Bends {
		low, high = min(low, b.Cents), max(high, b.Cents)
	}
	assert.True(t, low < -10 && low > -30 && high > 10 && high < 30, "vibrato sways by less than a third of a half step")
	assert.Less(t, notes[5].Length, Tick/8, "a dead note is short")
	assert.Greater(t, notes[6].Velocity, notes[0].Velocity)
	for _, n := range notes {
		for i, b := range n.Bends {
			assert.True(t, b.At >= 0 && b.At <= n.Length && b.Cents >= -MaxCents && b.Cents <= MaxCents)
			assert.True(t, i == 0 || b.At >= n.Bends[i-1].At, "bends are in order")
		}
	}
}

func TestATrillIsStruckInTurn(t *testing.T) {
	_, notes := lead(t, score.Ornaments{Trill: 2})
	require.Len(t, notes, 6)
	for i, n := range notes {
		assert.Equal(t, notes[0].MIDI+2*(i%2), n.MIDI)
	}
}

func TestANoteBesideABentOneStaysInTune(t *testing.T) {
	s, _ := lead(t, score.Ornaments{Bend: 4})
	beside := neck.Placement{String: 1, Fret: 8}
	midi := s.In.MIDI(beside)
	s.Notes = append(s.Notes, score.Note{Length: Tick, Placement: beside, Pitch: pitch.At(midi, s.Key.Spell(midi%12))})
	g, err := GrooveOf("straight")
	require.NoError(t, err)
	perf, err := Play(t.Context(), s.Progression, g, Options{Choruses: 1, Lead: Lead(s)})
	require.NoError(t, err)
	tracks := map[string]Track{}
	for _, track := range perf.Tracks {
		tracks[track.Name] = track
	}
	require.Len(t, tracks["lead"].Notes, 1)
	require.Len(t, tracks["lead beside"].Notes, 1)
	assert.NotEqual(t, tracks["lead"].Channel, tracks["lead beside"].Channel)
	assert.Empty(t, tracks["lead beside"].Notes[0].Bends)
}

// What sounds together begins and ends together; a rest has nothing beside it.
func TestNotesInTurnAndTogether(t *testing.T) {
	lead := InTurn([]Turn{{MIDI: 64, Beats: 2, With: []int{58}}, {Beats: 1, With: []int{40}}, {MIDI: 63, Beats: 1}})
	assert.Equal(t, []Note{{Start: 0, Length: 2 * Tick, MIDI: 64}, {Start: 0, Length: 2 * Tick, MIDI: 58}, {Start: 3 * Tick, Length: Tick, MIDI: 63}}, lead)
}

// While a bent note sounds, what else sounds is on a channel of its own: it is not bent along.
func TestNotesBesideABend(t *testing.T) {
	bend := []Bend{{At: 60, Cents: 200}}
	for _, c := range []struct {
		lead []Note
		solo int // the others are beside
	}{
		{[]Note{{Length: 2 * Tick, MIDI: 60, Bends: bend}, {Start: Tick, Length: Tick, MIDI: 67}}, 1},
		{[]Note{{Length: Tick, MIDI: 60, Bends: bend}, {Start: Tick, Length: Tick, MIDI: 67}}, 2},
		{[]Note{{Length: Tick, MIDI: 60, Bends: bend}, {Length: Tick, MIDI: 64, Bends: bend}}, 1},
		{[]Note{{Length: 2 * Tick, MIDI: 60, Bends: bend}, {Start: Tick, Length: 2 * Tick, MIDI: 64, Bends: bend}}, 1},
		{[]Note{{Length: Tick, MIDI: 60}, {Length: Tick, MIDI: 64}}, 2},
	} {
		g, err := GrooveOf("straight")
		require.NoError(t, err)
		p, err := Play(t.Context(), one(t), g, Options{Choruses: 1, Lead: c.lead})
		require.NoError(t, err)
		heard := map[string]int{}
		for _, track := range p.Tracks {
			heard[track.Name] = len(track.Notes)
		}
		assert.Equal(t, []int{c.solo, len(c.lead) - c.solo}, []int{heard["lead"], heard["lead beside"]})
	}
}

func one(t *testing.T) form.Progression {
	p, err := form.Read("| C7 |", 4, form.Key{})
	require.NoError(t, err)
	return p
}
