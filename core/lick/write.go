package lick

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/score"
)

// Text writes notes as [Parse] reads them. ok is false where the text cannot say
// them: notes of other lengths than it has, or that sound on into each other.
func Text(notes []Note) (text string, ok bool) {
	var words []string
	now := 0
	if len(notes) > 0 {
		now = min(0, notes[0].Start)
	}
	pickup := now < 0
	bar := func() {
		if pickup && now >= 0 {
			words, pickup = append(words, "|"), false
		}
	}
	rest := func(to int) {
		for _, v := range values(to - now) {
			words = append(words, "-/"+v)
		}
		now = max(now, to)
		bar()
	}
	for i := 0; i < len(notes); {
		at := notes[i].Start
		rest(at)
		var heads []string
		var last Note
		for ; i < len(notes) && notes[i].Start == at; i++ {
			last = notes[i]
			heads = append(heads, head(last)+"/"+strings.Join(values(last.Length), "")+signs(last))
		}
		words = append(words, strings.Join(heads, "+"))
		now += last.Length
		bar()
	}
	if pickup { // it is over before the first beat
		rest(0)
	}
	text = strings.Join(words, " ")
	again, err := Parse(text)
	return text, err == nil && slices.Equal(again, notes)
}

// values are the note values that make up a length, the longest first.
func values(ticks int) (list []string) {
	for ticks > 0 {
		best, most := "", 0
		for _, l := range lengths {
			for dot, length := range map[string]int{"": l.ticks, ".": l.ticks * 3 / 2} {
				if length <= ticks && length > most {
					best, most = string(l.letter)+dot, length
				}
			}
		}
		if most == 0 {
			return append(list, "?") // shorter than any
		}
		list, ticks = append(list, best), ticks-most
	}
	return list
}

func head(n Note) string {
	octave := strings.Repeat("'", max(0, n.Octave)) + strings.Repeat(",", max(0, -n.Octave))
	return string(n.Degree) + octave
}

func signs(n Note) (s string) {
	s = map[score.Join]string{score.Hammer: "h", score.PullOff: "p", score.Slide: "s"}[n.Join]
	switch {
	case n.Bend == 1:
		s += "^q"
	case n.Bend > 0:
		s += fmt.Sprintf("^%d", n.Bend/2)
	}
	if n.Scoop > 0 {
		s += fmt.Sprintf("{%d", n.Scoop)
	} else if n.Scoop < 0 {
		s += fmt.Sprintf("}%d", -n.Scoop)
	}
	for _, w := range score.Ways {
		v := w.Of(n.Ornaments)
		if v == 0 || w.Lick.Mark == "" {
			continue
		}
		s += w.Lick.Mark
		if w.Lick.Number == score.Count {
			s += fmt.Sprint(v)
		}
	}
	if n.String > 0 {
		s += fmt.Sprintf("@%d", n.String)
	}
	return s
}
