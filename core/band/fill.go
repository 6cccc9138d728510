package band

import "undaris/core/form"

// fill is what the drums play in place of their last beat: for each step of the groove a
// drum, or none.
type fill []int

// fills are at least four for as many steps as a groove has to the beat, from the plainest
// to the busiest.
var fills = map[int][]fill{
	2: {{snare, snare}, {snare, lowTom}, {highTom, lowTom}, {0, snare}, {midTom, midTom}},
	3: {{snare, 0, snare}, {snare, midTom, lowTom}, {highTom, midTom, lowTom}, {0, snare, snare}, {snare, snare, snare}},
	4: {{snare, 0, snare, snare}, {snare, highTom, midTom, lowTom}, {snare, snare, midTom, lowTom}, {0, snare, 0, lowTom}, {highTom, highTom, midTom, lowTom}},
}

// Where a fill stands in the form decides how busy it may be.
const (
	phraseEnd  = 2 // of the fills, from the plainest
	sectionEnd = 4
	chorusEnd  = 5
)

// fillAt is how many of the fills may end a bar; 0 is none.
func fillAt(p form.Progression, bar int) int {
	switch {
	case p.BeatsOf(bar) < 2:
	case bar == len(p.Bars)-1:
		return chorusEnd
	case p.Bars[bar+1].Section != "":
		return sectionEnd
	case bar%4 == 3:
		return phraseEnd
	}
	return 0
}
