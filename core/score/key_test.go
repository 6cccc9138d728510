package score

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"undaris/core/form"
	"undaris/core/pitch"
)

func TestTheKeyOfAMelodyIsGuessed(t *testing.T) {
	// Half steps above the tonic, with lengths in eighths.
	for name, melody := range map[string]struct {
		notes [][2]int
		minor bool
	}{
		"box lick":      {[][2]int{{12, 1}, {10, 1}, {7, 1}, {5, 1}, {3, 1}, {4, 1}, {0, 4}}, false},
		"sixths":        {[][2]int{{7, 1}, {9, 1}, {12, 2}, {16, 1}, {14, 1}, {12, 1}, {9, 1}, {7, 2}, {0, 3}}, false},
		"minor descent": {[][2]int{{12, 2}, {10, 1}, {8, 1}, {7, 2}, {5, 1}, {3, 1}, {2, 1}, {3, 1}, {0, 4}}, true},
	} {
		for _, tonic := range pitch.Roots {
			k := form.Key{Tonic: tonic, Minor: melody.minor}
			var notes []Note
			now := 0
			for _, n := range melody.notes {
				midi := 48 + tonic.Class() + n[0]
				notes = append(notes, Note{Start: now, Length: n[1] * 480, Pitch: pitch.At(midi, k.Spell(midi%12))})
				now += n[1] * 480
			}
			got := GuessKey(notes)
			assert.Equal(t, []any{k.Tonic.Class(), k.Minor}, []any{got.Tonic.Class(), got.Minor}, "%s in %s: %s", name, k, got)
			assert.LessOrEqual(t, max(got.Signature(), -got.Signature()), 6, "%s", got)
		}
	}
	assert.Equal(t, form.Key{}, GuessKey(nil))
}
