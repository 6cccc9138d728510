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

// barLines are the columns where every row has a bar line, or where bar lines differ all but one
// row, which has a dash there.
func (r *reader) barLines(rows [][]rune) (out []int) {
	size := 0
	for _, row := range rows {
		size = max(size, len(row))
	}
	for col := range size {
		lines, others := 0, 0
		for _, row := range rows {
			switch {
			case col < len(row) && row[col] == '|':
				lines++
			case col >= len(row) || row[col] != '-':
				others++
			}
		}
		if lines == len(rows) || r.ragged && others == 0 && lines == len(rows)-1 && lines > 3 {
			out = append(out, col)
		}
	}
	return out
}

// dotted tells whether a column has the dots of a repeat, and makes strokes of them.
func dotted(rows [][]rune, col int) (is bool) {
	for _, row := range rows {
		if col >= 0 && col < len(row) && row[col] == ':' {
			row[col], is = '-', true
		}
	}
	return is
}

// level lays rows together bar by bar whose bar lines do not stand in one column, as where a
// name or a fret made a row a character longer, and says so. Rows that differ in how many bar
// lines they have stay as they are: barLines then finds what most have.
func (r *reader) level(rows [][]rune) [][]rune {
	pieces := make([][]string, len(rows))
	same := true
	for i, row := range rows {
		pieces[i] = strings.Split(strings.TrimRight(string(row), " "), "|")
		same = same && len(pieces[i]) == len(pieces[0])
	}
	if r.ragged = !same; r.ragged {
		r.say("the rows of strings differ in how many bar lines they have; those that all have, or all but one, were read")
	}
	if !same || len(r.barLines(rows)) == len(pieces[0])-1 {
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
var oftener = regexp.MustCompile(`\|\s*\(?(?:play(?:ed)?\s+)?(?:[x×]\s?([2-9])|([2-9])\s?(?:[x×]|times))\)?\s*$`)

// mark is a place in what was read: bars, ticks and notes so far.
type mark struct{ bars, now, notes int }

// again writes a row out that began at a mark, as often as it says.
func (r *reader) again(from mark) error {
	times := max(1, r.times)
	r.times = 0
	return r.write(from, times, "a row that is played %d times was written out")
}

// write has what was read since a mark be there so many times, and says so.
func (r *reader) write(from mark, times int, says string) error {
	if times < 2 {
		return nil
	}
	length, part, n := r.now-from.now, slices.Clone(r.s.Notes[from.notes:]), r.bars-from.bars
	for k := 1; k < times; k++ {
		if r.bars+n > maxBars || len(r.s.Notes)+len(part) > maxNotes {
			return say.Errorf("a part played %d times makes more than can be read", times)
		}
		for _, note := range part {
			note.Start += k * length
			r.s.Notes = append(r.s.Notes, note)
		}
		r.bars, r.now = r.bars+n, r.now+length
		for _, o := range r.over {
			if o.bar >= from.bars && o.bar < from.bars+n {
				o.bar += k * n
				r.over = append(r.over, o)
			}
		}
	}
	if strings.Contains(says, "%d") {
		r.say(says, times)
	} else {
		r.say("%s", says)
	}
	return nil
}
