package exercise

import (
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/approach"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// offering are the drills that offer a choice.
func offering(choice string) (out []Drill) {
	for _, d := range Drills {
		if slices.Contains(d.Offers(), choice) {
			out = append(out, d)
		}
	}
	return out
}

// A run that is timed comes out on the tone that is asked for as each chord comes, and sets out on the beat that is
// asked for: every pattern that can be timed, over changes of a bar and of two, in every key, from every beat.
func TestRunsAreTimedToLand(t *testing.T) {
	t.Parallel()
	cases, refused, landings := 0, 0, 0
	for i, d := range offering("land") {
		for k, tonic := range pitch.Roots {
			for r, role := range []harmony.Role{harmony.Root, harmony.Third, harmony.Fifth} {
				for _, beat := range []int{0, 2, 3, 4} {
					if (i+k+r+beat)%5 > 0 && os.Getenv("EVERY") == "" {
						continue // a fifth of them in turn; all in make thorough
					}
					x := task(d.ID)
					x.Key, x.Land, x.Beat = form.Key{Tonic: tonic}, []harmony.Role{role}, beat
					x.Region = x.In.Positions(tonic.Class())[(i+k)%5].Region
					x.Pace = Paces[(k+beat)%4].ID
					x.Down, x.Route = k%2 == 0, k%5
					if k%3 == 0 {
						x.Approach = led(k + i)
					}
					four, five := tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}), tonic.Up(pitch.Interval{Letters: 4, HalfSteps: 7})
					p, err := form.Read(fmt.Sprintf("| %[1]s7 | %[2]s7 | %[1]s7 | %% | %[3]s7 | %[2]s7 |", tonic, four, five), 4, x.Key)
					require.NoError(t, err)
					what := fmt.Sprintf("%s in %s, %s, land on the %s from beat %d, %s, %q", d.ID, tonic, x.Pace, role, beat, x.Region.Says(), x.Approach)
					notes, _, err := Over(t.Context(), p, x)
					if err != nil {
						refused++
						continue
					}
					cases++
					s := score.Score{Progression: p, In: x.In, Notes: notes}
					require.NoError(t, s.Check(), what)
					for j, bar := range []int{0, 1, 2, 4, 5} {
						at, last := s.At(bar), []int{0, 1, 3, 4, 5}[j]
						chord, _ := s.ChordAt(at)
						n := slices.IndexFunc(notes, func(n score.Note) bool { return n.Start == at })
						require.True(t, n >= 0 && n+1 < len(notes), "%s: bar %d", what, bar+1)
						tone, is := chord.ToneAt(notes[n].Pitch.MIDI() % 12)
						require.True(t, is && tone.Degree.Role() == role, "%s: bar %d begins on %s", what, bar+1, notes[n].Pitch)
						if beat > 0 {
							require.Equal(t, s.At(last)+(beat-1)*score.Tick, notes[n+1].Start, "%s: where the run in bar %d sets out", what, last+1)
						}
						if n > 0 {
							require.NotEqual(t, notes[n-1].Pitch.MIDI(), notes[n].Pitch.MIDI(), "%s: it is struck once", what)
							if way, ok := approach.ByID(x.Approach); ok && (beat == 0) {
								led := way.To(notes[n].Pitch.MIDI(), chord)
								lies := func(midi int) bool { return len(x.In.Find(midi, x.around(3))) > 0 }
								require.Equal(t, !slices.ContainsFunc(led, func(m int) bool { return !lies(m) }), led[len(led)-1] == notes[n-1].Pitch.MIDI(), "%s: led into bar %d", what, bar+1)
							}
						}
						landings++
					}
				}
			}
		}
	}
	t.Log(cases, "runs timed,", landings, "landings;", refused, "refused")
	assert.Greater(t, landings, 5_000)
	assert.Less(t, refused, cases/50)
}

// Of runs that are as short each is another one, and each lands.
func TestEveryShortestRunCanBeHad(t *testing.T) {
	x := task("scale")
	x.Region, x.Land, x.Beat = neck.Region{Low: 5, High: 9}, []harmony.Role{harmony.Third}, 3
	seen := map[string]bool{}
	for route := range 4 {
		x.Route = route + 1
		notes := over(t, "| C7 | F7 | C7 | G7 |", x)
		text := ""
		for _, n := range notes {
			text += fmt.Sprint(n.Start, ":", n.Pitch.MIDI(), " ")
		}
		seen[text] = true
	}
	assert.Greater(t, len(seen), 1)
}

// What is struck at once is the exercise's own chord or third, held by a hand; what one voice keeps is the root.
func TestStruckAtOnce(t *testing.T) {
	t.Parallel()
	struck := 0
	for _, d := range offering("together") {
		played := 0
		for _, tonic := range pitch.Roots {
			for _, quality := range []string{"7", "maj7", "m7", "m7b5"} {
				chord := harmony.MustParse(tonic.String() + quality)
				x := task(d.ID)
				x.Key, x.Together, x.Region = form.Key{Tonic: tonic}, true, neck.Region{Low: 2, High: 12}
				p, err := form.Read("| "+chord.String()+" | % |", 4, x.Key)
				require.NoError(t, err)
				notes, _, err := Over(t.Context(), p, x)
				if err != nil {
					continue
				}
				played++
				require.Empty(t, score.Score{Progression: p, In: x.In, Notes: notes}.Undoable(), "%s over %s", d.ID, chord)
				for i := 0; i < len(notes); {
					k := i
					for k < len(notes) && notes[k].Start == notes[i].Start {
						k++
					}
					if n := k - i; n > 1 {
						struck++
						want := 3
						if d.Group != "triads" && d.names == 0 && d.ID != "scale-triads" {
							want = 2
						}
						require.Equal(t, want, n, "%s over %s", d.ID, chord)
					} else {
						require.Contains(t, []string{"spread-fourth", "spread-climbing"}, d.ID, "%s over %s: a note alone", d.ID, chord)
					}
					i = k
				}
			}
		}
		assert.Greater(t, played, 20, d.ID)
	}
	assert.Greater(t, struck, 3000)
}

// One octave is one: from the start that is asked for to the same an octave on.
func TestOneOctaveIsOne(t *testing.T) {
	t.Parallel()
	played := 0
	for _, d := range offering("octave") {
		for _, tonic := range pitch.Roots {
			for _, from := range []string{"", "3", "5"} {
				for _, down := range []bool{false, true} {
					x := task(d.ID)
					x.Key, x.Octave, x.From, x.Down, x.Region = form.Key{Tonic: tonic}, true, from, down, neck.Region{Low: 2, High: 9}
					notes := over(t, "| "+tonic.String()+"7 | % |", x)
					low, high := 127, 0
					for _, n := range notes {
						low, high = min(low, n.Pitch.MIDI()), max(high, n.Pitch.MIDI())
					}
					want := map[string]string{"": "R", "3": "3", "5": "5"}[from]
					require.Equal(t, want, notes[0].Degree, "%s in %s from %q", d.ID, tonic, from)
					require.Equal(t, 12, high-low, "%s in %s from %q", d.ID, tonic, from)
					played++
				}
			}
		}
	}
	assert.Greater(t, played, 300)
}

// A burst is so many notes at the pace, the last held until a beat begins.
func TestBurstsGather(t *testing.T) {
	t.Parallel()
	for _, d := range offering("burst") {
		for _, burst := range []int{3, 4, 5, 6} {
			x := task(d.ID)
			x.Burst, x.Pace, x.Region = burst, "sixteenths", neck.Region{Low: 5, High: 10}
			p, err := form.Read("| C7 | % | % | % |", 4, form.Key{})
			require.NoError(t, err)
			notes, _, err := Over(t.Context(), Ground(p, d.ID), x)
			require.NoError(t, err, d.ID)
			if Ground(p, d.ID).Beats != 4 || d.ground != nil || d.leads {
				continue
			}
			starts := []int{}
			for _, n := range notes {
				if len(starts) == 0 || starts[len(starts)-1] != n.Start {
					starts = append(starts, n.Start)
				}
			}
			for i := burst; i < len(starts) && starts[i] < 3*3840; i += burst {
				require.Zero(t, starts[i]%score.Tick, "%s: burst %d of %d begins on a beat", d.ID, i/burst, burst)
				require.Equal(t, (burst-1)*240, starts[i-1]-starts[i-burst], "%s: its notes come at the pace", d.ID)
				require.Greater(t, starts[i]-starts[i-1], 240, "%s: its last is held", d.ID)
			}
		}
	}
}

// Nothing that is only brushed is the last of a chord's time: over chords of half a bar, a bar and two.
func TestWhatIsBrushedGoesOn(t *testing.T) {
	t.Parallel()
	ends := 0
	for _, id := range []string{"spread-fourth", "spread-climbing"} {
		for _, pace := range Paces {
			for _, tonic := range pitch.Roots {
				x := task(id)
				x.Key, x.Pace, x.Region = form.Key{Tonic: tonic}, pace.ID, neck.Region{Low: 3, High: 12}
				four := tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}).String() + "7"
				p, err := form.Read(fmt.Sprintf("| %[1]s7 %[2]s | %[1]s7 | %[2]s | %% |", tonic, four), 4, x.Key)
				require.NoError(t, err)
				notes, _, err := Over(t.Context(), p, x)
				require.NoError(t, err)
				s := score.Score{Progression: p, Notes: notes}
				for i, n := range notes {
					if i+1 == len(notes) || s.Change(notes[i+1].Start) {
						chord, _ := s.ChordAt(n.Start)
						_, tone := chord.ToneAt(n.Pitch.MIDI() % 12)
						require.True(t, tone, "%s in %s: %s is the last over %s", id, pace.ID, n.Pitch, chord)
						ends++
					}
				}
			}
		}
	}
	assert.Greater(t, ends, 300)
}

// String skips skip: of two notes next to each other that change strings, half the changes at least pass over one.
func TestStringSkipsSkip(t *testing.T) {
	for _, tonic := range pitch.Roots {
		x := task("string-skips")
		x.Region = x.In.Positions(tonic.Class())[1].Region
		notes := over(t, "| "+tonic.String()+"7 | % | % | % |", x)
		skips, changes := 0, 0
		for i := 1; i < len(notes)-1; i++ {
			require.Equal(t, [2]score.PickingHand{score.DownStroke, score.UpStroke}[i%2], notes[i].Stroke)
			if d := abs(notes[i].String - notes[i-1].String); d > 0 {
				changes++
				if d == 2 {
					skips++
				}
			}
		}
		assert.GreaterOrEqual(t, 2*skips, changes, tonic.String())
	}
}

// Whatever tone is led into, in whatever order the others follow and by whatever way: in every key.
func TestATonesWayInAndItsOrder(t *testing.T) {
	groups := 0
	for _, cell := range [][]int{nil, {5, 3, 1}, {3, 1, 5}, {1, 3, 5}, {7, 5, 3}, {3, 5, 7, 1}} {
		for n := range len(approach.Ways) + 1 {
			for _, tonic := range pitch.Roots {
				x := task("fifths-down")
				x.Cell, x.Approach, x.Key = cell, led(n), form.Key{Tonic: tonic}
				x.Region = neck.Region{Low: 3, High: 8}
				notes := over(t, "| "+tonic.String()+"7 | % |", x)
				chord := harmony.MustParse(tonic.String() + "7")
				way, ok := approach.ByID(x.Approach)
				if !ok {
					way = approach.Ways[0]
				}
				order := cell
				if order == nil {
					order = []int{5, 3, 1}
				}
				for i := 0; i+len(way.Steps)+len(order) < len(notes) && notes[i].Start < 3840; i += len(way.Steps) + len(order) {
					first := notes[i+len(way.Steps)]
					want := way.To(first.Pitch.MIDI(), chord)
					for k := range way.Steps {
						require.Equal(t, want[k], notes[i+k].Pitch.MIDI())
					}
					for k, count := range order {
						require.Equal(t, map[int]string{1: "R", 3: "3", 5: "5", 7: "b7"}[count], notes[i+len(way.Steps)+k].Degree)
					}
					groups++
				}
			}
		}
	}
	assert.Greater(t, groups, 1000)
}
