package band

import (
	"math"

	"undaris/core/form"
	"undaris/core/harmony"
)

// Costs of a walking bass. A chorus is planned as a whole, at the least sum of them.
const (
	otherTone = 0.5  // a bar of the same chord that begins on another tone than the root
	scaleStep = 0.4  // a note of the chord's scale
	halfStep  = 0.9  // one between, on its way by half steps
	turning   = 1.1  // going back the way it came
	repeated  = 3.0  // the same note again
	led       = -0.9 // a half step before a change
	stepped   = -0.5 // a step before one
	unled     = 2.5  // neither, nor a fifth or a fourth
	centre    = 38   // where it would rather be
	strays    = 0.006
	torn      = 60.0 // wider than is walked
	whim      = 0.9  // the most that chance adds
)

// strides are what an interval costs by its half steps; nothing wider than a sixth is walked, but the octave.
var strides = [...]float64{repeated, 0, 0, 0.25, 0.25, 0.4, 2, 0.6, 1.2, 1.2, torn, torn, 1.4}

// tread is a note that may be played, and how the cheapest way comes to it.
type tread struct {
	midi    int
	between bool // on its way by half steps: it goes on as it came
	against bool // a half step from what follows, foreign to its own chord
	cost    float64
	from    [2]step // coming up to it, and down: the cheapest before
}

type step struct {
	cost        float64
	before, dir int
}

var nowhere = [2]step{{cost: math.Inf(1)}, {cost: math.Inf(1)}}

// walk plans a chorus of walking bass to the next root at the least cost: chord tones on the first and the third beat, its
// direction kept, each change led into.
func (s *session) walk(line []onset, places []form.Place) {
	if len(line) == 0 {
		return
	}
	layers := make([][]tread, len(line))
	all := make([]tread, 0, len(line)*(BassRange[1]-BassRange[0]))
	for k := range line {
		from := len(all)
		all = s.treads(all, line, k, places)
		layers[k] = all[from:]
	}
	for i := range layers[0] {
		t := &layers[0][i]
		for dir := range t.from {
			t.from[dir] = step{cost: t.cost, before: -1}
			if s.lastBass > 0 {
				t.from[dir].cost += stride(t.midi - s.lastBass)
			} else {
				t.from[dir].cost += 0.05 * float64(distance(t.midi, 34))
			}
		}
	}
	for k := 1; k < len(layers); k++ {
		silent := line[k].place-line[k-1].place > 1 && places[line[k].place-1].Chord.None
		for i := range layers[k] {
			to := &layers[k][i]
			to.from = nowhere
			for j := range layers[k-1] {
				from := &layers[k-1][j]
				d := to.midi - from.midi
				size := max(d, -d)
				if size >= len(strides) && !silent { // an octave lies nearer
					continue
				}
				if (to.between || from.between || from.against) && size != 1 {
					continue
				}
				cost := to.cost
				if !silent {
					cost += strides[size]
				}
				if line[k-1].leads && line[k-1].place != line[k].place {
					cost += arrives(d)
				}
				for was := range from.from {
					dir, more := was, 0.0
					switch {
					case d > 0:
						dir = 0
					case d < 0:
						dir = 1
					}
					if dir != was && k > 1 {
						if from.between {
							continue
						}
						more = turning
					}
					if sum := from.from[was].cost + cost + more; sum < to.from[dir].cost {
						to.from[dir] = step{sum, j, was}
					}
				}
			}
		}
	}
	at, dir := 0, 0
	last := layers[len(layers)-1]
	home := places[0].Chord.Bass.Class()
	least := math.Inf(1)
	for i := range last {
		for d := range last[i].from {
			sum := last[i].from[d].cost
			if goal := s.near(home, last[i].midi); line[len(line)-1].leads {
				sum += arrives(goal - last[i].midi)
				if last[i].against && distance(goal, last[i].midi) != 1 {
					sum += torn
				}
			}
			if sum < least {
				least, at, dir = sum, i, d
			}
		}
	}
	for k := len(line) - 1; k >= 0; k-- {
		t := layers[k][at]
		line[k].midi = t.midi
		at, dir = t.from[dir].before, t.from[dir].dir
	}
}

func stride(d int) float64 {
	if size := distance(d, 0); size < len(strides) {
		return strides[size]
	}
	return torn
}

// arrives is what it costs to come to a new chord over an interval.
func arrives(d int) float64 {
	switch distance(d, 0) {
	case 1:
		return led
	case 2:
		return stepped
	case 5, 7:
		return 0
	}
	return unled
}

// treads adds the notes that may be played at an onset, each with what it costs by itself.
func (s *session) treads(out []tread, line []onset, k int, places []form.Place) []tread {
	n := line[k]
	c := places[n.place].Chord
	before := places[(n.place+len(places)-1)%len(places)].Chord
	goesOn := n.opens && n.place > 0 && before.String() == c.String() && !c.Slash()
	third := !n.opens && n.beat%4 == 2
	ground := s.grounds(c)
	for midi := BassRange[0]; midi <= BassRange[1]-3; midi++ {
		tone, inScale := ground[midi%12] == ownTone, ground[midi%12] >= scaleTone
		t := tread{midi: midi, cost: whim*s.rng.Float64() + strays*float64((midi-centre)*(midi-centre))}
		switch {
		case n.opens && midi%12 == c.Bass.Class():
		case n.opens && (!goesOn || !tone):
			continue
		case n.opens:
			t.cost += otherTone
		case tone:
		case third && !n.leads:
			continue
		case inScale:
			t.cost += scaleStep
		default:
			t.cost += halfStep
			t.between, t.against = !n.leads, n.leads
		}
		out = append(out, t)
	}
	return out
}

// What a pitch class is to a bass over a chord.
const (
	scaleTone = 1 + iota
	ownTone
)

// grounds tells what each pitch class is over a chord; 0 is neither.
func (s *session) grounds(c harmony.Chord) [12]int {
	name := c.String()
	if known, ok := s.ground[name]; ok {
		return known
	}
	var out [12]int
	for _, t := range c.Scale() {
		out[t.Name.Class()] = scaleTone
	}
	for class := range out {
		if tones(c, class) {
			out[class] = ownTone
		}
	}
	out[c.Bass.Class()] = ownTone
	if s.ground == nil {
		s.ground = map[string][12]int{}
	}
	s.ground[name] = out
	return out
}
