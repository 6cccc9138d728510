package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/say"
)

// Bass is a way to play the bass: bars of four beats, for as many steps as a groove has to
// the beat. A chord begins with its bass note, whatever it is; then
//
//	R 3 5 6 7 8  the chord's tone (6 the sixth of its scale, 7 its seventh or, without one, its octave)
//	w            walks: a chord tone, or on the way a step of the scale or a half step between
//	<            leads into the next chord; where the bass note stays it walks
//	- .          holds, is silent
type Bass struct {
	ID, Name string
	inTurn   bool // bar after bar of one chord, not drawn
	hold     float64
	bars     map[int][]string
}

// Basses lists them; the first is what the groove has.
var Basses = []Bass{
	{ID: "own", Name: "as the feel has it"},
	{"walking", "walking", false, 0.9, map[int][]string{
		2: {"R-w-w-<-"}, 3: {"R--w--w--<--"}, 4: {"R---w---w---<---"}}},
	{"two", "in two", false, 0.92, map[int][]string{
		2: {"R---5---", "R---5--<", "R---3-5<"}, 3: {"R-----5-----", "R-----5----<", "R-----3--5-<"}, 4: {"R-------5-------", "R-------5-----<-", "R-------3---5-<-"}}},
	{"boogie", "boogie", true, 0.8, map[int][]string{
		2: {"RR335566", "77665533"}, 3: {"R-R3-35-56-6", "7-76-65-53-3"}, 4: {"R.R.3.3.5.5.6.6.", "7.7.6.6.5.5.3.3."}}},
	{"driving", "roots in eighths", false, 0.8, map[int][]string{
		2: {"RRRRRRR<", "RRRRRR5<"}, 3: {"R-RR-RR-RR-<", "R-RR-RR-R5-<"}, 4: {"R.R.R.R.R.R.R.<.", "R.R.R.R.R.R.5.<."}}},
	{"rolling", "rolling", false, 0.95, map[int][]string{
		2: {"R-R35-6<", "R--R5-3<"}, 3: {"R-R3-35-56-<", "R--R-53--5-<", "R----R5--3-<"}, 4: {"R-R-3---5---6-<-", "R---R-3-5---5-<-"}}},
	{"on the one", "on the one", false, 0.9, map[int][]string{
		2: {"R-.75-.<", "R-R.7-5<"}, 3: {"R-R..75-7..<", "R-R...5-7..<"}, 4: {"R-.R......57..<.", "R-.R..7...57..<.", "R-.R..5..57...<."}}},
	{"syncopated", "syncopated", false, 0.75, map[int][]string{
		2: {"R-.5.R.<", "R-.5.8.<"}, 3: {"R-.--5--R--<", "R-.--5--8--<"}, 4: {"R--...5-..R-..<-", "R--...5-..8-..<-", "R--...3-..5-..<-"}}},
}

// BassByID finds a way to play the bass; the groove's own where none is asked for.
func (g Groove) BassByID(id string) (Bass, error) {
	if id == "" || id == Basses[0].ID {
		id = g.bass
	}
	i := slices.IndexFunc(Basses, func(b Bass) bool { return b.ID == id })
	if i < 0 {
		return Bass{}, say.Errorf("there is no bass called %q", id)
	}
	return Basses[i], nil
}

// BassName is how the bass of the groove plays.
func (g Groove) BassName() string {
	b, _ := g.BassByID("")
	return b.Name
}

// bassUnder plays the bass of one chord, and its last note leads into the next.
func (s *session) bassUnder(here, next form.Place) {
	if here.Chord.None {
		s.lastBass, s.stays = 0, 0
		return
	}
	root := s.near(here.Chord.Bass.Class(), s.lastBass)
	if here.Chord.Bass.Class() != s.lastRoot || here.Beat > 0 {
		s.lastRoot, s.stays = here.Chord.Bass.Class(), 0
	}
	changes := !next.Chord.None && next.Chord.Bass.Class() != here.Chord.Bass.Class()
	figures := s.bass.bars[s.g.Steps]
	figure := figures[s.stays%len(figures)]
	if !s.bass.inTurn {
		figure = figures[s.rng.IntN(len(figures))]
	}
	goesOn := s.bass.inTurn && s.stays > 0
	if goesOn {
		root = s.root
	}
	s.root = root
	s.stays++
	steps := here.Length * s.g.Steps
	begins := func(step int) bool {
		sign := figure[step%len(figure)]
		return step == 0 || sign != '-' && sign != '.'
	}
	for step := 0; step < steps; step++ {
		if !begins(step) {
			continue
		}
		end, rest := step+1, false
		for end < steps && !begins(end) {
			rest = rest || figure[end%len(figure)] == '.'
			if rest {
				break
			}
			end++
		}
		last := true
		for later := step + 1; later < steps; later++ {
			last = last && !begins(later)
		}
		midi := root
		switch sign := figure[step%len(figure)]; {
		case step == 0 && !goesOn:
		case changes && last && step >= steps-s.g.Steps:
			midi = s.lead(next.Chord)
		case sign == 'w' || sign == '<':
			midi = s.walk(here.Chord, root)
		case sign == '8':
			midi = s.above(root, root%12)
		case sign != 'R':
			midi = s.above(root, degreeOf(here.Chord, sign))
		}
		at := here.Beat*s.g.Steps + step
		from, to := s.g.at(at), s.g.at(here.Beat*s.g.Steps+end)
		soft := 84
		if step%s.g.Steps == 0 {
			soft = 90
		}
		s.low = append(s.low, s.human(Note{Start: s.start + from, Length: max(Tick/10, int(float64(to-from)*s.bass.hold)), MIDI: midi, Velocity: soft}))
		s.lastBass = midi
	}
}

// degreeOf is the class of a chord's tone by its sign in a figure.
func degreeOf(c harmony.Chord, sign byte) int {
	role := map[byte]harmony.Role{'3': harmony.Third, '5': harmony.Fifth, '7': harmony.Seventh}[sign]
	for _, t := range c.Tones {
		if sign != '6' && t.Degree.Role() == role {
			return t.Name.Class()
		}
	}
	for _, t := range c.Scale() {
		if sign == '6' && (t.Interval.HalfSteps%12 == 8 || t.Interval.HalfSteps%12 == 9) {
			return t.Name.Class()
		}
	}
	return c.Root.Class()
}

// above is the nearest note of a class over the root, or under it where that is too high.
func (s *session) above(root, class int) int {
	midi := root + (class-root%12+12)%12
	if midi == root {
		midi += 12
	}
	if midi > BassRange[1] {
		midi -= 12
	}
	return midi
}

// near finds a pitch class close to the last note, in the bass's range; from
// nothing it starts around the A string.
func (s *session) near(class, last int) int {
	if last == 0 {
		last = 36
	}
	best := 0
	for midi := BassRange[0]; midi <= BassRange[1]; midi++ {
		if midi%12 == class && (best == 0 || distance(midi, last) < distance(best, last)) {
			best = midi
		}
	}
	// Left to itself a line drifts; the top and the bottom are for passing through.
	if best > BassRange[1]-7 {
		best -= 12
	}
	return best
}

// other is a chord tone beside the one just played, as a pitch class.
func (s *session) other(c harmony.Chord) int {
	n := s.rng.IntN(len(c.Tones))
	for range c.Tones {
		class := c.Tones[n%len(c.Tones)].Name.Class()
		if class != s.lastBass%12 && c.Tones[n%len(c.Tones)].Degree.Role() != harmony.Extension {
			return class
		}
		n++
	}
	return c.Root.Class()
}

// walk is the next step of a walking bass: a chord tone, or on the way a step of the
// scale or a half step between, never the note just played.
func (s *session) walk(c harmony.Chord, root int) int {
	if s.rng.IntN(3) > 0 {
		return s.near(s.other(c), s.lastBass)
	}
	up := s.lastBass <= root || s.rng.IntN(2) == 0 && s.lastBass < BassRange[1]-7
	for by := 1; by <= 2; by++ {
		midi := s.lastBass + by
		if !up {
			midi = s.lastBass - by
		}
		inScale := slices.ContainsFunc(c.Scale(), func(t harmony.Tone) bool { return t.Name.Class() == midi%12 })
		if midi >= BassRange[0] && midi <= BassRange[1] && (inScale || by == 1 && s.rng.IntN(4) == 0) {
			return midi
		}
	}
	return s.near(s.other(c), s.lastBass)
}

// lead is a note a half step from the next bass note, from the side the line
// comes from, or its fifth.
func (s *session) lead(next harmony.Chord) int {
	goal := s.near(next.Bass.Class(), s.lastBass)
	switch {
	case s.rng.IntN(4) == 0:
		return s.near((goal+7)%12, s.lastBass)
	case goal > s.lastBass && goal-1 >= BassRange[0]:
		return goal - 1
	case goal+1 <= BassRange[1]:
		return goal + 1
	}
	return goal
}

func distance(a, b int) int { return max(a-b, b-a) }
