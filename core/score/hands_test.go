package score

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// laid are notes one after the other, a beat each: string and fret.
func laid(in *neck.Instrument, places ...[2]int) (notes []Note) {
	for i, p := range places {
		place := neck.Placement{String: p[0], Fret: p[1]}
		midi := in.MIDI(place)
		notes = append(notes, Note{Start: i * Tick, Length: Tick, Placement: place, Pitch: pitch.At(midi, form.Key{}.Spell(midi%12))})
	}
	return notes
}

func fingersOf(notes []Note) (list []int) {
	for _, n := range notes {
		list = append(list, n.Finger)
	}
	return list
}

func TestAStretchIsToldWithThePlaceWhereItFits(t *testing.T) {
	in := neck.Standard()
	notes := laid(in, [2]int{4, 1}, [2]int{4, 3}, [2]int{4, 5}) // E♭ F G: five frets at the nut
	Finger(in, notes, neck.UsualHand)
	require.Equal(t, []int{1, 3, 4}, fingersOf(notes))
	list := Stretches(in, notes, neck.UsualHand)
	require.Len(t, list, 1)
	s := list[0]
	assert.Equal(t, [2]int{1, 5}, [2]int{s.Low, s.High})
	assert.InDelta(t, 126, s.Millimetres, 1)
	assert.Contains(t, s.Says(), "126 mm, frets 1 to 5: warm up first, or play it at frets ")
	for i, p := range s.Places {
		assert.Equal(t, notes[i].Pitch.MIDI(), in.MIDI(p))
		assert.True(t, s.There.Has(p))
	}
	higher := laid(in, [2]int{4, 8}, [2]int{4, 10}, [2]int{4, 12})
	Finger(in, higher, neck.UsualHand)
	assert.Empty(t, Stretches(in, higher, neck.UsualHand), "five frets from the eighth on are within reach")
	lowest := laid(in, [2]int{6, 1}, [2]int{6, 3}, [2]int{6, 5}) // lies nowhere else below the string's fifth fret
	Finger(in, lowest, neck.UsualHand)
	for _, s := range Stretches(in, lowest, neck.UsualHand) {
		assert.Zero(t, s.There)
		assert.Contains(t, s.Says(), "it lies nowhere narrower")
	}
}

// Whatever is told to fit does: the same pitches, within the hand, over any notes, any hand and any tuning.
func TestWhereAStretchFits(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tuning := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
		in, err := neck.New(tuning.Open, 22, 648, rapid.IntRange(0, 5).Draw(t, "capo"))
		require.NoError(t, err)
		hand := neck.Hand{Comfort: float64(rapid.IntRange(50, 140).Draw(t, "comfort"))}
		low := rapid.IntRange(0, 8).Draw(t, "low")
		notes := []Note{}
		for i := range rapid.IntRange(2, 9).Draw(t, "count") {
			p := neck.Placement{String: rapid.IntRange(1, in.Strings()).Draw(t, "string"), Fret: low + rapid.IntRange(0, 5).Draw(t, "fret")}
			notes = append(notes, Note{Start: i * Tick, Length: Tick, Placement: p, Pitch: pitch.At(in.MIDI(p), form.Key{}.Spell(in.MIDI(p)%12))})
		}
		Finger(in, notes, hand)
		touches := Hands(in, notes, hand)
		require.NotNil(t, touches, "every note has a finger")
		wide := map[int]bool{}
		for _, s := range Stretches(in, notes, hand) {
			require.Greater(t, s.Millimetres, hand.Comfort)
			for i := s.From; i <= s.To; i++ {
				wide[i] = true
			}
			if s.There.High == 0 {
				continue
			}
			there := append([]Note(nil), notes[s.From:s.To+1]...)
			for i, p := range s.Places {
				require.Equal(t, there[i].Pitch.MIDI(), in.MIDI(p))
				there[i].Placement = p
			}
			Finger(in, there, hand)
			require.True(t, in.Widest(Hands(in, there, hand), hand).Comfortable, "%v", s)
		}
		// Untold: two notes that follow each other under one hand and are further apart than its comfort.
		for i := 1; i < len(notes); i++ {
			a, b := touches[i-1], touches[i]
			if a.Fret > 0 && b.Fret > 0 && a.Hand == b.Hand && in.Reach(a.Fret, b.Fret) > hand.Comfort+0.5 {
				require.True(t, wide[i], "frets %d and %d, %.0f mm", a.Fret, b.Fret, in.Reach(a.Fret, b.Fret))
			}
		}
	})
}

func TestABendWhileAnotherNoteHolds(t *testing.T) {
	in := neck.Standard()
	unison := laid(in, [2]int{2, 8}, [2]int{1, 5})
	unison[1].Start = 0
	unison[0].Bend = 4
	Finger(in, unison, neck.UsualHand)
	assert.Equal(t, []int{3, 1}, fingersOf(unison), "the third finger bends, and the first holds")
	under := laid(in, [2]int{1, 8}, [2]int{2, 8})
	under[0].Length = 2 * Tick
	under[1].Bend = 4
	Finger(in, under, neck.UsualHand)
	assert.Equal(t, []int{4, 3}, fingersOf(under), "the little finger holds, and the third bends under it")
	let := laid(in, [2]int{1, 8}, [2]int{2, 8})
	let[1].Bend = 4
	Finger(in, let, neck.UsualHand)
	assert.Equal(t, 3, let[1].Finger, "what is let go is no matter")
}

func TestDeeds(t *testing.T) {
	in := neck.Standard()
	rolled := laid(in, [2]int{2, 5}, [2]int{1, 5})
	rolled[0].Finger, rolled[1].Finger = 1, 1
	assert.Equal(t, []string{"", "finger 1 rolls over from string 2, which falls silent"}, Deeds(rolled))
	rested := laid(in, [2]int{2, 5}, [2]int{1, 5})
	rested[0].Finger, rested[1].Finger, rested[1].Start = 1, 1, 3*Tick
	assert.Equal(t, []string{"", ""}, Deeds(rested))
	octave := laid(in, [2]int{5, 3}, [2]int{3, 5})
	octave[1].Start = 0
	octave[0].Finger, octave[1].Finger = 1, 3
	assert.Equal(t, "string 4 is silenced by a finger beside it", Deeds(octave)[0])
	tenth := laid(in, [2]int{6, 5}, [2]int{3, 6}, [2]int{2, 5})
	tenth[1].Start, tenth[2].Start = 0, 0
	tenth[0].Finger, tenth[1].Finger, tenth[2].Finger = 1, 2, 1
	assert.Equal(t, "finger 1 lies flat over 2 strings; strings 4 and 5 are silenced by fingers beside them", Deeds(tenth)[0])
}

// At the tempo that is told the notes have time, and not at the next; over every pace and tempo.
func TestTooQuick(t *testing.T) {
	for _, gap := range []int{40, 80, 120, 160, 240, 320, 480, 960} {
		for tempo := form.MinTempo; tempo <= form.MaxTempo; tempo++ {
			s := Score{Tempo: tempo, Progression: form.Progression{Beats: 4, Bars: make([]form.Bar, 4)}, In: neck.Standard()}
			s.Notes = laid(s.In, [2]int{1, 5}, [2]int{1, 8})
			s.Notes[1].Start = gap
			says := s.TooQuick()
			if ms := float64(gap) / Tick * 60_000 / float64(tempo); ms >= 60 {
				require.Empty(t, says)
				continue
			}
			var most int
			if _, after, found := strings.Cut(says, "up to "); found {
				_, err := fmt.Sscan(after, &most)
				require.NoError(t, err)
				s.Tempo = most
				require.Empty(t, s.TooQuick())
				s.Tempo = most + 1
				require.NotEmpty(t, s.TooQuick())
				continue
			}
			require.Contains(t, says, "at any tempo")
			s.Tempo = form.MinTempo
			require.NotEmpty(t, s.TooQuick())
		}
	}
}

func TestWhatNoFingerIsLeftFor(t *testing.T) {
	in := neck.Standard()
	s := Score{Tempo: 100, Progression: form.Progression{Beats: 4, Bars: make([]form.Bar, 4)}, In: in}
	s.Notes = laid(in, [2]int{1, 8}, [2]int{2, 8})
	s.Notes[0].Length, s.Notes[1].Bend = 2*Tick, 4
	Finger(in, s.Notes, neck.UsualHand)
	assert.Empty(t, s.Undone(Hands(in, s.Notes, neck.UsualHand)), "the little finger holds, the third bends")
	s.Notes = laid(in, [2]int{1, 3}, [2]int{2, 12})
	s.Notes[0].Length = 2 * Tick
	Finger(in, s.Notes, neck.UsualHand)
	assert.Equal(t, "no finger is left for it while the note before is held at B4 in bar 1", s.Undone(Hands(in, s.Notes, neck.UsualHand)))
	s.Notes = laid(in, [2]int{1, 7})
	s.Notes[0].Trill, s.Notes[0].Finger = 2, 4
	assert.Contains(t, s.Undone(Hands(in, s.Notes, neck.UsualHand)), "no finger is left for what adorns it at B4")
	Finger(in, s.Notes, neck.UsualHand)
	assert.Empty(t, s.Undone(Hands(in, s.Notes, neck.UsualHand)))
}
