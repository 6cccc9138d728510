package exercise

import (
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// tried are the charts on which choices are tried: chords of many kinds, a bar and half a bar each.
var tried = []string{"| C7 | F7 | C7 | G7 |", "| Cm7 | Fm7 | Dm7b5 | G7 |", "| C6 | A7b9 | Dm | G9 | Cmaj7 |", "| C7 F7 | C7 G7 |", "| C7 | % | % | % | F7 | % | C7 | % |"}

func played(t *testing.T, x Task, text string, region neck.Region) string {
	p, err := form.Read(text, 4, form.Key{})
	require.NoError(t, err)
	x.Key, x.Region = form.Key{}, region
	notes, _, err := Over(t.Context(), Ground(p, x.Drill), x)
	if err != nil {
		return ""
	}
	out := ""
	for _, n := range notes {
		out += fmt.Sprint(n.Start, ":", n.Pitch.MIDI(), "b", n.Bend, " ")
	}
	return out
}

// What an exercise offers acts, and what acts is offered: for every exercise, over charts of all kinds and in two places.
func TestChoicesAct(t *testing.T) {
	t.Parallel()
	charts := tried
	if os.Getenv("EVERY") == "" {
		charts = tried[2:4]
	}
	for _, d := range Drills {
		acts := map[string]bool{}
		for _, text := range charts {
			for _, region := range []neck.Region{{Low: 7, High: 11}, {Low: 2, High: 9}} {
				plain := played(t, task(d.ID), text, region)
				for _, c := range Choices {
					for _, change := range c.changes {
						x, before := task(d.ID), plain
						if c.given != nil && !acts[c.ID] {
							c.given(&x)
							before = played(t, x, text, region)
						}
						if before != "" && !acts[c.ID] {
							change(&x)
							now := played(t, x, text, region)
							acts[c.ID] = now != "" && now != before
						}
					}
				}
			}
		}
		for _, c := range Choices {
			assert.Equal(t, acts[c.ID], slices.Contains(d.Offers(), c.ID), "%s: %s", d.ID, c.ID)
		}
		assert.True(t, slices.ContainsFunc(Groups, func(g struct{ ID, Name string }) bool { return g.ID == d.Group }), d.ID)
		assert.NotEmpty(t, d.Words, d.ID)
	}
}

// Every exercise that plays through ends on the beat, on a tone of its last chord: over every kind of chord, in every key.
func TestExercisesEndAtRest(t *testing.T) {
	t.Parallel()
	cases := 0
	for _, d := range Drills {
		for i, quality := range []string{"7", "9", "m7", "m7b5", "maj7", "6", "", "m", "dim7"} {
			for k, tonic := range pitch.Roots {
				if (i+k)%3 != 0 && os.Getenv("EVERY") == "" {
					continue // a third of them in turn; all in make thorough
				}
				chord := harmony.MustParse(tonic.String() + quality)
				x := task(d.ID)
				x.Key = form.Key{Tonic: tonic, Minor: chord.Minor()}
				x.Pace = Paces[(i+k)%len(Paces)].ID
				x.Down = k%2 == 0
				x.Region = neck.Standard().Positions(tonic.Class())[k%4].Region
				p, err := form.Read("| "+chord.String()+" | % |", 4, x.Key)
				require.NoError(t, err)
				ground := Ground(p, d.ID)
				notes, _, err := Over(t.Context(), ground, x)
				if err != nil || d.leads {
					continue
				}
				s := score.Score{Key: x.Key, Progression: ground, In: x.In, Notes: notes}
				last := notes[len(notes)-1]
				over, _ := s.ChordAt(last.Start)
				cases++
				what := fmt.Sprintf("%s over %s, %s in %s", d.ID, chord, x.Pace, x.Region.Says())
				require.Zero(t, last.Start%score.Tick, "%s: the last note begins off the beat", what)
				if silent := s.At(len(ground.Bars)) - last.End(); silent == 0 && d.names == 0 {
					_, tone := over.ToneAt(last.Heard() % 12)
					require.True(t, tone || len(over.Tones) < 3, "%s: it ends on %s", what, last.Pitch)
				}
			}
		}
	}
	t.Log(cases, "exercises end at rest")
	assert.Greater(t, cases, 2000)
}

// "The fifth only" leads into the fifth of each triad that is played, whatever chord sounds: in every key.
func TestTheFifthIsEachTriadsOwn(t *testing.T) {
	leads := 0
	for _, id := range []string{"key-triads", "key-sevenths", "key-triads-145", "scale-triads", "scale-sevenths"} {
		for _, tonic := range pitch.Roots {
			key := form.Key{Tonic: tonic}
			p, err := form.Read("| "+tonic.String()+"7 | % | % | % |", 4, key)
			require.NoError(t, err)
			x := task(id)
			x.Key, x.Region, x.Approach = key, neck.Standard().Positions(tonic.Class())[1].Region, "fifth"
			notes, _, err := Over(t.Context(), p, x)
			require.NoError(t, err)
			var tones []score.Note
			for i, n := range notes {
				if n.Degree != "" {
					tones = append(tones, n)
					continue
				}
				leads++
				fifth, third, root := notes[i+1], tones[len(tones)-1], tones[len(tones)-2]
				require.Equal(t, fifth.Pitch.MIDI()-1, n.Pitch.MIDI())
				require.Contains(t, []int{6, 7, 8}, fifth.Pitch.MIDI()-root.Pitch.MIDI(), "%s in %s at %d", id, tonic, n.Start)
				require.Contains(t, []int{3, 4}, third.Pitch.MIDI()-root.Pitch.MIDI(), "%s in %s at %d", id, tonic, n.Start)
			}
		}
	}
	assert.Greater(t, leads, 300)
}

// What an exercise is about comes while its chord sounds, at a chord a bar in eighths too.
func TestWhatAnExerciseIsAboutIsPlayed(t *testing.T) {
	cases := 0
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic}
		four, five := tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}).Simpler(), tonic.Up(pitch.Interval{Letters: 4, HalfSteps: 7}).Simpler()
		p, err := form.Read("| "+tonic.String()+"7 | "+four.String()+"7 | "+five.String()+"7 | "+tonic.String()+"7 |", 4, key)
		require.NoError(t, err)
		for _, position := range neck.Standard().Positions(tonic.Class()) {
			for _, id := range []string{"extensions", "reach", "two-positions"} {
				x, plain := task(id), task("run")
				x.Key, x.Region = key, position.Region
				plain.Key, plain.Region = key, position.Region
				notes, _, err := Over(t.Context(), p, x)
				if err != nil {
					continue
				}
				run, _, err := Over(t.Context(), p, plain)
				require.NoError(t, err)
				for bar := range 3 {
					in := func(notes []score.Note) (out []score.Note) {
						for _, n := range notes {
							if n.Start/3840 == bar {
								out = append(out, n)
							}
						}
						return out
					}
					mine, its := in(notes), in(run)
					if len(mine) == 0 {
						continue
					}
					cases++
					said := ""
					switch id {
					case "extensions":
						if !slices.ContainsFunc(mine, func(n score.Note) bool { return harmony.Degree(n.Degree).Role() == harmony.Extension }) {
							said = "no extension"
						}
					default:
						if slices.EqualFunc(mine, its, func(a, b score.Note) bool { return a.Placement == b.Placement }) {
							said = "the plain run"
						}
					}
					require.Empty(t, said, "%s in %s, %s, bar %d", id, tonic, position.Says(), bar+1)
				}
			}
		}
	}
	t.Log(cases, "bars")
	assert.Greater(t, cases, 500)
}

// Runs that are timed come out on what they promise; alternating ones go one way through a chord, and the other through the
// next: in every key and position.
func TestRunsGoWhereTheySay(t *testing.T) {
	landed, near, bars := 0, 0, 0
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic}
		four := tonic.Up(pitch.Interval{Letters: 3, HalfSteps: 5}).Simpler()
		p, err := form.Read("| "+tonic.String()+"7 | "+four.String()+"7 | "+tonic.String()+"7 | "+four.String()+"7 |", 4, key)
		require.NoError(t, err)
		for _, position := range neck.Standard().Positions(tonic.Class()) {
			for id, role := range map[string]harmony.Role{"into-root": harmony.Root, "into-third": harmony.Third} {
				x := task(id)
				x.Key, x.Region = key, position.Region
				notes, _, err := Over(t.Context(), p, x)
				require.NoError(t, err, "%s in %s", id, position.Says())
				for i, n := range notes {
					if i == 0 || n.Start%3840 != 0 {
						continue
					}
					landed++
					require.Equal(t, role, harmony.Degree(n.Degree).Role(), "%s in %s, %s: bar %d begins on %s", id, tonic, position.Says(), n.Start/3840+1, n.Degree)
					step := abs(n.Pitch.MIDI() - notes[i-1].Pitch.MIDI())
					require.NotZero(t, step, "the goal is not struck twice")
					if step <= 2 {
						near++
					}
				}
			}
			x := task("alternate")
			x.Key, x.Region = key, position.Region
			notes, _, err := Over(t.Context(), p, x)
			require.NoError(t, err)
			for bar := range 3 { // the last comes to rest
				turns, before := 0, 0
				for i, n := range notes {
					if n.Start/3840 != bar || i == 0 || notes[i-1].Start/3840 != bar {
						continue
					}
					if up := n.Pitch.MIDI() > notes[i-1].Pitch.MIDI(); up != (bar%2 == 0) {
						turns++
					}
					before++
				}
				bars++
				require.LessOrEqual(t, turns, 1, "%s, %s, bar %d: it turns but where it comes round", tonic, position.Says(), bar+1)
				require.Equal(t, 7, before)
			}
		}
	}
	t.Log(landed, "landings,", near, "from two half steps at most;", bars, "bars up or down")
	assert.Greater(t, near, landed/2)
}
