package line

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func wished(t *testing.T, s score.Score, seed uint64) Wish {
	word, err := WordByID("box-blues")
	require.NoError(t, err)
	return Wish{Region: s.In.Positions(s.Key.Tonic.Class())[1].Region, Palette: palette(t, "composite"), Rhythm: "eighths", Density: 3,
		Phrasing: "call", Approach: true, Spice: word.Spice, Seed: seed}
}

// line writes a line, which can be played and meets its changes.
func (w Wish) line(t *testing.T, s score.Score, where string) score.Score {
	notes, err := Write(t.Context(), s, w, neck.UsualHand)
	require.NoError(t, err, where)
	s.Notes = notes
	require.NoError(t, s.Check(), where)
	for _, l := range Check(s, w.Palette, Usual).Landings {
		require.True(t, l.Landed(), "%s: %s in bar %d", where, l.Says, s.BarOf(l.At)+1)
	}
	return s
}

// Over every chart, with every closing: the line still meets its changes, and its last two
// bars go as the figure says, but for what the chart's own changes ask.
func TestClosings(t *testing.T) {
	slid := 0
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		for _, closing := range Closings[1:] {
			for seed := range uint64(2) {
				w := wished(t, s, seed)
				w.Closing = closing.ID
				where := fmt.Sprint(closing.ID, " over ", c.form, " in ", c.key, ", ", seed)
				s := s
				if closing.ends {
					// A chart that turns round has no ending: that is said, with what to take instead.
					require.False(t, w.Closes(s), where)
					require.Contains(t, strings.Join(w.GaveWay(s), "; "), "take a turnaround", where)
					s = home(s)
				}
				require.True(t, w.Closes(s), where)
				require.NotContains(t, strings.Join(w.GaveWay(s), "; "), "how it closes", where)
				out := w.line(t, s, where)
				last := out.Notes[len(out.Notes)-1]
				if closing.ends {
					require.Contains(t, []int{0, 2, 9}, ((last.Heard()-s.Key.Tonic.Class())%12+12)%12, "%s: it ends on the root, the 6 or the 9", where)
				}
				for i, n := range out.Notes {
					for _, k := range w.close(s, nil) {
						if k.asks.is && n.Start == k.start {
							require.False(t, n.Bend > 1, "%s: the figure is fretted as it says", where)
							if k.slid && i > 0 && out.Notes[i-1].String == n.String {
								require.Equal(t, score.Slide, n.Join, "%s: it slides where it says so", where)
								slid++
							}
						}
					}
				}
				asks, met := 0, 0
				for _, k := range w.close(s, nil) {
					if !k.asks.is {
						continue
					}
					asks++
					for _, n := range out.Notes {
						if n.Start == k.start && n.Heard()%12 == k.asks.class {
							met++
							break
						}
					}
				}
				require.Positive(t, asks, where)
				assert.Equal(t, asks, met, where)
			}
		}
	}
	assert.Greater(t, slid, 10)
	s := empty(t, "slow-change", "A")
	w := wished(t, s, 1)
	w.Closing = "walk-down"
	out := w.line(t, s, "walk-down")
	var heard []string
	for _, n := range out.Notes {
		if n.Start >= s.At(10) {
			heard = append(heard, s.Key.Spell(n.Heard()).String())
		}
	}
	assert.Equal(t, []string{"A", "G", "F#", "F", "E"}, heard, "R ♭7 6 ♭6 5")
	w.Locked = map[int]bool{11: true}
	assert.False(t, w.Closes(s))
	w.Closing = "grand-finale"
	_, err := Write(t.Context(), s, w, neck.UsualHand)
	assert.EqualError(t, err, `there is no closing "grand-finale"`)
}

// home is a chart whose last bar holds the one.
func home(s score.Score) score.Score {
	bars := slices.Clone(s.Bars)
	bars[len(bars)-1].Changes = slices.Clone(bars[0].Changes[:1])
	bars[len(bars)-1].Changes[0].Beat = 0
	s.Bars = bars
	return s
}

// Every figure of the table is two bars of eighths, and says what it plays.
func TestClosingsAreTwoBars(t *testing.T) {
	for _, c := range Closings[1:] {
		assert.Len(t, strings.Fields(c.steps), 16, c.ID)
		assert.NotEmpty(t, c.About, c.ID)
		for _, d := range strings.Fields(strings.Map(func(r rune) rune {
			if strings.ContainsRune("-.*s", r) {
				return ' '
			}
			return r
		}, c.steps)) {
			_, known := harmony.Degree(d).Interval()
			assert.True(t, known, "%s: %s", c.ID, d)
		}
	}
}

// In A A B the second A says the first again, degree for degree over its own chords.
func TestTheSecondAIsTheFirst(t *testing.T) {
	same, all := 0, 0
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		if len(s.Bars) != 12 {
			continue // A A B is of three times four bars
		}
		for seed := range uint64(12) {
			w := wished(t, s, seed)
			w.Phrasing = "aab"
			out := w.line(t, s, fmt.Sprint("AAB over ", c.form, ", ", seed))
			first := map[int]score.Note{}
			for _, n := range out.Notes {
				if n.Start >= 0 && n.Start < s.At(4) {
					first[n.Start] = n
				}
			}
			for _, n := range out.Notes {
				a, comes := first[n.Start-s.At(4)]
				if !comes || n.Start >= s.At(8) {
					continue
				}
				was, _ := s.ChordAt(a.Start)
				now, _ := s.ChordAt(n.Start)
				all++
				x, y := blend.Sounds(was)[was.Above(a.Heard())], blend.Sounds(now)[now.Above(n.Heard())]
				if x.Degree == y.Degree || x.Class == blend.ChordTone && y.Class == blend.ChordTone && x.Degree.Role() == y.Degree.Role() {
					same++
				}
			}
		}
	}
	t.Logf("%d of %d notes on the same degree", same, all)
	assert.Greater(t, all, 500)
	assert.Greater(t, float64(same)/float64(all), 0.9)
}

// A figure is repeated on beats 1 and 2; the run on 3 and 4 begins on a chord tone and comes
// out on the next root.
func TestRunsComeOut(t *testing.T) {
	for _, rhythm := range Rhythms {
		runs := 0
		for _, c := range charts {
			s := empty(t, c.form, c.key)
			for seed := range uint64(6) {
				w := wished(t, s, seed)
				w.Phrasing, w.Rhythm, w.Spice = "fill", rhythm.ID, Spice{}
				out := w.line(t, s, fmt.Sprint("fills over ", c.form, ", ", seed))
				at := map[int]int{}
				for _, n := range out.Notes {
					at[n.Start] = n.Heard()
				}
				r, err := w.rhythm()
				require.NoError(t, err)
				for bar := 1; bar+1 < len(s.Bars); bar += 2 {
					run := w.run(s, r, bar, uint64(bar/2+1))
					if run == nil {
						continue
					}
					runs++
					for _, k := range run {
						if k.asks.is {
							require.Equal(t, k.asks.class, at[k.start]%12, "%s in bar %d, seed %d", c.form, bar+1, seed)
						}
					}
					_, tone := run[len(run)/2].chord.ToneAt(at[s.At(bar)+2*score.Tick] % 12)
					require.True(t, tone, "beat 3 of bar %d", bar+1)
					next, _ := s.ChordAt(s.At(bar + 1))
					require.Equal(t, next.Root.Class(), at[s.At(bar+1)]%12, "%s: the root after bar %d, seed %d", c.form, bar+1, seed)
				}
			}
		}
		assert.Greater(t, runs, 100, rhythm.ID)
	}
	assert.Equal(t, []int{10, 7, 5, 3}, reckoned([]int{3, 5, 7, 10}, 0, 4, true, false), "down to the root")
	assert.Equal(t, []int{3, 5, 7, 10}, reckoned([]int{3, 5, 7, 10}, 0, 4, false, false), "up to it")
	assert.Equal(t, []int{7, 5, 3, 1}, reckoned([]int{3, 5, 7, 10}, 0, 4, true, true), "with a half step more")
}

// With octaves some phrases have each note with its octave, others none; pickups lead in.
func TestOctavesAndPickups(t *testing.T) {
	doubled, plain, pickups := 0, 0, 0
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		for seed := range uint64(8) {
			w := wished(t, s, seed)
			w.Spice = Spice{Octaves: 8, Offbeat: 8}
			out := w.line(t, s, fmt.Sprint("octaves over ", c.form, ", ", seed))
			at := map[int][]int{}
			for _, n := range out.Notes {
				at[n.Start] = append(at[n.Start], n.Heard())
			}
			for _, together := range at {
				if len(together) == 1 {
					plain++
					continue
				}
				require.Len(t, together, 2)
				assert.Equal(t, 12, size(together[0]-together[1]))
				doubled++
			}
			if out.Notes[0].Start < 0 {
				pickups++
				again := w.line(t, out, "once more")
				assert.Equal(t, len(out.Notes), len(again.Notes), "a pickup is not written on top of the one before")
			}
		}
	}
	assert.Greater(t, doubled, 200)
	assert.Greater(t, plain, doubled)
	assert.Greater(t, pickups, 10)
}

// Chord tones only is exactly that, whatever is asked for.
func TestChordTonesOnlyWhateverIsAsked(t *testing.T) {
	for _, c := range charts {
		s := empty(t, c.form, c.key)
		for i := range max(len(Phrasings), len(Closings)) { // each of them, once over every chart
			p, closing := Phrasings[i%len(Phrasings)], Closings[i%len(Closings)]
			w := wished(t, s, 3)
			w.ChordTones, w.Phrasing, w.Closing = true, p.ID, closing.ID
			out := w.line(t, s, p.ID+" "+closing.ID)
			for _, n := range out.Notes {
				chord, _ := s.ChordAt(n.Start)
				if next, _ := s.ChordAt(n.End()); n.End() < s.End() && !s.Change(n.Start) {
					if _, early := next.ToneAt(pitch.Class(n.Heard())); early {
						continue // met early
					}
				}
				_, tone := chord.ToneAt(pitch.Class(n.Heard()))
				require.True(t, tone, "%s, %s: %s over %s", p.ID, closing.ID, n.Pitch, chord)
			}
		}
	}
}
