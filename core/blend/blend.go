package blend

import (
	"strconv"
	"strings"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// Note is a palette note over a chord.
type Note struct {
	Member
	Sound
}

// Blend is a palette over one chord.
type Blend struct {
	Notes []Note
	Added []harmony.Tone // the chord's tones that the palette lacks: worth reaching for
}

// Over lays a palette of a key over a chord. N.C. gives the notes of a key's
// palette without classes, and nothing to add.
func Over(key form.Key, p Palette, chord harmony.Chord) Blend {
	var b Blend
	if chord.None {
		return b
	}
	sounds := Sounds(chord)
	var has [12]bool
	for _, m := range p.Notes(key, chord) {
		has[m.Name.Class()] = true
		b.Notes = append(b.Notes, Note{m, sounds[chord.Above(m.Name.Class())]})
	}
	for _, t := range chord.Tones {
		if !has[t.Name.Class()] {
			b.Added = append(b.Added, t)
		}
	}
	return b
}

// Places lists where a pitch class 0–11 lies in a window, string 1 first.
func Places(in *neck.Instrument, class int, w neck.Region) []neck.Placement {
	var out []neck.Placement
	for s := 1; s <= in.Strings(); s++ {
		if !w.Strings.Has(s) {
			continue
		}
		for fret := w.Low; fret <= w.High; fret++ {
			if p := (neck.Placement{String: s, Fret: fret}); in.MIDI(p)%12 == class {
				out = append(out, p)
			}
		}
	}
	return out
}

// Laid is a blend in a window of a neck.
type Laid struct {
	Blend
	Places []Spot             // of the palette's notes, note by note
	Reach  [][]neck.Placement // of each of the tones that the palette lacks
	Bends  []Bend
	Slides []Slide
	Box    Of // proposed over the chord, of a palette that joins two
	Why    string
}

// Spot is a place of a palette's note.
type Spot struct {
	neck.Placement
	Of int // index of the note
}

// Lay lays a palette over a chord, in a window; advanced bends go three half steps.
func Lay(in *neck.Instrument, key form.Key, p Palette, chord harmony.Chord, w neck.Region, advanced bool) Laid {
	out := Laid{Blend: Over(key, p, chord)}
	out.Box, out.Why = p.Turn(key, chord)
	for i, n := range out.Notes {
		for _, at := range Places(in, n.Name.Class(), w) {
			out.Places = append(out.Places, Spot{at, i})
		}
	}
	for _, t := range out.Added {
		out.Reach = append(out.Reach, Places(in, t.Name.Class(), w))
	}
	out.Bends = Bends(in, out.Blend, chord, w, advanced)
	out.Slides = Slides(in, p, chord, w)
	return out
}

// Slide goes from the flat third of a chord to its third, a fret up on one string: the
// step from one box into the other.
type Slide struct{ From, To neck.Placement }

// Slides lists them in a window, for a palette that joins two boxes. An open string
// cannot be slid from.
func Slides(in *neck.Instrument, p Palette, chord harmony.Chord, w neck.Region) (list []Slide) {
	if p.Minor == "" || chord.None || !chord.HasDegree("3") {
		return nil
	}
	for _, from := range Places(in, (chord.Root.Class()+3)%12, w) {
		to := neck.Placement{String: from.String, Fret: from.Fret + 1}
		if from.Fret > 0 && w.Has(to) {
			list = append(list, Slide{from, to})
		}
	}
	return list
}

// Bend raises a palette note to a chord tone. A curl raises the blue third by
// about a quarter tone and needs no target.
type Bend struct {
	From neck.Placement
	Note
	Of        int // index of the palette's note
	HalfSteps int // 1 to 3; 0 for a curl
	To        harmony.Tone
}

// Limit is how many half steps a player bends a string: two on plain strings (three
// where advanced bends are asked for), one on the highest wound one. Open strings cannot.
func Limit(in *neck.Instrument, p neck.Placement, advanced bool) int {
	if advanced {
		return in.Bends(p) / 2
	}
	return min(2, in.Bends(p)/2)
}

// blueThird is how many half steps the note between the minor and the major third lies above a root: ♯9 over a dominant, ♭3 over a
// triad.
const blueThird = 3

// Bends finds every bend from a palette note in the window to a chord tone, and
// every curl on the blue third of the chord.
func Bends(in *neck.Instrument, b Blend, chord harmony.Chord, w neck.Region, advanced bool) []Bend {
	var out []Bend
	for i, n := range b.Notes {
		for _, p := range Places(in, n.Name.Class(), w) {
			limit := Limit(in, p, advanced)
			for h := 1; h <= limit; h++ {
				if to, ok := chord.ToneAt((n.Name.Class() + h) % 12); ok {
					out = append(out, Bend{p, n, i, h, to})
				}
			}
			if chord.Above(n.Name.Class()) == blueThird && n.Class == Blue && limit > 0 {
				out = append(out, Bend{From: p, Note: n, Of: i})
			}
		}
	}
	return out
}

// Reading is what one place on the neck is over a chord, plain and bent.
type Reading struct {
	Chord harmony.Chord
	Sound
	Bent []Bend // to the chord's tones, From and Note left out
}

// OnePlace reads a single fret over several chords: bent two half steps it may
// be the third of one, bent one the seventh of the next, plain the fifth of the
// last.
func OnePlace(in *neck.Instrument, p neck.Placement, chords []harmony.Chord, advanced bool) []Reading {
	var out []Reading
	for _, c := range chords {
		if c.None {
			continue
		}
		class := in.MIDI(p) % 12
		r := Reading{Chord: c, Sound: Sounds(c)[c.Above(class)]}
		for h := 1; h <= Limit(in, p, advanced); h++ {
			if to, ok := c.ToneAt((class + h) % 12); ok {
				r.Bent = append(r.Bent, Bend{HalfSteps: h, To: to})
			}
		}
		out = append(out, r)
	}
	return out
}

// About is what one place on the neck is, whatever chord sounds.
type About struct {
	Pitch  pitch.Pitch    // spelled by the key
	Degree harmony.Degree // in the key, as its name has it: R, b3, 4, b5
	Others []neck.Placement
}

// AboutPlace tells the name of a place, what it is in a key, and where else its pitch
// lies, the lowest string first.
func AboutPlace(in *neck.Instrument, key form.Key, p neck.Placement) About {
	midi := in.MIDI(p)
	name := key.Spell(midi)
	a := About{Pitch: pitch.At(midi, name), Degree: inKey(key.Tonic, name)}
	for _, other := range in.Find(midi, neck.Region{High: in.Last()}) {
		if other != p {
			a.Others = append(a.Others, other)
		}
	}
	return a
}

// InKey is what a pitch class is in a key, whatever chord sounds: R, b3, 4, b5.
func InKey(key form.Key, class int) harmony.Degree { return inKey(key.Tonic, key.Spell(class)) }

// inKey is what a name is above a tonic, by its letter: the second, the flat third.
func inKey(tonic, name pitch.Name) harmony.Degree {
	letters := (name.Letter - tonic.Letter + 7) % 7
	natural := []int{0, 2, 4, 5, 7, 9, 11}[letters]
	off := (name.Class()-tonic.Class()-natural+18)%12 - 6
	if letters == 0 && off == 0 {
		return "R"
	}
	return harmony.Degree(strings.Repeat("b", max(0, -off)) + strings.Repeat("#", max(0, off)) + strconv.Itoa(letters+1))
}

// Rub is a tone of the soloist's chord that does not rest over the band's.
type Rub struct {
	Tone harmony.Tone
	Over Sound // what it is over the band's chord
}

// Rubs lists what rubs when the soloist follows one chord while the band plays
// another: the tones that only pass over the band's chord, or are a tension on it.
func Rubs(solo, band harmony.Chord) []Rub {
	if solo.None || band.None {
		return nil
	}
	sounds := Sounds(band)
	var out []Rub
	for _, t := range solo.Tones {
		if s := sounds[band.Above(t.Name.Class())]; s.Class == Passing || s.Class == Tension {
			out = append(out, Rub{t, s})
		}
	}
	return out
}

// Box is a palette as a hand position.
type Box struct {
	Name   string
	Region neck.Region
}

// Boxes lists the boxes of a tonic (pitch class): one for each position, and the
// small box on the top three strings around the root on string 2.
func Boxes(in *neck.Instrument, tonic int) []Box {
	var out []Box
	for _, p := range in.Positions(tonic) {
		if !p.Octave && !p.Nut {
			out = append(out, Box{"box", p.Region})
		}
	}
	if small, ok := SmallBox(in, tonic); ok {
		out = append(out, small)
	}
	return out
}

// SmallBox is the box on the top three strings, at the fifth fret or higher.
func SmallBox(in *neck.Instrument, tonic int) (Box, bool) {
	r, ok := in.SmallBox(tonic)
	return Box{"small box", r}, ok
}
