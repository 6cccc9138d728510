package exercise

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

func task(drill string) Task {
	return Task{In: neck.Standard(), Hand: neck.UsualHand, Window: neck.Window{Low: 7, High: 11}, Drill: drill, Pace: "eighths"}
}

func over(t *testing.T, text string, x Task) []score.Note {
	p, err := form.Read(text, 4, form.Key{})
	require.NoError(t, err)
	notes, err := Over(t.Context(), p, x)
	require.NoError(t, err)
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

// Facts of C7 in frets 7 to 11, where the run is R 3 5 b7 R 3 5 b7 R.
func TestWhatTheDrillsPlay(t *testing.T) {
	for id, want := range map[string]string{
		"run":             "R 3 5 b7 R 3 5 b7 R b7 5 3 R b7 5 3",
		"thirds":          "R 3 R 3 R 3 R 3 R",
		"guides":          "3 b7 3 b7 3 b7 3",
		"triads":          "R 3 5 3 5 R 5 R 3 R 3 5 3 5 R",
		"orders":          "R 3 5 b7 R 3 5 b7",
		"spread":          "R 5 3",
		"spread-fourth":   "R 5 3 11 3",
		"spread-climbing": "R 5 3 11 5",
		"half-diminished": "b7 9 3 5 b7 9 3 5 b7",
	} {
		got := degrees(over(t, "| C7 | % | % | % |", task(id)))
		if id == "half-diminished" {
			assert.NotContains(t, " "+got+" ", " R ", "it has no root")
			continue
		}
		assert.True(t, strings.HasPrefix(got, want), "%s: %s", id, got)
	}
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
	x = task("one-way")
	x.Pace = "quarters"
	notes := over(t, "| C7 | F7 |", x)
	assert.Greater(t, notes[3].Pitch.MIDI(), notes[0].Pitch.MIDI(), "up one chord")
	assert.Less(t, notes[7].Pitch.MIDI(), notes[4].Pitch.MIDI(), "and down the next")
	assert.LessOrEqual(t, abs(notes[4].Pitch.MIDI()-notes[3].Pitch.MIDI()), 4, "from where the hand is")
}

func TestDressesLeadIn(t *testing.T) {
	x := task("run")
	x.Dress = "enclosure"
	notes := over(t, "| C7 | % | % |", x)
	for i := 0; i+2 < len(notes); i += 3 {
		tone := notes[i+2].Pitch.MIDI()
		assert.Equal(t, []int{tone + 2, tone - 1}, []int{notes[i].Pitch.MIDI(), notes[i+1].Pitch.MIDI()})
		assert.NotEmpty(t, notes[i+2].Degree)
	}
	x.Dress = "below"
	notes = over(t, "| E7 |", x)
	assert.Equal(t, notes[1].Pitch.MIDI()-1, notes[0].Pitch.MIDI())
}

func TestEveryDrillInEveryFormKeyPositionAndPace(t *testing.T) {
	n := 0
	for _, d := range Drills {
		for _, f := range form.Forms {
			for _, tonic := range pitch.Roots {
				key := form.Key{Tonic: tonic, Minor: f.Minor}
				p := f.In(key)
				positions := neck.Standard().Positions(tonic.Class())
				pos := positions[n%len(positions)]
				x := task(d.ID)
				x.Window, x.Pace, x.Down, x.Dress = pos.Window, Paces[n%len(Paces)].ID, n%2 == 0, Dresses[n%4].ID
				n++
				notes, err := Over(t.Context(), p, x)
				where := fmt.Sprintf("%s, %s in %s at %d", d.ID, f.ID, key, pos.Low)
				if err != nil { // a spread triad need not lie in every position
					require.Contains(t, d.ID, "spread", where)
					continue
				}
				s := score.Score{Progression: p, In: x.In, Notes: notes}
				require.NoError(t, s.Check(), where)
				for i, note := range notes {
					require.LessOrEqual(t, note.End(), len(p.Bars)*s.Bar(), where)
					if i > 0 && notes[i-1].Start < note.Start {
						require.LessOrEqual(t, notes[i-1].End(), note.Start, where)
					}
				}
			}
		}
	}
}

func TestOnlyTheStringsAskedFor(t *testing.T) {
	x := task("run")
	x.HighStr, x.LowStr = 4, 6
	for _, n := range over(t, "| C7 | F7 |", x) {
		assert.GreaterOrEqual(t, n.String, 4)
	}
	x.HighStr, x.LowStr, x.Window = 1, 2, neck.Window{Low: 5, High: 12}
	for _, n := range over(t, "| C7 | F7 |", x) {
		assert.LessOrEqual(t, n.String, 2)
	}
}

func TestTasksRefused(t *testing.T) {
	p, err := form.Read("| C7 |", 4, form.Key{})
	require.NoError(t, err)
	for says, change := range map[string]func(*Task){
		"no exercise": func(x *Task) { x.Drill = "yodel" },
		"no pace":     func(x *Task) { x.Pace = "warp" },
		"strings":     func(x *Task) { x.HighStr, x.LowStr = 5, 2 },
		"order 25":    func(x *Task) { x.Order = 25 },
		"nothing":     func(x *Task) { x.Drill, x.HighStr, x.LowStr, x.Window = "spread", 1, 1, neck.Window{Low: 7, High: 8} },
	} {
		x := task("run")
		change(&x)
		_, err := Over(t.Context(), p, x)
		assert.ErrorContains(t, err, says)
	}
}
