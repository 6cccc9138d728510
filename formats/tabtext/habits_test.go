package tabtext

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
)

// six rows, the first with what is given.
func six(names []string, first string) (out string) {
	for i, n := range names {
		body := strings.Repeat("-", len(first))
		if i == 0 {
			body = first
		}
		for j, c := range first {
			if c == '|' && i > 0 {
				body = body[:j] + "|" + body[j+1:]
			}
		}
		out += n + "|" + body + "|\n"
	}
	return out
}

var usualNames = []string{"e", "B", "G", "D", "A", "E"}

// Tablature in the habits of those who write it: what is wanted was written down before it was read. notes are string:fret with
// what is done to them; said is a part of what has to be told.
func TestTablatureInTheHabitsOfPlayers(t *testing.T) {
	row := six(usualNames, "--5--7--")
	plain := "1:5 1:7"
	for _, c := range []struct {
		name, text, notes, tuning, said string
		tempo                           int
	}{
		{"strings by number", six([]string{"1", "2", "3", "4", "5", "6"}, "--5--7--"), plain, "", "", 0},
		{"strings by number, the lowest first", six([]string{"6", "5", "4", "3", "2", "1"}, "--5--7--"), "6:5 6:7", "", "lowest string stands at the top", 0},
		{"half bends", six(usualNames, "--7b1/2--5b½--"), "1:7b2 1:5b2", "", "", 0},
		{"whole bends", six(usualNames, "--7bfull--12b1--"), "1:7b4 1:12b4", "", "", 0},
		{"bends to a fret", six(usualNames, "--7b9--7b8--"), "1:7b4 1:7b2", "", "", 0},
		{"trills", six(usualNames, "--7tr(9)--5tr6--"), "1:7t2 1:5t1", "", "", 0},
		{"vibrato by w", six(usualNames, "--7w--5~--"), "1:7v 1:5v", "", "", 0},
		{"played several times, in words", strings.Replace(row, "|\n", "| play 3 times\n", 1), "1:5 1:7 1:5 1:7 1:5 1:7", "", "played 3 times", 0},
		{"played twice, by a sign", strings.Replace(row, "|\n", "| (2x)\n", 1), "1:5 1:7 1:5 1:7", "", "played 2 times", 0},
		{"palm mutes", "   PM|\n" + six(usualNames, "-5--7--"), "1:5m 1:7", "", "", 0},
		{"palm mutes, dotted", "  P.M.------|\n" + six(usualNames, "-5---7---9--"), "1:5m 1:7m 1:9m", "", "", 0},
		{"tempo in words", "Tempo: 96 bpm\n" + row, plain, "", "", 96},
		{"tempo as a note", "tempo = 132\n" + row, plain, "", "", 132},
		{"tuning in letters", "Tuning: EADGBE\n" + row, plain, "E2,A2,D3,G3,B3,E4", "", 0},
		{"tuning in letters, lower", "Tuning: Eb Ab Db Gb Bb Eb\n" + row, plain, "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", "", 0},
		{"tuning by name", "Tuning: Drop D\n" + row, plain, "D2,A2,D3,G3,B3,E4", "", 0},
		{"tuning by words", "Tuning: half step down\n" + row, plain, "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", "", 0},
		{"tuning by words alone", "Tune down a half step\n" + row, plain, "Eb2,Ab2,Db3,Gb3,Bb3,Eb4", "", 0},
		{"tuning a whole step down", "Tuning: whole step down\n" + row, plain, "D2,G2,C3,F3,A3,D4", "", 0},
		{"an open tuning in letters", "Tuning: D A D F# A D\n" + row, plain, "D2,A2,D3,F#3,A3,D4", "", 0},
		{"a bracket of threes", "      |-3-|\n" + row, plain, "", "left out", 0},
		{"rows without a blank line between", row + six(usualNames, "--3--2--"), "1:5 1:7 1:3 1:2", "", "", 0},
		{"rows without names and without a blank line", strings.Repeat("|--5--7--|\n"+strings.Repeat("|--------|\n", 5), 2), "1:5 1:7 1:5 1:7", "", "", 0},
		{"lines that end as on old machines", strings.ReplaceAll(row, "\n", "\r"), plain, "", "", 0},
		{"words beside", "An old tune\nplayed slowly\n" + row + "then the chorus\n", plain, "", "3 lines that are no tablature were left out, the first, line 1: An old tune", 0},
		{"a line of words", row + "and so on\n", plain, "", "line 7 is no tablature, and was left out: and so on", 0},
		{"chords above", "    A7   D7\n" + row, plain, "", "its chords stand above the rows", 0},
	} {
		s, said, err := Read(t.Context(), []byte(c.text), neck.Standard())
		if !assert.NoError(t, err, c.name) {
			continue
		}
		var notes []string
		for _, n := range s.Notes {
			text := fmt.Sprintf("%d:%d", n.String, n.Fret)
			if n.Bend > 0 {
				text += fmt.Sprintf("b%d", n.Bend)
			}
			if n.Trill > 0 {
				text += fmt.Sprintf("t%d", n.Trill)
			}
			if n.Vibrato {
				text += "v"
			}
			if n.PalmMute {
				text += "m"
			}
			notes = append(notes, text)
		}
		assert.Equal(t, c.notes, strings.Join(notes, " "), c.name)
		told := strings.Join(said, "; ")
		if c.said != "" {
			assert.Contains(t, told, c.said, c.name)
		} else {
			assert.NotContains(t, told, "left out", c.name)
		}
		if c.tuning != "" {
			assert.Equal(t, c.tuning, s.In.Tuning(), c.name)
		}
		if c.tempo > 0 {
			assert.Equal(t, c.tempo, s.Tempo, c.name)
		}
	}
	_, _, err := Read(t.Context(), []byte("Tuning: as you like\n"+row), neck.Standard())
	require.ErrorContains(t, err, "as you like")
}

// A value that a tablature cannot have is told with its line; a capo is one however it is written, and a labelled row keeps it.
func TestHeadersAreReadOrTold(t *testing.T) {
	row := strings.Repeat("|--3--5--|\n", 6)
	for text, says := range map[string]string{
		"Tempo: fast\n": "line 1: “fast” is no tempo", "Title: x\nFeel: odd\n": "line 2: “odd” is no feel", "Groove: polka\n": "line 1: “polka” is no groove", "Capo: none\n": "line 1: “none” is no capo",
	} {
		_, said, err := Read(t.Context(), []byte(text+"\n"+row), neck.Standard())
		require.NoError(t, err, text)
		assert.Contains(t, strings.Join(said, "; "), says)
	}
	for _, text := range []string{"Capo: 3", "capo: 3", "Capo: fret 3", "CAPO = 3rd fret"} {
		labels := "e|--3--5--|\nB|--------|\nG|--------|\nD|--------|\nA|--------|\nE|--------|\n"
		s, said, err := Read(t.Context(), []byte(text+"\n\n"+labels), neck.Standard())
		require.NoError(t, err, text)
		assert.Equal(t, 3, s.In.Capo, "%s: %v", text, said)
		s, _, err = Read(t.Context(), []byte(text+"\n\n"+strings.NewReplacer("e|", "d|", "B|", "a|", "G|", "f|", "E|", "D|").Replace(labels)), neck.Standard())
		require.NoError(t, err, text)
		assert.Equal(t, 3, s.In.Capo, text)
	}
}

// Chords above the rows begin on the beats that they stand over, also where a part is played again; those that stand over no row
// are told, and so is a letter that is the name of a part.
func TestChordsAboveTheRows(t *testing.T) {
	rows := func(bars int, more string) string {
		var out []string
		for _, name := range []string{"e", "B", "G", "D", "A", "E"} {
			line := name + "|"
			for range bars {
				line += "--5---------8---|"
			}
			if name == "e" {
				line += more
			}
			out = append(out, line)
		}
		return strings.Join(out, "\n") + "\n"
	}
	for _, c := range []struct{ name, text, chords, says string }{
		{"a bar each", "  A7              D7\n" + rows(2, ""), "| A7 | D7 |", "its chords stand above the rows"},
		{"in the middle of a bar", "  A7      D7      E7\n" + rows(2, ""), "| A7 D7 | E7 |", ""},
		{"held over", "  A7\n" + rows(3, ""), "| A7 | A7 | A7 |", ""},
		{"begun later", "                   D7\n" + rows(2, ""), "| N.C. | D7 |", ""},
		{"played again", "  A7              D7\n" + rows(2, " x2"), "| A7 | D7 | A7 | D7 |", ""},
		{"over two rows", "  A7              D7\n" + rows(2, "") + "\n  E7              Am7\n" + rows(2, ""), "| A7 | D7 | E7 | Am7 |", ""},
		{"with bar lines", "| A7             | D7\n" + rows(2, ""), "| A7 | D7 |", ""},
		{"by themselves", "A7 D7\n\n" + rows(1, ""), "| N.C. |", "line 1 is no tablature, and was left out: A7 D7"},
		{"a letter", "A\n" + rows(1, ""), "| N.C. |", "line 1 is no tablature, and was left out: A"},
		{"said already", "Chords: | C7 | F7 |\n\n  A7              D7\n" + rows(2, ""), "| C7 | F7 |", ""},
		{"words", "  A7  slowly\n" + rows(1, ""), "| N.C. |", "was left out: A7 slowly"},
	} {
		s, said, err := Read(t.Context(), []byte(c.text), neck.Standard())
		require.NoError(t, err, c.name)
		assert.Equal(t, c.chords, strings.ReplaceAll(s.Text(), " |\n|", " |"), "%s: %v", c.name, said)
		assert.Contains(t, strings.Join(said, "; "), c.says, c.name)
		require.NotEmpty(t, s.Notes)
	}
}
