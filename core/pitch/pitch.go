package pitch

import (
	"math"
	"strconv"
	"strings"

	"undaris/core/say"
)

// Name is a spelled pitch class: a letter 0–6 for C D E F G A B, and an
// alteration in half steps, −1 for a flat and +1 for a sharp.
type Name struct {
	Letter int
	Alter  int
}

// Interval is a distance upwards in letters (0 = the same letter) and half steps.
type Interval struct {
	Letters   int
	HalfSteps int
}

// Pitch is a name in an octave of scientific notation: C4 is middle C.
type Pitch struct {
	Name
	Octave int
}

const letters = "CDEFGAB"

// natural[l] is the distance of letter l above C in half steps.
var natural = [7]int{0, 2, 4, 5, 7, 9, 11}

// Roots are the seventeen names that chords and keys are written on.
var Roots = []Name{
	{0, 0}, {0, 1}, {1, -1}, {1, 0}, {1, 1}, {2, -1}, {2, 0}, {3, 0}, {3, 1},
	{4, -1}, {4, 0}, {4, 1}, {5, -1}, {5, 0}, {5, 1}, {6, -1}, {6, 0},
}

// ReadName reads a name at the start of s and returns it with the number of
// bytes it took. Flats may be b or ♭, sharps # or ♯, doubles bb, ## or x.
// ok is false when s does not begin with a capital letter A to G.
func ReadName(s string) (n Name, size int, ok bool) {
	if s == "" {
		return Name{}, 0, false
	}
	l := strings.IndexByte(letters, s[0])
	if l < 0 {
		return Name{}, 0, false
	}
	n.Letter, size = l, 1
	for len(s) > size && n.Alter > -2 && n.Alter < 2 {
		alter, width := accidental(s[size:])
		if width == 0 || alter*n.Alter < 0 {
			break
		}
		n.Alter += alter
		size += width
	}
	return n, size, true
}

func accidental(s string) (alter, size int) {
	for _, a := range []struct {
		text  string
		alter int
	}{{"b", -1}, {"♭", -1}, {"#", 1}, {"♯", 1}, {"x", 2}, {"𝄪", 2}, {"𝄫", -2}} {
		if strings.HasPrefix(s, a.text) {
			return a.alter, len(a.text)
		}
	}
	return 0, 0
}

// ParseName reads a whole text as a name, such as "C", "Bb", "F♯".
func ParseName(s string) (Name, error) {
	n, size, ok := ReadName(s)
	if !ok || size != len(s) {
		return Name{}, say.Errorf("%q is not a note name; write a letter A to G with b or # behind it, such as Bb", s)
	}
	return n, nil
}

// ParsePitch reads a name with an octave from −1 to 9, such as "E2" or "Bb3".
func ParsePitch(s string) (Pitch, error) {
	n, size, ok := ReadName(s)
	if ok {
		if o, err := strconv.Atoi(s[size:]); err == nil && o >= -1 && o <= 9 {
			return Pitch{n, o}, nil
		}
	}
	return Pitch{}, say.Errorf("%q is not a pitch; write a letter A to G, b or # if it has one, and an octave, such as E2", s)
}

// Class is the pitch class, 0 (C) to 11 (B).
func (n Name) Class() int { return mod(natural[n.Letter]+n.Alter, 12) }

// Up returns the name an interval higher.
func (n Name) Up(i Interval) Name {
	l := n.Letter + i.Letters
	alter := natural[n.Letter] + n.Alter + i.HalfSteps - natural[mod(l, 7)] - 12*floorDiv(l, 7)
	return Name{mod(l, 7), alter}
}

// To returns the interval from n up to m, within one octave.
func (n Name) To(m Name) Interval {
	l := mod(m.Letter-n.Letter, 7)
	h := natural[m.Letter] + m.Alter - natural[n.Letter] - n.Alter
	if m.Letter < n.Letter {
		h += 12
	}
	return Interval{l, h}
}

// Simpler returns the plainest name of the same sound: naturals before single
// accidentals, the same direction of accidental kept. Names that are plain
// already come back unchanged; E♯, B♯, F♭, C♭ and doubles do not.
func (n Name) Simpler() Name {
	if n.Alter == 0 || (n.Alter == -1 && natural[n.Letter]-natural[mod(n.Letter-1, 7)] == 2) ||
		(n.Alter == 1 && natural[mod(n.Letter+1, 7)]-natural[n.Letter] == 2) {
		return n
	}
	best := Name{}
	for l := range 7 {
		if natural[l] == n.Class() {
			return Name{Letter: l}
		}
		a := n.Class() - natural[l]
		if (n.Alter > 0 && a == 1) || (n.Alter < 0 && a == -1) {
			best = Name{l, a}
		}
	}
	return best
}

// String writes the name in plain letters: "Bb", "F#", "Bbb", "F##".
func (n Name) String() string {
	s := letters[n.Letter : n.Letter+1]
	if n.Alter < 0 {
		return s + strings.Repeat("b", -n.Alter)
	}
	return s + strings.Repeat("#", n.Alter)
}

// Printed writes the name as it is printed: "B♭", "F♯".
func (n Name) Printed() string {
	s := letters[n.Letter : n.Letter+1]
	if n.Alter < 0 {
		return s + strings.Repeat("♭", -n.Alter)
	}
	return s + strings.Repeat("♯", n.Alter)
}

// Printed writes the pitch as it is printed: "B♭3".
func (p Pitch) Printed() string { return p.Name.Printed() + strconv.Itoa(p.Octave) }

// MIDI is the MIDI note number; E2 is 40, A4 is 69. C♭4 is 59, as it sounds.
func (p Pitch) MIDI() int { return 12*(p.Octave+1) + natural[p.Letter] + p.Alter }

// Frequency is in hertz, equal temperament at A4 = 440 Hz.
func (p Pitch) Frequency() float64 { return 440 * math.Exp2(float64(p.MIDI()-69)/12) }

// Up returns the pitch an interval higher.
func (p Pitch) Up(i Interval) Pitch {
	return Pitch{p.Name.Up(i), p.Octave + floorDiv(p.Letter+i.Letters, 7)}
}

// String writes the pitch with its octave: "Bb3".
func (p Pitch) String() string { return p.Name.String() + strconv.Itoa(p.Octave) }

// At spells a sounding MIDI number with the given name. The name's class must
// be that of the number; the octave follows the letter, so 59 as C♭ is C♭4.
func At(midi int, n Name) Pitch {
	return Pitch{n, (midi-n.Alter-natural[n.Letter])/12 - 1}
}

// Class is the pitch class of a MIDI number, or of any sum of half steps: 0 is C,
// 11 is B.
func Class(halfSteps int) int { return mod(halfSteps, 12) }

func mod(a, b int) int { return ((a % b) + b) % b }

func floorDiv(a, b int) int { return (a - mod(a, b)) / b }
