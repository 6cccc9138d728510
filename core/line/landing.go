package line

import (
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// When a change is landed. From the first to HeldOver it is.
const (
	OnTime   = "on time"
	Pushed   = "pushed"    // a little before the change, held over or not
	Resolved = "resolved"  // leaned on another note, which moves to a chord tone by step
	LeanedOn = "leaned on" // on a note that may rest though it is no chord tone, or curled
	HeldOver = "held over" // a tone of both chords, held from before
	Late     = "late"
	Wrong    = "wrong note"
	Silent   = "silent"
)

// Landing is what became of one change.
type Landing struct {
	At     int // ticks
	Chord  harmony.Chord
	Note   int // index, −1 in silence
	Degree harmony.Degree
	Leaned harmony.Degree // what stood on the change where that is no tone of the chord, and rests or moves to one
	When   string
	Says   string
}

// Landed tells that the change was met, in one way or another.
func (l Landing) Landed() bool {
	return slices.Contains([]string{OnTime, Pushed, Resolved, LeanedOn, HeldOver}, l.When)
}

// How far from the change a note may be, in ticks.
const (
	early   = score.Tick         // of a push that is held over the change
	clipped = score.Tick / 2     // of a push that is let go before it
	soon    = score.Tick         // until a late note, or what a note resolves to
	around  = score.Tick * 3 / 2 // until what an enclosure encloses
)

// landings judges every change.
func landings(s score.Score, rule Rule) (out []Landing) {
	for bar, b := range s.Bars {
		for _, c := range b.Changes {
			at := s.At(bar) + c.Beat*score.Tick
			if s.Change(at) {
				out = append(out, judge{s, rule.Over(s.Key, c.Chord), at, c.Chord}.landing())
			}
		}
	}
	return out
}

// judge looks at one change.
type judge struct {
	s     score.Score
	rule  Rule
	at    int
	chord harmony.Chord
}

// tone is the chord tone that a note comes to rest on.
func (j judge) tone(i int) (harmony.Tone, bool) {
	n := j.s.Notes[i]
	t, ok := j.chord.ToneAt(pitch.Class(n.Heard()))
	return t, ok && !n.Dead
}

func (j judge) say(i int, d harmony.Degree, when, format string, args ...any) Landing {
	return Landing{At: j.at, Chord: j.chord, Note: i, Degree: d, When: when, Says: say.F(format, args...)}
}

// landing judges the note that sounds on the change, the one that pushes it, or
// the first within a beat after it, in this order.
func (j judge) landing() Landing {
	onBeat, push, kept := -1, -1, -1
	near, _ := slices.BinarySearchFunc(j.s.Notes, j.at-16*score.Tick, func(n score.Note, tick int) int { return n.Start - tick })
	end := near
	for ; end < len(j.s.Notes) && j.s.Notes[end].Start <= j.at+around; end++ {
		n := j.s.Notes[end]
		_, tone := j.tone(end)
		switch {
		case n.Start == j.at:
			if onBeat < 0 || tone {
				onBeat = end
			}
		case n.Start > j.at:
		case n.Start >= j.at-early && n.End() > j.at:
			push = end
		case n.End() > j.at:
			kept = end
		case n.Start >= j.at-clipped && tone && j.arrives(end):
			push = end
		}
	}
	if onBeat >= 0 {
		if t, ok := j.tone(onBeat); ok {
			return j.say(onBeat, t.Degree, OnTime, "lands on time on the %s of %s", t.Degree, j.chord)
		}
	}
	if push >= 0 {
		if t, ok := j.tone(push); ok && (onBeat < 0 || j.s.Notes[push].End() > j.at) {
			return j.say(push, t.Degree, Pushed, "pushed: the %s of %s comes %s before it", t.Degree, j.chord, length(j.at-j.s.Notes[push].Start))
		}
	}
	there := onBeat
	if there < 0 {
		there = max(push, kept)
		if push >= 0 && j.s.Notes[push].End() <= j.at {
			there = kept
		}
	}
	if there >= 0 && there == kept {
		if t, ok := j.tone(kept); ok {
			return j.say(kept, t.Degree, HeldOver, "held over from before: it becomes the %s of %s", t.Degree, j.chord)
		}
	}
	if there >= 0 {
		if l, ok := j.leaned(there); ok {
			l.Leaned = over(j.chord, j.s.Notes[there].Heard()).Degree
			return l
		}
	}
	for i := near; i < end; i++ {
		if n := j.s.Notes[i]; n.Start > j.at && n.Start <= j.at+soon {
			if t, ok := j.tone(i); ok {
				return j.say(i, t.Degree, Late, "lands %s late on the %s of %s", length(n.Start-j.at), t.Degree, j.chord)
			}
		}
	}
	if there >= 0 {
		sound := over(j.chord, j.s.Notes[there].Heard())
		return j.say(there, sound.Degree, Wrong, "in time, but on the %s over %s%s", sound.Degree, j.chord, wants(sound))
	}
	return j.say(-1, "", Silent, "nothing is played as %s begins", j.chord)
}

// arrives tells that a note before the change belongs to the new chord rather
// than to the old one, and that the line rests on it.
func (j judge) arrives(i int) bool {
	if next, ok := j.s.After(i); ok && j.s.Notes[next].Start <= j.at+soon {
		return false
	}
	old, sounds := j.s.ChordAt(j.s.Notes[i].Start)
	if !sounds {
		return true
	}
	_, tone := old.ToneAt(pitch.Class(j.s.Notes[i].Heard()))
	return !tone
}

// leaned judges a note on the change that is no chord tone: whether it resolves
// by step, alone or round its goal, is curled, or may rest.
func (j judge) leaned(i int) (Landing, bool) {
	n := j.s.Notes[i]
	if n.Dead {
		return Landing{}, false
	}
	sound := over(j.chord, n.Heard())
	if n.Bend == 1 && sound.Class == blend.Blue {
		return j.say(i, sound.Degree, LeanedOn, "lands on the %s over %s, curled", sound.Degree, j.chord), true
	}
	next, ok := j.s.After(i)
	if ok && j.s.Notes[next].Start <= j.at+soon {
		for k := next; k < len(j.s.Notes) && j.s.Notes[k].Start == j.s.Notes[next].Start; k++ { // one of those that sound together
			step := j.s.Notes[k].Heard() - n.Heard()
			if t, tone := j.tone(k); tone && size(step) <= 2 && step != 0 {
				return j.say(k, t.Degree, Resolved, "leaned on the %s, resolved to the %s of %s", sound.Degree, t.Degree, j.chord), true
			}
		}
		step := j.s.Notes[next].Heard() - n.Heard()
		if goal, ok := j.s.After(next); ok && j.s.Notes[goal].Start <= j.at+around {
			to := j.s.Notes[goal].Heard()
			a, b := n.Heard()-to, j.s.Notes[next].Heard()-to
			t, tone := j.tone(goal)
			switch {
			case tone && a*b < 0 && size(a) <= 2 && size(b) <= 2:
				return j.say(goal, t.Degree, Resolved, "encloses the %s of %s and comes out on it", t.Degree, j.chord), true
			case tone && step*-b > 0 && size(step) <= 2 && size(b) <= 2:
				return j.say(goal, t.Degree, Resolved, "leaned on the %s, led by steps to the %s of %s", sound.Degree, t.Degree, j.chord), true
			}
		}
	}
	long := n.End()-max(n.Start, j.at) >= score.Tick || !ok || j.s.Notes[next].Start-n.End() >= score.Tick/2
	if long && j.rule.Allows(j.chord, sound) {
		return j.say(i, sound.Degree, LeanedOn, "leaned on the %s over %s, which may rest (%s)", sound.Degree, j.chord, j.rule.Name), true
	}
	return Landing{}, false
}

// length tells a few ticks in words.
func length(ticks int) string {
	for _, l := range []struct {
		ticks int
		name  string
	}{{160, "a sextuplet"}, {240, "a sixteenth"}, {320, "a triplet"}, {480, "an eighth"}, {640, "two triplets"}, {720, "a dotted eighth"}, {960, "a beat"}} {
		if size(ticks-l.ticks) <= 40 {
			return l.name
		}
	}
	return say.F("%.2g beats", float64(ticks)/score.Tick)
}
