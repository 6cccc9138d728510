package record

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func phrase(pitches ...int) (out []Guess) {
	for i, p := range pitches {
		out = append(out, Guess{ID: i + 1, At: 1 + 0.25*float64(i), Length: 0.2, Pitch: p})
	}
	return out
}

func TestATurnIsSetBesideTheRecord(t *testing.T) {
	record := phrase(60, 63, 65, 67)
	for _, c := range []struct {
		name string
		mine func([]Guess) []Guess
		says string
	}{
		{"as it is", func(g []Guess) []Guess { return g }, "4 of 4 notes as on the record."},
		{"late throughout", func(g []Guess) []Guess {
			for i := range g {
				g[i].At += 0.06
			}
			return g
		}, "4 of 4 notes as on the record, 60 ms late."},
		{"early throughout", func(g []Guess) []Guess {
			for i := range g {
				g[i].At -= 0.2
			}
			return g
		}, "4 of 4 notes as on the record, 200 ms early."},
		{"another note", func(g []Guess) []Guess { g[1].Pitch = 64; return g }, "3 of 4 notes as on the record. Note 2 was a half step too high."},
		{"a bend that falls short", func(g []Guess) []Guess { g[2].Pitch = 63; g[2].Bend = 1; return g }, "3 of 4 notes as on the record. Note 3 was a half step too low."},
		{"a bend to the note", func(g []Guess) []Guess { g[2].Pitch = 63; g[2].Bend = 2; return g }, "4 of 4 notes as on the record."},
		{"one left out", func(g []Guess) []Guess { return append(g[:2:2], g[3]) }, "3 of 4 notes as on the record. Note 3 was not heard."},
		{"one more", func(g []Guess) []Guess {
			return []Guess{g[0], {ID: 9, At: 1.12, Pitch: 70}, g[1], g[2], g[3]}
		}, "4 of 4 notes as on the record, 1 more than there."},
		{"one that drags", func(g []Guess) []Guess { g[3].At += 0.15; return g }, "3 of 4 notes as on the record. Note 4 came late."},
		{"an octave off", func(g []Guess) []Guess { g[0].Pitch -= 12; return g }, "3 of 4 notes as on the record. Note 1 was an octave too low."},
		{"nothing", func([]Guess) []Guess { return nil }, "Nothing was heard in your turn."},
	} {
		turn := Beside(record, c.mine(phrase(60, 63, 65, 67)))
		assert.Equal(t, c.says, turn.Says, c.name)
	}
	assert.Equal(t, "2 notes heard in your turn; hear the record first, to set it beside.", Beside(nil, phrase(60, 62)).Says)
}

// Whatever is played: each note of the record has one answer at most, none answers two, in order; what is counted is all there
// is; and what is played as it is, late by whatever a delay may be, is right.
func TestEveryTurnIsCountedOnce(t *testing.T) {
	drawn := func(t *rapid.T, name string) (out []Guess) {
		at := 0.0
		for i := range rapid.IntRange(0, 24).Draw(t, name) {
			at += rapid.Float64Range(0.08, 1).Draw(t, "after")
			out = append(out, Guess{ID: i + 1, At: at, Pitch: rapid.IntRange(40, 88).Draw(t, "pitch"), Bend: float64(rapid.IntRange(0, 2).Draw(t, "bend"))})
		}
		return out
	}
	rapid.Check(t, func(t *rapid.T) {
		record, mine := drawn(t, "record"), drawn(t, "mine")
		turn := Beside(record, mine)
		assert.Len(t, turn.Answers, len(record))
		last, answered := 0, 0
		for _, a := range turn.Answers {
			if a.By == 0 {
				continue
			}
			answered++
			if a.By <= last {
				t.Fatalf("note %d answers behind note %d", a.By, last)
			}
			last = a.By
		}
		assert.Equal(t, len(mine), answered+turn.More)
		assert.LessOrEqual(t, turn.Right(), answered)

		late := rapid.Float64Range(-0.03, 0.03).Draw(t, "late")
		same := make([]Guess, len(record))
		for i, g := range record {
			g.At += late
			same[i] = g
		}
		turn = Beside(record, same)
		assert.Equal(t, len(record), turn.Right())
		assert.Zero(t, turn.More)
	})
}
