package call

import (
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/approach"
	"undaris/core/blend"
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
	g := Ground{Key: key, Chords: chords}
	for _, p := range in.Positions(key.Tonic.Class()) {
		g.Windows = append(g.Windows, p.Region)
	}
	w := Wish{In: in, Hand: neck.UsualHand, Grounds: []Ground{g}, Tempo: 96, Seed: rapid.Uint64().Draw(t, "seed"), Advanced: rapid.Bool().Draw(t, "advanced"),
		Only: rapid.SampledFrom([]string{"", "up", "down"}).Draw(t, "only")}
	ids := func(label string, n int, id func(int) string) (list []string) {
		for i := range n {
			if rapid.Bool().Draw(t, label+id(i)) {
				list = append(list, id(i))
			}
		}
		return list
	}
	w.Orders = ids("order ", len(Orders), func(i int) string { return Orders[i].ID })
	w.Devices = ids("device ", len(Devices), func(i int) string { return Devices[i].ID })
	w.Paces = ids("pace ", len(Paces), func(i int) string { return Paces[i].ID })
	if rapid.Bool().Draw(t, "ends") {
		w.Ends = []harmony.Role{rapid.SampledFrom([]harmony.Role{harmony.Root, harmony.Third, harmony.Fifth, harmony.Extension}).Draw(t, "end")}
		w.Kinds = []string{Tones, Place, Bend} // an exercise may end nowhere near
	} else if w.Plain = rapid.Bool().Draw(t, "plain"); rapid.Bool().Draw(t, "starts") {
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
				if !c.Region.Has(p) {
					t.Fatalf("%s: %v lies outside", c.Says(), p)
				}
			}
			assert.Contains(t, w.Grounds[0].Chords, c.Chord)
			gap, give := c.Gap()
			require.Equal(t, gap > 0, c.Pace != "" && c.Pace != "free", c.Pace)
			require.LessOrEqual(t, give, max(60, gap))
			if len(w.Ends) > 0 && len(c.Notes) > 0 {
				require.Equal(t, w.Ends[0], c.Notes[len(c.Notes)-1].Tone.Degree.Role())
			}
			switch c.Kind {
			case Tones:
				if c.Leans {
					require.Equal(t, harmony.Extension, w.Ends[0])
					last := c.Notes[len(c.Notes)-1]
					sound := blend.Sounds(c.Chord)[c.Chord.Above(last.MIDI)]
					require.Equal(t, blend.Colour, sound.Class)
					require.Equal(t, sound.Degree, last.Tone.Degree)
					require.Equal(t, last.MIDI%12, last.Tone.Name.Class())
					require.Contains(t, c.Options, string(last.Tone.Degree))
					require.NotEmpty(t, last.Places)
					require.Contains(t, c.Says(), "on to the "+last.Tone.Degree.Printed())
				}
				tones := c.Notes[c.Lead:]
				if c.Leans {
					tones = tones[:len(tones)-1]
				}
				require.Len(t, tones, length)
				if len(w.Starts) > 0 {
					require.Equal(t, w.Starts[0], c.Notes[c.Lead].Tone.Degree.Role())
				}
				first := c.Notes[c.Lead].MIDI
				led := []int{}
				for _, n := range c.Notes[:c.Lead] {
					led = append(led, n.MIDI-first)
					require.Contains(t, c.Options, string(n.Tone.Degree))
					require.Equal(t, n.MIDI%12, n.Tone.Name.Class())
					for _, p := range n.Places {
						inside(p)
						require.Equal(t, n.MIDI, w.In.MIDI(p))
					}
				}
				way, _ := approach.ByID(c.Device)
				require.Len(t, led, len(way.Steps))
				for k, step := range way.Steps {
					if !step.Scale {
						require.Equal(t, step.By, led[k])
						continue
					}
					require.Contains(t, []int{1, 2, 3}, led[k]*step.By)
					require.True(t, slices.ContainsFunc(c.Chord.Scale(), func(s harmony.Tone) bool { return s.Name.Class() == c.Notes[k].MIDI%12 }))
				}
				for k, n := range tones {
					require.NotEmpty(t, n.Places)
					for _, p := range n.Places {
						inside(p)
						require.Equal(t, n.MIDI, w.In.MIDI(p))
					}
					tone, ok := c.Chord.ToneAt(n.MIDI % 12)
					require.True(t, ok)
					require.Equal(t, tone, n.Tone)
					require.Contains(t, c.Options, string(n.Tone.Degree))
					if before := c.Notes[max(0, c.Lead+k-1)].MIDI; k > 0 {
						falls := c.Down != (k == 2 && c.Order == "skips" || k == 3 && c.Order == "back")
						require.Equal(t, falls, n.MIDI < before, c.Says())
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
				require.True(t, !w.Plain || by == 1 || by == 2)
			case Written:
				require.Len(t, c.Notes, 1)
				require.Equal(t, c.Notes[0].MIDI, c.Reads.MIDI())
				require.Equal(t, c.Notes[0].Tone.Name, c.Reads.Name)
				require.Equal(t, w.places(c, func(midi int) bool { return midi == c.Reads.MIDI() }), w.sorted(c.Notes[0].Places))
			case Every:
				require.True(t, c.Free)
				var all []neck.Placement
				for _, n := range c.Notes {
					require.Len(t, n.Places, 1)
					require.Equal(t, n.MIDI, w.In.MIDI(n.Places[0]))
					all = append(all, n.Places...)
				}
				require.GreaterOrEqual(t, len(all), 2)
				require.Equal(t, w.places(c, func(midi int) bool { return midi%12 == c.Notes[0].MIDI%12 }), w.sorted(all))
				require.Contains(t, c.Says(), strconv.Itoa(len(all))+" places")
				if len(w.Starts) > 0 {
					require.Equal(t, w.Starts[0], c.Degree().Role())
				}
			}
			if c.Kind == Written || c.Kind == Every {
				for _, n := range c.Notes {
					tone, is := c.Chord.ToneAt(n.MIDI % 12)
					require.True(t, is || !w.Plain)
					require.True(t, !is || tone == n.Tone)
					require.Equal(t, n.MIDI%12, n.Tone.Name.Class())
					require.Equal(t, blend.Sounds(c.Chord)[c.Chord.Above(n.MIDI)].Degree, n.Tone.Degree)
				}
			}
			if c.Kind == Place && w.Plain {
				_, is := c.Chord.ToneAt(w.In.MIDI(c.Given) % 12)
				require.True(t, is && c.Bent == 0)
			}
			require.NotEmpty(t, c.Says())
			require.NotContains(t, c.Spoken(), "♭")
		}
		again, err := Draw(t.Context(), w, 12)
		require.NoError(t, err)
		require.Equal(t, calls, again, "the same seed asks the same")
	})
}

// places are all of a call's region that sound as is told, looked for one by one.
func (w Wish) places(c Call, is func(midi int) bool) (list []neck.Placement) {
	for str := 1; str <= w.In.Strings(); str++ {
		for fret := 0; fret <= w.In.Last(); fret++ {
			if p := (neck.Placement{String: str, Fret: fret}); c.Region.Has(p) && is(w.In.MIDI(p)) {
				list = append(list, p)
			}
		}
	}
	return list
}

func (Wish) sorted(list []neck.Placement) []neck.Placement {
	return slices.SortedFunc(slices.Values(list), func(a, b neck.Placement) int { return 100*(a.String-b.String) + a.Fret - b.Fret })
}

func TestWhatCannotBeAskedIsSaid(t *testing.T) {
	in := neck.Standard()
	w := Wish{In: in, Hand: neck.UsualHand, Grounds: []Ground{{Chords: []harmony.Chord{harmony.MustParse("C7")}, Windows: []neck.Region{{Low: 7, High: 11}}}}, Kinds: []string{Tones}, Strings: []neck.Strings{neck.StringsOf(1)}}
	_, err := Draw(t.Context(), w, 1)
	assert.ErrorContains(t, err, "allow more strings")
	w.Strings = nil
	w.Grounds[0].Chords[0].None = true
	_, err = Draw(t.Context(), w, 1)
	assert.Error(t, err)
}

func TestACallIsSaidAndSpoken(t *testing.T) {
	g := harmony.MustParse("G7")
	third, _ := g.ToneAt(11)
	c := Call{Kind: Tones, Chord: g, Numeral: "V7", Notes: []Note{{Tone: third}}}
	assert.Equal(t, "its tones upward, from the 3", c.Says())
	assert.Equal(t, "your five chord, upward from the third", c.Spoken())
	c.Order, c.Device, c.Pace, c.Tempo = "skips", "below", "eighths", 96
	assert.Equal(t, "its tones upward, from the 3, by skips, from a half step below, in even eighths at 96", c.Says())
	c = Call{Kind: Place, Chord: g, Numeral: "iv7", Given: neck.Placement{String: 2, Fret: 8}, Bent: 2}
	assert.Equal(t, "string 2, fret 8, bent up a whole step: which degree?", c.Says())
	assert.Equal(t, "your four chord, string 2, fret 8, bent a whole step. Which degree?", c.Spoken())
	c = Call{Kind: Bend, Chord: g, Numeral: "bVII7", Given: neck.Placement{String: 2, Fret: 8}, Goal: third}
	assert.Equal(t, "this chord, string 2, fret 8. How far to the third?", c.Spoken())
}

func BenchmarkDrawExercises(b *testing.B) {
	in := neck.Standard()
	w := Wish{In: in, Hand: neck.UsualHand, Grounds: []Ground{{Chords: []harmony.Chord{harmony.MustParse("C7"), harmony.MustParse("F7")}, Windows: []neck.Region{{Low: 7, High: 11}}}}, Kinds: []string{Material}}
	for b.Loop() {
		w.Seed++
		if _, err := Draw(b.Context(), w, 12); err != nil {
			b.Fatal(err)
		}
	}
}

// Kinds come in rounds, each as often as the others; tones begin on every degree, and on every string that has them, alike.
func TestWhatIsAskedIsEven(t *testing.T) {
	for _, u := range neck.Tunings {
		in, err := neck.New(u.Open, u.Frets, u.Scale, 0)
		require.NoError(t, err)
		f := form.Forms[0]
		key := form.Key{}
		chords, _ := form.Different(f.In(key).Places())
		g := Ground{Key: key, Chords: chords}
		for _, p := range in.Positions(key.Tonic.Class()) {
			g.Windows = append(g.Windows, p.Region)
		}
		kinds, degrees, strings := map[string]int{}, map[harmony.Degree]int{}, map[int]int{}
		const asked = 1200
		for seed := range uint64(asked / 12) {
			calls, err := Draw(t.Context(), Wish{In: in, Hand: neck.UsualHand, Grounds: []Ground{g}, Tempo: 96, Seed: seed}, 12)
			require.NoError(t, err)
			for _, c := range calls {
				kinds[c.Kind]++
				if c.Kind == Tones {
					degrees[c.start()]++
					strings[c.Notes[c.Lead].Places[0].String]++
				}
			}
		}
		for _, k := range Kinds {
			assert.Equal(t, asked/len(Kinds), kinds[k.ID], "%s on %s", k.Name, u.ID)
		}
		tones := kinds[Tones]
		for d, n := range degrees {
			assert.InDelta(t, float64(tones)/float64(len(degrees)), n, 0.35*float64(tones)/float64(len(degrees)), "from the %s on %s: %v", d, u.ID, degrees)
		}
		require.Len(t, strings, in.Strings(), u.ID)
		for str, n := range strings {
			assert.GreaterOrEqual(t, float64(n), 0.4*float64(tones)/float64(in.Strings()), "on string %d of %s: %v", str, u.ID, strings)
			assert.LessOrEqual(t, float64(n), 1.8*float64(tones)/float64(in.Strings()), "on string %d of %s: %v", str, u.ID, strings)
		}
	}
}
