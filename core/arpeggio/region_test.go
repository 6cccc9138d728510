package arpeggio

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// necks are instruments of four to eight strings.
func necks(t *testing.T) (list []*neck.Instrument) {
	for _, x := range append(slices.Clone(neck.Tunings), neck.Tuning{ID: "eight", Name: "Eight-string", Open: "F#1,B1,E2,A2,D3,G3,B3,E4", Scale: 686, Frets: 24}) {
		in, err := neck.New(x.Open, x.Frets, x.Scale, 0)
		require.NoError(t, err)
		list = append(list, in)
	}
	return list
}

// scaleOn are the pitch classes of a major scale.
func scaleOn(tonic int) (classes []int) {
	for _, step := range []int{0, 2, 4, 5, 7, 9, 11} {
		classes = append(classes, (tonic+step)%12)
	}
	return classes
}

// Over every way × string set × key × tuning × kind of chord: a run holds exactly the
// chord tones of its region, once each, from low to high, on its strings only, with a
// finger for each; what it lacks lies nowhere in the region, and where it says; moves
// stay in the region.
func TestRunsInEveryRegion(t *testing.T) {
	suffixes := []string{"7", "m7", "", "m", "maj7", "m7b5", "dim7", "9", "13", "7#9", "6"}
	runs := 0
	for _, in := range necks(t) {
		sets := neck.StringSets(in.Strings())
		for tonic := range 12 {
			for wi, way := range neck.Ways {
				for ri, region := range way.Regions(in, tonic, scaleOn(tonic)) {
					require.NoError(t, in.CheckRegion(region.Region))
					// Sets and kinds of chords take turns.
					set := sets[(ri+tonic*5+wi*3)%len(sets)]
					r := region.Region
					if r.Strings == 0 {
						r.Strings = set.Strings
					}
					root := pitch.Roots[(tonic+ri)%len(pitch.Roots)]
					chord := harmony.MustParse(root.String() + suffixes[(ri+wi+tonic)%len(suffixes)])
					run := Make(in, chord, r, neck.UsualHand, nil)
					what := fmt.Sprintf("%s in %s on %s", chord, r.Says(), in.Tuning())
					var want, got []int
					for midi := range 128 {
						if _, ok := chord.ToneAt(midi % 12); ok && len(in.Find(midi, r)) > 0 {
							want = append(want, midi)
						}
					}
					for i, n := range run.Notes {
						got = append(got, in.MIDI(n.Placement))
						require.True(t, r.Has(n.Placement), what)
						require.Equal(t, n.Fret == 0, n.Finger == 0, what)
						if i > 0 {
							require.LessOrEqual(t, n.String, run.Notes[i-1].String, what)
						}
					}
					require.Equal(t, want, got, what)
					for _, lack := range run.Lacks {
						require.NotContains(t, each(run.Notes, func(n Note) int { return n.Pitch.Name.Class() }), lack.Name.Class(), what)
						require.Equal(t, lack.Name.Class(), in.MIDI(lack.Nearest)%12, what)
						require.False(t, r.Has(lack.Nearest), what)
					}
					for _, tone := range chord.Tones {
						held := slices.ContainsFunc(run.Notes, func(n Note) bool { return n.Pitch.Name.Class() == tone.Name.Class() })
						lacks := slices.ContainsFunc(run.Lacks, func(l Lack) bool { return l.Tone == tone })
						require.NotEqual(t, held, lacks, what)
					}
					next := harmony.MustParse(root.Up(pitch.Interval{Letters: 3, HalfSteps: 5}).String() + "7")
					for _, m := range crossing.Between(in, chord, next, r, crossing.Ranking{}) {
						for _, p := range m.Places {
							require.True(t, r.Has(p.From) && r.Has(p.To), what)
						}
					}
					runs++
				}
			}
		}
	}
	assert.Greater(t, runs, 4000)
}

func each[A, B any](list []A, f func(A) B) (out []B) {
	for _, a := range list {
		out = append(out, f(a))
	}
	return out
}

// A thread in any region stays there, or says that it cannot.
func TestThreadsStayInTheirRegion(t *testing.T) {
	for _, in := range necks(t) {
		for tonic := range 12 {
			one := harmony.MustParse(pitch.Roots[tonic].String() + "7")
			stops := []crossing.Stop{{Chord: one}, {Chord: one.On(one.Root.Up(pitch.Interval{Letters: 3, HalfSteps: 5}))}, {Chord: one.On(one.Root.Up(pitch.Interval{Letters: 4, HalfSteps: 7}))}}
			for i, set := range neck.StringSets(in.Strings()) {
				r := neck.Region{Low: (tonic + i) % 9, High: (tonic+i)%9 + i%6, Strings: set.Strings}
				thread, _, err := crossing.Tie(t.Context(), in, stops, crossing.Range{Region: r})
				if err != nil {
					require.Contains(t, err.Error(), r.Says())
					continue
				}
				require.Len(t, thread, len(stops))
				for _, target := range thread {
					require.True(t, r.Has(target.Placement), "%s on %s", r.Says(), in.Tuning())
				}
			}
		}
	}
}

// An octave of a run goes from root to root: five notes of a seventh chord.
func TestAnOctaveOfARun(t *testing.T) {
	in := neck.Standard()
	for _, root := range pitch.Roots {
		c := harmony.MustParse(root.String() + "7")
		for _, p := range in.Positions(root.Class()) {
			run := Make(in, c, p.Region, neck.Hand{Comfort: 100}, nil)
			octave := run.Octave()
			require.Len(t, octave, 5, "%s in %s", c, p.Region.Says())
			assert.Equal(t, harmony.Degree("R"), octave[0].Degree)
			assert.Equal(t, 12, octave[4].Pitch.MIDI()-octave[0].Pitch.MIDI())
		}
	}
	assert.Empty(t, Run{}.Octave())
}
