package musicxml

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// kinds are the format's names of chords, by the suffix Undaris writes.
var kinds = []struct{ suffix, kind string }{
	{"", "major"}, {"m", "minor"}, {"7", "dominant"}, {"maj7", "major-seventh"}, {"m7", "minor-seventh"},
	{"mMaj7", "major-minor"}, {"m7b5", "half-diminished"}, {"dim", "diminished"}, {"dim7", "diminished-seventh"},
	{"aug", "augmented"}, {"aug7", "augmented-seventh"}, {"6", "major-sixth"}, {"m6", "minor-sixth"},
	{"9", "dominant-ninth"}, {"maj9", "major-ninth"}, {"m9", "minor-ninth"}, {"11", "dominant-11th"},
	{"m11", "minor-11th"}, {"13", "dominant-13th"}, {"m13", "minor-13th"}, {"sus2", "suspended-second"},
	{"sus4", "suspended-fourth"}, {"5", "power"},
}

// symbols are chords that degrees may add up to, as they are written.
var symbols = []string{"", "m", "7", "maj7", "m7", "mMaj7", "m7b5", "dim", "dim7", "aug", "aug7", "6", "m6", "6/9", "m6/9", "9", "maj9", "m9", "11", "m11",
	"13", "maj13", "m13", "sus2", "sus4", "7sus4", "9sus4", "13sus4", "5", "add9", "madd9", "7b5", "7#5", "7b9", "7#9", "7#11", "7b13", "7b9b5", "7#9#5", "7b9#5", "7#9b5",
	"7b9b13", "9#11", "13b9", "13#11", "maj7#11", "maj7#5", "m7b5b13", "7b9#11", "m9b5", "maj7b5", "9b5", "9#5", "13#9"}

// degree is a tone of a chord that its kind does not have as it is.
type degree struct {
	value, alter int
	how          string // add, alter or subtract
}

// degreesOf are the tones of a chord by their number, with how far each is altered.
func degreesOf(c harmony.Chord) map[int]int {
	out := map[int]int{}
	for _, t := range c.Tones {
		number, alter := numbered(t.Degree)
		for hasNumber(out, number) { // both ninths: the second is kept apart
			number += 100
		}
		out[number] = alter
	}
	return out
}

func hasNumber(of map[int]int, number int) bool {
	_, has := of[number]
	return has
}

// numbered takes a degree apart: b13 is 13, altered by −1.
func numbered(d harmony.Degree) (number, alter int) {
	text := string(d)
	if text == "R" {
		return 1, 0
	}
	for strings.HasPrefix(text, "b") || strings.HasPrefix(text, "#") {
		if text[0] == 'b' {
			alter--
		} else {
			alter++
		}
		text = text[1:]
	}
	number, _ = strconv.Atoi(text)
	return number, alter
}

// kindOf is the format's kind that is nearest to a chord, and what of the chord it lacks or
// has otherwise.
func kindOf(c harmony.Chord) (kind string, degrees []degree) {
	if c.None {
		return "none", nil
	}
	wanted := degreesOf(c)
	least := 1 << 20
	for _, k := range kinds {
		base, err := harmony.Parse(c.Root.String() + k.suffix)
		if err != nil {
			continue
		}
		if d := between(degreesOf(base), wanted); len(d) < least {
			least, kind, degrees = len(d), k.kind, d
		}
	}
	return kind, degrees
}

// labelled is what is shown beside the root, and what hides the degrees: readers show label and degrees one behind the other. So
// where kind and degrees say it all, the label is that of the kind; else it is the whole, and the degrees are not to be shown.
func labelled(c harmony.Chord, kind string, degrees []degree) (label, hidden string) {
	if len(degrees) == 0 {
		return c.Suffix(), ""
	}
	for _, k := range kinds {
		if k.kind != kind {
			continue
		}
		h := harmonyXML{}
		h.Root.Step, h.Kind.Text, h.Kind.Value = "C", k.suffix, kind
		for _, d := range degrees {
			h.Degrees = append(h.Degrees, degreeXML{d.value, d.alter, d.how})
		}
		if back, ok := chordOf(&h); ok && back.String() == "C"+c.Suffix() {
			return k.suffix, ""
		}
	}
	return c.Suffix(), ` print-object="no"`
}

// between is what makes one chord of another.
func between(base, wanted map[int]int) (out []degree) {
	for _, n := range slices.Sorted(maps.Keys(wanted)) {
		was, has := base[n]
		switch {
		case !has && n%100 == 7: // counted from the minor seventh
			out = append(out, degree{7, wanted[n] + 1, "add"})
		case !has:
			out = append(out, degree{n % 100, wanted[n], "add"})
		case was != wanted[n]:
			out = append(out, degree{n % 100, wanted[n] - was, "alter"})
		}
	}
	for _, n := range slices.Sorted(maps.Keys(base)) {
		if _, has := wanted[n]; !has {
			out = append(out, degree{n % 100, 0, "subtract"})
		}
	}
	return out
}

// chordOf reads a harmony: by the text it shows, where its degrees do not say otherwise, else
// by its kind and its degrees.
func chordOf(h *harmonyXML) (harmony.Chord, bool) {
	if h.Kind.Value == "none" {
		return harmony.Chord{None: true}, true
	}
	root, ok := nameOf(h.Root.Step, h.Root.Alter)
	if !ok {
		return harmony.Chord{}, false
	}
	bass := ""
	if n, ok := nameOf(h.Bass.Step, h.Bass.Alter); ok {
		bass = "/" + n.String()
	}
	shown, err := harmony.Parse(root.String() + h.Kind.Text + bass)
	told := err == nil && (h.Kind.Text != "" || h.Kind.Value == "major")
	if told && len(h.Degrees) == 0 {
		return shown, true
	}
	for _, k := range kinds {
		if k.kind != h.Kind.Value {
			continue
		}
		base, err := harmony.Parse(root.String() + k.suffix)
		if err != nil {
			return harmony.Chord{}, false
		}
		if len(h.Degrees) == 0 {
			c, err := harmony.Parse(root.String() + k.suffix + bass)
			return c, err == nil
		}
		wanted := degreesOf(base)
		var signs []string
		for _, d := range h.Degrees {
			sign := strings.Repeat("b", max(0, -d.Alter)) + strings.Repeat("#", max(0, d.Alter)) + strconv.Itoa(d.Value)
			switch d.Type {
			case "subtract":
				delete(wanted, d.Value)
				sign = "no" + strconv.Itoa(d.Value)
			case "alter":
				wanted[d.Value] += d.Alter
			default:
				at := d.Value
				if hasNumber(wanted, at) {
					at += 100
				}
				wanted[at] = d.Alter
				if d.Value == 7 {
					wanted[at]--
				}
			}
			signs = append(signs, sign)
		}
		if told && maps.Equal(degreesOf(shown), wanted) {
			return shown, true
		}
		return spelled(root.String(), k.suffix, signs, bass, wanted)
	}
	return shown, told
}

// spelled finds a symbol for a kind with signs behind it that means just the wanted tones.
func spelled(root, suffix string, signs []string, bass string, wanted map[int]int) (harmony.Chord, bool) {
	for _, by := range []struct{ before, between string }{{"", ""}, {"add", "add"}, {"(", ","}} {
		text := root + suffix
		for i, s := range signs {
			switch {
			case strings.HasPrefix(s, "no"):
				text += s
			case i == 0:
				text += by.before + s
			default:
				text += by.between + s
			}
		}
		if by.before == "(" {
			text += ")"
		}
		if c, err := harmony.Parse(text + bass); err == nil && maps.Equal(degreesOf(c), wanted) {
			return c, true
		}
	}
	for _, suffix := range symbols {
		if c, err := harmony.Parse(root + suffix + bass); err == nil && maps.Equal(degreesOf(c), wanted) {
			return c, true
		}
	}
	return harmony.Chord{}, false
}

const steps = "CDEFGAB"

func nameOf(step string, alter float64) (pitch.Name, bool) {
	for i := range steps {
		if step == steps[i:i+1] && alter == float64(int(alter)) && alter >= -2 && alter <= 2 {
			return pitch.Name{Letter: i, Alter: int(alter)}, true
		}
	}
	return pitch.Name{}, false
}
