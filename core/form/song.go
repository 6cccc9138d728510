package form

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"undaris/core/harmony"
	"undaris/core/say"
)

// Song is a progression as it is written: bars, and the signs that tell in which order they
// are played.
type Song struct {
	Beats  int
	Bars   []Written
	Pickup Pickup
}

// Written is a bar as it is written.
type Written struct {
	Bar
	Signs
}

// Signs are what a written bar says of the order. The zero value says nothing.
type Signs struct {
	Opens   bool  // a repeat begins with it
	Endings []int // an ending begins with it, for these times through
	Times   int   // a repeat ends with it: how often it is played in all; 0 is none
	Segno   bool  // D.S. goes here
	Coda    bool  // where one goes from ToCoda
	ToCoda  bool  // after it, the second time, to the coda
	Fine    bool  // after it, the second time, the end
	Jump    Jump  // after it back, once
}

// Jump is a way back.
type Jump string

// The jumps: to the top or to the segno; then to the end, to the coda, or to fine.
const (
	NoJump Jump = ""
	DC     Jump = "D.C."
	DS     Jump = "D.S."
	DCCoda Jump = "D.C. al Coda"
	DSCoda Jump = "D.S. al Coda"
	DCFine Jump = "D.C. al Fine"
	DSFine Jump = "D.S. al Fine"
)

func (j Jump) toSegno() bool { return strings.HasPrefix(string(j), string(DS)) }
func (j Jump) alCoda() bool  { return j == DCCoda || j == DSCoda }
func (j Jump) alFine() bool  { return j == DCFine || j == DSFine }

// plain tells that a song is played as it is written.
func (s Song) plain() bool {
	return !slices.ContainsFunc(s.Bars, func(w Written) bool {
		return w.Opens || w.Times > 0 || len(w.Endings) > 0 || w.ToCoda || w.Fine || w.Jump != NoJump
	})
}

// Play is the song in the order in which a band plays it, at most so many bars. Each bar knows
// which of the written ones it is, and for which time it is played; after a jump back repeats
// are not taken again, and the last ending is played.
func (s Song) Play(most int) Progression {
	p := Progression{Beats: s.Beats, Pickup: s.Pickup}
	plain := s.plain()
	passes := make([]int, len(s.Bars))
	last := s.lastEndings()
	start, pass := 0, 1
	var jumped Jump
	restart, through := false, false // through: in the last ending
	for i := 0; i < len(s.Bars) && len(p.Bars) <= most; {
		w := s.Bars[i]
		if w.Opens && i != start {
			start, pass, through = i, 1, false
		}
		if len(w.Endings) > 0 {
			wanted := pass
			if jumped != NoJump {
				wanted = last[i]
			}
			if !slices.Contains(w.Endings, wanted) {
				i = s.skip(i, wanted)
				continue
			}
			if through = wanted == last[i]; through {
				start, pass = i, 1
			}
		}
		passes[i]++
		b := w.Bar
		if !plain {
			b.Written, b.Pass = i+1, passes[i]
			b.Row = len(p.Bars) > 0 && (b.Row || restart || i == 0)
		}
		restart = false
		p.Bars = append(p.Bars, b)
		switch {
		case jumped.alCoda() && w.ToCoda:
			if to := s.find(func(w Written) bool { return w.Coda }); to >= 0 {
				i, restart = to, true
				start, pass = i, 1
				continue
			}
		case jumped.alFine() && w.Fine:
			return p
		case w.Times > 0 && through: // the repeat is over
			through = false
			start, pass = i+1, 1
		case w.Times > 0 && jumped == NoJump:
			if pass < max(w.Times, slices.Max(last[start:i+1])) {
				pass++
				i, restart = start, true
				continue
			}
			start, pass = i+1, 1
		case w.Jump != NoJump && jumped == NoJump:
			jumped, restart = w.Jump, true
			i = 0
			if jumped.toSegno() {
				i = max(0, s.find(func(w Written) bool { return w.Segno }))
			}
			start, pass = i, 1
			continue
		}
		i++
	}
	return p
}

// lastEndings are for each bar that begins an ending the highest number of its group; 0 for
// the others.
func (s Song) lastEndings() []int {
	out := make([]int, len(s.Bars))
	for i, w := range s.Bars {
		if len(w.Endings) > 0 {
			out[i] = s.lastEnding(i)
		}
	}
	return out
}

// lastEnding is the highest number of the endings that an ending belongs to.
func (s Song) lastEnding(at int) (n int) {
	from := at
	for i := at - 1; i >= 0 && !s.Bars[i].Opens; i-- {
		if len(s.Bars[i].Endings) > 0 {
			from = i
		}
	}
	for i := from; i < len(s.Bars) && (i <= at || !s.Bars[i].Opens); i++ {
		for _, e := range s.Bars[i].Endings {
			if i > at && e <= n { // another group begins
				return n
			}
			n = max(n, e)
		}
	}
	return n
}

// skip finds the ending for a time through, behind one for another; without one it goes on
// behind the repeat.
func (s Song) skip(at, pass int) int {
	for i := at + 1; i < len(s.Bars); i++ {
		if slices.Contains(s.Bars[i].Endings, pass) {
			return i
		}
		if s.Bars[i].Opens {
			return i
		}
	}
	for i := at; i < len(s.Bars); i++ {
		if s.Bars[i].Times > 0 {
			return i + 1
		}
	}
	return at + 1
}

func (s Song) find(is func(Written) bool) int { return slices.IndexFunc(s.Bars, is) }

// Flat is the song's bars as they are written, without its signs.
func (s Song) Flat() Progression {
	p := Progression{Beats: s.Beats, Pickup: s.Pickup}
	for _, w := range s.Bars {
		p.Bars = append(p.Bars, w.Bar)
	}
	return p
}

// With is the song with other bars under its signs; what is beyond them has none.
func (s Song) With(p Progression) Song {
	out := Song{Beats: p.Beats, Pickup: p.Pickup}
	for i, b := range p.Bars {
		w := Written{Bar: b}
		if i < len(s.Bars) {
			w.Signs = s.Bars[i].Signs
		}
		out.Bars = append(out.Bars, w)
	}
	return out
}

// Text writes the song so that [ReadSong] gives it back.
func (s Song) Text() string { return s.text(harmony.Chord.String) }

// NumeralText writes the song in numerals of the key.
func (s Song) NumeralText(key Key) string {
	return s.text(func(c harmony.Chord) string { return Numeral(c, key) })
}

func (s Song) text(name func(harmony.Chord) string) string {
	var t strings.Builder
	beats := s.Beats
	if s.Pickup.Beats > 0 {
		t.WriteString("| " + s.Pickup.text(name) + " ")
	}
	for i, w := range s.Bars {
		if i > 0 && w.Row {
			t.WriteString("|\n")
		}
		t.WriteString("|")
		if !w.Opens {
			t.WriteString(" ")
		}
		if i == 0 && s.short() {
			t.WriteString("no pickup ")
		}
		own := cmp.Or(w.Beats, s.Beats)
		t.WriteString(s.piece(w, own != beats, name))
		if w.Times != 2 {
			t.WriteString(" ")
		}
		beats = own
	}
	t.WriteString("|")
	return t.String()
}

// Pieces are the written bars one by one, each as it stands between bar lines; put together in
// any order, with bar lines between, they can be read. Where the metre changes each says its own.
func (s Song) Pieces() (list []string) {
	metre := !s.Flat().Even()
	for _, w := range s.Bars {
		text := s.piece(w, metre, harmony.Chord.String)
		if w.Beats > 0 && w.Beats < s.Beats && !w.Any() { // wherever it is put
			text = "no pickup " + text
		}
		list = append(list, text)
	}
	return list
}

// piece writes a bar with its signs, without the bar lines.
func (s Song) piece(w Written, metre bool, name func(harmony.Chord) string) string {
	beats := cmp.Or(w.Beats, s.Beats)
	section, own := "", ""
	if w.Section != "" {
		section = "[" + w.Section + "]"
	}
	if metre {
		own = strconv.Itoa(beats) + "/4"
	}
	opens, endings, goals := w.before()
	parts := slices.Concat([]string{opens, endings, section}, goals, []string{own, barText(w.Bar, beats, name)}, w.after())
	return strings.Join(slices.DeleteFunc(parts, func(p string) bool { return p == "" }), " ")
}

// before are the signs that stand before a bar's chords.
func (w Written) before() (opens, endings string, goals []string) {
	if w.Opens {
		opens = ":"
	}
	for _, e := range w.Endings {
		endings += strconv.Itoa(e) + "."
	}
	if w.Segno {
		goals = append(goals, "segno")
	}
	if w.Coda && !strings.EqualFold(w.Section, "coda") {
		goals = append(goals, "coda")
	}
	return opens, endings, goals
}

// after are those that stand behind them.
func (w Written) after() (list []string) {
	for _, sign := range []struct {
		is   bool
		text string
	}{{w.ToCoda, "to coda"}, {w.Fine, "fine"}, {w.Jump != NoJump, string(w.Jump)}, {w.Times == 2, ":"}, {w.Times > 2, fmt.Sprintf(":| x%d", w.Times)}} {
		if sign.is {
			list = append(list, sign.text)
		}
	}
	return list
}

// Printed is a written bar of so many beats in three parts: the signs before its chords, the
// chords as name writes them, and the signs behind them.
func (w Written) Printed(beats int, name func(harmony.Chord) string) (before, chords, after string) {
	opens, endings, goals := w.before()
	if opens != "" {
		opens = "|:"
	}
	signs := slices.Concat([]string{opens, endings}, goals)
	signs = slices.DeleteFunc(signs, func(p string) bool { return p == "" })
	after = strings.Join(w.after(), " ")
	if w.Times == 2 {
		after += "|"
	}
	return strings.Join(signs, " "), barText(w.Bar, cmp.Or(w.Beats, beats), name), after
}

// Order tells in which order the written bars are played; "" where it is as they stand.
func (s Song) Order() string {
	if s.plain() {
		return ""
	}
	p := s.Play(MaxBars)
	var parts []string
	for i := 0; i < len(p.Bars); {
		j := i
		for j+1 < len(p.Bars) && p.Bars[j+1].Written == p.Bars[j].Written+1 {
			j++
		}
		from, to := p.Bars[i].Written, p.Bars[j].Written
		if from == to {
			parts = append(parts, strconv.Itoa(from))
		} else {
			parts = append(parts, say.F("%d–%d", from, to))
		}
		i = j + 1
	}
	return say.F("%d bars: %s", len(p.Bars), strings.Join(parts, ", "))
}
