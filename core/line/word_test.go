package line

import (
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/score"
)

// counts is what was written, in notes and phrases.
type counts struct {
	notes, bends, slides, legato, repeats, top, phrases, onOne, choruses, unbent int
	shared, head, alien, aliens                                                  int
}

// written writes a chorus in a word's style.
func written(t *testing.T, s score.Score, word Word, seed uint64, region neck.Region) []score.Note {
	w := Wish{Region: region, Palette: palette(t, "composite"), Rhythm: Rhythms[seed%4].ID, Density: word.Density, Phrasing: word.Phrasing,
		ChordTones: word.ChordTones, Approach: true, Spice: word.Spice, Seed: seed}
	notes, err := Write(t.Context(), s, w, neck.UsualHand)
	require.NoError(t, err, "%s, seed %d", word.ID, seed)
	return notes
}

func palette(t *testing.T, id string) blend.Palette {
	p, err := blend.PaletteByID(id)
	require.NoError(t, err)
	return p
}

// charts are eight that the words are tried on.
var charts = []struct{ form, key string }{
	{"slow-change", "A"}, {"quick-change", "Bb"}, {"jazz-blues", "F"}, {"eight-bar", "E"},
	{"sixteen-bar", "G"}, {"minor-blues", "Am"}, {"quick-change", "C"}, {"eight-bar-four", "Eb"},
}

// What a teacher would look for in thirty choruses of each word over eight charts: the
// changes are met and the hand can play it, and the blues words bend, slide, slur, repeat
// themselves, use the top string and begin off the beat.
func TestWordsSoundLikeWhatTheySay(t *testing.T) {
	seeds := uint64(6)
	if os.Getenv("EVERY") != "" { // takes a while (make thorough)
		seeds = 30
	}
	for _, word := range Words {
		t.Run(word.ID, func(t *testing.T) {
			t.Parallel()
			var sum counts
			for _, c := range charts {
				f, known := form.FormByID(c.form)
				require.True(t, known, c.form)
				key, err := form.ParseKey(c.key)
				require.NoError(t, err)
				key.Minor = f.Minor
				s := score.Score{Key: key, Progression: f.In(key), In: neck.Standard(), Tempo: 96}
				for seed := range seeds {
					positions := s.In.Positions(key.Tonic.Class())
					s.Notes = written(t, s, word, seed, positions[1+int(seed)%3].Region)
					where := fmt.Sprintf("%s over %s in %s, seed %d", word.ID, f.ID, key, seed)
					sum.read(t, s, where)
				}
			}
			sum.judge(t, word)
		})
	}
}

// read counts one chorus, and holds what is true of every one.
func (c *counts) read(t *testing.T, s score.Score, where string) {
	require.NoError(t, s.Check(), where)
	report := Check(s, palette(t, "composite"), Usual)
	for _, l := range report.Landings {
		require.True(t, l.Landed(), "%s: %s in bar %d", where, l.Says, s.BarOf(l.At)+1)
	}
	bent := 0
	for i, n := range s.Notes {
		c.notes++
		if n.Bend > 0 {
			bent++
			require.LessOrEqual(t, (n.Bend+1)/2, s.In.Bendable(n.Placement), where)
		}
		if n.Scoop != 0 || n.Join == score.Slide {
			c.slides++
		}
		if n.Join == score.Hammer || n.Join == score.PullOff {
			c.legato++
		}
		if i > 0 && s.Notes[i-1].Start < n.Start && s.Notes[i-1].Heard() == n.Heard() {
			c.repeats++
		}
		if n.String == 1 {
			c.top++
		}
	}
	c.bends += bent
	c.choruses++
	if bent == 0 {
		c.unbent++
	}
	for _, p := range report.Phrases {
		c.phrases++
		if s.InBar(s.Notes[p.From].Start) == 0 {
			c.onOne++
		}
	}
	for bar := 0; bar+4 <= len(s.Bars); bar += 4 {
		head, answer, other := onsets(s, bar), onsets(s, bar+2), onsets(s, (bar+5)%len(s.Bars))
		c.head += len(head)
		c.shared += common(head, answer)
		c.aliens += len(head)
		c.alien += common(head, other)
	}
}

// onsets are where notes begin in a bar, from the eighth before it.
func onsets(s score.Score, bar int) map[int]bool {
	out := map[int]bool{}
	for _, n := range s.Notes {
		if at := n.Start - s.At(bar); at >= 0 && at < s.At(1) {
			out[at] = true
		}
	}
	return out
}

func common(a, b map[int]bool) (n int) {
	for at := range a {
		if b[at] {
			n++
		}
	}
	return n
}

func (c counts) judge(t *testing.T, word Word) {
	of := func(n, all int) float64 { return float64(n) / float64(max(1, all)) }
	t.Logf("%d notes: bends %.3f, slides %.3f, legato %.3f, repeats %.3f, top string %.3f, on beat 1 %.3f, shared %.2f (others %.2f), choruses without a bend %d of %d",
		c.notes, of(c.bends, c.notes), of(c.slides, c.notes), of(c.legato, c.notes), of(c.repeats, c.notes), of(c.top, c.notes), of(c.onOne, c.phrases),
		of(c.shared, c.head), of(c.alien, c.aliens), c.unbent, c.choruses)
	if word.Spice.Bends == 0 {
		assert.Zero(t, c.bends)
		return
	}
	assert.GreaterOrEqual(t, of(c.bends, c.notes), 0.01)
	if word.Spice.Bends >= bendsMuch {
		assert.Zero(t, c.unbent, "a bend in every chorus")
	}
	assert.GreaterOrEqual(t, of(c.slides, c.notes), 0.03)
	assert.GreaterOrEqual(t, of(c.legato, c.notes), 0.05)
	assert.GreaterOrEqual(t, of(c.repeats, c.notes), 0.02)
	assert.True(t, of(c.top, c.notes) >= 0.08 && of(c.top, c.notes) <= 0.4)
	assert.LessOrEqual(t, of(c.onOne, c.phrases), 0.3)
	assert.GreaterOrEqual(t, of(c.shared, c.head), 0.65)
	assert.Less(t, of(c.alien, c.aliens), of(c.shared, c.head))
}

// Of wishes that contradict each other, the one that gave way is named.
func TestWhatGaveWayIsNamed(t *testing.T) {
	s := empty(t, "quick-change", "C")
	waltz := s
	waltz.Beats = 3
	for says, w := range map[string]Wish{
		"bends gave way: nothing but chord tones": {Region: neck.Region{Low: 5, High: 9}, ChordTones: true, Spice: Spice{Bends: 5}},
		"blue notes on the beat gave way":         {Region: neck.Region{Low: 5, High: 9}, ChordTones: true, Spice: Spice{Blue: 5}},
		"can be bent":                             {Region: neck.Region{}, Spice: Spice{Bends: 5}},
		"silence gave way":                        {Region: neck.Region{Low: 5, High: 9}, Phrasing: "study", Spice: Spice{Rests: 5}},
		"there is one string":                     {Region: neck.Region{Low: 5, High: 9, Strings: neck.StringsOf(2)}, Spice: Spice{DoubleStops: 5}},
		"octaves gave way":                        {Region: neck.Region{Low: 5, High: 9, Strings: neck.StringsOf(2, 3)}, Spice: Spice{Octaves: 5}},
		"locked, or not all written":              {Region: neck.Region{Low: 5, High: 9}, Closing: "walk-up", To: 6},
		"not of chord tones":                      {Region: neck.Region{Low: 5, High: 9}, Closing: "walk-up", ChordTones: true},
		"what to land on was wished":              {Region: neck.Region{Low: 5, High: 9}, Targets: []harmony.Role{harmony.Third}, Spice: Spice{Blue: 5}},
	} {
		said := w.GaveWay(s)
		require.Len(t, said, 1, says)
		assert.Contains(t, said[0], says)
	}
	region := neck.Region{Low: 5, High: 9}
	assert.Len(t, Wish{Region: region, Closing: "walk-up"}.GaveWay(waltz), 1)
	assert.Len(t, Wish{Region: region, Phrasing: "fill"}.GaveWay(waltz), 1)
	for _, word := range Words {
		assert.Empty(t, Wish{Region: neck.Region{Low: 5, High: 9}, ChordTones: word.ChordTones, Spice: word.Spice}.GaveWay(s), "%s asks for nothing that it forbids", word.ID)
	}
}

// Every note says why it is there, also its bend; a wish to be higher is followed.
func TestABendSaysWhereItGoes(t *testing.T) {
	s := empty(t, "quick-change", "C")
	bend := note(s, 0, 960, 3, 10) // F, bent up to G
	bend.Bend = 4
	scoop := note(s, 960, 960, 3, 9)
	scoop.Scoop = 1
	s.Notes = []score.Note{bend, scoop}
	r := Check(s, minorPentatonic(), Usual)
	assert.Equal(t, "lands the change on the 5 of C7, bent up a whole step from F4", r.Notes[0].Says)
	assert.Equal(t, "the 3 of C7, slid into from below", r.Notes[1].Says)

	word, err := WordByID("box-blues")
	require.NoError(t, err)
	mean := func(lift int) (sum float64) {
		for seed := range uint64(10) {
			w := Wish{Region: neck.Region{Low: 5, High: 9}, Palette: minorPentatonic(), Density: 3, Phrasing: "call", Approach: true, Spice: word.Spice, Lift: lift, Seed: seed}
			notes, err := Write(t.Context(), s, w, neck.UsualHand)
			require.NoError(t, err)
			for _, n := range notes {
				sum += float64(n.Heard()) / float64(len(notes))
			}
		}
		return sum / 10
	}
	assert.Greater(t, mean(4), mean(0))
	assert.Less(t, mean(-4), mean(0))
	for _, w := range []Wish{{Spice: Spice{Bends: 11}}, {Spice: Spice{Rests: -1}}, {Lift: 11}} {
		w.Region, w.Density = neck.Region{Low: 5, High: 9}, 3
		_, err := Write(t.Context(), s, w, neck.UsualHand)
		assert.Error(t, err)
	}
	_, err = WordByID("polka")
	assert.EqualError(t, err, `there is no word "polka" for a line`)
}
