package tabtext

import (
	"regexp"
	"slices"
	"unicode/utf8"

	"undaris/core/form"
	"undaris/core/harmony"
)

// Chords are often written above the rows, each over the place where it begins.

// over is such a chord: in which bar, from 0, and on which beat.
type over struct {
	bar, beat int
	chord     harmony.Chord
}

// above is a line over a row that may be one of chords, and where it stands in the text.
type above struct {
	line string
	at   int
}

var worded = regexp.MustCompile(`[^\s|]+`)

// maxWords is how many words of a text are looked at whether they are chords.
const maxWords = 50_000

// chordWords are the chords of a line that holds nothing else, and the columns where they stand. A letter alone at the
// beginning is the name of a part.
func (r *reader) chordWords(line string) (cols []int, chords []harmony.Chord) {
	if len(line) > maxAbove*80 {
		return nil, nil
	}
	for _, at := range worded.FindAllStringIndex(line, -1) {
		word := line[at[0]:at[1]]
		if r.words++; r.words > maxWords {
			return nil, nil
		}
		c, err := harmony.Parse(word)
		if err != nil {
			return nil, nil
		}
		cols, chords = append(cols, utf8.RuneCountInString(line[:at[0]])), append(chords, c)
	}
	if len(cols) == 1 && cols[0] == 0 && len(chords[0].String()) == 1 {
		return nil, nil
	}
	return cols, chords
}

// overhead is the last line of chords above a row.
func (r *reader) overhead(lines []string) (cols []int, chords []harmony.Chord) {
	if r.chords != "" {
		return nil, nil
	}
	for _, line := range slices.Backward(lines) {
		if cols, chords = r.chordWords(line); len(cols) > 0 {
			r.pending = nil
			return cols, chords
		}
	}
	return nil, nil
}

// place puts the chords that stand over the columns of a bar on its beats; what stands over a pickup holds
// from the first bar on. It returns how many it took.
func (r *reader) place(cols []int, chords []harmony.Chord, from, to, bar int) (n int) {
	for n < len(cols) && cols[n] < to {
		beats := r.s.BeatsOf(max(0, bar))
		beat := 0
		if bar >= 0 && cols[n] > from {
			beat = min(beats-1, ((cols[n]-from)*beats*2/max(1, to-from)+1)/2)
		}
		if n++; len(r.over) < form.MaxChanges {
			r.over = append(r.over, over{max(0, bar), beat, chords[n-1]})
		}
	}
	return n
}

// overlaid gives the bars the chords that stand above the rows.
func (r *reader) overlaid() {
	if r.chords != "" || len(r.over) == 0 {
		return
	}
	r.say("its chords stand above the rows; each begins on the beat that it stands nearest to")
	now := harmony.Chord{None: true}
	for bar := range r.s.Bars {
		list := []form.Change{{Chord: now}}
		for _, o := range r.over {
			switch last := &list[len(list)-1]; {
			case o.bar != bar:
				continue
			case last.Beat == o.beat:
				last.Chord = o.chord
			case o.beat > last.Beat:
				list = append(list, form.Change{Beat: o.beat, Chord: o.chord})
			}
			now = o.chord
		}
		r.s.Bars[bar].Changes = list
	}
}
