package form

import (
	"cmp"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"undaris/core/say"
)

// BeatsOf is how many beats a bar has. Before the first and behind the last they are as many
// as the progression's.
func (p Progression) BeatsOf(bar int) int {
	if bar >= 0 && bar < len(p.Bars) && p.Bars[bar].Beats > 0 {
		return p.Bars[bar].Beats
	}
	return p.Beats
}

// StartOf is the beat on which a bar begins, counted from the top; it is negative before the
// first bar, and of the one behind the last the length of the whole.
func (p Progression) StartOf(bar int) int {
	if bar <= 0 {
		return bar * p.Beats
	}
	beat := 0
	for i := range min(bar, len(p.Bars)) {
		beat += p.BeatsOf(i)
	}
	return beat + max(0, bar-len(p.Bars))*p.Beats
}

// BeatOf is the beat from the top on which a change lies.
func (p Progression) BeatOf(at Place) int { return p.StartOf(at.Bar) + at.Beat }

// Length is the whole in beats.
func (p Progression) Length() int { return p.StartOf(len(p.Bars)) }

// BarAt is the bar in which a beat from the top lies, and which beat of it, from 0. It is the
// inverse of [Progression.StartOf].
func (p Progression) BarAt(beat int) (bar, in int) {
	if beat < 0 {
		bar = (beat+1)/p.Beats - 1
		return bar, beat - bar*p.Beats
	}
	for i := range p.Bars {
		n := p.BeatsOf(i)
		if beat < n {
			return i, beat
		}
		beat -= n
	}
	return len(p.Bars) + beat/p.Beats, beat % p.Beats
}

// Even tells that all bars have the same number of beats.
func (p Progression) Even() bool {
	for i := range p.Bars {
		if p.BeatsOf(i) != p.Beats {
			return false
		}
	}
	return true
}

// Lengths are the beats of each bar, where they differ; nil where the progression says it all.
func (p Progression) Lengths() (list []int) {
	if p.Even() {
		return nil
	}
	for i := range p.Bars {
		list = append(list, p.BeatsOf(i))
	}
	return list
}

// A bar may begin with its metre, which holds from there on: 2/4, (6/8).
var ofBar = regexp.MustCompile(`^\s*([(\[]?)(\d{1,2})/(\d{1,2})[)\]]?\s+(\S+)`)

// metreOf takes the metre off the front of a bar. Before a step in figures 5/4 is a chord over
// its bass, unless it stands in brackets.
func (r *textReader) metreOf(part string, offset int) (rest string, at int) {
	m := ofBar.FindStringSubmatchIndex(part)
	if m == nil {
		return part, offset
	}
	text, next := part[m[2]:m[8]], part[m[8]:m[9]]
	_, figure := r.step(next)
	if _, chord := r.step(strings.TrimSpace(text)); figure && chord && m[2] == m[3] {
		r.found.Said = append(r.found.Said, say.F("bar %d: %s is read as a chord; for a metre write (%s)", r.bars, strings.TrimSpace(text), strings.TrimSpace(text)))
		return part, offset
	}
	n, ok := beatsIn(part[m[4]:m[5]], part[m[6]:m[7]])
	if !ok {
		r.problem(strings.TrimSpace(text), offset+utf8.RuneCountInString(part[:m[2]]), say.F("bar %d: %s cannot be charted; a bar has %s", r.bars, strings.TrimSpace(text), ofBars), "4/4")
		return part[m[8]:], offset + utf8.RuneCountInString(part[:m[8]])
	}
	if r.beats = n; part[m[6]:m[7]] == "8" {
		r.inThrees(strings.TrimSpace(text), n)
	}
	return part[m[8]:], offset + utf8.RuneCountInString(part[:m[8]])
}

const ofBars = "1 to 12 quarters, or 3, 6, 9, 12 or more eighths in threes"

func (r *textReader) inThrees(text string, n int) {
	r.found.Feel = cmp.Or(r.found.Feel, InThrees)
	said := say.F("%s is charted as %d beats of three eighths, as the slow 12/8 feel plays them", text, n)
	if !slices.Contains(r.found.Said, said) {
		r.found.Said = append(r.found.Said, said)
	}
}

// beatsIn is how many beats a metre of a chart has.
func beatsIn(over, under string) (n int, ok bool) {
	n, _ = strconv.Atoi(over)
	beats, _, ok := Metre(n, map[string]int{"4": 4, "8": 8}[under])
	return beats, ok && (under == "4" || n%3 == 0)
}

// Metre is what a time signature is charted as: 1 to [MaxBeats] beats, which are quarters, or in
// compound time three eighths each. ok is false where a bar is no whole number of them.
func Metre(over, under int) (beats int, threes, ok bool) {
	switch {
	case over < 1 || under < 1 || under > 32 || over > MaxBeats*under:
		return 0, false, false
	case under == 8 && over%3 == 0:
		beats, threes = over/3, true
	case over*4%under == 0:
		beats = over * 4 / under
	}
	return beats, threes, beats >= 1 && beats <= MaxBeats
}
