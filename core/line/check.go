package line

import (
	"undaris/core/approach"
	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/say"
	"undaris/core/score"
)

// Role is what a note does in its line.
type Role string

// The roles, from the most to the least settled.
const (
	Lands      Role = "landing"
	Anticipate Role = "anticipation"
	Tone       Role = "chord tone"
	Enclosing  Role = "enclosure"
	Approach   Role = "approach note"
	Leaned     Role = "leaned on"
	Between    Role = "passing note"
	Colour     Role = "colour"
	Loose      Role = "loose" // it neither belongs to the chord nor leads anywhere
)

// Reading is what one note is and does.
type Reading struct {
	blend.Sound
	Role   Role
	Strong bool   // on beat 1 or 3, or on a change
	Rests  bool   // held, or followed by silence
	Fault  bool   // it should be mended
	Says   string // why it is there, or what is wrong with it
}

// Phrase is a stretch of notes between rests. Phrases of the same rhythm and
// degrees share a letter; those of the same rhythm and contour, or that begin so,
// have a prime.
type Phrase struct {
	Name     string
	From, To int // indexes of notes, both included

	Role   string         // one of those of roles.go; "" where it is none
	Like   string         // what it takes from one before it, in words; "" where nothing
	Ends   harmony.Degree // what its last note is in the key
	Closes bool           // it comes to rest there: nothing need follow
}

// Report is a line checked.
type Report struct {
	Notes                     []Reading
	Landings                  []Landing
	Phrases                   []Phrase
	ChordTones, Palette, Else int     // of the notes: in the chord; in the palette alone; in neither
	Travel                    float64 // of the hand, in millimetres
	Advice                    []string
}

// held is from which length on a note counts as rested on.
const held = score.Tick * 3 / 2

// Check reads a line against its chords and a palette of its key, by a rule of
// what may rest.
func Check(s score.Score, palette blend.Palette, rule Rule) Report {
	r := Report{Notes: make([]Reading, len(s.Notes))}
	inside := membership{key: s.Key, palette: palette}
	for i := range s.Notes {
		r.Notes[i] = inside.reading(s, i, rule)
		r.Notes[i].Says += played(s.Notes[i])
	}
	for i, n := range s.Notes {
		chord, sounds := s.ChordAt(n.Start)
		if !sounds {
			continue
		}
		switch {
		case r.Notes[i].Class == blend.ChordTone:
			r.ChordTones++
		case inside.has(chord, n.Heard()):
			r.Palette++
		default:
			r.Else++
		}
		if i > 0 {
			r.Travel += crossing.Travel(s.In, s.Notes[i-1].Placement, n.Placement)
		}
	}
	r.Landings = landings(s, rule)
	r.Phrases = phrases(s)
	r.advise(s)
	return r
}

// played tells how a note is reached, where that is part of why it is there.
func played(n score.Note) string {
	switch {
	case n.Bend == 1:
		return ", curled"
	case n.Bend > 1:
		return say.F(", bent up %s from %s", map[int]string{2: "a half step", 4: "a whole step", 6: "three half steps"}[n.Bend], n.Pitch)
	case n.Scoop > 0:
		return ", slid into from below"
	}
	return ""
}

// membership tells what is in a palette, over one chord after the other.
type membership struct {
	key     form.Key
	palette blend.Palette
	over    string // the chord in hand
	printed string
	classes [12]bool
}

// on takes a chord in hand, and tells how it is printed.
func (m *membership) on(chord harmony.Chord) string {
	if over := chord.String(); m.over != over {
		m.over, m.printed, m.classes = over, chord.Printed(), [12]bool{}
		for _, n := range m.palette.Notes(m.key, chord) {
			m.classes[n.Name.Class()] = true
		}
	}
	return m.printed
}

// has tells whether a MIDI number is in it over a chord.
func (m *membership) has(chord harmony.Chord, midi int) bool {
	m.on(chord)
	return m.classes[midi%12]
}

// over is what a note is over a chord.
func over(c harmony.Chord, midi int) blend.Sound {
	return blend.Sounds(c)[c.Above(midi)]
}

// reading says what a note is and, from its neighbours, what it does.
func (m *membership) reading(s score.Score, i int, rule Rule) Reading {
	n := s.Notes[i]
	chord, sounds := s.ChordAt(n.Start)
	if !sounds {
		return Reading{Says: "over silence"}
	}
	r := Reading{Sound: over(chord, n.Heard())}
	rule = rule.Over(s.Key, chord)
	inBar := s.InBar(n.Start)
	change := s.Change(n.Start)
	r.Strong = change || inBar%(2*score.Tick) == 0
	next, follows := s.After(i)
	r.Rests = n.Length >= held || !follows || s.Notes[next].Start-n.Start >= n.Length+score.Tick
	if n.Dead {
		r.Role, r.Says, r.Rests = Between, "muted", false
		return r
	}
	if r.Class == blend.ChordTone {
		r.Role, r.Says = Tone, "the "+r.Degree.Printed()+" of "+m.on(chord)
		if change {
			r.Role, r.Says = Lands, "lands the change on "+r.Says
		}
		if says, ok := encloses(s, i); ok && !r.Rests {
			r.Says += says
		}
		return r
	}
	if to, ok := pushes(s, i); ok {
		r.Role, r.Says = Anticipate, say.F("pushed: the %s of %s, which follows", over(to, n.Heard()).Degree, to)
		return r
	}
	name := "the " + r.Degree.Printed() + " over " + m.on(chord)
	if follows && !r.Rests {
		if r.leads(s, i, next) {
			r.Says = name + r.Says
			return r
		}
	}
	switch {
	case n.Bend == 1 && r.Class == blend.Blue:
		r.Role, r.Says = Leaned, name
	case r.Rests && rule.Allows(chord, r.Sound):
		r.Role, r.Says = Leaned, say.F("%s (%s may rest)", name, rule.Name)
	case r.Rests && r.Class == blend.Colour:
		r.Role, r.Fault = Loose, true
		r.Says = say.F("comes to rest on %s, a colour; by your rule %s may rest", name, rule.Name)
	case r.Class == blend.Colour:
		r.Role, r.Says = Colour, "colour: "+name
	case r.Rests:
		r.Role, r.Fault = Loose, true
		r.Says = "comes to rest on " + name + ", which wants to move" + wants(r.Sound)
	case r.Class == blend.Blue:
		r.Role, r.Says = Between, "blue: "+name+wants(r.Sound)
	default:
		r.Role, r.Fault = Loose, r.Strong
		r.Says = name + " leads nowhere" + wants(r.Sound)
	}
	return r
}

// pushes tells that a note comes a beat at most before a change and belongs to
// the new chord.
func pushes(s score.Score, i int) (to harmony.Chord, ok bool) {
	n := s.Notes[i]
	for at := n.Start/score.Tick*score.Tick + score.Tick; at <= n.Start+score.Tick; at += score.Tick {
		if !s.Change(at) || n.Start >= at || n.End() < at && at-n.Start > clipped {
			continue
		}
		to, _ := s.ChordAt(at)
		return to, over(to, n.Heard()).Class == blend.ChordTone
	}
	return to, false
}

func wants(s blend.Sound) string {
	if len(s.Wants) == 0 {
		return ""
	}
	return say.F(" to %s", s.Wants[0])
}

// leads tells whether a note belongs to an enclosure, approaches the next note,
// or passes between its neighbours; Says is then what follows its name.
func (r *Reading) leads(s score.Score, i, next int) bool {
	midi, to := s.Notes[i].Heard(), s.Notes[next].Heard()
	ahead, sounds := s.ChordAt(s.Notes[next].Start)
	if !sounds {
		return false
	}
	tone := over(ahead, to).Class == blend.ChordTone
	step := to - midi
	if says, ok := encloses(s, i); ok {
		r.Role, r.Says = Enclosing, says
		return true
	}
	switch {
	case tone && size(step) == 1:
		r.Role, r.Says = Approach, say.F(", a fret %s the %s of %s that it moves to", map[bool]string{true: "below", false: "above"}[step > 0], over(ahead, to).Degree, ahead)
		return true
	case tone && size(step) == 2:
		r.Role, r.Says = Between, say.F(", a step from the %s of %s", over(ahead, to).Degree, ahead)
		return true
	}
	if before, ok := prior(s, i); ok {
		from := midi - s.Notes[before].Heard()
		if from*step > 0 && size(from) <= 3 && size(step) <= 3 {
			r.Role, r.Says = Between, ", passing on its way "+map[bool]string{true: "up", false: "down"}[step > 0]
			return true
		}
	}
	return false
}

// encloses tells that a note and the one after it, or before it, lie on either side of the chord tone that follows
// them; where both are tones of the chord that sounds, only over a change.
func encloses(s score.Score, i int) (says string, ok bool) {
	if next, ok := s.After(i); ok {
		if goal, ok := s.After(next); ok {
			if tone, c, ok := betweenBoth(s, i, next, goal); ok {
				return say.F(", encloses the %s of %s with the note that follows", tone, c), true
			}
		}
		if before, ok := prior(s, i); ok {
			if tone, c, ok := betweenBoth(s, before, i, next); ok {
				return say.F(", encloses the %s of %s with the note before", tone, c), true
			}
		}
	}
	return "", false
}

// betweenBoth is the tone that two notes lead to from both sides, with its chord. Notes of the chord's own arpeggio enclose
// nothing of it, and a held note is one that the line rests on.
func betweenBoth(s score.Score, a, b, goal int) (tone harmony.Degree, c harmony.Chord, ok bool) {
	c, sounds := s.ChordAt(s.Notes[goal].Start)
	if !sounds {
		return tone, c, false
	}
	at := over(c, s.Notes[goal].Heard())
	ok = at.Class == blend.ChordTone && approach.Enclose(s.Notes[a].Heard(), s.Notes[b].Heard(), s.Notes[goal].Heard(), c)
	for _, k := range []int{a, b} {
		ok = ok && over(c, s.Notes[k].Heard()).Class != blend.ChordTone && !s.Notes[k].Dead
	}
	return at.Degree, c, ok && s.Notes[goal].Start-s.Notes[a].Start <= 2*score.Tick
}

// prior is the last note before one that does not sound together with it.
func prior(s score.Score, i int) (int, bool) {
	for j := i - 1; j >= 0; j-- {
		if s.Notes[j].Start < s.Notes[i].Start {
			return j, true
		}
	}
	return 0, false
}

func size(n int) int { return max(n, -n) }
