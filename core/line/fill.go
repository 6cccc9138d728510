package line

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/score"
)

// fill plays the last bar of a phrase as a figure and a run, where it has four beats and the
// next bar begins with a chord.
func (w Wish) fill(s score.Score, r Rhythm, p phrasePlan, phrase []slot) []slot {
	bar := p.to - 1
	if s.BeatsOf(bar) != 4 || bar+1 >= len(s.Bars) || w.Locked[bar] || p.to-p.from < 2 {
		return phrase
	}
	run := w.run(s, r, bar, p.idea)
	if run == nil {
		return phrase
	}
	phrase = slices.DeleteFunc(phrase, func(k slot) bool { return k.start >= s.At(bar) })
	return append(phrase, run...)
}

// comeOut has each run end on the root that it was reckoned back from.
func (w Wish) comeOut(s score.Score, slots []slot) (out []slot) {
	for i, k := range slots {
		at := k.start + k.length
		if i > 0 && out[len(out)-1].start >= k.start {
			continue // the landing of a run stands there
		}
		out = append(out, k)
		if !k.asks.is || s.InBar(at) != 0 || at >= s.End() || w.Locked[s.BarOf(at)] {
			continue
		}
		land := slot{start: at, length: score.Tick, height: 0.5, strong: true, change: s.Change(at), key: k.key + 1<<20}
		if i+1 < len(slots) && slots[i+1].start == at {
			land = slots[i+1]
		}
		chord, sounds := s.ChordAt(at)
		if land.chord = chord; sounds {
			land.asks = ask(w.goal(chord))
			out = append(out, land)
		}
	}
	return out
}

// goal is what a run over a bar line comes out on: the next chord's root, or its third where that is asked and it has one.
func (w Wish) goal(next harmony.Chord) int {
	role, _ := w.timed()
	for _, t := range next.Tones {
		if t.Degree.Role() == role {
			return t.Name.Class()
		}
	}
	return next.Root.Class()
}

// steps are the classes of the palette and the chord's tones from a goal upwards, without it.
func (w Wish) steps(s score.Score, chord harmony.Chord, goal int) (out []int) {
	for _, t := range chord.Tones {
		out = append(out, t.Name.Class())
	}
	if !w.ChordTones {
		for _, m := range w.Palette.Notes(s.Key, chord) {
			out = append(out, m.Name.Class())
		}
	}
	slices.SortFunc(out, func(a, b int) int { return pitch.Class(a-goal) - pitch.Class(b-goal) })
	out = slices.Compact(out)
	return slices.DeleteFunc(out, func(class int) bool { return class == goal })
}

// reckoned counts notes back from a goal: from above it for a run down, from below for one
// up, with a half step more before the goal where that is wanted.
func reckoned(palette []int, goal, notes int, down, chromatic bool) (run []int) {
	for i := 0; len(run) < notes; i++ {
		at := i % len(palette)
		if !down {
			at = len(palette) - 1 - at
		}
		if i == 0 && chromatic {
			between := pitch.Class(goal + 1)
			if !down {
				between = pitch.Class(goal - 1)
			}
			if between == palette[at] {
				return nil
			}
			run = append(run, between)
		}
		run = append(run, palette[at])
	}
	run = run[:notes]
	slices.Reverse(run)
	return run
}

// run makes a bar of a figure repeated on beats 1 and 2 and a run on 3 and 4, reckoned back
// from where it comes out, so that a chord tone stands on 3 and the goal on the next bar.
func (w Wish) run(s score.Score, r Rhythm, bar int, idea uint64) (slots []slot) {
	chord, sounds := s.ChordAt(s.At(bar))
	over, _ := s.ChordAt(s.At(bar) + 2*score.Tick)
	next, follows := s.ChordAt(s.At(bar + 1))
	if !sounds || !follows || over.None {
		return nil
	}
	step := score.Tick / r.PerBeat
	if r.PerBeat > 4 {
		step = score.Tick / 2
	}
	each := score.Tick / step
	goal := w.goal(next)
	palette := w.steps(s, over, goal)
	first := chance(w.Seed, idea, "down", 0) < 0.6
	var run []int
	for _, way := range []struct{ down, chromatic bool }{{first, false}, {!first, false}, {first, true}, {!first, true}} {
		try := reckoned(palette, goal, 2*each, way.down, way.chromatic)
		if try == nil || way.chromatic && (!w.Approach || w.ChordTones) {
			continue
		}
		if _, tone := over.ToneAt(try[0]); tone {
			run = try
			break
		}
	}
	if run == nil { // no tone of the chord stands there by itself: the one nearest to what follows is put there
		run = reckoned(palette, goal, 2*each, first, false)
		near := func(t harmony.Tone) int {
			return min(pitch.Class(t.Name.Class()-run[1]), pitch.Class(run[1]-t.Name.Class()))
		}
		tones := slices.DeleteFunc(slices.Clone(over.Tones), func(t harmony.Tone) bool { return near(t) == 0 })
		run[0] = slices.MinFunc(tones, func(a, b harmony.Tone) int { return near(a) - near(b) }).Name.Class()
	}
	tone := chord.Tones[int(chance(w.Seed, idea, "figure", 0)*float64(min(3, len(chord.Tones))))].Name.Class()
	beside := w.steps(s, chord, tone)
	figure := []int{tone, beside[0], tone, beside[len(beside)-1]}
	put := func(from, class int, key uint64) {
		at := s.At(bar) + from
		c, _ := s.ChordAt(at)
		k := slot{start: at, length: step, chord: c, change: s.Change(at), strong: s.Change(at) || s.InBar(at)%(2*score.Tick) == 0, height: 0.5, key: idea<<32 | key}
		if _, tone := c.ToneAt(class); !k.change || tone && len(w.Targets) == 0 {
			k.asks = ask(class)
		}
		slots = append(slots, k)
	}
	for i := range 2 * each {
		put(i*step, figure[i%each], uint64(i%each))
	}
	for i, class := range run {
		put(2*score.Tick+i*step, class, uint64(each+i))
	}
	return slots
}
