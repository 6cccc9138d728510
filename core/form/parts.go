package form

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"undaris/core/harmony"
	"undaris/core/say"
)

// stretch is a part under its name: where its bars begin, and how often it is played.
type stretch struct {
	name  string
	from  int
	times int
}

// A part may be named on the line of its first bars: by a word that parts are called by, or by any before a colon; by a letter
// where no chord of the line is a plain triad.
var (
	beforeBars = regexp.MustCompile(`(?i)^\s*((?:intro|verse|pre-?chorus|chorus|refrain|bridge|middle eight|interlude|break|solo|head|vamp|tag|turnaround|ending|outro|coda)(?:\s+(?:\d{1,2}|[A-D]))?)` + often + `\s*:?\s*\|`)
	colon      = regexp.MustCompile(`^\s*(\pL[\pL\pN '’.-]*?)` + often + `\s*:\s*(\S[^|]*\||\|)`)
	boxed      = regexp.MustCompile(`^\s*\[([^\]|]+)\]` + often + `\s*:?\s*\|`)
	letter     = regexp.MustCompile(`^\s*([A-H])\s*\|`)
	lone       = regexp.MustCompile(`^\s*[A-H]\s*$`)
	triad      = regexp.MustCompile(`(?:^|[\s|])[A-G][b#♭♯]?(?:[\s|]|$)`)
)

// headed finds the name of a part before its bars; into is where they begin, 0 where there is none.
func (r *textReader) headed(line string) (p stretch, into int) {
	m := boxed.FindStringSubmatchIndex(line)
	if m == nil {
		m = beforeBars.FindStringSubmatchIndex(line)
	}
	if m != nil {
		return stretch{name: strings.TrimSpace(line[m[2]:m[3]]), times: timesIn(line[m[2]:m[1]])}, m[1] - 1
	}
	if m := colon.FindStringSubmatchIndex(line); m != nil && !meta.MatchString(line) && !ignored.MatchString(line) {
		name := strings.TrimSpace(line[m[2]:m[3]])
		if _, err := harmony.Parse(name); err != nil || len(name) == 1 {
			return stretch{name: name, times: timesIn(line[m[3]:m[6]])}, m[6]
		}
	}
	if m := letter.FindStringSubmatchIndex(line); m != nil && !triad.MatchString(line[m[3]:]) && strings.TrimSpace(strings.Trim(line[m[3]:], " |")) != "" {
		name := line[m[2]:m[3]]
		r.found.Said = append(r.found.Said, say.F("%s before the bar line is taken for the name of the part; for the chord write | %s |", name, name))
		return stretch{name: name}, m[1] - 1
	}
	return p, 0
}

// often is how often a part is played, behind its name.
const often = `\s*(\(?(?:[x×]\s?\d{1,2}|\d{1,2}\s?[x×])\)?)?`

var oftenAt = regexp.MustCompile(`[x×]\s?(\d{1,2})|(\d{1,2})\s?[x×]`)

func timesIn(text string) int {
	m := oftenAt.FindStringSubmatch(text)
	if m == nil {
		return 0
	}
	n, _ := strconv.Atoi(m[1] + m[2])
	return n
}

// begin begins a part: what the one before asked for is done.
func (r *textReader) begin(name string, times int) {
	r.endPart()
	r.part = stretch{name, len(r.song.Bars), times}
	r.section = name
	r.coming.Coda = r.coming.Coda || strings.EqualFold(name, "coda")
	r.coming.Segno = r.coming.Segno || strings.EqualFold(name, "segno")
}

// endPart has the part that ends played as often as it says. One without bars whose name was there before is played again.
func (r *textReader) endPart() {
	p := r.part
	r.part = stretch{}
	key := strings.ToLower(p.name)
	if key == "" || key == "coda" || key == "segno" || isPickup(key) {
		return
	}
	bars := slices.Clone(r.song.Bars[min(p.from, len(r.song.Bars)):])
	for i := range bars {
		if i > 0 && bars[i].Section != "" { // another begins within the row
			bars = bars[:i]
			break
		}
	}
	if len(bars) == 0 {
		known := r.parts[key]
		if r.section = ""; known == nil {
			r.found.Said = append(r.found.Said, say.F("%s has no bars, and was left out", p.name))
			return
		}
		r.found.Said = append(r.found.Said, say.F("%s is played again", p.name))
		r.write(known)
		bars = slices.Clone(r.song.Bars[p.from:])
	} else {
		if r.parts == nil {
			r.parts = map[string][]Written{}
		}
		r.parts[key] = bars
	}
	if p.times < 2 {
		return
	}
	if !slices.ContainsFunc(bars, func(w Written) bool { return w.Signs.Any() }) {
		r.song.Bars[p.from].Opens, r.song.Bars[p.from+len(bars)-1].Times = true, p.times
		return
	}
	for range p.times - 1 {
		r.write(bars)
	}
}

// Any tells that a bar has a sign.
func (s Signs) Any() bool {
	return s.Opens || len(s.Endings) > 0 || s.Times > 0 || s.Segno || s.Coda || s.ToCoda || s.Fine || s.Jump != NoJump
}

// write writes bars once more, without the signs that lead elsewhere.
func (r *textReader) write(bars []Written) {
	for i, w := range bars {
		w.Row = w.Row || i == 0
		w.Segno, w.Coda, w.ToCoda, w.Fine, w.Jump = false, false, false, false, NoJump
		if r.bars++; r.bars > MaxBars {
			return
		}
		r.song.Bars = append(r.song.Bars, w)
	}
}

// aloneMetre is a metre by itself before the first bar line.
var aloneMetre = regexp.MustCompile(`^\s*([(\[]?)(\d{1,2})/(\d{1,2})[)\]]?\s*$`)

// metreAlone takes a metre that stands by itself before the bars of a line; among steps in figures it is a chord.
func (r *textReader) metreAlone(part string, bars []string, offset int) bool {
	m := aloneMetre.FindStringSubmatch(part)
	if m == nil {
		return false
	}
	if chords := split(strings.Join(bars, " "), 0); len(chords) > 0 && m[1] == "" {
		if _, figure := r.step(chords[0].text); figure {
			return false
		}
	}
	text := strings.TrimSpace(part)
	n, ok := beatsIn(m[2], m[3])
	if !ok {
		r.problem(text, offset+strings.Index(part, text), say.F("%s cannot be charted; a bar has %s", text, ofBars), "4/4")
		return true
	}
	if r.beats = n; m[3] == "8" {
		r.inThrees(text, n)
	}
	return true
}

// unadorned takes off chords what players put to them and a chart does not hold: brackets, and the sign of a push.
func (r *textReader) unadorned(tokens []token) []token {
	note := func(says string) {
		if !slices.Contains(r.found.Said, says) {
			r.found.Said = append(r.found.Said, says)
		}
	}
	for i, t := range tokens {
		in := t.text
		if rest, pushed := cutAny(in, ">", "<", "^"); pushed && r.chordlike(rest) && rest != "" {
			note("a push is not charted: the chord stands on its beat")
			in = rest
		}
		if cut := strings.TrimSuffix(strings.TrimPrefix(in, "("), ")"); len(cut) == len(in)-2 && cut != "" && r.chordlike(cut) && strings.Trim(cut, "./%-x") != "" {
			note("a chord in brackets is played as the others")
			in = cut
		}
		if in != t.text {
			tokens[i] = token{in, t.offset + utf8.RuneCountInString(t.text[:strings.Index(t.text, in)])}
		}
	}
	return tokens
}
