package charttext

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/form"
	"undaris/core/pitch"
)

// Behind a capo a text has the shapes, as such texts do, and comes back as it sounds.
func TestACapoComesBack(t *testing.T) {
	for i, f := range form.Forms {
		for j, tonic := range pitch.Roots {
			for k, as := range form.Readings {
				if (i+j+k)%5 > 0 {
					continue // each with each of the others' entries, not all three at once
				}
				key := form.Key{Tonic: tonic, Minor: f.Minor}
				song := form.Song{}.With(f.In(key))
				song.Pickup = form.Pickup{Beats: 1, Changes: song.Bars[0].Changes[:1]}
				reading := as.ID
				if as.Up == 0 {
					reading = ""
				}
				c := Chart{Title: "Low Water", Key: key, Tempo: 96, Feel: form.Feels[0], Song: song, Beside: form.Beside{Reading: reading}}
				for name, write := range map[string]func(Chart) []byte{"text": Write, "ChordPro": WriteChordPro} {
					text := string(write(c))
					written, err := form.ParseKey(as.Key(key).String())
					require.NoError(t, err)
					if as.Capo() == 0 {
						written = key
					}
					back, found, err := form.ReadSong(text, song.Beats, written)
					require.NoError(t, err, text)
					assert.Equal(t, written.String(), found.Key, name)
					assert.Equal(t, reading, found.Reading, name)
					assert.Equal(t, as.Capo(), found.Up, name)
					sounds, at := found.Sounding(back, written)
					assert.Equal(t, key.Tonic.Class(), at.Tonic.Class(), name)
					for i, place := range sounds.Flat().Places() {
						assert.Equal(t, song.Flat().Places()[i].Chord.Root.Class(), place.Chord.Root.Class())
						assert.Equal(t, song.Flat().Places()[i].Chord.Suffix(), place.Chord.Suffix())
					}
					assert.Equal(t, song.Pickup.Beats, sounds.Pickup.Beats)
				}
			}
		}
	}
}

// Every form in every key, and songs with every sign, leave as text and come back: bars,
// order, title, key, tempo and metre.
func TestChartsComeBack(t *testing.T) {
	texts := []string{"|: A7 |1. D7 :|2. E7 |\n| [Bridge] F#m | B7 fine | E7 D.C. al Fine |", "| segno A7 to coda | D7 | D.S. al Coda |\n| [Coda] E7 |", "|: A7 . . D7 | N.C. :| x3 |"}
	for _, f := range form.Forms {
		texts = append(texts, f.Text)
	}
	for _, text := range texts {
		for _, tonic := range pitch.Roots {
			for _, beats := range []int{4, 5} {
				key := form.Key{Tonic: tonic}
				song, _, err := form.ReadSong(text, beats, key)
				if err != nil {
					require.Equal(t, 5, beats, text) // its beats are written out in fours
					continue
				}
				c := Chart{"Harbour  Round {live}", key, 104, form.Feels[beats%len(form.Feels)], song, []form.Beside{{}, {Swing: 62, Remarks: "softly at first\nbar 5: the organ alone", Tags: "slow, minor", Intro: "five", Ending: "half-step"}}[beats%2]}
				for name, write := range map[string]func(Chart) []byte{"text": Write, "ChordPro": WriteChordPro} {
					back, found, err := form.ReadSong(string(write(c)), beats, key)
					require.NoError(t, err, "%s as %s", text, name)
					assert.Equal(t, song, back, "%s as %s", text, name)
					assert.Equal(t, []any{key.String(), 104, c.Beside, c.Feel.ID, beats}, []any{found.Key, found.Tempo, found.Beside, found.Feel, found.Beats}, name)
					assert.Contains(t, found.Title, "Harbour Round")
					assert.Empty(t, found.Said)
				}
			}
		}
	}
}
