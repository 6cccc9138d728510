package exercise

import (
	"slices"

	"undaris/core/approach"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// lead is the note beside a tone of a chord that a step of an approach plays.
func lead(step approach.Step, r rung, c harmony.Chord) rung {
	midi := step.To(r.midi, c)
	name := plain(midi, r.name, step.By)
	if !step.Scale && abs(step.By) == 2 {
		name = plain(midi, plain(r.midi+step.By/2, r.name, step.By), step.By)
	}
	if step.Scale {
		for _, t := range c.Scale() {
			if t.Name.Class() == pitch.Class(midi) {
				name = t.Name
			}
		}
	}
	return rung{midi: midi, name: name, str: r.str}
}

// unit is how long a tone lasts with what leads into the next one: whole beats.
func unit(a approach.Way, step int) int {
	if n := len(a.Steps); n > 0 {
		return ((n+1)*step + score.Tick - 1) / score.Tick * score.Tick
	}
	return step
}

// lay puts walks into time: each goes over and over until its chord is over. With
// an approach each group fills whole beats: its tone on the beat, held, and then
// what leads into the next tone, also into the next chord's first.
func (t Task) lay(all []stretch, a approach.Way, step int) (notes []score.Note) {
	unit := unit(a, step)
	add := func(r rung, at, length int) { notes = append(notes, r.note(at, length)) }
	for k, s := range all {
		i := 0
		slow, wide := step, unit
		var end int
		for at := s.from; at < s.to; at = end {
			if step, unit = slow, wide; t.Double && len(a.Steps) == 0 && slow >= 240 && 2*(at-s.from) >= s.to-s.from {
				step, unit = slow/2, wide/2
			}
			group := s.walk[i%len(s.walk)]
			i++
			end = min(t.until(at, unit*max(1, group[0].held), i), s.to)
			next, over := s.walk[i%len(s.walk)], s.chord
			if end >= s.to {
				next = nil
				if k+1 < len(all) && all[k+1].from == s.to {
					next, over = all[k+1].walk[0], all[k+1].chord
				}
			}
			leads := t.leads(a, next, over)
			length := end - at - len(leads)*step
			if length < step || length <= 0 { // no room before the chord is over
				leads, length = nil, end-at
			}
			for _, r := range group {
				add(r, at, length)
			}
			for j, r := range leads {
				add(r, end-(len(leads)-j)*step, step)
			}
		}
	}
	return notes
}

// until is when the group that comes as the i-th of its chord, counted from 1, is over: the last of a burst is held until
// the next beat but what its own time reaches.
func (t Task) until(at, length, i int) int {
	if end := at + length; t.Burst == 0 || i%t.Burst != 0 {
		return end
	} else {
		return (end + score.Tick) / score.Tick * score.Tick
	}
}

// settled has a walk end, after so many groups, on a tone of the chord: what is brushed last gives its time to the one
// before it.
func settled(walk [][]rung, count int, c harmony.Chord) [][]rung {
	if len(walk) == 0 || count < 2 {
		return walk
	}
	at := func(k int) []rung { return walk[k%len(walk)] }
	if _, tone := c.ToneAt(pitch.Class(at(count - 1)[0].midi)); tone {
		return walk
	}
	var out [][]rung
	for k := range count - 1 {
		out = append(out, slices.Clone(at(k)))
	}
	out[count-2][0].held = 2
	return out
}

// fitted turns a walk so that what the exercise is about comes while its chord sounds, for so many groups, half of them
// before it. A walk that gets there by itself, or comes round, stays.
func fitted(walk [][]rung, count int) [][]rung {
	at := slices.IndexFunc(walk, func(g []rung) bool { return g[0].about })
	if at < count {
		return walk
	}
	from := at - count/2
	return slices.Concat(walk[from:], walk[:from])
}

// ending brings the exercise to rest: on the last beat, on the tone of its chord that is nearest, held. What strikes notes
// together, or fills beats with what leads in, ends on a beat by itself.
func (t Task) ending(notes []score.Note, last stretch) []score.Note {
	beat := last.to - score.Tick
	i := slices.IndexFunc(notes, func(n score.Note) bool { return n.Start >= beat })
	if i < 0 || beat < last.from || i > 0 && notes[i-1].End() > beat || notes[i].Start > beat {
		return notes
	}
	var best []rung
	for _, g := range last.walk {
		if slices.ContainsFunc(g, func(r rung) bool {
			_, tone := last.chord.ToneAt(pitch.Class(r.midi))
			return !tone || r.bend > 0
		}) {
			continue
		}
		if best == nil || abs(g[0].midi-notes[i].Pitch.MIDI()) < abs(best[0].midi-notes[i].Pitch.MIDI()) {
			best = g
		}
	}
	if best == nil {
		return notes
	}
	notes = notes[:i:i]
	for _, r := range best {
		notes = append(notes, r.note(beat, score.Tick))
	}
	return notes
}

// note is a rung in time, where it is meant to lie.
func (r rung) note(at, length int) score.Note {
	return score.Note{Start: at, Length: length, Pitch: pitch.At(r.midi, r.name), Degree: string(r.degree), Named: r.named, Ornaments: score.Ornaments{Bend: r.bend},
		Placement: neck.Placement{String: r.str}}
}

// leads are the notes into a group, where it is a single tone and they lie on the
// neck near the window.
func (t Task) leads(a approach.Way, group []rung, c harmony.Chord) (out []rung) {
	if len(group) != 1 || len(t.Into) > 0 && !slices.Contains(t.Into, group[0].member()) {
		return nil
	}
	for _, step := range a.Steps {
		r := lead(step, group[0], c)
		if len(t.In.Find(r.midi, t.around(3))) == 0 {
			return nil
		}
		out = append(out, r)
	}
	return out
}

// finish finds places and fingers: on the strings that notes are meant for, else
// in the window and on the strings in hand, a fret around it for notes that lead
// in. Notes that lead to a tone lie on its string where the hand allows.
func (t Task) finish(notes []score.Note) bool {
	prefer := make([]int, len(notes))
	w := t.Region
	for i, n := range notes {
		midi := n.Pitch.MIDI()
		if prefer[i] = n.String; n.String > 0 {
			fret := midi - t.In.MIDI(neck.Placement{String: n.String})
			w.Low, w.High = min(w.Low, fret), max(w.High, fret)
			continue
		}
		for _, p := range t.In.Find(midi, t.Region) {
			if t.narrow() && t.on(p.String) && t.In.Bends(p) >= n.Bend {
				prefer[i] = p.String
			}
		}
	}
	t.Region = w
	wishes, leads := t.ledFrom(notes, prefer)
	for _, frets := range []int{0, 1, 3} {
		if leads && frets == 0 {
			frets = 2 // what leads to a tone may lie beyond the window, on its string
		}
		if _, _, ok := score.Place(t.In, notes, t.around(frets), t.Hand, wishes); ok {
			return true
		}
	}
	return false
}

// narrow tells that not all strings are practised on.
func (t Task) narrow() bool {
	return len(t.In.On(t.Region.Strings)) < t.In.Strings()
}

// ledFrom wishes for the tones the strings that they would have in the window by
// themselves, and for what leads to a tone its string. leads tells that there is
// such a note.
func (t Task) ledFrom(notes []score.Note, prefer []int) (wishes []int, leads bool) {
	var tones []score.Note
	var wish []int
	for i, n := range notes {
		if n.Degree != "" {
			tones = append(tones, n)
			wish = append(wish, prefer[i])
		}
	}
	if len(tones) == len(notes) {
		return prefer, false
	}
	if _, _, ok := score.Place(t.In, tones, t.Region, t.Hand, wish); !ok {
		return prefer, true
	}
	wishes = slices.Clone(prefer)
	str := 0
	for i, k := len(notes)-1, len(tones)-1; i >= 0; i-- {
		if notes[i].Degree != "" {
			str = tones[k].String
			k--
		}
		wishes[i] = str
	}
	return wishes, true
}
