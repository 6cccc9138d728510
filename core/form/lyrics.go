package form

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"undaris/core/harmony"
)

// Found is what a text says beside its bars.
type Found struct {
	Title string
	Key   string // as [ParseKey] reads it
	Feel  string // an ID of [Feels]
	Tempo int    // beats a minute
	Beats int    // in a bar
	Up    int    // half steps from what is written to what sounds: of a capo, or of a transposition that the text asks for
	Beside
	Said []string
}

// Beside is what a chart holds beside its bars and how they are counted.
type Beside struct {
	Swing         int    // where the second eighth falls in its beat, percent; 0 follows the tempo
	Remarks       string // the player's own, line by line
	Tags          string // words to find it by, with commas between
	Intro, Ending string // as the band names them
	Reading       string // an ID of [Readings]: in which pitch the player reads it; "" as it sounds
}

// Facts are those that are not empty, by the names that files give them.
func (b Beside) Facts() (list [][2]string) {
	swing := ""
	if b.Swing > 0 {
		swing = strconv.Itoa(b.Swing)
	}
	for _, f := range [][2]string{{"swing", swing}, {"tags", b.Tags}, {"band intro", b.Intro}, {"band ending", b.Ending}, {"reading", b.Reading}} {
		if f[1] != "" {
			list = append(list, f)
		}
	}
	for line := range strings.Lines(b.Remarks) {
		if line = strings.TrimSpace(line); line != "" {
			list = append(list, [2]string{"remark", line})
		}
	}
	return list
}

// Take reads a fact by its name, as [Beside.Facts] gives it; ok is false where it is none.
func (b *Beside) Take(name, value string) (ok bool) {
	r := textReader{}
	if known := slices.ContainsFunc(Beside{Swing: 50, Remarks: "x", Tags: "x", Intro: "x", Ending: "x", Reading: "x"}.Facts(), func(f [2]string) bool { return f[0] == name }); !known {
		return false
	}
	r.found.Beside = *b
	r.tell(name, value)
	*b = r.found.Beside
	return true
}

// A line may say something of the whole: in braces, or as a word with a colon.
var (
	directive = regexp.MustCompile(`^\s*\{\s*([\pL\d_-]+)\s*(?:[:\s]\s*([^}]*))?\}\s*$`)
	meta      = regexp.MustCompile(`(?i)^\s*(title|key|tempo|bpm|swing|feel|groove|time|metre|meter|tags?|band intro|band ending|reading|remark|capo|transpose|notes?)\s*[:=]\s*(\S.*?)\s*$`)
	ignored   = regexp.MustCompile(`(?i)^\s*(artist|by|composer|words|music|album|year|copyright)\s*[:=]\s*\S`)
	sections  = regexp.MustCompile(`(?i)^\s*((?:intro|verse|pre-?chorus|chorus|refrain|bridge|middle eight|interlude|break|solo|head|vamp|tag|turnaround|ending|outro|coda)(?:\s+(?:\d{1,2}|[A-D]))?)` + often + `\s*$`)
	metre     = regexp.MustCompile(`^(\d{1,2})\s*/\s*(\d{1,2})$`)
	digits    = regexp.MustCompile(`\d{2,3}`)
	inWords   = regexp.MustCompile(`\[([^\][|]*)\]`)
)

// short are the short names of directives.
var short = map[string]string{"t": "title", "sov": "start_of_verse", "soc": "start_of_chorus", "sob": "start_of_bridge", "sog": "start_of_grid",
	"sot": "start_of_tab", "eot": "end_of_tab", "x_tag": "tag", "x_intro": "band intro", "x_ending": "band ending",
	"eov": "end_of_verse", "eoc": "end_of_chorus", "eob": "end_of_bridge", "eog": "end_of_grid"}

// about reads a line that says something of the whole or begins a part; ok is false where it
// is none.
func (r *textReader) about(line string) (ok bool) {
	if m := directive.FindStringSubmatch(line); m != nil {
		name := strings.ToLower(m[1])
		if long, known := short[name]; known {
			name = long
		}
		part, begins := strings.CutPrefix(name, "start_of_")
		switch {
		case begins && part == "chorus":
			r.chorusFrom = len(r.song.Bars)
			r.section = labelled(m[2], "Chorus")
		case begins && foreignParts[part] != "":
			r.foreign = part
			r.note("line %d: %s was left out", r.at, foreignParts[part])
		case begins && part == "grid":
			r.section = strings.TrimSpace(m[2])
		case begins:
			r.section = labelled(m[2], strings.ToUpper(part[:1])+part[1:])
		case name == "end_of_chorus":
			r.chorusTo = len(r.song.Bars)
		case name == "chorus" && r.chorusTo > r.chorusFrom:
			r.chorusAgain()
		default:
			r.tell(name, m[2])
		}
		return true
	}
	if m := meta.FindStringSubmatch(line); m != nil {
		r.tell(strings.ToLower(m[1]), m[2])
		return true
	}
	return ignored.MatchString(line)
}

func labelled(label, usual string) string {
	if label = strings.TrimSpace(label); label == "" {
		return usual
	}
	return label
}

// tell notes what a text says of the whole.
func (r *textReader) tell(name, value string) {
	value = strings.TrimSpace(value)
	switch name {
	case "title":
		r.found.Title = value
	case "key":
		k, err := ParseKey(value)
		if err != nil {
			r.unreadable("key", value)
			return
		}
		if r.found.Key != "" && r.found.Key != k.String() {
			r.note("line %d: another key, %s; a chart has one, the last", r.at, k)
		}
		r.found.Key = k.String()
	case "feel", "groove", "x_feel":
		f, ok := FeelNamed(value)
		if !ok {
			r.unreadable("feel", value)
			return
		}
		r.found.Feel = f.ID
	case "tag", "tags":
		if value != "" && r.found.Tags != "" {
			value = r.found.Tags + ", " + value
		}
		r.found.Tags = value
	case "band intro":
		r.found.Intro = strings.ToLower(value)
	case "band ending":
		r.found.Ending = strings.ToLower(value)
	case "reading", "x_reading":
		if as, err := ReadingByID(strings.ToLower(value)); err != nil {
			r.unreadable("reading", value)
		} else if r.found.Reading = as.ID; as.Up == 0 {
			r.found.Reading = ""
		}
	case "capo":
		r.capo(value)
	case "transpose":
		if n, err := strconv.Atoi(strings.TrimPrefix(value, "+")); err != nil || n < -maxTranspose || n > maxTranspose {
			r.unreadable("transposition", value)
		} else if r.found.Up += n; n != 0 {
			r.note("the chords were moved %s: the transposition that the text asks for", moved(n))
		}
	case "remark":
		r.remark(value)
	case "swing", "x_swing":
		if n, err := strconv.Atoi(digits.FindString(value)); err == nil && n >= MinSwing && n <= MaxSwing {
			r.found.Swing = n
		} else {
			r.unreadable("swing", value)
		}
	case "tempo", "bpm":
		if n, err := strconv.Atoi(digits.FindString(value)); err == nil && n >= MinTempo && n <= MaxTempo {
			r.found.Tempo = n
		} else {
			r.unreadable("tempo", value)
		}
	case "time", "metre", "meter":
		if m := metre.FindStringSubmatch(value); m != nil {
			n, ok := beatsIn(m[1], m[2])
			if ok && m[2] == "8" {
				r.inThrees(value, n)
			}
			switch {
			case ok && len(r.song.Bars) > 0: // it changes on the way
				r.beats = n
			case ok && n >= MinBeats:
				r.found.Beats = n
			default:
				r.note("a time of %s cannot be charted; a bar has %s", value, ofBars)
			}
		} else {
			r.unreadable("time", value)
		}
	default:
		r.other(name, value)
	}
}

// chorusAgain writes the chorus out once more.
func (r *textReader) chorusAgain() {
	for i, w := range r.song.Bars[r.chorusFrom:r.chorusTo] {
		if i == 0 && w.Section == "" {
			w.Section = "Chorus"
		}
		w.Row = w.Row || i == 0
		if r.bars++; r.bars > MaxBars {
			return
		}
		r.song.Bars = append(r.song.Bars, w)
	}
}

// chordlike tells that a word is a chord, a step, or a sign between chords.
func (r *textReader) chordlike(word string) bool {
	switch strings.ToLower(strings.Trim(word, ".()")) {
	case "", "/", "%", "%%", "sim", "simile", "-", "x", "|":
		return true
	}
	if _, ok := r.step(word); ok {
		return true
	}
	if strings.Trim(word, "/") == "" {
		return true
	}
	if _, err := ReadNumeral(word, r.key); err == nil {
		return true
	}
	_, err := harmony.Parse(strings.TrimRight(word, "/"))
	return err == nil
}

// longestWords is how long a line of words is at most, in bytes.
const longestWords = 2000

// sung tells that a line is words to be sung and no chords: no bar lines, and at least half
// of it words.
func (r *textReader) sung(line string) bool {
	if strings.Contains(line, "|") || len(line) > longestWords {
		return false
	}
	line, _ = unmarked(line, 0)
	words, others := 0, 0
	for _, word := range strings.Fields(line) {
		bare := strings.TrimFunc(word, func(c rune) bool { return !unicode.IsLetter(c) })
		letters := utf8.RuneCountInString(bare) >= 2 && !strings.ContainsAny(word, "0123456789") && strings.IndexFunc(bare, func(c rune) bool { return !unicode.IsLetter(c) && c != '\'' && c != '’' && c != '-' }) < 0
		switch {
		case r.chordlike(word):
			others++
		case letters:
			words++
		default:
			others++
		}
	}
	return words > 0 && words >= others
}

// overWords leaves of a line with chords in brackets among words the chords alone, each where
// it stands; ok is false where it is no such line.
func (r *textReader) overWords(line string) (chords string, ok bool) {
	if strings.Contains(line, "|") || len(line) > longestWords {
		return line, false
	}
	all := inWords.FindAllStringSubmatchIndex(line, -1)
	rest := inWords.ReplaceAllString(line, " ")
	n := 0
	for _, at := range all {
		if word := line[at[2]:at[3]]; word != "" && r.chordlike(strings.TrimSpace(word)) {
			n++
		}
	}
	if n == 0 || n < len(all) && n < 2 || n == 1 && strings.TrimSpace(rest) == "" {
		return line, false
	}
	if n == 1 && !r.sung(rest) { // [A] C7 F7 is a part by the name of A
		return line, false
	}
	out := []byte(nil)
	last := 0
	blank := func(text string) {
		out = append(out, strings.Repeat(" ", utf8.RuneCountInString(text))...)
	}
	for _, at := range all {
		blank(line[last:at[2]])
		out = append(out, line[at[2]:at[3]]...)
		last = at[3]
	}
	blank(line[last:])
	return string(out), true
}

// sang counts a line with words that are left out.
func (r *textReader) sang() {
	if r.words++; r.words == 1 {
		r.wordsAt = r.at
	}
}

// sayLeft tells what was left out.
func (r *textReader) sayLeft() {
	switch {
	case r.words == 1:
		r.note("a line of words was left out: line %d", r.wordsAt)
	case r.words > 1:
		r.note("%d lines of words were left out, the first: line %d", r.words, r.wordsAt)
	}
}
