package tabtext

import (
	"regexp"
	"slices"
	"strings"

	"undaris/core/neck"
	"undaris/core/pitch"
)

// label is the name of a string before its row.
var label = regexp.MustCompile(`^\s*([A-Ga-g][b#♭♯]?)\d?\s*[|:]`)

// labelsOf are the pitch classes that rows are labelled with, from the top; nil where not
// every row has a label.
func labelsOf(lines []string) (classes []int, text string) {
	for _, l := range lines {
		m := label.FindStringSubmatch(l)
		if m == nil {
			return nil, ""
		}
		name := strings.ToUpper(m[1][:1]) + strings.NewReplacer("♭", "b", "♯", "#").Replace(m[1][1:])
		n, _, ok := pitch.ReadName(name)
		if !ok {
			return nil, ""
		}
		classes = append(classes, n.Class())
		text = strings.TrimSpace(text + " " + name)
	}
	return classes, text
}

// openClasses are the classes of open strings, the highest first.
func openClasses(in *neck.Instrument) (out []int) {
	for str := 1; str <= in.Strings(); str++ {
		out = append(out, in.MIDI(neck.Placement{String: str})%12)
	}
	return out
}

// labelled takes the instrument from the labels of the first row: a known tuning whose
// strings have these names, the right way up or upside down. Where the labels name none,
// that is said. It returns the rows with the highest string first.
func (r *reader) labelled(lines []string) []string {
	classes, text := labelsOf(lines)
	if classes == nil || r.named {
		return lines
	}
	upside := slices.Clone(classes)
	slices.Reverse(upside)
	for _, way := range [][]int{classes, upside} {
		if have := openClasses(r.s.In); slices.Equal(have, way) || len(way) < len(have) && slices.Equal(have[:len(way)], way) {
			return r.upright(lines, slices.Equal(way, classes), "")
		}
		for _, t := range neck.Tunings {
			in, err := neck.New(t.Open, t.Frets, t.Scale, r.s.In.Capo) // a capo may stand above
			if err == nil && slices.Equal(openClasses(in), way) {
				if r.bars == 0 {
					r.s.In = in
				}
				return r.upright(lines, slices.Equal(way, classes), t.Name)
			}
		}
	}
	r.say("the strings are called %s, and no such tuning is known here; the frets were read on %s", text, neck.TuningName(r.s.In.Tuning()))
	return lines
}

// upright turns rows whose lowest string stands at the top, and says what was found.
func (r *reader) upright(lines []string, is bool, tuning string) []string {
	if tuning != "" {
		r.say("its strings are called as those of %q; it was read in that tuning", tuning)
	}
	if is {
		return lines
	}
	r.say("its lowest string stands at the top; the rows were turned")
	out := slices.Clone(lines)
	slices.Reverse(out)
	return out
}
