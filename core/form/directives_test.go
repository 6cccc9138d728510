package form

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func readOf(t *testing.T, text string) (Song, Found) {
	t.Helper()
	song, found, err := ReadSong(text, 4, Key{})
	require.NoError(t, err, text)
	return song, found
}

// Every directive is read, is known not to matter, or is told with its line; none of them makes a bar.
func TestEveryDirectiveIsAccountedFor(t *testing.T) {
	seen := map[string]bool{}
	for _, reason := range idleDirectives {
		for _, name := range strings.Fields(reason.names) {
			assert.False(t, seen[name], name)
			seen[name] = true
			song, found := readOf(t, "| C7 |\n{"+name+": something}\n| F7 |")
			assert.Empty(t, found.Said, name)
			assert.Len(t, song.Bars, 2, name)
		}
	}
	for name, says := range lostDirectives {
		_, found := readOf(t, "{"+name+": 3}\n| C7 |")
		assert.Equal(t, []string{says}, found.Said)
	}
	for _, name := range strings.Fields(remarkDirectives) {
		_, found := readOf(t, "{"+name+": softly}\n| C7 |\n{"+name+": louder}\n| F7 |")
		assert.Equal(t, "softly\nbar 2: louder", found.Remarks, name)
		assert.Empty(t, found.Said)
	}
	for part, what := range foreignParts {
		song, found := readOf(t, "| C7 |\n{start_of_"+part+"}\ne|--3--5--|\n| X: no chord |\n{end_of_"+part+"}\n| F7 |")
		assert.Equal(t, []string{"line 2: " + what + " was left out"}, found.Said)
		assert.Len(t, song.Bars, 2)
	}
	_, found := readOf(t, "{sot}\ne|--3--|\n{eot}\n| F7 |")
	assert.Equal(t, []string{"line 1: tablature was left out"}, found.Said)
	_, found = readOf(t, "| C7 |\n{bananas: 7}\n{start_of_bananas}\n| F7 |\n{comment-guitar: yes}")
	assert.Equal(t, []string{"line 2: {bananas}, which is not known here, was left out", "line 5: {comment-guitar}, which is not known here, was left out"}, found.Said)
	_, found = readOf(t, "{meta: title Low Water}\n{meta: capo 2}\n{meta: artist nobody}\n| C7 |")
	assert.Equal(t, "Low Water", found.Title)
	assert.Equal(t, "capo-2", found.Reading)
}

// A value that a chart cannot have is told with its line; remarks are kept however they are written.
func TestWhatStandsBesideTheBars(t *testing.T) {
	for line, says := range map[string]string{
		"{key: H#}": "“H#” is no key", "Tempo: fast": "“fast” is no tempo", "{tempo: 9999}": "is no tempo", "Swing: 99": "is no swing",
		"{x_feel: polka}": "“polka” is no feel", "{time: often}": "“often” is no time", "{time: 7/8}": "a time of 7/8 cannot be charted",
	} {
		_, found := readOf(t, "Title: Low Water\n"+line+"\n| C7 |")
		require.Len(t, found.Said, 1, line)
		assert.Contains(t, found.Said[0], says)
	}
	_, found := readOf(t, "Remark: brushes\n| C7 | // softly\n# louder\n| F7 | # and out\nNotes: bring a slide")
	assert.Equal(t, "brushes\nsoftly\nbar 2: louder\nbar 2: and out\nbar 3: bring a slide", found.Remarks)
	_, found = readOf(t, "{key: C}\n| C7 |\n{key: D}\n| D7 |")
	assert.Equal(t, []string{"line 3: another key, D; a chart has one, the last"}, found.Said)
	_, found = readOf(t, strings.Repeat("// "+strings.Repeat("word ", 40)+"\n", 60)+"| C7 |")
	assert.LessOrEqual(t, len(found.Remarks), maxRemarks)
	assert.Equal(t, []string{"more remarks than a chart holds; the rest was left out"}, found.Said)
}

// Facts come back as they left, whatever they hold, and what is no fact is refused.
func TestFactsComeBack(t *testing.T) {
	words := rapid.StringMatching(`[a-zA-Z0-9][a-zA-Z0-9 ]{0,20}[a-zA-Z0-9]`)
	rapid.Check(t, func(t *rapid.T) {
		b := Beside{Swing: rapid.SampledFrom([]int{0, MinSwing, 62, MaxSwing}).Draw(t, "swing"), Tags: strings.Join(rapid.SliceOfN(words, 0, 3).Draw(t, "tags"), ", "),
			Remarks: strings.Join(rapid.SliceOfN(words, 0, 4).Draw(t, "remarks"), "\n"), Intro: rapid.SampledFrom([]string{"", "five"}).Draw(t, "intro"), Ending: rapid.SampledFrom([]string{"", "held"}).Draw(t, "ending")}
		var back Beside
		for _, f := range b.Facts() {
			require.True(t, back.Take(f[0], f[1]), f[0])
		}
		require.Equal(t, b, back)
	})
	var b Beside
	for _, name := range []string{"title", "key", "time", "", "bananas"} {
		assert.False(t, b.Take(name, "C"), name)
	}
	assert.Equal(t, Beside{}, b)
}
