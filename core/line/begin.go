package line

import (
	"math/rand/v2"
	"slices"

	"undaris/core/score"
)

// step is how far before a beat a note of a rhythm can come: an eighth, or the last of
// three.
func (r Rhythm) step() int {
	if r.PerBeat == 3 {
		return score.Tick / 3
	}
	return score.Tick / 2
}

// begin is a way to begin a phrase.
type begin struct {
	often int
	do    func(b *beginning) bool // false where it cannot be
}

// begins are the ways a phrase begins, with how often a player does it: pushed, led to
// from 4 or from the eighth before, or late where no chord begins with it.
var begins = []begin{
	{3, (*beginning).pushed},
	{3, (*beginning).from4},
	{2, (*beginning).fromEighth},
	{4, (*beginning).late},
}

// beginning is a phrase that is to begin elsewhere than on the beat.
type beginning struct {
	s              score.Score
	w              Wish
	step           int
	before, phrase []slot
}

// begin lets phrases begin off the beat, as often as is wished: whatever follows a breath
// and begins with its bar.
func (w Wish) begin(s score.Score, r Rhythm, slots []slot) []slot {
	if w.Spice.Offbeat == 0 {
		return slots
	}
	rng := rand.New(rand.NewPCG(w.Seed, 1<<32))
	sum := 0
	for _, b := range begins {
		sum += b.often
	}
	for i := 1; i < len(slots); i++ {
		last, k := slots[i-1], slots[i]
		if k.start%s.Bar() != 0 || k.start-last.start-last.length < breath && last.length < 2*score.Tick || rng.Float64() >= 1.1*part(w.Spice.Offbeat) {
			continue
		}
		b := &beginning{s, w, r.step(), slices.Clone(slots[:i]), slices.Clone(slots[i:])}
		drawn := rng.IntN(sum)
		at := slices.IndexFunc(begins, func(x begin) bool {
			drawn -= x.often
			return drawn < 0
		})
		for j := range begins { // the one that is drawn, or else the next that can be
			if begins[(at+j)%len(begins)].do(b) {
				break
			}
		}
		i = len(b.before) + len(b.phrase) - (len(slots) - i)
		slots = append(b.before, b.phrase...)
	}
	return slots
}

// room tells whether the bar before leaves so much silence before the phrase; a note that
// rings into it is shortened.
func (b *beginning) room(ticks int) bool {
	first, last := b.phrase[0], &b.before[len(b.before)-1]
	at := first.start - ticks
	if at < 0 || b.w.Locked[at/b.s.Bar()] || last.start >= at-score.Tick/2 {
		return false
	}
	if chord, sounds := b.s.ChordAt(at); !sounds || chord.None {
		return false
	}
	last.length = min(last.length, at-last.start-score.Tick/2)
	return last.length >= score.Tick/2
}

func (b *beginning) pushed() bool {
	if !b.phrase[0].change || !b.room(b.step) {
		return false
	}
	b.phrase[0].start -= b.step
	b.phrase[0].length += b.step
	return true
}

// lead puts notes before the phrase, each a step long.
func (b *beginning) lead(from ...int) bool {
	if !b.room(from[0] + score.Tick/2) {
		return false
	}
	first := b.phrase[0]
	var notes []slot
	for i, ticks := range from {
		k := slot{start: first.start - ticks, length: ticks, height: first.height, key: first.key<<3 + uint64(i) + 1<<40}
		if i+1 < len(from) {
			k.length = ticks - from[i+1]
		}
		k.chord, _ = b.s.ChordAt(k.start)
		notes = append(notes, k)
	}
	b.phrase = append(notes, b.phrase...)
	return true
}

func (b *beginning) from4() bool      { return b.lead(score.Tick, b.step) }
func (b *beginning) fromEighth() bool { return b.lead(b.step) }

// late leaves out the first beat.
func (b *beginning) late() bool {
	start := b.phrase[0].start / b.s.Bar() * b.s.Bar()
	n := 0
	for n < len(b.phrase) && b.phrase[n].start < start+score.Tick {
		if b.phrase[n].change {
			return false
		}
		n++
	}
	if n == 0 || n == len(b.phrase) {
		return false
	}
	b.phrase = b.phrase[n:]
	return true
}

// push meets changes within a phrase early, as often as is wished; the note before makes
// room.
func (w Wish) push(s score.Score, r Rhythm, slots []slot) []slot {
	if w.Spice.Pushes == 0 {
		return slots
	}
	step := r.step()
	out := slots[:0]
	for i, k := range slots {
		at := k.start - step
		if n := len(out); n > 0 && k.change && s.Change(k.start) && at >= 0 && !w.Locked[at/s.Bar()] && at/s.Bar() != k.start/s.Bar() &&
			chance(w.Seed, k.key, "push", 0) < 0.6*part(w.Spice.Pushes) && k.length >= score.Tick/2 && i > 0 {
			last := &out[n-1]
			switch {
			case last.start == at && !last.change && n > 1:
				out = out[:n-1]
			case last.start < at:
				last.length = min(last.length, at-last.start)
			default:
				at = k.start
			}
			k.start, k.length = at, k.length+k.start-at
		}
		out = append(out, k)
	}
	return out
}
