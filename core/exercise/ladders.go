package exercise

import (
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// inWindow collects the pitches of a window and its strings that are asked for.
func inWindow(t Task, take func(midi int) (rung, bool)) (out []rung) {
	for midi := range 128 {
		r, ok := take(midi)
		if ok && slices.ContainsFunc(t.In.Find(midi, t.Region), func(p neck.Placement) bool { return t.on(p.String) }) {
			out = append(out, r)
		}
	}
	return out
}

// toneAt makes a rung of a tone.
func toneAt(midi int, tone harmony.Tone) rung {
	return rung{midi: midi, name: tone.Name, degree: tone.Degree}
}

// tones is every chord tone in the window.
func tones(t Task, c harmony.Chord) []rung {
	return inWindow(t, func(midi int) (rung, bool) {
		tone, ok := c.ToneAt(pitch.Class(midi))
		return toneAt(midi, tone), ok
	})
}

// only keeps some degrees of the chord.
func only(degrees ...harmony.Degree) ladder {
	return func(t Task, c harmony.Chord) []rung {
		return slices.DeleteFunc(tones(t, c), func(r rung) bool { return !slices.Contains(degrees, r.degree) })
	}
}

// step is the tone of the chord's scale on a letter above the root.
func step(c harmony.Chord, letters int) (harmony.Tone, bool) {
	scale := c.Scale()
	i := slices.IndexFunc(scale, func(s harmony.Tone) bool { return s.Interval.Letters%7 == letters })
	if i < 0 {
		return harmony.Tone{}, false
	}
	return scale[i], true
}

// letterOf is the letter above the root of a degree that is asked for, as it is
// over the plainest chord.
var letterOf = map[harmony.Degree]int{"9": 1, "11": 3, "13": 5}

// with is the chord's tones and some steps of its scale.
func with(degrees ...harmony.Degree) ladder {
	return func(t Task, c harmony.Chord) []rung {
		return inWindow(t, func(midi int) (rung, bool) {
			if tone, ok := c.ToneAt(pitch.Class(midi)); ok {
				return toneAt(midi, tone), true
			}
			for _, d := range degrees {
				if s, ok := step(c, letterOf[d]); ok && s.Name.Class() == pitch.Class(midi) {
					return toneAt(midi, s), true
				}
			}
			return rung{}, false
		})
	}
}

// fromThird is the seventh chord on the third: 3 5 7 9 of the chord, as it has
// them, and nothing else.
func fromThird(t Task, c harmony.Chord) []rung {
	nine, ok := step(c, 1)
	return inWindow(t, func(midi int) (rung, bool) {
		if ok && nine.Name.Class() == pitch.Class(midi) {
			return toneAt(midi, nine), true
		}
		tone, ok := c.ToneAt(pitch.Class(midi))
		return toneAt(midi, tone), ok && (tone.Degree.Role() == harmony.Third || tone.Degree.Role() == harmony.Fifth || tone.Degree.Role() == harmony.Seventh)
	})
}

// scale is the chord's own scale.
func scale(t Task, c harmony.Chord) []rung {
	steps := c.Scale()
	return inWindow(t, func(midi int) (rung, bool) {
		i := slices.IndexFunc(steps, func(s harmony.Tone) bool { return s.Name.Class() == pitch.Class(midi) })
		if i < 0 {
			return rung{}, false
		}
		return toneAt(midi, steps[i]), true
	})
}

// keyScale is the scale of the key, each note with what it is over the chord.
func keyScale(t Task, c harmony.Chord) []rung {
	steps := t.Key.Scale()
	sounds := blend.Sounds(c)
	return inWindow(t, func(midi int) (rung, bool) {
		i := slices.IndexFunc(steps, func(n pitch.Name) bool { return n.Class() == pitch.Class(midi) })
		if i < 0 {
			return rung{}, false
		}
		return rung{midi: midi, name: steps[i], degree: sounds[c.Above(midi)].Degree}, true
	})
}

// reached is the run with the next tone above it, on the highest string in hand,
// up to four frets beyond the window.
func reached(t Task, c harmony.Chord) []rung {
	out := tones(t, c)
	for str := 1; str <= t.In.Strings() && len(out) > 0; str++ {
		if !t.on(str) {
			continue
		}
		for fret := t.Region.High + 1; fret <= min(t.Region.High+4, t.In.Last()); fret++ {
			midi := t.In.MIDI(neck.Placement{String: str, Fret: fret})
			if tone, ok := c.ToneAt(pitch.Class(midi)); ok && midi > out[len(out)-1].midi {
				r := toneAt(midi, tone)
				r.str, r.about = str, true
				return append(out, r)
			}
		}
		break
	}
	return nil // there is none to reach for
}

// perString is the chord's scale with so many notes on each string, from the
// lowest string and the lowest fret of the window upwards.
func perString(count int) ladder {
	return func(t Task, c harmony.Chord) (out []rung) {
		steps := c.Scale()
		next := 0
		for str := t.In.Strings(); str >= 1; str-- {
			if !t.on(str) {
				continue
			}
			open := t.In.MIDI(neck.Placement{String: str})
			var here []rung
			for midi := max(next, open+max(1, t.Region.Low)); len(here) < count && midi <= open+t.In.Last(); midi++ {
				if i := slices.IndexFunc(steps, func(s harmony.Tone) bool { return s.Name.Class() == pitch.Class(midi) }); i >= 0 {
					r := toneAt(midi, steps[i])
					r.str = str
					here = append(here, r)
				}
			}
			if len(here) < count {
				return out
			}
			out = append(out, here...)
			next = here[count-1].midi + 1
		}
		return out
	}
}

// stretched is a triad with 2 and 4 over three strings: the root on the lowest, third,
// fourth and fifth on the middle one, root, ninth and third on the highest; strings 4, 3 and
// 1 where not just three are chosen. It is taken where the least of it lies outside the window.
func stretched(ofKey bool) ladder {
	return func(t Task, c harmony.Chord) []rung {
		low, middle, high := 4, 3, 1
		if on := t.In.On(t.Region.Strings); len(on) == 3 {
			low, middle, high = slices.Max(on), on[0]+on[1]+on[2]-slices.Max(on)-slices.Min(on), slices.Min(on)
		} else if t.In.Strings() < 4 {
			return nil
		}
		best, away := []rung(nil), 1<<20
		for fret := range t.In.Last() + 1 {
			root := t.In.MIDI(neck.Placement{String: low, Fret: fret})
			if pitch.Class(root) != c.Root.Class() {
				continue
			}
			var shape []rung
			for _, part := range []struct{ str, letters, octave int }{{low, 0, 0}, {middle, 2, 0}, {middle, 3, 0}, {middle, 4, 0}, {high, 0, 1}, {high, 1, 1}, {high, 2, 1}} {
				tone, ok := step(c, part.letters)
				if part.letters == 3 {
					tone, ok = fourth(t, c, ofKey), true
				}
				r := toneAt(root+tone.Interval.HalfSteps+12*part.octave, tone)
				r.str = part.str
				on := r.midi - t.In.MIDI(neck.Placement{String: part.str})
				if !ok || on < 0 || on > t.In.Last() {
					break
				}
				shape = append(shape, r)
			}
			if off := t.beyond(shape); len(shape) == 7 && off < away {
				best, away = shape, off
			}
		}
		return best
	}
}

// beyond is by how many frets notes on their strings lie outside the window, the farthest on either side.
func (t Task) beyond(shape []rung) (frets int) {
	low, high := 0, 0
	for _, r := range shape {
		fret := r.midi - t.In.MIDI(neck.Placement{String: r.str})
		low, high = max(low, t.Region.Low-fret), max(high, fret-t.Region.High)
	}
	return low + high
}

// fourth is the perfect fourth over a chord, or the key's note on that letter.
func fourth(t Task, c harmony.Chord, ofKey bool) harmony.Tone {
	d := harmony.Degree("11")
	if ofKey {
		for _, n := range t.Key.Scale() {
			if c.Above(n.Class()) == 6 && n.Letter == c.Root.Up(pitch.Interval{Letters: 3, HalfSteps: 6}).Letter {
				d = "#11"
			}
		}
	}
	i, _ := d.Interval()
	return harmony.Tone{Degree: d, Interval: i, Name: c.Root.Up(i)}
}
