package line

import (
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/core/score"
)

// Which finger bends, in every word over every chart, in each of the key's positions: a whole step or more is never left to
// the first finger or the little one; the little finger bends one of twenty at most; of the wound strings the highest bends
// a half step, and the lower ones no further than a curl.
func TestAFingerThatCanBends(t *testing.T) {
	t.Parallel()
	seeds, tunings := uint64(1), []string{"E2,A2,D3,G3,B3,E4"}
	if os.Getenv("EVERY") != "" { // make thorough
		seeds, tunings = 8, append(tunings, "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", "D2,A2,D3,G3,A3,D4")
	}
	total, little, first, curls, wound := 0, 0, 0, 0, 0
	littles := map[int]int{}
	for _, tuning := range tunings {
		in, err := neck.New(tuning, 22, 648, 0)
		require.NoError(t, err)
		for _, c := range charts {
			s := empty(t, c.form, c.key)
			s.In = in
			for _, position := range in.Positions(s.Key.Tonic.Class()) {
				if position.Octave {
					continue
				}
				for _, word := range Words {
					for seed := range seeds {
						where := fmt.Sprint(tuning, " ", word.ID, " over ", c.form, " in ", position.Region, ", ", seed)
						s.Notes = written(t, s, word, seed+11, position.Region)
						score.Finger(in, s.Notes, neck.UsualHand)
						for _, n := range s.Notes {
							if n.Bend == 0 {
								continue
							}
							total++
							require.LessOrEqual(t, n.Bend, in.Bends(n.Placement), where)
							require.NotZero(t, n.Finger, where)
							if n.Bend > 3 {
								require.Contains(t, []int{2, 3}, n.Finger, "%s: %v", where, n.Placement)
							}
							switch {
							case n.Finger == 4:
								littles[n.Bend]++
								little++
							case n.Finger == 1 && n.Bend > 1:
								first++
							}
							if n.Bend == 1 {
								curls++
							}
							if n.String > 3 {
								wound++
							}
						}
					}
				}
			}
		}
	}
	t.Log(littles, total, "bends,", curls, "curls,", first, "by the first finger,", little, "by the little one,", wound, "on wound strings")
	assert.Greater(t, total, 300)
	assert.LessOrEqual(t, 20*little, total, "the little finger bends %d of %d", little, total)
}

// Which finger is left for what is added to a note, in every word over every chart, in each position: one above the note's
// own takes the upper neighbour, one below it the lower, and both lie under the hand.
func TestOrnamentsHaveAFinger(t *testing.T) {
	t.Parallel()
	added, without, some := 0, 0, charts[:3]
	if os.Getenv("EVERY") != "" {
		some = charts
	}
	for _, c := range some {
		s := empty(t, c.form, c.key)
		for _, position := range s.In.Positions(s.Key.Tonic.Class()) {
			if position.Octave {
				continue
			}
			for _, word := range Words {
				out := s
				out.Notes = written(t, s, word, 7, position.Region)
				score.Finger(s.In, out.Notes, neck.UsualHand)
				out.Notes = Adorn(out, palette(t, "composite"), neck.UsualHand, 1, 7, nil)
				score.Finger(s.In, out.Notes, neck.UsualHand)
				hands := score.Hands(s.In, out.Notes, neck.UsualHand)
				for i, n := range out.Notes {
					up := max(n.Trill, n.Turn, n.Double)
					if up == 0 {
						continue
					}
					added++
					hand := hands[i].Hand
					reach := n.Finger < 4 && n.Fret+up >= hand-1 && n.Fret+up <= hand+4 && (n.Turn == 0 || n.Finger > 1 && n.Fret-n.Turn >= hand-1 || n.Fret == n.Turn)
					if !reach {
						without++
						t.Errorf("%s over %s in %v: %v by finger %d, %d above", word.ID, c.form, position.Region, n.Placement, n.Finger, up)
					}
				}
			}
		}
	}
	t.Log(added, "ornaments,", without, "without a finger")
	assert.Greater(t, added, 200)
}

// Every line that is written, for hands of four sizes and in every position: all notes have a finger, and where two that
// follow each other under one hand lie further apart than its comfort, a stretch is told.
func TestNoStretchIsUntold(t *testing.T) {
	t.Parallel()
	tunings, some := []string{"E2,A2,D3,G3,B3,E4"}, charts[:3]
	if os.Getenv("EVERY") != "" {
		tunings, some = append(tunings, "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", "D2,A2,D3,G3,A3,D4", "B1,E2,A2,D3,G3,B3,E4"), charts
	}
	notes, wide, elsewhere := 0, 0, 0
	for _, tuning := range tunings {
		in, err := neck.New(tuning, 22, 648, 0)
		require.NoError(t, err)
		for _, c := range some {
			s := empty(t, c.form, c.key)
			s.In = in
			for _, position := range in.Positions(s.Key.Tonic.Class()) {
				for _, word := range Words {
					s.Notes = written(t, s, word, 3, position.Region)
					for _, comfort := range []float64{60, 85, 100, 140} {
						hand := neck.Hand{Comfort: comfort}
						score.Finger(in, s.Notes, hand)
						touches := score.Hands(in, s.Notes, hand)
						require.Len(t, touches, len(s.Notes), "%s over %s at %s, %.0f mm: %v", word.ID, c.form, position.Says(), comfort, s.Undoable())
						told := map[int]bool{}
						for _, stretch := range score.Stretches(in, s.Notes, hand) {
							if stretch.There.High > 0 {
								elsewhere++
							}
							for i := stretch.From; i <= stretch.To; i++ {
								told[i] = true
							}
						}
						for i := 1; i < len(touches); i++ {
							a, b := touches[i-1], touches[i]
							notes++
							if a.Fret > 0 && b.Fret > 0 && a.Hand == b.Hand && in.Reach(a.Fret, b.Fret) > comfort+0.5 {
								wide++
								require.True(t, told[i], "%s over %s at %s, %.0f mm: frets %d and %d", word.ID, c.form, position.Says(), comfort, a.Fret, b.Fret)
							}
						}
					}
				}
			}
		}
	}
	t.Log(notes, "steps,", wide, "wide, all told;", elsewhere, "stretches fit elsewhere")
	assert.Greater(t, wide, 100)
	assert.Greater(t, elsewhere, 100)
}
