package score

import (
	"cmp"
	"slices"

	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
)

// MaxNotes is how many notes a line holds at most.
const MaxNotes = 4000

// Tick is the number of ticks to the quarter note, which is the beat.
const Tick = 960

// Note is one note of a line. Notes of the same Start sound together.
type Note struct {
	ID            int         // its number, which it keeps through changes; 0 has none yet
	Start, Length int         // ticks; Start counts from the first bar and is negative in a pickup
	Pitch         pitch.Pitch // as it sounds where it is fretted, before any bend
	neck.Placement
	Finger int    // 1 to 4; 0 is open or not said
	Degree string // what it is over its chord, as harmony writes degrees; "" where nothing is to be said
	Named  string // a chord symbol above it, of what it begins; "" is none
	Ornaments
	Guesses
}

// Guesses tell what was not said of a note and chosen for it, where it came from
// a file that does not say it. Once the player has settled it, it is no guess.
type Guesses struct {
	PlaceGuessed  bool // string and fret were found for it
	RhythmGuessed bool // where it begins was moved, or read from the look of the text
	BendGuessed   bool // the bend was rounded to quarter tones
	JoinGuessed   bool // how it is joined to the one before was read from how it sounds
}

// Heard is the MIDI number a note comes to rest on: bent, as far
// as the bend is not let down again. A curl does not count.
func (n Note) Heard() int {
	if n.Release {
		return n.Pitch.MIDI() + n.ReleaseTo/2
	}
	return n.Pitch.MIDI() + n.Bend/2
}

// End is the tick at which the note is over.
func (n Note) End() int { return n.Start + n.Length }

// Score is a line over a progression.
type Score struct {
	Title string
	Key   form.Key
	Tempo int    // quarter notes a minute
	Swing bool   // eighths are written straight and played long–short
	Feel  string // an ID of [form.Feels]; "" where that is not known
	form.Progression
	In    *neck.Instrument
	Notes []Note // by Start, then from the lowest
}

// Bar is the length of a bar in ticks.
func (s Score) Bar() int { return s.Beats * Tick }

// Sort puts notes in order: by onset, then from the lowest.
func Sort(notes []Note) {
	slices.SortStableFunc(notes, func(a, b Note) int {
		return cmp.Or(a.Start-b.Start, a.Pitch.MIDI()-b.Pitch.MIDI(), b.String-a.String)
	})
}

// Numbered gives every note a number of its own; notes that have one keep it.
func Numbered(notes []Note) []Note {
	out := slices.Clone(notes)
	taken := make(map[int]bool, len(out))
	last := 0
	for _, n := range out {
		last = max(last, n.ID)
	}
	for i := range out {
		if out[i].ID == 0 || taken[out[i].ID] {
			last++
			out[i].ID = last
		}
		taken[out[i].ID] = true
	}
	return out
}

// Next is, for notes in order, where the next later note begins; end for the last.
func Next(notes []Note, end int) []int {
	next := make([]int, len(notes))
	for i := len(notes) - 1; i >= 0; i-- {
		switch {
		case i == len(notes)-1:
			next[i] = end
		case notes[i+1].Start > notes[i].Start:
			next[i] = notes[i+1].Start
		default:
			next[i] = next[i+1]
		}
	}
	return next
}

// Check says what of a score cannot be written: a note off the neck, one that is
// not what its place sounds, one outside the bars, or two at once on a string.
func (s Score) Check() error {
	for i, n := range s.Notes {
		where := func() string { return say.F("note %d (%s in bar %d)", i+1, n.Pitch, s.BarOf(n.Start)+1) }
		switch {
		case n.Ornaments.Check() != nil:
			return say.Errorf("%s: %w", where(), n.Ornaments.Check())
		case n.Length <= 0 || n.Length > s.At(form.MaxBars):
			return say.Errorf("%s lasts %d ticks; a note has a length", where(), n.Length)
		case n.Start < -s.MostPickup() || n.Start >= s.End():
			return say.Errorf("%s lies outside the %d bars", where(), len(s.Bars))
		case s.In.CheckPlacement(n.Placement) != nil:
			return say.Errorf("%s: %w", where(), s.In.CheckPlacement(n.Placement))
		case s.In.MIDI(n.Placement) != n.Pitch.MIDI():
			return say.Errorf("%s lies at %d:%d, which sounds otherwise", where(), n.String, n.Fret)
		}
		if i > 0 && s.Notes[i-1].Start == n.Start && s.Notes[i-1].String == n.String {
			return say.Errorf("%s shares its string with another at the same time", where())
		}
	}
	return nil
}

// ChordAt is the chord that sounds at a tick; before the first bar it is that of the pickup. Where there is none, and after the
// last bar, it is the nearest. ok is false in silence.
func (s Score) ChordAt(tick int) (harmony.Chord, bool) {
	if c, ok := s.Progression.Pickup.Chord(floor(tick, Tick)); ok {
		return c, !c.None
	}
	bar := min(max(0, s.BarOf(tick)), len(s.Bars)-1)
	beat := max(0, tick-s.At(bar)) / Tick
	var c harmony.Chord
	for _, change := range s.Bars[bar].Changes {
		if change.Beat <= beat || change.Beat == 0 {
			c = change.Chord
		}
	}
	return c, !c.None
}

// floor divides towards minus infinity.
func floor(a, b int) int {
	q := a / b
	if a%b != 0 && a < 0 {
		q--
	}
	return q
}

// Joined finds the next note on the string of a note, when it begins where the
// note ends or a later note has not come between, so that it can be slid,
// hammered or pulled to.
func (s Score) Joined(i int) (next int, ok bool) {
	for j := i + 1; j < len(s.Notes); j++ {
		if s.Notes[j].String == s.Notes[i].String && s.Notes[j].Start > s.Notes[i].Start {
			return j, true
		}
	}
	return 0, false
}

// Before finds the note that sounded last on the string of a note.
func (s Score) Before(i int) (before Note, ok bool) {
	for j := i - 1; j >= 0; j-- {
		if s.Notes[j].String == s.Notes[i].String && s.Notes[j].Start < s.Notes[i].Start {
			return s.Notes[j], true
		}
	}
	return Note{}, false
}

// After is the next note that does not sound together with one.
func (s Score) After(i int) (next int, ok bool) {
	for j := i + 1; j < len(s.Notes); j++ {
		if s.Notes[j].Start > s.Notes[i].Start {
			return j, true
		}
	}
	return 0, false
}

// Bass tells that the instrument is written in the bass clef.
func (s Score) Bass() bool { return s.In.Bass() }

// Change tells whether a new chord begins at a tick; the first bar counts as one.
func (s Score) Change(tick int) bool {
	if tick < 0 || tick >= s.End() || tick%Tick != 0 {
		return false
	}
	now, sounds := s.ChordAt(tick)
	if !sounds {
		return false
	}
	if tick == 0 {
		return true
	}
	before, _ := s.ChordAt(tick - Tick)
	return before.String() != now.String()
}
