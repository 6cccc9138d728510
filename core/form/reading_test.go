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

// A capo has the chords sound above the shapes, a transposition moves them: in every key, however they are written.
func TestWhatSoundsElsewhereThanItIsWritten(t *testing.T) {
	for text, want := range map[string]struct {
		up      int
		reading string
	}{
		"Capo: 3": {3, "capo-3"}, "capo = 3rd fret": {3, "capo-3"}, "{capo: 2}": {2, "capo-2"}, "Capo: V": {5, "capo-5"}, "{capo: none}": {}, "Capo: 0": {},
		"{transpose: 2}": {2, ""}, "{transpose: -3}": {-3, ""}, "{transpose: +1}": {1, ""}, "{capo: 2}\n{transpose: 1}": {3, "capo-2"},
		"Reading: bb": {0, "bb"}, "{x_reading: eb}": {0, "eb"}, "Reading: concert": {},
		"Capo: 12": {}, "Capo: high": {}, "{transpose: a lot}": {}, "{transpose: 99}": {}, "Reading: in the bath": {},
	} {
		for _, key := range append(AllKeys(false), AllKeys(true)...) {
			p := Forms[0].In(Key{Tonic: key.Tonic, Minor: key.Minor})
			song, found := readIn(t, text+"\n"+p.Text(), key)
			require.Equal(t, want.up, found.Up, text)
			require.Equal(t, want.reading, found.Reading, text)
			sounds, at := found.Sounding(song, key)
			require.Equal(t, pitch.Class(key.Tonic.Class()+want.up), at.Tonic.Class(), text)
			require.Equal(t, key.Minor, at.Minor)
			for i, place := range sounds.Flat().Places() {
				was := song.Flat().Places()[i]
				require.Equal(t, pitch.Class(was.Chord.Root.Class()+want.up), place.Chord.Root.Class(), text)
				require.Equal(t, was.Chord.Suffix(), place.Chord.Suffix())
			}
			if as, err := ReadingByID(found.Reading); err == nil && as.Capo() == want.up && want.up > 0 {
				shapes, back := as.Song(sounds, at)
				require.Equal(t, key.Tonic.Class(), back.Tonic.Class())
				for i, place := range shapes.Flat().Places() {
					require.Equal(t, song.Flat().Places()[i].Chord.Root.Class(), place.Chord.Root.Class(), "the shapes are those that were written")
				}
			}
		}
	}
	for _, text := range []string{"Capo: 12", "Capo: high", "{transpose: a lot}", "{transpose: 99}", "Reading: in the bath"} {
		_, found := readIn(t, text+"\n| C7 |", Key{})
		require.Len(t, found.Said, 1, "what cannot be kept is told: %s", text)
	}
}

func readIn(t *testing.T, text string, key Key) (Song, Found) {
	s, found, err := ReadSong(text, 4, key)
	require.NoError(t, err, text)
	return s, found
}
