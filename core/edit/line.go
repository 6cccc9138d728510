package edit

import (
	"slices"
	"strings"

	"undaris/core/blend"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// Line is a score with the hand that plays it, the window it is written in and
// the palette it is drawn from.
type Line struct {
	score.Score
	Hand    neck.Hand
	Region  neck.Region
	Palette blend.Palette
	Rule    line.Rule    // what may rest, in writing and in judging; the usual where none is said
	Locked  map[int]bool // bars that are not to be written anew, from 0
	Feel    string       // an ID of form.Feels
	// Exercise is an ID of exercise.Drills, where the line is one.
	Exercise string
	Closing  string   // an ID of line.Closings that it was written with
	Remark   string   // the player's own
	Source   string   // where it is from
	Heard    *Passage // what of a recording it was learned from
	Said     []string // what was found, guessed or left out, in words
}

// Passage is a stretch of a recording, by the recording's number, in seconds.
type Passage struct {
	Recording uint
	From, To  float64
}

// Lock keeps bars, counted from 1, from being written anew.
func (l *Line) Lock(bars []int) {
	l.Locked = map[int]bool{}
	for _, bar := range bars {
		l.Locked[bar-1] = true
	}
}

// LockedBars lists the locked bars, counted from 1.
func (l Line) LockedBars() []int {
	bars := []int{}
	for bar, locked := range l.Locked {
		if locked {
			bars = append(bars, bar+1)
		}
	}
	slices.Sort(bars)
	return bars
}

func (l *Line) say(format string, args ...any) {
	l.Said = append(l.Said, say.F(format, args...))
}

// NameAt names what sounds at a place, over the chord of the moment.
func (l Line) NameAt(tick int, at neck.Placement) (pitch.Pitch, error) {
	if err := l.In.CheckPlacement(at); err != nil {
		return pitch.Pitch{}, err
	}
	midi := l.In.MIDI(at)
	return pitch.At(midi, l.Spell(tick, midi)), nil
}

// Spell names a pitch as a tone of the chord of the moment, else as the key does.
func (l Line) Spell(tick, midi int) pitch.Name {
	if chord, ok := l.ChordAt(tick); ok {
		if t, tone := chord.ToneAt(midi % 12); tone {
			return t.Name
		}
	}
	return l.Key.Spell(midi % 12)
}

// Settle finds places for notes that have none that sounds right, and fingers
// where one lacks or cannot what is asked. What no hand can do where the notes lie is left out, and said.
// A note that the neck does not hold is an error.
func (l *Line) Settle() error {
	lost, fingerless := 0, 0
	for i := range l.Notes {
		n := &l.Notes[i]
		if l.In.CheckPlacement(n.Placement) != nil || l.In.MIDI(n.Placement) != n.Pitch.MIDI() {
			n.Placement, n.Finger = neck.Placement{String: n.String}, 0 // it would rather stay on its string
			lost++
		}
		if n.Finger == 0 && n.Fret > 0 {
			fingerless++
		}
	}
	if lost > 0 {
		if err := l.place(); err != nil {
			return err
		}
		if lost == len(l.Notes) {
			l.say("places on the neck were found for all notes")
		} else {
			l.say("places on the neck were found for %d notes", lost)
		}
	} else if fingerless > 0 || !score.Done(l.In, l.Notes, l.Hand) { // a bend may have come to a finger that does not bend
		score.Finger(l.In, l.Notes, l.Hand)
	}
	for _, says := range l.Undoable() {
		l.say("%s", says)
	}
	return l.Check()
}

// beyond are the notes that lie nowhere on the neck.
func (l Line) beyond() (gone []int) {
	for i, n := range l.Notes {
		if len(l.In.Find(n.Pitch.MIDI(), l.whole())) == 0 {
			gone = append(gone, i)
		}
	}
	return gone
}

func (l Line) whole() neck.Region { return neck.Region{Low: 0, High: l.In.Last()} }

// place finds places for all notes: in the window where they fit, else wherever
// the hand goes least.
func (l *Line) place() error {
	if gone := l.beyond(); len(gone) > 0 {
		n := l.Notes[gone[0]]
		bar := l.BarOf(n.Start) + 1
		return say.Errorf("%d of the notes lie beyond this neck, the first is %s in bar %d; the lowest string is %s and the highest fret %d", len(gone), n.Pitch, bar, l.In.Open[0], l.In.Last())
	}
	prefer := make([]int, len(l.Notes))
	for i, n := range l.Notes {
		prefer[i] = n.String
	}
	if _, _, ok := score.Place(l.In, l.Notes, l.Region, l.Hand, prefer); ok {
		return nil
	}
	if _, _, ok := score.Place(l.In, l.Notes, l.whole(), l.Hand, prefer); ok {
		return nil
	}
	// What no hand can do as asked is done plainly.
	for i := range l.Notes {
		l.Notes[i].Join, l.Notes[i].Scoop = score.Picked, 0
		l.Notes[i].Bend = min(2, l.Notes[i].Bend)
	}
	if _, _, ok := score.Place(l.In, l.Notes, l.whole(), l.Hand, nil); ok {
		l.say("slides, hammer-ons and wide bends were left out: no hand can play them as they stand")
		return nil
	}
	return say.Errorf("no hand can play these notes together on this instrument")
}

// LeaveOut takes the notes away that lie beyond the neck, and says which.
func (l *Line) LeaveOut() {
	gone := l.beyond()
	if len(gone) == 0 {
		return
	}
	var names []string
	for _, i := range gone {
		names = append(names, l.Notes[i].Pitch.String())
	}
	l.say("%d notes lie beyond the neck and were left out: %s", len(gone), strings.Join(slices.Compact(names[:min(len(names), 8)]), ", "))
	at := 0
	l.Notes = slices.DeleteFunc(l.Notes, func(score.Note) bool {
		at++
		return slices.Contains(gone, at-1)
	})
}

// SettleMarked finds places as Settle does, and marks the notes whose place was
// not stated.
func (l *Line) SettleMarked() error {
	type sound struct{ at, midi int }
	stated := map[sound]neck.Placement{}
	for _, n := range l.Notes {
		stated[sound{n.Start, n.Pitch.MIDI()}] = n.Placement
	}
	if err := l.Settle(); err != nil {
		return err
	}
	for i, n := range l.Notes {
		l.Notes[i].PlaceGuessed = stated[sound{n.Start, n.Pitch.MIDI()}] != n.Placement
	}
	return nil
}

// Around is the window of a score's notes: all of them where they lie within
// eight frets, else the position that holds most, or could.
func Around(s score.Score) neck.Region {
	low, high := 99, 0
	for _, n := range s.Notes {
		if n.String > 0 && n.Fret > 0 {
			low, high = min(low, n.Fret), max(high, n.Fret)
		}
	}
	if all := (neck.Region{Low: low, High: max(high, low+3)}); high > 0 && high-low <= 7 && s.In.CheckRegion(all) == nil {
		return all
	}
	best, most := neck.Region{}, -1
	for _, p := range s.In.Positions(s.Key.Tonic.Class()) {
		held := 0
		for _, n := range s.Notes {
			if n.String > 0 && n.Fret >= p.Low && n.Fret <= p.High || n.String == 0 && len(s.In.Find(n.Pitch.MIDI(), p.Region)) > 0 {
				held++
			}
		}
		if held > most {
			best, most = p.Region, held
		}
	}
	return best
}

// Outside counts the fretted notes beyond the window.
func (l Line) Outside() (out int) {
	for _, n := range l.Notes {
		if n.Fret > 0 && !l.Region.Has(n.Placement) {
			out++
		}
	}
	return out
}

// CheckBars says whether a stretch of bars, from 1, is in the line; 0 to 0 is all.
func (l Line) CheckBars(from, to int) error {
	if from == 0 && to == 0 || from >= 1 && to >= from && to <= len(l.Bars) {
		return nil
	}
	return say.Errorf("bars %d to %d; the line has bars 1 to %d", from, to, len(l.Bars))
}
