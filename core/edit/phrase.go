package edit

import (
	"context"
	"slices"

	"undaris/core/exercise"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/line"
	"undaris/core/neck"
	"undaris/core/say"
	"undaris/core/score"
)

// Write has the core write bars of the line; locked bars stay. What is written
// is no exercise any more, and an ending closes on its own chord.
func (l *Line) Write(ctx context.Context, w line.Wish) (err error) {
	w.Region, w.Palette, w.Rule, w.Locked = l.Region, l.Palette, l.Rule, l.Locked
	l.Exercise = ""
	chords, said := w.Closed(l.Score)
	l.Progression = chords
	if l.Notes, err = line.Write(ctx, l.Score, w, l.Hand); err != nil {
		return err
	}
	if w.To == 0 || w.To == len(l.Bars) {
		l.Closing = ""
		if w.Closes(l.Score) {
			l.Closing = w.Closing
		}
	}
	if l.Said = append(l.Said, w.GaveWay(l.Score)...); said != "" {
		l.Said = append(l.Said, said)
	}
	return nil
}

// Reaim turns the line towards its chords; see [lick.Reaim].
func (l *Line) Reaim(ctx context.Context, amount float64, bendsOnly bool) ([]lick.Turn, error) {
	l.Notes = score.Numbered(l.Notes)
	notes, turns, said, err := lick.Reaim(ctx, l.Score, amount, bendsOnly, l.Region, l.Hand)
	if err != nil {
		return nil, err
	}
	before := l.Notes
	l.Notes, l.Said = notes, append(l.Said, said...)
	l.RespellNew(before)
	return turns, nil
}

// Sending is how a lick goes through the changes: with Land each version ends on the next change, on one of the tones wanted
// most; with Shape the same shape goes along the neck, from where the lick was written if that is on this one.
type Sending struct {
	Land, Follow, Shape bool
	Wanted              harmony.Order
	Home                lick.Home
}

// Through sends a lick through the changes, in place of what stood there, and says how far the hand goes that way, and the other.
func (l *Line) Through(ctx context.Context, k lick.Lick, how Sending) error {
	aim := lick.Aim{Land: how.Land, Order: how.Wanted, Shape: how.Shape, Ground: l.ground(how.Follow)}
	home, _, ok := k.AtHome(how.Home, 0, l.In, l.Hand)
	if ok {
		aim.Home = home
	}
	laid, err := k.Through(ctx, l.Progression, l.Key, aim)
	if err != nil {
		return err
	}
	l.Notes, l.Said = laid.Notes, append(l.Said, laid.Said...)
	if len(k.Notes)*len(l.Bars) > compared {
		return nil
	}
	if aim.Shape = !aim.Shape; how.Shape && !ok {
		aim.Home = nil
	}
	if other, err := k.Through(ctx, l.Progression, l.Key, aim); err == nil && len(other.Notes) > 0 {
		l.Said = append(l.Said, travels(how.Shape, laid.Travel, other.Travel))
	}
	return nil
}

// compared is for how many notes and bars the other way is worked out too.
const compared = 2000

// travels tells how far the hand goes along the neck in both ways, from version to version.
func travels(shape bool, this, other float64) string {
	ways := []string{"in the region", "as the same shape"}
	if shape {
		slices.Reverse(ways)
	}
	return say.F("%s the hand goes %.0f mm along the neck from version to version; %s it would be %.0f mm", ways[0], this, ways[1], other)
}

// Drill lays an exercise over the chords, in place of what stood there. Some are
// played over chords of their own.
func (l *Line) Drill(ctx context.Context, t exercise.Task) error {
	region, err := l.Region.On(t.Region.Strings)
	if err != nil {
		return err
	}
	t.In, t.Hand, t.Region, t.Key = l.In, l.Hand, region, l.Key
	over := exercise.Ground(l.Progression, t.Drill)
	notes, said, err := exercise.Over(ctx, over, t)
	if err != nil {
		return err
	}
	l.Progression, l.Notes, l.Said, l.Exercise = over, notes, append(l.Said, said...), t.Drill
	lick.Label(l.Score)
	return nil
}

// ground is what licks are laid on in this line.
func (l Line) ground(follow bool) lick.Ground {
	return lick.Ground{In: l.In, Region: l.Region, Hand: l.Hand, Follow: follow}
}

// ErrNoNotes is returned for a phrase whose notes the line does not have.
var ErrNoNotes = say.Errorf("there are no such notes in the line")

// Keep makes a lick of the notes from one to another, known by their numbers:
// over the chord its first note is played over, or of the key; and tells where they lie.
func (l Line) Keep(first, last int, ofKey bool) (kept lick.Lick, home lick.Home, err error) {
	at := func(id int) int {
		return slices.IndexFunc(l.Notes, func(n score.Note) bool { return n.ID == id })
	}
	from, to := at(first), at(last)
	if from < 0 || to < from {
		return kept, home, ErrNoNotes
	}
	notes := l.Notes[from : to+1]
	zero := l.At(l.BarOf(max(0, notes[0].Start)))
	chord, sounds := l.ChordAt(notes[0].Start)
	if ofKey || !sounds {
		chord = harmony.MustParse(l.Key.String())
	}
	return lick.Of(notes, chord, zero, ofKey), lick.HomeOf(notes, chord, l.In), nil
}

// over is a line over bars of one chord, as long as a lick.
func over(k lick.Lick, title string, chord harmony.Chord, g lick.Ground) Line {
	p := form.Progression{Beats: 4}
	for range max(1, (k.End()+4*score.Tick-1)/(4*score.Tick)) {
		p.Bars = append(p.Bars, form.Bar{Changes: []form.Change{{Chord: chord}}})
	}
	l := Line{Hand: g.Hand, Region: g.Region, Feel: "shuffle"}
	l.Score = score.Score{Title: title, Key: form.Key{Tonic: chord.Root, Minor: chord.Minor()}, Tempo: 96, Swing: true, Progression: p, In: g.In}
	return l
}

// shown are the windows a lick is shown in: the first that the hand likes.
var shown = []neck.Region{{Low: 7, High: 11}, {Low: 5, High: 10}, {Low: 2, High: 8}, {Low: 7, High: 14}, {Low: 0, High: 14}}

// AtHome shows a lick where it was written; ok is false where it has no home, or one on another neck.
func AtHome(k lick.Lick, h lick.Home, title string, in *neck.Instrument, hand neck.Hand) (l Line, ok bool) {
	notes, chord, ok := k.AtHome(h, 0, in, hand)
	if !ok {
		return l, false
	}
	l = over(k, title, chord, lick.Ground{In: in, Region: lick.Around(in, notes), Hand: hand})
	l.Notes = notes
	lick.Label(l.Score)
	return l, true
}

// Show lays a lick over its kind of chord on a tonic, where it suits the hand.
func Show(k lick.Lick, title, tonic string, in *neck.Instrument, hand neck.Hand) (l Line, err error) {
	home, err := harmony.Parse(tonic + k.Chord)
	if err != nil {
		return l, err
	}
	found := false
	for _, w := range shown {
		w.High = min(w.High, in.Last())
		g := lick.Ground{In: in, Region: w, Hand: hand}
		here := over(k, title, home, g)
		if here.Notes, err = k.Realise(home, 0, g); err != nil {
			continue
		}
		if suits := here.Wide() == ""; suits || !found {
			lick.Label(here.Score)
			if l, found = here, true; suits {
				break
			}
		}
	}
	if found {
		err = nil
	}
	return l, err
}

// Under is the line over chords that hold what it leans on: the lick of a chord that leans on a 9 over a ninth chord. ok is false
// where it leans on nothing, or nobody writes such a chord.
func Under(k lick.Lick, l Line) (under Line, symbol string, ok bool) {
	leans := k.Leans()
	if len(leans) == 0 || k.OfKey || len(l.Bars) == 0 {
		return l, "", false
	}
	with, ok := l.Bars[0].Changes[0].Chord.With(leans...)
	if !ok {
		return l, "", false
	}
	under = l
	under.Bars = slices.Clone(l.Bars)
	for i, b := range under.Bars {
		under.Bars[i].Changes = slices.Clone(b.Changes)
		for j := range under.Bars[i].Changes {
			under.Bars[i].Changes[j].Chord = with
		}
	}
	return under, with.Printed(), true
}

// Wide tells the widest place of the hand beyond the player's comfort, and what to do about it; "" is none.
func (l Line) Wide() (says string) {
	most := 0.0
	for _, s := range score.Stretches(l.In, l.Notes, l.Hand) {
		if s.Millimetres > most {
			most, says = s.Millimetres, s.Says()
		}
	}
	return says
}

// Moved is one way to play a lick over another chord.
type Moved struct {
	lick.Way
	Line Line
}

// Ways moves a lick, as it is shown, to another chord: the same shape along the
// neck, and a nearer one in place.
func Ways(k lick.Lick, from Line, to harmony.Chord, g lick.Ground) (out []Moved) {
	for _, way := range k.Ways(from.Notes, to, 0, g) {
		l := over(k, from.Title, to, g)
		l.Notes = way.Notes
		lick.Label(l.Score)
		out = append(out, Moved{way, l})
	}
	return out
}

// Spread is one of the places where a lick can be had over a chord.
type Spread struct {
	lick.Spread
	Line Line
}

// Places are all of them on the neck, the lick's own shape first.
func Places(k lick.Lick, from Line, to harmony.Chord, g lick.Ground) (out []Spread) {
	for _, s := range k.Places(from.Notes, to, g) {
		g.Region = lick.Around(g.In, s.Notes)
		l := over(k, from.Title, to, g)
		l.Notes = s.Notes
		score.Finger(g.In, l.Notes, g.Hand)
		lick.Label(l.Score)
		out = append(out, Spread{s, l})
	}
	return out
}
