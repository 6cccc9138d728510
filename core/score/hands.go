package score

import (
	"slices"
	"strings"

	"undaris/core/form"
	"undaris/core/neck"
	"undaris/core/say"
)

// Hands tells where the hand lies at each note, by the fingers that are written. It is nil where fingers are missing.
func Hands(in *neck.Instrument, notes []Note, hand neck.Hand) []neck.Touch {
	asks := asksOf(notes)
	for i, n := range notes {
		if n.Finger == 0 && n.Fret > 0 {
			return nil
		}
		asks[i].Places, asks[i].Finger = []neck.Placement{n.Placement}, n.Finger
		// What is held together may lie otherwise than one finger a fret has it.
		if asks[i].With || i+1 < len(notes) && notes[i+1].Start == n.Start {
			asks[i].Finger = 0
		}
	}
	touches, _ := in.FingerPhrase(asks, hand)
	return touches
}

// undone is the first note that no finger of the hand is left for; −1 is none.
func undone(in *neck.Instrument, notes []Note, touches []neck.Touch) (int, neck.Ask) {
	asks := asksOf(notes)
	for i, t := range touches {
		t.Finger = notes[i].Finger // what is held together may lie otherwise
		if !in.Can(touches[max(0, i-1)], t, asks[i]) {
			return i, asks[i]
		}
	}
	return -1, neck.Ask{}
}

// Done tells that a finger is there for all that notes ask for, by the fingers that are written.
func Done(in *neck.Instrument, notes []Note, hand neck.Hand) bool {
	touches := Hands(in, notes, hand)
	i, _ := undone(in, notes, touches)
	return i < 0 && len(touches) == len(notes)
}

// Undone tells what no finger of the hand, as it lies, is left for: the first such note; "" is none.
func (s Score) Undone(touches []neck.Touch) string {
	i, ask := undone(s.In, s.Notes, touches)
	if i < 0 {
		return ""
	}
	n, what := s.Notes[i], "what adorns it"
	switch {
	case ask.Under:
		what = "it while the note before is held"
	case n.Bend > 0:
		what = "its bend"
	}
	return say.F("no finger is left for %s at %s in bar %d", what, n.Pitch, s.BarOf(max(0, n.Start))+1)
}

// Stretch is a place of the hand that is wider than the player's comfort.
type Stretch struct {
	neck.Held                  // of notes, by their indexes
	There     neck.Region      // frets where the same notes lie within comfort; High is 0 where there are none
	Places    []neck.Placement // of each of the notes there
}

// Says tells a stretch, and what to do about it.
func (s Stretch) Says() string {
	text := say.F("%.0f mm, frets %d to %d", s.Millimetres, s.Low, s.High)
	if s.There.High == 0 {
		return text + ": warm up first; it lies nowhere narrower"
	}
	return say.F("%s: warm up first, or play it at frets %d to %d", text, s.There.Low, s.There.High)
}

// Stretches lists where the hand, by the fingers that are written, lies wider than its comfort, and where the same
// notes fit it: the nearest place up the neck, where frets are narrower, else one below.
func Stretches(in *neck.Instrument, notes []Note, hand neck.Hand) []Stretch {
	return StretchesOf(in, notes, Hands(in, notes, hand), hand)
}

// StretchesOf is Stretches where it is known how the hand lies at each note.
func StretchesOf(in *neck.Instrument, notes []Note, touches []neck.Touch, hand neck.Hand) (list []Stretch) {
	known := map[string]Stretch{}
	for _, h := range in.Held(touches, hand) {
		if h.Comfortable {
			continue
		}
		passage := notes[h.From : h.To+1]
		mark := marked(passage)
		s, ok := known[mark]
		if !ok {
			s.fit(in, passage, h.Low, hand)
			known[mark] = s
		}
		s.Held = h
		list = append(list, s)
	}
	return list
}

// marked is where a passage lies, and what of it sounds together.
func marked(notes []Note) string {
	places := make([]rune, 0, 2*len(notes))
	for _, n := range notes {
		places = append(places, rune(1+n.Start-notes[0].Start), rune(n.String<<6|n.Fret))
	}
	return string(places)
}

// fit finds frets where the notes of a passage, that lies from a fret on, are within comfort.
func (s *Stretch) fit(in *neck.Instrument, passage []Note, from int, hand neck.Hand) {
	var windows []neck.Region
	for low := 1; low <= in.Last(); low++ {
		w := neck.Region{Low: low, High: low}
		for w.High < in.Last() && w.High-low < 4 && in.Reach(low, w.High+1) <= hand.Comfort {
			w.High++
		}
		if low != from && !slices.ContainsFunc(passage, func(n Note) bool { return len(in.Find(n.Pitch.MIDI(), w)) == 0 }) {
			windows = append(windows, w)
		}
	}
	// Those up the neck first, and of either side the nearest.
	far := func(w neck.Region) int {
		if w.Low > from {
			return w.Low - from
		}
		return in.Last() + from - w.Low
	}
	slices.SortFunc(windows, func(a, b neck.Region) int { return far(a) - far(b) })
	for _, w := range windows {
		there := slices.Clone(passage)
		if _, _, ok := Place(in, there, w, hand, nil); !ok {
			continue
		}
		if touches := Hands(in, there, hand); touches == nil || !in.Widest(touches, hand).Comfortable {
			continue
		}
		s.There = w
		for _, n := range there {
			s.Places = append(s.Places, n.Placement)
		}
		return
	}
}

// Deeds tells for each note what the fretting hand does beside putting a finger down: one rolled over from the string
// beside, one laid flat over several, and strings that are silenced between sounding ones. "" is no more than that.
func Deeds(notes []Note) []string {
	deeds := make([]string, len(notes))
	for i := 0; i < len(notes); {
		j := i + 1
		for j < len(notes) && notes[j].Start == notes[i].Start {
			j++
		}
		switch {
		case j-i > 1:
			deeds[i] = together(notes[i:j])
		case i > 0 && notes[i].rolled(notes[i-1]):
			deeds[i] = say.F("finger %d rolls over from string %d, which falls silent", notes[i].Finger, notes[i-1].String)
		}
		i = j
	}
	return deeds
}

// rolled tells that the finger of the note before goes on to the string beside, at the same fret, without a rest.
func (n Note) rolled(before Note) bool {
	beside := max(n.String-before.String, before.String-n.String) == 1
	return beside && n.Finger > 0 && n.Finger == before.Finger && n.Fret == before.Fret && n.Start-before.End() < Tick/2
}

// together tells how notes that sound at once are held.
func together(notes []Note) string {
	var silent, said []string
	low, high := notes[0].String, notes[0].String
	flat := map[int]int{}
	for _, n := range notes {
		low, high = max(low, n.String), min(high, n.String)
		if n.Finger > 0 {
			flat[n.Finger]++
		}
	}
	for finger := 1; finger <= 4; finger++ {
		if flat[finger] > 1 {
			said = append(said, say.F("finger %d lies flat over %d strings", finger, flat[finger]))
		}
	}
	for str := high + 1; str < low; str++ {
		if !slices.ContainsFunc(notes, func(n Note) bool { return n.String == str }) {
			silent = append(silent, say.F("%d", str))
		}
	}
	switch len(silent) {
	case 0:
	case 1:
		said = append(said, "string "+silent[0]+" is silenced by a finger beside it")
	default:
		said = append(said, "strings "+say.List(silent, "and")+" are silenced by fingers beside them")
	}
	return strings.Join(said, "; ")
}

// quickest is how close notes follow each other in the quickest hands, in milliseconds: sixteen a second and a little more.
const quickest = 60

// TooQuick tells where notes follow each other more quickly than any hand plays, and at which tempo they have time; "" is
// nowhere.
func (s Score) TooQuick() string {
	gap, at := 0, 0
	for i := 1; i < len(s.Notes); i++ {
		if d := s.Notes[i].Start - s.Notes[i-1].Start; d > 0 && (gap == 0 || d < gap) {
			gap, at = d, s.Notes[i-1].Start
		}
	}
	ms := func(tempo int) float64 { return float64(gap) * 60_000 / float64(tempo) / Tick }
	if gap == 0 || s.Tempo <= 0 || ms(s.Tempo) >= quickest {
		return ""
	}
	most := gap * 60_000 / quickest / Tick
	if most < form.MinTempo {
		return say.F("the quickest notes, in bar %d, are %.0f ms apart at %d: no hand plays that at any tempo", s.BarOf(max(0, at))+1, ms(s.Tempo), s.Tempo)
	}
	return say.F("the quickest notes, in bar %d, are %.0f ms apart at %d, and no hand plays that; up to %d they have time", s.BarOf(max(0, at))+1, ms(s.Tempo), s.Tempo, most)
}
