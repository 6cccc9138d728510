package harmony

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"undaris/core/pitch"
)

// SymbolError says why a chord symbol was refused.
type SymbolError struct {
	Text    string
	Pos     int    // where reading stopped, in characters from 0
	Nearest string // the nearest symbol that can be read; empty where none has the third and seventh that were meant
}

func (e *SymbolError) Error() string {
	if e.Text == "" {
		return "a chord symbol is missing; write one such as C7"
	}
	rest := string([]rune(e.Text)[e.Pos:])
	says := fmt.Sprintf("cannot read %q in %q (character %d)", rest, e.Text, e.Pos+1)
	if rest == "" {
		says = fmt.Sprintf("%q ends too early", e.Text)
	}
	if e.Nearest == "" {
		return says
	}
	return says + "; did you mean " + e.Nearest + "?"
}

// build is what a symbol has said so far.
type build struct {
	third, sixth, seventh Degree
	fifths                []Degree
	extensions            []Degree
	top                   string // "9", "11" or "13" when written as the chord's number
	sus                   string // "2", "4"
	noThird, major        bool   // major: a maj sign was read, a coming 7 is major
	fixed                 bool   // a diminished chord: its third and fifth stay
}

// qualities are the signs that may follow the root, longest first where one
// begins another.
var qualities = []struct {
	text  string
	apply func(*build)
}{
	{"major", (*build).maj}, {"Major", (*build).maj}, {"maj", (*build).maj}, {"Maj", (*build).maj},
	{"MAJ", (*build).maj}, {"ma", (*build).maj}, {"Ma", (*build).maj}, {"MA", (*build).maj},
	{"^", (*build).delta}, {"Δ", (*build).delta}, {"△", (*build).delta},
	{"minor", (*build).min}, {"min", (*build).min}, {"Min", (*build).min}, {"MIN", (*build).min},
	{"mi", (*build).min}, {"Mi", (*build).min}, {"MI", (*build).min}, {"m", (*build).min},
	{"M", (*build).maj}, {"-", (*build).min}, {"−", (*build).min},
	{"dim", (*build).dim}, {"Dim", (*build).dim}, {"°", (*build).dim}, {"º", (*build).dim}, {"o", (*build).dim},
	{"aug", (*build).aug}, {"Aug", (*build).aug}, {"+", (*build).aug},
	{"h", (*build).half}, {"ø", (*build).half}, {"Ø", (*build).half},
	{"dom", func(*build) {}},
}

func (b *build) maj()   { b.major = true }
func (b *build) delta() { b.major, b.seventh = true, "7" }
func (b *build) min()   { b.third = "b3" }
func (b *build) dim()   { b.third, b.fifths, b.fixed = "b3", []Degree{"b5"}, true }
func (b *build) aug()   { b.fifths = []Degree{"#5"} }
func (b *build) half()  { b.third, b.fifths, b.seventh = "b3", []Degree{"b5"}, "b7" }

// Parse reads a chord symbol. Flats may be b or ♭, sharps # or ♯; see the table
// of symbols in the package tests. Anything else is a *[SymbolError].
func Parse(text string) (Chord, error) {
	switch text {
	case "N.C.", "N.C", "NC", "n.c.":
		return Chord{None: true}, nil
	}
	c, pos := read(text)
	if pos < 0 {
		return c, nil
	}
	return Chord{}, &SymbolError{text, utf8.RuneCountInString(text[:pos]), nearest(text)}
}

// MustParse is Parse for symbols known to be good; it panics on others.
func MustParse(text string) Chord {
	c, err := Parse(text)
	if err != nil {
		panic(err)
	}
	return c
}

// reader walks one symbol from left to right.
type reader struct {
	text string
	pos  int
	b    build
}

// read returns the chord and −1, or the byte where reading stopped.
func read(text string) (Chord, int) {
	root, size, ok := pitch.ReadName(text)
	if !ok {
		return Chord{}, 0
	}
	if root.Alter < -1 || root.Alter > 1 {
		return Chord{}, 1
	}
	r := &reader{text: text, pos: size, b: build{third: "3", fifths: []Degree{"5"}}}
	for _, q := range qualities {
		if q.text == "ma" && strings.HasPrefix(r.text[r.pos:], "madd") {
			continue // a minor chord with an added tone
		}
		if q.text == "o" && strings.HasPrefix(r.text[r.pos:], "omit") {
			break
		}
		if (q.text == "-" || q.text == "−") && strings.HasPrefix(r.text[r.pos:], q.text+"5") {
			break // the fifth is flat, not the third
		}
		if r.take(q.text) {
			q.apply(&r.b)
			if q.text == "+" {
				r.take("5") // which it means anyway
			}
			break
		}
	}
	if r.b.third == "b3" && len(r.b.fifths) == 1 && r.b.fifths[0] == "5" {
		r.majorSeventhOverMinor()
	}
	r.number()
	power := r.b.third == ""
	if !power && !r.modifiers() {
		return Chord{}, r.pos
	}
	c := r.b.stack(root)
	if r.take("/") {
		bass, n, ok := pitch.ReadName(r.text[r.pos:])
		if !ok || bass.Alter < -1 || bass.Alter > 1 || r.pos+n != len(r.text) {
			return Chord{}, r.pos
		}
		c.Bass, r.pos = bass, r.pos+n
	}
	if r.pos != len(text) {
		return Chord{}, r.pos
	}
	return c, -1
}

func (r *reader) take(s string) bool {
	if strings.HasPrefix(r.text[r.pos:], s) {
		r.pos += len(s)
		return true
	}
	return false
}

func (r *reader) takeAny(ss ...string) string {
	for _, s := range ss {
		if r.take(s) {
			return s
		}
	}
	return ""
}

func (r *reader) majorSeventhOverMinor() {
	switch r.takeAny("major", "maj", "Maj", "MAJ", "ma", "Ma", "MA", "M", "Δ", "△") {
	case "":
	case "Δ", "△":
		r.b.delta()
	default:
		r.b.maj()
	}
}

// number reads 5, 6, 6/9, 7, 9, 11, 13.
func (r *reader) number() {
	b := &r.b
	plain := b.third == "3" && !b.major
	n := r.takeAny("6/9", "69", "13", "11", "9", "7", "6", "5", "2", "4")
	switch n {
	case "":
	case "2", "4":
		if !plain || b.fifths[0] != "5" {
			r.pos--
			return
		}
		b.suspend(n)
	case "5":
		if plain && b.fifths[0] == "5" {
			b.third = ""
		} else {
			r.pos--
		}
	case "6":
		b.sixth, b.seventh = "6", ""
	case "6/9", "69":
		b.sixth, b.seventh, b.extensions = "6", "", []Degree{"9"}
	default:
		b.setSeventh()
		if n != "7" {
			b.top = n
			b.extensions = b.brings()
		}
	}
}

// setSeventh gives the chord the seventh that a bare 7 means on it.
func (b *build) setSeventh() {
	switch {
	case b.seventh != "":
	case b.major:
		b.seventh = "7"
	case b.third == "b3" && b.fifths[0] == "b5":
		b.seventh = "6" // diminished seventh
	default:
		b.seventh = "b7"
	}
}

// brings lists the extensions that the number 9, 11 or 13 stands for. The
// eleventh is left out of a thirteenth with a major third, which it would rub.
func (b *build) brings() []Degree {
	switch {
	case b.top == "9":
		return []Degree{"9"}
	case b.top == "11":
		return []Degree{"9", "11"}
	case b.top == "13" && b.third == "b3":
		return []Degree{"9", "11", "13"}
	case b.top == "13":
		return []Degree{"9", "13"}
	}
	return nil
}

// modifiers reads sus, add, no and alterations, with or without brackets.
// It stops before a slash or the end; false means it met something else.
func (r *reader) modifiers() bool {
	open := false
	for r.pos < len(r.text) {
		switch {
		case r.take("("):
			if open {
				r.pos--
				return false
			}
			open = true
		case r.take(")"):
			if !open {
				r.pos--
				return false
			}
			open = false
		case open && r.takeAny(",", " ", "/") != "":
		case !open && r.text[r.pos] == ' ' && strings.Trim(r.text[r.pos:], " ") != "":
			r.pos++ // a sign written apart
		case open && r.bracketed():
		case r.text[r.pos] == '/' && !open:
			return true
		default:
			if !r.modifier() {
				return false
			}
		}
	}
	return !open
}

// bracketed reads a bare number in brackets, which adds that tone: C7(13).
func (r *reader) bracketed() bool {
	start := r.pos
	n := r.takeAny("13", "11", "9", "6", "4", "2")
	return n != "" && r.alter("", n, start)
}

// suspend puts a second or fourth in the third's place.
func (b *build) suspend(n string) {
	b.third, b.sus = "", n
	b.extend(map[string]Degree{"2": "9", "4": "11"}[n])
}

func (r *reader) modifier() bool {
	b, start := &r.b, r.pos
	switch sign := r.takeAny("sus", "add", "alt", "no", "omit", "major", "maj", "Maj", "MAJ", "ma", "Ma", "MA", "M", "Δ", "△"); sign {
	case "":
	case "sus":
		n := r.takeAny("2", "4")
		switch {
		case b.sus == "2" && n == "4": // both
			b.extend("11")
		case b.third != "3" || b.sus != "":
			return r.backTo(start)
		case n == "":
			b.suspend("4")
		default:
			b.suspend(n)
		}
		return true
	case "add":
		accidental := r.takeAny("b", "♭", "#", "♯")
		n := r.takeAny("13", "11", "9", "2", "4", "6")
		if n == "" || (n == "6" && accidental == "" && b.seventh == "6") {
			return r.backTo(start)
		}
		return r.alter(accidental, n, start)
	case "alt":
		if b.third != "3" || b.major {
			return r.backTo(start)
		}
		b.seventh, b.fifths = "b7", []Degree{"b5", "#5"}
		b.extend("b9")
		b.extend("#9")
		return true
	case "no", "omit":
		n := r.takeAny("3", "5")
		switch {
		case n == "" || b.fixed:
			return r.backTo(start)
		case n == "3":
			b.third, b.noThird = "", true
		default:
			b.fifths = nil
		}
		return true
	default: // a major seventh, and what a number above it brings
		n := r.takeAny("13", "11", "9", "7")
		if b.seventh != "" || b.sixth != "" || n == "" && sign != "Δ" && sign != "△" {
			return r.backTo(start)
		}
		b.seventh, b.top = "7", n
		for _, d := range b.brings() {
			b.extend(d)
		}
		return true
	}
	accidental := r.takeAny("b", "♭", "#", "♯", "+", "-", "−")
	if accidental == "" {
		return false
	}
	n := r.takeAny("13", "11", "9", "6", "5")
	if n == "" && accidental == "+" {
		n = "5"
	}
	return n != "" && r.alter(accidental, n, start) || r.backTo(start)
}

func (r *reader) backTo(pos int) bool {
	r.pos = pos
	return false
}

// alter applies a degree number 2–13 with an accidental to the chord.
func (r *reader) alter(accidental, n string, start int) bool {
	b := &r.b
	sign := map[string]string{"": "", "b": "b", "♭": "b", "-": "b", "−": "b", "#": "#", "♯": "#", "+": "#"}[accidental]
	d := Degree(sign + map[string]string{"2": "9", "4": "11", "6": "13"}[n])
	if len(n) > 1 || n == "9" || n == "5" {
		d = Degree(sign + n)
	}
	if n == "6" && sign == "" && b.seventh == "" {
		b.sixth = "6"
		return true
	}
	if _, known := d.Interval(); !known || (n == "5" && b.fixed) {
		return r.backTo(start)
	}
	switch d {
	case "b5", "#5":
		b.fifths = slices.DeleteFunc(b.fifths, func(f Degree) bool { return f == "5" || f == d })
		b.fifths = append(b.fifths, d)
		slices.Sort(b.fifths)
		slices.Reverse(b.fifths) // b5 before #5
	default:
		b.extend(d)
	}
	return true
}

// extend adds an extension; an altered one takes the natural one's place.
func (b *build) extend(d Degree) {
	natural := Degree(strings.TrimLeft(string(d), "b#"))
	if natural != d {
		b.extensions = slices.DeleteFunc(b.extensions, func(e Degree) bool { return e == natural })
	}
	if !slices.Contains(b.extensions, d) {
		b.extensions = append(b.extensions, d)
	}
}
