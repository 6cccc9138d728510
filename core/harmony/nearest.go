package harmony

import (
	"regexp"
	"strings"
	"unicode/utf8"

	"undaris/core/pitch"
)

// usual are the suffixes offered when a symbol cannot be read, commonest first.
var usual = []string{
	"7", "", "m7", "m", "maj7", "6", "m6", "9", "13", "m7b5", "dim7", "dim", "aug", "7#9", "7b9", "7#5", "7b5",
	"sus4", "7sus4", "m9", "maj9", "11", "6/9", "sus2", "9sus4", "add9", "madd9", "m11", "m13", "7alt", "7#11",
	"mmaj7", "5", "min7", "min", "maj",
}

// nearest finds the readable symbol with the fewest edits from text.
func nearest(text string) string {
	base, slash, hasSlash := strings.Cut(text, "/")
	root, size, ok := pitch.ReadName(base)
	switch {
	case !ok:
		if root, size, ok = likelyRoot(base); !ok {
			return "" // on another root it would be another chord
		}
	case root.Alter < -1 || root.Alter > 1:
		root.Alter = 0
	}
	rest := base[min(size, len(base)):]
	if c, stop := read(root.String() + rest); stop < 0 {
		base = c.String()
	} else {
		// Farther away than half of what was written it is no reading but a guess,
		// and one with another third or seventh is another chord.
		best, suffix := len([]rune(rest))/2+2, ""
		found := false
		for _, s := range usual {
			if d := edits(rest, s); d < best && d < max(1, utf8.RuneCountInString(rest)) && meant(rest).agrees(s) {
				best, suffix, found = d, s, true
			}
		}
		if !found {
			return ""
		}
		base = root.String() + suffix
		if c, stop := read(base); stop < 0 {
			base = c.String()
		}
	}
	if bass, n, ok := pitch.ReadName(slash); hasSlash && ok && n == len(slash) && bass.Alter >= -1 && bass.Alter <= 1 {
		return base + "/" + bass.String()
	}
	return base
}

// intent is what a suffix that cannot be read still says of third and seventh.
type intent struct{ minor, majorSeventh, diminished, seventh bool }

var (
	saysMinor  = regexp.MustCompile(`^(?:m(?:$|[^aAj])|mi|Mi|MI|[-−])`)
	saysMajor  = regexp.MustCompile(`(?i:maj|ma|mj)|M(?:$|[^iI])|[Δ△]`)
	saysDim    = regexp.MustCompile(`^(?:dim|o|°|º|ø|Ø)`)
	saysNumber = regexp.MustCompile(`7|9|11|13`)
)

func meant(rest string) intent {
	return intent{saysMinor.MatchString(rest), saysMajor.MatchString(rest), saysDim.MatchString(rest), saysNumber.MatchString(rest)}
}

// agrees tells that a suffix has the third and the seventh that were meant.
func (i intent) agrees(suffix string) bool {
	c, stop := read("C" + suffix)
	if stop >= 0 {
		return false
	}
	minor := c.HasDegree("b3")
	switch {
	case i.diminished:
		return c.HasDegree("b3") && c.HasDegree("b5")
	case i.minor != minor && (i.minor || minor):
		return false
	case i.majorSeventh && i.seventh:
		return c.HasDegree("7")
	}
	return !c.HasDegree("7") || i.majorSeventh
}

// likelyRoot guesses the root of a text that does not begin with one, and how
// many of its bytes that takes.
func likelyRoot(text string) (root pitch.Name, size int, ok bool) {
	upper := strings.ToUpper(text[:min(1, len(text))])
	if upper == "H" { // B natural in some countries
		return pitch.Name{Letter: 6}, 1, true
	}
	if len(text) > 0 {
		root, size, ok = pitch.ReadName(upper + text[1:])
	}
	return root, size, ok && root.Alter >= -1 && root.Alter <= 1
}

// edits is the Levenshtein distance, in runes, with neighbours swapped as one.
func edits(a, b string) int {
	x, y := []rune(a), []rune(b)
	if len(x) > 32 {
		x = x[:32] // no chord suffix is longer; keeps hostile input cheap
	}
	d := make([][]int, len(x)+1)
	for i := range d {
		d[i] = make([]int, len(y)+1)
		d[i][0] = i
	}
	for j := range y {
		d[0][j+1] = j + 1
	}
	for i := range x {
		for j := range y {
			cost := 1
			if x[i] == y[j] {
				cost = 0
			}
			d[i+1][j+1] = min(d[i][j+1]+1, d[i+1][j]+1, d[i][j]+cost)
			if i > 0 && j > 0 && x[i] == y[j-1] && x[i-1] == y[j] {
				d[i+1][j+1] = min(d[i+1][j+1], d[i-1][j-1]+1)
			}
		}
	}
	return d[len(x)][len(y)]
}

// extended are the suffixes that a chord with extensions is written with, the plainest first.
var extended = []string{
	"9", "13", "7b9", "7#9", "11", "7#11", "7b13", "m9", "m11", "m13", "maj9", "maj13", "maj7#11", "6/9", "m6/9", "add9", "madd9", "6", "m6",
	"9sus4", "13sus4", "13b9", "13#9", "13#11", "9#11", "7b9b13", "7#9b13", "7alt", "m7b5b9", "m11b5", "mmaj9",
}

// With is the plainest chord that holds the tones of this one and the degrees given as well; ok is false where there is none
// that is written in one symbol.
func (c Chord) With(degrees ...Degree) (with Chord, ok bool) {
	best := 1 << 10
	for _, suffix := range extended {
		x, err := Parse(c.Root.String() + suffix)
		if err != nil {
			continue
		}
		holds := func(class int) bool { _, is := x.ToneAt(class); return is }
		fits := true
		for _, t := range c.Tones {
			fits = fits && x.HasDegree(t.Degree) // a third stays a third
		}
		for _, d := range degrees {
			i, known := d.Interval()
			fits = fits && known && holds(pitch.Class(c.Root.Class()+i.HalfSteps))
		}
		if fits && len(x.Tones) < best {
			with, ok, best = x, true, len(x.Tones)
		}
	}
	return with, ok
}
