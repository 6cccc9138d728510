package exercise

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Approach is what leads into each tone of a drill. The tone comes on the beat;
// what leads to it stands before it.
type Approach struct {
	ID, Name string
	steps    []lead
	fifths   bool // only into the fifths
}

// lead is a note that leads to a tone: half steps from it, or the next note of
// the chord's scale above.
type lead struct {
	halfSteps int
	scale     bool
}

var (
	below      = lead{halfSteps: -1}
	twoBelow   = lead{halfSteps: -2}
	scaleAbove = lead{scale: true}
)

// Approaches lists them.
var Approaches = []Approach{
	{"", "plain", nil, false},
	{"below", "a half step below", []lead{below}, false},
	{"above", "the scale's step above", []lead{scaleAbove}, false},
	{"enclosure", "enclosed: above, below", []lead{scaleAbove, below}, false},
	{"enclosure-below", "enclosed: below, above", []lead{below, scaleAbove}, false},
	{"double", "two half steps from below", []lead{twoBelow, below}, false},
	{"fifth", "a half step below, the fifth only", []lead{below}, true},
}

// to finds the note that leads to a tone over a chord.
func (l lead) to(r rung, c harmony.Chord) rung {
	by := l.halfSteps
	if l.scale {
		steps := c.Scale()
		for by = 1; by < 3; by++ {
			if slices.ContainsFunc(steps, func(s harmony.Tone) bool { return s.Name.Class() == pitch.Class(r.midi+by) }) {
				break
			}
		}
	}
	name := plain(r.midi+by, r.name, by)
	if by == -2 {
		name = plain(r.midi+by, plain(r.midi-1, r.name, -1), -1)
	}
	return rung{midi: r.midi + by, name: name, str: r.str}
}

// unit is how long a tone lasts with what leads into the next one: whole beats.
func (a Approach) unit(step int) int {
	if n := len(a.steps); n > 0 {
		return ((n+1)*step + score.Tick - 1) / score.Tick * score.Tick
	}
	return step
}

// lay puts walks into time: each goes over and over until its chord is over. With
// an approach each group fills whole beats: its tone on the beat, held, and then
// what leads into the next tone, also into the next chord's first.
func (t Task) lay(all []stretch, a Approach, step int) (notes []score.Note) {
	unit := a.unit(step)
	add := func(r rung, at, length int) {
		notes = append(notes, score.Note{Start: at, Length: length, Pitch: pitch.At(r.midi, r.name), Degree: string(r.degree), Named: r.named, Ornaments: score.Ornaments{Bend: r.bend},
			Placement: neck.Placement{String: r.str}}) // where it is meant to lie
	}
	for k, s := range all {
		i := 0
		slow, wide := step, unit
		for at := s.from; at < s.to; at += unit {
			if step, unit = slow, wide; t.Double && len(a.steps) == 0 && slow >= 240 && 2*(at-s.from) >= s.to-s.from {
				step, unit = slow/2, wide/2
			}
			group := s.walk[i%len(s.walk)]
			i++
			end := min(at+unit, s.to)
			next, over := s.walk[i%len(s.walk)], s.chord
			if at+unit >= s.to {
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

// leads are the notes into a group, where it is a single tone and they lie on the
// neck near the window.
func (t Task) leads(a Approach, group []rung, c harmony.Chord) (out []rung) {
	if len(group) != 1 || len(a.steps) == 0 || a.fifths && group[0].degree.Role() != harmony.Fifth {
		return nil
	}
	for _, l := range a.steps {
		r := l.to(group[0], c)
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
func (t Task) finish(notes []score.Note) (neck.Span, bool) {
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
			if t.narrow() && t.on(p.String) {
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
			return t.reach(notes), true
		}
	}
	return neck.Span{}, false
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

// reach is the widest reach of the notes in one place of the hand.
func (t Task) reach(notes []score.Note) neck.Span {
	touches := make([]neck.Touch, len(notes))
	for i, n := range notes {
		hand := n.Fret - max(0, n.Finger-1)
		if n.Fret == 0 {
			hand = 0
		}
		touches[i] = neck.Touch{Placement: n.Placement, Finger: n.Finger, Hand: hand}
	}
	return t.In.Widest(touches, t.Hand)
}
