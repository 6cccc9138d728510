package harmony

import (
	"slices"
	"strings"

	"undaris/core/pitch"
)

// scaleOf are the scales over the kinds of chords, in the order in which the
// kinds are asked for: the usual practice of chord scales. A tone that the chord
// has itself stands in place of the scale's on its letter.
var scaleOf = []struct {
	fits  func(Chord) bool
	steps string
}{
	{Chord.Diminished, "R 9 b3 11 b5 b13 6 7"}, // whole and half steps in turn: eight
	{func(c Chord) bool { return c.Minor() && c.HasDegree("b5") }, "R 9 b3 11 b5 b13 b7"},
	{func(c Chord) bool { return c.Minor() && c.HasDegree("7") }, "R 9 b3 11 5 13 7"}, // melodic minor
	{Chord.Minor, "R 9 b3 11 5 13 b7"},                                                // Dorian
	{altered, "R b9 #9 3 b5 #5 b7"},
	{func(c Chord) bool { return c.Dominant() && c.HasDegree("b9") && !c.HasDegree("13") }, "R b9 3 11 5 b13 b7"},
	{Chord.Dominant, "R 9 3 11 5 13 b7"}, // Mixolydian
	{func(c Chord) bool { return c.HasDegree("3") && c.HasDegree("#5") }, "R 9 3 #11 #5 13 7"},
	{func(c Chord) bool { return c.HasDegree("3") }, "R 9 3 11 5 13 7"}, // major
	{func(Chord) bool { return true }, "R 9 3 11 5 13 b7"},              // suspended and fifths alone
}

// altered tells that a dominant chord has ninths or fifths altered both ways, so
// that nothing natural is left but root, third and seventh.
func altered(c Chord) bool {
	ninth := c.HasDegree("b9") || c.HasDegree("#9")
	fifth := c.HasDegree("#5") || c.HasDegree("b13") || c.HasDegree("b5")
	return c.Dominant() && !c.HasDegree("5") && ninth && (fifth || c.HasDegree("b9") && c.HasDegree("#9"))
}

// Scale is the chord's scale, from the root upwards: seven notes, or eight over a
// diminished chord. It holds every tone of the chord.
func (c Chord) Scale() []Tone {
	if c.None {
		return nil
	}
	i := slices.IndexFunc(scaleOf, func(s struct {
		fits  func(Chord) bool
		steps string
	}) bool {
		return s.fits(c)
	})
	var out []Tone
	for _, d := range strings.Fields(scaleOf[i].steps) {
		step, _ := Degree(d).Interval()
		out = append(out, Tone{Degree: Degree(d), Interval: step, Name: simple(c.Root.Up(step))})
	}
	for _, t := range c.Tones {
		same := slices.IndexFunc(out, func(s Tone) bool { return s.Interval.HalfSteps == t.Interval.HalfSteps })
		if same < 0 {
			same = slices.IndexFunc(out, func(s Tone) bool { return s.Interval.Letters == t.Interval.Letters && !c.tone(s) })
		}
		if same < 0 {
			out = append(out, t)
			continue
		}
		out[same] = t
	}
	slices.SortStableFunc(out, func(a, b Tone) int { return a.Interval.HalfSteps - b.Interval.HalfSteps })
	return out
}

// tone tells that a step of a scale sounds in the chord.
func (c Chord) tone(s Tone) bool {
	return slices.ContainsFunc(c.Tones, func(t Tone) bool { return t.Interval.HalfSteps == s.Interval.HalfSteps })
}

func simple(n pitch.Name) pitch.Name {
	if n.Alter < -1 || n.Alter > 1 {
		return n.Simpler()
	}
	return n
}
