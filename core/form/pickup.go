package form

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"unicode/utf8"

	"undaris/core/harmony"
	"undaris/core/say"
)

// Pickup is what leads to the first bar: some beats that are played once, before it. It is shorter
// than a bar of the progression; where there is none it has no beats.
type Pickup struct {
	Beats   int // 1 to one less than in a bar
	Changes []Change
}

// Chord is the one that sounds on a beat before the first bar, −1 the last of them; of what lies before the pickup, and where
// there is none, ok is false.
func (p Pickup) Chord(beat int) (c harmony.Chord, ok bool) {
	for _, ch := range p.Changes {
		if ch.Beat-p.Beats <= beat && beat < 0 {
			c, ok = ch.Chord, true
		}
	}
	return c, ok
}

// Within is as much of it as there is room for before bars of so many beats: its end.
func (p Pickup) Within(beats int) Pickup {
	over := p.Beats - (beats - 1)
	if over <= 0 {
		return p
	}
	out := Pickup{Beats: p.Beats - over}
	for _, c := range p.Changes {
		if c.Beat = max(0, c.Beat-over); len(out.Changes) > 0 && out.Changes[len(out.Changes)-1].Beat == c.Beat {
			out.Changes[len(out.Changes)-1] = c
			continue
		}
		out.Changes = append(out.Changes, c)
	}
	if out.Beats == 0 {
		return Pickup{}
	}
	return out
}

// Lead adds a chord on a beat, from 0, of the bar before the first, behind those that it has; the first of them, but not on a
// bar's first beat, makes it as long as what is left of the bar.
func (p *Pickup) Lead(beats, beat int, c harmony.Chord) {
	if p.Beats == 0 {
		if p.Beats = min(beats-1, beats-beat); p.Beats < 1 {
			*p = Pickup{}
			return
		}
	}
	at := max(0, beat-(beats-p.Beats))
	p.Changes = append(slices.DeleteFunc(p.Changes, func(o Change) bool { return o.Beat == at }), Change{at, c})
}

// Written is it as a bar of its own.
func (p Pickup) Written() Written { return Written{Bar: Bar{Changes: p.Changes}} }

// Text writes it so that it is read again as the first of some bars, without the bar lines.
func (p Pickup) Text() string { return p.text(harmony.Chord.String) }

// text writes it so that it is read again, without the bar lines.
func (p Pickup) text(name func(harmony.Chord) string) string {
	return "pickup " + strconv.Itoa(p.Beats) + "/4 " + barText(Bar{Changes: p.Changes}, p.Beats, name)
}

// short tells that the first bar would be taken for a pickup if nothing were said: it is shorter than the metre, and the next is not.
func (s Song) short() bool {
	if s.Pickup.Beats > 0 || len(s.Bars) < 2 || s.Bars[0].Any() {
		return false
	}
	first := s.Bars[0].Beats
	return first > 0 && first < s.Beats && (s.Bars[1].Beats == 0 || s.Bars[1].Beats == s.Beats)
}

// pickupWord is what players write before a pickup; with no before it, that a short bar is none.
var pickupWord = regexp.MustCompile(`(?i)^\s*\(?(no\s+)?(?:pick-?up|anacrusis|upbeat)\)?(?:\s*:)?(?:\s+|$)`)

func isPickup(name string) bool { return pickupWord.MatchString(name) }

// leads takes the word for a pickup off the front of a bar.
func (r *textReader) leads(part string, offset int) (rest string, at int, pickup bool) {
	m := pickupWord.FindStringSubmatchIndex(part)
	if m == nil {
		return part, offset, false
	}
	if m[2] >= 0 {
		r.whole = true
	}
	return part[m[1]:], offset + utf8.RuneCountInString(part[:m[1]]), m[2] < 0
}

// pickup reads what leads to the first bar: its beats by a metre, else as many as are written out.
func (r *textReader) pickup(part string, offset int) {
	before := r.beats
	defer func() { r.beats = before; r.bars-- }()
	counted := ofBar.MatchString(part)
	rest, at := r.metreOf(part, offset)
	tokens := r.unadorned(unslashed(joinSigns(split(rest, at))))
	if !counted {
		r.beats = len(tokens)
	}
	switch refuse := func(format string, args ...any) { r.problem(part, offset, say.F(format, args...), "") }; {
	case len(r.song.Bars) > 0 || r.song.Pickup.Beats > 0:
		refuse("bar %d: a pickup stands before the first bar, once", r.bars)
	case len(tokens) == 0:
		refuse("the pickup is empty; write its chord, or N.C. where only the lead plays")
	case r.beats >= r.song.Beats:
		refuse("a pickup of %d beats fills a bar of %d; write it as a bar", r.beats, r.song.Beats)
	default:
		r.song.Pickup = Pickup{r.beats, r.changes(tokens)}
	}
}

// taken takes a first bar that is shorter than the metre for a pickup, as soon as the next is whole.
func (r *textReader) taken() {
	if len(r.song.Bars) != 2 || r.whole || !r.song.short() {
		return
	}
	first := r.song.Bars[0]
	r.song.Pickup, r.song.Bars = Pickup{first.Beats, first.Changes}, r.song.Bars[1:]
	next := &r.song.Bars[0]
	if next.Row = false; next.Section == "" {
		next.Section = first.Section
	}
	r.bars--
	r.part.from = max(0, r.part.from-1)
	r.note("the first bar has %s and the next %d: it is taken for a pickup; for a bar like the others write no pickup in it", beatsOf(first.Beats), r.song.Beats)
}

func beatsOf(n int) string {
	if n == 1 {
		return "1 beat"
	}
	return fmt.Sprintf("%d beats", n)
}
