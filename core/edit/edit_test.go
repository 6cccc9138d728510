package edit

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// written is a line that the core wrote over a form.
func written(t testing.TB, formID, key string, seed uint64) Line {
	k, err := form.ParseKey(key)
	require.NoError(t, err)
	f, ok := form.FormByID(formID)
	require.True(t, ok)
	in := neck.Standard()
	w := in.Positions(k.Tonic.Class())[3].Region
	l := Line{Hand: neck.UsualHand, Region: w, Palette: blend.Palettes[0]}
	l.Score = score.Score{Title: "Test", Key: k, Tempo: 96, Swing: true, Progression: f.In(k), In: in}
	l.Notes, err = line.Write(t.Context(), l.Score, line.Wish{Region: w, Palette: l.Palette, Rhythm: "eighths", Density: 3, Approach: true, Seed: seed}, l.Hand)
	require.NoError(t, err)
	for i := range l.Notes {
		l.Notes[i].ID = i + 1
	}
	return l
}

// On every known instrument every note of a line is still there: at its time, on
// its pitch or octaves away, and playable.
func TestLayingLeavesNothingOut(t *testing.T) {
	for _, tuning := range neck.Tunings {
		in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		for _, key := range []string{"C", "F#", "Bb"} {
			l := written(t, "quick-change", key, 7)
			out, done, err := Lay(l, in, neck.UsualHand)
			what := fmt.Sprintf("%s in %s", tuning.ID, key)
			require.NoError(t, err, what)
			require.NoError(t, out.Check(), what)
			require.Len(t, out.Notes, len(l.Notes), what)
			octaves, moved := 0, 0
			byID := map[int]score.Note{}
			for _, n := range l.Notes {
				byID[n.ID] = n
			}
			for _, n := range out.Notes {
				was := byID[n.ID]
				delete(byID, n.ID)
				assert.Equal(t, []int{was.Start, was.Length}, []int{n.Start, n.Length}, what)
				assert.Equal(t, was.Pitch.Name, n.Pitch.Name, what)
				if was.Pitch != n.Pitch {
					octaves++
				}
				if was.Placement != n.Placement {
					moved++
				}
			}
			assert.Empty(t, byID, what)
			assert.Equal(t, []int{octaves, moved}, []int{done.Octaves, done.Moved}, what)
			if tuning.ID == "standard" {
				assert.Equal(t, "every note keeps its place", done.Says())
			}
		}
	}
}

func TestWhatLiesBeyondTheNeckIsSaid(t *testing.T) {
	l := written(t, "quick-change", "C", 3)
	l.In, _ = neck.New("E1,A1,D2,G2", 20, 864, 0)
	err := l.Settle()
	require.Error(t, err)
	assert.Regexp(t, `^\d+ of the notes lie beyond this neck, the first is [A-G][b#]?\d in bar \d+; the lowest string is E1 and the highest fret 20$`, err.Error())
	before := len(l.Notes)
	l.LeaveOut()
	require.NoError(t, l.Settle())
	require.NotEmpty(t, l.Said)
	assert.Contains(t, l.Said[0], fmt.Sprintf("%d notes lie beyond the neck and were left out", before-len(l.Notes)))
}

func TestMovingKeepsEveryNote(t *testing.T) {
	l := written(t, "quick-change", "C", 5)
	for _, shape := range []bool{true, false} {
		for _, key := range []string{"F", "Eb", "B", "F#"} {
			k, _ := form.ParseKey(key)
			out, err := l.Move(k, shape)
			require.NoError(t, err)
			assert.Len(t, out.Notes, len(l.Notes), key)
			assert.Equal(t, key, out.Key.String())
			assert.NoError(t, l.In.CheckRegion(out.Region))
		}
	}
	assert.Equal(t, "C", l.Key.String(), "the line itself stays")
}

func TestALickTakesThePlaceOfWhatStoodThere(t *testing.T) {
	l := written(t, "quick-change", "C", 5)
	notes, err := lick.Parse("R/e 3/e 5/e b7/e R'/h")
	require.NoError(t, err)
	k := lick.Lick{Chord: "7", Notes: notes}
	require.NoError(t, l.PutLick(k, 3, false))
	var there []score.Note
	for _, n := range l.Notes {
		if n.Start >= l.At(2) && n.Start < l.At(3) {
			there = append(there, n)
		}
	}
	assert.Len(t, there, 5)
	assert.NoError(t, l.Check())
	assert.ErrorContains(t, l.PutLick(k, 13, false), "the line has bars 1 to 12")
	l.Bars[0].Changes[0].Chord.None = true
	assert.ErrorIs(t, l.PutLick(k, 1, false), ErrSilent)
}

func TestAChangeIsMadeToLand(t *testing.T) {
	l := written(t, "quick-change", "C", 5)
	for i := range l.Notes { // the landing on bar 2 comes late
		if l.Notes[i].Start == l.At(1) {
			l.Notes[i].Start += score.Tick / 2
			l.Notes[i].Length = score.Tick / 2
		}
	}
	fixes, why, err := l.Fixes(t.Context(), l.At(1))
	require.NoError(t, err)
	require.NotEmpty(t, fixes, why)
	r := line.Check(l.Apply(fixes[0]).Score, l.Palette, line.Usual)
	assert.Equal(t, line.OnTime, r.Landings[1].When, fixes[0].Says)
	_, _, err = l.Fixes(t.Context(), -1)
	assert.ErrorIs(t, err, ErrNoBeat)
}

// In place, by a fourth or whatever: no note runs off the neck and none is lost,
// in any key on any instrument.
func TestALineMovesInPlaceWithoutLosingANote(t *testing.T) {
	for _, tuning := range neck.Tunings {
		in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, 0)
		require.NoError(t, err)
		key := form.Key{}
		s := score.Score{Key: key, Tempo: 96, Progression: form.Forms[0].In(key), In: in}
		lowest, highest := in.MIDI(neck.Placement{String: in.Strings()}), in.MIDI(neck.Placement{String: 1, Fret: in.Last()})
		for i, midi := range []int{lowest, lowest + 1, lowest + 7, (lowest + highest) / 2, highest - 5, highest - 1, highest} {
			s.Notes = append(s.Notes, score.Note{ID: i + 1, Start: i * 1920, Length: 960, Pitch: pitch.At(midi, key.Spell(midi%12))})
		}
		l := Line{Score: s, Hand: neck.UsualHand, Region: neck.Region{Low: 5, High: 9}, Palette: blend.Palettes[0]}
		require.NoError(t, l.Settle())
		for _, tonic := range pitch.Roots {
			moved, err := l.Move(form.Key{Tonic: tonic}, false)
			require.NoError(t, err, "%s in %s", tuning.Name, tonic)
			require.Len(t, moved.Notes, len(l.Notes), "%s in %s: %v", tuning.Name, tonic, moved.Said)
			for i, n := range moved.Notes {
				want := pitch.Class(l.Notes[n.ID-1].Pitch.MIDI() + tonic.Class())
				assert.Equal(t, want, pitch.Class(n.Pitch.MIDI()), "%s in %s, note %d", tuning.Name, tonic, i)
			}
		}
	}
}
