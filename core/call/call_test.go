package call

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// wish draws what a player may choose, over any form in any key on any instrument.
func wish(t *rapid.T) Wish {
	u := rapid.SampledFrom(neck.Tunings).Draw(t, "tuning")
	in, err := neck.New(u.Open, u.Frets, u.Scale, 0)
	require.NoError(t, err)
	f := rapid.SampledFrom(form.Forms).Draw(t, "form")
	key := form.Key{Tonic: rapid.SampledFrom(pitch.Roots).Draw(t, "tonic"), Minor: f.Minor}
	chords, _ := form.Different(f.In(key).Places())
	w := Wish{In: in, Hand: neck.UsualHand, Key: key, Chords: chords, Seed: rapid.Uint64().Draw(t, "seed"), Advanced: rapid.Bool().Draw(t, "advanced"),
		Only: rapid.SampledFrom([]string{"", "up", "down"}).Draw(t, "only")}
	for _, p := range in.Positions(key.Tonic.Class()) {
		w.Windows = append(w.Windows, p.Window)
	}
	if rapid.Bool().Draw(t, "starts") {
		w.Starts = []harmony.Role{rapid.SampledFrom([]harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Seventh}).Draw(t, "start")}
	}
	return w
}

// What is asked can be answered, and its answer is right: reckoned anew from the
// neck and the chord.
func TestEveryCallHasItsAnswer(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := wish(t)
		calls, err := Draw(t.Context(), w, 12)
		require.NoError(t, err)
		require.Len(t, calls, 12)
		for i, c := range calls {
			if i > 0 && same(c, calls[i-1]) {
				t.Fatalf("call %d is asked twice", i)
			}
			inside := func(p neck.Placement) {
				if p.String < c.Strings[0] || p.String > c.Strings[1] || p.Fret < c.Window.Low || p.Fret > c.Window.High {
					t.Fatalf("%s: %v lies outside", c.Says(), p)
				}
			}
			assert.Contains(t, w.Chords, c.Chord)
			switch c.Kind {
			case Tones:
				require.Len(t, c.Notes, length)
				if len(w.Starts) > 0 {
					require.Equal(t, w.Starts[0], c.Notes[0].Tone.Degree.Role())
				}
				for k, n := range c.Notes {
					require.NotEmpty(t, n.Places)
					for _, p := range n.Places {
						inside(p)
						require.Equal(t, n.MIDI, w.In.MIDI(p))
					}
					tone, ok := c.Chord.ToneAt(n.MIDI % 12)
					require.True(t, ok)
					require.Equal(t, tone, n.Tone)
					require.Contains(t, c.Options, string(n.Tone.Degree))
					if k > 0 {
						require.Equal(t, c.Down, n.MIDI < c.Notes[k-1].MIDI, c.Says())
					}
				}
				require.True(t, w.Only == "" || c.Down == (w.Only == "down"))
			case Place:
				inside(c.Given)
				require.LessOrEqual(t, c.Bent, w.In.Bendable(c.Given))
				if tone, ok := c.Chord.ToneAt((w.In.MIDI(c.Given) + c.Bent) % 12); ok {
					require.Equal(t, string(tone.Degree), c.Answer)
				}
				require.Contains(t, c.Options, c.Answer)
				require.Len(t, c.Options, 12)
			case Material:
				require.NotEmpty(t, c.Drill)
				require.GreaterOrEqual(t, len(c.Notes), length)
				if len(w.Starts) > 0 {
					require.Equal(t, w.Starts[0], c.Notes[0].Tone.Degree.Role())
				}
				for _, n := range c.Notes {
					require.NotEmpty(t, n.Places)
					for _, p := range n.Places {
						require.Equal(t, n.MIDI, w.In.MIDI(p), "%s", c.Says())
					}
					require.Contains(t, c.Options, string(n.Tone.Degree))
				}
			case Bend:
				inside(c.Given)
				by, err := strconv.Atoi(c.Answer)
				require.NoError(t, err)
				require.LessOrEqual(t, by, w.In.Bendable(c.Given))
				tone, ok := c.Chord.ToneAt((w.In.MIDI(c.Given) + by) % 12)
				require.True(t, ok)
				require.Equal(t, c.Goal, tone)
			}
			require.NotEmpty(t, c.Says())
			require.NotContains(t, c.Spoken(), "♭")
		}
		again, err := Draw(t.Context(), w, 12)
		require.NoError(t, err)
		require.Equal(t, calls, again, "the same seed asks the same")
	})
}

func TestWhatCannotBeAskedIsSaid(t *testing.T) {
	in := neck.Standard()
	w := Wish{In: in, Hand: neck.UsualHand, Chords: []harmony.Chord{harmony.MustParse("C7")}, Windows: []neck.Window{{Low: 7, High: 11}}, Kinds: []string{Tones}, Strings: [][2]int{{1, 1}}}
	_, err := Draw(t.Context(), w, 1)
	assert.ErrorContains(t, err, "allow more strings")
	w.Strings = nil
	w.Chords[0].None = true
	_, err = Draw(t.Context(), w, 1)
	assert.Error(t, err)
}

func TestACallIsSaidAndSpoken(t *testing.T) {
	g := harmony.MustParse("G7")
	third, _ := g.ToneAt(11)
	c := Call{Kind: Tones, Chord: g, Numeral: "V7", Notes: []Note{{Tone: third}}}
	assert.Equal(t, "upward, from the 3", c.Says())
	assert.Equal(t, "your five chord, upward from the third", c.Spoken())
	c = Call{Kind: Place, Chord: g, Numeral: "iv7", Given: neck.Placement{String: 2, Fret: 8}, Bent: 2}
	assert.Equal(t, "string 2, fret 8, bent up a whole step: which degree?", c.Says())
	assert.Equal(t, "your four chord, string 2, fret 8, bent a whole step. Which degree?", c.Spoken())
	c = Call{Kind: Bend, Chord: g, Numeral: "bVII7", Given: neck.Placement{String: 2, Fret: 8}, Goal: third}
	assert.Equal(t, "this chord, string 2, fret 8. How far to the third?", c.Spoken())
}

func BenchmarkDrawExercises(b *testing.B) {
	in := neck.Standard()
	w := Wish{In: in, Hand: neck.UsualHand, Key: form.Key{}, Chords: []harmony.Chord{harmony.MustParse("C7"), harmony.MustParse("F7")}, Windows: []neck.Window{{Low: 7, High: 11}}, Kinds: []string{Material}}
	for b.Loop() {
		w.Seed++
		if _, err := Draw(b.Context(), w, 12); err != nil {
			b.Fatal(err)
		}
	}
}
