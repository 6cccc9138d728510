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
	Feel  form.Feel
	Song  form.Song
	form.Beside
}

// shaped is a chart that is read behind a capo with the shapes that are played there, as such texts have them.
func (c Chart) shaped() (Chart, int) {
	as, err := form.ReadingByID(c.Reading)
	if err != nil || as.Capo() == 0 {
		return c, 0
	}
	c.Song, c.Key = as.Song(c.Song, c.Key)
	c.Reading = ""
	return c, as.Capo()
}

// Write writes a chart as plain text: what it is, then its bars.
func Write(c Chart) []byte {
	c, capo := c.shaped()
	beside := ""
	for _, f := range c.Facts() {
		beside += fmt.Sprintf("%s%s: %s\n", strings.ToUpper(f[0][:1]), f[0][1:], line(f[1]))
	}
	if capo > 0 {
		beside += fmt.Sprintf("Capo: %d\n", capo)
	}
	return fmt.Appendf(nil, "Title: %s\nKey: %s\nTempo: %d\nFeel: %s\n%sTime: %d/4\n\n%s\n", line(c.Title), c.Key, c.Tempo, c.Feel.Name, beside, c.Song.Beats, c.Song.Text())
}

// directives are the names of facts in a song sheet; those of others are left alone by other programs.
var directives = map[string]string{"swing": "x_swing", "tags": "x_tag", "band intro": "x_intro", "band ending": "x_ending", "reading": "x_reading", "remark": "comment"}

// WriteChordPro writes it as a ChordPro song with one grid.
func WriteChordPro(c Chart) []byte {
	c, capo := c.shaped()
	beside := ""
	for _, f := range c.Facts() {
		beside += fmt.Sprintf("{%s: %s}\n", directives[f[0]], braceless(f[1]))
	}
	if capo > 0 {
		beside += fmt.Sprintf("{capo: %d}\n", capo)
	}
	return fmt.Appendf(nil, "{title: %s}\n{key: %s}\n{tempo: %d}\n{x_feel: %s}\n%s{time: %d/4}\n{start_of_grid}\n%s\n{end_of_grid}\n",
		braceless(c.Title), c.Key, c.Tempo, c.Feel.Name, beside, c.Song.Beats, c.Song.Text())
}

func braceless(text string) string {
	return strings.NewReplacer("{", "(", "}", ")").Replace(line(text))
}

// line keeps a title on one line.
func line(text string) string { return strings.Join(strings.Fields(text), " ") }
