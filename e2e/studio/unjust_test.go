package studio_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/ear"
	"undaris/core/judge"
	"undaris/e2e/studio"
)

// beside is what the band of a take plays, as the page tells it to the ear.
func beside(take studio.Take, tempo int) (band []judge.Expected) {
	if take.Band == 0 {
		return nil
	}
	for _, n := range take.BandNotes() {
		band = append(band, judge.Expected{At: tick(n.At, tempo), Pitch: n.MIDI, Fretted: n.MIDI})
	}
	return band
}

// Who does not play is never called wrong, though nothing was measured before: beside the band alone, somebody who talks or sings,
// a tone that feeds back, and in silence.
func TestWhoDoesNotPlayIsNeverWrong(t *testing.T) {
	for name, take := range map[string]studio.Take{
		"silence": {}, "the band at -20": {Band: -20}, "the band at -12": {Band: -12}, "the band at 0": {Band: -0.1},
		"talk": {Voice: studio.Talk}, "talk and the band": {Voice: studio.Talk, Band: -12}, "a singer": {Voice: studio.Singer}, "a singer and the band": {Voice: studio.Singer, Band: -12},
		"feedback": {Voice: studio.Feedback}, "feedback and the band": {Voice: studio.Feedback, Band: -20},
	} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			red, notes, right := 0, 0, 0
			list := takes(1)
			if len(list) > 1 {
				list = slices.Concat(list, list, list) // heard by other seeds
			}
			for i, how := range list {
				s, _, _ := solo(t, i, how.tempo, how.rhythm)
				_, length := strokes(s, nil, how.tempo)
				take.Rate, take.Tempo, take.Length, take.Seed = 48000, float64(how.tempo), length, uint64(i)
				l, free := ear.Listen(judge.Sounding(s, 0.5)), ear.Listen(nil)
				for _, o := range noticing(t, take, how.tempo) {
					for _, by := range []*ear.Listener{l, free} {
						by.Beside(beside(take, how.tempo))
						by.Hear(o)
					}
				}
				if take.Band < -6 || take.Band == 0 { // as loud as a guitar, its bass may be one
					assert.Empty(t, free.Heard(), "nor has anybody played what he likes")
				}
				for _, v := range judge.Prescribed(s, l.Heard(), how.tempo, 0.5).Verdicts {
					notes++
					switch v.Is {
					case judge.Wrong, judge.Octave:
						red++
					case judge.Right:
						right++
					}
				}
			}
			t.Logf("%d notes: %d red, %d right", notes, red, right)
			assert.Zero(t, red)
			assert.LessOrEqual(t, float64(right), 0.2*float64(notes), "and hardly anything is called right")
		})
	}
}
