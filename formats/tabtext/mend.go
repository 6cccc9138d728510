package tabtext

import (
	"regexp"
	"strconv"
	"strings"
	"unicode"
)

// dashes are other strokes that strings are drawn with, and bar lines.
var dashes = strings.NewReplacer("–", "-", "—", "-", "−", "-", "─", "-", "│", "|", "┃", "|")

// prefix is what stands before the first bar line of a row: the name of its string.
var prefix = regexp.MustCompile(`^\s*(?:[A-Ga-g][b#♭♯]?\d?)?\s*`)

// nameless is a line without the name before it. Patterns are slow, and lines may be long.
func nameless(line string) string {
	return line[len(prefix.FindString(line[:min(len(line), 24)])):]
}

// stringy tells that a line is a string: nothing but frets, their signs, bar lines and strokes.
func stringy(line string) bool {
	stroke, before := false, ' '
	for i, c := range nameless(line) {
		switch {
		case !strings.ContainsRune("-| ", c) && !part(c) && (i > 0 || c != ':'):
			return false
		case c == '-' && (before == '-' || before == '|' || unicode.IsDigit(before)),
			before == '-' && (c == '|' || unicode.IsDigit(c)):
			stroke = true
		}
		before = c
	}
	return stroke
}

// rowish tells that a line can only be a string, whatever else stands in it: it begins as one,
// and has strokes.
func rowish(line string) bool {
	rest := nameless(line)
	_, behind, ok := strings.Cut(rest, "--")
	return ok && strings.ContainsAny(rest[:1], "-|:0123456789(<xX") && strings.ContainsAny(behind, "-|")
}

// halfSign stands for ½ in a row, as one character.
const halfSign = "Q"

// quoted is what stands before a line of a letter that was answered.
var quoted = regexp.MustCompile(`^\s*>\s+`)

// starred is a repeat sign of stars: at a bar line a star is its dot.
var starred = regexp.MustCompile(`(\|)\*|\*(\|)`)

// mended makes a string of a line with characters that no string has: they are passed over,
// and told. ok is false where it is no string at all.
func mended(line string) (row, strange string, ok bool) {
	if row = strings.ReplaceAll(dashes.Replace(line), "½", halfSign); strings.Contains(row, "*") {
		row = starred.ReplaceAllString(row, "$1:$2")
	}
	if stringy(row) {
		return row, "", true
	}
	if !rowish(row) {
		return line, "", false
	}
	begin := len(named.FindString(row))
	all, odd := 0, 0
	row = row[:begin] + strings.Map(func(c rune) rune {
		all++
		switch {
		case strings.ContainsRune("-|: X", c), part(c):
			return c
		}
		odd++
		if !strings.ContainsRune(strange, c) {
			strange += string(c)
		}
		return '-'
	}, row[begin:])
	return row, strange, odd*5 <= all && strings.Count(row, "-") > all/3
}

// Ways to write a cell that mean another.
var (
	harmonic  = regexp.MustCompile(`<(\d{1,2})>`)
	bracketed = regexp.MustCompile(`(^|[hp/\\])\((\d{1,2}[^()/]*)\)($|[^/])`)
	tapped    = regexp.MustCompile(`(^|[hp/\\])[tT](\d)`)
	slid      = regexp.MustCompile(`(\d)[sS]`)
	slideOff  = regexp.MustCompile(`(\d)[sS/\\]$`)
	goal      = regexp.MustCompile(`(\d{1,2})(?:[b^]\((\d{1,2})\)|\^(\d{1,2}))`)
	released  = regexp.MustCompile(`(b\d{1,2})r\(?\d{1,2}\)?`)
	goalless  = regexp.MustCompile(`(\d{1,2})[b^]($|[^\d.])`)
	swayed    = regexp.MustCompile(`(\d)v`)
	trilled   = regexp.MustCompile(`(\d{1,2})tr\((\d{1,2})\)`)
	stepped   = regexp.MustCompile(`(\d{1,2})b(1/2|` + halfSign + `|full|1)($|[^\d.])`)
	wide      = regexp.MustCompile(`(\d)w($|\D)`)
)

// cell writes a cell as it is read, and says what was taken for granted.
func (r *reader) cell(text string) string {
	if harmonic.MatchString(text) {
		r.say("harmonics are read as plain notes")
		text = harmonic.ReplaceAllString(text, "$1")
	}
	text = strings.NewReplacer("H", "h", "P", "p", "X", "x").Replace(text)
	if bracketed.MatchString(text) {
		r.say("frets in brackets are read as plain notes")
		text = bracketed.ReplaceAllString(text, "$1$2$3")
	}
	if tapped.MatchString(text) {
		r.say("tapped notes are read as plain ones")
		text = tapped.ReplaceAllString(text, "$1$2")
	}
	text = trilled.ReplaceAllString(text, "${1}tr$2")
	text = stepped.ReplaceAllStringFunc(text, func(m string) string {
		p := stepped.FindStringSubmatch(m)
		fret, _ := strconv.Atoi(p[1])
		up, rest := 2, p[3]
		switch p[2] {
		case "1/2", halfSign:
			up = 1
		case "1":
			if fret < 2 { // to the fret above
				return m
			}
		}
		return p[1] + "b" + strconv.Itoa(fret+up) + rest
	})
	text = wide.ReplaceAllString(text, "$1~$2")
	text = goal.ReplaceAllString(text, "${1}b$2$3")
	text = released.ReplaceAllString(text, "${1}r")
	if goalless.MatchString(text) {
		r.say("a bend without its goal is taken for a whole step")
		text = goalless.ReplaceAllStringFunc(text, func(m string) string {
			p := goalless.FindStringSubmatch(m)
			fret, _ := strconv.Atoi(p[1])
			return p[1] + "b" + strconv.Itoa(fret+2) + p[2]
		})
	}
	return swayed.ReplaceAllString(text, "$1~")
}

// slides writes the slides of a text without values as they are read: 5s7 is 5/7 there, where
// a text of ours, with values, has it for a slide on and back.
func (r *reader) slides(text string) string {
	text = slid.ReplaceAllString(text, "$1/")
	if slideOff.MatchString(text) {
		r.say("a slide that leads nowhere is left out; its note stays")
		text = slideOff.ReplaceAllString(text, "$1")
	}
	return text
}
