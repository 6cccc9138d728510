package line

import (
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/say"
	"undaris/core/score"
)

// What a phrase is to those beside it. A question stays open and its answer closes; a turnaround leads from the last two bars back to
// the top, and a coda closes there.
const (
	Question   = "question"
	Answer     = "answer"
	Turnaround = "turnaround"
	Coda       = "coda"
)

// answering is how far after a question its answer begins at most: longer silence parts them.
const answering = 2 * 4 * score.Tick

// roles tells of phrases what they are to each other. It holds for any line, whoever wrote it.
func roles(s score.Score, list []Phrase) {
	for i := range list {
		list[i].ends(s)
		list[i].Like = likeOne(s, list[:i], list[i])
	}
	end := s.At(len(s.Bars))
	tail := s.At(max(0, len(s.Bars)-2))
	for i := range list {
		p := &list[i]
		switch start := s.Notes[p.From].Start; {
		case len(s.Bars) >= 8 && start >= tail && start < end && p.Closes && i == len(list)-1:
			p.Role = Coda
		case len(s.Bars) >= 8 && start >= tail && start < end && !p.Closes:
			p.Role = Turnaround
		}
	}
	for i := 0; i+1 < len(list); i++ {
		a, b := &list[i], &list[i+1]
		near := s.Notes[b.From].Start-s.Notes[a.To].End() <= answering
		if a.Role == "" && b.Role != Turnaround && near && !a.Closes && b.Closes && a.From < a.To {
			a.Role = Question
			if b.Role == "" {
				b.Role = Answer
			}
		}
	}
}

// ends tells where a phrase comes to its end: it closes on the key's root, or on the third of its first chord while that sounds.
func (p *Phrase) ends(s score.Score) {
	n := s.Notes[p.To]
	class := n.Heard() % 12
	p.Ends = blend.InKey(s.Key, class)
	if p.Ends == "R" {
		p.Closes = true
		return
	}
	chord, ok := s.ChordAt(n.Start)
	if !ok || chord.None || chord.Root.Class() != s.Key.Tonic.Class() {
		return
	}
	tone, of := chord.ToneAt(class)
	p.Closes = of && tone.Degree.Role() == harmony.Third
}

// likeOne is what a phrase takes from one before it: all of it, an octave away; its beginning, with another end; or its end, after
// another beginning.
func likeOne(s score.Score, before []Phrase, p Phrase) string {
	for _, b := range before {
		if sameRhythm(s, b, p) {
			switch by := apart(s, b, p); by {
			case 0:
				return say.F("%s again", b.Name)
			case 12, -12:
				return say.F("%s an octave %s", b.Name, map[bool]string{true: "up", false: "down"}[by > 0])
			}
			if slices.Equal(degrees(s, b), degrees(s, p)) {
				return say.F("%s over another chord", b.Name)
			}
		}
	}
	for _, b := range before {
		if n := headOf(b, p); n > 0 && alike(s, Phrase{From: b.From, To: b.From + n - 1}, Phrase{From: p.From, To: p.From + n - 1}) {
			return say.F("begins as %s, with another end", b.Name)
		}
	}
	for _, b := range before {
		if n := headOf(b, p); n > 0 && alike(s, Phrase{From: b.To - n + 1, To: b.To}, Phrase{From: p.To - n + 1, To: p.To}) {
			return say.F("another beginning, ends as %s", b.Name)
		}
	}
	return ""
}

// apart is how many half steps every note of a phrase lies from its like in another of the same rhythm; where they differ it is none
// of 0 and 12.
func apart(s score.Score, a, b Phrase) int {
	by := s.Notes[b.From].Heard() - s.Notes[a.From].Heard()
	for i := range a.To - a.From + 1 {
		if s.Notes[b.From+i].Heard()-s.Notes[a.From+i].Heard() != by {
			return 1
		}
	}
	return by
}

// headOf is how many notes of two phrases must be alike, at their beginnings or ends: half of the longer one and three at least; 0 where one
// has not so many.
func headOf(a, b Phrase) int {
	n := max(3, (max(a.To-a.From, b.To-b.From)+2)/2)
	if min(a.To-a.From, b.To-b.From)+1 < n {
		return 0
	}
	return n
}

// alike tells that two stretches are the same: in rhythm and pitch, in pitch but for octaves, or degree for degree over their chords.
func alike(s score.Score, a, b Phrase) bool {
	return sameRhythm(s, a, b) && (apart(s, a, b)%12 == 0 || slices.Equal(degrees(s, a), degrees(s, b)))
}

// Says tells a phrase in words: "question: begins as A, with another end; stays open on the key's 5".
func (p Phrase) Says() (text string) {
	if text = p.Role; text != "" {
		text += ": "
	}
	if p.Like != "" {
		text += p.Like + "; "
	}
	if p.Closes {
		return text + say.F("closes on the key's %s", p.Ends.Printed())
	}
	return text + say.F("stays open on the key's %s", p.Ends.Printed())
}
