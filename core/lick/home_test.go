package lick

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// played draws some notes of a hand on a neck, over a chord.
func played(t *rapid.T) ([]score.Note, harmony.Chord, *neck.Instrument) {
	tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
	in, err := neck.New(tuning.Open, tuning.Frets, tuning.Scale, rapid.IntRange(0, 5).Draw(t, "capo"))
	require.NoError(t, err)
	root := rapid.SampledFrom(pitch.Roots).Draw(t, "root")
	chord := harmony.MustParse(root.String() + rapid.SampledFrom([]string{"7", "m7", "maj7", ""}).Draw(t, "kind"))
	low := rapid.IntRange(1, 8).Draw(t, "low")
	var notes []score.Note
	for i := range rapid.IntRange(1, 9).Draw(t, "notes") {
		p := neck.Placement{String: rapid.IntRange(1, in.Strings()).Draw(t, "string"), Fret: low + rapid.IntRange(0, 3).Draw(t, "fret")}
		midi := in.MIDI(p)
		notes = append(notes, score.Note{Start: i * 480, Length: 480, Placement: p, Pitch: pitch.At(midi, form.Key{Tonic: root}.Spell(midi%12))})
	}
	return notes, chord, in
}

// Whatever is kept comes back where it was written, and a whole step lower it is two frets down on the same strings.
func TestALickKeepsItsHome(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		notes, chord, in := played(t)
		k := Of(notes, chord, 0, false)
		h := HomeOf(notes, chord, in)
		require.True(t, k.Lies(h))
		back, over, ok := k.AtHome(h, 0, in, neck.UsualHand)
		require.True(t, ok)
		require.Equal(t, chord.String(), over.String())
		for i, n := range notes {
			require.Equal(t, [4]int{n.Start, n.Pitch.MIDI(), n.String, n.Fret}, [4]int{back[i].Start, back[i].Pitch.MIDI(), back[i].String, back[i].Fret})
		}
		g := Ground{In: in, Hand: neck.UsualHand}
		lower := chord.On(form.Key{}.Spell(pitch.Class(chord.Root.Class() - 2)))
		down, err := k.shape(back, lower, 0, g)
		fits := true
		for _, n := range notes {
			fits = fits && n.Fret > 2
		}
		if fits {
			require.NoError(t, err)
			for i, n := range notes {
				require.Equal(t, neck.Placement{String: n.String, Fret: n.Fret - 2}, down[i].Placement)
			}
			first := k.Places(back, lower, g)[0]
			require.True(t, first.Home)
			require.True(t, sameSpots(down, first.Notes), "its own shape is the first of all places")
		}
		// On another neck, or of other notes, it is no home.
		other, err := neck.New(h.Tuning, h.Frets, anyScale, h.Capo+1)
		require.NoError(t, err)
		_, _, ok = k.AtHome(h, 0, other, neck.UsualHand)
		require.False(t, ok)
		if k.Notes[0].Octave++; len(k.Notes) > 1 {
			require.False(t, k.Lies(h))
		}
	})
	one := Lick{Chord: "7", Notes: []Note{{Degree: "R", Length: 480}}}
	spot := []neck.Placement{{String: 1, Fret: 8}}
	assert.True(t, one.Lies(Home{Chord: "C7", Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Places: spot}))
	for _, bad := range []Home{{}, {Chord: "X", Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Places: spot}, {Chord: "C7", Tuning: "E2", Frets: 22, Places: spot},
		{Chord: "C7", Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22}, {Chord: "C7", Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Capo: 15, Places: spot},
		{Chord: "D7", Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Places: spot}, {Chord: "N.C.", Tuning: "E2,A2,D3,G3,B3,E4", Frets: 22, Places: spot}} {
		assert.False(t, one.Lies(bad), "%+v", bad)
	}
}

// Every place is one where each note of the lick is, each once, the nearest first.
func TestAllPlacesOfALick(t *testing.T) {
	in := neck.Standard()
	notes, err := Parse("5/e b7/e R'/q 9'/e R'/e b7/q")
	require.NoError(t, err)
	k := Lick{Chord: "7", Notes: notes}
	for _, root := range pitch.Roots {
		chord := harmony.MustParse(root.String() + "7")
		from, err := k.Realise(chord, 0, Ground{In: in, Region: neck.Region{Low: 4, High: 12}, Hand: neck.UsualHand})
		require.NoError(t, err)
		all := k.Places(from, chord, Ground{In: in, Hand: neck.UsualHand})
		assert.Greater(t, len(all), 2, root)
		assert.Zero(t, all[0].Travel, "the home one first")
		assert.True(t, sameSpots(from, all[0].Notes))
		for i, s := range all {
			for j, n := range s.Notes {
				assert.Equal(t, n.Pitch.MIDI(), in.MIDI(n.Placement))
				assert.Equal(t, k.Notes[j].Degree, harmony.Degree(n.Degree))
			}
			for _, o := range all[:i] {
				assert.False(t, sameSpots(o.Notes, s.Notes), "each once")
				if o.Home == s.Home {
					assert.LessOrEqual(t, o.Travel, s.Travel)
				}
			}
		}
	}
}

// Through a chorus a lick lies over a chord that comes again where it lay, and with the shape on the strings that it was written on.
func TestALickIsNotBrokenOverOctaves(t *testing.T) {
	in := neck.Standard()
	for _, text := range []string{"R/e b3/e 3/e 5/q 6/e", "5/e b7/e R'/q 9'/e R'/e b7/q", "3/e 5/e b7/e 9'/q R'/e"} {
		notes, err := Parse(text)
		require.NoError(t, err)
		k := Lick{Chord: "7", Notes: notes}
		for _, f := range form.Forms {
			for _, root := range pitch.Roots {
				key := form.Key{Tonic: root, Minor: f.Minor}
				p := f.In(key)
				for _, low := range []int{0, 7} {
					for _, shape := range []bool{false, true} {
						where := []any{"%s: %s in %s, frets %d, shape %t", text, f.ID, root, low, shape}
						laid, err := k.Through(t.Context(), p, key, Aim{Shape: shape, Ground: Ground{In: in, Region: neck.Region{Low: low, High: low + 5}, Hand: neck.UsualHand}})
						require.NoError(t, err)
						assert.GreaterOrEqual(t, laid.Travel, 0.0)
						lies, starts := map[string]int{}, map[int]bool{}
						for _, place := range p.Places() {
							starts[p.BeatOf(place)*score.Tick] = true
						}
						first := 0
						for _, n := range laid.Notes {
							if !starts[n.Start] || n.Degree != string(k.Notes[0].Degree) {
								continue
							}
							chord, _ := score.Score{Progression: p}.ChordAt(n.Start)
							if before, known := lies[chord.String()]; known {
								assert.Equal(t, before, n.Pitch.MIDI(), where...)
							}
							lies[chord.String()] = n.Pitch.MIDI()
							if first == 0 {
								first = n.String
							}
							if shape {
								assert.Equal(t, first, n.String, where...)
							}
						}
						assert.NotEmpty(t, lies, where...)
					}
				}
			}
		}
	}
}
