package score

import (
	"slices"

	"undaris/core/neck"
)

// Finger puts fingers on notes that have their places. Where the places ask for
// what no hand can do, the fingers are left out.
func Finger(in *neck.Instrument, notes []Note, hand neck.Hand) {
	asks := asksOf(notes)
	places := make([]neck.Placement, len(notes)) // each ask has one of them
	for i, n := range notes {
		places[i] = n.Placement
		asks[i].Places = places[i : i+1 : i+1]
	}
	touches, _ := in.FingerPhrase(asks, hand)
	for i := range notes {
		notes[i].Finger = 0
		if touches != nil {
			notes[i].Finger = touches[i].Finger
		}
	}
	if touches != nil && !grip(in, notes, hand) {
		for i := range notes {
			notes[i].Finger = 0
		}
	}
}

// onFrets are the places that are no open strings.
func onFrets(places []neck.Placement) []neck.Placement {
	return slices.DeleteFunc(slices.Clone(places), func(p neck.Placement) bool { return p.Fret == 0 })
}

// willing are the places where a player bends so many quarter tones, of those where the string bears it.
func willing(in *neck.Instrument, places []neck.Placement, quarters int) []neck.Placement {
	return slices.DeleteFunc(slices.Clone(places), func(p neck.Placement) bool { return in.Bends(p) < quarters })
}

// grip looks at what sounds together as one hand has to hold it, and puts its
// fingers. ok is false where no hand can.
func grip(in *neck.Instrument, notes []Note, hand neck.Hand) (ok bool) {
	for i := 0; i < len(notes); {
		j := i + 1
		for j < len(notes) && notes[j].Start == notes[i].Start {
			j++
		}
		if j-i > 1 {
			places, bends := make([]neck.Placement, j-i), make([]int, j-i)
			for k := range places {
				places[k], bends[k] = notes[i+k].Placement, notes[i+k].Bend
			}
			fingers, ok := in.Grip(places, bends, hand)
			if !ok {
				return false
			}
			for k, f := range fingers {
				notes[i+k].Finger = f
			}
		}
		i = j
	}
	return true
}

// Place finds the best places in a window, with fingers, for notes of which the
// pitches are known. prefer says for each note which string it would rather lie
// on; 0 is no wish, and nil none at all. unfit are the notes for which the window
// has no place; when there are any, or no hand can play what is asked, nothing
// is changed and ok is false.
func Place(in *neck.Instrument, notes []Note, w neck.Region, hand neck.Hand, prefer []int) (cost float64, unfit []int, ok bool) {
	asks := asksOf(notes)
	for i, n := range notes {
		var places, liked []neck.Placement
		for _, p := range in.Find(n.Pitch.MIDI(), w) {
			if in.Bendable(p) < (n.Bend+1)/2 {
				continue
			}
			if slid := []int{p.Fret - n.Scoop, p.Fret + n.SlideOut, p.Fret + n.SlideBack}; slices.Min(slid) != slices.Max(slid) && (slices.Min(slid) < 1 || slices.Max(slid) > in.Last()) {
				continue
			}
			if p.String+n.Rake > in.Strings() {
				continue
			}
			places = append(places, p)
		}
		if bent := willing(in, places, n.Bend); len(bent) > 0 {
			places = bent
		}
		for _, p := range places {
			if prefer != nil && prefer[i] == p.String {
				liked = append(liked, p)
			}
		}
		if len(liked) > 0 {
			places = liked
		}
		if stopped := onFrets(places); n.Vibrato && len(stopped) > 0 { // an open string does not sway
			places = stopped
		}
		if len(places) == 0 {
			unfit = append(unfit, i)
		}
		asks[i].Places = places
	}
	if len(unfit) > 0 {
		return 0, unfit, false
	}
	touches, cost := in.FingerPhrase(asks, hand)
	if touches == nil {
		if prefer != nil {
			return Place(in, notes, w, hand, nil)
		}
		return 0, nil, len(notes) == 0
	}
	before := slices.Clone(notes)
	for i, t := range touches {
		notes[i].Placement, notes[i].Finger = t.Placement, t.Finger
	}
	if !grip(in, notes, hand) {
		copy(notes, before)
		if prefer != nil {
			return Place(in, notes, w, hand, nil)
		}
		return 0, nil, false
	}
	return cost, nil, true
}

// asksOf says how each note hangs on the one before.
func asksOf(notes []Note) []neck.Ask {
	asks := make([]neck.Ask, len(notes))
	for i, n := range notes {
		asks[i] = neck.Ask{Bend: n.Bend, Above: max(n.Trill, n.Turn, n.Double), Below: n.Turn}
		if i == 0 {
			continue
		}
		before := notes[i-1]
		asks[i].With = before.Start == n.Start
		asks[i].Same = n.Join != Picked && before.Start != n.Start
		asks[i].Slid = n.Join == Slide && before.Start != n.Start
		asks[i].Rest = n.Start-before.End() >= Tick
		asks[i].Under = before.Start != n.Start && before.String != n.String && before.End()-n.Start >= Tick/8
	}
	return asks
}
