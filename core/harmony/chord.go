package harmony

import (
	"cmp"
	"slices"
	"strings"

	"undaris/core/pitch"
)

// Tone is one tone of a chord.
type Tone struct {
	Degree   Degree
	Interval pitch.Interval // above the root, within an octave
	Name     pitch.Name     // spelled by its degree, never respelled
}

// Chord is a root with its tones, or silence (N.C.) when None is set.
type Chord struct {
	Root   pitch.Name
	Bass   pitch.Name // equals Root without a slash
	None   bool
	Tones  []Tone // stacked: root, third, fifth, sixth or seventh, extensions
	suffix string
}

// HasDegree tells whether d is a tone of the chord.
func (c Chord) HasDegree(d Degree) bool {
	return slices.ContainsFunc(c.Tones, func(t Tone) bool { return t.Degree == d })
}

// Above is how many half steps a MIDI number or pitch class lies above the root,
// within an octave: 0 to 11.
func (c Chord) Above(midi int) int { return pitch.Class(midi - c.Root.Class()) }

// ToneAt finds the tone that a pitch class 0–11 is of this chord.
func (c Chord) ToneAt(class int) (Tone, bool) {
	for _, t := range c.Tones {
		if t.Name.Class() == class {
			return t, true
		}
	}
	return Tone{}, false
}

// Slash tells whether another note than the root is written in the bass.
func (c Chord) Slash() bool { return c.Bass != c.Root }

// Suffix is the symbol without root and bass: "m7b5", "7", "".
func (c Chord) Suffix() string { return c.suffix }

// String prints the symbol in plain letters ("Bbm7b5/E"); [Parse] reads it back
// to an equal chord.
func (c Chord) String() string {
	if c.None {
		return "N.C."
	}
	s := c.Root.String() + c.suffix
	if c.Slash() {
		s += "/" + c.Bass.String()
	}
	return s
}

// Printed writes the symbol as it is printed: "B♭m7♭5/E", "F♯°7".
func (c Chord) Printed() string {
	if c.None {
		return c.String()
	}
	s := c.Root.Printed() + print(c.suffix)
	if c.Slash() {
		s += "/" + c.Bass.Printed()
	}
	return s
}

// printer prints what stands behind a root. The only b there is a flat.
var printer = strings.NewReplacer("dim", "°", "b", "♭", "#", "♯")

// print prints what stands behind a root; most of it is printed as it is written.
func print(text string) string {
	if !strings.ContainsAny(text, "db#") {
		return text
	}
	return printer.Replace(text)
}

// On moves the chord to another root; a slash bass keeps its distance. A bass
// that would need a double accidental takes its simpler name, since it is a
// name called out and not a stacked tone.
func (c Chord) On(root pitch.Name) Chord {
	if c.None {
		return c
	}
	m := c
	m.Bass = root.Up(c.Root.To(c.Bass))
	if m.Bass.Alter < -1 || m.Bass.Alter > 1 {
		m.Bass = m.Bass.Simpler()
	}
	m.Root = root
	m.Tones = make([]Tone, len(c.Tones))
	for i, t := range c.Tones {
		t.Name = root.Up(t.Interval)
		m.Tones[i] = t
	}
	return m
}

// Dominant tells whether the chord has a major third and a flat seventh.
func (c Chord) Dominant() bool { return c.HasDegree("3") && c.HasDegree("b7") }

// Minor tells whether the chord has a minor third.
func (c Chord) Minor() bool { return c.HasDegree("b3") }

// Diminished tells whether the chord has a minor third under a flat fifth and
// is no half-diminished seventh.
func (c Chord) Diminished() bool {
	return c.HasDegree("b3") && c.HasDegree("b5") && !c.HasDegree("b7") && !c.HasDegree("7")
}

// stack builds the chord from what a symbol says.
func (b *build) stack(root pitch.Name) Chord {
	c := Chord{Root: root, Bass: root}
	add := func(d Degree) {
		if c.HasDegree(d) {
			return
		}
		i, _ := d.Interval()
		if d == "6" && b.seventh == "6" {
			i = diminishedSeventh
		}
		c.Tones = append(c.Tones, Tone{d, i, root.Up(i)})
	}
	add("R")
	for _, d := range slices.Concat([]Degree{b.third}, b.fifths, []Degree{b.sixth, b.seventh}, b.extensions) {
		if d != "" {
			add(d)
		}
	}
	slices.SortStableFunc(c.Tones, func(x, y Tone) int { return x.Degree.order() - y.Degree.order() })
	c.suffix = b.print()
	return c
}

// print writes the suffix in the one way that Undaris prints.
func (b *build) print() string {
	altered := func(ds []Degree) []Degree {
		return slices.DeleteFunc(slices.Clone(ds), func(d Degree) bool { return d[0] != 'b' && d[0] != '#' })
	}
	fifths, tail := altered(b.fifths), altered(b.extensions)
	var s string
	switch {
	case b.third == "" && b.sus == "" && !b.noThird:
		return "5"
	case b.third == "b3" && slices.Equal(fifths, []Degree{"b5"}) && b.sixth == "" && (b.seventh == "" || b.seventh == "6"):
		s, fifths = "dim", nil
		if b.seventh == "6" {
			s += cmp.Or(b.top, "7")
		}
	case b.third == "3" && slices.Equal(fifths, []Degree{"#5"}) && b.seventh == "" && b.sixth == "":
		s, fifths = "aug", nil
	default:
		if b.third == "b3" {
			s = "m"
		}
		s += b.number()
	}
	if b.sus != "" {
		s += "sus" + b.sus
	}
	alterations := append(fifths, tail...)
	slices.SortStableFunc(alterations, func(x, y Degree) int { return x.order() - y.order() })
	var text strings.Builder
	for _, d := range alterations {
		text.WriteString(string(d))
	}
	if text.String() == "b5#5b9#9" && s == "7" {
		text.Reset()
		text.WriteString("alt")
	}
	if s == "" && text.Len() > 0 {
		s = "(" + text.String() + ")"
	} else {
		s += text.String()
	}
	for _, d := range b.added() {
		s += "add" + string(d)
	}
	if b.noThird {
		s += "no3"
	}
	if len(b.fifths) == 0 {
		s += "no5"
	}
	return s
}

// number is the part between third and alterations: "7", "maj9", "6/9" …
func (b *build) number() string {
	top := ""
	switch {
	case b.top != "" && b.seventh != "":
		top = b.top
	case b.seventh != "":
		top = "7"
	}
	switch {
	case b.sixth != "" && slices.Contains(b.extensions, "9"):
		return "6/9"
	case b.sixth != "":
		return "6"
	case b.seventh == "7":
		return "maj" + top
	}
	return top
}

// added lists the natural extensions that the number does not bring by itself.
func (b *build) added() []Degree {
	var out []Degree
	for _, d := range b.extensions {
		switch d {
		case "9", "11", "13":
			brought := b.seventh != "" && slices.Contains(b.brings(), d)
			if !brought && (d != "9" || b.sixth == "") && !(b.sus == "2" && d == "9") && !(b.sus == "4" && d == "11") {
				out = append(out, d)
			}
		}
	}
	slices.SortFunc(out, func(x, y Degree) int { return x.order() - y.order() })
	return out
}
