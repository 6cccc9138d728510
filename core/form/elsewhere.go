package form

import (
	"regexp"
	"strings"

	"undaris/core/harmony"
)

// Names of notes from elsewhere: German and Nordic ones, in which H is the note below C and B the one below that, and the
// syllables of Romance countries.
var (
	chordWord = regexp.MustCompile(`[^\s|()/:\[\]]+`)
	germanic  = regexp.MustCompile(`^(Cis|Dis|Eis|Fis|Gis|Ais|His|Ces|Des|Es|Fes|Ges|As|Hes|[HB])(.*)$`)
	romance   = regexp.MustCompile(`^(Do|R[eé]|Mi|Fa|Sol|La|Si)([#♯b♭]?)(.*)$`)
)

var germanNames = map[string]string{"Cis": "C#", "Dis": "D#", "Eis": "E#", "Fis": "F#", "Gis": "G#", "Ais": "A#", "His": "B#",
	"Ces": "Cb", "Des": "Db", "Es": "Eb", "Fes": "Fb", "Ges": "Gb", "As": "Ab", "Hes": "Bb", "H": "B", "B": "Bb"}

var syllables = map[string]string{"Do": "C", "Re": "D", "Ré": "D", "Mi": "E", "Fa": "F", "Sol": "G", "La": "A", "Si": "B"}

func readable(symbol string) bool {
	_, err := harmony.Parse(symbol)
	return err == nil
}

// fromGerman is a chord in German names as it is written here.
func fromGerman(word string) (symbol, root string, ok bool) {
	m := germanic.FindStringSubmatch(word)
	if m == nil || !readable("C"+m[2]) {
		return "", "", false
	}
	if m[1] == "B" && strings.IndexAny(m[2], "b#♭♯") == 0 {
		return word, m[1], true
	}
	return germanNames[m[1]] + m[2], m[1], true
}

// FromElsewhere rewrites a text whose chords have German names or syllables; ok is false where they are known by nothing: for
// German by H, or a flat or a sharp that is a syllable; for syllables by two of them and no chord in letters.
func FromElsewhere(text string) (rewritten string, ok bool) {
	german, letters, heard := 0, 0, map[string]bool{}
	for _, word := range chordWord.FindAllString(text, -1) {
		if _, root, is := fromGerman(word); is && root != "B" {
			german++
		}
		if m := romance.FindStringSubmatch(word); m != nil && readable("C"+m[3]) {
			heard[m[1]] = true
		} else if readable(word) {
			letters++
		}
	}
	switch {
	case german > 0:
		return chordWord.ReplaceAllStringFunc(text, func(word string) string {
			if symbol, _, is := fromGerman(word); is {
				return symbol
			}
			return word
		}), true
	case len(heard) > 1 && letters == 0:
		return chordWord.ReplaceAllStringFunc(text, func(word string) string {
			if m := romance.FindStringSubmatch(word); m != nil && readable("C"+m[3]) {
				return syllables[m[1]] + strings.NewReplacer("♯", "#", "♭", "b").Replace(m[2]) + m[3]
			}
			return word
		}), true
	}
	return text, false
}
