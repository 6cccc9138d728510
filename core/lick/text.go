package lick

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/say"
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
// p pull-off, s slide, ^1 ^2 ^3 bent by half steps, ^q a curl, {1 slid into from
// a fret below and }1 from above, @3 on string 3, and those of [score.Ways], such
// as _ released, ~ vibrato, > accent, x dead, %2 a trill. Notes joined by + sound together and share the
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
				return nil, say.Errorf("in %q, %w", word, err)
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
			return nil, say.Errorf("%q has no length; write one such as /e", word)
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
		return n, false, say.Errorf("%s is no degree; R, b3, 3, 11, 5, b7 and the like are", name)
	}
	if !timed {
		return n, rest, nil
	}
	if how == "" {
		return n, rest, say.Errorf("a length is missing behind the slash")
	}
	for _, l := range lengths {
		if l.letter == how[0] {
			n.Length = l.ticks
		}
	}
	if n.Length == 0 {
		return n, rest, say.Errorf("%q is no length; w h q e s t T x are", how[:1])
	}
	return n, rest, n.signs(how[1:])
}

// signs reads how a note is played.
func (n *Note) signs(s string) error {
	for len(s) > 0 {
		number := func(from int) int {
			end := from
			for end < len(s) && (s[end] >= '0' && s[end] <= '9' || end == from && s[end] == '-') {
				end++
			}
			v, _ := strconv.Atoi(s[from:end])
			s = s[end:]
			return v
		}
		// What has no sign in the table: joins, bends, scoops, dots and strings.
		rest := s[1:]
		switch s[0] {
		case '.':
			n.Length += n.Length / 2
		case 'h':
			n.Join = score.Hammer
		case 'p':
			n.Join = score.PullOff
		case 's':
			n.Join = score.Slide
		case '^':
			if strings.HasPrefix(rest, "q") {
				n.Bend, rest = 1, rest[1:]
			} else {
				n.Bend, rest = 2*number(1), s
			}
		case '{':
			n.Scoop, rest = number(1), s
		case '}':
			n.Scoop, rest = -number(1), s
		case '@':
			n.String, rest = number(1), s
		default:
			i := slices.IndexFunc(score.Ways, func(w score.Way) bool { return w.Lick.Mark != "" && strings.HasPrefix(s, w.Lick.Mark) })
			if i < 0 {
				return say.Errorf("%q is no way to play a note", s[:1])
			}
			w, v := score.Ways[i], 1
			if rest = s[len(w.Lick.Mark):]; w.Lick.Number == score.Count {
				v, rest = number(len(w.Lick.Mark)), s
			}
			w.Put(&n.Ornaments, v)
		}
		s = rest
	}
	return nil
}
