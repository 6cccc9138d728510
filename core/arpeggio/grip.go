package arpeggio

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Grip is a chord held at once.
type Grip struct {
	Notes []Note // the lowest string first, with fingers
	Muted []int  // strings that do not sound, between the highest and the lowest of the instrument
	Barre int    // the fret that one finger lies flat over; 0 is none
}

// What a grip is chosen by, most first: tones that tell the chord, the root in the
// bass, strings that sound, no muted string between two that sound, and a hand that is
// not spread. The fifth tells little.
const (
	perTelling  = 40
	perTone     = 12
	perFifth    = 4
	perRoot     = 30
	perSounding = 6
	perGap      = 9
	perFret     = 4 // that the hand is spread over
)

// Hold finds a grip of a chord in a region: a tone or none on each string, held by the
// hand. Without the tones that tell it (third and seventh, where it has them), or where
// no hand holds it, ok is false.
func Hold(in *neck.Instrument, c harmony.Chord, r neck.Region, hand neck.Hand) (g Grip, ok bool) {
	h := holding{in: in, chord: c, most: mostHeld}
	h.lay(r, hand)
	for {
		h.from(in.Strings(), holds{})
		h.rank()
		for _, x := range h.all {
			notes := h.notes(x)
			places := make([]neck.Placement, len(notes))
			for i, n := range notes {
				places[i] = n.Placement
			}
			fingers, can := in.Grip(places, nil, hand)
			if !can {
				continue
			}
			for i := range notes {
				notes[i].Finger = fingers[i]
			}
			return held(in, notes), true
		}
		if !h.cut {
			return g, false
		}
		h.all, h.most, h.cut = nil, math.MaxInt, false // the best of them cannot be held: another may be
	}
}

// mostHeld is how many grips are looked at first: the best by far of a whole neck's.
const mostHeld = 4096

// holding goes through the grips of a chord in a region.
type holding struct {
	in       *neck.Instrument
	chord    harmony.Chord
	frets    [neck.MaxStrings + 1][]fretted // by string, upwards
	worth    []int                          // of each tone
	telling, // tones without which the chord is not told, as bits
	root uint32
	reach [neck.MaxFrets + 1]int // the highest fret that a hand holds together with one
	all   []holds
	most  int
	cut   bool // there were more
}

// fretted is a tone of the chord on a fret.
type fretted struct{ fret, tone int }

// holds is a grip that is being made: frets by string, from 1 so that none is muted.
type holds struct {
	frets     [neck.MaxStrings + 1]uint8
	tones     uint32
	low, high int // frets that are held
	last, n   int // the string that sounds last, and how many sound
	score     int
}

// lay finds where the tones lie.
func (h *holding) lay(r neck.Region, hand neck.Hand) {
	for i, t := range h.chord.Tones {
		role := t.Degree.Role()
		switch role {
		case harmony.Third, harmony.Seventh:
			h.worth = append(h.worth, perTone+perTelling)
			h.telling |= 1 << i
		case harmony.Fifth:
			h.worth = append(h.worth, perFifth)
		default:
			h.worth = append(h.worth, perTone)
		}
		if t.Degree == "R" {
			h.root = 1 << i
		}
	}
	for str := 1; str <= h.in.Strings(); str++ {
		for fret := r.Low; fret <= min(r.High, neck.MaxFrets); fret++ {
			at := neck.Placement{String: str, Fret: fret}
			tone, is := h.chord.ToneAt(h.in.MIDI(at) % 12)
			if i := slices.IndexFunc(h.chord.Tones, func(t harmony.Tone) bool { return t.Degree == tone.Degree }); is && r.Has(at) && i >= 0 {
				h.frets[str] = append(h.frets[str], fretted{fret, i})
			}
		}
	}
	for low := range h.reach {
		for h.reach[low] = low; h.reach[low] < neck.MaxFrets && h.in.Reach(low, h.reach[low]+1) <= 1.2*hand.Comfort; h.reach[low]++ {
		}
	}
}

// from adds what may sound on a string and those above it.
func (h *holding) from(str int, x holds) {
	if str == 0 {
		h.take(x)
		return
	}
	h.from(str-1, x) // muted
	for _, f := range h.frets[str] {
		y := x
		if f.fret > 0 {
			if y.low == 0 {
				y.low = f.fret
			}
			y.low, y.high = min(y.low, f.fret), max(y.high, f.fret)
			if y.high > h.reach[y.low] {
				continue
			}
		}
		y.frets[str] = uint8(f.fret) + 1
		y.score += perSounding
		if y.n == 0 {
			if h.root>>f.tone&1 == 1 {
				y.score += perRoot
			}
		} else {
			y.score -= perGap * (x.last - str - 1)
		}
		if y.tones>>f.tone&1 == 0 {
			y.score += h.worth[f.tone]
			y.tones |= 1 << f.tone
		}
		y.last, y.n = str, y.n+1
		h.from(str-1, y)
	}
}

// take keeps a grip that tells the chord.
func (h *holding) take(x holds) {
	if x.n < 2 || x.tones&h.telling != h.telling {
		return
	}
	x.score -= perFret * (x.high - x.low)
	if h.all = append(h.all, x); len(h.all)/2 >= h.most {
		h.rank()
		h.all, h.cut = h.all[:h.most], true
	}
}

// rank puts the best first; of those that are worth as much the one found first.
func (h *holding) rank() {
	slices.SortStableFunc(h.all, func(a, b holds) int { return cmp.Compare(b.score, a.score) })
}

// notes are those of a grip, the lowest string first.
func (h *holding) notes(x holds) (notes []Note) {
	for str := h.in.Strings(); str >= 1; str-- {
		if x.frets[str] == 0 {
			continue
		}
		at := neck.Placement{String: str, Fret: int(x.frets[str]) - 1}
		tone, _ := h.chord.ToneAt(h.in.MIDI(at) % 12)
		notes = append(notes, Note{Placement: at, Pitch: pitch.At(h.in.MIDI(at), tone.Name), Degree: tone.Degree})
	}
	return notes
}

func held(in *neck.Instrument, notes []Note) (g Grip) {
	g.Notes = notes
	for str := in.Strings(); str >= 1; str-- {
		if !slices.ContainsFunc(notes, func(n Note) bool { return n.String == str }) {
			g.Muted = append(g.Muted, str)
		}
	}
	for i, n := range notes {
		if n.Finger > 0 && slices.ContainsFunc(notes[:i], func(o Note) bool { return o.Finger == n.Finger }) {
			g.Barre = n.Fret
		}
	}
	return g
}

// SameFingering tells that two runs are played alike: the same strings and fingers, as
// far apart, perhaps elsewhere on the neck.
func (r Run) SameFingering(o Run) bool {
	return len(r.Notes) > 0 && slices.EqualFunc(r.Notes, o.Notes, func(a, b Note) bool {
		return a.String == b.String && a.Finger == b.Finger && a.Fret-r.Notes[0].Fret == b.Fret-o.Notes[0].Fret && (a.Fret == 0) == (b.Fret == 0)
	})
}
