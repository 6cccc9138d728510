package line

import (
	"hash/fnv"
	"math/rand/v2"
	"slices"
	"strings"

	"undaris/core/harmony"
	"undaris/core/score"
)

// slot is a note to come: its rhythm and what its place asks for.
type slot struct {
	start, length int
	chord         harmony.Chord
	change        bool        // a new chord begins with it
	strong        bool        // beat 1 or 3, or a change
	rests         bool        // held or before a silence: only a chord tone will do
	pause         int         // ticks of silence after it
	height        float64     // wished for, 0 to 1
	key           uint64      // the same for slots that repeat an idea
	fixed         *score.Note // of a locked bar
	again, slur   float64     // what the same note again, and one that is not picked, take off
	leap          [2]int      // how many half steps it is liked to be leapt to from
	enclosed      bool        // coming out of an enclosure is worth something
	asks          asked
	octaves       bool // with the octave under it
	slid          bool // slid into from the note before
}

// silent is how likely half a bar is left out where as much silence is wished as can be.
const silent = 0.4

// answers tells that the second half of a phrase takes up the first: question and answer.
func (w Wish) answers() bool { return w.Phrasing == "call" && w.Spice != (Spice{}) }

// again is how much less likely a figure is right after itself.
const again = 0.3

// phrasePlan is a stretch of bars that is one idea.
type phrasePlan struct {
	from, to int // bars
	idea     uint64
}

// group divides the bars to write into phrases.
func group(phrasing string, from, to int) (out []phrasePlan) {
	bars := to - from
	idea := uint64(0)
	each := func(n int) {
		for b := from; b < to; b += n {
			idea++
			out = append(out, phrasePlan{b, min(to, b+n), idea})
		}
	}
	switch phrasing {
	case "aab":
		n := max(1, (bars+2)/3)
		for i, b := 0, from; b < to; i, b = i+1, b+n {
			out = append(out, phrasePlan{b, min(to, b+n), []uint64{1, 1, 2}[i%3]})
		}
	case "call", "study":
		each(4)
	default:
		each(2)
	}
	return out
}

// How likely a phrase takes up the first one's idea again, and how likely the last one does.
const (
	comesBack = 0.95
	closesSo  = 0.6
)

// recall has the first phrase's idea come back, as a player's motif does: each phrase may take it up, the last one seldom. A line without
// any way of playing goes its own way.
func (w Wish) recall(phrases []phrasePlan) []phrasePlan {
	if w.Spice == (Spice{}) || w.Phrasing == "aab" {
		return phrases
	}
	for i := 1; i < len(phrases); i++ {
		likely := comesBack
		if i == len(phrases)-1 {
			likely = closesSo
		}
		if chance(w.Seed, uint64(i), "comes back", 0) < likely && phrases[i].to-phrases[i].from == phrases[0].to-phrases[0].from {
			phrases[i].idea = phrases[0].idea
		}
	}
	return phrases
}

// plan lays out the rhythm of a line. Every change gets a note, whatever the
// figures say.
func plan(s score.Score, w Wish) []slot {
	r, _ := w.rhythm()
	from, to := w.From, w.To
	if to == 0 {
		to = len(s.Bars)
	}
	var slots []slot
	for _, p := range w.recall(group(w.Phrasing, from, to)) {
		rng := rand.New(rand.NewPCG(w.Seed^w.own(), p.idea))
		curve := w.curve(rng)
		grid := figures(r, rng, w, lengths(s, p))
		for range redraws { // what comes back all through a chorus is to be more than a note or two
			if strings.Count(grid, "x") >= w.least(r, lengths(s, p)) {
				break
			}
			grid = figures(r, rng, w, lengths(s, p))
		}
		phrase := cut(s, r, w, p, grid, curve)
		if _, timed := w.timed(); timed {
			phrase = w.fill(s, r, p, phrase)
		}
		if chance(w.Seed, p.idea, "octaves", 0) < 0.6*part(w.Spice.Octaves) && p.from > from {
			for i := range phrase {
				phrase[i].octaves = true
			}
		}
		slots = append(slots, phrase...)
	}
	if _, timed := w.timed(); timed {
		slots = w.comeOut(s, slots)
	}
	slots = w.close(s, w.push(s, r, w.begin(s, r, slots)))
	for i, n := range s.Notes {
		bar := s.BarOf(n.Start)
		if n.Start >= 0 && w.Locked[bar] && (i+1 == len(s.Notes) || s.Notes[i+1].Start > n.Start) {
			chord, _ := s.ChordAt(n.Start)
			slots = append(slots, slot{start: n.Start, length: n.Length, chord: chord, fixed: &s.Notes[i], height: 0.5})
		}
	}
	slices.SortFunc(slots, func(a, b slot) int { return a.start - b.start })
	for i := range slots {
		end := s.End()
		if i+1 < len(slots) {
			end = slots[i+1].start
		}
		k := &slots[i]
		k.length = min(k.length, end-k.start)
		k.pause = end - k.start - k.length
		k.rests = k.length >= held || k.pause >= score.Tick/2 || i+1 == len(slots)
		k.enclosed = k.change && w.Approach && w.Spice != (Spice{})
		k.again = repeating.off(w, k, w.Spice.Repeats)
		k.slur = slurring.off(w, k, w.Spice.Legato)
		k.leap = w.leap(k)
		if h := min(0.9, 1.5*part(w.Spice.Height)); k.fixed == nil && h > 0 {
			k.height = (1-h)*k.height + h*w.arc(float64(k.start-s.At(from))/float64(max(1, s.At(to)-s.At(from))))
		}
	}
	for i := range slots {
		slots[i].height = min(1, max(0, slots[i].height+float64(w.Lift)/10))
	}
	return slots
}

// own is a number of the word's own, so that two words draw other rhythms by one seed.
func (w Wish) own() uint64 {
	if w.Word == "" || w.Word == Words[0].ID {
		return 0
	}
	h := fnv.New64a()
	_, _ = h.Write([]byte(w.Word))
	return h.Sum64()
}

// lengths are the beats of a phrase's bars.
func lengths(s score.Score, p phrasePlan) (beats []int) {
	for bar := p.from; bar < p.to; bar++ {
		beats = append(beats, s.BeatsOf(bar))
	}
	return beats
}

// figures draws the rhythm of a phrase whose bars have so many beats, two beats at a time. Its last bar ends on
// the first beat, the second or the third, and then it breathes.
func figures(r Rhythm, rng *rand.Rand, w Wish, bars []int) string {
	size := 2 * r.PerBeat
	rest, long := strings.Repeat(".", size), "x"+strings.Repeat("-", size-1)
	beat := "x" + strings.Repeat("-", r.PerBeat-1)
	phrase, figure := "", ""
	for bar, beats := range bars {
		ending := -1
		if bar == len(bars)-1 && bar > 0 && w.Phrasing != "study" {
			ending = rng.IntN(3)
			if beats < 4 {
				ending %= 2
			}
		}
		grid := ""
		for at := 0; at < beats; at += 2 {
			figure = choose(r, rng, w.wanted(r), w.Phrasing == "study", figure)
			add, half := figure, at >= beats-2
			switch {
			case w.Spice.Rests > 0 && ending < 0 && rng.Float64() < silent*part(w.Spice.Rests):
				add = rest
			case ending == 2 && half:
				add = beat + rest[:r.PerBeat]
			case ending == 2:
			case ending >= 0 && half, w.Phrasing == "call" && bar%2 == 1 && half:
				add = rest
			case ending == 0:
				add = long
			case ending == 1:
				add = beat + figure[:r.PerBeat]
			}
			grid += add
		}
		phrase += grid[:beats*r.PerBeat]
	}
	if bar := bars[0] * r.PerBeat; w.answers() && len(bars) == 4 && even(bars) {
		phrase = phrase[:2*bar] + phrase[:bar] + phrase[3*bar:]
	}
	return phrase
}

// even tells that bars are all of one length, so that one can answer another.
func even(bars []int) bool { return slices.Min(bars) == slices.Max(bars) }

// A phrase that has come out with less than this part of the wished density is drawn again, so often at most.
const (
	sparse  = 0.5
	redraws = 6
)

// least is how many notes a phrase of so many beats a bar has at least, where a word says how it is played.
func (w Wish) least(r Rhythm, bars []int) int {
	if w.Spice == (Spice{}) {
		return 0
	}
	beats := 0
	for _, b := range bars {
		beats += b
	}
	return int(sparse * w.wanted(r) * float64(beats) / 2)
}

// wanted is how many notes a figure of two beats has by the wished density.
func (w Wish) wanted(r Rhythm) float64 {
	most := 0
	for _, f := range r.figures {
		most = max(most, strings.Count(f, "x"))
	}
	return 0.6 + float64(w.Density-1)/4*(float64(most)-0.6)
}

// choose draws a figure, those of about the wished density most often and the one
// before it seldom.
func choose(r Rhythm, rng *rand.Rand, wanted float64, full bool, before string) string {
	var weights []float64
	sum := 0.0
	for _, f := range r.figures {
		off := float64(strings.Count(f, "x")) - wanted
		weight := 1 / (0.15 + off*off)
		if full && strings.Contains(f, ".") {
			weight = 0
		}
		if f == before {
			weight *= again
		}
		weights = append(weights, weight)
		sum += weight
	}
	at := rng.Float64() * sum
	for i, weight := range weights {
		if at -= weight; at < 0 {
			return r.figures[i]
		}
	}
	return r.figures[0]
}

// cut turns the figures of a phrase into slots, with a note on every change.
func cut(s score.Score, r Rhythm, w Wish, p phrasePlan, grid string, curve []float64) (slots []slot) {
	step := score.Tick / r.PerBeat
	begin := s.At(p.from)
	cells := []byte(grid)
	for i := range cells {
		at := begin + i*step
		if s.Change(at) && !w.Locked[s.BarOf(at)] {
			for j := i + 1; cells[i] == '.' && j < min(len(cells), i+r.PerBeat) && cells[j] == '.'; j++ {
				cells[j] = '-' // a landing in a rest rings for a beat
			}
			cells[i] = 'x'
		}
		if chord, _ := s.ChordAt(at); chord.None || w.Locked[s.BarOf(at)] {
			cells[i] = '.'
		}
	}
	for i := 0; i < len(cells); i++ {
		if cells[i] != 'x' {
			continue
		}
		j := i + 1
		for j < len(cells) && cells[j] == '-' {
			j++
		}
		at := begin + i*step
		chord, _ := s.ChordAt(at)
		k := slot{start: at, length: (j - i) * step, chord: chord, change: s.Change(at), key: p.idea<<32 | uint64(w.head(lengths(s, p), i, len(cells)))}
		k.strong = k.change || s.InBar(at)%(2*score.Tick) == 0
		k.height = along(curve, float64(i)/float64(len(cells)))
		slots = append(slots, k)
	}
	return slots
}

// curve is where a phrase goes, as heights along it.
func (w Wish) curve(rng *rand.Rand) []float64 {
	for _, c := range Contours {
		if c.ID == w.Contour && c.heights != nil {
			return c.heights
		}
	}
	out := make([]float64, 4)
	for i := range out {
		out[i] = 0.15 + 0.7*rng.Float64()
	}
	return out
}

func along(curve []float64, at float64) float64 {
	x := at * float64(len(curve)-1)
	i := min(int(x), len(curve)-2)
	return curve[i] + (curve[i+1]-curve[i])*(x-float64(i))
}

// head is the cell whose idea a cell takes up: an answer begins as the question did.
func (w Wish) head(bars []int, i, cells int) int {
	if bar := cells / len(bars); w.answers() && len(bars) == 4 && even(bars) && i >= 2*bar && i < 3*bar {
		return i - 2*bar
	}
	return i
}
