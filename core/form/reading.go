package form

import (
	"slices"

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
const highestCapo = 9

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
