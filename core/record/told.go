package record

import (
	"slices"

	"undaris/core/edit"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Told is a note of a stretch in words.
type Told struct {
	ID     int
	Bar    int     // of the recording, from 1
	Beat   float64 // in it, from 1
	Degree string  // where it comes to rest, over its chord
	Where  string  // "A over F7, bar 6, beat 2½"
	Does   string  // "the 3, bent up from G, a whole step"
	Why    string  // how sure it is, and what it may be too
}

// How sure a guess is, in words.
const (
	SureFrom   = 0.8
	FairlyFrom = 0.6
)

// parts of a beat, as they are said.
var parts = map[int]string{0: "", score.Tick / 2: "½", score.Tick / 3: "⅓", 2 * score.Tick / 3: "⅔", score.Tick / 4: "¼", 3 * score.Tick / 4: "¾"}

// Tell says of the notes of a line, made by [Ground.Line], what they are.
func Tell(l edit.Line, bars []Bar, guesses []Guess) (out []Told) {
	st := l.Study()
	for i, n := range st.Line.Notes {
		at := slices.IndexFunc(guesses, func(g Guess) bool { return g.ID == n.ID })
		if at < 0 {
			continue
		}
		bar := l.BarOf(n.Start)
		in := l.InBar(n.Start)
		rests := n.Pitch
		if n.Bend > 0 {
			rests = pitch.At(n.Heard(), l.Spell(n.Start, n.Heard()))
		}
		t := Told{ID: n.ID, Bar: bars[0].Number + bar + 1, Beat: 1 + float64(in)/score.Tick, Degree: string(st.Report.Notes[i].Degree)}
		t.Where = say.F("%s", rests.Name)
		if chord, ok := l.ChordAt(n.Start); ok {
			t.Where = say.F("%s over %s", rests.Name, chord)
		}
		t.Where = say.F("%s, bar %d, beat %d%s", t.Where, t.Bar, in/score.Tick+1, parts[in%score.Tick])
		if t.Degree != "" {
			t.Does = say.F("the %s", st.Report.Notes[i].Degree)
		}
		for _, more := range []string{bent(n), reached[n.Join], swayed(n)} {
			switch {
			case more == "":
			case t.Does == "":
				t.Does = more
			default:
				t.Does += ", " + more
			}
		}
		t.Why = guesses[at].why(n)
		out = append(out, t)
	}
	return out
}

var reached = map[score.Join]string{score.Hammer: "hammered on", score.PullOff: "pulled off", score.Slide: "slid to"}

func swayed(n score.Note) string {
	if n.Vibrato {
		return "with vibrato"
	}
	return ""
}

// steps are sizes of bends in quarter tones, as players say them.
var steps = map[int]string{1: "a quarter tone", 2: "a half step", 3: "three quarter tones", 4: "a whole step", 5: "a whole step and a quarter tone", 6: "a step and a half", 8: "two whole steps"}

func bent(n score.Note) string {
	if n.Bend == 0 {
		return ""
	}
	by := steps[n.Bend]
	if by == "" {
		by = say.F("%d quarter tones", n.Bend)
	}
	return say.F("bent up from %s, %s", n.Pitch.Name, by)
}

// why tells how sure a guess is, and what else it may be.
func (g Guess) why(n score.Note) string {
	if g.Settled {
		return "You settled it."
	}
	text := "Not sure."
	switch {
	case g.Sure >= SureFrom:
		text = "Sure: its pitch is clear, and its stroke stands out."
	case g.Sure >= FairlyFrom:
		text = "Fairly sure."
	case g.Sure <= neverClear:
		text = "Not sure: its pitch never came to rest by itself. It may be an octave away, or belong to a chord."
	}
	if n.Bend > 0 {
		text += " It could be struck where it comes to rest, without a bend."
	} else if n.Join != score.Picked && g.Sure < SureFrom {
		text += " No stroke of its own was heard."
	}
	return text
}
