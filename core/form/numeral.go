package form

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

var romans = []string{"I", "II", "III", "IV", "V", "VI", "VII"}

// scaleSteps are the major scale's intervals; numerals count from it in minor too.
var scaleSteps = []pitch.Interval{{}, {Letters: 1, HalfSteps: 2}, {Letters: 2, HalfSteps: 4}, {Letters: 3, HalfSteps: 5},
	{Letters: 4, HalfSteps: 7}, {Letters: 5, HalfSteps: 9}, {Letters: 6, HalfSteps: 11}}

// spelled is how a root so many half steps above the tonic is written as a
// numeral: step 0–6 and alteration. Between the steps flats are the custom.
var spelled = [12]struct{ step, alter int }{
	{0, 0}, {1, -1}, {1, 0}, {2, -1}, {2, 0}, {3, 0}, {3, 1}, {4, 0}, {5, -1}, {5, 0}, {6, -1}, {6, 0},
}

// risen is the same where a diminished chord climbs: ♯I°, ♯II°, ♯IV°, ♯V°.
var risen = map[int]struct{ step, alter int }{1: {0, 1}, 3: {1, 1}, 6: {3, 1}, 8: {4, 1}}

// ofStep is another step behind a stroke, that the first is of.
var ofStep = regexp.MustCompile(`^[b#♭♯]?(?:[IV]+|[iv]+)$`)

// ReadNumeral reads a numeral in a key: "I7", "bVI7", "ii7", "#IV°7", "I7/3", "V7/ii".
// Lower case is a minor third. A slash names a degree of the chord, or the step that it is of. Roots that
// nobody writes chords on (E♯, C♭, doubles) take their simpler name.
func ReadNumeral(text string, key Key) (harmony.Chord, error) {
	if text == "N.C." {
		return harmony.Chord{None: true}, nil
	}
	if i := strings.LastIndex(text, "/"); i > 0 && ofStep.MatchString(text[i+1:]) { // V7/ii: the five of the two
		of, err := ReadNumeral(text[i+1:], key)
		if err != nil {
			return of, err
		}
		return ReadNumeral(text[:i], Key{Tonic: of.Root})
	}
	refuse := say.Errorf("%q is no numeral; write I to VII, b or # before it, the kind of chord behind it, such as bVI7", text)
	rest, alter := text, 0
	for {
		if s, ok := cutAny(rest, "b", "♭"); ok {
			rest, alter = s, alter-1
		} else if s, ok := cutAny(rest, "#", "♯"); ok {
			rest, alter = s, alter+1
		} else {
			break
		}
	}
	step, minor := -1, false
	for i := len(romans) - 1; i >= 0; i-- {
		for _, lower := range []bool{false, true} {
			r := romans[i]
			if lower {
				r = strings.ToLower(r)
			}
			if strings.HasPrefix(rest, r) && (step < 0 || len(r) > len(romans[step])) {
				step, minor = i, lower
			}
		}
	}
	if step < 0 || alter < -1 || alter > 1 {
		return harmony.Chord{}, refuse
	}
	suffix := rest[len(romans[step]):]
	bass := ""
	if i := strings.LastIndex(suffix, "/"); i >= 0 && !(suffix[i:] == "/9" && strings.HasSuffix(suffix[:i], "6")) {
		suffix, bass = suffix[:i], suffix[i+1:]
	}
	if _, said := cutAny(suffix, "ø", "°", "o", "dim"); minor && !said && (!strings.HasPrefix(suffix, "m") || strings.HasPrefix(suffix, "ma")) {
		suffix = "m" + suffix // iim7 says it already
	}
	c, err := harmony.Parse("C" + suffix)
	if err != nil {
		return harmony.Chord{}, refuse
	}
	i := scaleSteps[step]
	i.HalfSteps += alter
	c = c.On(writable(key.Tonic.Up(i)))
	if bass != "" {
		d := harmony.Degree(strings.NewReplacer("♭", "b", "♯", "#").Replace(bass))
		i, ok := cmp.Or(basses[d], d).Interval()
		if !ok {
			return harmony.Chord{}, refuse
		}
		c.Bass = writable(c.Root.Up(i))
	}
	return c, nil
}

func cutAny(s string, prefixes ...string) (string, bool) {
	for _, p := range prefixes {
		if rest, ok := strings.CutPrefix(s, p); ok {
			return rest, true
		}
	}
	return s, false
}

// writable keeps the names chords are written on and simplifies the others.
func writable(n pitch.Name) pitch.Name {
	if slices.Contains(pitch.Roots, n) {
		return n
	}
	return n.Simpler()
}

// Numeral writes a chord as a numeral of the key, in plain letters: "bVI7",
// "ii7", "#IVdim7". Minor chords are in lower case, diminished ones are not.
func Numeral(c harmony.Chord, key Key) string {
	if c.None {
		return c.String()
	}
	up := pitch.Class(c.Root.Class() - key.Tonic.Class())
	place := spelled[up]
	climbs := c.Diminished() || (up == 6 && c.HasDegree("b5"))
	if r, ok := risen[up]; ok && climbs {
		place = r
	}
	if up == 6 && !climbs && key.Tonic.To(c.Root).Letters == 4 {
		place.step, place.alter = 4, -1
	}
	roman, suffix := romans[place.step], c.Suffix()
	if c.Minor() && !strings.HasPrefix(suffix, "dim") {
		roman, suffix = strings.ToLower(roman), strings.TrimPrefix(suffix, "m")
	}
	s := []string{"b", "", "#"}[place.alter+1] + roman + suffix
	if c.Slash() {
		s += "/" + bassDegree(c)
	}
	return s
}

// basses are the plain names of the degrees that a bass has when it is no tone
// of its chord.
var basses = map[harmony.Degree]harmony.Degree{"b2": "b9", "2": "9", "4": "11", "b6": "b13"}

// bassDegree names a slash bass as a degree: the chord's own tone if it is one.
func bassDegree(c harmony.Chord) string {
	if t, ok := c.ToneAt(c.Bass.Class()); ok {
		return string(t.Degree)
	}
	names := []string{"R", "b2", "2", "b3", "3", "4", "b5", "5", "b6", "6", "b7", "7"}
	return names[c.Above(c.Bass.Class())]
}

// Transpose moves the progression from one key to another by its numerals, so
// that every chord is spelled as the new key would have it.
func (p Progression) Transpose(from, to Key) Progression {
	out := Progression{Beats: p.Beats, Bars: slices.Clone(p.Bars), Pickup: Pickup{p.Pickup.Beats, transposed(p.Pickup.Changes, from, to)}}
	for i, b := range p.Bars {
		out.Bars[i].Changes = transposed(b.Changes, from, to)
	}
	return out
}

func transposed(list []Change, from, to Key) (out []Change) {
	for _, ch := range list {
		moved, err := ReadNumeral(Numeral(ch.Chord, from), to)
		if err != nil { // every printed numeral can be read; a property test holds it
			moved = ch.Chord.On(writable(to.Tonic.Up(from.Tonic.To(ch.Chord.Root))))
		}
		out = append(out, Change{ch.Beat, moved})
	}
	return out
}
