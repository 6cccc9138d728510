package lick

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/score"
)

// A run down the scale that comes to the third a sixteenth, a third of a beat or half a beat early is made up for by a note
// squeezed in before it: on every root, in every place of the hand, up and down. The run's own notes stay, in their order, each on a
// pitch of its own; what is squeezed in lies a step from what follows it and is as long as what was missing.
func TestANoteIsSqueezedIn(t *testing.T) {
	offered, cases := 0, 0
	for _, root := range pitch.Roots {
		chord := harmony.MustParse(root.String() + "7")
		third, _ := harmony.Degree("3").Interval()
		goal := pitch.Class(root.Class() + third.HalfSteps)
		for low := 2; low <= 12; low += 2 {
			for _, missing := range []int{240, 320, 480} {
				for _, down := range []bool{true, false} {
					g := ground(low, low+4)
					scale := chord.Scale()
					var run []int
					for midi := 45; midi < 84; midi++ {
						for _, s := range scale {
							if s.Name.Class() == midi%12 && len(g.In.Find(midi, g.Region)) > 0 {
								run = append(run, midi)
							}
						}
					}
					for i, midi := range run {
						if midi%12 != goal {
							continue
						}
						var pitches []int
						for k := 3; k >= 0; k-- {
							at := i - k
							if down {
								at = i + k
							}
							if at >= 0 && at < len(run) {
								pitches = append(pitches, run[at])
							}
						}
						if len(pitches) < 4 {
							continue
						}
						var phrase []score.Note
						for k, midi := range pitches {
							phrase = append(phrase, score.Note{ID: k + 1, Start: 3840 - missing - 480*(3-k), Length: 480, Pitch: pitch.At(midi, form.Key{}.Spell(midi%12)), Placement: g.In.Find(midi, g.Region)[0]})
						}
						if _, _, ok := score.Place(g.In, phrase, g.Region, g.Hand, nil); !ok {
							continue
						}
						l := Landing{At: 3840, Chord: chord, Key: form.Key{}.Spell, Ground: g}
						proposals, why := l.Fit(t.Context(), phrase)
						require.NotEmpty(t, proposals, why)
						cases++
						for rank, p := range proposals {
							if !strings.HasPrefix(p.Says[0], "squeeze in") || len(p.Says) > 1 {
								continue
							}
							offered++
							assert.Less(t, rank, maxProposals)
							require.Len(t, p.Notes, 5)
							var own []int
							for k, n := range p.Notes {
								if n.ID > 0 {
									own = append(own, n.Pitch.MIDI())
									continue
								}
								require.Equal(t, missing, n.Length)
								require.Equal(t, p.Notes[k+1].Start, n.End())
								require.NotContains(t, []int{p.Notes[k-1].Pitch.MIDI(), p.Notes[k+1].Pitch.MIDI()}, n.Pitch.MIDI())
								require.LessOrEqual(t, abs(p.Notes[k+1].Pitch.MIDI()-n.Pitch.MIDI()), 2)
							}
							require.Equal(t, pitches, own)
							require.True(t, l.Landed(p.Notes))
							require.Equal(t, midi, p.Notes[4].Pitch.MIDI())
							require.True(t, score.Done(g.In, p.Notes, g.Hand))
							break
						}
					}
				}
			}
		}
	}
	t.Log(offered, "of", cases)
	assert.Greater(t, cases, 300)
	assert.Equal(t, cases, offered, "each run is offered one")
}
