package form

import "undaris/core/harmony"

// Span is a stretch of a form that is worth being led through at once.
type Span struct {
	Name   string
	Bar    int // where it begins, from 0
	Chords []harmony.Chord
}

// Spans lists the last two bars, on to the first chord, and each progression of two
// fourths up through a dominant chord: ii–V–I, each once. What does not change is none.
func (p Progression) Spans(key Key) (list []Span) {
	places := p.Places()
	if n := len(places); n > 0 {
		last := Span{Name: "the last two bars", Bar: max(0, len(p.Bars)-2)}
		for _, at := range places {
			if at.Bar >= last.Bar {
				last.add(at.Chord)
			}
		}
		last.add(places[0].Chord)
		if len(last.Chords) > 1 {
			list = append(list, last)
		}
	}
	var way []Place // the changes, one after another
	for _, at := range places {
		if n := len(way); !at.Chord.None && (n == 0 || way[n-1].Chord.String() != at.Chord.String()) {
			way = append(way, at)
		}
	}
	known := map[string]bool{}
	for i := range len(way) {
		if len(way) < 3 {
			break
		}
		two, five, one := way[i], way[(i+1)%len(way)].Chord, way[(i+2)%len(way)].Chord
		name := Numeral(two.Chord, key) + "–" + Numeral(five, key) + "–" + Numeral(one, key)
		if known[name] || !two.Chord.Minor() || !five.Dominant() || !fourthUp(two.Chord, five) || !fourthUp(five, one) {
			continue
		}
		known[name] = true
		list = append(list, Span{name, two.Bar, []harmony.Chord{two.Chord, five, one}})
	}
	return list
}

func (s *Span) add(c harmony.Chord) {
	if n := len(s.Chords); !c.None && (n == 0 || s.Chords[n-1].String() != c.String()) {
		s.Chords = append(s.Chords, c)
	}
}

func fourthUp(a, b harmony.Chord) bool { return (a.Root.Class()+5)%12 == b.Root.Class() }
