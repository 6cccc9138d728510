package edit

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// within says that every note of a line begins in it or in its pickup, in order.
func within(t *testing.T, l Line, what ...any) {
	t.Helper()
	assert.True(t, slices.IsSortedFunc(l.Notes, func(a, b score.Note) int { return a.Start - b.Start }), what...)
	for _, n := range l.Notes {
		assert.GreaterOrEqual(t, n.Start, -l.MostPickup(), what...)
		assert.Less(t, n.Start, l.End(), what...)
	}
}

// A lick that is longer than what is left of the line, or whose pickup begins before it may, is laid
// as far as the line goes, in every bar.
func TestALickIsLaidWithinTheLine(t *testing.T) {
	const pickup, beats = 6, 9
	var k lick.Lick
	k.Chord = "7"
	for beat := -pickup; beat < beats; beat++ {
		k.Notes = append(k.Notes, lick.Note{Start: beat * score.Tick, Length: score.Tick, Degree: "5"})
	}
	for bar := 1; bar <= 3; bar++ {
		l := plain(t, 0, 1920, 7680, 4*3840-240)
		require.NoError(t, l.PutLick(k, bar, false), bar)
		within(t, l, "bar", bar)
		at := l.At(bar - 1)
		var laid int
		for _, n := range l.Notes {
			if n.Length == score.Tick {
				laid++
			}
		}
		from, to := max(-l.MostPickup(), at-pickup*score.Tick), min(l.End(), at+beats*score.Tick)
		assert.Equal(t, (to-from)/score.Tick, laid, "bar %d", bar)
		// What lies beyond it is still there.
		for _, start := range []int{0, 1920, 7680, 4*3840 - 240} {
			there := slices.ContainsFunc(l.Notes, func(n score.Note) bool { return n.Start == start && n.Length == 240 })
			assert.Equal(t, start < from || start >= to, there, "bar %d, tick %d", bar, start)
		}
	}
}

// Whatever is proposed leaves a line in order, with numbers of its own for what is new, and touches
// nothing beyond the phrase that leads there.
func TestAFixTouchesItsPhraseAlone(t *testing.T) {
	ticks := []int{0, 240, 480, 960, 1440, 1920, 2400, 2880, 3360, 3840, 4800, 5280, 5760, 6240, 6720, 7200, 7680, 8640, 9600, 10560}
	found := 0
	for _, at := range []int{1920, 3840, 5280, 7680} {
		l := plain(t, ticks...)
		fixes, why, err := l.Fixes(t.Context(), at)
		require.NoError(t, err)
		assert.True(t, len(fixes) > 0 || why != "", at)
		from, _ := l.phraseInto(at)
		for _, f := range fixes {
			found++
			now := l.Apply(f)
			within(t, now, at)
			assert.NotEmpty(t, f.Says)
			for i, n := range now.Notes[1:] {
				assert.LessOrEqual(t, now.Notes[i].End(), n.Start, "tick %d: two notes at once", at)
			}
			seen := map[int]bool{}
			for _, n := range now.Notes {
				assert.False(t, seen[n.ID], "number %d twice", n.ID)
				seen[n.ID] = true
			}
			for i, n := range l.Notes[:from] {
				assert.Equal(t, n.Start, now.Notes[i].Start)
				assert.Equal(t, n.Pitch, now.Notes[i].Pitch)
			}
			for _, n := range l.Notes {
				if n.Start > at+2*score.Tick {
					assert.Contains(t, ids(now.Notes), n.ID, "what comes after the landing stays")
				}
			}
		}
	}
	assert.Positive(t, found)
	for _, tick := range []int{-1, 4 * 3840} {
		_, _, err := plain(t, 0).Fixes(t.Context(), tick)
		assert.ErrorIs(t, err, ErrNoBeat)
	}
}

// In another key a line keeps its notes. Where its shape cannot go along, that is said; where it can,
// or nothing changes, nothing is.
func TestMovedToEveryKey(t *testing.T) {
	runs, slid := 0, 0
	for _, low := range []int{5, 17} {
		for class := range 12 {
			l := plain(t, 0, 480, 960, 3840, 7680)
			l.Region = neck.Region{Low: low, High: low + 4}
			for i := range l.Notes {
				l.Notes[i].Fret += low - 5
				l.Notes[i].Pitch = pitch.At(l.In.MIDI(l.Notes[i].Placement), l.Key.Spell(l.In.MIDI(l.Notes[i].Placement)%12))
			}
			key := form.Key{Tonic: pitch.Roots[class]}
			for _, shape := range []bool{true, false} {
				now, err := l.Move(key, shape)
				require.NoError(t, err, class)
				require.Len(t, now.Notes, len(l.Notes))
				said := strings.Join(now.Said, " ")
				for i, n := range now.Notes {
					assert.Equal(t, ((n.Pitch.MIDI()-l.Notes[i].Pitch.MIDI()-key.Tonic.Class())%12+12)%12, 0, "%d: the same step of the key", class)
					assert.Equal(t, now.In.MIDI(n.Placement), n.Pitch.MIDI())
				}
				if !shape {
					assert.NotContains(t, said, "runs off")
					continue
				}
				by := now.Notes[0].Fret - l.Notes[0].Fret
				same := true
				for i, n := range now.Notes {
					same = same && n.Fret-l.Notes[i].Fret == by && n.String == l.Notes[i].String
				}
				if runs++; strings.Contains(said, "runs off") {
					assert.NotZero(t, key.Tonic.Class())
					assert.False(t, same && by != 0)
				} else {
					slid++
					assert.True(t, same, "%d: the shape goes along", class)
					assert.Equal(t, l.Region.Low+by, now.Region.Low, "and so does its window")
				}
			}
		}
	}
	assert.Greater(t, slid, runs/2)
	assert.Less(t, slid, runs+1)
}

// A tempo that can be played is kept and not spoken of; any other becomes the nearest that can, which is said.
func TestATempoFromAFile(t *testing.T) {
	for tempo, want := range map[int]int{1: form.MinTempo, form.MinTempo - 1: form.MinTempo, form.MinTempo: form.MinTempo, 96: 96, form.MaxTempo: form.MaxTempo, form.MaxTempo + 1: form.MaxTempo, 9999: form.MaxTempo} {
		l := plain(t, 0, 480)
		s := l.Score
		s.Tempo = tempo
		now, err := Import(s, nil, l.Score, neck.UsualHand)
		require.NoError(t, err)
		assert.Equal(t, want, now.Tempo)
		assert.Equal(t, want != tempo, strings.Contains(strings.Join(now.Said, " "), "tempo"), tempo)
	}
}

// Laid on the instrument that it is on, a line keeps every place; on another that cannot slide or hammer there, that is said.
func TestWhatLayingTells(t *testing.T) {
	l := plain(t, 0, 480, 960)
	l.Notes[1].Placement.Fret, l.Notes[1].Join = 8, score.Hammer
	for i := range l.Notes {
		l.Notes[i].Pitch = pitch.At(l.In.MIDI(l.Notes[i].Placement), l.Key.Spell(l.In.MIDI(l.Notes[i].Placement)%12))
	}
	now, done, err := Lay(l, l.In, neck.UsualHand)
	require.NoError(t, err)
	assert.Equal(t, Laid{}, done)
	assert.Equal(t, "every note keeps its place", done.Says())
	assert.Equal(t, score.Hammer, now.Notes[1].Join)

	assert.Equal(t, 1, joined(l.Notes))
	for what, n := range map[string]score.Note{
		"hammered": {Ornaments: score.Ornaments{Join: score.Hammer}}, "slid": {Ornaments: score.Ornaments{Join: score.Slide}}, "scooped": {Ornaments: score.Ornaments{Scoop: 1}}, "bent a half step and more": {Ornaments: score.Ornaments{Bend: 3}},
	} {
		assert.Equal(t, 1, joined([]score.Note{n}), what)
	}
	for what, n := range map[string]score.Note{"picked": {}, "bent a half step": {Ornaments: score.Ornaments{Bend: 2}}} {
		assert.Zero(t, joined([]score.Note{n}), what)
	}
	for _, c := range []struct {
		Laid
		says string
	}{
		{Laid{Moved: 2}, "2 notes take another place on the neck; none is left out"},
		{Laid{Octaves: 1}, "1 change their octave, since the neck does not reach them; none is left out"},
		{Laid{Moved: 1, Plain: true}, "1 notes take another place on the neck; slides, hammer-ons and wide bends become plain notes, since no hand can play them there; none is left out"},
	} {
		assert.Equal(t, c.says, c.Says())
	}
}

// The window around a score is what its fretted notes span, where a hand with a stretch holds that;
// else the position of the key that holds most of them.
func TestTheWindowHoldsWhatItCan(t *testing.T) {
	at := func(frets ...int) Line {
		l := plain(t)
		for i, f := range frets {
			place := neck.Placement{String: 1 + i%6, Fret: f}
			l.Notes = append(l.Notes, score.Note{ID: i + 1, Start: i * 240, Length: 240, Placement: place, Pitch: pitch.At(l.In.MIDI(place), l.Key.Spell(l.In.MIDI(place)%12))})
		}
		return l
	}
	for _, c := range []struct {
		frets     []int
		low, high int
	}{
		{[]int{5, 7, 8}, 5, 8}, {[]int{5, 5}, 5, 8}, {[]int{5, 12}, 5, 12}, {[]int{0, 5, 6}, 5, 8}, {[]int{1}, 1, 4}, {[]int{3, 10}, 3, 10},
	} {
		r := Around(at(c.frets...).Score)
		assert.Equal(t, [2]int{c.low, c.high}, [2]int{r.Low, r.High}, "%v", c.frets)
	}
	for _, frets := range [][]int{{5, 13}, {2, 3, 4, 15}, {7, 8, 9, 10, 19}, {0, 0, 0}} {
		l := at(frets...)
		r := Around(l.Score)
		held := func(r neck.Region) (n int) {
			for _, f := range frets {
				if f >= r.Low && f <= r.High {
					n++
				}
			}
			return n
		}
		for _, p := range l.In.Positions(l.Key.Tonic.Class()) {
			assert.GreaterOrEqual(t, held(r), held(p.Region), "%v: %v holds more than %v", frets, p.Region, r)
		}
		assert.True(t, slices.ContainsFunc(l.In.Positions(l.Key.Tonic.Class()), func(p neck.Position) bool { return p.Low == r.Low && p.High == r.High }), "%v", frets)
	}
}

// Where nothing sounds a lick of a chord cannot be laid.
func TestALickNeedsAChord(t *testing.T) {
	l := plain(t, 0)
	k := lick.Of(l.Notes, harmony.MustParse("C7"), 0, false)
	assert.ErrorIs(t, l.PutLick(k, 4, false), ErrSilent)
}

// A guess of how a note is reached stays where the places found bear it out, and nowhere else.
func TestGuessesThatThePlacesBearOut(t *testing.T) {
	for what, c := range map[string]struct {
		before, fret int // before is −1 where nothing stands on the string
		join         score.Join
		scoop        int
		stays        bool
	}{
		"hammered upwards":             {5, 7, score.Hammer, 0, true},
		"hammered one fret upwards":    {6, 7, score.Hammer, 0, true},
		"hammered downwards":           {7, 5, score.Hammer, 0, false},
		"hammered onto the same fret":  {7, 7, score.Hammer, 0, false},
		"pulled off downwards":         {7, 5, score.PullOff, 0, true},
		"pulled off upwards":           {5, 7, score.PullOff, 0, false},
		"pulled off to the same fret":  {5, 5, score.PullOff, 0, false},
		"slid upwards":                 {5, 7, score.Slide, 0, true},
		"slid downwards":               {7, 5, score.Slide, 0, true},
		"slid to the same fret":        {7, 7, score.Slide, 0, false},
		"hammered from nothing":        {-1, 7, score.Hammer, 0, false},
		"scooped from above the nut":   {5, 7, score.Picked, 2, true},
		"scooped from the nut":         {5, 2, score.Picked, 2, true},
		"scooped from beyond the nut":  {5, 1, score.Picked, 2, false},
		"scooped onto an open string":  {5, 0, score.Picked, 1, false},
		"scooped down onto a fret":     {5, 7, score.Picked, -2, true},
		"a plain note that was a slip": {5, 7, score.Picked, 0, true},
	} {
		l := plain(t)
		if c.before >= 0 {
			l.Notes = append(l.Notes, score.Note{ID: 1, Length: 480, Placement: neck.Placement{String: 3, Fret: c.before}})
		}
		n := score.Note{ID: 2, Start: 480, Length: 480, Placement: neck.Placement{String: 3, Fret: c.fret}}
		n.Join, n.Scoop, n.JoinGuessed = c.join, c.scoop, true
		l.Notes = append(l.Notes, n)
		l.unjoin()
		got := l.Notes[len(l.Notes)-1]
		if c.stays {
			assert.Equal(t, n, got, what)
		} else {
			assert.Equal(t, [3]any{score.Picked, 0, false}, [3]any{got.Join, got.Scoop, got.JoinGuessed}, what)
		}
		l.Notes[len(l.Notes)-1] = n
		l.Notes[len(l.Notes)-1].JoinGuessed = false
		sure := l.Notes[len(l.Notes)-1]
		l.unjoin()
		assert.Equal(t, sure, l.Notes[len(l.Notes)-1], "%s, and no guess", what)
	}
}

// What a neck does not reach sounds as few octaves away as it can, and the rest where it was.
func TestOctavesOfAnotherNeck(t *testing.T) {
	bass, err := neck.New("E1,A1,D2,G2", 20, 864, 0)
	require.NoError(t, err)
	for midi := 40; midi <= 86; midi++ {
		l := plain(t)
		places := l.In.Find(midi, neck.Region{Low: 0, High: l.In.Last()})
		if len(places) == 0 {
			continue
		}
		l.Notes = []score.Note{{ID: 1, Length: 480, Placement: places[0], Pitch: pitch.At(midi, l.Key.Spell(midi%12))}}
		now, done, err := Lay(l, bass, neck.UsualHand)
		require.NoError(t, err, midi)
		got := now.Notes[0].Pitch.MIDI()
		assert.Equal(t, midi%12, got%12)
		assert.Equal(t, got, now.In.MIDI(now.Notes[0].Placement))
		highest := bass.MIDI(neck.Placement{String: 1, Fret: bass.Last()})
		if midi <= highest {
			assert.Equal(t, midi, got)
			assert.Zero(t, done.Octaves)
		} else {
			assert.Greater(t, got, highest-12, "no further than it must")
			assert.Equal(t, 1, done.Octaves)
		}
	}
}

// A line that is settled has a finger for every fretted note, be it one or all of them that had none.
func TestSettledNotesHaveFingers(t *testing.T) {
	for _, without := range [][]int{{0}, {2}, {0, 1, 2}, nil} {
		l := plain(t, 0, 480, 960)
		for i := range l.Notes {
			l.Notes[i].Pitch = pitch.At(l.In.MIDI(l.Notes[i].Placement), l.Key.Spell(l.In.MIDI(l.Notes[i].Placement)%12))
		}
		for _, i := range without {
			l.Notes[i].Finger = 0
		}
		require.NoError(t, l.Settle())
		for _, n := range l.Notes {
			assert.Positive(t, n.Finger, "%v", without)
		}
	}
}

// A lick that begins with a rest is led into at its own first note.
func TestALickIsLedIntoWhereItBegins(t *testing.T) {
	for _, c := range line.Connectors {
		l := plain(t, 0, 480, 960, 3840)
		l.Palette = blend.Palettes[0]
		k := lick.Lick{Chord: "7", Notes: []lick.Note{{Start: 1920, Length: 960, Degree: "3"}, {Start: 2880, Length: 960, Degree: "5"}}}
		require.NoError(t, l.PutLicks(t.Context(), k, []int{2}, false, c.ID), c.ID)
		within(t, l, c.ID)
		assert.True(t, slices.ContainsFunc(l.Notes, func(n score.Note) bool { return n.Start == 3840 && n.Length <= 240 }), "%s: what stands in the rest stays", c.ID)
		assert.True(t, slices.ContainsFunc(l.Notes, func(n score.Note) bool { return n.Start == 3840+1920 && n.Length == 960 }), "%s: the lick is there", c.ID)
	}
}

// A bend that is put on a note later is bent by a finger that can, whatever finger it had: over every place and bend.
func TestABendComesToAFingerThatCan(t *testing.T) {
	in := neck.Standard()
	for str := 1; str <= 3; str++ {
		for fret := 2; fret <= 15; fret++ {
			for _, bend := range []int{1, 2, 4, 6} {
				for finger := 1; finger <= 4; finger++ {
					p := neck.Placement{String: str, Fret: fret}
					l := Line{Hand: neck.UsualHand, Region: neck.Region{Low: 0, High: in.Last()}}
					l.Score = score.Score{Tempo: 90, Progression: form.Progression{Beats: 4, Bars: make([]form.Bar, 2)}, In: in}
					l.Notes = []score.Note{{Start: 0, Length: 960, Placement: p, Pitch: pitch.At(in.MIDI(p), form.Key{}.Spell(in.MIDI(p)%12)), Finger: finger, Ornaments: score.Ornaments{Bend: bend}}}
					if err := l.Settle(); err != nil {
						t.Fatal(err)
					}
					n := l.Notes[0]
					if n.Bend >= 4 && (n.Finger == 1 || n.Finger == 4) {
						t.Errorf("%v bent by %d quarter tones with finger %d", p, n.Bend, n.Finger)
					}
				}
			}
		}
	}
}
