package judge

import (
	"math"
	"sort"

	"undaris/core/score"
)

// Heard is a note as it was heard.
type Heard struct {
	At     float64 // ticks from the first bar, as they are counted while the band plays
	Length float64 // ticks
	Pitch  float64 // MIDI number with its cents, where it came to rest: 60.25 is C4 and a quarter of a half step
	Sway   float64 // half steps that it sways either way, of a vibrato; 0 is none
	Rate   float64 // sways a second; 0 where it was not told
	Uneven float64 // by how much its sways differ in length, a part of them; 0 where it was not told
	Low    float64 // MIDI number, with its cents, that it comes back to; 0 where it was not told
	Doubt  bool    // nobody knows that the player made it: it may be right, and cannot be wrong
}

// Expected is a note as it was to be played.
type Expected struct {
	At      float64 // ticks, swung
	Pitch   float64 // MIDI number where it comes to rest, bends in it
	Fretted float64 // MIDI number where it is fretted
	Bent    bool
	Dead    bool    // without pitch: only its onset counts
	Joined  bool    // hammered, pulled or slid to: without a stroke of its own
	Sways   bool    // with vibrato,
	asked           // of this kind
	Lasts   float64 // ticks
}

// Holds tells that a pitch lies where the note is fretted, bent to, or on the way.
func (e Expected) Holds(midi float64) bool {
	return midi > min(e.Fretted, e.Pitch)-0.5 && midi < max(e.Fretted, e.Pitch)+0.5
}

// Sounding lists what of a score is to be heard. swing is where the second eighth
// of a beat falls, 0.5 straight.
func Sounding(s score.Score, swing float64) []Expected {
	out := make([]Expected, len(s.Notes))
	starts := make([]int, len(s.Notes))
	for i, n := range s.Notes {
		starts[i] = n.Start
	}
	swings := score.Swings(starts, swing)
	for i, n := range s.Notes {
		rest := float64(n.Bend)
		if n.Release {
			rest = float64(n.ReleaseTo)
		}
		fretted := float64(n.Pitch.MIDI())
		out[i] = Expected{swings.At(n.Start), fretted + rest/2, fretted, n.Bend > 0, n.Dead, n.Join != "", n.Vibrato && !n.Release, vibratoOf(n), float64(n.Length)}
	}
	return out
}

// Costs of an alignment. A beat early or late costs as much as a wrong note; what
// is further away is another note.
const (
	perBeat  = 1.0
	furthest = 1.0 // beats
	octave   = 0.4
	stranger = 1.0 // another pitch
	unheard  = 0.9 // a note that was to be played
	extra    = 0.8 // a note that was not
)

// late is by how many beats a heard note comes after an expected one.
func late(e Expected, h Heard) float64 { return (h.At - e.At) / score.Tick }

// pair is what a heard note costs as an expected one.
func pair(e Expected, h Heard) float64 {
	off := math.Abs(late(e, h))
	if off > furthest {
		return math.Inf(1)
	}
	cost := off * perBeat
	switch off := math.Abs(h.Pitch - e.Pitch); {
	case e.Dead || off <= 0.7 || e.Bent && off <= 1:
	case math.Abs(math.Mod(off+6, 12)-6) <= 0.7:
		cost += octave
	default:
		cost += stranger
	}
	return cost
}

// align sets heard notes against expected ones, both in order of time: for each
// expected note the heard one, −1 where it was not heard, and what that costs. It
// is the exact minimum of the sum of costs, by dynamic programming; both keep
// their order. A heard note is only looked at beside the notes it can be, so that
// the work grows with the length of a take and not with its square.
func align(expected []Expected, heard []Heard) ([]int, float64) {
	n, m := len(expected), len(heard)
	low, high := make([]int, n), make([]int, n) // the heard notes that each may be: from low, before high
	for i, e := range expected {
		low[i] = sort.Search(m, func(j int) bool { return late(e, heard[j]) >= -furthest })
		high[i] = sort.Search(m, func(j int) bool { return late(e, heard[j]) > furthest })
	}
	rows := make([][]float64, n)
	// from is the cost of what is left, before the expected note i and the heard note j.
	from := func(i, j int) float64 {
		if i == n {
			return float64(m-j) * extra
		}
		if j < low[i] {
			return float64(low[i]-j)*extra + rows[i][0]
		}
		return rows[i][j-low[i]]
	}
	for i := n - 1; i >= 0; i-- {
		rows[i] = make([]float64, high[i]-low[i]+1)
		for j := high[i]; j >= low[i]; j-- {
			best := unheard + from(i+1, j)
			if j < high[i] {
				best = min(best, extra+rows[i][j+1-low[i]], pair(expected[i], heard[j])+from(i+1, j+1))
			}
			rows[i][j-low[i]] = best
		}
	}
	out := make([]int, n)
	for i, j := 0, 0; i < n; {
		j = max(j, low[i])
		switch here := from(i, j); {
		case j < high[i] && here == pair(expected[i], heard[j])+from(i+1, j+1):
			out[i] = j
			i, j = i+1, j+1
		case j < high[i] && here == extra+from(i, j+1):
			j++
		default:
			out[i] = -1
			i++
		}
	}
	return out, from(0, 0)
}
