package midi

import (
	"cmp"
	"slices"
	"strings"

	"undaris/core/band"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// melody is what can be read as a line: a track, or the tracks that are a guitar of which each
// string has a channel.
type melody struct {
	name   string
	tracks []int // in the order of their channels
	first  int   // the string of the lowest channel; 0 where the tracks are no strings
}

// note is a note of a melody, with the string its channel stands for; 0 is none.
type note struct {
	band.Note
	string int
}

func (f File) size(m melody) (n int) {
	for _, i := range m.tracks {
		n += len(f.Tracks[i].Notes)
	}
	return n
}

// melodies are the tracks that have notes and are no drums, those of a guitar's strings joined,
// and which of them is the line: the one that is called lead, else the one with most notes.
func (f File) melodies(in *neck.Instrument) (list []melody, usual int) {
	joined := map[int]bool{}
	for i, t := range f.Tracks {
		if t.Channel == 9 || len(t.Notes) == 0 || joined[i] {
			continue
		}
		m := melody{name: t.Name, tracks: []int{i}}
		if g, ok := f.guitar(i, in); ok {
			for _, j := range g.tracks {
				joined[j] = true
			}
			m = g
		}
		list = append(list, m)
	}
	rank := func(m melody) (r int) {
		if strings.Contains(strings.ToLower(m.name), "lead") {
			r += 2
		}
		if f.sings(m) {
			r++
		}
		return r
	}
	for i, m := range list {
		if was := list[usual]; rank(m) > rank(was) || rank(m) == rank(was) && f.size(m) > f.size(was) {
			usual = i
		}
	}
	return list, usual
}

// sings tells that a part is a voice and not chords: fewer than a quarter of its notes begin with two others.
func (f File) sings(m melody) bool {
	notes := f.played(m)
	stacked := 0
	for i := 2; i < len(notes); i++ {
		if notes[i].Start-notes[i-2].Start <= f.Ticks/32 {
			stacked++
		}
	}
	return len(m.tracks) > 1 || 4*stacked < len(notes)
}

// Channels on which guitars send the string that sounds highest: the first, or the eleventh.
var highest = []int{0, 10}

// channels are how many a file has: the strings of a guitar lie within as many tracks.
const channels = 16

// fewest is how many strings have to sound on channels of their own to be taken for a guitar.
const fewest = 3

// guitar joins a track with those after it that have its name and its instrument, where each
// lies on a channel of its own, has one note at a time, and fits a string of an instrument.
func (f File) guitar(from int, in *neck.Instrument) (melody, bool) {
	t := f.Tracks[from]
	m := melody{name: t.Name}
	low, high := 16, -1
	if t.Name == "" && f.chunks > 1 {
		return m, false
	}
	for i, o := range f.Tracks[from:min(from+channels, len(f.Tracks))] {
		switch {
		case o.Name != t.Name || o.Program != t.Program || o.Channel == 9 || len(o.Notes) == 0:
			continue
		case o.Channel >= low && o.Channel <= high && slices.ContainsFunc(m.tracks, func(j int) bool { return f.Tracks[j].Channel == o.Channel }):
			return m, false
		case slices.ContainsFunc(pairs(o.Notes), func(p [2]band.Note) bool { return p[1].Start < p[0].Start+p[0].Length }):
			return m, false
		}
		low, high = min(low, o.Channel), max(high, o.Channel)
		m.tracks = append(m.tracks, from+i)
	}
	if len(m.tracks) < fewest || in == nil || high-low >= in.Strings() {
		return m, false
	}
	slices.SortFunc(m.tracks, func(a, b int) int { return f.Tracks[a].Channel - f.Tracks[b].Channel })
	for _, base := range append(slices.Clone(highest), low) {
		if m.first = low - base + 1; m.first >= 1 && high-base < in.Strings() && !slices.ContainsFunc(f.played(m), func(n note) bool {
			_, ok := n.place(in)
			return !ok
		}) {
			return m, true
		}
	}
	return m, false
}

// pairs are the notes of a track, each with the next.
func pairs(notes []band.Note) (out [][2]band.Note) {
	sorted := slices.SortedStableFunc(slices.Values(notes), func(a, b band.Note) int { return a.Start - b.Start })
	for i := 1; i < len(sorted); i++ {
		out = append(out, [2]band.Note{sorted[i-1], sorted[i]})
	}
	return out
}

// place is where a note lies on its string.
func (n note) place(in *neck.Instrument) (neck.Placement, bool) {
	p := neck.Placement{String: n.string}
	if n.string < 1 || n.string > in.Strings() {
		return p, false
	}
	p.Fret = n.MIDI - in.MIDI(p)
	return p, in.CheckPlacement(p) == nil
}

// notes are those of a melody in time.
func (f File) played(m melody) (out []note) {
	for _, i := range m.tracks {
		str := 0
		if m.first > 0 {
			str = m.first + f.Tracks[i].Channel - f.Tracks[m.tracks[0]].Channel
		}
		for _, n := range f.Tracks[i].Notes {
			out = append(out, note{n, str})
		}
	}
	slices.SortStableFunc(out, func(a, b note) int { return cmp.Or(a.Start-b.Start, a.MIDI-b.MIDI) })
	return out
}

// Of a note that is not picked: it sounds at most so loud beside the one before, in hundredths,
// begins where that ends, but for so small a part of a beat, and lies so many half steps away.
const (
	softer    = 85
	apart     = score.Tick / 12
	hammerMax = 3
	slideMax  = 5
)

// joined reads from how a note sounds after the one before it whether it was hammered, pulled
// off or slid to: softly, without a gap. It is a guess.
func (f File) joined(before, n note) score.Join {
	up := n.MIDI - before.MIDI
	gap := (n.Start - before.Start - before.Length) * score.Tick / f.Ticks
	switch {
	case n.Start <= before.Start || gap > apart, n.Velocity == 0 || n.Velocity*100 > before.Velocity*softer,
		len(n.Bends) > 0 || len(before.Bends) > 0, n.string != before.string:
		return score.Picked
	case up > 0 && up <= hammerMax:
		return score.Hammer
	case up < 0 && up >= -hammerMax:
		return score.PullOff
	case up != 0 && up <= slideMax && up >= -slideMax:
		return score.Slide
	}
	return score.Picked
}

// slid reads from the wheel from how many frets away a note is slid into: what it is pushed at
// its beginning and comes to rest from, within an eighth. It is a guess.
func (f File) slid(n note) int {
	if len(n.Bends) < 2 || n.Bends[0].At != 0 {
		return 0
	}
	off := n.Bends[0].Cents
	for _, b := range n.Bends[1:] {
		if b.At*score.Tick/f.Ticks > score.Tick/2 || max(b.Cents, -b.Cents) > max(off, -off) {
			return 0
		}
		if max(b.Cents, -b.Cents) < 25 {
			frets := (max(off, -off) + 50) / 100
			if off > 0 {
				frets = -frets
			}
			return max(-5, min(5, frets))
		}
	}
	return 0
}

// told is what is said of a melody as it is read.
func (m melody) told(tracks int) (said []string) {
	if m.first > 0 {
		return []string{say.F("%d channels of %q were read as the strings of one guitar", len(m.tracks), m.name)}
	}
	if tracks > 1 {
		return []string{say.F("%d tracks; %q was read as the line", tracks, m.name)}
	}
	return nil
}
