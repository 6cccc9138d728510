package lick

import (
	"math"
	"slices"
	"strings"

	"undaris/core/blend"
	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Ground is what a lick is laid on.
type Ground struct {
	In     *neck.Instrument
	Region neck.Region
	Hand   neck.Hand
	Follow bool // a degree follows the kind of chord: 3 becomes ♭3 over a minor chord
	Near   int  // MIDI number around which it should lie; 0 is no wish
}

// Misfit says which notes of a lick a window does not hold.
type Misfit struct {
	Region neck.Region
	Notes  []pitch.Pitch // that fall outside; none when every note fits and the hand does not
}

func (e *Misfit) Error() string {
	if len(e.Notes) == 0 {
		return say.F("no hand can play it as asked in %s; its slides, hammer-ons or bends want another place", e.Region.Says())
	}
	names := make([]string, len(e.Notes))
	for i, p := range e.Notes {
		names[i] = p.String()
	}
	return say.F("%s cannot be had as asked in %s", strings.Join(names, ", "), e.Region.Says())
}

// Realise lays the lick over a chord (or the tonic chord of a key, for a lick of
// a key) with its first beat at a tick. It lies in the octave that suits the hand
// and the wished-for register best. The error is a *[Misfit].
func (l Lick) Realise(chord harmony.Chord, at int, g Ground) ([]score.Note, error) {
	root, spelled := chord.Root, l.degrees(chord, g.Follow)
	best, least := []score.Note(nil), math.Inf(1)
	worst := &Misfit{Region: g.Region}
	fewest := math.MaxInt
	low, high := g.In.MIDI(neck.Placement{String: g.In.Strings(), Fret: g.Region.Low}), g.In.MIDI(neck.Placement{String: 1, Fret: g.Region.High})
	for base := root.Class(); base < 120; base += 12 {
		notes := make([]score.Note, len(l.Notes))
		prefer := make([]int, len(l.Notes))
		sum, lowest, highest := 0, 200, 0
		for i, n := range l.Notes {
			step, _ := spelled[i].Interval()
			p := pitch.At(base+step.HalfSteps+12*n.Octave, root.Up(step))
			notes[i] = score.Note{Start: at + n.Start, Length: n.Length, Pitch: p, Degree: string(spelled[i]), Ornaments: n.Ornaments}
			prefer[i] = n.String
			sum += p.MIDI()
			lowest, highest = min(lowest, p.MIDI()), max(highest, p.MIDI())
		}
		if highest < low || lowest > high {
			continue
		}
		cost, unfit, ok := score.Place(g.In, notes, g.Region, g.Hand, nil)
		if wished, _, fits := score.Place(g.In, slices.Clone(notes), g.Region, g.Hand, prefer); ok && fits && wished <= cost+40 {
			cost, _, _ = score.Place(g.In, notes, g.Region, g.Hand, prefer)
		}
		if !ok && len(unfit) == 0 {
			cost, ok = plainly(notes, g)
		}
		if !ok {
			if len(unfit) < fewest {
				fewest, worst.Notes = len(unfit), nil
				for _, i := range unfit {
					if !slices.Contains(worst.Notes, notes[i].Pitch) {
						worst.Notes = append(worst.Notes, notes[i].Pitch)
					}
				}
			}
			continue
		}
		if g.Near > 0 {
			cost += 12 * math.Abs(float64(sum)/float64(len(notes))-float64(g.Near))
		}
		if cost < least {
			best, least = notes, cost
		}
	}
	if best == nil {
		return nil, worst
	}
	return best, nil
}

// plainer is what a lick costs more when it cannot be joined as written.
const plainer = 240

// plainly picks the notes that cannot be hammered, pulled or slid to here.
func plainly(notes []score.Note, g Ground) (cost float64, ok bool) {
	free := slices.Clone(notes)
	for i := range free {
		free[i].Join = score.Picked
	}
	cost, _, ok = score.Place(g.In, free, g.Region, g.Hand, nil)
	if !ok {
		return 0, false
	}
	for i := range free {
		join := notes[i].Join
		for j := i - 1; j >= 0 && join != score.Picked; j-- {
			if free[j].Start == free[i].Start {
				continue
			}
			up := free[i].Fret - free[j].Fret
			if free[j].String == free[i].String && (join == score.Slide && up != 0 || join == score.Hammer && up > 0 || join == score.PullOff && up < 0) {
				free[i].Join = join
			}
			break
		}
	}
	copy(notes, free)
	return cost + plainer, true
}

// degrees are the degrees the lick takes over a chord.
func (l Lick) degrees(chord harmony.Chord, follow bool) []harmony.Degree {
	out := make([]harmony.Degree, len(l.Notes))
	from, err := harmony.Parse("C" + l.Chord)
	for i, n := range l.Notes {
		out[i] = n.Degree
		if follow && err == nil && !l.OfKey && from.HasDegree(n.Degree) && !chord.None {
			for _, t := range chord.Tones {
				if t.Degree.Role() == n.Degree.Role() && t.Degree.Role() != harmony.Extension {
					out[i] = t.Degree
				}
			}
		}
	}
	return out
}

// Label writes under each note what it is over the chord that sounds with it.
func Label(s score.Score) {
	for i := range s.Notes {
		n := &s.Notes[i]
		chord, sounds := s.ChordAt(n.Start)
		n.Degree = ""
		if sounds {
			n.Degree = string(blend.Sounds(chord)[chord.Above(n.Pitch.MIDI())].Degree)
		}
	}
}

// Way is one way to play a moved lick.
type Way struct {
	Name   string
	Notes  []score.Note
	Travel float64  // of the hand from the lick it came from, in millimetres
	Said   []string // what has to be picked that was slid or hammered
	Err    error    // why it cannot be played so
}

// Ways moves a realised lick to another chord in both ways: the same shape along
// the neck, and a nearer shape in place.
func (l Lick) Ways(from []score.Note, to harmony.Chord, at int, g Ground) []Way {
	shape := Way{Name: "the same shape, moved"}
	place := Way{Name: "a nearer shape, in place"}
	place.Notes, place.Err = l.Realise(to, at, g)
	moved, err := l.shape(from, to, at, g)
	shape.Notes, shape.Err = moved, err
	for _, w := range []*Way{&shape, &place} {
		w.Said = l.Lost(w.Notes)
		if w.Err == nil && len(w.Notes) > 0 && len(from) > 0 {
			w.Travel = crossing.Travel(g.In, from[0].Placement, w.Notes[0].Placement)
		}
	}
	return []Way{shape, place}
}

// shape keeps strings and fingers and moves along the neck by the shorter way
// that stays on it.
func (l Lick) shape(from []score.Note, to harmony.Chord, at int, g Ground) ([]score.Note, error) {
	if len(from) != len(l.Notes) || len(from) == 0 {
		return nil, say.Errorf("there is no shape to move")
	}
	all := l.shapes(from, to, at, g)
	if len(all) == 0 {
		return nil, say.Errorf("the shape runs off the neck")
	}
	score.Finger(g.In, all[0], g.Hand)
	return all[0], nil
}

// shapes are where the shape lies over a chord, the shorter way first.
func (l Lick) shapes(from []score.Note, to harmony.Chord, at int, g Ground) (list [][]score.Note) {
	spelled := l.degrees(to, g.Follow)
	if len(from) != len(l.Notes) || len(from) == 0 {
		return nil
	}
	first, _ := spelled[0].Interval()
	by := pitch.Class(to.Root.Class() + first.HalfSteps - from[0].Pitch.MIDI())
	shifts := []int{by, by - 12}
	if by > 6 {
		shifts = []int{by - 12, by}
	}
	for _, shift := range shifts {
		out := slices.Clone(from)
		fits := true
		base := 0
		for i := range out {
			step, _ := spelled[i].Interval()
			if i == 0 {
				base = out[0].Pitch.MIDI() + shift - step.HalfSteps - 12*l.Notes[0].Octave
			}
			midi := base + step.HalfSteps + 12*l.Notes[i].Octave
			out[i].Start = at + l.Notes[i].Start
			out[i].Degree = string(spelled[i])
			out[i].Fret = midi - g.In.MIDI(neck.Placement{String: out[i].String})
			out[i].Pitch = pitch.At(midi, to.Root.Up(step))
			fits = fits && out[i].Fret >= 0 && out[i].Fret <= g.In.Last() && (out[i].Fret > 0 || from[i].Fret == 0)
		}
		if fits {
			list = append(list, out)
		}
	}
	return list
}

func abs(n int) int { return max(n, -n) }
