package lick

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
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

func must(t require.TestingT, text string) Lick {
	notes, err := Parse(text)
	require.NoError(t, err)
	return Lick{Chord: "7", Notes: notes}
}

func ground(low, high int) Ground {
	return Ground{In: neck.Standard(), Region: neck.Region{Low: low, High: high}, Hand: neck.UsualHand}
}

// frets shows where notes lie.
func frets(notes []score.Note) string {
	var out []string
	for _, n := range notes {
		out = append(out, fmt.Sprintf("%d:%d", n.String, n.Fret))
	}
	return strings.Join(out, " ")
}

func TestTextOfALick(t *testing.T) {
	l := must(t, "5,/e b7,/e | R/q b3/e>s 3+5/eh^2 -/q R'/h.~")
	assert.Equal(t, -960, l.Notes[0].Start)
	assert.Equal(t, Note{Start: 960, Length: 480, Degree: "b3", Ornaments: score.Ornaments{Join: score.Slide, Accent: true}}, l.Notes[3])
	assert.Equal(t, l.Notes[4].Start, l.Notes[5].Start)
	last := l.Notes[len(l.Notes)-1]
	assert.Equal(t, Note{Start: 2880, Length: 2880, Degree: "R", Octave: 1, Ornaments: score.Ornaments{Vibrato: true}}, last)
	for text, says := range map[string]string{
		"": "at least one", "8/q": "no degree", "R": "no length", "R/z": "no length", "R/q?": "no way to play",
		"R/": "missing", "R'''''/q": "beyond a neck",
	} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
}

func TestMovingALickThroughAllKeysAndBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := Lick{Chord: rapid.SampledFrom([]string{"7", "m7", "maj7", ""}).Draw(t, "chord")}
		degrees := []harmony.Degree{"R", "9", "b3", "3", "11", "b5", "5", "6", "b7", "7", "b9", "b13"}
		now := 0
		for range rapid.IntRange(1, 9).Draw(t, "notes") {
			length := rapid.SampledFrom([]int{240, 320, 480, 960}).Draw(t, "length")
			l.Notes = append(l.Notes, Note{Start: now, Length: length, Degree: rapid.SampledFrom(degrees).Draw(t, "degree"), Octave: rapid.IntRange(0, 1).Draw(t, "octave")})
			now += length
		}
		l = l.Settled()
		for _, tonic := range pitch.Roots {
			chord := harmony.MustParse(tonic.String() + l.Chord)
			g := ground(0, 14)
			notes, err := l.Realise(chord, 1920, g)
			require.NoError(t, err)
			for i, n := range notes {
				require.Equal(t, n.Pitch.MIDI(), g.In.MIDI(n.Placement))
				require.True(t, n.Fret <= 14 && n.Finger >= 0 && n.Finger <= 4 && (n.Fret == 0) == (n.Finger == 0))
				if i > 0 && notes[i-1].String == n.String && notes[i-1].Fret < n.Fret && n.Fret > 0 && notes[i-1].Fret > 0 {
					require.LessOrEqual(t, notes[i-1].Finger, n.Finger, "a higher fret takes no lower finger")
				}
			}
			back := Of(notes, chord, 1920, false)
			for i := range back.Notes {
				back.Notes[i].String = 0
				require.Equal(t, l.Notes[i].above(), back.Notes[i].above(), "in %s", tonic)
			}
			require.Equal(t, l, back, "in %s", tonic)
		}
	})
}

func TestDegreesFollowTheChordWhenAsked(t *testing.T) {
	l := must(t, "R/e 3/e 5/e b7/e")
	g := ground(5, 9)
	notes, err := l.Realise(harmony.MustParse("Am7"), 0, g)
	require.NoError(t, err)
	assert.Equal(t, "C#", notes[1].Pitch.Name.String())
	g.Follow = true
	notes, err = l.Realise(harmony.MustParse("Am7"), 0, g)
	require.NoError(t, err)
	assert.Equal(t, []string{"R", "b3", "5", "b7"}, []string{notes[0].Degree, notes[1].Degree, notes[2].Degree, notes[3].Degree})
	assert.Equal(t, "C", notes[1].Pitch.Name.String())
}

func TestWhatDoesNotFitIsNamed(t *testing.T) {
	l := must(t, "R/e 3'/e R''/e R'''/e")
	_, err := l.Realise(harmony.MustParse("C7"), 0, ground(7, 11))
	var misfit *Misfit
	require.ErrorAs(t, err, &misfit)
	assert.NotEmpty(t, misfit.Notes)
	assert.ErrorContains(t, err, "C")
	bent := must(t, "3/q^2")
	_, err = bent.Realise(harmony.MustParse("C7"), 0, Ground{In: neck.Standard(), Region: neck.Region{Low: 0, High: 0}, Hand: neck.UsualHand})
	assert.ErrorContains(t, err, "cannot be had")
}

func TestTheSameShapeAndTheNearerOne(t *testing.T) {
	l := must(t, "R/e 3/e 5/e R'/q")
	g := ground(7, 11)
	home, err := l.Realise(harmony.MustParse("C7"), 0, g)
	require.NoError(t, err)
	ways := l.Ways(home, harmony.MustParse("F7"), 3840, g)
	require.NoError(t, ways[0].Err)
	require.NoError(t, ways[1].Err)
	for i, n := range ways[0].Notes {
		assert.Equal(t, home[i].String, n.String, "the shape keeps its strings")
		assert.Equal(t, 5, n.Fret-home[i].Fret)
	}
	for _, n := range ways[1].Notes {
		assert.True(t, n.Fret >= 7 && n.Fret <= 11, "in place stays in place")
	}
	assert.Greater(t, ways[0].Travel, ways[1].Travel)
}

func TestThroughTheChangesEveryVersionLands(t *testing.T) {
	l := must(t, "R/e 9/e b3/es 3/e 5/e 6/e R'/q")
	for _, f := range form.Forms {
		for _, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic, Minor: f.Minor}
			p := f.In(key)
			for _, pos := range neck.Standard().Positions(tonic.Class()) {
				g := ground(pos.Low, pos.High)
				g.Follow = true
				laid, err := l.Through(t.Context(), p, key, Aim{Land: true, Ground: g})
				notes, said := laid.Notes, laid.Said
				require.NoError(t, err)
				s := score.Score{Progression: p, In: g.In, Key: key, Notes: notes}
				require.NoError(t, s.Check(), "%s in %s at %d", f.ID, key, pos.Low)
				landings := 0
				stretches := stretchesOf(p)
				for _, x := range stretches[1:] {
					for _, n := range notes {
						if n.Start == x.from {
							_, tone := x.chord.ToneAt(n.Pitch.MIDI() % 12)
							require.True(t, tone, "%s in %s: %s at %d over %s", f.ID, key, n.Pitch, n.Start, x.chord)
							landings++
						}
					}
				}
				require.True(t, landings >= len(stretches)-1 || len(said) > 0, "%s: %d of %d land", f.ID, landings, len(stretches)-1)
			}
		}
	}
}

// TestLandingsAreFoundWithAtMostTwoEdits tries 1,000 licks over changes.
func TestLandingsAreFoundWithAtMostTwoEdits(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 7))
	chords := []string{"C7", "F7", "G7", "Am7", "D7", "Bb7", "Ebmaj7", "F#dim7", "Dm7b5", "C6"}
	found, reasons := 0, 0
	for range 1000 {
		g := ground(rng.IntN(12), 0)
		g.Region.High = g.Region.Low + 4
		var phrase []score.Note
		now := rng.IntN(4) * 480
		for range 2 + rng.IntN(7) {
			p := neck.Placement{String: 1 + rng.IntN(4), Fret: g.Region.Low + rng.IntN(5)}
			length := []int{240, 320, 480, 960}[rng.IntN(4)]
			midi := g.In.MIDI(p)
			phrase = append(phrase, score.Note{Start: now, Length: length, Placement: p, Pitch: pitch.At(midi, form.Key{}.Spell(midi%12))})
			now += length
		}
		last := phrase[len(phrase)-1]
		l := Landing{At: (last.Start/960 + rng.IntN(3)) * 960, Chord: harmony.MustParse(chords[rng.IntN(len(chords))]), Key: form.Key{}.Spell, Ground: g}
		proposals, why := l.Fit(t.Context(), phrase)
		if l.Landed(phrase) {
			continue
		}
		if len(proposals) == 0 {
			reasons++
			require.NotEmpty(t, why)
			continue
		}
		found++
		require.True(t, slices.IsSortedFunc(proposals, func(a, b Proposal) int { return int(1000*a.Cost) - int(1000*b.Cost) }))
		for _, p := range proposals {
			require.LessOrEqual(t, len(p.Says), 2)
			require.True(t, l.Landed(p.Notes), p.Says)
			for _, n := range p.Notes {
				require.Equal(t, n.Pitch.MIDI(), g.In.MIDI(n.Placement), p.Says)
			}
		}
	}
	t.Logf("%d found, %d with a reason why not", found, reasons)
	assert.Greater(t, found, 900)
}

func TestTheSmallestEditsComeFirst(t *testing.T) {
	g := ground(7, 11)
	// E over C7, a beat before F7: it wants to start a beat later, or to end on F.
	phrase := []score.Note{
		{Start: 1920, Length: 480, Placement: neck.Placement{String: 3, Fret: 7}, Pitch: pitch.Pitch{Name: pitch.Name{Letter: 1}, Octave: 4}},
		{Start: 2400, Length: 960, Placement: neck.Placement{String: 3, Fret: 8}, Pitch: pitch.Pitch{Name: pitch.Name{Letter: 2, Alter: -1}, Octave: 4}},
	}
	l := Landing{At: 2400, Chord: harmony.MustParse("F7"), Key: form.Key{}.Spell, Ground: g}
	_, why := l.Fit(t.Context(), phrase)
	assert.Equal(t, "it lands already", why, "E flat is the seventh of F7")
	l.At = 2880
	proposals, _ := l.Fit(t.Context(), phrase)
	require.NotEmpty(t, proposals)
	assert.Equal(t, []string{"start half a beat later"}, proposals[0].Says)
	l.Chord, l.At = harmony.MustParse("C7"), 2400
	proposals, _ = l.Fit(t.Context(), phrase)
	var says []string
	for _, p := range proposals {
		says = append(says, p.Says...)
	}
	assert.Contains(t, says, "end on E, the 3")
	assert.Contains(t, says, "bend the last note to E, the 3")
	l.Chord = harmony.Chord{None: true}
	_, why = l.Fit(t.Context(), phrase)
	assert.Contains(t, why, "silent")
}

func TestReaimingGoesFromAllBoxToAllChordTones(t *testing.T) {
	l := must(t, "R/e b3/e 11/e 5/e b7/e 5/e 11/e b3/e")
	l.OfKey, l.Chord = true, "m"
	key := form.Key{}
	f, _ := form.FormByID("quick-change")
	p := f.In(key)
	g := ground(7, 11)
	laid, err := l.Through(t.Context(), p, key, Aim{Ground: g})
	notes := laid.Notes
	require.NoError(t, err)
	s := score.Score{Progression: p, In: g.In, Key: key, Notes: notes}
	before := -1
	share := map[float64]int{}
	for _, amount := range []float64{0, 0.25, 0.5, 0.75, 1} {
		out, turns, _, err := Reaim(t.Context(), s, amount, false, g.Region, g.Hand)
		require.NoError(t, err)
		share[amount] = len(turns)
		require.Len(t, out, len(notes))
		tones := 0
		for i, n := range out {
			assert.Equal(t, notes[i].Start, n.Start, "the rhythm stays")
			chord, _ := s.ChordAt(n.Start)
			if _, ok := chord.ToneAt(n.Pitch.MIDI() % 12); ok {
				tones++
			}
		}
		assert.GreaterOrEqual(t, tones, before, "more is more")
		before = tones
		switch amount {
		case 0:
			assert.Empty(t, turns)
			assert.Equal(t, frets(notes), frets(out))
		case 1:
			assert.Equal(t, len(out), tones)
			assert.NotEmpty(t, turns[0].Why)
		}
	}
	assert.True(t, share[0.25] < share[0.5] && share[0.5] < share[0.75] && share[0.75] < share[1], "the slider matters: %v", share)
}

// Bends only: every note stays where it is fretted.
func TestReaimingByBendsAlone(t *testing.T) {
	g := ground(7, 12)
	p, err := form.Read("| C7 | F7 | C7 | G7 |", 4, form.Key{})
	require.NoError(t, err)
	s := score.Score{Progression: p, In: g.In, Key: form.Key{}}
	for bar := range 4 { // D on string 2, E flat in the third bar, twice a bar
		for k := range 2 {
			place := neck.Placement{String: 2, Fret: 15}
			s.Notes = append(s.Notes, score.Note{Start: bar*3840 + k*1920, Length: 960, Placement: place, Pitch: pitch.At(g.In.MIDI(place), pitch.Name{Letter: 1})})
		}
	}
	out, turns, _, err := Reaim(t.Context(), s, 1, true, g.Region, g.Hand)
	require.NoError(t, err)
	var bends []int
	for i, n := range out {
		assert.Equal(t, s.Notes[i].Placement, n.Placement)
		if i%2 == 0 {
			bends = append(bends, n.Bend)
		}
	}
	assert.Equal(t, []int{4, 2, 4, 0}, bends, "to E, to E flat, to E, and none to the fifth of G7")
	assert.NotEmpty(t, turns)
}

// Double stops go through the changes and can be kept; what has to be picked is said.
func TestDoubleStopsGoThroughTheChanges(t *testing.T) {
	l := must(t, "3+5/q b3+5/e 3+5/e R+3/h")
	for _, f := range form.Forms {
		for _, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic, Minor: f.Minor}
			p := f.In(key)
			for _, land := range []bool{false, true} {
				g := ground(5, 12)
				g.Follow = true
				laid, err := l.Through(t.Context(), p, key, Aim{Ground: g, Land: land})
				notes := laid.Notes
				require.NoError(t, err)
				s := score.Score{Progression: p, In: g.In, Key: key, Notes: notes}
				require.NoError(t, s.Check(), "%s in %s", f.ID, key)
			}
		}
	}
}

func TestTheLandingIsAdded(t *testing.T) {
	g := ground(7, 11)
	at := func(fret int) neck.Placement { return neck.Placement{String: 3, Fret: fret} }
	phrase := []score.Note{
		{Start: 1920, Length: 480, Placement: at(9), Pitch: pitch.At(64, pitch.Name{Letter: 2})},
		{Start: 2400, Length: 480, Placement: at(10), Pitch: pitch.At(65, pitch.Name{Letter: 3})},
	}
	l := Landing{At: 3840, Chord: harmony.MustParse("C7"), Key: form.Key{}.Spell, Ground: g}
	proposals, why := l.Fit(t.Context(), phrase)
	require.NotEmpty(t, proposals, why)
	assert.Equal(t, []string{"add E, the 3, on the change"}, proposals[0].Says)
	seen := map[string]bool{}
	for _, p := range proposals {
		key := strings.Join(slices.Sorted(slices.Values(p.Says)), ";")
		assert.False(t, seen[key], "twice: %s", key)
		seen[key] = true
	}
}

// Over a slow change a lick is heard from the first bar on, not only where it lands.
func TestALickSoundsInEveryPartOfASlowChange(t *testing.T) {
	f, known := form.FormByID("slow-change")
	require.True(t, known)
	key := form.Key{Tonic: pitch.Name{Letter: 5}}
	phrase, err := Parse("R/e 3/e 5/e 6/e b7/q")
	require.NoError(t, err)
	l := Lick{Chord: "7", Notes: phrase}
	for _, land := range []bool{true, false} {
		laid, err := l.Through(t.Context(), f.In(key), key, Aim{Land: land, Ground: Ground{In: neck.Standard(), Region: neck.Region{Low: 2, High: 8}, Hand: neck.UsualHand}})
		notes := laid.Notes
		require.NoError(t, err)
		bars := map[int]int{}
		for _, n := range notes {
			bars[n.Start/(4*score.Tick)]++
		}
		assert.Positive(t, bars[0], "bar 1, landing %v", land)
		assert.True(t, bars[1]+bars[2] > 0, "bars 2 and 3, landing %v", land)
		if land {
			assert.Positive(t, bars[3], "and into bar 5")
		}
	}
}
