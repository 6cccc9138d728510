package tabtext

import (
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"undaris/core/say"
)

// closed puts a bar line before a first bar and behind a last one that have none, and says so.
func (r *reader) closed(rows [][]rune, bars []int, size int) []int {
	frets := func(from, to int) bool {
		return slices.ContainsFunc(rows, func(row []rune) bool {
			return slices.ContainsFunc(row[min(from, len(row)):min(to, len(row))], func(c rune) bool { return c >= '0' && c <= '9' })
		})
	}
	first := 0
	for _, row := range rows { // behind the names of the strings
		first = max(first, len(named.FindString(string(row))))
	}
	if len(bars) == 0 {
		r.say("a row without bar lines was read as a bar")
		return []int{first - 1, size}
	}
	if bars[0] > first && frets(first, bars[0]) {
		bars = append([]int{first - 1}, bars...)
	}
	if last := bars[len(bars)-1]; frets(last+1, size) {
		r.say("the last bar of a row is not closed; it was read to the end of the row")
		bars = append(bars, size)
	}
	return bars
}

// named is the name of a string before its row, without a bar line behind it.
var named = regexp.MustCompile(`^\s*[A-Ga-g][b#♭♯]?\d?:?`)

// barLines are the columns where every row has a bar line.
func barLines(rows [][]rune) (out []int) {
	for col := 0; col < len(rows[0]); col++ {
		all := true
		for _, row := range rows {
			all = all && col < len(row) && row[col] == '|'
		}
		if all {
			out = append(out, col)
		}
	}
	return out
}

// level lays rows together bar by bar whose bar lines do not stand in one column, as where a
// name or a fret made a row a character longer, and says so. Rows that differ in how many bar
// lines they have stay as they are: barLines then finds what all have.
func (r *reader) level(rows [][]rune) [][]rune {
	pieces := make([][]string, len(rows))
	same := true
	for i, row := range rows {
		pieces[i] = strings.Split(strings.TrimRight(string(row), " "), "|")
		same = same && len(pieces[i]) == len(pieces[0])
	}
	if !same {
		r.say("the rows of strings differ in how many bar lines they have; those that all have were read")
	}
	if !same || len(barLines(rows)) == len(pieces[0])-1 {
		return rows
	}
	r.say("rows whose bar lines do not stand under each other were laid together bar by bar")
	out := make([][]rune, len(rows))
	for bar := range pieces[0] {
		widest := 0
		for _, p := range pieces {
			widest = max(widest, utf8.RuneCountInString(p[bar]))
		}
		for i, p := range pieces {
			stroke := "-"
			if !strings.Contains(p[bar], stroke) { // a name
				stroke = " "
			}
			fill := strings.Repeat(stroke, widest-utf8.RuneCountInString(p[bar]))
			if bar > 0 {
				out[i] = append(out[i], '|')
			}
			out[i] = append(out[i], []rune(p[bar]+fill)...)
		}
	}
	return out
}

// oftener is what tells behind a row that it is played several times: x3, (3x).
var oftener = regexp.MustCompile(`\|\s*\(?(?:[x×]\s?([2-9])|([2-9])\s?[x×])\)?\s*$`)

// again writes a row out as often as it says: its bars began after so many, at a tick, with a note.
func (r *reader) again(bars, start, first int) error {
	times, length := max(1, r.times), r.now-start
	r.times = 0
	row, n := slices.Clone(r.s.Notes[first:]), r.bars-bars
	for k := 1; k < times; k++ {
		if r.bars+n > maxBars || len(r.s.Notes)+len(row) > maxNotes {
			return say.Errorf("a row played %d times makes more than can be read", times)
		}
		for _, note := range row {
			note.Start += k * length
			r.s.Notes = append(r.s.Notes, note)
		}
		r.bars, r.now = r.bars+n, r.now+length
	}
	if times > 1 {
		r.say("a row that is played %d times was written out", times)
	}
	return nil
}
