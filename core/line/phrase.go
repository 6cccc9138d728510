package line

import (
	"slices"

	"undaris/core/say"
	"undaris/core/score"
)

// breath is the silence that ends a phrase; so does a note held for two beats.
const breath = score.Tick

// phrases cuts a line where it breathes and names what comes back.
func phrases(s score.Score) (out []Phrase) {
	from := 0
	for i := range s.Notes {
		next, ok := s.After(i)
		if ok && next > i+1 && s.Notes[i+1].Start == s.Notes[i].Start {
			continue
		}
		n := s.Notes[i]
		if !ok || s.Notes[next].Start-n.End() >= breath || n.Length >= 2*score.Tick {
			if !ok && i+1 < len(s.Notes) {
				continue
			}
			out = append(out, Phrase{From: from, To: i})
			from = i + 1
		}
	}
	var kinds []Phrase // the first of each letter
	for i := range out {
		p := &out[i]
		for k, first := range kinds {
			if !sameRhythm(s, first, *p) {
				if p.Name == "" && sameHead(s, first, *p) {
					p.Name = letterOf(k) + "′" // unless another comes back whole
				}
				continue
			}
			letter := letterOf(k)
			switch {
			case slices.Equal(degrees(s, first), degrees(s, *p)):
				p.Name = letter
			case slices.Equal(shape(s, first), shape(s, *p)):
				p.Name = letter + "′"
			default:
				continue
			}
			break
		}
		if p.Name == "" {
			p.Name = letterOf(len(kinds))
			kinds = append(kinds, *p)
		}
	}
	roles(s, out)
	return out
}

func letterOf(k int) string {
	if k < 26 {
		return string(rune('A' + k))
	}
	return say.F("A%d", k)
}

func sameRhythm(s score.Score, a, b Phrase) bool {
	if a.To-a.From != b.To-b.From || a.To == a.From {
		return false
	}
	for i := range a.To - a.From + 1 {
		if s.Notes[a.From+i].Start-s.Notes[a.From].Start != s.Notes[b.From+i].Start-s.Notes[b.From].Start {
			return false
		}
	}
	return true
}

// sameHead tells that two phrases begin alike: half of the longer one and three notes at least, in rhythm and direction.
func sameHead(s score.Score, a, b Phrase) bool {
	count := func(p Phrase) int { return p.To - p.From + 1 }
	head := max(3, (max(count(a), count(b))+1)/2)
	if count(a) < head || count(b) < head {
		return false
	}
	a.To, b.To = a.From+head-1, b.From+head-1
	return sameRhythm(s, a, b) && slices.Equal(shape(s, a), shape(s, b))
}

// degrees are those of a phrase over its chords.
func degrees(s score.Score, p Phrase) (out []string) {
	for _, n := range s.Notes[p.From : p.To+1] {
		if c, ok := s.ChordAt(n.Start); ok {
			out = append(out, string(over(c, n.Heard()).Degree))
		}
	}
	return out
}

// shape is where a phrase goes: up, down, or on the spot.
func shape(s score.Score, p Phrase) (out []int) {
	for i := p.From; i < p.To; i++ {
		d := s.Notes[i+1].Heard() - s.Notes[i].Heard()
		out = append(out, min(1, max(-1, d)))
	}
	return out
}

// advise says what to try instead, the most telling things first.
func (r *Report) advise(s score.Score) {
	var missed, late, faults int
	roots := 0
	for _, l := range r.Landings {
		switch l.When {
		case Wrong:
			missed++
		case Late:
			late++
		}
		if l.Degree == "R" && l.Landed() {
			roots++
		}
	}
	for _, n := range r.Notes {
		if n.Fault {
			faults++
		}
	}
	say := func(format string, args ...any) { r.Advice = append(r.Advice, say.F(format, args...)) }
	if missed > 0 {
		say("%s in time on a note that is not in the new chord: choose the change and take one of the fixes.", times(missed, "change is met", "changes are met"))
	}
	if late > 0 {
		say("%s late: start the phrase before it earlier, or let a note go.", times(late, "change is landed", "changes are landed"))
	}
	if faults > 0 {
		say("%s where no chord tone is: move on to what it wants, a fret or two away.", times(faults, "note rests", "notes rest"))
	}
	if n := len(r.Landings); n >= 4 && roots*2 > n {
		say("%d of %d landings are roots: the third says most about a chord.", roots, n)
	}
	if n := r.ChordTones + r.Palette + r.Else; n > 12 && r.ChordTones == n {
		say("All %d notes are chord tones: an approach note before a landing would lean into it.", n)
	}
	gap := 0
	for i := range s.Notes {
		if next, ok := s.After(i); ok && s.Notes[next].Start-s.Notes[i].End() >= breath {
			gap++
		}
	}
	if bars := len(s.Bars); len(s.Notes) > 6*bars && gap < bars/4 {
		say("It hardly breathes: leave a rest every second bar.")
	}
	if n := scales(s); n > 1 {
		say("%d times it runs a shape up and down again: leave a tone out, or turn round sooner.", n)
	}
	if i, near := far(s); i >= 0 {
		n := s.Notes[i]
		say("The hand goes to string %d, fret %d for %s in bar %d; it lies under the hand at string %d, fret %d.", n.String, n.Fret, n.Pitch, s.BarOf(n.Start)+1, near.String, near.Fret)
	}
	for _, l := range r.Landings {
		if i := short(s, l); i >= 0 {
			say("The phrase before bar %d ends a beat early: one more note would land on %s.", s.BarOf(l.At)+1, l.Chord)
			break
		}
	}
	for i := 1; i < len(r.Phrases); i++ {
		a, b := r.Phrases[i-1], r.Phrases[i]
		if a.Name[0] == b.Name[0] && b.To > b.From && s.Notes[b.From].Start-s.Notes[a.To].End() < score.Tick/2 {
			say("%s comes back without a rest before it: let it ring out first, and it is heard as an answer.", b.Name)
			break
		}
	}
	for _, n := range s.Notes {
		if n.Length >= 6*score.Tick {
			say("%s in bar %d lasts %d beats: move, or leave room for the band.", n.Pitch, s.BarOf(n.Start)+1, n.Length/score.Tick)
			break
		}
	}
}

// Unscolded takes back what is said of music and not of an exercise: advice, and
// faults of notes that stand where the exercise has them.
func (r *Report) Unscolded() {
	r.Advice = nil
	for i := range r.Notes {
		r.Notes[i].Fault = false
	}
}

func times(n int, one, many string) string {
	if n == 1 {
		return "One " + one
	}
	return say.F("%d %s", n, many)
}
