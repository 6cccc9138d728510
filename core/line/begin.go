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

// begins are the ways a phrase begins, with how often a player does it: pushed; led to from
// the and of 3, from 4 or from the eighth before; after the phrase before has landed on 1;
// late, where no chord begins with it.
var begins = []begin{
	{2, (*beginning).pushed},
	{1, (*beginning).from3},
	{1, (*beginning).from4},
	{1, (*beginning).fromEighth},
	{5, (*beginning).over},
	{5, (*beginning).late},
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
	if w.Spice.Offbeat == 0 || len(slots) == 0 {
		return slots
	}
	slots = w.pickUp(s, r, slots)
	for i := 1; i < len(slots); i++ {
		last, k := slots[i-1], slots[i]
		rng := rand.New(rand.NewPCG(w.Seed, 1<<32+k.key+uint64(s.Key.Tonic.Class())<<40)) // what comes back begins as it did
		if k.start <= 0 || s.InBar(k.start) != 0 || k.start-last.start-last.length < breath && last.length < 2*score.Tick || rng.Float64() >= 1.1*part(w.Spice.Offbeat) {
			continue
		}
		b := &beginning{s, w, r.step(), slices.Clone(slots[:i]), slices.Clone(slots[i:])}
		for left := slices.Clone(begins); len(left) > 0; { // the one that is drawn, or else another
			at := draw(rng, left)
			if left[at].do(b) {
				break
			}
			left = slices.Delete(left, at, at+1)
		}
		i = len(b.before) + max(0, len(b.phrase)-(len(slots)-i))
		slots = append(b.before, b.phrase...)
	}
	return slots
}

// draw draws one of some ways to begin, by how often each is.
func draw(rng *rand.Rand, from []begin) int {
	sum := 0
	for _, b := range from {
		sum += b.often
	}
	at := rng.IntN(sum)
	return slices.IndexFunc(from, func(b begin) bool {
		at -= b.often
		return at < 0
	})
}

// pickUp may lead into the first note from the bar before it.
func (w Wish) pickUp(s score.Score, r Rhythm, slots []slot) []slot {
	first := slots[0]
	if first.start != 0 || w.From > 0 || first.fixed != nil || chance(w.Seed, first.key, "pickup", 0) >= 0.8*part(w.Spice.Offbeat) {
		return slots
	}
	b := &beginning{s: s, w: w, step: r.step(), phrase: slices.Clone(slots)}
	if chance(w.Seed, first.key, "from", 0) < 0.6 {
		b.lead(score.Tick, b.step)
	} else {
		b.lead(b.step)
	}
	return b.phrase
}

// room tells whether the bar before leaves so much silence before the phrase; a note that
// rings into it is shortened.
func (b *beginning) room(ticks int) bool {
	at := b.phrase[0].start - ticks
	if len(b.before) == 0 {
		return at >= -b.s.MostPickup() // a pickup
	}
	last := &b.before[len(b.before)-1]
	if at < 0 || b.w.Locked[b.s.BarOf(at)] || last.start >= at-score.Tick/2 {
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

func (b *beginning) from3() bool      { return b.lead(score.Tick+b.step, score.Tick, b.step) }
func (b *beginning) from4() bool      { return b.lead(score.Tick, b.step) }
func (b *beginning) fromEighth() bool { return b.lead(b.step) }

// over has the phrase before ring on and land on 1; this one begins on the and of 2.
func (b *beginning) over() bool {
	first := b.phrase[0]
	if len(b.before) == 0 || !first.change {
		return false
	}
	last := &b.before[len(b.before)-1]
	rings := first.start - score.Tick/2 - last.start
	if last.fixed != nil || rings < score.Tick/2 || rings >= 2*score.Tick || b.w.Locked[b.s.BarOf(last.start)] {
		return false
	}
	begins := first.start + 2*score.Tick - b.step
	n := 1
	for n < len(b.phrase) && b.phrase[n].start < begins {
		if b.phrase[n].change || b.phrase[n].asks.is {
			return false
		}
		n++
	}
	if n == len(b.phrase) || b.phrase[n].start >= first.start+b.s.BarTicks(b.s.BarOf(first.start)) {
		return false
	}
	next := b.phrase[n]
	if next.start > begins { // what stood before it is taken up where the phrase begins
		next.key = next.key<<1 + 1<<41
		next.length, next.start, next.strong = next.start-begins, begins, false
		b.phrase = append([]slot{first, next}, b.phrase[n:]...)
	} else {
		b.phrase = append([]slot{first}, b.phrase[n:]...)
	}
	last.length = rings
	b.phrase[0].length = min(b.phrase[0].length, b.step)
	return true
}

// late leaves out the first beat.
func (b *beginning) late() bool {
	start := b.s.At(b.s.BarOf(b.phrase[0].start))
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
		if n := len(out); n > 0 && !k.asks.is && k.change && s.Change(k.start) && at >= 0 && !w.Locked[s.BarOf(at)] && s.BarOf(at) != s.BarOf(k.start) &&
			chance(w.Seed, k.key, "push", 0) < 0.4*part(w.Spice.Pushes) && k.length >= score.Tick/2 && i > 0 {
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
