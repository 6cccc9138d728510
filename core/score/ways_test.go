package score_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/band"
	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func TestTheWaysAgreeWithThemselves(t *testing.T) {
	keys, names, marks := map[string]string{}, map[string]bool{}, map[string]string{}
	for _, w := range score.Ways {
		assert.NotContains(t, keys, w.Key, "%s has the key of %s", w.Name, keys[w.Key])
		assert.False(t, names[w.Name], "two ways are called %s", w.Name)
		keys[w.Key], names[w.Name] = w.Name, true
		for _, sign := range []string{"text" + w.Text.Mark, "lick" + w.Lick.Mark} {
			if len(sign) > 4 {
				assert.NotContains(t, marks, sign, "%s has the sign of %s", w.Name, marks[sign])
				marks[sign] = w.Name
			}
		}
		require.NotEmpty(t, w.Values, w.Name)
		for i, v := range w.Values {
			var o score.Ornaments
			is := i + 1
			if n, ok := v.Is.(int); ok {
				is = n
			}
			w.Put(&o, is)
			assert.Equal(t, is, w.Of(o), "%s %v", w.Name, v.Is)
			assert.NoError(t, o.Check(), "%s %v", w.Name, v.Is)
			w.Put(&o, 0)
			assert.Zero(t, o, w.Name)
		}
		if w.On != "" {
			assert.Equal(t, w.On, score.WayByID(w.On).ID)
		}
	}
}

// phrase is two notes on string 2, the second played in some way, in A over a
// six-string guitar.
func phrase(first, second neck.Placement, before, o score.Ornaments) score.Score {
	key := form.Key{Tonic: pitch.Name{Letter: 5}}
	s := score.Score{Key: key, Tempo: 96, Progression: form.Forms[0].In(key), In: neck.Standard()}
	for i, p := range []neck.Placement{first, second} {
		midi := s.In.MIDI(p)
		s.Notes = append(s.Notes, score.Note{Start: i * 960, Length: 960, Placement: p, Pitch: pitch.At(midi, key.Spell(midi%12))})
	}
	s.Notes[0].Ornaments, s.Notes[1].Ornaments = before, o
	return s
}

func TestEveryWayIsHeard(t *testing.T) {
	at := func(fret int) neck.Placement { return neck.Placement{String: 2, Fret: fret} }
	plain := phrase(at(5), at(5), score.Ornaments{Bend: 2}, score.Ornaments{})
	for _, w := range score.Ways {
		for i, v := range w.Values {
			o := score.Ornaments{}
			for on := w.On; on != ""; on = score.WayByID(on).On {
				score.WayByID(on).Put(&o, 6)
			}
			without := plain
			without.Notes = append([]score.Note(nil), plain.Notes...)
			without.Notes[1].Ornaments = o
			if n, ok := v.Is.(int); ok {
				i = n - 1
			}
			w.Put(&o, i+1)
			with := plain
			with.Notes = append([]score.Note(nil), plain.Notes...)
			with.Notes[1].Ornaments = o
			switch o.Stroke {
			case "":
				assert.NotEqual(t, band.Lead(without), band.Lead(with), "%s %v", w.Name, v.Is)
			default: // how it is struck is left to the ear of the player
				assert.Equal(t, band.Lead(without), band.Lead(with))
			}
		}
	}
}

func TestWhatNoHandCanDoIsLeftOutWithItsReason(t *testing.T) {
	on := func(str, fret int) neck.Placement { return neck.Placement{String: str, Fret: fret} }
	for _, c := range []struct {
		first, second neck.Placement
		before, o     score.Ornaments
		says          string // empty where a hand can do it
	}{
		{on(2, 5), on(2, 8), score.Ornaments{}, score.Ornaments{Join: score.Hammer}, ""},
		{on(2, 8), on(2, 5), score.Ornaments{}, score.Ornaments{Join: score.Hammer}, "not above fret 8"},
		{on(2, 8), on(2, 5), score.Ornaments{}, score.Ornaments{Join: score.PullOff}, ""},
		{on(2, 5), on(2, 8), score.Ornaments{}, score.Ornaments{Join: score.PullOff}, "not below fret 5"},
		{on(2, 5), on(3, 8), score.Ornaments{}, score.Ornaments{Join: score.Slide}, "on its string"},
		{on(2, 5), on(2, 5), score.Ornaments{}, score.Ornaments{Join: score.Slide}, "another fret"},
		{on(2, 5), on(2, 8), score.Ornaments{}, score.Ornaments{Join: score.Slide}, ""},
		{on(2, 5), on(2, 8), score.Ornaments{}, score.Ornaments{Bend: 4}, ""},
		{on(2, 5), on(2, 0), score.Ornaments{}, score.Ornaments{Bend: 4}, "open string cannot be bent"},
		{on(2, 5), on(6, 5), score.Ornaments{}, score.Ornaments{Bend: 4}, "bears a bend of 1"},
		{on(2, 5), on(2, 5), score.Ornaments{}, score.Ornaments{Release: true}, "goes with a bend"},
		{on(2, 5), on(2, 5), score.Ornaments{}, score.Ornaments{Bend: 4, Release: true, ReleaseTo: 2}, ""},
		{on(2, 5), on(2, 5), score.Ornaments{}, score.Ornaments{Bend: 2, Release: true, ReleaseTo: 4}, "less than it was"},
		{on(2, 5), on(2, 5), score.Ornaments{Bend: 4}, score.Ornaments{Bend: 4, Again: true}, ""},
		{on(2, 5), on(2, 5), score.Ornaments{Bend: 4, Release: true}, score.Ornaments{Bend: 4, Again: true}, "not held bent"},
		{on(2, 5), on(2, 7), score.Ornaments{Bend: 4}, score.Ornaments{Bend: 4, Again: true}, "not held bent"},
		{on(2, 5), on(2, 1), score.Ornaments{}, score.Ornaments{Scoop: 2}, "no fret -1"},
		{on(2, 5), on(2, 22), score.Ornaments{}, score.Ornaments{SlideBack: 2}, "no fret 24"},
		{on(2, 5), on(2, 0), score.Ornaments{}, score.Ornaments{SlideOut: 3}, "open string cannot be slid"},
		{on(2, 5), on(2, 0), score.Ornaments{}, score.Ornaments{Vibrato: true}, "this one is open"},
		{on(2, 5), on(2, 0), score.Ornaments{}, score.Ornaments{Trill: 2}, ""},
		{on(2, 5), on(5, 5), score.Ornaments{}, score.Ornaments{Rake: 3}, "there are 6 strings"},
		{on(2, 5), on(2, 5), score.Ornaments{}, score.Ornaments{Rake: 3, PalmMute: true, Staccato: true, Stroke: score.ByThumb}, ""},
	} {
		s := phrase(c.first, c.second, c.before, c.o)
		said := strings.Join(s.Undoable(), "; ")
		name := fmt.Sprintf("%+v after %v at %v: %s", c.o, c.first, c.second, said)
		if c.says == "" {
			assert.Empty(t, said, name)
			assert.Equal(t, c.o, s.Notes[1].Ornaments, name)
			continue
		}
		assert.Contains(t, said, c.says, name)
		assert.NotEqual(t, c.o, s.Notes[1].Ornaments, name)
	}
}
