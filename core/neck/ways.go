package neck

import (
	"slices"

	"undaris/core/pitch"
	"undaris/core/say"
)

// Way is a way to divide the neck along its frets.
type Way struct {
	ID, Name string
	Says     string // what it is good for, in a sentence
	regions  func(in *Instrument, tonic int, scale []int) []Named
}

// Named is a region with what it is called. Places are those of a shape, where it is
// one: what else lies in the region does not belong to it.
type Named struct {
	Name string
	Region
	Places []Placement
}

// Ways lists the ways offered.
var Ways = []Way{
	{"positions", "five positions", "five places of the hand, each holding every chord of the key; together they cover the neck", positions},
	{"windows", "five frets", "five frets from wherever the hand is, one finger a fret and one to reach for", windows},
	{"small-box", "the small box", "the top three strings about the root on string 2, where strings bend well", smallBoxes},
	{"two", "two notes a string", "two notes of the minor pentatonic on each string: the boxes of the blues", perString(2)},
	{"three", "three notes a string", "three notes of the scale on each string, so that every string is picked alike", perString(3)},
	{"four", "four notes a string", "four notes of the scale on each string: the hand shifts on every one, and the neck is crossed slantwise", perString(4)},
	{"whole", "the whole neck", "everything, from the nut to the last fret; best with few strings", wholeNeck},
}

// WayByID finds a way of the table.
func WayByID(id string) (Way, error) {
	i := slices.IndexFunc(Ways, func(w Way) bool { return w.ID == id })
	if i < 0 {
		return Way{}, say.Errorf("there is no way %q to divide the neck", id)
	}
	return Ways[i], nil
}

// Regions are those of a way for a tonic (pitch class 0–11), low to high. scale are the
// pitch classes of a scale, upwards from the tonic; only shapes that have so many notes
// on a string ask for it.
func (w Way) Regions(in *Instrument, tonic int, scale []int) []Named {
	return w.regions(in, tonic, scale)
}

func positions(in *Instrument, tonic int, _ []int) (list []Named) {
	for _, p := range in.Positions(tonic) {
		list = append(list, Named{Name: p.Says(), Region: p.Region})
	}
	return list
}

// span is how many frets a window has.
const span = 5

func windows(in *Instrument, _ int, _ []int) (list []Named) {
	for low := 0; low+span-1 <= in.Last(); low++ {
		r := Region{Low: low, High: low + span - 1}
		list = append(list, Named{Name: r.Says(), Region: r})
	}
	return list
}

func wholeNeck(in *Instrument, _ int, _ []int) []Named {
	return []Named{{Name: "the whole neck", Region: Region{Low: 0, High: in.Last()}}}
}

// smallBoxes are those of every octave: from a fret below the root on string 2 to three
// above it.
func smallBoxes(in *Instrument, tonic int, _ []int) (list []Named) {
	for root := pitch.Class(tonic - in.MIDI(Placement{String: 2})); root <= in.Last(); root += 12 {
		r := Region{Low: root - 1, High: root + 3, Strings: StringsOf(1, 2, 3)}
		if in.CheckRegion(r) == nil {
			list = append(list, Named{Name: say.F("the small box, root at fret %d", root), Region: r})
		}
	}
	return list
}

// SmallBox is the first of the small boxes of a tonic (pitch class) whose root lies at
// the fifth fret or higher, where strings bend well.
func (in *Instrument) SmallBox(tonic int) (r Region, ok bool) {
	for _, n := range smallBoxes(in, tonic, nil) {
		if n.Low >= 4 {
			return n.Region, true
		}
	}
	return r, false
}

// perString makes the shapes that have so many notes of a scale on each string: one
// from each step of the scale on the lowest string, as low as it fits.
func perString(count int) func(in *Instrument, tonic int, scale []int) []Named {
	return func(in *Instrument, _ int, scale []int) (list []Named) {
		for step, class := range scale {
			for fret := pitch.Class(class - in.MIDI(Placement{String: in.Strings()})); fret <= in.Last(); fret += 12 {
				if shape, ok := in.perString(scale, fret, count); ok {
					shape.Name = say.F("from step %d", step+1)
					list = append(list, shape)
					break
				}
			}
		}
		slices.SortStableFunc(list, func(a, b Named) int { return a.Low - b.Low })
		return list
	}
}

// perString climbs a scale from a fret of the lowest string, count notes on each.
func (in *Instrument) perString(scale []int, fret, count int) (n Named, ok bool) {
	n.Low, n.High = fret, fret
	midi := in.MIDI(Placement{String: in.Strings(), Fret: fret})
	for str := in.Strings(); str >= 1; str-- {
		for range count {
			p := Placement{str, midi - in.MIDI(Placement{String: str})}
			if p.Fret < 0 || p.Fret > in.Last() {
				return n, false
			}
			n.Places = append(n.Places, p)
			n.Low, n.High = min(n.Low, p.Fret), max(n.High, p.Fret)
			for midi++; !slices.Contains(scale, midi%12); midi++ {
			}
		}
	}
	return n, true
}

// Unisons are the other places in a shape's region of the pitches that it has.
func (in *Instrument) Unisons(n Named) (list []Placement) {
	for _, p := range n.Places {
		for _, other := range in.Find(in.MIDI(p), n.Region) {
			if other != p && !slices.Contains(n.Places, other) {
				list = append(list, other)
			}
		}
	}
	return list
}

// StringSet is a choice of strings.
type StringSet struct {
	Strings
	Says string
}

// StringSets lists sets of strings to practise on, for an instrument of so many: all,
// neighbours, sets with gaps, and each alone.
func StringSets(count int) (list []StringSet) {
	list = append(list, StringSet{0, "all strings"})
	add := func(says string, strs ...int) {
		if s := StringsOf(strs...); slices.Max(strs) <= count && s.Count() < count && !slices.ContainsFunc(list, func(o StringSet) bool { return o.Strings == s }) {
			list = append(list, StringSet{s, says})
		}
	}
	for high := 1; high+2 <= count; high++ {
		add("three neighbours: triads lie here", high, high+1, high+2)
	}
	for high := 1; high+1 <= count; high++ {
		add("two neighbours: double stops lie here", high, high+1)
	}
	add("a low voice and a high one", 2, 5)
	add("a low voice and a high one", 1, 4)
	add("every other string", 2, 4, 6)
	add("every other string", 1, 3, 5)
	for s := 1; s <= count; s++ {
		add("one string from end to end: distances are seen", s)
	}
	return list
}
