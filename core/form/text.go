package form

import (
	"fmt"
	"regexp"
	"strings"
	"unicode/utf8"

	"undaris/core/harmony"
)

// Problem is one thing in a progression's text that cannot be read.
type Problem struct {
	Message string
	Text    string // what stands there
	Offset  int    // of Text, in characters from the start of the whole text
	Length  int    // of Text in characters
	Bar     int    // counted from 1; 0 when it concerns the whole
	Nearest string // a reading that would work, if one is near
}

// Problems is the error [Read] returns.
type Problems []Problem

func (ps Problems) Error() string {
	var s []string
	for _, p := range ps {
		s = append(s, p.Message)
	}
	return strings.Join(s, "; ")
}

// Read reads the text form: bar lines |, chords or numerals of the key, several
// to a bar spread evenly or beat by beat with dots ("C7 . . G7"), % for a bar
// again, [Verse] before a bar for a heading, and a new line for a new row. Other
// ways to write the same are read too; see spelling.go. It reads on after a
// problem; the error is a [Problems] with all of them.
func Read(text string, beats int, key Key) (Progression, error) {
	r := &textReader{beats: beats, key: key, p: Progression{Beats: beats}}
	if beats < MinBeats || beats > MaxBeats {
		r.problem("", 0, fmt.Sprintf("%d beats in a bar; between %d and %d can be charted", beats, MinBeats, MaxBeats), "")
		return Progression{}, r.problems
	}
	offset := 0
	lines := strings.Split(text, "\n")
	loose := barless(lines)
	for _, line := range lines {
		name, heading := headingOf(line)
		switch tidied := tidy(uncommented(line)); {
		case heading:
			r.section = name
		case loose:
			r.loose(tidied, offset)
		default:
			r.line(tidied, offset)
		}
		offset += utf8.RuneCountInString(line) + 1
	}
	if len(r.p.Bars) == 0 && len(r.problems) == 0 {
		r.problem("", 0, "there are no bars yet; write some, such as | C7 | F7 | C7 | % |", "")
	}
	if len(r.problems) > 0 {
		return Progression{}, r.problems
	}
	return r.p, nil
}

// maxProblems is how many are worth reporting at once; it also keeps a hostile
// text cheap.
const maxProblems = 40

type textReader struct {
	beats    int
	key      Key
	p        Progression
	problems Problems
	section  string
	row      bool
	bars     int // met so far, readable or not
	changed  int // chords met so far
	from     int // the bar at which a repeat begins
	first    int // the bar at which its first ending begins; 0 is none
}

func (r *textReader) problem(text string, offset int, message, nearest string) {
	r.problems = append(r.problems, Problem{message, text, offset, utf8.RuneCountInString(text), r.bars, nearest})
}

// line reads one row. A stretch between bar lines that holds only blanks is an
// empty bar, but not before the first bar line, behind the last, or between
// the two strokes of a double bar line.
func (r *textReader) line(line string, offset int) {
	r.row = true
	parts := strings.Split(strings.TrimRight(line, " \t\r"), "|")
	for i, part := range parts {
		blank := strings.Trim(part, " []") == "" && !strings.Contains(part, "[]")
		switch {
		case blank && (i == 0 || i == len(parts)-1 || part == ""):
		default:
			r.bar(part, offset)
		}
		offset += utf8.RuneCountInString(part) + 1
	}
}

type token struct {
	text   string
	offset int
}

func (r *textReader) bar(part string, offset int) {
	r.bars++
	if r.bars == MaxBars+1 {
		r.problem("", offset, fmt.Sprintf("more than %d bars; a chart holds %d at most", MaxBars, MaxBars), "")
	}
	if r.bars > MaxBars || len(r.problems) >= maxProblems {
		return
	}
	part, offset = r.endings(part, offset)
	part, offset = r.heading(part, offset)
	part, offset, opens, closes := repeats(part, offset)
	if opens {
		r.from, r.first = len(r.p.Bars), 0
		part, offset = r.endings(part, offset)
	}
	if closes {
		defer r.again(offset)
	}
	tokens := unslashed(joinSigns(split(part, offset)))
	if len(tokens) == 0 {
		r.problem(part, offset, fmt.Sprintf("bar %d is empty; write a chord, %% for the bar before, or N.C. for silence", r.bars), "%")
		return
	}
	bars, same := r.same(tokens)
	if !same {
		bars = []Bar{{Changes: r.changes(tokens)}}
	}
	r.bars += max(0, len(bars)-1)
	for _, b := range bars {
		b.Section, b.Row = r.section, r.row && len(r.p.Bars) > 0
		r.section, r.row = "", false
		if r.changed += len(b.Changes); r.changed > MaxChanges {
			r.problem("", offset, fmt.Sprintf("more than %d chords up to bar %d; a chart holds %d at most", MaxChanges, r.bars, MaxChanges), "")
			r.bars = MaxBars + 1
		}
		r.p.Bars = append(r.p.Bars, b)
	}
}

// repeats takes the signs of a repeat off a bar: a colon behind the bar line at
// its start, or before the one at its end.
func repeats(part string, offset int) (rest string, at int, opens, closes bool) {
	rest = strings.TrimLeft(part, " \t")
	if cut, ok := strings.CutPrefix(rest, ":"); ok {
		part, opens = cut, true
		offset += utf8.RuneCountInString(rest) - utf8.RuneCountInString(cut)
	}
	trimmed := strings.TrimRight(part, " \t\r")
	if cut, ok := strings.CutSuffix(trimmed, ":"); ok {
		part, closes = cut, true
	}
	return part, offset, opens, closes
}

// again plays the bars since the last repeat began once more, up to a first ending.
func (r *textReader) again(offset int) {
	end := len(r.p.Bars)
	if r.first > r.from {
		end, r.first = r.first, 0
	}
	n := end - r.from
	if r.bars+n > MaxBars {
		r.problem("", offset, fmt.Sprintf("more than %d bars with the repeats written out; a chart holds %d at most", MaxBars, MaxBars), "")
		r.bars = MaxBars + 1
		return
	}
	for i, b := range r.p.Bars[r.from:end] {
		b.Section, b.Row = "", b.Row || i == 0
		if r.changed += len(b.Changes); r.changed > MaxChanges {
			r.problem("", offset, fmt.Sprintf("more than %d chords with the repeats written out; a chart holds %d at most", MaxChanges, MaxChanges), "")
			r.bars = MaxBars + 1
			return
		}
		r.p.Bars = append(r.p.Bars, b)
	}
	r.bars += n
	r.from = len(r.p.Bars)
}

// sign is what belongs to the chord before it, written apart: C7 b9, C7 (b9).
var sign = regexp.MustCompile(`^\(?(?:[b#♭♯+−-]\d|sus|add|alt|no[35]|omit)`)

func joinSigns(tokens []token) (out []token) {
	for _, t := range tokens {
		if n := len(out); n > 0 && sign.MatchString(t.text) && strings.ContainsAny(out[n-1].text[:1], "ABCDEFG") {
			gap := strings.Repeat(" ", t.offset-out[n-1].offset-utf8.RuneCountInString(out[n-1].text))
			out[n-1].text += gap + t.text
			continue
		}
		out = append(out, t)
	}
	return out
}

// heading takes a [Section] off the front of a bar.
func (r *textReader) heading(part string, offset int) (string, int) {
	trimmed := strings.TrimLeft(part, " \t")
	if !strings.HasPrefix(trimmed, "[") {
		return part, offset
	}
	name, rest, closed := strings.Cut(trimmed[1:], "]")
	if !closed {
		r.problem(trimmed, offset+len(part)-len(trimmed), fmt.Sprintf("bar %d: a heading begins with [ and does not end; close it with ]", r.bars), "")
		return "N.C.", offset
	}
	r.section = strings.TrimSpace(name)
	return rest, offset + utf8.RuneCountInString(part) - utf8.RuneCountInString(rest)
}

func split(part string, offset int) []token {
	var out []token
	start := -1
	runes := []rune(part + " ")
	for i, c := range runes {
		space := c == ' ' || c == '\t' || c == '\r' || c == '\u00a0'
		switch {
		case space && start >= 0:
			out = append(out, token{string(runes[start:i]), offset + start})
			start = -1
		case !space && start < 0:
			start = i
		}
	}
	return out
}

func (r *textReader) changes(tokens []token) []Change {
	var changes []Change
	dotted := false
	for i, t := range tokens {
		if len(r.problems) >= maxProblems {
			break
		}
		if t.text == "." || t.text == "/" {
			dotted = true
			if i == 0 {
				r.problem(t.text, t.offset, fmt.Sprintf("bar %d begins with %q, which holds a chord; write the chord first", r.bars, t.text), "")
			}
			continue
		}
		if c, ok := r.chord(t); ok {
			changes = append(changes, Change{i, c})
		}
	}
	switch {
	case dotted && len(tokens) != r.beats:
		r.problem(tokens[0].text, tokens[0].offset, fmt.Sprintf("bar %d has %d beats written out; it needs %d", r.bars, len(tokens), r.beats), "")
	case len(tokens) > r.beats:
		r.problem(tokens[0].text, tokens[0].offset, fmt.Sprintf("bar %d has %d chords on %d beats; one a beat is the most", r.bars, len(tokens), r.beats), "")
	case !dotted:
		for i, start := range spread(len(changes), r.beats) {
			changes[i].Beat = start
		}
	}
	return changes
}

func (r *textReader) chord(t token) (harmony.Chord, bool) {
	if strings.ContainsAny(t.text[:1], "IViv#b") || strings.HasPrefix(t.text, "♭") || strings.HasPrefix(t.text, "♯") {
		if c, err := ReadNumeral(t.text, r.key); err == nil {
			return c, true
		}
	}
	if c, ok := r.step(t.text); ok {
		return c, true
	}
	if strings.Contains(t.text, ":") {
		r.problem(t.text, t.offset, fmt.Sprintf("bar %d: repeat signs are not read; write the bars out", r.bars), "")
		return harmony.Chord{}, false
	}
	c, err := harmony.Parse(t.text)
	if err == nil {
		return c, true
	}
	refused := err.(*harmony.SymbolError)
	r.problem(t.text, t.offset, fmt.Sprintf("bar %d: %s", r.bars, refused.Error()), refused.Nearest)
	return harmony.Chord{}, false
}

// spread gives the beats on which n chords begin when none is written out:
// halves first, then the later chords shorter (two in four: 0 2; three: 0 2 3).
func spread(n, beats int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = (i*beats + n - 1) / n
	}
	return out
}

// Text writes the progression so that [Read] gives it back.
func (p Progression) Text() string { return p.text(harmony.Chord.String) }

// NumeralText writes the progression in numerals of the key.
func (p Progression) NumeralText(key Key) string {
	return p.text(func(c harmony.Chord) string { return Numeral(c, key) })
}

func (p Progression) text(name func(harmony.Chord) string) string {
	var s strings.Builder
	for i, b := range p.Bars {
		if i > 0 && b.Row {
			s.WriteString("|\n")
		}
		s.WriteString("| ")
		if b.Section != "" {
			s.WriteString("[" + b.Section + "] ")
		}
		s.WriteString(p.barText(b, name) + " ")
	}
	s.WriteString("|")
	return s.String()
}

func (p Progression) barText(b Bar, name func(harmony.Chord) string) string {
	plain := true
	for i, start := range spread(len(b.Changes), p.Beats) {
		plain = plain && b.Changes[i].Beat == start
	}
	var out []string
	for i, c := range b.Changes {
		out = append(out, name(c.Chord))
		end := p.Beats
		if i+1 < len(b.Changes) {
			end = b.Changes[i+1].Beat
		}
		for beat := c.Beat + 1; !plain && beat < end; beat++ {
			out = append(out, ".")
		}
	}
	return strings.Join(out, " ")
}

// hRoot is a root as it is named in German and Nordic countries.
var hRoot = regexp.MustCompile(`(^|[\s|(/\]:])([HB])(b|♭|#|♯|)`)

// FromH rewrites a text in which H is the note below C and B the one below that,
// as German and Nordic players write them. ok is false where no chord has the
// root H, by which such a text is known.
func FromH(text string) (rewritten string, ok bool) {
	rewritten = hRoot.ReplaceAllStringFunc(text, func(m string) string {
		p := hRoot.FindStringSubmatch(m)
		switch {
		case p[2] == "H":
			ok = true
			return p[1] + "B" + p[3]
		case p[3] == "":
			return p[1] + "Bb"
		}
		return m
	})
	return rewritten, ok
}
