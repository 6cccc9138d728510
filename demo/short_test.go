package demo

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/score"
)

// A lick of a bar starts where it starts over every chord, with all its notes, within two octaves, in every key.
func TestLicksOfABarLoseNothing(t *testing.T) {
	met := 0
	for _, l := range licks {
		notes, err := lick.Parse(l.text)
		require.NoError(t, err, l.title)
		k := lick.Lick{Chord: l.chord, Notes: notes}
		if k.End()-min(0, notes[0].Start) > 4*score.Tick || strings.HasPrefix(l.chord, "key") {
			continue
		}
		met++
		f, _ := form.FormByID("slow-change")
		if strings.HasPrefix(l.chord, "m") && l.chord != "maj7" {
			f, _ = form.FormByID("minor-blues")
		}
		for _, key := range form.AllKeys(f.Minor) {
			p := f.In(key)
			laid, err := k.Through(t.Context(), p, key, lick.Aim{Ground: lick.Ground{In: neck.Standard(), Region: neck.Region{Low: 0, High: 15}, Hand: neck.UsualHand}})
			require.NoError(t, err, l.title)
			got := laid.Notes
			for _, s := range laid.Said {
				assert.NotContains(t, s, "have no room", "%s in %s", l.title, key)
			}
			starts := map[int][]score.Note{}
			for _, n := range got {
				starts[n.Start] = append(starts[n.Start], n)
			}
			chord := ""
			for bar, b := range p.Bars {
				if now := b.Changes[0].Chord.String(); now == chord || b.Changes[0].Chord.None {
					continue
				} else {
					chord = now
				}
				low, high := 200, 0
				for _, n := range notes {
					at := p.StartOf(bar)*score.Tick + n.Start
					if at < 0 {
						continue
					}
					assert.NotEmpty(t, starts[at], "%s in %s, bar %d: a note is lost at %d", l.title, key, bar+1, n.Start)
					for _, g := range starts[at] {
						low, high = min(low, g.Pitch.MIDI()), max(high, g.Pitch.MIDI())
					}
				}
				assert.LessOrEqual(t, high-low, 24, "%s in %s, bar %d", l.title, key, bar+1)
			}
		}
	}
	assert.Greater(t, met, 5)
}
