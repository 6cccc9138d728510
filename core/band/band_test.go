package band

import (
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// sounding is what a track holds at a tick.
func sounding(t Track, from, to int) (out []int) {
	for _, n := range t.Notes {
		if n.Start >= from-MaxShift && n.Start < to-MaxShift {
			out = append(out, n.MIDI)
		}
	}
	return out
}

func TestEveryFormInEveryKeyAndGroove(t *testing.T) {
	for _, f := range form.Forms {
		for i, tonic := range pitch.Roots {
			p := f.In(form.Key{Tonic: tonic, Minor: f.Minor})
			for j, g := range Grooves {
				key := form.Key{Tonic: tonic, Minor: f.Minor}
				o := Options{Choruses: 2, Seed: uint64(i*31 + j), CountIn: true, Metronome: true, Comp: Compers[i%3].ID, Intensity: 1 + i%5, Bass: Basses[(i+j)%len(Basses)].ID, Key: &key}
				perf, err := Play(t.Context(), p, g, o)
				require.NoError(t, err)
				check(t, p, g, perf, o)
			}
		}
	}
}

func check(t *testing.T, p form.Progression, g Groove, perf Performance, o Options) {
	bar := p.Beats * Tick
	require.Equal(t, (2*len(p.Bars)+1)*bar, perf.Ticks, "bars add up")
	require.Equal(t, 2*len(p.Bars)+1, perf.Bars)
	comper, _ := ComperByID(o.Comp)
	reach := comper.reach(g.voicings)
	for i, track := range perf.Tracks {
		require.NotEmpty(t, track.Notes)
		for _, n := range track.Notes {
			require.True(t, n.Start >= 0 && n.Length > 0 && n.Start+n.Length <= perf.Ticks, "%s hangs", track.Name)
			require.True(t, n.Velocity >= 1 && n.Velocity <= 127)
			switch i {
			case 1:
				require.True(t, n.MIDI >= BassRange[0] && n.MIDI <= BassRange[1], "bass plays %d", n.MIDI)
			case 2:
				require.True(t, n.MIDI >= min(reach[0], comper.Range[0]-lowered) && n.MIDI <= reach[1], "%s plays %d", track.Name, n.MIDI)
			}
		}
	}
	places := p.Places()
	added := map[string][]int{}
	for _, place := range places {
		if g.voicings == colours {
			added[place.Chord.String()] = colour(place.Chord, o.Key, p)
		}
	}
	for chorus := range 2 {
		for _, place := range places {
			from := (1+chorus*len(p.Bars)+place.Bar)*bar + place.Beat*Tick
			low := sounding(perf.Tracks[1], from, from+2*MaxShift+1)
			require.NotEmpty(t, low, "a bass note at each change")
			_, tone := place.Chord.ToneAt(low[0] % 12)
			require.True(t, tone || low[0]%12 == place.Chord.Bass.Class(), "%s over %d", place.Chord, low[0])
			classes := map[int]bool{}
			late := from + place.Length*Tick - Tick/2 - MaxShift // from here on it may be the next chord
			for _, midi := range sounding(perf.Tracks[2], from, late) {
				classes[midi%12] = true
				_, tone := place.Chord.ToneAt(midi % 12)
				low := g.Feel == "shuffle" && midi%12 == degreeOf(place.Chord, '6') || g.Feel == "straight" && midi%12 == degreeOf(place.Chord, '6')
				require.True(t, tone || low || slices.Contains(added[place.Chord.String()], midi%12), "%s comped with %d", place.Chord, midi)
			}
			for _, tone := range place.Chord.Tones {
				if r := tone.Degree.Role(); r == harmony.Third || r == harmony.Seventh {
					require.True(t, classes[tone.Name.Class()], "%s without its %s in bar %d", place.Chord, tone.Degree, place.Bar+1)
				}
			}
		}
	}
}

func TestSeedsRepeatAndDiffer(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	p, g := f.In(form.Key{}), Grooves[0]
	a, _ := Play(t.Context(), p, g, Options{Choruses: 3, Seed: 7})
	b, _ := Play(t.Context(), p, g, Options{Choruses: 3, Seed: 7})
	c, _ := Play(t.Context(), p, g, Options{Choruses: 3, Seed: 8})
	assert.Equal(t, a, b)
	assert.NotEqual(t, a, c)
}

func TestDroppedChordsLeaveTheRestPlaying(t *testing.T) {
	f, _ := form.FormByID("slow-change")
	p := f.In(form.Key{})
	perf, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 2, DropChords: true})
	require.NoError(t, err)
	half := perf.Ticks / 2
	assert.NotEmpty(t, sounding(perf.Tracks[2], 0, half))
	assert.Empty(t, sounding(perf.Tracks[2], half+MaxShift+1, perf.Ticks+MaxShift))
	assert.NotEmpty(t, sounding(perf.Tracks[1], half+MaxShift+1, perf.Ticks))
}

func TestOddMetresSilenceAndSlashes(t *testing.T) {
	for beats := form.MinBeats; beats <= 7; beats++ {
		p, err := form.Read("| C7/E | N.C. | F5 | Gsus4 | C |", beats, form.Key{})
		require.NoError(t, err)
		for _, g := range Grooves {
			perf, err := Play(t.Context(), p, g, Options{Choruses: 1})
			require.NoError(t, err)
			assert.Equal(t, 5*beats*Tick, perf.Ticks)
			assert.Equal(t, 4, sounding(perf.Tracks[1], 0, Tick/4)[0]%12, "the slash bass is played")
			for _, track := range perf.Tracks[1:] {
				assert.Empty(t, sounding(track, beats*Tick+MaxShift+1, 2*beats*Tick), "%s plays in the silence", track.Name)
			}
		}
	}
	_, err := Play(t.Context(), form.Progression{Beats: 4}, Grooves[0], Options{Choruses: 1})
	assert.ErrorContains(t, err, "no bars")
	f, _ := form.FormByID("slow-change")
	_, err = Play(t.Context(), f.In(form.Key{}), Grooves[0], Options{Choruses: 99})
	assert.ErrorContains(t, err, "between 1 and 32")
}

func TestEveryFeelHasAGroove(t *testing.T) {
	for _, feel := range form.Feels {
		g, err := GrooveOf(feel.ID)
		require.NoError(t, err)
		for _, d := range g.drums {
			assert.Len(t, d.pattern, 4*g.Steps, feel.ID)
		}
		for _, r := range g.chords {
			assert.Len(t, r, 4*g.Steps, feel.ID)
		}
	}
	_, err := GrooveOf("polka")
	assert.Error(t, err)
}

// A performance that turns round has two bars more with an ending: the home chord, held to its end; and no two
// choruses of any groove are the same bar for bar.
func TestEndingsAndChorusesThatDiffer(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	p := f.In(form.Key{})
	for _, g := range Grooves {
		for _, arc := range Arcs {
			perf, err := Play(t.Context(), p, g, Options{Choruses: 2, Seed: 3, Ending: "held", Arc: arc.ID})
			require.NoError(t, err)
			last := 25 * 4 * Tick
			assert.Equal(t, last+4*Tick, perf.Ticks)
			low := sounding(perf.Tracks[1], last, perf.Ticks)
			require.NotEmpty(t, low, g.Feel)
			assert.Equal(t, 0, low[0]%12, "the root of C7")
			assert.NotEmpty(t, sounding(perf.Tracks[2], last, last+Tick), g.Feel)
			// What is played, without the small shifts of a hand: beat, step and note.
			heard := map[int]map[string]bool{}
			for _, track := range perf.Tracks[:3] {
				for _, n := range track.Notes {
					step := (n.Start + MaxShift) * g.Steps * 2 / Tick
					bar := step / (8 * g.Steps)
					if heard[bar] == nil {
						heard[bar] = map[string]bool{}
					}
					heard[bar][fmt.Sprint(track.Name, step%(8*g.Steps), n.MIDI)] = true
				}
			}
			differ := 0
			for bar := range 12 {
				if !maps.Equal(heard[bar], heard[bar+12]) {
					differ++
				}
			}
			assert.GreaterOrEqual(t, differ, 6, "bars of %s that differ from those of the chorus before", g.Feel)
		}
	}
	_, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 1, Arc: "zigzag"})
	assert.ErrorContains(t, err, "no arc")
	silent, err := form.Read("| N.C. |", 4, form.Key{})
	require.NoError(t, err)
	perf, err := Play(t.Context(), silent, Grooves[0], Options{Choruses: 1, Ending: "held"})
	require.NoError(t, err)
	assert.Equal(t, 1, perf.Bars)
}

// Every groove has four fills at least, as long as its beat, and more of them where the
// form asks for more.
func TestFillsStandWhereTheFormHasThem(t *testing.T) {
	for _, g := range Grooves {
		assert.GreaterOrEqual(t, len(fills[g.Steps]), 4, g.Feel)
		for _, f := range fills[g.Steps] {
			assert.Len(t, f, g.Steps, g.Feel)
		}
	}
	f, _ := form.FormByID("quick-change")
	p := f.In(form.Key{})
	assert.Equal(t, []int{0, 0, 0, phraseEnd, 0, 0, 0, phraseEnd, 0, 0, 0, chorusEnd}, func() (out []int) {
		for bar := range p.Bars {
			out = append(out, fillAt(p, bar))
		}
		return out
	}())
	assert.Equal(t, []int{-2, 0, 2}, []int{arcOf("grow", 0, 3), arcOf("grow", 1, 3), arcOf("grow", 2, 3)})
	assert.Equal(t, 0, arcOf("level", 5, 9))
}
