package form

import (
	"fmt"
	"regexp"
	"strings"
	"unicode"
	"unicode/utf8"

	"undaris/core/harmony"
	"undaris/core/say"
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
// again, 2/4 before a bar for another metre from there on, [Verse] before a bar for a heading, and a new line for a new row. Other
// ways to write the same are read too; see spelling.go. It reads on after a
// problem; the error is a [Problems] with all of them.
//
// What comes back is what is played: repeats, endings and jumps are followed.
func Read(text string, beats int, key Key) (Progression, error) {
	s, _, err := ReadSong(text, beats, key)
	if err != nil {
		return Progression{}, err
	}
	return s.Play(MaxBars), nil
}

// ReadSong is [Read] of what is written, with its signs: |: :| and x3, 1. 2., segno, coda,
// to coda, fine, D.C. and D.S. found is what the text says beside, and what was taken for
// granted.
func ReadSong(text string, beats int, key Key) (s Song, found Found, err error) {
	r := &textReader{beats: beats, key: key, song: Song{Beats: beats}}
	if beats < MinBeats || beats > MaxBeats {
		r.problem("", 0, fmt.Sprintf("%d beats in a bar; between %d and %d can be charted", beats, MinBeats, MaxBeats), "")
		return Song{}, r.found, r.problems
	}
	offset := 0
	lines := strings.Split(strings.ToValidUTF8(text, "\uFFFD"), "\n")
	loose := barless(lines)
	for i, line := range lines {
		if len(r.problems) >= maxProblems || r.bars > MaxBars {
			break
		}
		if r.at = i + 1; r.within(line) {
			offset += utf8.RuneCountInString(line) + 1
			continue
		}
		plain := uncommented(line)
		r.remarked(line, plain)
		name, times, heading := headingOf(plain)
		if lone.MatchString(plain) && !loose {
			name, heading = strings.TrimSpace(plain), true
		}
		if at, into := r.headed(plain); into > 0 && !heading { // the name of a part, and its bars
			r.begin(at.name, at.times)
			plain = strings.Repeat(" ", utf8.RuneCountInString(plain[:into])) + plain[into:]
			line = plain
		}
		chords, among := r.overWords(plain)
		switch tidied := tidy(plain); {
		case r.about(line):
		case among:
			r.loose(tidy(chords), offset)
			if r.among = true; strings.ContainsFunc(inWords.ReplaceAllString(plain, ""), unicode.IsLetter) {
				r.sang()
			}
		case !heading && strings.TrimSpace(plain) != "" && r.sung(plain) && !signsAlone(plain):
			r.sang()
		case heading:
			r.begin(name, times)
			r.coming.Coda = r.coming.Coda || strings.EqualFold(name, "coda")
			r.coming.Segno = r.coming.Segno || strings.EqualFold(name, "segno")
		case loose:
			r.loose(tidied, offset)
		default:
			r.line(tidied, offset)
		}
		offset += utf8.RuneCountInString(line) + 1
	}
	if len(r.song.Bars) == 0 && len(r.problems) == 0 {
		r.problem("", 0, "there are no bars yet; write some, such as | C7 | F7 | C7 | % |", "")
	}
	switch {
	case loose && r.chords > 1:
		r.found.Said = append(r.found.Said, "there are no bar lines: each chord is taken for a bar")
	case r.among:
		r.found.Said = append(r.found.Said, "among words there are no bar lines: each chord is taken for a bar")
	}
	r.endPart()
	r.sayLeft()
	r.settle()
	if len(r.problems) == 0 {
		r.fits()
	}
	if len(r.problems) > 0 {
		return Song{}, r.found, r.problems
	}
	return r.song, r.found, nil
}

// fits refuses a song that is too long when it is played.
func (r *textReader) fits() {
	p := r.song.Play(MaxBars)
	chords := 0
	for _, b := range p.Bars {
		chords += len(b.Changes)
	}
	switch {
	case len(p.Bars) > MaxBars:
		r.problem("", 0, fmt.Sprintf("more than %d bars as it is played; a chart holds %d at most", MaxBars, MaxBars), "")
	case chords > MaxChanges:
		r.problem("", 0, fmt.Sprintf("more than %d chords as it is played; a chart holds %d at most", MaxChanges, MaxChanges), "")
	}
}

// maxProblems is how many are worth reporting at once; it also keeps a hostile
// text cheap.
const maxProblems = 40

type textReader struct {
	beats    int // of the bars that come
	key      Key
	song     Song
	found    Found
	problems Problems
	section  string
	row      bool
	bars     int   // met so far, readable or not
	changed  int   // chords met so far
	chords   int   // of a text without bar lines
	coming   Signs // of the bar that comes
	jumps    []marks
	at       int    // the line in hand, from 1
	foreign  string // the part that is no row of chords, where one has begun
	words    int    // lines of words left out
	wordsAt  int    // the first of them
	among    bool   // chords stood among words
	whole    bool   // a short first bar is said to be no pickup
	// the chorus, as written bars
	chorusFrom, chorusTo int
	part                 stretch
	parts                map[string][]Written // by their names in small letters
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
		if i == 0 && r.metreAlone(part, parts[1:], offset) {
			offset += utf8.RuneCountInString(part) + 1
			continue
		}
		part, signs := unmarked(part, offset)
		if signs.any() && strings.Trim(part, " :[]") == "" {
			r.mark(signs)
			offset += utf8.RuneCountInString(part) + 1
			continue
		}
		blank := strings.Trim(part, " []") == "" && !strings.Contains(part, "[]")
		switch {
		case blank && (i == 0 || i == len(parts)-1 || part == ""):
		default:
			r.coming.Segno, r.coming.Coda = r.coming.Segno || signs.Segno, r.coming.Coda || signs.Coda
			signs.Segno, signs.Coda = false, false
			r.bar(part, offset)
			r.mark(signs)
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
	signs := r.coming
	r.coming = Signs{}
	part, offset, signs.Endings = endings(part, offset)
	part, offset, leads := r.leads(part, offset)
	part, offset = r.heading(part, offset)
	if !leads { // [Verse] pickup as well as pickup [Verse]
		part, offset, leads = r.leads(part, offset)
	}
	if isPickup(r.section) && r.bars == 1 {
		r.section, leads = "", true
	}
	if leads {
		r.coming = signs
		r.pickup(part, offset)
		return
	}
	part, offset, opens, closes := repeats(part, offset)
	if signs.Opens = opens; opens && len(signs.Endings) == 0 {
		part, offset, signs.Endings = endings(part, offset)
		part, offset = r.heading(part, offset)
	}
	part, offset = r.metreOf(part, offset)
	part, offset = r.heading(part, offset) // 2/4 [Bridge] as well as [Bridge] 2/4
	signs.Coda = signs.Coda || strings.EqualFold(r.section, "coda")
	signs.Segno = signs.Segno || strings.EqualFold(r.section, "segno")
	if closes {
		signs.Times = 2
	}
	tokens := r.unadorned(unslashed(joinSigns(split(part, offset))))
	if len(tokens) == 0 {
		r.problem(part, offset, fmt.Sprintf("bar %d is empty; write a chord, %% for the bar before, or N.C. for silence", r.bars), "%")
		return
	}
	bars, same := r.same(tokens)
	for _, b := range bars {
		if n := len(b.Changes); n > 0 && b.Changes[n-1].Beat >= r.beats {
			r.problem(tokens[0].text, tokens[0].offset, say.F("bar %d has %d beats, and the one that comes again has a chord on beat %d; write its chords", r.bars, r.beats, b.Changes[n-1].Beat+1), "")
			return
		}
	}
	if !same {
		bars = []Bar{{Changes: r.changes(tokens)}}
	}
	r.bars += max(0, len(bars)-1)
	for i, b := range bars {
		b.Beats = 0
		if r.beats != r.song.Beats {
			b.Beats = r.beats
		}
		b.Section, b.Row = r.section, r.row && len(r.song.Bars) > 0
		r.section, r.row = "", false
		if r.changed += len(b.Changes); r.changed > MaxChanges {
			r.problem("", offset, fmt.Sprintf("more than %d chords up to bar %d; a chart holds %d at most", MaxChanges, r.bars, MaxChanges), "")
			r.bars = MaxBars + 1
		}
		w := Written{Bar: b, Signs: signs}
		if i > 0 {
			w.Opens, w.Endings, w.Segno, w.Coda = false, nil, false, false
		}
		if i < len(bars)-1 {
			w.Times = 0
		}
		r.song.Bars = append(r.song.Bars, w)
		r.taken()
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
	if !strings.HasPrefix(trimmed, "[") || ofBar.MatchString(trimmed) {
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
	if symbol, _, german := fromGerman(t.text); german {
		refused.Nearest = symbol
	}
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
func (p Progression) Text() string { return Song{}.With(p).Text() }

// NumeralText writes the progression in numerals of the key.
func (p Progression) NumeralText(key Key) string { return Song{}.With(p).NumeralText(key) }

func barText(b Bar, beats int, name func(harmony.Chord) string) string {
	plain := true
	for i, start := range spread(len(b.Changes), beats) {
		plain = plain && b.Changes[i].Beat == start
	}
	var out []string
	for i, c := range b.Changes {
		out = append(out, name(c.Chord))
		end := beats
		if i+1 < len(b.Changes) {
			end = b.Changes[i+1].Beat
		}
		for beat := c.Beat + 1; !plain && beat < end; beat++ {
			out = append(out, ".")
		}
	}
	return strings.Join(out, " ")
}
