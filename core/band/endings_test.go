package band

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
)

// endings are charts that turn round, that come home, of one chord, of two chords a beat, of other metres and of one bar.
var endings = []struct {
	text  string
	beats int
	home  bool // it comes home in its last bar
}{
	{"| A7 | D7 | A7 | A7 | D7 | D7 | A7 | A7 | E7 | D7 | A7 | E7 |", 4, false},
	{"| A7 | D7 | A7 | A7 | D7 | D7 | A7 | A7 | E7 | D7 | A7 | A7 |", 4, true},
	{"| A7 | E7 | D7 | A7 |", 4, true},
	{"| Am7 | Dm7 | E7 | Am7 |", 4, true},
	{"| A7 | % | % |", 4, true},
	{"| A7 D7 E7 A7 | D7 E7 A7 D7 | A7 E7 A7 E7 |", 4, false},
	{"| A7 | D7 | E7 | A7 |", 5, true},
	{"| A7 | D7 | E7 | A7 |", 3, true},
	{"| A7 |", 4, false},
	{"| D7 | E7 |", 4, false},
}

// Every ending, in every feel and over every chart, ends where it says: a root of the home chord in the bass and the chord over it
// at that beat, nothing after it that is new, and the file is as long as its bars.
func TestEveryEndingEndsWhereItSays(t *testing.T) {
	for _, c := range endings {
		key := form.Key{Tonic: pitch.Name{Letter: 5}, Minor: strings.HasPrefix(c.text, "| Am")}
		p, err := form.Read(c.text, c.beats, key)
		require.NoError(t, err)
		for _, g := range Grooves {
			for _, e := range Endings {
				for choruses := 1; choruses <= 2; choruses++ {
					for _, tempo := range []int{40, 120, 300} {
						where := fmt.Sprintf("%s in %s over %s, %d choruses at %d", e.ID, g.Feel, c.text, choruses, tempo)
						perf, err := Play(t.Context(), p, g, Options{Choruses: choruses, Seed: 5, Ending: e.ID, Key: &key, Tempo: tempo})
						require.NoError(t, err, where)
						bars := choruses * len(p.Bars)
						if e.ID == "none" {
							require.Equal(t, bars*c.beats*Tick, perf.Ticks, where)
							continue
						}
						if !c.home {
							bars += 2
						}
						require.Equal(t, bars*c.beats*Tick, perf.Ticks, where)
						i := slices.IndexFunc(perf.Markers, func(m Marker) bool { return m.Name == LastChord })
						require.GreaterOrEqual(t, i, 0, where)
						lands := perf.Markers[i].At
						require.GreaterOrEqual(t, lands, perf.Ticks-c.beats*Tick, where)
						at := func(tr Track) (now, after []int) {
							for _, n := range tr.Notes {
								switch {
								case n.Start > lands+MaxShift+6*spread:
									after = append(after, n.MIDI)
								case n.Start >= lands-MaxShift:
									now = append(now, n.MIDI)
								}
							}
							return now, after
						}
						low, more := at(perf.Tracks[1])
						require.Len(t, low, 1, where)
						require.Equal(t, 9, low[0]%12, "%s: the bass is home", where)
						require.Empty(t, more, where)
						high, more := at(perf.Tracks[2])
						require.GreaterOrEqual(t, len(high), 2, where)
						require.Empty(t, more, where)
						home := harmony.MustParse("A9")
						if key.Minor {
							home = harmony.MustParse("Am9")
						}
						for _, midi := range high {
							_, tone := home.ToneAt(midi % 12)
							require.True(t, tone || midi%12 == 6, "%s: %d in the last chord", where, midi)
						}
						_, more = at(perf.Tracks[0])
						require.True(t, len(more) == 0 || strings.Contains(e.drums, "f"), where)
						for _, track := range perf.Tracks {
							for _, n := range track.Notes {
								require.True(t, n.Start >= 0 && n.Start+n.Length <= perf.Ticks, "%s: %s hangs over the end", where, track.Name)
							}
						}
					}
				}
			}
		}
	}
	silent, err := form.Read("| N.C. |", 4, form.Key{})
	require.NoError(t, err)
	for _, e := range Endings {
		perf, err := Play(t.Context(), silent, Grooves[0], Options{Choruses: 1, Ending: e.ID})
		require.NoError(t, err)
		assert.Equal(t, 1, perf.Bars, "a song in silence ends in silence")
	}
	_, err = EndingByID("fade")
	assert.ErrorContains(t, err, "no ending")
}

// Signs of endings are known, two bars of them each, and every ending of a line has one of the band that stops with it.
func TestEndingsAreWritten(t *testing.T) {
	for _, e := range Endings[1:] {
		for _, signs := range []string{e.chords, e.bass, e.drums} {
			assert.Len(t, strings.Fields(signs), 16, e.ID)
		}
		for _, sign := range strings.Fields(e.bass) {
			_, degree := harmony.Degree(sign).Interval()
			assert.True(t, degree || strings.Contains("t-.", sign), "%s: %s", e.ID, sign)
		}
		assert.Equal(t, "R", strings.Fields(e.bass)[e.lands], e.ID)
		assert.Equal(t, "x", strings.Fields(e.chords)[e.lands], e.ID)
	}
}

// Intros begin in the bar they say and lead to the top: chorus and lead are where they are without one, so many bars later.
func TestIntrosLeadToTheTop(t *testing.T) {
	for _, c := range []struct {
		text       string
		five, turn int
	}{
		{"| A7 | D7 | A7 | A7 | D7 | D7 | A7 | A7 | E7 | D7 | A7 | E7 |", 8, 10},
		{"| A7 | E7 | D7 | D7 | A7 | E7 | A7 | E7 |", 5, 6},
		{"| A7 | D7 |", 0, 0},
		{"| A7 |", 0, 0},
	} {
		key := form.Key{Tonic: pitch.Name{Letter: 5}}
		p, err := form.Read(c.text, 4, key)
		require.NoError(t, err)
		plain, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 1, CountIn: true, Key: &key, Lead: []Note{{Start: 0, Length: 480, MIDI: 60}}})
		require.NoError(t, err)
		for id, from := range map[string]int{"five": c.five, "turnaround": c.turn, "none": len(p.Bars), "": len(p.Bars)} {
			perf, err := Play(t.Context(), p, Grooves[0], Options{Choruses: 1, CountIn: true, Intro: id, Key: &key, Lead: []Note{{Start: 0, Length: 480, MIDI: 60}}})
			require.NoError(t, err)
			more := len(p.Bars) - from
			assert.Equal(t, plain.Bars+more, perf.Bars, "%s over %s", id, c.text)
			at := func(perf Performance, name string) int {
				i := slices.IndexFunc(perf.Markers, func(m Marker) bool { return m.Name == name })
				require.GreaterOrEqual(t, i, 0, "%s: %v", name, perf.Markers)
				return perf.Markers[i].At
			}
			assert.Equal(t, at(plain, "chorus 1")+more*4*Tick, at(perf, "chorus 1"))
			lead := perf.Tracks[len(perf.Tracks)-1]
			require.Equal(t, "lead", lead.Name)
			assert.Equal(t, at(perf, "chorus 1"), lead.Notes[0].Start)
			if more > 0 {
				assert.Equal(t, 4*Tick, at(perf, LeadIn))
				low := sounding(perf.Tracks[1], 4*Tick, 4*Tick+Tick/2)
				require.NotEmpty(t, low)
				assert.Equal(t, p.Bars[from].Changes[0].Chord.Bass.Class(), low[0]%12)
			}
		}
	}
	_, err := IntroByID("fanfare")
	assert.ErrorContains(t, err, "no intro")
}

// Each course does in each bar of each chorus what it says, in every feel, and nothing else is left out.
func TestCoursesDoWhatTheySay(t *testing.T) {
	f, _ := form.FormByID("quick-change")
	key := form.Key{Tonic: pitch.Name{Letter: 5}}
	p := f.In(key)
	for _, g := range Grooves {
		for _, course := range Courses {
			perf, err := Play(t.Context(), p, g, Options{Choruses: 6, Seed: 9, Course: course.ID, Key: &key})
			require.NoError(t, err)
			require.Equal(t, 72*4*Tick, perf.Ticks)
			for bar := range 72 {
				from := bar * 4 * Tick
				const early = MaxShift + 6*spread
				plays := func(track int) (on1, later bool) {
					for _, n := range perf.Tracks[track].Notes {
						if n.Start >= from-early && n.Start < from+4*Tick-early {
							on1 = on1 || n.Start < from+Tick/4
							later = later || n.Start >= from+Tick/4
						}
					}
					return on1, later
				}
				where := fmt.Sprintf("%s in %s, chorus %d, bar %d", course.ID, g.Feel, 1+bar/12, 1+bar%12)
				chorus, at := bar/12, bar%12
				want := everybody
				switch course.ID {
				case "stop-time":
					want = pick(chorus%2 == 1 && at < 4, stops)
				case "breaks":
					want = pick(at == 11, stops)
				case "rhythm":
					want = pick(chorus%3 == 2, rhythm)
				case "trade":
					want = pick(chorus%2 == 1 && at >= 4 && at < 8, drumsAlone)
				case "silence":
					want = pick(chorus%2 == 1 && (at == 6 || at == 7), tacet)
				}
				for track, name := range []string{"drums", "bass", "chords"} {
					on1, later := plays(track)
					switch want {
					case everybody:
						require.True(t, on1 || later, "%s: %s", where, name)
					case stops:
						require.False(t, later, "%s: %s", where, name)
					case tacet:
						require.False(t, on1 || later, "%s: %s", where, name)
					case drumsAlone:
						require.Equal(t, track == 0, on1 || later, "%s: %s", where, name)
					case rhythm:
						require.Equal(t, track < 2, on1 || later, "%s: %s", where, name)
					}
				}
				if want == stops {
					on1, _ := plays(1)
					require.True(t, on1, "%s: the stop is played", where)
				}
			}
		}
	}
	_, err := CourseByID("fugue")
	assert.ErrorContains(t, err, "no course")
}
