package form

import (
	"regexp"
	"strings"
	"unicode/utf8"

	"undaris/core/harmony"
)

// Players write charts in more ways than one. Each way is made into the one that is read,
// character for character, so that a problem still stands where it is.

// barLines are other strokes that bars are parted by, and spaces that are none.
var barLines = strings.NewReplacer("│", "|", "┃", "|", "‖", "|", "｜", "|", "\u00a0", " ", "\t", " ", "\r", " ")

// tidy makes spaces of what parts chords: commas and lone dashes, but not those within
// brackets.
func tidy(line string) string {
	runes := []rune(barLines.Replace(line))
	depth := 0
	blank := func(i int) bool { return i < 0 || i >= len(runes) || runes[i] == ' ' || runes[i] == '|' }
	for i, c := range runes {
		switch {
		case c == '(' || c == '[':
			depth++
		case c == ')' || c == ']':
			depth = max(0, depth-1)
		case depth > 0:
		case c == ',' || c == ';':
			runes[i] = ' '
		case (c == '-' || c == '–' || c == '—') && blank(i-1) && blank(i+1):
			runes[i] = ' '
		}
	}
	text := string(runes)
	return steps.ReplaceAllStringFunc(text, func(m string) string { return strings.NewReplacer("-", " ", "–", " ").Replace(m) })
}

// steps are three or more steps of the key in a row: 1-4-5.
var steps = regexp.MustCompile(`\b[1-7](?:[-–][1-7]){2,}\b`)

// Lines that are no bars: a heading by itself, and what stands behind a #.
var (
	bracketed = regexp.MustCompile(`^\s*\[([^\]|]+)\]` + often + `\s*$`)
	named     = regexp.MustCompile(`^\s*(\pL[\pL\pN '’.-]*?)` + often + `\s*:\s*$`)
	comment   = regexp.MustCompile(`(?:^|\s)#(?:\s.*|)$`)
)

// headingOf is the name that a line by itself gives to what follows.
func headingOf(line string) (name string, times int, ok bool) {
	for _, kind := range []*regexp.Regexp{bracketed, named, sections} {
		if m := kind.FindStringSubmatch(line); m != nil {
			return strings.TrimSpace(m[1]), timesIn(strings.Join(m[2:], " ")), true
		}
	}
	return "", 0, false
}

// aside is a remark behind two strokes.
var aside = regexp.MustCompile(`(?:^|\s)//\s+(\pL[^|\s]*)[^|]*$`)

// uncommented is a line without its remark.
func uncommented(line string) string {
	if at := aside.FindStringSubmatchIndex(line); at != nil {
		if _, err := harmony.Parse(line[at[2]:at[3]]); err != nil {
			line = line[:at[0]]
		}
	}
	if at := comment.FindStringIndex(line); at != nil {
		return line[:at[0]]
	}
	return line
}

// barless tells that a text has chords and no bar line: each chord is a bar then.
func barless(lines []string) bool {
	for _, line := range lines {
		if strings.Contains(tidy(uncommented(line)), "|") {
			return false
		}
	}
	return true
}

// held tells that a line without bar lines writes its beats out, so that it is one bar.
func held(line string) bool {
	for _, t := range split(tidy(line), 0) {
		if t.text == "." || t.text == "/" {
			return true
		}
	}
	return false
}

// loose reads a line that has no bar lines: a bar for each chord.
func (r *textReader) loose(line string, offset int) {
	r.row = true
	line, signs := unmarked(line, offset)
	if strings.TrimSpace(line) == "" {
		r.mark(signs)
		return
	}
	r.coming.Segno, r.coming.Coda = r.coming.Segno || signs.Segno, r.coming.Coda || signs.Coda
	signs.Segno, signs.Coda = false, false
	if held(line) {
		r.bar(line, offset)
	} else {
		part, at := r.heading(line, offset)
		tokens := joinSigns(split(part, at))
		for i, t := range tokens {
			if i+1 < len(tokens) && ofBar.MatchString(t.text+" "+tokens[i+1].text) {
				continue // a metre goes with the chord behind it
			}
			if i > 0 && ofBar.MatchString(tokens[i-1].text+" "+t.text) {
				gap := t.offset - tokens[i-1].offset - utf8.RuneCountInString(tokens[i-1].text)
				t = token{tokens[i-1].text + strings.Repeat(" ", gap) + t.text, tokens[i-1].offset}
			}
			r.chords++
			r.bar(t.text, t.offset)
		}
	}
	r.mark(signs)
}

// An ending begins with its number, or with those of several: 1. 2. 1.2. 1,2. 1-3. 1) 1st, 2nd time; or with the bare number
// at the bar line.
var (
	ending = regexp.MustCompile(`^\s*\[?((?:[1-9](?:st|nd|rd|th)?[.,)]?\s?[-–&]?\s?)*[1-9](?:(?:st|nd|rd|th)(?:\s+time)?\.?|[.)]))\]?(?:\s+|$)`)
	bare   = regexp.MustCompile(`^([1-9])\s+([^\s1-7b#♭♯./%N]\S*)`)
	many   = regexp.MustCompile(`([1-9])\D{0,4}?[-–]\s?([1-9])|[1-9]`)
)

// endings takes the numbers of an ending off the front of a bar.
func endings(part string, offset int) (rest string, at int, numbers []int) {
	m := ending.FindStringSubmatch(part)
	if m == nil || strings.Contains(m[0], "[") && strings.Contains(part[len(m[0]):], "]") { // [1. Verse] is a heading
		b := bare.FindStringSubmatchIndex(part)
		if b == nil {
			return part, offset, nil
		}
		return part[b[4]:], offset + b[4], []int{int(part[0] - '0')}
	}
	for _, n := range many.FindAllStringSubmatch(m[1], -1) {
		from, to := n[0][0], n[0][0]
		if n[1] != "" {
			from, to = n[1][0], n[2][0]
		}
		for ; from <= to; from++ {
			numbers = append(numbers, int(from-'0'))
		}
	}
	return part[len(m[0]):], offset + utf8.RuneCountInString(m[0]), numbers
}

// slashed is a chord with the strokes of its other beats written to it: C7///.
var slashed = regexp.MustCompile(`^(.*[^/])(/{2,})$`)

// unslashed parts a chord from its strokes, and a row of strokes from each other.
func unslashed(tokens []token) (out []token) {
	for _, t := range tokens {
		chord, strokes := "", t.text
		if m := slashed.FindStringSubmatch(t.text); m != nil {
			chord, strokes = m[1], m[2]
		}
		if strings.Trim(strokes, "/") != "" || len(strokes) < 2 {
			out = append(out, t)
			continue
		}
		at := t.offset
		if chord != "" {
			out = append(out, token{chord, at})
			at += utf8.RuneCountInString(chord)
		}
		for i := range strokes {
			out = append(out, token{"/", at + i})
		}
	}
	return out
}

// same reads a bar that says only that the one before, or two, come again; ok is false
// where it says something else.
func (r *textReader) same(tokens []token) (bars []Bar, ok bool) {
	n := len(r.song.Bars)
	onlyStrokes := true
	for _, t := range tokens {
		onlyStrokes = onlyStrokes && (t.text == "/" || t.text == ".")
	}
	switch word := strings.ToLower(strings.TrimSuffix(tokens[0].text, ".")); {
	case onlyStrokes && n > 0 && len(r.song.Bars[n-1].Changes) > 0: // the chord goes on
		last := r.song.Bars[n-1].Changes
		return []Bar{{Changes: []Change{{0, last[len(last)-1].Chord}}}}, true
	case len(tokens) > 1:
	case word == "%" || word == "sim" || word == "simile":
		if n == 0 {
			r.problem(tokens[0].text, tokens[0].offset, "% repeats the bar before, and this is the first", "")
			return nil, true
		}
		return []Bar{{Changes: r.song.Bars[n-1].Changes}}, true
	case word == "%%":
		if n < 2 {
			r.problem(tokens[0].text, tokens[0].offset, "%% repeats the two bars before, and there are none", "")
			return nil, true
		}
		return []Bar{{Changes: r.song.Bars[n-2].Changes}, {Changes: r.song.Bars[n-1].Changes}}, true
	}
	return nil, false
}

// number is a step of the key in figures, with the kind of its chord: 1, 4, 57, b7, 2-7.
var number = regexp.MustCompile(`^([b#♭♯]?)([1-7])(.*)$`)

// ofKey is a bass in figures: a step of the key, as the chord itself is one.
var ofKey = regexp.MustCompile(`^(.*)/([b#♭♯]?)([1-7])$`)

// step reads it: a plain figure is major, a dash or an m behind it makes it minor.
func (r *textReader) step(text string) (harmony.Chord, bool) {
	m := number.FindStringSubmatch(text)
	if m == nil {
		return harmony.Chord{}, false
	}
	roman, kind := romans[int(m[2][0]-'1')], m[3]
	bass := ofKey.FindStringSubmatch(kind)
	if bass != nil {
		kind = bass[1]
	}
	if rest, minor := cutAny(kind, "-", "−", "min", "mi"); minor {
		roman, kind = strings.ToLower(roman), rest
	} else if strings.HasPrefix(kind, "m") && !strings.HasPrefix(kind, "ma") {
		roman, kind = strings.ToLower(roman), kind[1:]
	}
	c, err := ReadNumeral(m[1]+roman+kind, r.key)
	if err == nil && bass != nil {
		under, err := ReadNumeral(bass[2]+romans[int(bass[3][0]-'1')], r.key)
		c.Bass = under.Root
		return c, err == nil
	}
	return c, err == nil
}
