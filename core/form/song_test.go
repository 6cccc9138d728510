package form

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// orders are songs and the order in which a band plays their bars.
var orders = map[string]string{
	"| A | B7 | C |":                                                        "",
	"|: A | B7 :|":                                                          "4 bars: 1–2, 1–2",
	"|: A | B7 :| x3":                                                       "6 bars: 1–2, 1–2, 1–2",
	"|: A | B7 :| (3x) | C |":                                               "7 bars: 1–2, 1–2, 1–3",
	"| A | B7 | x2":                                                         "4 bars: 1–2, 1–2",
	"| A | B7 |\n| C | D | x2\n| E |":                                       "7 bars: 1–4, 3–5",
	"| A | B7 :| C |":                                                       "5 bars: 1–2, 1–3",
	"|: A |1. B7 :|2. C | D |":                                              "5 bars: 1–2, 1, 3–4",
	"|: A |1.2. B7 :|3. C | D |":                                            "7 bars: 1–2, 1–2, 1, 3–4",
	"|: A |1. B7 :|2. C :|3. D | E |":                                       "7 bars: 1–2, 1, 3, 1, 4–5",
	"|: A |1. B7 | C :|2. D | E :|\n|: F :|":                                "8 bars: 1–3, 1, 4–6, 6",
	"| A | B7 fine | C D.C. al Fine |":                                      "5 bars: 1–3, 1–2",
	"| A | segno B7 | C | D.S. |":                                           "5 bars: 1–3, 2–3",
	"| A | 𝄋 B7 | C fine | D | D.S. al Fine |":                              "6 bars: 1–4, 2–3",
	"| A | segno B7 to coda | C | D.S. al Coda | coda D | E |":              "6 bars: 1–3, 2, 4–5",
	"| A | segno B7 to 𝄌 | C | D.S. al Coda |\n𝄌 | D | E |":                 "6 bars: 1–3, 2, 4–5",
	"| A to coda | B7 | D.C. al Coda\n[Coda]\n| C |":                        "4 bars: 1–2, 1, 3",
	"Intro:\n| A |\nVerse:\n|: B7 |1. C :|2. D |\nFine\n| E | D.C. al Fine": "9 bars: 1–3, 2, 4–5, 1–2, 4",
	"A\nB7 Fine\nC\nD.C. al Fine":                                           "5 bars: 1–3, 1–2",
	"|: A |: B7 :|":                                                         "3 bars: 1–2, 2",
	"|: A | da capo al fine | B7 fine |":                                    "",
}

// Songs are played in the order a band plays them, and written so that they are read again.
func TestSongsArePlayedInOrder(t *testing.T) {
	for text, want := range orders {
		s, _, err := ReadSong(text, 4, mustKey(t, "A"))
		require.NoError(t, err, text)
		if want != "" || s.plain() {
			assert.Equal(t, want, s.Order(), text)
		}
		back, _, err := ReadSong(s.Text(), 4, mustKey(t, "A"))
		require.NoError(t, err, s.Text())
		assert.Equal(t, s, back, "%s as %s", text, s.Text())
		assert.Equal(t, s.Text(), back.Text())
	}
	s, _, err := ReadSong("[Verse]\n|: A |1. B7 :|2. C |\n[Bridge]\n| D |", 4, mustKey(t, "A"))
	require.NoError(t, err)
	p := s.Play(MaxBars)
	var got []string
	for _, b := range p.Bars {
		got = append(got, fmt.Sprintf("%d/%d %s", b.Written, b.Pass, b.Section))
	}
	assert.Equal(t, []string{"1/1 Verse", "2/1 ", "1/2 Verse", "3/1 ", "4/1 Bridge"}, got, "each played bar knows its written one")
	assert.Len(t, p.Places(), 5)
}

// What leads nowhere is refused with its place; what is taken for granted is said.
func TestSignsThatLeadNowhere(t *testing.T) {
	for text, want := range map[string]string{
		"| A | D.S. |":                      "there is none; write segno",
		"| A | D.S. al Coda |":              "there is none; write segno",
		"| A | D.C. al Coda |":              "nothing leads to the coda",
		"| A to coda | B7 | D.C. al Coda |": "there is no coda",
		"| A | D.C. al Fine |":              "there is no fine",
		"|: A :| x9 |: B7 :| x9 |\n" + strings.Repeat("|: A | B7 :| x9\n", 40): "more than 512 bars",
	} {
		_, _, err := ReadSong(text, 4, mustKey(t, "A"))
		var ps Problems
		require.ErrorAs(t, err, &ps, text)
		assert.Contains(t, ps[0].Message, want)
		if ps[0].Text != "" {
			assert.Equal(t, ps[0].Text, string([]rune(text)[ps[0].Offset:ps[0].Offset+ps[0].Length]), text)
		}
	}
	for text, want := range map[string]string{
		"|: A | B7 |":        "the repeat that begins in bar 1 has no end",
		"| A |: B7 |: C :|":  "the repeat that begins in bar 2 has no end",
		"| A |1. B7 |2. C |": "the first ending in bar 2 has no repeat",
		"A B7":               "there are no bar lines",
	} {
		_, found, err := ReadSong(text, 4, mustKey(t, "A"))
		require.NoError(t, err)
		require.NotEmpty(t, found.Said, text)
		assert.Contains(t, found.Said[0], want)
	}
}

// Any song that can be written is read again as it was, and is played in finite time with
// only bars that are written.
func TestAnySongComesBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 12).Draw(t, "bars")
		var s Song
		s.Beats = 4
		chords, err := Read("| A7 | D7 E7 | F#m | N.C. |", 4, Key{})
		if err != nil {
			t.Fatal(err)
		}
		for i := range n {
			w := Written{Bar: chords.Bars[rapid.IntRange(0, 3).Draw(t, "chord")]}
			w.Row = i > 0 && rapid.Bool().Draw(t, "row")
			if rapid.IntRange(0, 5).Draw(t, "named") == 0 {
				w.Section = rapid.SampledFrom([]string{"Verse", "Bridge 2", "Coda"}).Draw(t, "section")
				w.Coda = w.Section == "Coda"
			}
			w.Opens = rapid.IntRange(0, 3).Draw(t, "opens") == 0
			if rapid.IntRange(0, 3).Draw(t, "closes") == 0 {
				w.Times = rapid.IntRange(2, 4).Draw(t, "times")
			}
			if rapid.IntRange(0, 4).Draw(t, "ending") == 0 {
				w.Endings = [][]int{{1}, {2}, {1, 2}, {3}}[rapid.IntRange(0, 3).Draw(t, "which")]
			}
			if rapid.IntRange(0, 3).Draw(t, "uneven") == 0 {
				w.Beats = rapid.SampledFrom([]int{3, 5}).Draw(t, "beats")
			}
			w.Segno, w.ToCoda, w.Fine = i == 1, i == 2, i == 3
			if i == n-1 && n > 4 {
				w.Jump = rapid.SampledFrom([]Jump{NoJump, DC, DS, DSFine, DCFine}).Draw(t, "jump")
			}
			s.Bars = append(s.Bars, w)
		}
		if len(s.Play(MaxBars).Bars) == 0 {
			t.Skip("an ending that nothing comes to, and nothing else")
		}
		back, _, err := ReadSong(s.Text(), 4, Key{})
		if err != nil {
			if strings.Contains(err.Error(), "as it is played") {
				t.Skip("too long")
			}
			t.Fatalf("%s: %v", s.Text(), err)
		}
		if back.Text() != s.Text() || fmt.Sprint(back) != fmt.Sprint(s) {
			t.Fatalf("%s\ncame back as\n%s\n%v\n%v", s.Text(), back.Text(), s, back)
		}
		// Piece by piece, in any order: each bar is what it was.
		order := rapid.Permutation(s.Bars).Draw(t, "order")
		moved := Song{Beats: 4, Bars: order}
		if len(moved.Play(MaxBars).Bars) == 0 {
			t.Skip("an ending that nothing comes to, and nothing else")
		}
		all, pieces := s.Pieces(), []string{}
		for _, w := range order {
			i := slices.IndexFunc(s.Bars, func(x Written) bool { return fmt.Sprint(x) == fmt.Sprint(w) })
			pieces = append(pieces, all[i])
		}
		again, _, err := ReadSong("| "+strings.Join(pieces, " | ")+" |", 4, Key{})
		if err == nil {
			for i := range moved.Bars {
				moved.Bars[i].Row = false
			}
			if moved.Text() != again.Text() {
				t.Fatalf("%s\nbecame %s", moved.Text(), again.Text())
			}
		}
		for _, b := range s.Play(MaxBars).Bars {
			if b.Written > n {
				t.Fatal(b.Written)
			}
		}
	})
}

// An ending that no repeat comes to is told; where it is all there is it is played.
func TestEndingsThatNothingComesTo(t *testing.T) {
	for text, want := range map[string]struct {
		bars int
		says string
	}{
		"|2. A7 |":               {1, "no repeat comes to the ending in bar 1: it is played as any bar"},
		"| C7 |2. A7 |":          {1, "no repeat comes to the ending in bar 2: it is not played"},
		"|: C7 |1. F7 :|2. A7 |": {4, ""},
		"|: C7 |1. F7 :|3. A7 |": {3, "no repeat comes to the ending in bar 3: it is not played"},
	} {
		song, found, err := ReadSong(text, 4, Key{})
		if err != nil {
			t.Fatal(text, err)
		}
		if got := len(song.Play(MaxBars).Bars); got != want.bars || !strings.Contains(strings.Join(found.Said, "; "), want.says) {
			t.Errorf("%s: %d bars, %q", text, got, found.Said)
		}
	}
}
