package exercise

import (
	"fmt"
	"slices"
	"strings"
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

func task(drill string) Task {
	return Task{In: neck.Standard(), Hand: neck.UsualHand, Region: neck.Region{Low: 7, High: 11}, Drill: drill, Pace: "eighths"}
}

func over(t *testing.T, text string, x Task) []score.Note {
	p, err := form.Read(text, 4, form.Key{})
	require.NoError(t, err)
	notes, _, err := Over(t.Context(), p, x)
	require.NoError(t, err, "%s over %s", x.Drill, text)
	return notes
}

func degrees(notes []score.Note) string {
	var out []string
	for _, n := range notes {
		d := n.Degree
		if d == "" {
			d = "."
		}
		out = append(out, d)
	}
	return strings.Join(out, " ")
}

func names(notes []score.Note) string {
	var out []string
	for _, n := range notes {
		out = append(out, n.Pitch.String())
	}
	return strings.Join(out, " ")
}

// Facts of C7 in frets 7 to 11, where the run is R 3 5 b7 R 3 5 b7 R.
func TestWhatTheDrillsPlay(t *testing.T) {
	for id, want := range map[string]string{
		"run":                  "R 3 5 b7 R 3 5 b7 R b7 5 3 R b7 5 3",
		"thirds":               "R 3 R 3 R 3 R 3 R",
		"guides":               "3 b7 3 b7 3 b7 3",
		"triads":               "R 3 5 3 5 R 5 R 3 R 3 5 3 5 R",
		"orders":               "R 3 5 b7 R 3 5 b7",
		"spread":               "R 5 3",
		"spread-inversions":    "R 5 3 3 R 5 5 3 R",
		"spread-fourth":        "R 5 3 11 3",
		"spread-climbing":      "R 5 3 11 5",
		"from-third":           "3 5 b7 9 3 5 b7 9 b7",
		"fifths-down":          ". 5 3 R . 5 3 R",
		"ninth":                "R 9 3 5 b7 R 9 3 5 b7 R 9 R",
		"scale-thirds":         "R 3 9 11 3 5 11 13",
		"scale-thirds-down":    "3 R 11 9 5 3 13 11",
		"scale-thirds-up-down": "R 3 11 9 3 5 13 11",
		"scale-thirds-down-up": "3 R 9 11 5 3 11 13",
		"scale-fourths":        "R 11 9 5 3 13 11 b7",
		"scale-fours":          "R 9 3 11 9 3 11 5 3 11 5 13",
		"third-in-roots":       "R 3 5 b7 9 R",
		"cell-octaves":         "R 3 R 3 3 5 3 5",
		"scale-cell":           "R 9 3 5 9 3 11 13",
		"octaves":              "R R 3 3 5 5 b7 b7",
		"walk-root-third":      "R . . . 3 . . .",
		"three-a-string":       "R 9 3 11 5 13 b7 R 9 3 11 5 13 b7 R 9 3 11 3",
	} {
		x := task(id)
		got := degrees(over(t, "| C7 | % | % | % |", x))
		assert.True(t, strings.HasPrefix(got, want), "%s: %s", id, got)
	}
	assert.True(t, strings.HasPrefix(names(over(t, "| C7 | % |", task("walk-root-third"))), "C3 C#3 D3 D#3 E3 D#3 D3 C#3"), names(over(t, "| C7 | % |", task("walk-root-third"))))
	notes := over(t, "| C7 | % | % | % |", task("extensions"))
	assert.Contains(t, degrees(notes), "b7 R 9 R", "into the ninth")
	assert.Contains(t, degrees(notes), "R 3 11 3")
	assert.Contains(t, degrees(notes), "3 5 13 5")
}

func TestTheSeventhChordOnTheThirdIsNothingElse(t *testing.T) {
	for symbol, want := range map[string]string{"C7": "E G Bb D", "Cm7": "Eb G Bb D", "Cmaj7": "E G B D", "Cm7b5": "Eb Gb Bb D"} {
		heard := map[string]bool{}
		for _, n := range over(t, "| "+symbol+" | % | % |", task("from-third")) {
			heard[n.Pitch.Name.String()] = true
		}
		for _, name := range strings.Fields(want) {
			assert.True(t, heard[name], "%s lacks %s", symbol, name)
		}
		assert.Len(t, heard, 4, symbol)
	}
	p, _ := form.Read("| C | F |", 4, form.Key{})
	_, _, err := Over(t.Context(), p, task("from-third"))
	assert.ErrorContains(t, err, "is not played over C or F: they have no such tones")
	p, _ = form.Read("| C7 | F |", 4, form.Key{})
	_, said, err := Over(t.Context(), p, task("from-third"))
	require.NoError(t, err)
	assert.Contains(t, said, "not over F: they have no such tones")
}

func TestStartsOrdersAndDirections(t *testing.T) {
	x := task("run")
	x.From, x.Down = "3", true
	got := degrees(over(t, "| C7 | % |", x))
	assert.True(t, strings.HasPrefix(got, "3 R b7 5 3 R 3 5"), "from the highest third downwards: %s", got)
	seen := map[string]bool{}
	for order := 1; order <= 24; order++ {
		x = task("orders")
		x.Order = order
		seen[degrees(over(t, "| C7 |", x)[:4])] = true
	}
	assert.Len(t, seen, 24)

	notes := over(t, "| C7 | F7 | C7 | G7 |", task("onward"))
	turns := 0
	for i := 2; i < len(notes); i++ {
		a, b, c := notes[i-2].Pitch.MIDI(), notes[i-1].Pitch.MIDI(), notes[i].Pitch.MIDI()
		if (b-a > 0) != (c-b > 0) {
			turns++
		}
		assert.NotEqual(t, b, c, "it goes on")
	}
	assert.LessOrEqual(t, turns, 4, "it turns only at the ends: %s", names(notes))

	x = task("run")
	x.Offset, x.Until = 2, 3
	notes = over(t, "| C7 | % | F7 | % |", x)
	assert.Equal(t, 480, notes[0].Start)
	for _, n := range notes {
		assert.Less(t, n.Start%7680, 3840+3*960, "each chord rests after beat 3 of its last bar")
	}
}

// The tone comes on the beat, what leads to it before; as far as the hand allows
// on its string.
func TestApproachesStandBeforeTheirTones(t *testing.T) {
	onString, leads := 0, 0
	for _, a := range approach.Ways {
		for _, pace := range Paces {
			for _, tonic := range pitch.Roots {
				x := task("run")
				x.Approach, x.Pace, x.Key = a.ID, pace.ID, form.Key{Tonic: tonic}
				x.Region = x.In.Positions(tonic.Class())[2].Region
				where := fmt.Sprintf("%s in %s in %s", a.ID, pace.ID, tonic)
				notes := over(t, "| "+tonic.String()+"7 | % | % | % |", x)
				chord := harmony.MustParse(tonic.String() + "7")
				for i, n := range notes {
					if n.Degree != "" {
						assert.Zero(t, n.Start%score.Tick, "%s: the tone is on the beat", where)
						continue
					}
					k := i
					for k < len(notes) && notes[k].Degree == "" {
						k++
					}
					require.Less(t, k, len(notes), "%s: the last note leads nowhere", where)
					goal := notes[k]
					d := n.Pitch.MIDI() - goal.Pitch.MIDI()
					lead := a.Steps[len(a.Steps)-(k-i)]
					switch {
					case lead.Scale:
						assert.Contains(t, []int{1, 2}, d*lead.By, where)
						assert.True(t, slices.ContainsFunc(chord.Scale(), func(s harmony.Tone) bool { return s.Name.Class() == n.Pitch.Name.Class() }), "%s: %s is of the scale", where, n.Pitch)
					default:
						assert.Equal(t, lead.By, d, where)
					}
					leads++
					if n.String == goal.String {
						onString++
					}
				}
			}
		}
	}
	assert.Greater(t, float64(onString)/float64(leads), 0.9, "%d of %d on the tone's string", onString, leads)
}

func TestAnArpeggioThroughTheTwelveKeys(t *testing.T) {
	p, err := form.Read("| N.C. | Eb7 | F7 |", 4, form.Key{})
	require.NoError(t, err)
	round := Ground(p, "twelve-keys")
	require.Len(t, round.Bars, 12)
	roots := map[int]bool{}
	for i, b := range round.Bars {
		roots[b.Changes[0].Chord.Root.Class()] = true
		assert.Equal(t, pitch.Class(3+5*i), b.Changes[0].Chord.Root.Class())
	}
	assert.Len(t, roots, 12)
	notes, _, err := Over(t.Context(), round, task("twelve-keys"))
	require.NoError(t, err)
	for _, n := range notes {
		_, ok := round.Bars[n.Start/3840].Changes[0].Chord.ToneAt(pitch.Class(n.Pitch.MIDI()))
		assert.True(t, ok)
	}
	assert.Equal(t, p, Ground(p, "run"))
}

func TestACellIsCarriedThroughTheScale(t *testing.T) {
	x := task("scale-cell")
	x.Cell = []int{5, 3, 1}
	assert.True(t, strings.HasPrefix(degrees(over(t, "| C7 | % |", x)), "5 3 R 13 11 9 b7 5 3"))
	x.Region = neck.Region{Low: 0, High: 12, Strings: neck.StringsOf(3)}
	last := -1
	for i, n := range over(t, "| C7 | % |", x) {
		assert.Equal(t, 3, n.String)
		if i%3 == 2 && i < 9 {
			assert.Greater(t, n.Fret, last, "it climbs along the string")
			last = n.Fret
		}
	}
}

func TestTwoPositionsReachAndDoubleTime(t *testing.T) {
	x := task("two-positions")
	notes := over(t, "| C7 | % | % | % |", x)
	top := 0
	for i, n := range notes {
		if n.Pitch.MIDI() > notes[top].Pitch.MIDI() {
			top = i
		}
	}
	for _, n := range notes[:top] {
		assert.True(t, n.Fret >= 7 && n.Fret <= 11, "up in this position: %d", n.Fret)
	}
	assert.Greater(t, notes[top+1].Fret, 11-4, "and down in the next")
	assert.True(t, slices.ContainsFunc(notes[top:], func(n score.Note) bool { return n.Fret > 11 }), "which lies higher")

	p, _ := form.Read("| C7 | % |", 4, form.Key{})
	x = task("reach")
	x.Region = neck.Region{Low: 7, High: 11}
	notes, said, err := Over(t.Context(), p, x)
	require.NoError(t, err)
	assert.True(t, slices.ContainsFunc(notes, func(n score.Note) bool { return n.Fret > 11 && n.Degree == "3" }), "E at fret 12")
	assert.Contains(t, strings.Join(said, ""), "its widest reach is")

	x = task("run")
	x.Double = true
	notes = over(t, "| C7 | % |", x)
	lengths := map[int]int{}
	for _, n := range notes {
		lengths[n.Length]++
	}
	assert.Equal(t, map[int]int{480: 8, 240: 12, 960: 1}, lengths, "and it ends at rest")
}

func TestThirdsSinkOntoTheNextChord(t *testing.T) {
	for _, tonic := range pitch.Roots {
		f, _ := form.FormByID("quick-change")
		x := task("sinking-thirds")
		x.Region = neck.Region{Low: 3, High: 10}
		p := f.In(form.Key{Tonic: tonic})
		notes, _, err := Over(t.Context(), p, x)
		require.NoError(t, err)
		for _, place := range joined(p)[1:] {
			at := (place.Bar*4 + place.Beat) * score.Tick
			pair := func(tick int) (out []int) {
				for _, n := range notes {
					if n.Start == tick {
						out = append(out, n.Pitch.MIDI())
					}
				}
				return out
			}
			landed, before := pair(at), pair(at-480)
			require.Len(t, landed, 2)
			for _, midi := range landed {
				_, ok := place.Chord.ToneAt(pitch.Class(midi))
				assert.True(t, ok, "%s in bar %d", place.Chord, place.Bar+1)
			}
			require.Len(t, before, 2)
			if before[0]-landed[0] == 1 {
				assert.Equal(t, 1, before[1]-landed[1], "both sink")
			}
		}
	}
}

func TestShellsLieInTwoLayoutsAndMoveLittle(t *testing.T) {
	x := task("shells")
	for _, tonic := range pitch.Roots {
		key := form.Key{Tonic: tonic}
		f, _ := form.FormByID("jazz-blues")
		p := f.In(key)
		notes, _, err := Over(t.Context(), p, x)
		require.NoError(t, err)
		last := -1
		for i := 0; i < len(notes); i += 3 {
			var on []string
			var places []neck.Placement
			for _, n := range notes[i : i+3] {
				on = append(on, fmt.Sprintf("%d:%s", n.String, harmony.Degree(n.Degree).Role()))
				places = append(places, n.Placement)
			}
			slices.Sort(on)
			assert.Contains(t, []string{"3:third 4:seventh 6:root", "3:seventh 4:third 5:root"}, strings.Join(on, " "), "%s in %s", notes[i].Pitch, key)
			fingers, ok := x.In.Grip(places, nil, x.Hand)
			require.True(t, ok)
			for k := range places {
				assert.Equal(t, fingers[k], notes[i+k].Finger)
				for j := range k {
					assert.False(t, fingers[k] == fingers[j] && places[k].Fret != places[j].Fret, "one finger, two frets")
				}
			}
			if last >= 0 {
				assert.LessOrEqual(t, abs(notes[i].Fret-last), 4, "the hand moves little")
			}
			last = notes[i].Fret
		}
	}
}

func TestTheWayComesOutOnTheNextRoot(t *testing.T) {
	for _, a := range []string{"", "below", "enclosure"} {
		for _, tonic := range pitch.Roots {
			x := task("into-root")
			x.Approach, x.Region = a, neck.Region{Low: 0, High: 12}
			f, _ := form.FormByID("quick-change")
			p := f.In(form.Key{Tonic: tonic})
			notes, _, err := Over(t.Context(), p, x)
			require.NoError(t, err)
			places := joined(p)
			at := func(tick int) score.Note {
				return notes[slices.IndexFunc(notes, func(n score.Note) bool { return n.Start == tick })]
			}
			for i, place := range places {
				tick := (place.Bar*4 + place.Beat) * score.Tick
				assert.Equal(t, "R", at(tick).Degree, "bar %d begins on the root", place.Bar+1)
				if i > 0 {
					into := abs(at(tick-480).Pitch.MIDI() - at(tick).Pitch.MIDI())
					assert.True(t, into >= 1 && into <= 5, "the note before it is near: %d half steps in %s", into, tonic)
				}
			}
		}
	}
}

func TestOnlyTheStringsAskedFor(t *testing.T) {
	x := task("run")
	x.Region.Strings = neck.StringsOf(4, 5, 6)
	for _, n := range over(t, "| C7 | F7 |", x) {
		assert.GreaterOrEqual(t, n.String, 4)
	}
	x.Region = neck.Region{Low: 5, High: 12, Strings: neck.StringsOf(1, 2)}
	for _, n := range over(t, "| C7 | F7 |", x) {
		assert.LessOrEqual(t, n.String, 2)
	}
	x.Region.Strings = neck.StringsOf(5, 2)
	for _, n := range over(t, "| C7 | F7 |", x) {
		assert.Contains(t, []int{5, 2}, n.String)
	}
}

func TestTasksRefused(t *testing.T) {
	p, err := form.Read("| C7 |", 4, form.Key{})
	require.NoError(t, err)
	for says, change := range map[string]func(*Task){
		"no exercise": func(x *Task) { x.Drill = "yodel" },
		"no pace":     func(x *Task) { x.Pace = "warp" },
		"string 8":    func(x *Task) { x.Region.Strings = neck.StringsOf(8) },
		"order 25":    func(x *Task) { x.Order = 25 },
		"nothing":     func(x *Task) { x.Drill, x.Region = "spread", neck.Region{Low: 7, High: 8, Strings: neck.StringsOf(1)} },
	} {
		x := task("run")
		change(&x)
		_, _, err := Over(t.Context(), p, x)
		assert.ErrorContains(t, err, says)
	}
}
