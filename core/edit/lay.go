package edit

import (
	"strings"

	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// Laid says what laying a line on another instrument does to it.
type Laid struct {
	Moved   int // notes that take another place
	Octaves int // notes that sound an octave or more away, since the neck does not reach them
	Plain   bool
}

// Says tells it in a sentence.
func (d Laid) Says() string {
	var parts []string
	if d.Moved > 0 {
		parts = append(parts, say.F("%d notes take another place on the neck", d.Moved))
	}
	if d.Octaves > 0 {
		parts = append(parts, say.F("%d change their octave, since the neck does not reach them", d.Octaves))
	}
	if d.Plain {
		parts = append(parts, "slides, hammer-ons and wide bends become plain notes, since no hand can play them there")
	}
	if len(parts) == 0 {
		return "every note keeps its place"
	}
	return strings.Join(parts, "; ") + "; none is left out"
}

// Lay takes a line to another instrument. Notes that the neck does not reach go
// up or down by octaves; none is left out. It is an error when no hand can play
// the notes together there.
func Lay(l Line, in *neck.Instrument, hand neck.Hand) (Line, Laid, error) {
	var done Laid
	before := l.Notes
	out := l
	out.In, out.Hand, out.Said = in, hand, nil
	out.Notes = append([]score.Note(nil), l.Notes...)
	low, high := in.MIDI(neck.Placement{String: in.Strings()}), in.MIDI(neck.Placement{String: 1, Fret: in.Last()})
	for i := range out.Notes {
		n := &out.Notes[i]
		midi := n.Pitch.MIDI()
		for midi < low {
			midi += 12
		}
		for midi > high {
			midi -= 12
		}
		if midi != n.Pitch.MIDI() {
			n.Pitch.Octave += (midi - n.Pitch.MIDI()) / 12
			done.Octaves++
		}
		if n.String > in.Strings() {
			n.String = 0
		}
	}
	if in.CheckRegion(out.Region) != nil {
		out.Region = Around(out.Score)
	}
	joins := joined(out.Notes)
	score.Sort(out.Notes)
	if err := out.Settle(); err != nil {
		return l, done, say.Errorf("it cannot be laid on this instrument: %w", err)
	}
	out.Region = Around(out.Score)
	done.Plain = joined(out.Notes) < joins
	placed := map[[2]int]neck.Placement{}
	for i, n := range before {
		placed[[2]int{n.ID, n.Start}] = before[i].Placement
	}
	for _, n := range out.Notes {
		if was, ok := placed[[2]int{n.ID, n.Start}]; !ok || was != n.Placement {
			done.Moved++
		}
	}
	lick.Label(out.Score)
	return out, done, nil
}

// joined counts what is slid, hammered, pulled, scooped or bent wide.
func joined(notes []score.Note) (n int) {
	for _, x := range notes {
		if x.Join != score.Picked || x.Scoop != 0 || x.Bend > 2 {
			n++
		}
	}
	return n
}
