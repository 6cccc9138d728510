package line

import (
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
)

// traits are what a teacher would measure of choruses.
type traits struct {
	notes, bends, released, curls   int // released: let down again, or bent before they are struck
	clashing                        int // a bend directly after one of another fret
	row                             int // the most bends in a row that are gestures of their own
	steps, leaps, sixths            int // of intervals within phrases; leaps are of a fifth or more
	low                             int // notes on strings 4 and lower, where the position offers them
	choruses, lastThird, fromTheTop int
	skips, oblique, scoops, sliding int       // bends under a note that is held; notes slid into, and directly after another that is
	shares, leapt, lows             []float64 // of bends, leaps and low strings, chorus by chorus
}

func (c *traits) read(s score.Score) {
	c.choruses++
	high, at, row := 0, 0, 0
	was := *c
	defer func() {
		part := func(n, of int) float64 { return float64(n) / float64(max(1, of)) }
		c.shares = append(c.shares, part(c.bends-was.bends, c.notes-was.notes))
		c.leapt = append(c.leapt, part(c.leaps-was.leaps, c.steps-was.steps))
		c.lows = append(c.lows, part(c.low-was.low, c.notes-was.notes))
	}()
	for i, n := range s.Notes {
		c.notes++
		if n.String >= 4 {
			c.low++
		}
		if n.Heard() >= high {
			high, at = n.Heard(), n.Start
		}
		if n.Bend == 1 {
			c.curls++
		}
		if n.Scoop > 0 {
			c.scoops++
			if i > 0 && s.Notes[i-1].Scoop > 0 && n.Start-s.Notes[i-1].End() < score.Tick {
				c.sliding++
			}
		}
		if i > 0 && s.Notes[i-1].Start == n.Start {
			if n.Bend > 1 && n.Heard() != s.Notes[i-1].Heard() {
				c.oblique++
			}
			continue
		}
		if next := i + 1; next < len(s.Notes) && s.Notes[next].Start == n.Start && n.Bend > 1 && s.Notes[next].Heard() != n.Heard() {
			c.oblique++
		}
		before := score.Note{}
		if i > 0 {
			before = s.Notes[i-1]
		}
		if n.Bend > 1 {
			c.bends++
			if n.Release || n.PreBend {
				c.released++
			}
			switch {
			case before.Bend <= 1 || n.Start-before.End() >= score.Tick: // after a breath it is a phrase of its own
				row = 1
			case before.String == n.String && before.Fret == n.Fret: // one gesture
			default:
				row++
				c.clashing++
			}
			c.row = max(c.row, row)
		} else {
			row = 0
		}
		if i > 0 && n.Start-before.End() < score.Tick {
			c.steps++
			d := size(n.Heard() - before.Heard())
			if d >= 7 {
				c.leaps++
			}
			if d == 8 || d == 9 {
				c.sixths++
			}
			if size(n.String-before.String) > 1 {
				c.skips++
			}
		}
	}
	if at >= s.End()*2/3 {
		c.lastThird++
	}
	if at < s.End()/3 {
		c.fromTheTop++
	}
}

// What a player would measure of many choruses of each word, over charts, positions and seeds that nothing was tuned by: how often
// strings are bent and how, and how lines move.
func TestTraitsOfTheWords(t *testing.T) {
	seeds := uint64(8)
	if os.Getenv("EVERY") != "" {
		seeds = 24
	}
	for _, word := range Words {
		t.Run(word.ID, func(t *testing.T) {
			t.Parallel()
			var c traits
			for at, chart := range charts {
				f, known := form.FormByID(chart.form)
				require.True(t, known)
				key, err := form.ParseKey(chart.key)
				require.NoError(t, err)
				key.Minor = f.Minor
				s := score.Score{Key: key, Progression: f.In(key), In: neck.Standard(), Tempo: 96}
				for seed := uint64(1000 + 100*at); seed < uint64(1000+100*at)+seeds; seed++ {
					positions := s.In.Positions(key.Tonic.Class())
					s.Notes = written(t, s, word, seed, positions[1+int(seed)%3].Region)
					c.read(s)
				}
			}
			of := func(n, all int) float64 { return float64(n) / float64(max(1, all)) }
			t.Logf("%s: %d notes, bends %.3f (let go or pre-bent %.2f of them, curls %.3f), clashing %.4f, row %d, leaps %.3f, sixths %.3f, low strings %.3f, skips %.3f, bends under a held note %d, slid into %.3f, twice in a row %.4f, high point in the last third %.2f, first %.2f",
				word.ID, c.notes, of(c.bends, c.notes), of(c.released, c.bends), of(c.curls, c.notes), of(c.clashing, c.notes), c.row, of(c.leaps, c.steps), of(c.sixths, c.steps), of(c.low, c.notes), of(c.skips, c.steps), c.oblique, of(c.scoops, c.notes), of(c.sliding, c.notes), of(c.lastThird, c.choruses), of(c.fromTheTop, c.choruses))
			assert.Positive(t, c.notes)
			in := func(low, high, is float64, what string) {
				t.Helper()
				assert.True(t, is >= low && is <= high, "%s: %s %.4f; %.4f to %.4f", word.ID, what, is, low, high)
			}
			assert.LessOrEqual(t, c.row, 2, "gestures in a row")
			in(0, 0.01, of(c.clashing, c.notes), "bends after another fret's")
			spread := func(shares []float64) float64 { // of the middle four fifths
				slices.Sort(shares)
				return shares[len(shares)*9/10] - shares[len(shares)/10]
			}
			if word.ID != "plain" { // which has no high point of its own
				in(0.6, 0.92, of(c.lastThird, c.choruses), "choruses whose high point lies in the last third")
				in(0.05, 0.3, of(c.fromTheTop, c.choruses), "choruses that begin high and fall")
			}
			in(0, 0.14, of(c.scoops, c.notes), "slid into from below")
			in(0, 0.015, of(c.sliding, c.notes), "slid into directly after another")
			switch word.ID {
			case "plain", "chord-tones":
				assert.Zero(t, c.bends+c.curls)
			case "jazz-blues":
				in(0.01, 0.045, of(c.bends, c.notes), "bends")
				in(0.015, 1, spread(c.shares), "spread of bends")
			default:
				in(0.06, 0.14, of(c.bends, c.notes), "bends")
				in(0.2, 0.5, of(c.released, c.bends), "let go or bent before")
				in(0.04, 1, spread(c.shares), "spread of bends")
				in(0.04, 0.08, of(c.leaps, c.steps), "leaps")
				in(0.25, 0.75, of(c.sixths, c.leaps), "sixths, of leaps")
				in(0.02, 1, spread(c.leapt), "spread of leaps")
				in(0.05, 0.1, of(c.low, c.notes), "low strings")
				in(0.025, 1, spread(c.lows), "spread of low strings")
				assert.Positive(t, c.oblique, "bends under a held note")
			}
		})
	}
}

// own writes a chorus with the word's own rhythm over a feel.
func own(t *testing.T, word Word, feel string, c struct{ form, key string }, seed uint64) score.Score {
	f, known := form.FormByID(c.form)
	require.True(t, known)
	key, err := form.ParseKey(c.key)
	require.NoError(t, err)
	key.Minor = f.Minor
	s := score.Score{Key: key, Progression: f.In(key), In: neck.Standard(), Tempo: 96, Feel: feel}
	w := Wish{Region: s.In.Positions(key.Tonic.Class())[1+int(seed)%3].Region, Palette: palette(t, "composite"), Rhythm: OwnRhythm, Word: word.ID,
		Density: word.Density, Phrasing: word.Phrasing, ChordTones: word.ChordTones, Approach: true, Spice: word.Spice, Seed: seed}
	s.Notes, err = Write(t.Context(), s, w, neck.UsualHand)
	require.NoError(t, err)
	require.NoError(t, s.Check())
	return s
}

// Rhythm belongs to the word and the feel: over a seed two words share few of their onsets, bars come back, and 12/8 flows in threes.
func TestRhythmBelongsToTheWordAndTheFeel(t *testing.T) {
	seeds := uint64(6)
	if os.Getenv("EVERY") != "" {
		seeds = 24
	}
	styles := Words[2:]
	for _, f := range form.Feels { // the others have a word's rhythm of the shuffle
		for _, word := range Words {
			if f.ID != "slow-12-8" {
				assert.Equal(t, RhythmOf(word.ID, "shuffle"), RhythmOf(word.ID, f.ID))
			}
			_, err := Wish{Rhythm: RhythmOf(word.ID, f.ID)}.rhythm()
			assert.NoError(t, err)
		}
		_, err := WordByID(WordFor(f.ID))
		assert.NoError(t, err)
		assert.NotEqual(t, Words[0].ID, WordFor(f.ID), "%s has a word that fits", f.ID)
	}
	shared, all := map[string]int{}, map[string]int{}
	for _, feel := range []string{"shuffle", "slow-12-8"} {
		least := map[string]float64{}
		threes, notes, distinct, bars := map[string]int{}, map[string]int{}, map[string]int{}, map[string]int{}
		for i, c := range charts {
			for seed := uint64(2000 + 100*i); seed < uint64(2000+100*i)+seeds; seed++ {
				starts := map[string]map[int]bool{}
				for _, word := range styles {
					s := own(t, word, feel, c, seed)
					starts[word.ID] = map[int]bool{}
					seen := map[string]bool{}
					for bar := range s.Bars {
						text := ""
						for _, n := range s.Notes {
							if at := n.Start - s.At(bar); at >= 0 && at < s.BeatsOf(bar)*score.Tick {
								text += fmt.Sprint(at, " ")
							}
						}
						seen[text] = true
					}
					bars[word.ID] += len(s.Bars)
					if a, had := float64(len(s.Notes))/float64(len(s.Bars)), least[word.ID]; had == 0 || a < had {
						least[word.ID] = a
					}
					distinct[word.ID] += len(seen)
					for _, n := range s.Notes {
						starts[word.ID][n.Start] = true
						notes[word.ID]++
						if off := ((n.Start % score.Tick) + score.Tick) % score.Tick; off == 320 || off == 640 {
							threes[word.ID]++
						}
					}
				}
				for i, a := range styles {
					for _, b := range styles[i+1:] {
						pair := a.ID + " and " + b.ID + " over " + feel
						all[pair] += len(starts[a.ID]) + len(starts[b.ID])
						for at := range starts[a.ID] {
							if starts[b.ID][at] {
								shared[pair] += 2
							}
						}
					}
				}
			}
		}
		for _, word := range styles {
			part := func(n, of int) float64 { return float64(n) / float64(max(1, of)) }
			t.Logf("%s over %s: threes %.2f, distinct bars %.2f, notes a bar %.1f", word.ID, feel, part(threes[word.ID], notes[word.ID]), part(distinct[word.ID], bars[word.ID]), part(notes[word.ID], bars[word.ID]))
			assert.True(t, least[word.ID] >= 1.4 && part(notes[word.ID], bars[word.ID]) <= 7, "%s over %s: %.1f notes a bar in the emptiest chorus, %.1f in all", word.ID, feel, least[word.ID], part(notes[word.ID], bars[word.ID]))
			assert.True(t, part(distinct[word.ID], bars[word.ID]) >= 0.48 && part(distinct[word.ID], bars[word.ID]) <= 0.69, "%s over %s: %.2f of its bars have a rhythm of their own", word.ID, feel, part(distinct[word.ID], bars[word.ID]))
			if feel == "slow-12-8" {
				assert.GreaterOrEqual(t, part(threes[word.ID], notes[word.ID]), 0.25, "%s flows in threes", word.ID)
			}
		}
	}
	for pair, n := range all {
		t.Logf("%s share %.2f of their onsets", pair, float64(shared[pair])/float64(n))
		assert.LessOrEqual(t, float64(shared[pair])/float64(n), 0.6, pair)
	}
}

// A phrase that begins as another did and ends its own way is heard as it: A′. One that shares but a note or two is another.
func TestASharedHeadIsHeard(t *testing.T) {
	s := empty(t, "slow-change", "C")
	put := func(at int, frets ...int) {
		for i, fret := range frets {
			s.Notes = append(s.Notes, note(s, at+i*480, 480, 2, fret))
		}
	}
	put(0, 5, 8, 6, 8, 5, 6)
	put(2*3840, 6, 9, 7, 9, 10, 8, 7) // the same way for four notes, then on another
	put(4*3840, 8, 6, 5, 8, 6, 8)     // from the first note on another way
	names := []string{}
	for _, p := range phrases(s) {
		names = append(names, p.Name)
	}
	assert.Equal(t, []string{"A", "A′", "B"}, names)
}
