package lick

import (
	"cmp"
	"context"
	"math"
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Turn is a note that Reaim has changed.
type Turn struct {
	Note     int // index
	From, To pitch.Pitch
	Why      string
}

// reach is how far a note may be moved, in half steps.
const reach = 4

// Reaim turns a line towards the chords it is played over: 0 leaves all as it is,
// 1 makes every note a chord tone, and between them that share of the notes that
// are none is turned, those that matter most first: on a change, then on strong
// beats, then the rest, and what rubs before what colours. Rhythm and contour are
// kept. It is the exact minimum of a stated cost over all choices of pitches
// within four half steps, by dynamic programming: how far notes are moved and
// where the contour breaks. Bent notes keep their bends and are counted as they
// are heard. With bendsOnly every note keeps its place, and only how far it is
// bent changes. said tells what has to be picked that was hammered or slid to.
func Reaim(ctx context.Context, s score.Score, amount float64, bendsOnly bool, w neck.Region, hand neck.Hand) (out []score.Note, turns []Turn, said []string, err error) {
	turn := toTurn(s, min(1, max(0, amount)))
	if bendsOnly {
		out, turns = rebend(s, turn)
		return out, turns, nil, nil
	}
	notes := s.Notes
	layers := make([][]choice, len(notes))
	for i, n := range notes {
		if ctx.Err() != nil {
			return nil, nil, nil, ctx.Err()
		}
		layers[i] = choices(s, i, turn[i], w)
		best := 0
		for j := range layers[i] {
			c := &layers[i][j]
			if i == 0 {
				continue
			}
			c.from, best = -1, 0
			least := math.Inf(1)
			for k, b := range layers[i-1] {
				if cost := b.total + contour(notes[i-1], n, b.midi, c.midi); cost < least {
					least, best = cost, k
				}
			}
			c.from = best
			c.total = c.cost + least
		}
	}
	out = append([]score.Note(nil), notes...)
	if len(out) == 0 {
		return out, nil, nil, nil
	}
	at := 0
	final := layers[len(layers)-1]
	for j := range final {
		if final[j].total < final[at].total {
			at = j
		}
	}
	prefer := make([]int, len(out))
	for i := len(layers) - 1; i >= 0; i-- {
		c := layers[i][at]
		prefer[i] = out[i].String
		if c.midi != out[i].Pitch.MIDI() {
			out[i].Pitch = pitch.At(c.midi, c.name)
		}
		at = c.from
	}
	wide := w
	for _, n := range notes {
		wide.Low, wide.High = min(wide.Low, n.Fret), max(wide.High, n.Fret)
	}
	if _, _, ok := score.Place(s.In, out, wide, hand, prefer); !ok {
		for i := range out { // what cannot be joined as it was is picked
			if out[i].Pitch != notes[i].Pitch && out[i].Join != score.Picked {
				said = append(said, say.F("the %s to %s in bar %d is picked: no hand can play it there", out[i].Join, out[i].Pitch.Name, s.BarOf(max(0, out[i].Start))+1))
				out[i].Join = score.Picked
			}
		}
		if _, _, ok := score.Place(s.In, out, wide, hand, prefer); !ok {
			return nil, nil, nil, &Misfit{Region: wide}
		}
	}
	turned := s
	turned.Notes = out
	said = append(said, turned.Undoable()...)
	Label(turned)
	for i := range out {
		if out[i].Pitch.MIDI() == notes[i].Pitch.MIDI() {
			continue
		}
		chord, _ := s.ChordAt(out[i].Start)
		heard := blend.Sounds(chord)[chord.Above(out[i].Heard())]
		was := blend.Sounds(chord)[chord.Above(notes[i].Heard())]
		why := say.F("the %s of %s, in place of the %s", heard.Degree, chord, was.Degree)
		if s.Change(out[i].Start) {
			why = say.F("lands on the %s of %s", heard.Degree, chord)
		}
		turns = append(turns, Turn{i, notes[i].Pitch, out[i].Pitch, why})
	}
	return out, turns, said, nil
}

// toTurn picks the notes to be turned: of those that are no chord tones the share
// asked for, the most telling first.
func toTurn(s score.Score, amount float64) []bool {
	type rub struct {
		note   int
		weight float64
	}
	var rubs []rub
	for i, n := range s.Notes {
		chord, sounds := s.ChordAt(n.Start)
		if !sounds || n.Dead {
			continue
		}
		sound := blend.Sounds(chord)[chord.Above(n.Heard())]
		if sound.Class == blend.ChordTone {
			continue
		}
		weight := turning[sound.Class]
		switch {
		case s.Change(n.Start):
			weight += 4
		case n.Start%(2*score.Tick) == 0 || n.Length >= 2*score.Tick:
			weight += 2
		}
		rubs = append(rubs, rub{i, weight})
	}
	slices.SortStableFunc(rubs, func(a, b rub) int { return cmp.Compare(b.weight, a.weight) })
	out := make([]bool, len(s.Notes))
	for _, r := range rubs[:int(math.Round(amount*float64(len(rubs))))] {
		out[r.note] = true
	}
	return out
}

// rebend bends notes to chord tones from where they lie: not at all, or by one or
// two half steps as the string bears, the nearest to what it was.
func rebend(s score.Score, turning []bool) (out []score.Note, turns []Turn) {
	out = append([]score.Note(nil), s.Notes...)
	for i, n := range s.Notes {
		chord, sounds := s.ChordAt(n.Start)
		if !turning[i] || !sounds {
			continue
		}
		best := -1
		for by := 0; by <= min(2, s.In.Bends(n.Placement)/2); by++ {
			if _, tone := chord.ToneAt(pitch.Class(n.Pitch.MIDI() + by)); tone && (best < 0 || abs(2*by-n.Bend) < abs(2*best-n.Bend)) {
				best = by
			}
		}
		if best < 0 {
			continue
		}
		o := &out[i]
		if o.Bend = 2 * best; best == 0 {
			o.PreBend, o.Again, o.Release, o.ReleaseTo = false, false, false, 0
		}
		t, _ := chord.ToneAt(pitch.Class(o.Heard()))
		turns = append(turns, Turn{i, n.Pitch, o.Pitch, say.F("bent by %d half steps to the %s of %s", best, t.Degree, chord)})
	}
	turned := s
	turned.Notes = out
	Label(turned)
	return out, turns
}

// stays is the cost of leaving a note that is to be turned: more than any turn.
const stays = 1000

// choice is a pitch a note may take.
type choice struct {
	midi        int
	name        pitch.Name
	cost, total float64
	from        int
}

// weights of turning a note, by what it is over its chord.
var turning = map[blend.Class]float64{
	blend.Colour: 0.5, blend.Blue: 0.8, blend.Tension: 1, blend.Passing: 1.2,
}

// choices are the pitches a note may take, with what each costs.
func choices(s score.Score, i int, turn bool, w neck.Region) []choice {
	n := s.Notes[i]
	midi := n.Pitch.MIDI()
	keep := choice{midi: midi, name: n.Pitch.Name, from: -1}
	chord, sounds := s.ChordAt(n.Start)
	together := i > 0 && s.Notes[i-1].Start == n.Start || i+1 < len(s.Notes) && s.Notes[i+1].Start == n.Start
	if !sounds || n.Dead || together || !turn {
		keep.total = keep.cost
		return []choice{keep}
	}
	push := n.Heard() - midi
	table := blend.Sounds(chord)
	var out []choice
	for m := midi - reach; m <= midi+reach; m++ {
		sound := table[chord.Above(m+push)]
		c := choice{midi: m, from: -1}
		switch {
		case m == midi:
			c.name = n.Pitch.Name
			if sound.Class != blend.ChordTone {
				c.cost = stays
			}
		case sound.Class != blend.ChordTone || !onNeck(s.In, n, m, w):
			continue
		default:
			c.name = tonePitch(chord, m, push, s)
			c.cost = 1 + 0.6*math.Abs(float64(m-midi))
		}
		c.total = c.cost
		out = append(out, c)
	}
	return out
}

// tonePitch spells a fretted note that, pushed so far, sounds a tone of the chord.
func tonePitch(chord harmony.Chord, midi, push int, s score.Score) pitch.Name {
	if t, ok := chord.ToneAt(pitch.Class(midi)); ok && push == 0 {
		return t.Name
	}
	return s.Key.Spell(pitch.Class(midi))
}

// onNeck tells whether a place for a pitch lies in the window that can be bent
// as the note is.
func onNeck(in *neck.Instrument, n score.Note, midi int, w neck.Region) bool {
	for _, p := range in.Find(midi, w) {
		if in.Bendable(p) >= (n.Bend+1)/2 {
			return true
		}
	}
	return false
}

// contour is the cost of a step that goes another way than it did.
func contour(a, b score.Note, x, y int) float64 {
	was, is := b.Pitch.MIDI()-a.Pitch.MIDI(), y-x
	switch {
	case was*is < 0:
		return 3
	case was != 0 && is == 0:
		return 1.5
	case was == 0 && is != 0:
		return 1
	}
	return 0
}
