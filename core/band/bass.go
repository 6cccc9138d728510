package band

import (
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
)

// Bass is a way to play the bass: bars of four beats, for as many steps as a groove has to
// the beat. A chord begins with its bass note, whatever it is; then
//
//	R 3 5 6 7 8  the chord's tone over its root (6 the sixth of its scale, 7 its seventh or, without one, its octave)
//	w            walks: planned from chord to chord
//	<            leads into the next chord; where the bass note stays it is the root
//	- .          holds, is silent
type Bass struct {
	ID, Name string
	inTurn   bool // bar after bar of one chord, not drawn
	stays    bool // on its note as long as that is of the chord
	hold     float64
	bars     map[int][]string
}

// Basses lists them; the first is what the groove has.
var Basses = []Bass{
	{ID: "own", Name: "as the feel has it"},
	{"walking", "walking", false, false, 0.9, map[int][]string{
		2: {"R-w-w-<-"}, 3: {"R--w--w--<--"}, 4: {"R---w---w---<---"}}},
	{"two", "in two", false, false, 0.92, map[int][]string{
		2: {"R---5---", "R---5--<", "R---3-5<"}, 3: {"R-----5-----", "R-----5----<", "R-----3--5-<"}, 4: {"R-------5-------", "R-------5-----<-", "R-------3---5-<-"}}},
	{"boogie", "boogie", true, false, 0.8, map[int][]string{
		2: {"RR335566", "77665533"}, 3: {"R-R3-35-56-6", "7-76-65-53-3"}, 4: {"R.R.3.3.5.5.6.6.", "7.7.6.6.5.5.3.3."}}},
	{"driving", "roots in eighths", false, false, 0.8, map[int][]string{
		2: {"RRRRRRR<", "RRRRRR5<"}, 3: {"R-RR-RR-RR-<", "R-RR-RR-R5-<"}, 4: {"R.R.R.R.R.R.R.<.", "R.R.R.R.R.R.5.<."}}},
	{"rolling", "rolling", false, false, 0.95, map[int][]string{
		2: {"R-R35-6<", "R--R5-3<"}, 3: {"R-R3-35-56-<", "R--R-53--5-<", "R----R5--3-<"}, 4: {"R-R-3---5---6-<-", "R---R-3-5---5-<-"}}},
	{"on the one", "on the one", false, false, 0.9, map[int][]string{
		2: {"R-.75-.<", "R-R.7-5<"}, 3: {"R-R..75-7..<", "R-R...5-7..<"}, 4: {"R-.R......57..<.", "R-.R..7...57..<.", "R-.R..5..57...<."}}},
	{"syncopated", "syncopated", false, false, 0.75, map[int][]string{
		2: {"R-.5.R.<", "R-.5.8.<"}, 3: {"R-.--5--R--<", "R-.--5--8--<"}, 4: {"R--...5-..R-..<-", "R--...5-..8-..<-", "R--...3-..5-..<-"}}},
	{"pedal", "pedal: stays while it can", false, true, 0.8, map[int][]string{
		2: {"R.R.R.RR", "R-.RR-.R"}, 3: {"R..R.RR..R.R", "R....RR....R"}, 4: {"R...R...R...R.R.", "R.....R.R.....R."}}},
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

// onset is where a note of the bass begins, and what its figure says of it.
type onset struct {
	place    int // of the chorus
	at, to   int // ticks from the top of the chorus; to is where it is let go
	beat     int // of its bar
	sign     byte
	opens    bool // it begins a chord
	leads    bool // nothing comes between it and another chord
	midi     int
	accented bool
}

// bassLine plays the bass of a chorus that begins at a tick: where its notes begin by the figures, then which they are. starts
// are the ticks of the bars.
func (s *session) bassLine(places []form.Place, starts []int) {
	var line []onset
	for i, here := range places {
		if here.Chord.None {
			s.lastRoot, s.stays = -1, 0
			continue
		}
		line = append(line, s.onsets(places, i, starts[here.Bar])...)
	}
	if s.bass.walks() {
		s.walk(line, places)
	} else {
		s.figures(line, places)
	}
	for _, k := range line {
		soft := 84
		if k.accented {
			soft = 90
		}
		s.lastBass = k.midi
		s.low = append(s.low, s.human(Note{Start: k.at, Length: max(Tick/10, int(float64(k.to-k.at)*s.bass.hold)), MIDI: k.midi, Velocity: soft}))
	}
}

// walks tells that the bass has no figure of its own: it is planned from chord to chord.
func (b Bass) walks() bool { return b.ID == "walking" }

// onsets are those under one chord, by one of the figures.
func (s *session) onsets(places []form.Place, i, bar int) (out []onset) {
	here, next := places[i], places[(i+1)%len(places)]
	if class := here.Chord.Bass.Class(); class != s.lastRoot || here.Beat > 0 {
		s.lastRoot, s.stays = class, 0
	}
	figures := s.bass.bars[s.g.Steps]
	figure := figures[s.stays%len(figures)]
	if !s.bass.inTurn {
		figure = figures[s.rng.IntN(len(figures))]
	}
	goesOn := s.bass.inTurn && s.stays > 0
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
			if rest = figure[end%len(figure)] == '.'; rest {
				break
			}
			end++
		}
		sign := figure[step%len(figure)]
		if step == 0 && !goesOn {
			sign = 'R'
		}
		at := here.Beat*s.g.Steps + step
		out = append(out, onset{place: i, at: bar + s.g.at(at), to: bar + s.g.at(here.Beat*s.g.Steps+end), beat: at / s.g.Steps, sign: sign,
			opens: step == 0 && !goesOn, accented: step%s.g.Steps == 0})
	}
	last := &out[len(out)-1]
	last.leads = len(out) > 1 && (last.at-bar) >= (here.Beat+here.Length-1)*Tick-MaxShift && !next.Chord.None && next.Chord.Bass.Class() != here.Chord.Bass.Class()
	return out
}

// signs are the tones of a figure by how far above its root they can lie.
var signs = map[byte]int{'3': 4, '5': 8, '6': 9, '7': 11, '8': 12}

// figures gives the notes of figures: each stands whole on its root.
func (s *session) figures(line []onset, places []form.Place) {
	roots := s.seats(line, places)
	for k := range line {
		n := &line[k]
		c, root := places[n.place].Chord, roots[n.place]
		before := root
		if k > 0 {
			before = line[k-1].midi
		}
		goal := 0
		if n.place+1 < len(places) {
			goal = roots[n.place+1]
		} else if !places[0].Chord.None { // the top of the next chorus lies where it is near
			goal = s.near(places[0].Chord.Bass.Class(), root)
		}
		switch {
		case n.leads && goal > 0 && (n.sign == '<' || !s.bass.inTurn):
			n.midi = s.lead(c, goal, before)
		case n.sign == '8':
			n.midi = root + 12
		case n.sign == 'R' || n.sign == '<':
			n.midi = root
		default:
			n.midi = root + pitch.Class(degreeOf(c, n.sign)-root)
		}
	}
	if len(line) > 0 {
		s.root = roots[line[len(line)-1].place]
	}
}

// seats chooses the octaves of the roots of a chorus, by place: each leaves room for the tones of its figure, is near the one
// before, and is no wide jump away from the last of them. A figure that goes on stays on its root.
func (s *session) seats(line []onset, places []form.Place) []int {
	type seat struct {
		midi, before int
		cost         float64
	}
	var layers [][]seat
	var at []int // the place of each layer
	above := 0   // the last tone of the figure before, over its root
	for from := 0; from < len(line); {
		i, most, last, to := line[from].place, 0, 0, from
		for ; to < len(line) && line[to].place == i; to++ {
			if up := signs[line[to].sign]; !line[to].leads {
				most, last = max(most, up), up
			}
		}
		if s.bass.inTurn {
			most = signs['7']
		}
		var layer []seat
		for midi := BassRange[0]; midi+most <= BassRange[1]-3; midi++ {
			goesOn := !line[from].opens
			if goesOn && len(layers) == 0 && s.root > 0 && midi != s.root || midi%12 != places[i].Chord.Bass.Class() && !(s.bass.stays && tones(places[i].Chord, midi)) {
				continue
			}
			best := seat{midi, -1, 0.3 * float64(distance(midi, 34))}
			switch {
			case len(layers) == 0 && s.root > 0:
				best.cost = apart(s.root, midi, 0)
			case len(layers) > 0:
				best.cost = 1e9
				for j, from := range layers[len(layers)-1] {
					sum := from.cost + apart(from.midi, midi, above) + 0.01*float64(distance(midi, 36))
					if goesOn && midi != from.midi {
						sum += 1e6
					}
					if s.bass.stays && midi != from.midi {
						sum += 30
					}
					if sum < best.cost {
						best.cost, best.before = sum, j
					}
				}
			}
			layer = append(layer, best)
		}
		layers, at, from, above = append(layers, layer), append(at, i), to, last
	}
	roots := make([]int, len(places))
	best := 0
	for k := len(layers) - 1; k >= 0; k-- {
		if k == len(layers)-1 {
			for i, c := range layers[k] {
				if c.cost < layers[k][best].cost {
					best = i
				}
			}
		}
		roots[at[k]] = layers[k][best].midi
		best = layers[k][best].before
	}
	return roots
}

// apart is what it costs to go from one root, whose figure ends so far above it, to another.
func apart(from, to, above int) float64 {
	return float64(distance(from, to)) + 3*float64(max(0, distance(from+above, to)-9))
}

// tones tells that a note is one of a chord's own, and none above its seventh.
func tones(c harmony.Chord, midi int) bool {
	t, ok := c.ToneAt(pitch.Class(midi))
	return ok && t.Degree.Role() != harmony.Extension
}

// lead is the note before a root: where the band swings a half step away, else a step of the key; or its fifth.
func (s *session) lead(c harmony.Chord, goal, before int) int {
	scale := map[int]bool{}
	if s.o.Key != nil {
		for _, n := range s.o.Key.Scale() {
			scale[n.Class()] = true
		}
	} else {
		for _, t := range c.Scale() {
			scale[t.Name.Class()] = true
		}
	}
	best, least := goal, 1e9
	for _, by := range []int{-1, 1, -2, 2, -5, 7} {
		midi := goal + by
		if midi < BassRange[0] || midi > BassRange[1] || midi == before {
			continue
		}
		cost := 1.2*s.rng.Float64() + 0.12*float64(distance(midi, before))
		if far := distance(midi, before); far > 9 {
			cost += 3 * float64(far-9)
		}
		switch in := scale[midi%12]; {
		case !in && !s.g.upright:
			cost += 4
		case !in && distance(by, 0) != 1:
			cost += 4
		case distance(by, 0) > 2:
			cost += 0.5
		}
		if cost < least {
			best, least = midi, cost
		}
	}
	return best
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

func distance(a, b int) int { return max(a-b, b-a) }
