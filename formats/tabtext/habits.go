package tabtext

import (
	"regexp"
	"strings"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

var (
	figures = regexp.MustCompile(`\d{2,3}`)
	// tuned is a line that says how to tune, in words.
	tuned = regexp.MustCompile(`(?i)^\W*(?:(?:tuned?|tuning)\b[: ]*)?(?:(?:down )?(?:a |one )?(?:half|whole|1/2|full)[- ]steps? ?(?:down|lower)?|drop d|open [dg]|dadgad|standard tuning)\W*$`)
	half  = regexp.MustCompile(`(?i)(?:half|1/2)[- ]step`)
	whole = regexp.MustCompile(`(?i)(?:whole|full)[- ]step`)
	// bracket is what holds three together, above a row.
	bracket = regexp.MustCompile(`^\s{2,}\|-{1,4}\s?\d\s?-{1,4}\|\s*$`)
	muted   = regexp.MustCompile(`P\.?M\.?[- .]*\|?`)
	ordinal = regexp.MustCompile(`^\s*(\d)\s*[|:]`)
)

// tuningOf is a tuning as it is read here: by a name, in words, or in letters without octaves, which lie nearest to those of a
// guitar. What is none of these stays as it is.
func tuningOf(text string) string {
	plain := strings.ToLower(strings.Join(strings.Fields(strings.NewReplacer(":", " ", "-", " ").Replace(text)), " "))
	down := 0
	switch {
	case half.MatchString(text):
		down = 1
	case whole.MatchString(text):
		down = 2
	}
	standard := neck.Standard()
	if down > 0 {
		var out []string
		for str := standard.Strings(); str >= 1; str-- {
			midi := standard.MIDI(neck.Placement{String: str}) - down
			out = append(out, pitch.At(midi, flat(midi)).String())
		}
		return strings.Join(out, ",")
	}
	for _, t := range neck.Tunings {
		if name := strings.ToLower(t.Name); plain == name || strings.Contains(plain, name) && len(name) > 4 {
			return t.Open
		}
	}
	letters, rest := lettersIn(text)
	if rest != "" || len(letters) != standard.Strings() {
		return text
	}
	var out []string
	for i, name := range letters {
		usual := standard.MIDI(neck.Placement{String: standard.Strings() - i})
		best := usual - pitch.Class(usual-name.Class())
		if usual-best > 6 {
			best += 12
		}
		out = append(out, pitch.At(best, name).String())
	}
	return strings.Join(out, ",")
}

// flat names a pitch class as players name lowered strings.
func flat(midi int) pitch.Name {
	for _, n := range pitch.Roots {
		if n.Class() == pitch.Class(midi) && n.Alter <= 0 {
			return n
		}
	}
	return pitch.Name{}
}

// lettersIn are names of notes one after the other; rest is what is none.
func lettersIn(text string) (names []pitch.Name, rest string) {
	for text = strings.TrimSpace(text); text != ""; text = strings.TrimLeft(text, " ,-") {
		n, size, ok := pitch.ReadName(strings.ToUpper(text[:1]) + text[1:])
		if !ok || n.Alter < -1 || n.Alter > 1 {
			return names, text
		}
		names, text = append(names, n), text[size:]
	}
	return names, ""
}

// timed tells that a line holds nothing but note values.
func timed(line string) bool {
	words := strings.Fields(line)
	for _, w := range words {
		if !valuey.MatchString(w) {
			return false
		}
	}
	return len(words) > 0
}

// leave counts a line that is no tablature.
func (r *reader) leave(line string, at int) {
	if r.left++; r.left == 1 {
		r.leftAt = at
		words := []rune(strings.Join(strings.Fields(line), " "))
		r.first = string(words[:min(len(words), 60)])
	}
}

// leavePending leaves lines of chords that stand over no row.
func (r *reader) leavePending() {
	for _, l := range r.pending {
		r.leave(l.line, l.at)
	}
	r.pending = nil
}

func (r *reader) sayLeft() {
	switch {
	case r.left == 1:
		r.say("line %d is no tablature, and was left out: %s", r.leftAt, r.first)
	case r.left > 1:
		r.say("%d lines that are no tablature were left out, the first, line %d: %s", r.left, r.leftAt, r.first)
	}
}

// mostWrapped is how many blocks may follow each other without a blank line.
const mostWrapped = 32

// wrapped parts rows that no blank line parts: as many as the instrument has strings at a time, the first of each called as the
// first of all.
func (r *reader) wrapped(block []string) (out [][]string) {
	n := r.s.In.Strings()
	name := func(l string) string { return strings.TrimSpace(prefix.FindString(l[:min(len(l), 24)])) }
	if len(block)%n != 0 {
		return [][]string{block}
	}
	for at := 0; at < len(block); at += n {
		if name(block[at]) != name(block[0]) {
			return [][]string{block}
		}
		out = append(out, block[at:at+n])
	}
	return out
}

// told tells that a line of chords says again what the text says of them already.
func (r *reader) told(line string) bool {
	if r.chords == "" {
		return false
	}
	for _, word := range strings.Fields(line) {
		if _, err := harmony.Parse(word); err != nil && strings.Trim(word, "|%.") != "" {
			return false
		}
	}
	return true
}

// numbered reads rows that are called by the numbers of their strings: the highest comes first.
func (r *reader) numbered(lines []string) []string {
	var order []int
	for _, l := range lines {
		m := ordinal.FindStringSubmatch(l)
		if m == nil {
			return lines
		}
		order = append(order, int(m[1][0]-'0'))
	}
	up := order[0] == len(order)
	for i, n := range order {
		if want := map[bool]int{true: len(order) - i, false: i + 1}[up]; n != want {
			return lines
		}
	}
	out := make([]string, len(lines))
	for i, l := range lines {
		at := ordinal.FindStringSubmatchIndex(l)
		out[i] = l[:at[2]] + " " + l[at[3]:]
	}
	return r.upright(out, !up, "")
}

// mutesIn are the columns of palm mutes in the lines over a block.
func mutesIn(above []string) (out [][2]int) {
	for _, l := range above {
		if !strings.Contains(l, "P") {
			continue
		}
		for _, at := range muted.FindAllStringIndex(l, -1) {
			out = append(out, [2]int{at[0], at[1]})
		}
	}
	return out
}

func (r *reader) mutedAt(col int) bool {
	for _, m := range r.mutes {
		if col >= m[0] && col < m[1] {
			return true
		}
	}
	return false
}
