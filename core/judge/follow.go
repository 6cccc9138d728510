package judge

import (
	"sort"

	"undaris/core/score"
)

// context is how many ticks before a change are set anew beside it: more than a note can be
// early or late, so that what lies further back is judged as it would be with the whole.
const context = 8 * score.Tick

// Follow judges a take while it is played: what is new, and what that changes. What it says of
// the last beats may still change with the next note; [Prescribed] judges the whole.
type Follow struct {
	expected []Expected
	beat     float64 // milliseconds
	found    []int   // of each expected note what was heard; −1 is nothing
	verdicts []Verdict
}

// Following begins to judge takes of what was written. tempo is in beats a minute.
func Following(s score.Score, tempo int, swing float64) *Follow {
	f := &Follow{expected: Sounding(s, swing), beat: 60000 / float64(tempo)}
	f.found, f.verdicts = make([]int, len(f.expected)), make([]Verdict, len(f.expected))
	for i := range f.found {
		f.found[i], f.verdicts[i] = -1, Verdict{Heard: -1, Is: Unheard}
	}
	return f
}

// Now tells the verdicts by now, of every note of the score; what was not reached is not heard.
// heard is everything that was, in order of time, and since the tick of the first note in it
// that is not as it was before. What is returned is written over the next time.
func (f *Follow) Now(heard []Heard, since float64) []Verdict {
	from := sort.Search(len(f.expected), func(i int) bool { return f.expected[i].At >= since-context })
	to := len(f.expected)
	if n := len(heard); n > 0 {
		last := heard[n-1].At + furthest*score.Tick
		to = max(from, sort.Search(to, func(i int) bool { return f.expected[i].At > last }))
	}
	first := 0 // of what was heard, behind what the notes before are
	for _, j := range f.found[:from] {
		first = max(first, j+1)
	}
	first = min(first, len(heard))
	found, _ := align(f.expected[from:to], heard[first:])
	for i := from; i < len(f.found); i++ {
		f.found[i] = -1
		if i < to && found[i-from] >= 0 {
			f.found[i] = first + found[i-from]
		}
	}
	judged(f.verdicts, f.expected, f.found, heard, f.beat)
	return f.verdicts
}

// judged writes the verdicts on what was found, and tells the take's tendency and its spread in
// milliseconds, and how many notes were heard.
func judged(into []Verdict, expected []Expected, found []int, heard []Heard, beat float64) (tendency, spread float64, n int) {
	ms := func(i, j int) float64 { return (heard[j].At - expected[i].At) / score.Tick * beat }
	var offs []float64
	for i, j := range found {
		if j >= 0 {
			offs = append(offs, ms(i, j))
		}
	}
	tendency = max(-steady, min(steady, middle(offs)))
	for i, j := range found {
		into[i] = Verdict{Heard: j, Is: Unheard}
		if j >= 0 {
			into[i] = verdict(expected[i], heard[j], j, ms(i, j)-tendency, beat)
		}
	}
	n = len(offs)
	for i, off := range offs {
		offs[i] = max(off-tendency, tendency-off)
	}
	return tendency, middle(offs), n
}
