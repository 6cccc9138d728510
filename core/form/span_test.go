package form

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The spans of every form: the last two bars lead into the first, and each
// progression of fourths through a dominant chord is there once.
func TestSpansOfForms(t *testing.T) {
	for _, f := range Forms {
		for _, tonic := range []string{"C", "F#", "Bb"} {
			key, err := ParseKey(tonic)
			require.NoError(t, err)
			key.Minor = f.Minor
			p, err := Read(f.Text, 4, key)
			require.NoError(t, err, f.ID)
			for _, s := range p.Spans(key) {
				require.Greater(t, len(s.Chords), 1, f.ID)
				for i := 1; i < len(s.Chords); i++ {
					require.NotEqual(t, s.Chords[i-1].String(), s.Chords[i].String())
				}
				if s.Name == "the last two bars" {
					assert.Equal(t, len(p.Bars)-2, s.Bar, f.ID)
					continue
				}
				assert.Len(t, s.Chords, 3)
				assert.True(t, s.Chords[0].Minor() && s.Chords[1].Dominant() && fourthUp(s.Chords[0], s.Chords[1]) && fourthUp(s.Chords[1], s.Chords[2]), s.Name)
			}
		}
	}
	key := Key{Tonic: mustKey(t, "C").Tonic}
	p, err := Read("| Cmaj7 | Dm7 G7 | Cmaj7 | Am7 D7 | G7 |", 4, key)
	require.NoError(t, err)
	var names []string
	for _, s := range p.Spans(key) {
		names = append(names, s.Name)
	}
	assert.Equal(t, []string{"the last two bars", "ii7–V7–Imaj7", "vi7–II7–V7"}, names)
	alone, err := Read("| C7 | C7 |", 4, key)
	require.NoError(t, err)
	assert.Empty(t, alone.Spans(key))
	assert.Empty(t, Progression{Beats: 4}.Spans(key))
}
