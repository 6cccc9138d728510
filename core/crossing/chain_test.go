package crossing

import (
	"context"
	"errors"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
	"undaris/core/neck"
)

var wholeHand = neck.Hand{Comfort: 100}

func chordsOf(symbols ...string) (list []harmony.Chord) {
	for _, s := range symbols {
		list = append(list, harmony.MustParse(s))
	}
	return list
}

// The guide tones of a twelve-bar's changes lie a fret apart, both at once: 3 and ♭7 of C7
// are E and B♭, of F7 ♭7 and 3 are E♭ and A; through ii–V–I one of the two stays each time.
func TestGuideTonesMoveByAFret(t *testing.T) {
	guides := []harmony.Role{harmony.Third, harmony.Seventh}
	for _, fact := range []struct {
		chords    []harmony.Chord
		halfSteps int
		opening   string
		moves     []int // of the upper voice and the lower, chord by chord
	}{
		{chordsOf("C7", "F7"), 2, "3 b7", []int{-1, -1}},
		{chordsOf("C7", "F7"), 2, "b7 3", []int{-1, -1}},
		{chordsOf("C7", "G7"), 2, "b7 3", []int{1, 1}},
		{chordsOf("Dm7", "G7", "Cmaj7"), 2, "b7 b3", []int{-1, 0, 0, -1}},
	} {
		in := neck.Standard()
		chains, err := Chains(context.Background(), in, fact.chords, Ask{Region: neck.Region{High: 12}, Hand: wholeHand, Voices: 2, Allowed: guides})
		require.NoError(t, err)
		require.Len(t, chains, 2, "they can be turned over")
		at := slices.IndexFunc(chains, func(c Chain) bool { return opening(c.Links[0]) == fact.opening })
		require.GreaterOrEqual(t, at, 0, "%s from %s", fact.chords, fact.opening)
		assert.Equal(t, fact.halfSteps, chains[at].Cost.HalfSteps, fact.chords)
		var moves []int
		for _, l := range chains[at].Links[1:] {
			for _, tone := range l.Tones {
				moves = append(moves, tone.Move)
			}
		}
		assert.Equal(t, fact.moves, moves, "%s from %s", fact.chords, fact.opening)
	}
}

// Whatever is asked: every voice plays a tone of its chord in the region, on a string of
// its own, within the hand; and no chain found by trying at random costs less.
func TestChainsAreTheLeastThereAre(t *testing.T) {
	symbols := []string{"C7", "F7", "G7", "Am7", "Dm7b5", "Bdim7", "Ebmaj7", "A7#9"}
	rapid.Check(t, func(t *rapid.T) {
		in := neck.Standard()
		var chords []harmony.Chord
		for range rapid.IntRange(1, 4).Draw(t, "chords") {
			chords = append(chords, harmony.MustParse(rapid.SampledFrom(symbols).Draw(t, "chord")))
		}
		low := rapid.IntRange(0, 15).Draw(t, "low")
		ask := Ask{Region: neck.Region{Low: low, High: low + rapid.IntRange(2, 6).Draw(t, "wide")}, Hand: wholeHand, Voices: rapid.IntRange(1, 3).Draw(t, "voices")}
		ask.Region.Strings = rapid.SampledFrom([]neck.Strings{0, neck.StringsOf(5, 2), neck.StringsOf(1, 2, 3)}).Draw(t, "strings")
		chains, err := Chains(context.Background(), in, chords, ask)
		var none *NoLink
		if errors.As(err, &none) {
			require.Empty(t, voicings(in, chords[none.Chord], ask))
			return
		}
		require.NoError(t, err)
		require.NotEmpty(t, chains)
		for _, c := range chains {
			require.Len(t, c.Links, len(chords))
			var sum Cost
			for i, l := range c.Links {
				require.Len(t, l.Tones, ask.Voices)
				if i > 0 {
					sum = sum.plus(lead(in, &c.Links[i-1], &c.Links[i]))
				}
				for v, tone := range l.Tones {
					require.True(t, ask.Region.Has(tone.Placement))
					_, has := chords[i].ToneAt(in.MIDI(tone.Placement) % 12)
					require.True(t, has)
					if v > 0 {
						require.Greater(t, tone.String, l.Tones[v-1].String)
						require.Greater(t, l.Tones[v-1].MIDI, tone.MIDI)
					}
				}
			}
			require.Equal(t, 0, sum.compare(c.Cost))
		}
		var wandered Cost
		var way []Link
		for i, c := range chords {
			all := voicings(in, c, ask)
			way = append(way, all[rapid.IntRange(0, len(all)-1).Draw(t, "step")])
			if i > 0 {
				wandered = wandered.plus(lead(in, &way[i-1], &way[i]))
			}
		}
		for _, c := range chains {
			if opening(c.Links[0]) == opening(way[0]) {
				require.False(t, wandered.less(c.Cost))
			}
		}
	})
}

// Standing on the third of C7 at 2:5, the nearest tones of F7 are its ♭7 and R beside it.
func TestNearestFromTheHand(t *testing.T) {
	in := neck.Standard()
	for str := 1; str <= 6; str++ {
		for fret := range in.Last() + 1 {
			hand := neck.Placement{String: str, Fret: fret}
			chains, err := Chains(context.Background(), in, chordsOf("F7"), Ask{Region: neck.Region{High: in.Last()}, Hand: wholeHand, Voices: 1, From: &hand})
			require.NoError(t, err)
			require.Len(t, chains, 4)
			for i := 1; i < len(chains); i++ {
				a, b := chains[i-1].Links[0].Tones[0], chains[i].Links[0].Tones[0]
				assert.LessOrEqual(t, size(Move{HalfSteps: a.MIDI - in.MIDI(hand)}), size(Move{HalfSteps: b.MIDI - in.MIDI(hand)}))
			}
		}
	}
	hand := neck.Placement{String: 2, Fret: 5}
	chains, err := Chains(context.Background(), in, chordsOf("F7"), Ask{Region: neck.Region{High: in.Last()}, Hand: wholeHand, Voices: 1, From: &hand})
	require.NoError(t, err)
	near := []string{opening(chains[0].Links[0]), opening(chains[1].Links[0])}
	assert.ElementsMatch(t, []string{"b7", "R"}, near)
	assert.Equal(t, neck.Placement{String: 2, Fret: 4}, placeOf(chains, "b7"))
	assert.Equal(t, neck.Placement{String: 2, Fret: 6}, placeOf(chains, "R"))
}

func placeOf(chains []Chain, degree string) neck.Placement {
	for _, c := range chains {
		if opening(c.Links[0]) == degree {
			return c.Links[0].Tones[0].Placement
		}
	}
	return neck.Placement{}
}

func TestWhatNoHandHoldsIsSaid(t *testing.T) {
	in := neck.Standard()
	_, err := Chains(context.Background(), in, chordsOf("C7", "F7"), Ask{Region: neck.Region{Low: 5, High: 9, Strings: neck.StringsOf(3)}, Hand: wholeHand, Voices: 2})
	assert.EqualError(t, err, "no 2 tones of C7 lie under one hand in frets 5 to 9 on string 3")
	chains, err := Chains(context.Background(), in, []harmony.Chord{{None: true}}, Ask{Region: neck.Region{High: 5}, Voices: 1})
	assert.NoError(t, err)
	assert.Empty(t, chains)
}

func TestALadderInThePlayersOrder(t *testing.T) {
	ladder, err := ModeByID("ladder")
	require.NoError(t, err)
	order, err := harmony.ParseOrder("root,third,fifth,seventh")
	require.NoError(t, err)
	assert.Equal(t, [][]harmony.Role{{harmony.Root}, {harmony.Third}, {harmony.Fifth}, {harmony.Seventh}}, ladder.In(order).Choruses)
	assert.Equal(t, []harmony.Role{harmony.Third}, ladder.Allowed(0), "the table keeps its own")
	for _, m := range Modes {
		if m.ID != "ladder" {
			assert.Equal(t, m, m.In(order))
		}
	}
}
