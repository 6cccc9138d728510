package judge

import (
	"math"
	"sort"

	"undaris/core/say"
	"undaris/core/score"
)

// Ways to count the same line otherwise than the band does: by how much faster.
var paces = []struct {
	faster float64
	says   string
}{
	{2, "twice as fast"},
	{0.5, "half as fast"},
}

// paceNotes is how many notes tell how fast a line was played.
const paceNotes = 8

// paced tells that a take was played, note for note, twice or half as fast as it is written; "" where it was not.
func paced(expected []Expected, heard []Heard) string {
	if len(heard) < paceNotes || len(expected) == 0 {
		return ""
	}
	here := fitting(expected, heard, 1)
	for _, p := range paces {
		if share := fitting(expected, heard, p.faster); here <= PrescribedEvidence.Here && share > max(PrescribedEvidence.There, here+PrescribedEvidence.More) {
			return p.says
		}
	}
	return ""
}

// fitting is how much of what was heard, played so many times as fast from the first note on, is what was to be played, each note
// once and in order.
func fitting(expected []Expected, heard []Heard, faster float64) float64 {
	near := 0.25 * score.Tick * max(1, faster)
	from, fits, next := heard[0].At, 0, 0
	first := expected[0].At
	for _, h := range heard {
		at := first + (h.At-from)*faster
		i := max(next, sort.Search(len(expected), func(i int) bool { return expected[i].At >= at-near }))
		for ; i < len(expected) && expected[i].At <= at+near; i++ {
			if e := expected[i]; e.Dead || math.Abs(e.Pitch-h.Pitch) <= 0.5 {
				fits, next = fits+1, i+1
				break
			}
		}
	}
	return float64(fits) / float64(len(heard))
}

// Pace is what to try where a line was played so.
func Pace(says string) string {
	return say.F("tap the band's beat first: it was played %s", says)
}
