package exercise

import (
	"math"
	"slices"

	"undaris/core/arpeggio"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

// onward goes through the chords in one direction without a break, and turns only
// at the ends of the window.
func (t Task) onward(all []stretch, step int) error {
	last, up, begun := 0, !t.Down, false
	for i := range all {
		s := &all[i]
		rungs := tones(t, s.chord)
		if len(rungs) < 2 {
			continue
		}
		k := begin(rungs, t)
		if begun {
			if k = beyond(rungs, last, up); k < 0 {
				up = !up
				k = beyond(rungs, last, up)
			}
		}
		begun = true
		for at := s.from; at < s.to; at += step {
			s.walk = append(s.walk, []rung{rungs[k]})
			if up && k == len(rungs)-1 || !up && k == 0 {
				up = !up
			}
			if last = rungs[k].midi; up {
				k++
			} else {
				k--
			}
		}
	}
	return nil
}

// beyond is the next rung above or below a pitch; −1 is none.
func beyond(rungs []rung, midi int, up bool) int {
	if up {
		return slices.IndexFunc(rungs, func(r rung) bool { return r.midi > midi })
	}
	for k := len(rungs) - 1; k >= 0; k-- {
		if rungs[k].midi < midi {
			return k
		}
	}
	return -1
}

// alternate goes up through one chord and down through the next, each from the tone nearest to
// where the last one ended.
func (t Task) alternate(all []stretch, step int) error {
	last := -1
	for i := range all {
		s := &all[i]
		down := t.Down != (i%2 == 1)
		rungs := there(tones(t, s.chord), down)
		if len(rungs) == 0 {
			continue
		}
		from := 0
		for k, r := range rungs {
			if last >= 0 && abs(r.midi-last) < abs(rungs[from].midi-last) {
				from = k
			}
		}
		// What would reach the end before its time begins earlier, as far as there is room.
		count := (s.to - s.from + step - 1) / step
		from = max(0, min(from, len(rungs)-count))
		s.walk = alone(slices.Concat(rungs[from:], rungs[:from]))
		last = s.walk[(count-1)%len(s.walk)][0].midi
	}
	return nil
}

// shell is a voicing of root, third and seventh.
type shell struct {
	rungs []rung
	root  int // its fret
}

// layouts are the strings of root, third and seventh.
var layouts = [][3]int{{6, 3, 4}, {5, 4, 3}}

// shells chooses a voicing for each chord, with the least motion of the hand
// through the form and as near to the window as that allows.
func (t Task) shells(all []stretch, _ int) error {
	if t.In.Strings() < 6 {
		return say.Errorf("shell voicings lie on strings 6 to 3; take an instrument with six strings")
	}
	type way struct {
		shell
		cost float64
		from int
	}
	var layers [][]way
	var heard []int
	for i, s := range all {
		var layer []way
		for _, v := range t.voicings(s.chord) {
			w := way{shell: v, cost: 0.2 * float64(max(0, t.Region.Low-v.root, v.root-t.Region.High)), from: -1}
			if n := len(layers); n > 0 {
				best := math.Inf(1)
				for j, b := range layers[n-1] {
					if c := b.cost + math.Abs(float64(b.root-v.root)); c < best {
						best, w.from = c, j
					}
				}
				w.cost += best
			}
			layer = append(layer, w)
		}
		if len(layer) > 0 {
			layers = append(layers, layer)
			heard = append(heard, i)
		}
	}
	if len(layers) == 0 {
		return nil
	}
	last := layers[len(layers)-1]
	at := 0
	for i := range last {
		if last[i].cost < last[at].cost {
			at = i
		}
	}
	for k := len(layers) - 1; k >= 0; k-- {
		all[heard[k]].walk = [][]rung{layers[k][at].rungs}
		at = layers[k][at].from
	}
	return nil
}

// voicings are the shells of a chord that a hand can hold. A chord without a
// seventh has its sixth there, or its root again.
func (t Task) voicings(c harmony.Chord) (out []shell) {
	find := func(role harmony.Role) (harmony.Tone, bool) {
		i := slices.IndexFunc(c.Tones, func(x harmony.Tone) bool { return x.Degree.Role() == role })
		if i < 0 {
			return harmony.Tone{}, false
		}
		return c.Tones[i], true
	}
	root, _ := find(harmony.Root)
	third, ok := find(harmony.Third)
	if !ok {
		third = c.Tones[1] // suspended
	}
	seventh, ok := find(harmony.Seventh)
	if !ok {
		seventh = root
	}
	for _, strings := range layouts {
		for fret := range t.In.Last() + 1 {
			if pitch.Class(t.In.MIDI(neck.Placement{String: strings[0], Fret: fret})) != c.Root.Class() {
				continue
			}
			var places []neck.Placement
			v := shell{root: fret}
			for k, tone := range []harmony.Tone{root, third, seventh} {
				open := t.In.MIDI(neck.Placement{String: strings[k]})
				near := fret + pitch.Class(tone.Name.Class()-open-fret+6) - 6
				if near < 0 {
					near += 12
				}
				if near > t.In.Last() {
					break
				}
				places = append(places, neck.Placement{String: strings[k], Fret: near})
				r := toneAt(open+near, tone)
				r.str = strings[k]
				v.rungs = append(v.rungs, r)
			}
			if len(places) < 3 {
				continue
			}
			if _, ok := t.In.Grip(places, nil, t.Hand); ok {
				slices.SortFunc(v.rungs, func(a, b rung) int { return a.midi - b.midi })
				out = append(out, v)
			}
		}
	}
	return out
}

// twoPositions goes up through the window and down through the next position of
// the key, each note where it lies there.
func twoPositions(placed func(Task, harmony.Chord) []rung) func(Task, []stretch, int) error {
	return func(t Task, all []stretch, _ int) error { return t.twoPositions(placed, all) }
}

func (t Task) twoPositions(placed func(Task, harmony.Chord) []rung, all []stretch) error {
	next := t
	for _, p := range t.In.Positions(t.Key.Tonic.Class()) {
		if p.Low != t.Region.Low {
			next.Region.Low, next.Region.High = p.Low, p.High
		}
		if p.Low > t.Region.Low {
			break // at the end of the neck it stays the one before
		}
	}
	if next.Region == t.Region {
		return nil
	}
	for i := range all {
		up, down := placed(t, all[i].chord), there(placed(next, all[i].chord), true)
		if len(up) > 0 && len(down) > 0 && up[len(up)-1].midi == down[0].midi {
			down = down[1:]
		}
		if len(down) > 0 {
			down[0].about = true // the shift
		}
		all[i].walk = alone(append(up, down...))
	}
	return nil
}

// arpeggiated are a chord's tones where an arpeggio of the window has them.
func arpeggiated(t Task, c harmony.Chord) (out []rung) {
	w := neck.Region{Low: t.Region.Low, High: t.Region.High}
	for _, n := range arpeggio.Make(t.In, c, w, t.Hand, nil).Notes {
		if t.on(n.String) {
			out = append(out, rung{midi: n.Pitch.MIDI(), name: n.Pitch.Name, degree: n.Degree, str: n.String})
		}
	}
	return out
}

// lying are the rungs of a ladder on the strings where the window has them, each as far down the neck as it can.
func lying(l ladder) func(Task, harmony.Chord) []rung {
	return func(t Task, c harmony.Chord) []rung {
		rungs := l(t, c)
		for i := range rungs {
			places := slices.DeleteFunc(t.In.Find(rungs[i].midi, t.Region), func(p neck.Placement) bool { return !t.on(p.String) })
			rungs[i].str = slices.MinFunc(places, func(a, b neck.Placement) int { return a.Fret - b.Fret }).String
		}
		return rungs
	}
}

// skipping is chord tones on strings two apart: those of a string, of the next but one, of the one between and so on,
// from the lowest string in hand. One that skips nothing is none.
func skipping(t Task, c harmony.Chord) (out []rung) {
	var strings []int
	for str := t.In.Strings(); str >= 1; str-- {
		if t.on(str) {
			strings = append(strings, str)
		}
	}
	if len(strings) < 3 {
		return nil
	}
	for k := range len(strings) - 2 {
		for _, str := range []int{strings[k], strings[k+2]} {
			on := t
			on.Region.Strings = neck.StringsOf(str)
			for _, r := range tones(on, c) {
				r.str = str
				out = append(out, r)
			}
		}
	}
	return out
}

// sinks is from how many half steps above the next chord thirds sink.
const sinks = 3

// sinkingThirds holds a third of each chord, root and third or third and fifth,
// and sinks by half steps onto one of the next chord.
func (t Task) sinkingThirds(all []stretch, step int) error {
	pairs := func(c harmony.Chord) (out [][]rung) {
		rungs := only(triad...)(t, c)
		for i, low := range rungs {
			for _, high := range rungs[i:] {
				if d := high.midi - low.midi; (d == 3 || d == 4) && len(t.held([][]rung{{low, high}})) == 1 {
					out = append(out, []rung{low, high})
				}
			}
		}
		return out
	}
	nearest := func(to [][]rung, midi int) []rung {
		var best []rung
		for _, p := range to {
			if best == nil || abs(p[0].midi-midi) < abs(best[0].midi-midi) {
				best = p
			}
		}
		return best
	}
	now := []rung(nil)
	for i := range all {
		s := &all[i]
		own := pairs(s.chord)
		if len(own) == 0 {
			continue
		}
		if now == nil || !slices.ContainsFunc(own, func(p []rung) bool { return p[0].midi == now[0].midi && p[1].midi == now[1].midi }) {
			now = own[len(own)/2]
		}
		goal := nearest(pairs(all[(i+1)%len(all)].chord), now[0].midi-1)
		count := (s.to - s.from) / step
		for k := range count {
			left := count - k
			if goal == nil || left > sinks || k == 0 {
				s.walk = append(s.walk, now)
				continue
			}
			var pair []rung
			for _, r := range goal {
				pair = append(pair, rung{midi: r.midi + left, name: plain(r.midi+left, r.name, 1)})
			}
			if len(t.held([][]rung{pair})) == 0 {
				pair = now
			}
			s.walk = append(s.walk, pair)
		}
		now = goal
	}
	return nil
}
