package edit

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/score"
)

// The forms of a lick go from plain to as it is, each with devices of one kind more than the one before: for licks of every mixture of
// devices. What is heard stays, note for note; a hand can play each form.
func TestLevelsAddOneKindOfDeviceAtATime(t *testing.T) {
	kinds := []struct {
		name string
		text string
		has  func(o score.Ornaments) bool
	}{
		{"slurs", "R/e 9/eh R/ep b7,/e", func(o score.Ornaments) bool {
			return o.Join == score.Hammer || o.Join == score.PullOff || o.Trill+o.Turn+o.Double > 0
		}},
		{"slides", "b3/e 3/es 5/e", func(o score.Ornaments) bool { return o.Join == score.Slide || o.Scoop != 0 || o.SlideOut != 0 }},
		{"bends", "R'/e b3'/q^2", func(o score.Ornaments) bool { return o.Bend > 0 }},
		{"written", "5/q~", func(o score.Ornaments) bool { return o.Vibrato || o.Accent }},
	}
	in, forms := neck.Standard(), 0
	for mask := range 1 << len(kinds) {
		text := "R/e 5/e "
		for k, kind := range kinds {
			if mask>>k&1 == 1 {
				text += kind.text + " "
			}
		}
		notes, err := lick.Parse(text)
		require.NoError(t, err, text)
		for i := range notes {
			if mask>>3&1 == 1 && i == len(notes)-1 {
				notes[i].Vibrato = true
			}
		}
		l, err := Show(lick.Lick{Chord: "7", Notes: notes}, "x", "C", in, neck.UsualHand)
		require.NoError(t, err, text)
		levels := l.Levels()
		assert.Equal(t, l.Notes, levels[len(levels)-1].Line.Notes, "%s: the last is all", text)
		for i, v := range levels {
			forms++
			require.NoError(t, v.Line.Check(), "%s: %s", text, v.Name)
			require.Len(t, v.Line.Notes, len(l.Notes))
			for k, n := range v.Line.Notes {
				require.Equal(t, l.Notes[k].Heard(), n.Heard(), "%s: %s keeps what is heard", text, v.Name)
				require.Equal(t, l.Notes[k].Start, n.Start)
			}
			if i > 0 {
				require.NotEqual(t, levels[i-1].Line.Notes, v.Line.Notes)
			}
			if v.ID == "plain" && len(levels) > 1 {
				for _, n := range v.Line.Notes {
					for _, kind := range kinds {
						require.False(t, kind.has(n.Ornaments), "%s: plain has no %s", text, kind.name)
					}
				}
			}
		}
		had := 0
		for _, kind := range kinds {
			for _, n := range l.Notes {
				if kind.has(n.Ornaments) {
					had++
					break
				}
			}
		}
		names := []string{}
		for _, v := range levels {
			names = append(names, v.ID)
		}
		require.Len(t, names, had+1, "%s: a form for each kind it has", text)
	}
	assert.Greater(t, forms, 30)
}
