// Package charttext writes charts as text: as Undaris reads it, and in ChordPro, the open
// format of song sheets. Both are read again by [undaris/core/form.ReadSong].
package charttext

import (
	"fmt"
	"strings"

	"undaris/core/form"
)

// Chart is what a text says.
type Chart struct {
	Title string
	Key   form.Key
	Tempo int // beats a minute
	Swing int // percent; 0 follows the tempo
	Feel  form.Feel
	Song  form.Song
}

// Write writes a chart as plain text: what it is, then its bars.
func Write(c Chart) []byte {
	swing := ""
	if c.Swing > 0 {
		swing = fmt.Sprintf("Swing: %d\n", c.Swing)
	}
	return fmt.Appendf(nil, "Title: %s\nKey: %s\nTempo: %d\nFeel: %s\n%sTime: %d/4\n\n%s\n", line(c.Title), c.Key, c.Tempo, c.Feel.Name, swing, c.Song.Beats, c.Song.Text())
}

// WriteChordPro writes it as a ChordPro song with one grid.
func WriteChordPro(c Chart) []byte {
	swing := ""
	if c.Swing > 0 {
		swing = fmt.Sprintf("{x_swing: %d}\n", c.Swing)
	}
	return fmt.Appendf(nil, "{title: %s}\n{key: %s}\n{tempo: %d}\n{x_feel: %s}\n%s{time: %d/4}\n{start_of_grid}\n%s\n{end_of_grid}\n",
		strings.NewReplacer("{", "(", "}", ")").Replace(line(c.Title)), c.Key, c.Tempo, c.Feel.Name, swing, c.Song.Beats, c.Song.Text())
}

// line keeps a title on one line.
func line(text string) string { return strings.Join(strings.Fields(text), " ") }
