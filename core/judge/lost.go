package judge

import (
	"math"
	"sort"

	"undaris/core/say"
	"undaris/core/score"
)

// Lost is a stretch in which a player was somewhere else in the form.
type Lost struct {
	From, To int     // bars, from 0; To is the bar in which the player was found again, the number of bars where never
	By       float64 // beats behind; ahead when negative
}

// lostBars is over how many bars a player is lost at least.
const lostBars = 2

// Evidence is what it takes to call a player lost: so many notes in two bars, of which hardly any fit as they were played, and almost
// all elsewhere.
type Evidence struct {
	Notes       int
	Here, There float64 // shares that fit: here at most, there at least
	More        float64 // by how much more than here
}

// PrescribedEvidence is asked for where it is known which notes were to be played, FreeEvidence where only the chords are: there it is more
// since what is played wrong fits other chords by chance.
var (
	PrescribedEvidence = Evidence{5, 0.5, 0.7, 0.3}
	FreeEvidence       = Evidence{6, 0.4, 0.8, 0.45}
)

// Shifts are how many beats a player may be off: a beat or two, a bar or two.
func Shifts(beats int) []float64 {
	b := float64(beats)
	return []float64{1, -1, 2, -2, b, -b, 2 * b, -2 * b}
}

// Astray finds where a player was lost. fit tells how much of what was played in a
// stretch of bars, from one up to another, belongs so many beats earlier, from 0
// to 1, and of how many notes it knows.
func Astray(bars, beats int, need Evidence, fit func(from, to int, by float64) (share float64, notes int)) (lost []Lost) {
	shifts := Shifts(beats)
	for bar := 0; bar+lostBars <= bars; bar++ {
		here, n := fit(bar, bar+lostBars, 0)
		if n < need.Notes || here > need.Here {
			continue
		}
		best, share := 0.0, max(need.There, here+need.More)
		for _, by := range shifts {
			if there, n := fit(bar, bar+lostBars, by); n >= need.Notes && there > share {
				best, share = by, there
			}
		}
		if best == 0 {
			continue
		}
		l := Lost{bar, bar + lostBars, best}
		for l.To < bars {
			there, k := fit(l.To, l.To+1, best)
			here, _ := fit(l.To, l.To+1, 0)
			if k > 0 && there <= here {
				break
			}
			l.To++
		}
		lost = append(lost, l)
		bar = l.To - 1
	}
	return lost
}

// Says tells it in words, of a form of so many bars.
func (l Lost) Says(bars, beats int) string {
	off := math.Abs(l.By)
	how := say.F("%.0f beats", off)
	switch {
	case off == 1:
		how = "a beat"
	case off == float64(beats):
		how = "a bar"
	case off == 2*float64(beats):
		how = "two bars"
	}
	way := "behind"
	if l.By < 0 {
		way = "ahead"
	}
	if l.To >= bars {
		return say.F("%s %s from bar %d on", how, way, l.From+1)
	}
	return say.F("%s %s from bar %d on, found again in bar %d", how, way, l.From+1, l.To+1)
}

// Count is what to try where a player was lost.
func Count(lost []Lost, bars, beats int) string {
	return say.F("count the form as you play: you were %s", lost[0].Says(bars, beats))
}

// astray finds where a take of what was written lay elsewhere than it should.
func astray(s score.Score, expected []Expected, heard []Heard) []Lost {
	const near = 0.3 * score.Tick
	return Astray(len(s.Bars), s.Beats, PrescribedEvidence, func(from, to int, by float64) (float64, int) {
		low, high := float64(s.At(from))-near, float64(s.At(to))-near
		n, fits := 0, 0
		first := sort.Search(len(heard), func(i int) bool { return heard[i].At >= low })
		for _, h := range heard[first:] {
			if h.At >= high {
				break
			}
			n++
			at := h.At - by*score.Tick
			for i := sort.Search(len(expected), func(i int) bool { return expected[i].At >= at-near }); i < len(expected) && expected[i].At <= at+near; i++ {
				if e := expected[i]; e.Dead || math.Abs(e.Pitch-h.Pitch) <= 0.5 {
					fits++
					break
				}
			}
		}
		return float64(fits) / float64(max(1, n)), n
	})
}
