package lick

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/score"
)

// lengths are the letters of note values.
var lengths = []struct {
	letter byte
	ticks  int
}{
	{'w', 3840}, {'h', 1920}, {'q', 960}, {'e', 480}, {'s', 240},
	{'T', 640}, {'t', 320}, {'x', 160},
}

// Parse reads a lick from a line of text:
//
//	5,/e b7,/e | R/q b3/e>s 3/eh R/h~
//
// A note is a degree with , or ' for an octave down or up, a slash and a length
// (w h q e s; t and T are thirds of a quarter and of a half, x a sixth; a dot
// makes it half as long again), and signs for how it is played: h hammer-on,
// p pull-off, s slide, ^1 ^2 ^3 bent by half steps, ^q a curl, _ released,
// ~ vibrato, > accent, x dead, %2 a trill, {1 slid into from a fret below and
// }1 from above, @3 on string 3. Notes joined by + sound together and share the
// last one's length. - is a rest. What stands before a bar line | is a pickup.
func Parse(text string) ([]Note, error) {
	var notes []Note
	now := 0
	for _, word := range strings.Fields(text) {
		if word == "|" {
			for i := range notes {
				notes[i].Start -= now
			}
			now = 0
			continue
		}
		parts := strings.Split(word, "+")
		var chord []Note
		for _, part := range parts {
			n, rest, err := parseNote(part)
			if err != nil {
				return nil, fmt.Errorf("%q: %w", word, err)
			}
			if rest {
				now += n.Length
				continue
			}
			n.Start = now
			chord = append(chord, n)
		}
		if len(chord) == 0 {
			continue
		}
		length := chord[len(chord)-1].Length
		if length == 0 {
			return nil, fmt.Errorf("%q has no length; write one such as /e", word)
		}
		for _, n := range chord {
			n.Length = length
			notes = append(notes, n)
		}
		now += length
	}
	l := Lick{Notes: notes}
	slices.SortStableFunc(l.Notes, func(a, b Note) int { return cmp.Or(a.Start-b.Start, a.above()-b.above()) })
	return l.Notes, l.Check()
}

func parseNote(word string) (n Note, rest bool, err error) {
	name, how, timed := strings.Cut(word, "/")
	for strings.HasSuffix(name, ",") || strings.HasSuffix(name, "'") {
		if name[len(name)-1] == ',' {
			n.Octave--
		} else {
			n.Octave++
		}
		name = name[:len(name)-1]
	}
	rest = name == "-"
	n.Degree = harmony.Degree(name)
	if _, ok := n.Degree.Interval(); !ok && !rest {
		return n, false, fmt.Errorf("%q is no degree", name)
	}
	if !timed {
		return n, rest, nil
	}
	if how == "" {
		return n, rest, fmt.Errorf("a length is missing behind the slash")
	}
	for _, l := range lengths {
		if l.letter == how[0] {
			n.Length = l.ticks
		}
	}
	if n.Length == 0 {
		return n, rest, fmt.Errorf("%q is no length; w h q e s t T x are", how[:1])
	}
	return n, rest, n.signs(how[1:])
}

// signs reads how a note is played.
func (n *Note) signs(s string) error {
	for len(s) > 0 {
		sign := s[0]
		s = s[1:]
		number := func() int {
			if len(s) == 0 || s[0] < '0' || s[0] > '9' {
				return 0
			}
			v, _ := strconv.Atoi(s[:1])
			s = s[1:]
			return v
		}
		switch sign {
		case '.':
			n.Length += n.Length / 2
		case 'h':
			n.Join = score.Hammer
		case 'p':
			n.Join = score.PullOff
		case 's':
			n.Join = score.Slide
		case '^':
			if strings.HasPrefix(s, "q") {
				n.Bend, s = 1, s[1:]
			} else {
				n.Bend = 2 * number()
			}
		case '_':
			n.Release = true
		case '~':
			n.Vibrato = true
		case '>':
			n.Accent = true
		case 'x':
			n.Dead = true
		case '%':
			n.Trill = number()
		case '{':
			n.Scoop = number()
		case '}':
			n.Scoop = -number()
		case '@':
			n.String = number()
		default:
			return fmt.Errorf("%q is no way to play a note", string(sign))
		}
	}
	return nil
}
