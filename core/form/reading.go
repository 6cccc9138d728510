package form

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"undaris/core/pitch"
	"undaris/core/say"
)

// Reading is the pitch in which players read a tune: what is written lies so many half steps
// above what sounds.
type Reading struct {
	ID, Name, About string
	Up              int
}

// Readings lists them: as it sounds; for B♭ instruments (a clarinet, a trumpet, a tenor an
// octave lower) a whole step above; for those in F (a horn, a cor anglais) a fifth above; for E♭ ones (alto and baritone) a major sixth above; and
// the shapes behind a capo, below.
var Readings = append([]Reading{
	{"concert", "concert", "as it sounds", 0},
	{"bb", "B♭", "for trumpet, clarinet, tenor saxophone: written a whole step above", 2},
	{"f", "F", "for horn and cor anglais: written a fifth above", 7},
	{"eb", "E♭", "for alto and baritone saxophone: written a major sixth above", 9},
}, capos()...)

// highestCapo is the highest fret a capo is read at.
const highestCapo = 11

func capos() (out []Reading) {
	for fret := 1; fret <= highestCapo; fret++ {
		out = append(out, Reading{say.F("capo-%d", fret), say.F("capo %d", fret), say.F("the shapes to play with a capo at fret %d", fret), -fret})
	}
	return out
}

// ReadingByID finds a reading; as it sounds by no name.
func ReadingByID(id string) (Reading, error) {
	if id == "" {
		return Readings[0], nil
	}
	i := slices.IndexFunc(Readings, func(r Reading) bool { return r.ID == id })
	if i < 0 {
		return Reading{}, say.Errorf("nobody reads in %q", id)
	}
	return Readings[i], nil
}

// Key is the key that is written where a key sounds; with the fewest accidentals.
func (r Reading) Key(k Key) Key {
	if r.Up == 0 {
		return k
	}
	class := pitch.Class(k.Tonic.Class() + r.Up)
	all := AllKeys(k.Minor)
	return all[slices.IndexFunc(all, func(w Key) bool { return w.Tonic.Class() == class })]
}

// Chords are a progression as it is written.
func (r Reading) Chords(p Progression, k Key) Progression {
	if r.Up == 0 {
		return p
	}
	return p.Transpose(k, r.Key(k))
}

// maxTranspose is how many half steps a text may ask for.
const maxTranspose = 24

// digit is the fret in "3", "3rd fret", "fret 3", "III".
var digit = regexp.MustCompile(`\d{1,2}`)

var romanFrets = []string{"", "I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X", "XI", "XII"}

// capo reads a capo: the chords are the shapes behind it, and sound so many half steps above.
func (r *textReader) capo(value string) {
	fret, err := strconv.Atoi(digit.FindString(value))
	if at := slices.Index(romanFrets, strings.TrimSpace(value)); at > 0 {
		fret, err = at, nil
	}
	switch low := strings.ToLower(value); {
	case err != nil && (low == "none" || low == "no"), err == nil && fret == 0:
	case err != nil:
		r.unreadable("capo", value)
	case fret > highestCapo:
		r.note("line %d: a capo at fret %d is beyond fret %d; the chords are charted as they are written", r.at, fret, highestCapo)
	default:
		r.found.Up += fret
		r.found.Reading = say.F("capo-%d", fret)
		r.note("with a capo at fret %d: the chords are the shapes behind it, and sound %s", fret, moved(fret))
	}
}

// moved says a number of half steps.
func moved(n int) string {
	way := "up"
	if n < 0 {
		way, n = "down", -n
	}
	if n == 1 {
		return "1 half step " + way
	}
	return say.F("%d half steps %s", n, way)
}

// Sounding is a song as it sounds that is written in a key, where the text tells that it sounds elsewhere, and that key.
func (f Found) Sounding(s Song, written Key) (Song, Key) {
	as := Reading{Up: f.Up}
	if f.Up%12 == 0 {
		return s, written
	}
	key := as.Key(written)
	return s.With(s.Flat().Transpose(written, key)), key
}

// Capo is the fret that a reading has its capo at; 0 where it is none.
func (r Reading) Capo() int { return max(0, -r.Up) }

// Song is a song and its key as a reading has them: behind a capo the shapes, in other readings what is written for them.
func (r Reading) Song(s Song, k Key) (Song, Key) {
	if r.Up == 0 {
		return s, k
	}
	key := r.Key(k)
	return s.With(s.Flat().Transpose(k, key)), key
}
