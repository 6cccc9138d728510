package line

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Every way from both sides into every tone of a chord that follows another is named by the check, over the change; where a
// note belongs to the chord that sounds as well.
func TestEnclosuresAreNamed(t *testing.T) {
	named := 0
	for _, w := range approach.Ways {
		if !w.Encloses() {
			continue
		}
		for _, tonic := range pitch.Roots {
			p, err := form.Read("| "+tonic.String()+"7 | "+tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}).String()+" |", 4, form.Key{Tonic: tonic})
			require.NoError(t, err)
			s := score.Score{Progression: p, Key: form.Key{Tonic: tonic}, In: neck.Standard()}
			next := p.Bars[1].Changes[0].Chord
			for _, tone := range next.Tones {
				midi := 60 + tone.Name.Class()
				pair := w.To(midi, next)
				s.Notes = nil
				for k, m := range append(pair, midi) {
					at := s.In.Find(m, neck.Region{Low: 0, High: 15})[0]
					s.Notes = append(s.Notes, score.Note{Start: 3840 + (k-2)*480, Length: 480, Pitch: pitch.At(m, s.Key.Spell(m%12)), Placement: at})
				}
				r := Check(s, minorPentatonic(), Rules[0])
				what := "the " + tone.Degree.Printed() + " of " + next.Printed()
				// What the chord's own arpeggio plays encloses nothing of it.
				if over(next, pair[0]).Class == blend.ChordTone || over(next, pair[1]).Class == blend.ChordTone {
					assert.NotContains(t, r.Notes[0].Says+r.Notes[1].Says, "encloses "+what)
					continue
				}
				for k, says := range []string{"encloses " + what + " with the note that follows", "encloses " + what + " with the note before"} {
					assert.Contains(t, r.Notes[k].Says, says, "%s over %s", w.ID, p.Bars[0].Changes[0].Chord)
				}
				named++
			}
		}
	}
	assert.Greater(t, named, 200)
}

// Into a bent note leads what sounds beside its goal, and never the fret that it is bent from: by every connector, over each bend.
func TestWhatLeadsIntoABendIsNotItsFret(t *testing.T) {
	s := empty(t, "slow-change", "C")
	led := 0
	for _, bend := range []int{2, 4} {
		for fret := 6; fret <= 12; fret++ {
			to := note(s, 3840, 960, 2, fret)
			to.Bend = bend
			s.Notes = []score.Note{note(s, 0, 960, 3, 5), to}
			for _, c := range Connectors {
				lead, ok := c.Connect(s, minorPentatonic(), 1)
				if !ok {
					continue
				}
				last := lead.Notes[len(lead.Notes)-1]
				assert.NotEqual(t, to.Pitch.MIDI(), last.Pitch.MIDI(), "%s into fret %d bent by %d", c.ID, fret, bend)
				led++
			}
		}
	}
	assert.Greater(t, led, 100)
}

// Running a shape up and down again is told, also where its top is struck twice or the turn is held.
func TestRunningScalesIsToldWithTheTopTwice(t *testing.T) {
	for _, twice := range []int{1, 2, 3} {
		s := empty(t, "slow-change", "C")
		at := 0
		put := func(midi int) {
			p := s.In.Find(midi, neck.Region{Low: 0, High: 15})[0]
			s.Notes = append(s.Notes, score.Note{Start: at, Length: 480, Placement: p, Pitch: pitch.At(midi, s.Key.Spell(midi%12))})
			at += 480
		}
		up := []int{60, 62, 64, 65, 67, 69, 70}
		for range 2 {
			for _, m := range up {
				put(m)
			}
			for range twice {
				put(72)
			}
			for i := len(up) - 1; i >= 0; i-- {
				put(up[i])
			}
		}
		assert.Positive(t, scales(s), "the top %d times", twice)
	}
}
