package record

import (
	"math"
	"slices"

	"undaris/core/say"
)

// What a player answers a note with lies within so much of it; within less it is in time.
const (
	answersWithin = 0.35 // seconds
	inTimeWithin  = 0.09
	inTuneWithin  = 0.5 // half steps
)

// Answer is what became of a note of the record in the player's turn.
type Answer struct {
	ID   int     // of the note
	By   int     // number of the note that answers it; 0 is none
	Off  float64 // half steps that it lies above it
	Late float64 // seconds behind it, beside how late the turn is as a whole; less than 0 is early
}

// Right tells that a note was answered as it is: the same pitch, in time.
func (a Answer) Right() bool {
	return a.By != 0 && math.Abs(a.Off) < inTuneWithin && math.Abs(a.Late) <= inTimeWithin
}

// Turn is what a player played after a record, set beside it.
type Turn struct {
	Answers []Answer // one for each note of the record, in order of time
	More    int      // notes of the player's that answer none
	Late    float64  // seconds that the turn as a whole lies behind the record
	Says    string
}

// Beside sets what a player played beside what the record plays, both in order of time and in the seconds of the record. Which
// note answers which is found for all of them at once, each once and in order, so that a note left out or put in shifts none of
// the others (the least sum of distances in time and pitch, as sequences are aligned). That all of it comes late is told by
// itself, since who is late by the same everywhere played the rhythm.
func Beside(record, mine []Guess) Turn {
	pairs := aligned(record, mine, 0)
	var apart []float64
	for i, j := range pairs {
		if j >= 0 {
			apart = append(apart, mine[j].At-record[i].At)
		}
	}
	t := Turn{}
	if len(apart) > 0 {
		slices.Sort(apart)
		t.Late = apart[len(apart)/2]
		pairs = aligned(record, mine, t.Late) // what is late throughout is met more surely
	}
	t.More = len(mine)
	for i, n := range record {
		a := Answer{ID: n.ID}
		if j := pairs[i]; j >= 0 {
			a.By, a.Off, a.Late = mine[j].ID, sounds(mine[j])-sounds(n), mine[j].At-n.At-t.Late
			t.More--
		}
		t.Answers = append(t.Answers, a)
	}
	t.Says = t.says(record, mine)
	return t
}

// sounds is the pitch at which a note comes to rest.
func sounds(g Guess) float64 { return float64(g.Pitch) + g.Bend }

// aligned tells of each note of the record which of the player's answers it; -1 is none.
func aligned(record, mine []Guess, late float64) []int {
	n, m := len(record), len(mine)
	cost := make([][]float64, n+1)
	for i := range cost {
		cost[i] = make([]float64, m+1)
	}
	pair := func(i, j int) float64 {
		apart := math.Abs(mine[j].At - late - record[i].At)
		if apart > answersWithin {
			return math.Inf(1)
		}
		return 1.2*apart/answersWithin + min(0.7, math.Abs(sounds(mine[j])-sounds(record[i]))/3)
	}
	// A note without an answer and one that answers none cost one each.
	for i := n; i >= 0; i-- {
		for j := m; j >= 0; j-- {
			switch {
			case i == n:
				cost[i][j] = float64(m - j)
			case j == m:
				cost[i][j] = float64(n - i)
			default:
				cost[i][j] = min(1+cost[i+1][j], 1+cost[i][j+1], pair(i, j)+cost[i+1][j+1])
			}
		}
	}
	out := make([]int, n)
	for i := range out {
		out[i] = -1
	}
	for i, j := 0, 0; i < n && j < m; {
		switch cost[i][j] {
		case pair(i, j) + cost[i+1][j+1]:
			out[i] = j
			i++
			j++
		case 1 + cost[i+1][j]:
			i++
		default:
			j++
		}
	}
	return out
}

// Right is how many notes were answered as they are.
func (t Turn) Right() (n int) {
	for _, a := range t.Answers {
		if a.Right() {
			n++
		}
	}
	return n
}

// says tells how the turn went, and what to try next: the first note that went otherwise.
func (t Turn) says(record, mine []Guess) string {
	switch {
	case len(mine) == 0:
		return "Nothing was heard in your turn."
	case len(record) == 0:
		return say.F("%s heard in your turn; hear the record first, to set it beside.", notes(len(mine)))
	}
	out := say.F("%d of %s as on the record", t.Right(), notes(len(record)))
	if late := math.Round(1000 * t.Late); math.Abs(late) >= 30 {
		out = say.F("%s, %d ms %s", out, int(math.Abs(late)), map[bool]string{true: "late", false: "early"}[late > 0])
	}
	if t.More > 0 {
		out = say.F("%s, %d more than there", out, t.More)
	}
	for i, a := range t.Answers {
		switch {
		case a.Right():
			continue
		case a.By == 0:
			return say.F("%s. Note %d was not heard.", out, i+1)
		case math.Abs(a.Off) >= inTuneWithin:
			return say.F("%s. Note %d was %s %s.", out, i+1, interval(a.Off), map[bool]string{true: "too high", false: "too low"}[a.Off > 0])
		}
		return say.F("%s. Note %d came %s.", out, i+1, map[bool]string{true: "late", false: "early"}[a.Late > 0])
	}
	return out + "."
}

func notes(n int) string {
	if n == 1 {
		return "1 note"
	}
	return say.F("%d notes", n)
}

// interval is a distance in half steps, as it is said.
func interval(off float64) string {
	switch n := int(math.Round(math.Abs(off))); n {
	case 0, 1:
		return "a half step"
	case 2:
		return "a whole step"
	case 12:
		return "an octave"
	default:
		return say.F("%d half steps", n)
	}
}
