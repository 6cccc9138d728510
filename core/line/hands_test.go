package line

import (
	"fmt"
	"testing"
	"undaris/core/neck"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/score"
)

// In every style over every chart: adorned, a line keeps where its notes begin and rest and
// can still be played; without its adornments it is the plain one again.
func TestAdornedLinesStayInPlace(t *testing.T) {
	added := map[string]int{}
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		for seed := range uint64(4) {
			for _, word := range Words {
				where := fmt.Sprint(word.ID, " over ", c.form, ", ", seed)
				s.Notes = written(t, s, word, seed, s.In.Positions(s.Key.Tonic.Class())[1].Region)
				before := 0
				for _, amount := range []float64{0, 0.3, 1} {
					out := s
					out.Notes = Adorn(s, palette(t, "composite"), neck.UsualHand, amount, seed, nil)
					require.NoError(t, out.Check(), where)
					require.Empty(t, out.Undoable(), where)
					n := 0
					for i, a := range out.Notes {
						b := s.Notes[i]
						require.Equal(t, b.Start, a.Start, where)
						require.Equal(t, b.Placement, a.Placement, where)
						plain := a.Ornaments.Plain()
						plain.Vibrato = b.Vibrato
						require.Equal(t, b.Ornaments, plain, where)
						if a.Ornaments.Plain() != a.Ornaments {
							n++
							added[fmt.Sprint(a.Trill > 0, a.Turn > 0, a.Double > 0)]++
						}
					}
					require.GreaterOrEqual(t, n, before, where)
					if amount == 0 {
						require.Zero(t, n)
					}
					before = n
				}
				require.Positive(t, before, where)
			}
		}
	}
	assert.Len(t, added, 3, "trills, turns and doubles: %v", added)
	s := empty(t, "slow-change", "A")
	s.Notes = written(t, s, Words[0], 1, s.In.Positions(9)[1].Region)
	locked := Adorn(s, palette(t, "composite"), neck.UsualHand, 1, 1, map[int]bool{0: true})
	for i, n := range locked {
		if n.Start < s.At(1) {
			assert.Equal(t, s.Notes[i], n)
		}
	}
}

// Known strokes: in turn, with the string, or only where a slur cannot.
func TestPickingHands(t *testing.T) {
	s := empty(t, "slow-change", "C")
	s.Notes = []score.Note{
		note(s, 0, 480, 3, 5), note(s, 480, 480, 3, 7), note(s, 960, 480, 2, 5), note(s, 1440, 480, 1, 5), note(s, 1920, 480, 2, 8), note(s, 2400, 480, 2, 5),
		note(s, 3840, 480, 4, 7), note(s, 4320, 480, 3, 5),
	}
	for id, want := range map[string]string{
		"alternate": "↓↑↓↑↓↑ ↓↑", "economy": "↓↑↓↓↑↓ ↓↓", "legato": "↓h↓↓↓p ↓↓", "open": "------ --",
	} {
		notes, _, err := Pick(s, id, nil)
		require.NoError(t, err)
		got := ""
		for i, n := range notes {
			if i == 6 {
				got += " "
			}
			switch {
			case n.Join == score.Hammer:
				got += "h"
			case n.Join == score.PullOff:
				got += "p"
			case n.Stroke == score.DownStroke:
				got += "↓"
			case n.Stroke == score.UpStroke:
				got += "↑"
			default:
				got += "-"
			}
		}
		assert.Equal(t, want, got, id)
	}
	_, _, err := Pick(s, "teeth", nil)
	assert.EqualError(t, err, `there is no way to pick "teeth"`)
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		for _, word := range Words {
			s.Notes = written(t, s, word, 2, s.In.Positions(s.Key.Tonic.Class())[1].Region)
			for _, p := range Pickings {
				out := s
				var err error
				out.Notes, _, err = Pick(s, p.ID, nil)
				require.NoError(t, err)
				require.NoError(t, out.Check())
				require.Empty(t, out.Undoable(), "%s, %s", word.ID, p.ID)
			}
		}
	}
}

// Each connector ends next to the note it leads into, and fits before it.
func TestConnectorsLeadIn(t *testing.T) {
	s := empty(t, "slow-change", "C")
	s.Notes = []score.Note{note(s, 0, 960, 3, 5), note(s, 3840, 960, 2, 8)} // C, then G
	for id, want := range map[string]string{"scale": "D E F", "walk": "E F F#", "box": "Eb F", "enclosure": "A F#"} {
		c, known := ConnectorByID(id)
		require.True(t, known)
		lead, ok := c.Connect(s, minorPentatonic(), 1)
		require.True(t, ok, id)
		notes := lead.Notes
		got := ""
		for _, n := range notes {
			got += " " + n.Pitch.Name.String()
		}
		assert.Equal(t, want, got[1:], id)
		last := notes[len(notes)-1]
		assert.Equal(t, 3840, last.End(), id)
		assert.LessOrEqual(t, size(last.Pitch.MIDI()-s.Notes[1].Heard()), 4, id)
		assert.Equal(t, 960, lead.Shortened)
	}
	s.Notes[0].Length = 3840
	c, _ := ConnectorByID("scale")
	lead, ok := c.Connect(s, minorPentatonic(), 1)
	require.True(t, ok)
	assert.Less(t, lead.Shortened, 3840, "the note before makes room")
	s.Notes[1].Start = 480
	_, ok = c.Connect(s, minorPentatonic(), 1)
	assert.False(t, ok, "the landing of a change does not give way")
	s.Notes = []score.Note{note(s, 2880, 480, 3, 5), note(s, 3360, 480, 3, 8), note(s, 3840, 960, 2, 8)}
	lead, ok = c.Connect(s, minorPentatonic(), 2)
	require.True(t, ok)
	assert.Equal(t, 1, lead.From, "what begins in the beat before gives way")
	_, known := ConnectorByID("lift")
	assert.False(t, known)
}
