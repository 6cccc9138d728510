package form

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

// Facts of transposing instruments and capos, and over every key: what is written lies where
// it should, chord for chord, and has a signature of six at most.
func TestReadings(t *testing.T) {
	for _, c := range []struct{ reading, key, want string }{
		{"concert", "Bb", "Bb"}, {"bb", "Bb", "C"}, {"bb", "C", "D"}, {"bb", "E", "F#"}, {"eb", "C", "A"}, {"eb", "Bb", "G"}, {"eb", "Am", "F#m"},
		{"capo-3", "Bb", "G"}, {"capo-2", "A", "G"}, {"capo-1", "F", "E"}, {"bb", "Gm", "Am"},
	} {
		r, err := ReadingByID(c.reading)
		require.NoError(t, err)
		assert.Equal(t, c.want, r.Key(mustKey(t, c.key)).String(), "%s in %s", c.key, c.reading)
	}
	_, err := ReadingByID("tuba")
	assert.Error(t, err)
	for _, r := range Readings {
		for _, f := range Forms {
			for _, tonic := range pitch.Roots {
				k := Key{Tonic: tonic, Minor: f.Minor}
				p := f.In(k)
				w := r.Chords(p, k)
				require.LessOrEqual(t, r.Key(k).Signature()*r.Key(k).Signature(), 49)
				for i, place := range w.Places() {
					was := p.Places()[i]
					require.Equal(t, pitch.Class(was.Chord.Root.Class()+r.Up), place.Chord.Root.Class(), "%s in %s, %s", f.ID, k, r.ID)
					require.Equal(t, Numeral(was.Chord, k), Numeral(place.Chord, r.Key(k)))
				}
			}
		}
	}
}
