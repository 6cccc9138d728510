package neck

import (
	"math/bits"
	"strconv"
	"strings"

	"undaris/core/say"
)

// Strings is a set of strings, the first bit for string 1, the highest. None at all
// stands for every string that an instrument has.
type Strings uint8

// StringsOf is the set of some strings.
func StringsOf(list ...int) (s Strings) {
	for _, str := range list {
		s |= 1 << (str - 1)
	}
	return s
}

// ParseStrings reads numbers such as "5,2", or neighbours such as "1-3"; an empty text
// is every string.
func ParseStrings(text string) (s Strings, err error) {
	for _, f := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' }) {
		from, to, neighbours := strings.Cut(f, "-")
		high, err := strconv.Atoi(from)
		low := high
		if neighbours && err == nil {
			low, err = strconv.Atoi(to)
		}
		if err != nil || high < 1 || low < high || low > MaxStrings {
			return 0, say.Errorf("%q is no string; write numbers from 1, the highest, such as 5,2 or 1-3", f)
		}
		for n := high; n <= low; n++ {
			s |= StringsOf(n)
		}
	}
	return s, nil
}

// Has tells whether a string is in the set.
func (s Strings) Has(str int) bool { return s == 0 || str >= 1 && s&(1<<(str-1)) != 0 }

// List are the strings of a set, the lowest first; of every string none are listed.
func (s Strings) List() (list []int) {
	for str := MaxStrings; s != 0 && str >= 1; str-- {
		if s.Has(str) {
			list = append(list, str)
		}
	}
	return list
}

// String writes a set as [ParseStrings] reads it.
func (s Strings) String() string {
	var out []string
	for _, str := range s.List() {
		out = append(out, strconv.Itoa(str))
	}
	return strings.Join(out, ",")
}

// Says tells a set in words: "strings 5 and 2"; of every string it says nothing.
func (s Strings) Says() string {
	list := s.List()
	switch n := len(list); {
	case n == 0:
		return ""
	case n == 1:
		return say.F("string %d", list[0])
	case n > 2 && list[0]-list[n-1] == n-1:
		return say.F("strings %d to %d", list[n-1], list[0])
	}
	var out []string
	for _, str := range list {
		out = append(out, strconv.Itoa(str))
	}
	return "strings " + say.List(out, "and")
}

// Region is a place on the neck: a range of frets, both ends included, on a set of
// strings.
type Region struct {
	Low, High int
	Strings   Strings
}

// Has tells whether a placement lies in the region.
func (r Region) Has(p Placement) bool {
	return p.Fret >= r.Low && p.Fret <= r.High && r.Strings.Has(p.String)
}

// Says tells a region in words: "frets 5 to 9 on strings 5 and 2".
func (r Region) Says() string {
	text := say.F("frets %d to %d", r.Low, r.High)
	if r.Low == r.High {
		text = say.F("fret %d", r.Low)
	}
	if r.Strings != 0 {
		text += " on " + r.Strings.Says()
	}
	return text
}

// CheckRegion says whether the region lies on the neck; where it does not, it tells
// the nearest that does.
func (in *Instrument) CheckRegion(r Region) error {
	if near := in.Nearest(r); near != r {
		return say.Errorf("%s is not on this neck, which has strings 1 to %d and frets 0 to %d; the nearest is %s", r.Says(), in.Strings(), in.Last(), near.Says())
	}
	return nil
}

// Nearest is the region on this neck that is nearest to one: as many frets, moved as
// little as can be, and those of its strings that are there; all where none is.
func (in *Instrument) Nearest(r Region) Region {
	if r.High < r.Low {
		r.Low, r.High = r.High, r.Low
	}
	if width := min(r.High-r.Low, in.Last()); r.Low < 0 {
		r.Low, r.High = 0, width
	} else if r.High > in.Last() {
		r.Low, r.High = in.Last()-width, in.Last()
	}
	r.Strings &= 1<<in.Strings() - 1
	return r
}

// On lists the strings of this instrument that are in a set, string 1 first.
func (in *Instrument) On(s Strings) (list []int) {
	for str := 1; str <= in.Strings(); str++ {
		if s.Has(str) {
			list = append(list, str)
		}
	}
	return list
}

// On is the region on those of its strings that are in a set. It is an error where
// none is.
func (r Region) On(s Strings) (Region, error) {
	if s == 0 || r.Strings == 0 {
		r.Strings |= s
		return r, nil
	}
	if r.Strings&s == 0 {
		return r, say.Errorf("%s and %s have none in common", r.Strings.Says(), s.Says())
	}
	r.Strings &= s
	return r, nil
}

// Count is how many strings are in the set; of every string, 0.
func (s Strings) Count() int { return bits.OnesCount8(uint8(s)) }
