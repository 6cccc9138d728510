package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// voicings is how a groove has its chords voiced.
type voicings int

const (
	shells  voicings = iota // third and seventh, with one tone more on top
	colours                 // the same, and a 9th or a 13th of the key on top
	powers                  // rooted: root and fifth, the chord's third and seventh over it where it is struck hard
)

// lowered is how many half steps rooted voicings lie below the comper's range.
const lowered = 8

// reach is where a comper's chords lie in a groove.
func (c Comper) reach(v voicings) [2]int {
	if v == powers {
		return [2]int{c.Range[0] - lowered, c.Range[1] - lowered}
	}
	return c.Range
}

// chosen is a chord as it is voiced in a part of a phrase.
type chosen struct {
	part    int
	voicing []int
}

// voice chooses how a chord is struck: the same way for two bars, another in the next two, moving as little as it can from the
// voicing before. Every full voicing holds the chord's third and seventh, where it has them; a soft stroke of a rooted one is its
// root and fifth alone. bar is the one it is heard in.
func (s *session) voice(c harmony.Chord, soft bool, bar int) (best []int) {
	name := c.String()
	if soft && s.g.voicings == powers {
		name += " soft"
	}
	all, known := s.voiced[name]
	if !known {
		if s.voiced == nil {
			s.voiced = map[string][][]int{}
		}
		all = s.possible(c, s.g.voicings, soft)
		s.voiced[name] = all
	}
	was, known := s.chosen[name]
	if part := bar / 2; known && was.part == part {
		s.voicing = was.voicing
		return was.voicing
	}
	least := 1 << 30
	for _, v := range all {
		m := s.movement(v)
		if known && slices.Equal(v, was.voicing) {
			m += 1000
		}
		if m < least {
			best, least = v, m
		}
	}
	if s.chosen == nil {
		s.chosen = map[string]chosen{}
	}
	s.chosen[name] = chosen{bar / 2, best}
	s.voicing = best
	return best
}

// possible lists the voicings of a chord in reach. Those of a guitar are held by a hand.
func (s *session) possible(c harmony.Chord, way voicings, soft bool) (out [][]int) {
	reach := s.comper.reach(s.g.voicings)
	core, extra := shell(c)
	tops := slices.Clone(extra)
	slices.Reverse(tops) // what it is called by first
	if way == colours {
		tops = append(tops, colour(c, s.o.Key, s.p)...)
	}
	add := func(v []int) {
		if v[len(v)-1] <= reach[1] && (!s.comper.Strums || held(v)) {
			out = append(out, v)
		}
	}
	for low := reach[0]; low <= reach[1]-12; low++ {
		switch {
		case way == powers:
			if low%12 == c.Root.Class() {
				add(rooted(low, c, soft))
				if open := opened(low, c); !soft && open != nil {
					add(open)
				}
			}
		case !slices.Contains(core, low%12):
		case len(tops) == 0:
			add(stack(low, core))
		default:
			for _, top := range tops {
				add(stack(low, core, top))
			}
		}
	}
	if len(out) == 0 && way == powers { // no hand holds it so
		return s.possible(c, shells, soft)
	}
	return out
}

// colour is what may be added on top of a seventh chord: its 9th and its 13th, where the
// chord's scale has them natural, the key has them at all, and no other chord of the
// progression is called by them.
func colour(c harmony.Chord, key *form.Key, p form.Progression) (out []int) {
	has := func(r harmony.Role) bool {
		return slices.ContainsFunc(c.Tones, func(t harmony.Tone) bool { return t.Degree.Role() == r })
	}
	if key == nil || c.Diminished() || !has(harmony.Seventh) || has(harmony.Extension) {
		return nil
	}
	for _, t := range c.Scale() {
		natural := t.Degree == "9" || t.Degree == "13" && c.Dominant()
		inKey := slices.ContainsFunc(key.Scale(), func(n pitch.Name) bool { return n.Class() == t.Name.Class() })
		called := slices.ContainsFunc(p.Places(), func(o form.Place) bool { return o.Chord.Root == c.Root && o.Chord.HasDegree(t.Degree) })
		if natural && inKey && !called {
			out = append(out, t.Name.Class())
		}
	}
	return out
}

// rooted builds a voicing from its root: the fifth, then (if not soft) the seventh and the
// third above. What a chord is called by above its seventh takes the place of the fifth.
func rooted(root int, c harmony.Chord, soft bool) []int {
	v := []int{root}
	add := func(t harmony.Tone) {
		top := v[len(v)-1]
		v = append(v, top+pitch.Class(t.Name.Class()-top))
	}
	of := map[harmony.Role]harmony.Tone{}
	for _, t := range c.Tones {
		if role := t.Degree.Role(); role != harmony.Third || !c.HasDegree("11") {
			of[role] = t // the last is the highest
		}
	}
	order := []harmony.Role{harmony.Fifth, harmony.Seventh, harmony.Third}
	switch top, extended := of[harmony.Extension]; {
	case soft:
		order = order[:1]
	case extended && top.Interval.HalfSteps%12 < 5: // a ninth
		order = []harmony.Role{harmony.Third, harmony.Seventh, harmony.Extension}
	case extended:
		order = []harmony.Role{harmony.Seventh, harmony.Third, harmony.Extension}
	}
	for _, role := range order {
		if t, has := of[role]; has {
			add(t)
		}
	}
	if len(v) < 3 && !soft { // a fifth alone: its root again
		v = append(v, root+12)
	}
	return v
}

// opened builds one with the fifth on top: root, seventh, third, fifth; nil where a chord is called by more.
func opened(root int, c harmony.Chord) []int {
	v := []int{root}
	for _, role := range []harmony.Role{harmony.Seventh, harmony.Third, harmony.Fifth} {
		i := slices.IndexFunc(c.Tones, func(t harmony.Tone) bool { return t.Degree.Role() == role })
		if i < 0 || c.HasDegree("11") || c.HasDegree("9") || c.HasDegree("13") {
			return nil
		}
		top := v[len(v)-1]
		v = append(v, top+pitch.Class(c.Tones[i].Name.Class()-top))
	}
	return v
}

var standard = neck.Standard()

// held tells that a guitar's hand can hold a voicing.
func held(v []int) bool {
	in := standard
	var places []neck.Placement
	var try func(i, under int) bool
	try = func(i, under int) bool {
		if i == len(v) {
			_, ok := in.Grip(places, nil, neck.UsualHand)
			return ok
		}
		for str := under - 1; str >= 1; str-- {
			p := neck.Placement{String: str}
			p.Fret = v[i] - in.MIDI(p)
			if p.Fret < 0 || p.Fret > 15 || i > 0 && (distance(p.Fret, places[i-1].Fret) > 4 || under-str > 2) {
				continue
			}
			places = append(places, p)
			ok := try(i+1, str)
			places = places[:i]
			if ok {
				return true
			}
		}
		return false
	}
	return try(0, in.Strings()+1)
}

// shell splits a chord into the classes every voicing has and those it may add.
func shell(c harmony.Chord) (core, extra []int) {
	eleventh := c.HasDegree("11") && c.HasDegree("3")
	for _, t := range c.Tones {
		switch role := t.Degree.Role(); {
		case eleventh && role == harmony.Third:
			// it would rub against the 11, which is what the chord is called by
		case role == harmony.Third || role == harmony.Seventh || eleventh && t.Degree == "11":
			core = append(core, t.Name.Class())
		default:
			extra = append(extra, t.Name.Class())
		}
	}
	if c.Diminished() { // without its root it is the dominant a half step below
		return append(core, c.Root.Class()), slices.DeleteFunc(extra, func(class int) bool { return class == c.Root.Class() })
	}
	if len(core) < 2 { // triads and fifths need their root to be understood
		core = append(core, c.Root.Class())
		extra = slices.DeleteFunc(extra, func(class int) bool { return class == c.Root.Class() })
	}
	return core, extra
}

// stack builds a close voicing upwards from a note of the core: the rest of the core, then
// what is put on top.
func stack(low int, core []int, top ...int) []int {
	v := []int{low}
	above := func(class int) int {
		top := v[len(v)-1]
		return top + pitch.Class(class-top)
	}
	for _, class := range core {
		if class != low%12 {
			v = append(v, above(class))
		}
	}
	slices.Sort(v)
	for _, class := range top {
		v = append(v, above(class))
	}
	return v
}

// movement is how far a voicing lies from the one before; the first takes the
// middle of the register.
func (s *session) movement(v []int) int {
	reach := s.comper.reach(s.g.voicings)
	if len(s.voicing) == 0 {
		return distance(v[0], (reach[0]+reach[1])/2-5)
	}
	sum := 0
	for i, midi := range v {
		sum += distance(midi, s.voicing[min(i, len(s.voicing)-1)])
	}
	return sum + max(0, reach[0]+4-v[0]) // stay off the very bottom
}
