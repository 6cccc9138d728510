package form

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/pitch"
)

// Every form and vamp, with every turnaround of its mode, in all keys: the guessed key is
// the one it is in, and the reasons and a second best are there.
func TestTheKeyIsGuessed(t *testing.T) {
	right, all := 0, 0
	for _, f := range Forms {
		for _, tonic := range pitch.Roots {
			key := Key{Tonic: tonic, Minor: f.Minor}
			songs := []Progression{f.In(key)}
			for _, u := range Turnarounds {
				if u.Minor == f.Minor && len(songs[0].Bars) > 4 {
					songs = append(songs, f.In(key).ReplaceEnd(u.In(key)))
				}
			}
			for _, p := range songs {
				got := GuessKeys(p)
				require.Len(t, got, 24)
				require.NotEmpty(t, got[0].Why)
				require.GreaterOrEqual(t, got[0].Sure, got[1].Sure)
				all++
				if got[0].Key.Tonic.Class() == key.Tonic.Class() && got[0].Key.Minor == key.Minor {
					right++
				} else {
					t.Logf("%s in %s was guessed %s (%s)", f.ID, key, got[0].Key, got[0].Why)
				}
			}
		}
	}
	t.Logf("%d of %d", right, all)
	assert.Greater(t, all, 200)
	assert.GreaterOrEqual(t, float64(right)/float64(all), 0.95)
}

func TestKnownGuesses(t *testing.T) {
	for text, want := range map[string]string{
		"| A7 | D7 | A7 | E7 |":                        "A",
		"| D7 | D7 | A7 | A7 |\n| E7 | D7 | A7 | E7 |": "A",
		"| Em | C | D | Em |":                          "Em",
		"| Am | Dm | E7 | Am |":                        "Am",
		"| G | D | Em | C |":                           "G",
		"| Bm7b5 | E7 | Am7 | Am7 |":                   "Am",
		"| Bb7 | Eb7 | Bb7 | F7 |":                     "Bb",
		"| Dm7 | G7 | Cmaj7 | Am7 |":                   "C",
		"| E5 | G5 | A5 | E5 |":                        "E",
		"| F#m | D | E | F#m |":                        "F#m",
	} {
		p, err := Read(text, 4, Key{})
		require.NoError(t, err)
		got := GuessKeys(p)
		assert.Equal(t, want, got[0].Key.String(), text)
	}
	cadence, err := Read("| Dm7 | G7 | Cmaj7 | Am7 |", 4, Key{})
	require.NoError(t, err)
	assert.Contains(t, GuessKeys(cadence)[0].Why, "its two and five go to its one")
	assert.Empty(t, GuessKeys(Progression{Beats: 4}))
	p, err := Read("| A7 | D7 | A7 | E7 |", 4, Key{})
	require.NoError(t, err)
	assert.Equal(t, "A7 begins, E7 leads back to the top, every chord belongs", GuessKeys(p)[0].Why)
	assert.NotEmpty(t, strings.TrimSpace(GuessKeys(p)[1].Why))
}
