package tabtext

import (
	"strings"
	"testing"
	"unicode/utf16"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/core/score"
)

// Rows are read by the names of their strings: in the tuning they name, the right way up, and
// where they name none that is said.
func TestStringsAreReadByTheirNames(t *testing.T) {
	row := func(labels string, at int, fret string) string {
		var lines []string
		for i, l := range strings.Fields(labels) {
			cell := "-"
			if i == at {
				cell = fret
			}
			lines = append(lines, l+"|--"+cell+"-------------|")
		}
		return strings.Join(lines, "\n")
	}
	for _, c := range []struct {
		text string
		midi int
		says string
	}{
		{row("e B G D A E", 5, "3"), 43, ""},
		{row("E B G D A E", 0, "3"), 67, ""},
		{row("e B G D A D", 5, "3"), 41, "Drop D"},
		{row("Eb Bb Gb Db Ab Eb", 5, "3"), 42, "Half step down"},
		{row("D A G D A D", 0, "2"), 64, "DADGAD"},
		{row("G D A E", 3, "3"), 31, "Bass"},
		{row("E A D G B e", 0, "3"), 43, "the rows were turned"},
		{row("F C G D A E", 0, "3"), 67, "no such tuning is known"},
	} {
		s, said, err := Read(t.Context(), []byte(c.text), neck.Standard())
		require.NoError(t, err, c.text)
		require.Len(t, s.Notes, 1, c.text)
		assert.Equal(t, c.midi, s.Notes[0].Pitch.MIDI(), c.text)
		all := strings.Join(said, "; ")
		if c.says == "" {
			assert.NotContains(t, all, "tuning")
			assert.NotContains(t, all, "turned")
			continue
		}
		assert.Contains(t, all, c.says)
	}
}

// Bars that are not closed, not begun or not there are read, and said; a double bar line is
// no bar.
func TestBarsWithoutLines(t *testing.T) {
	row := func(top string) string {
		lines := []string{"e" + top}
		for _, l := range strings.Fields("B G D A E") {
			lines = append(lines, l+strings.NewReplacer("5", "-", "7", "-", "8", "-").Replace(top))
		}
		return strings.Join(lines, "\n")
	}
	for text, want := range map[string]struct {
		notes, bars int
		says        string
	}{
		row("|--5---7---|--8-----|"):   {3, 2, ""},
		row("|--5---7---||--8-----||"): {3, 2, ""},
		row("|--5---7---|--8------"):   {3, 2, "not closed"},
		row("--5---7---|--8-----|"):    {3, 2, ""},
		row("--5---7-------8-----"):    {3, 1, "without bar lines"},
	} {
		s, said, err := Read(t.Context(), []byte(text), neck.Standard())
		require.NoError(t, err, text)
		assert.Len(t, s.Notes, want.notes, text)
		assert.Len(t, s.Bars, want.bars, text)
		assert.Contains(t, strings.Join(said, "; "), want.says, text)
	}
}

// Rows a character off are laid together bar by bar, and that is said; so is where a row lacks a
// bar line that others have.
func TestRowsACharacterOff(t *testing.T) {
	for _, text := range []string{
		"Eb|--5---7---|--8---|\nBb|----------|------|\nGb |----------|------|\nDb|----------|------|\nAb|----------|------|\nEb|----------|------|",
		"e|--10--7---|--8---|\nB|---------|------|\nG|---------|------|\nD|---------|------|\nA|---------|------|\nE|---------|------|",
		" e|--5---7---|--8---|\nB|----------|------|\nG|----------|------|\nD|----------|------|\nA|----------|------|\nE|----------|------|",
	} {
		s, said, err := Read(t.Context(), []byte(text), neck.Standard())
		require.NoError(t, err, text)
		assert.Len(t, s.Notes, 3, text)
		assert.Len(t, s.Bars, 2, text)
		assert.Contains(t, strings.Join(said, "; "), "laid together bar by bar", text)
		assert.Equal(t, 1, s.BarOf(s.Notes[2].Start), text)
	}
	_, said, err := Read(t.Context(), []byte("e|--5---7---|--8---|\nB|----------|------|\nG|----------|------|\nD|----------|------|\nA|----------|------|\nE|-----------------|"), neck.Standard())
	require.NoError(t, err)
	assert.Contains(t, strings.Join(said, "; "), "differ in how many")
}

// Cells as others write them; what no tablature has is passed over and said, and the row
// stays.
func TestCellsAsOthersWriteThem(t *testing.T) {
	for cell, want := range map[string]struct {
		frets, bend int
		release     bool
		says        string
	}{
		"7b9":    {1, 4, false, ""},
		"7b(9)":  {1, 4, false, ""},
		"7b9r7":  {1, 4, true, ""},
		"7b":     {1, 4, false, "without its goal"},
		"7^":     {1, 4, false, "without its goal"},
		"<12>":   {1, 0, false, "harmonics"},
		"7v":     {1, 0, false, ""},
		"5h7":    {2, 0, false, ""},
		"5H7":    {2, 0, false, ""},
		"7^9":    {1, 4, false, ""},
		"7^8":    {1, 2, false, ""},
		"5s7":    {2, 0, false, ""},
		"5s7s5":  {3, 0, false, ""},
		"7s":     {1, 0, false, "leads nowhere"},
		"7/":     {1, 0, false, "leads nowhere"},
		"5–––7":  {2, 0, false, ""},
		"5--?-7": {2, 0, false, "passed over"},
		"5--§-7": {2, 0, false, "passed over"},
	} {
		dashed := strings.Repeat("-", len([]rune(cell)))
		lines := []string{"e|--" + cell + "-------|"}
		for _, l := range strings.Fields("B G D A E") {
			lines = append(lines, l+"|--"+dashed+"-------|")
		}
		s, said, err := Read(t.Context(), []byte(strings.Join(lines, "\n")), neck.Standard())
		require.NoError(t, err, cell)
		require.Len(t, s.Notes, want.frets, "%s: %v", cell, said)
		assert.Equal(t, want.bend, s.Notes[0].Bend, cell)
		assert.Equal(t, want.release, s.Notes[0].Release, cell)
		assert.Contains(t, strings.Join(said, "; "), want.says, cell)
	}
}

// The same text in other encodings is the same line.
func TestOtherEncodings(t *testing.T) {
	text := "Title: Kai\r\ne|--5---7---|\r\nB|----------|\r\nG|----------|\r\nD|----------|\r\nA|----------|\r\nE|----------|\r\n"
	little, big := []byte{0xFF, 0xFE}, []byte{0xFE, 0xFF}
	for _, u := range utf16.Encode([]rune(text)) {
		little = append(little, byte(u), byte(u>>8))
		big = append(big, byte(u>>8), byte(u))
	}
	latin := []byte(strings.Replace(text, "Kai", "Caf\xe9", 1))
	for name, data := range map[string][]byte{"UTF-8": []byte(text), "with a mark": append([]byte{0xEF, 0xBB, 0xBF}, text...), "little": little, "big": big, "Latin-1": latin} {
		s, _, err := Read(t.Context(), data, neck.Standard())
		require.NoError(t, err, name)
		require.Len(t, s.Notes, 2, name)
		if name == "Latin-1" {
			assert.Equal(t, "Café", s.Title)
			continue
		}
		assert.Equal(t, "Kai", s.Title, name)
	}
}

// A row that is marked to be played several times is written out as often.
func TestRowsThatAreRepeated(t *testing.T) {
	row := func(mark string) string {
		var out strings.Builder
		for i := range 6 {
			cells := "--------"
			if i == 2 {
				cells = "5---7---"
			}
			out.WriteString("EBGDAE"[i:i+1] + "|" + cells + "|")
			if i == 0 {
				out.WriteString(mark)
			}
			out.WriteString("\n")
		}
		return out.String()
	}
	for mark, times := range map[string]int{"": 1, " x2": 2, "x3": 3, " (x2)": 2, "  4x": 4, " (2x)": 2} {
		s, said, err := Read(t.Context(), []byte(row(mark)+"\n"+row("")), neck.Standard())
		require.NoError(t, err, mark)
		require.Len(t, s.Notes, 2*times+2, mark)
		assert.Len(t, s.Bars, times+1, mark)
		for i, n := range s.Notes {
			assert.Equal(t, []int{i * 2 * score.Tick, 3, 5 + 2*(i%2)}, []int{n.Start, n.String, n.Fret}, mark)
		}
		assert.Equal(t, times > 1, strings.Contains(strings.Join(said, ";"), "was written out"), mark)
	}
}
