package edit

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// plain is a line over "| C7 | C7 | F7 | N |" with a note at each tick, on string 3.
func plain(t *testing.T, ticks ...int) Line {
	key := form.Key{Tonic: pitch.Roots[0]}
	p, err := form.Read("| C7 | C7 | F7 | NC |", 4, key)
	require.NoError(t, err)
	l := Line{Hand: neck.UsualHand, Region: neck.Region{Low: 5, High: 9}}
	l.Score = score.Score{Key: key, Tempo: 96, Progression: p, In: neck.Standard()}
	for i, at := range ticks {
		l.Notes = append(l.Notes, score.Note{ID: i + 1, Start: at, Length: 240, Placement: neck.Placement{String: 3, Fret: 5 + i%4}, Finger: 1 + i%4, Pitch: pitch.At(60+i%4, key.Spell((60+i%4)%12))})
	}
	return l
}

func ids(notes []score.Note) (list []int) {
	for _, n := range notes {
		list = append(list, n.ID)
	}
	return list
}

// The phrase into a change goes back to the last breath of half a beat, two bars at the most, and on
// to the note nearest to the change.
func TestThePhraseIntoAChange(t *testing.T) {
	const at, q = 3840, score.Tick
	for what, c := range map[string]struct {
		notes    []int
		from, to int
	}{
		"from the first note on":                      {[]int{at - 960, at - 480, at}, 0, 3},
		"a breath of half a beat parts":               {[]int{at - 960, at - 240, at}, 1, 3},
		"a shorter one does not":                      {[]int{at - 959, at - 240, at}, 0, 3},
		"half a beat late still lands":                {[]int{at - 240, at + q/2}, 0, 1},
		"and is what lands where it is nearer":        {[]int{at - 700, at - 490, at + q/2}, 2, 3},
		"later than that it is another's":             {[]int{at - 240, at + q/2 + 1}, 0, 1},
		"of two equally near ones the later":          {[]int{at - 240, at + 240}, 0, 2},
		"the first note is looked at in any case":     {[]int{at - 3000}, 0, 1},
		"nothing before":                              {[]int{at + 3000}, 0, 0},
		"what is two bars back is too far":            {[]int{at - 8*q - 1, at - 8*q + 240, at - 8*q + 480}, 1, 3},
		"exactly two bars back is not":                {[]int{at - 8*q, at - 8*q + 240}, 0, 2},
		"a note that only begins on the breath parts": {[]int{at - 480 - 240, at - 240 + 240 - 0}, 1, 2},
	} {
		l := plain(t, c.notes...)
		from, to := l.phraseInto(at)
		assert.Equal(t, []int{c.from, c.to}, []int{from, to}, what)
	}
}

// An edit leaves everything as it is but what it names.
func TestAnEditIsAppliedByNumbers(t *testing.T) {
	l := plain(t, 0, 480, 960, 1440)
	moved := l.Notes[2]
	moved.Start = 1200
	added := l.Notes[0]
	added.ID, added.Start = 9, 1920
	out := l.Apply(Fix{Gone: []int{2}, Put: []score.Note{added, moved}})
	assert.Equal(t, []int{1, 3, 4, 9}, ids(out.Notes))
	assert.Equal(t, 1200, out.Notes[1].Start)
	assert.Equal(t, []int{1, 2, 3, 4}, ids(l.Notes), "the line itself stays")
}

// Every proposal of every change of many lines: it names only notes of the phrase and what follows
// it, its new numbers are free, what it takes away was there, and the line with it holds.
func TestEveryProposalHolds(t *testing.T) {
	proposals := 0
	for seed := range uint64(6) {
		l := written(t, form.Forms[int(seed)%len(form.Forms)].ID, []string{"C", "Eb", "A"}[seed%3], seed)
		for i := range l.Notes { // every landing comes late
			if l.Change(l.Notes[i].Start) {
				l.Notes[i].Start += score.Tick / 2
				l.Notes[i].Length = max(1, l.Notes[i].Length-score.Tick/2)
			}
		}
		score.Sort(l.Notes)
		l.Notes = slices.CompactFunc(l.Notes, func(a, b score.Note) bool { return a.Start == b.Start })
		lick.Separate(l.Notes, l.End())
		require.NoError(t, l.Check())
		was := map[int]score.Note{}
		for _, n := range l.Notes {
			was[n.ID] = n
		}
		for tick := 0; tick < l.End(); tick += score.Tick {
			if !l.Change(tick) {
				continue
			}
			from, _ := l.phraseInto(tick)
			fixes, why, err := l.Fixes(t.Context(), tick)
			require.NoError(t, err)
			what := fmt.Sprintf("seed %d, tick %d", seed, tick)
			require.True(t, len(fixes) > 0 || why != "", "%s: none, and no reason", what)
			cost := 0.0
			for _, f := range fixes {
				proposals++
				require.NotEmpty(t, f.Says, what)
				require.GreaterOrEqual(t, f.Cost, cost, "%s: the smallest first", what)
				cost = f.Cost
				out := l.Apply(f)
				require.NoError(t, out.Check(), what)
				require.True(t, slices.IsSortedFunc(out.Notes, func(a, b score.Note) int { return a.Start - b.Start }), what)
				for _, n := range f.Put {
					if old, known := was[n.ID]; known {
						require.NotEqual(t, old, n, "%s: what is named is changed", what)
					}
				}
				for _, gone := range f.Gone {
					require.Contains(t, was, gone, what)
				}
				seen := map[int]bool{}
				for _, n := range out.Notes {
					require.False(t, seen[n.ID], "%s: a number twice", what)
					seen[n.ID] = true
				}
				for _, n := range l.Notes[:max(0, from-around)] {
					require.Contains(t, out.Notes, n, "%s: what lies before stays", what)
				}
				r := line.Check(out.Score, l.Palette, line.Usual)
				at := slices.IndexFunc(r.Landings, func(x line.Landing) bool { return x.At == tick })
				require.GreaterOrEqual(t, at, 0, what)
				require.True(t, r.Landings[at].Landed(), "%s: %v", what, f.Says)
			}
		}
	}
	assert.Greater(t, proposals, 100)
	t.Logf("%d proposals", proposals)
}

func TestBarsAreLockedByNumber(t *testing.T) {
	var l Line
	l.Lock([]int{4, 1, 12})
	assert.Equal(t, map[int]bool{0: true, 3: true, 11: true}, l.Locked)
	assert.Equal(t, []int{1, 4, 12}, l.LockedBars())
	l.Locked[3] = false
	assert.Equal(t, []int{1, 12}, l.LockedBars())
	l.Lock(nil)
	assert.Empty(t, l.LockedBars())
}

func TestStretchesOfBars(t *testing.T) {
	l := plain(t)
	for _, ok := range [][2]int{{0, 0}, {1, 1}, {1, 4}, {4, 4}} {
		assert.NoError(t, l.CheckBars(ok[0], ok[1]))
	}
	for _, not := range [][2]int{{0, 1}, {1, 5}, {5, 5}, {3, 2}, {-1, 2}, {1, 0}} {
		assert.EqualError(t, l.CheckBars(not[0], not[1]), fmt.Sprintf("bars %d to %d; the line has bars 1 to 4", not[0], not[1]))
	}
}

// A tone of the chord has the chord's name, whatever else the key's; where the band is silent the key names all.
func TestANoteIsNamedByItsChord(t *testing.T) {
	l := plain(t)
	assert.Equal(t, "Eb", l.Spell(2*3840, 63).String(), "the seventh of F7")
	assert.Equal(t, "Bb", l.Spell(0, 70).String(), "the seventh of C7")
	assert.Equal(t, l.Key.Spell(6), l.Spell(0, 66))
	assert.Equal(t, l.Key.Spell(10), l.Spell(3*3840, 70), "in silence")
	named, err := l.NameAt(0, neck.Placement{String: 3, Fret: 3})
	require.NoError(t, err)
	assert.Equal(t, "Bb3", named.String())
	for _, not := range []neck.Placement{{String: 0, Fret: 3}, {String: 7, Fret: 3}, {String: 1, Fret: 23}, {String: 1, Fret: -1}} {
		_, err := l.NameAt(0, not)
		assert.Error(t, err, not)
	}
}

// Settling finds places for what has none, fingers for what lacks them, and says so.
func TestSettlingSaysWhatItFound(t *testing.T) {
	l := plain(t, 0, 480, 960)
	before := slices.Clone(l.Notes)
	require.NoError(t, l.Settle())
	assert.Empty(t, l.Said)
	assert.Equal(t, before, l.Notes, "what has places and fingers stays")

	l.Notes[1].Finger = 0
	require.NoError(t, l.Settle())
	assert.Empty(t, l.Said)
	assert.NotZero(t, l.Notes[1].Finger)

	l.Notes[1].Fret = 12 // it sounds otherwise there
	require.NoError(t, l.Settle())
	assert.Equal(t, []string{"places on the neck were found for 1 notes"}, l.Said)
	assert.Equal(t, before[1].Pitch.MIDI(), l.In.MIDI(l.Notes[1].Placement))

	l.Said = nil
	for i := range l.Notes {
		l.Notes[i].Placement = neck.Placement{}
	}
	require.NoError(t, l.Settle())
	assert.Equal(t, []string{"places on the neck were found for all notes"}, l.Said)

	l = plain(t, 0, 480)
	l.Notes[1].Fret = 19
	require.NoError(t, l.SettleMarked())
	assert.False(t, l.Notes[0].PlaceGuessed)
	assert.True(t, l.Notes[1].PlaceGuessed)
}

// The window of a score is its notes' own within eight frets, at least four wide; else the position
// that holds most of them.
func TestTheWindowAroundAScore(t *testing.T) {
	at := func(frets ...int) score.Score {
		l := plain(t)
		for i, fret := range frets {
			p := neck.Placement{String: 3, Fret: fret}
			l.Notes = append(l.Notes, score.Note{ID: i + 1, Start: i * 480, Length: 240, Placement: p, Pitch: pitch.At(l.In.MIDI(p), pitch.Roots[0])})
		}
		return l.Score
	}
	assert.Equal(t, neck.Region{Low: 5, High: 9}, Around(at(5, 9, 7)))
	assert.Equal(t, neck.Region{Low: 5, High: 8}, Around(at(5, 6)), "four frets at least")
	assert.Equal(t, neck.Region{Low: 5, High: 12}, Around(at(5, 12)))
	assert.Equal(t, neck.Region{Low: 7, High: 10}, Around(at(0, 7, 9)), "open strings count for none")
	assert.Equal(t, neck.Region{Low: 1, High: 4}, Around(at(1, 3)), "from the first fret")
	highest := at(5, 9)
	for i := range highest.Notes {
		highest.Notes[i].String = 1
	}
	assert.Equal(t, neck.Region{Low: 5, High: 9}, Around(highest), "on the highest string as well")
	wide := Around(at(2, 3, 4, 5, 15))
	assert.LessOrEqual(t, wide.Low, 3)
	assert.GreaterOrEqual(t, wide.High, 4)
	assert.Less(t, wide.High, 15)
}

func TestNotesBeyondTheWindowAreCounted(t *testing.T) {
	l := plain(t, 0, 480, 960, 1440)
	assert.Zero(t, l.Outside())
	l.Notes[0].Fret, l.Notes[1].Fret, l.Notes[2].Fret = 4, 10, 0
	assert.Equal(t, 2, l.Outside(), "an open string is in any window")
}

// A lick keeps what stands beside it: it takes its own length, from its pickup on, and what would
// fall off either end is left out.
func TestALickLeavesWhatStandsBesideIt(t *testing.T) {
	notes, err := lick.Parse("R/q 3/q 5/q b7/q")
	require.NoError(t, err)
	k := lick.Lick{Chord: "7", Notes: notes}
	l := plain(t, 0, 3600, 3840, 5000, 7680, 9000)
	require.NoError(t, l.PutLick(k, 2, false))
	var starts []int
	for _, n := range l.Notes {
		starts = append(starts, n.Start)
	}
	assert.Equal(t, []int{0, 3600, 3840, 4800, 5760, 6720, 7680, 9000}, starts)
	assert.NoError(t, l.Check())
	ofKey := k
	ofKey.OfKey, ofKey.Chord = true, ""
	require.NoError(t, l.PutLick(ofKey, 4, false), "a lick of the key needs no chord")
	assert.ErrorIs(t, l.PutLick(k, 4, false), ErrSilent)
	assert.Error(t, l.PutLick(k, 0, false))
	assert.Error(t, l.PutLick(k, 5, false))
}

// A line of licks comes apart into the same ones: by their titles, each with its pickup.
func TestLicksAreJoinedAndTakenApart(t *testing.T) {
	one := func(title string, ticks ...int) Line {
		l := plain(t, ticks...)
		l.Title = title
		l.Bars = l.Bars[:1]
		return l
	}
	joined := Joined("All", []Line{one("First", 0, 960), one("Second", -480, 0, 480), one("Third", 0)})
	assert.Equal(t, "All", joined.Title)
	assert.Len(t, joined.Bars, 4, "an empty bar before the one with a pickup")
	assert.Equal(t, []bool{false, true, true, true}, []bool{joined.Bars[0].Row, joined.Bars[1].Row, joined.Bars[2].Row, joined.Bars[3].Row})
	assert.Equal(t, []int{1, 2, 3, 4, 5, 6}, ids(joined.Notes))
	list := joined.Phrases()
	require.Len(t, list, 3)
	for i, want := range []struct {
		title string
		notes int
		first int
	}{{"First", 2, 0}, {"Second", 3, -480}, {"Third", 1, 0}} {
		assert.Equal(t, want.title, list[i].Title)
		require.Len(t, list[i].Notes, want.notes, want.title)
		assert.Equal(t, want.first, list[i].Notes[0].Start, want.title)
		assert.Equal(t, "7", list[i].Chord)
		assert.False(t, list[i].OfKey)
	}
}

// Without headings a silence of a bar parts two phrases; a shorter one does not. Over silence a
// phrase is of the key.
func TestPhrasesAreWhatSilencesLeave(t *testing.T) {
	l := plain(t, 0, 480, 480+240+3840, 480+240+3840+960)
	list := l.Phrases()
	require.Len(t, list, 2)
	assert.Len(t, list[0].Notes, 2)
	assert.Equal(t, 480+240+3840-3840, list[1].Notes[0].Start, "counted from its own bar")
	assert.Len(t, plain(t, 0, 240+3839).Phrases(), 1)
	assert.Empty(t, plain(t).Phrases())
	silent := plain(t, 3*3840, 3*3840+480).Phrases()
	require.Len(t, silent, 1)
	assert.True(t, silent[0].OfKey)
}

// A lick is kept of the notes from one number to another, counted from its bar, over the chord of its first.
func TestALickIsKeptOfALine(t *testing.T) {
	l := plain(t, 0, 3840+480, 3840+960, 2*3840)
	k, _, err := l.Keep(2, 3, false)
	require.NoError(t, err)
	require.Len(t, k.Notes, 2)
	assert.Equal(t, []int{480, 960}, []int{k.Notes[0].Start, k.Notes[1].Start})
	assert.Equal(t, "7", k.Chord)
	k, _, err = l.Keep(2, 2, true)
	require.NoError(t, err)
	assert.True(t, k.OfKey)
	assert.Len(t, k.Notes, 1)
	for _, not := range [][2]int{{3, 2}, {0, 2}, {2, 9}} {
		_, _, err := l.Keep(not[0], not[1], false)
		assert.ErrorIs(t, err, ErrNoNotes, not)
	}
}
