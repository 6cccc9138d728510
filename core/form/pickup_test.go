package form

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/harmony"
)

// A pickup is read however players write it, is none of the bars, and leaves as it came.
func TestPickups(t *testing.T) {
	for _, c := range []struct {
		text, written string
		said          bool
	}{
		{"| 1/4 G7 | 4/4 C7 | F7 |", "| pickup 1/4 G7 | C7 | F7 |", true},
		{"1/4 G7 | 4/4 C7 | F7", "| pickup 1/4 G7 | C7 | F7 |", true},
		{"| pickup 1/4 G7 | C7 | F7 |", "| pickup 1/4 G7 | C7 | F7 |", false},
		{"| (pickup) G7 | C7 | F7 |", "| pickup 1/4 G7 | C7 | F7 |", false},
		{"Pickup: | G7 . |\nVerse: | C7 | F7 |", "| pickup 2/4 G7 | [Verse] C7 | F7 |", false},
		{"| [Pickup] 2/4 D7 G7 |: C7 | F7 :|", "| pickup 2/4 D7 G7 |: C7 | F7 :|", false},
		{"| pick-up: 3/4 D7 . G7 | 3/4 C7 | % |", "| pickup 3/4 D7 G7 | 3/4 C7 | C7 |", false},
		{"| anacrusis N.C. | C7 |", "| pickup 1/4 N.C. | C7 |", false},
		{"| [Verse] 1/4 G7 | 4/4 C7 | F7 |", "| pickup 1/4 G7 | [Verse] C7 | F7 |", true},
		{"| pickup V7 | I7 | IV7 |", "| pickup 1/4 G7 | C7 | F7 |", false},
		{"| no pickup 1/4 G7 | 4/4 C7 |", "| no pickup 1/4 G7 | 4/4 C7 |", false},
		{"| 2/4 C7 | F7 | 4/4 G7 |", "| 2/4 C7 | F7 | 4/4 G7 |", false},
		{"|: 2/4 C7 | 4/4 F7 :|", "|: 2/4 C7 | 4/4 F7 :|", false},
		{"| C7 | 2/4 F7 |", "| C7 | 2/4 F7 |", false},
	} {
		s, found, err := ReadSong(c.text, 4, Key{})
		require.NoError(t, err, c.text)
		assert.Equal(t, c.written, s.Text(), c.text)
		assert.Equal(t, c.said, len(found.Said) > 0, "%s: %v", c.text, found.Said)
		again, found, err := ReadSong(s.Text(), 4, Key{})
		require.NoError(t, err)
		assert.Equal(t, s, again, c.text)
		assert.Empty(t, found.Said, s.Text())
		p := s.Play(MaxBars)
		assert.Equal(t, s.Pickup, p.Pickup)
		assert.Equal(t, p.Length(), func() (n int) {
			for i := range p.Bars {
				n += p.BeatsOf(i)
			}
			return n
		}(), "a pickup is none of the bars")
	}
	for text, want := range map[string]string{
		"| pickup 4/4 G7 | C7 |":                 "a pickup of 4 beats fills a bar of 4; write it as a bar",
		"| pickup 5/4 G7 | C7 |":                 "fills a bar of 4",
		"| pickup G7 . . . | C7 |":               "fills a bar of 4",
		"| C7 | pickup 1/4 G7 | F7 |":            "bar 2: a pickup stands before the first bar",
		"| pickup G7 | pickup G7 | C7 |":         "a pickup stands before the first bar, once",
		"| pickup | C7 |":                        "the pickup is empty",
		"| pickup % | C7 |":                      "%",
		"| pickup 2/4 G7 . . | C7 |":             "3 beats written out; it needs 2",
		"| pickup 1/4 G7 |":                      "there are no bars yet",
		"| pickup 2/4 D7 G7 C7 | C7 | F7 | C7 |": "3 chords on 2 beats",
	} {
		_, _, err := ReadSong(text, 4, Key{})
		assert.ErrorContains(t, err, want, text)
	}
}

// Whatever is drawn, a pickup comes back from its text, moves with the key and sounds on the beats that it has.
func TestPickupsComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		beats := rapid.IntRange(MinBeats, MaxBeats).Draw(t, "beats")
		f := rapid.SampledFrom(Forms).Draw(t, "form")
		key := Key{Tonic: rapid.SampledFrom(AllKeys(f.Minor)).Draw(t, "key").Tonic, Minor: f.Minor}
		p := f.In(key)
		if beats = max(p.Beats, beats); beats != p.Beats {
			for i := range p.Bars {
				p.Bars[i].Beats = p.Beats
			}
			p.Beats = beats
		}
		p.Pickup.Beats = rapid.IntRange(1, beats-1).Draw(t, "pickup")
		for beat := range p.Pickup.Beats {
			if beat == 0 || rapid.Bool().Draw(t, "change") {
				p.Pickup.Changes = append(p.Pickup.Changes, Change{beat, rapid.SampledFrom(p.Bars).Draw(t, "bar").Changes[0].Chord})
			}
		}
		again, err := Read(p.Text(), beats, key)
		require.NoError(t, err, p.Text())
		require.Equal(t, p.Text(), again.Text())
		require.Equal(t, p.Pickup, again.Pickup)
		to := rapid.SampledFrom(AllKeys(f.Minor)).Draw(t, "to")
		moved := p.Transpose(key, to)
		require.Equal(t, p.Pickup.Beats, moved.Pickup.Beats)
		for i, c := range p.Pickup.Changes {
			require.Equal(t, Numeral(c.Chord, key), Numeral(moved.Pickup.Changes[i].Chord, to))
		}
		sounds := 0
		for beat := -beats; beat < beats; beat++ {
			c, ok := p.Pickup.Chord(beat)
			if ok {
				sounds++
				require.NotEqual(t, harmony.Chord{}, c)
			}
			require.Equal(t, beat >= -p.Pickup.Beats && beat < 0, ok, beat)
		}
		require.Equal(t, p.Pickup.Beats, sounds)
	})
}

// However long what leads in is, there is room for its end before the first bar, and nothing in it begins twice.
func TestAPickupIsShorterThanABar(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var p Pickup
		of := rapid.IntRange(1, 12).Draw(t, "of")
		for beat := range of {
			if rapid.Bool().Draw(t, "chord") {
				p.Lead(of, beat, Forms[0].In(Key{}).Bars[beat%12].Changes[0].Chord)
			}
		}
		require.Less(t, p.Beats, max(of, 1))
		require.Equal(t, p.Beats > 0, len(p.Changes) > 0)
		beats := rapid.IntRange(MinBeats, MaxBeats).Draw(t, "beats")
		in := p.Within(beats)
		require.Less(t, in.Beats, beats)
		require.Equal(t, min(p.Beats, beats-1), in.Beats)
		for i, c := range in.Changes {
			require.Less(t, c.Beat, in.Beats)
			if i > 0 {
				require.Greater(t, c.Beat, in.Changes[i-1].Beat)
			}
		}
		if p.Beats > 0 {
			a, _ := p.Chord(-1)
			b, _ := in.Chord(-1)
			require.Equal(t, a, b, "what leads into the bar is kept")
		}
	})
}
