package musicxml

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/score"
)

// A song leaves as it is written, and comes back so: repeats, endings, segno, coda, fine, jumps,
// sections and metres; and its bars are played in the same order.
func TestASongComesBackAsItIsWritten(t *testing.T) {
	for _, text := range []string{
		"|: A7 | D7 :| E7 |",
		"|: A7 | 1. D7 :| 2. E7 | A7 |",
		"|: A7 | 1.2. D7 :| 3. E7 |",
		"|: A7 | D7 :| x4 | E7 |",
		"|: A7 | 1. D7 | E7 :| 2. F#m7 | B7 |\n| [Bridge] D7 | E7 |",
		"| A7 | segno D7 | E7 to coda | F#m7 D.S. al Coda | coda B7 | E7 |",
		"| A7 | D7 fine | E7 | F#m7 D.C. al Fine |",
		"| segno A7 | D7 | E7 D.S. |",
		"| 1/4 E7 |: 4/4 [Verse] A7 | 2/4 D7 | 1. 3/4 E7 :| 2. 4/4 A7 . . E7 |",
		"|: A7 :|: D7 :|: E7 :|",
		"| A7 | D7 |",
	} {
		key, err := form.ParseKey("A")
		require.NoError(t, err)
		song, _, err := form.ReadSong(text, 4, key)
		require.NoError(t, err, text)
		var signs []form.Signs
		for _, w := range song.Bars {
			signs = append(signs, w.Signs)
		}
		f, err := Read(t.Context(), WriteSong(score.Score{Title: "Song", Key: key, Tempo: 96, Progression: song.Flat(), In: neck.Standard()}, signs, form.Beside{}))
		require.NoError(t, err, text)
		require.NotNil(t, f.Song)
		assert.Equal(t, song.Text(), f.Song.Text(), text)
		assert.Equal(t, song.Order(), f.Song.Order(), text)
		assert.Len(t, f.Bars, len(song.Play(form.MaxBars).Bars), text)
	}
}
