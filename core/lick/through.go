package lick

import (
	"context"
	"slices"

	"undaris/core/crossing"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// rings is how long a landing sounds where nothing comes after it.
const rings = 2 * score.Tick

// Aim says how a lick goes through a form.
type Aim struct {
	Land   bool          // its last note falls on the first beat of each next chord, on one of its tones
	Order  harmony.Order // which tones are wanted most as a landing
	Shape  bool          // the same strings and fingers along the neck, and not places where the hand is
	Home   []score.Note  // the shape that is moved; the first version's where there is none
	Ground               // Near is set by the first version for all: over a chord that comes again it lies where it lay
}

// Laid is a lick on its way through a form.
type Laid struct {
	Notes  []score.Note
	Said   []string // what had to be cut or did not fit
	Travel float64  // of the hand from each version to the next, in millimetres
}

// maxWork is how many ways from finger to finger are weighed at most: about
// half a second's work.
const maxWork = 5_000_000

// Through lays the lick over every chord of a form, in place. A chord that is
// held over several bars counts once; one that is held over three bars or more hears the
// lick also before, every second bar. With Land, each version ends on the next
// change: its last note is moved to the nearest tone of the new chord, the
// wanted ones first. All versions lie in the octave nearest to the first.
func (l Lick) Through(ctx context.Context, p form.Progression, key form.Key, a Aim) (out Laid, err error) {
	var notes []score.Note
	var said []string
	var stands neck.Placement // where the hand was for the version before
	stretches := stretchesOf(p)
	states := 6 * min(a.In.Strings(), (a.Region.High-a.Region.Low)/5+1)
	if work := len(stretches) * len(l.Notes) * states * states; work > maxWork {
		return out, say.Errorf("%d notes through %d changes in %s are too much to finger at once (%d times too much); take a narrower region or fewer bars", len(l.Notes), len(stretches), a.Region.Says(), (work+maxWork-1)/maxWork)
	}
	bar := p.Beats * score.Tick
	total := p.Length() * score.Tick
	taken := -bar // up to this tick the line is written
	for i, s := range stretches {
		next := stretches[(i+1)%len(stretches)]
		if ctx.Err() != nil {
			return out, ctx.Err()
		}
		if s.chord.None {
			continue
		}
		chord := s.chord
		if l.OfKey {
			chord = harmony.MustParse(key.Tonic.String() + l.Chord)
		}
		last := l.Notes[len(l.Notes)-1]
		at := s.from
		land := a.Land && !next.chord.None && len(stretches) > 1
		if land {
			at = s.to - last.Start
		}
		version, err := a.lay(l, chord, at)
		in, _ := p.BarAt(s.from / score.Tick)
		where := say.F("over %s in bar %d", s.chord, in+1)
		if err != nil {
			said = append(said, say.F("%s it is left out: %v", where, err))
			continue
		}
		if land {
			if next.from == 0 && i == len(stretches)-1 { // the landing is the first beat of the next chorus
				version = until(version, at+last.Start)
			} else {
				version = a.landing(version, at+last.Start, next)
			}
		}
		for _, lost := range l.Lost(version) {
			said = append(said, where+" "+lost)
		}
		var before []score.Note
		for _, start := range s.repeats(at, land, l.End(), bar) {
			if once, err := a.lay(l, chord, start); err == nil {
				before = append(before, once...)
			}
		}
		cut := 0
		kept := version[:0]
		for _, n := range version {
			_, tone := s.chord.ToneAt(n.Heard() % 12)
			late := land && i > 0 && (n.Start < s.from || n.Start == s.from && !tone) // the old chord is not its own
			if n.Start < taken || late || n.Start < -bar || !land && n.Start >= s.to || n.Start >= total {
				cut++
				continue
			}
			kept = append(kept, n)
		}
		if cut > 0 {
			said = append(said, say.F("%s %d of its %d notes have no room", where, cut, len(l.Notes)))
		}
		if len(kept) == 0 {
			continue
		}
		if kept[0].Join != score.Picked && cut > 0 {
			kept[0].Join = score.Picked
		}
		for _, n := range before { // a pickup may reach into the chord before
			if n.Start >= max(taken, s.from-bar) && n.Start < total {
				notes = append(notes, n)
			}
		}
		notes = append(notes, kept...)
		end := kept[len(kept)-1]
		taken = end.Start + 1
		if !land { // the next may be led into once this one is over
			taken = max(taken, min(end.End(), s.to))
		}
		if a.Near == 0 {
			a.Near = middle(kept)
		}
		if here := fretted(kept); here.Fret > 0 {
			if stands.Fret > 0 {
				out.Travel += crossing.Travel(a.In, stands, here)
			}
			stands = here
		}
	}
	score.Sort(notes)
	Separate(notes, total)
	fit := append([]score.Note(nil), notes...)
	if _, _, ok := score.Place(a.In, fit, a.Region, a.Hand, nil); ok && !a.Shape {
		notes = fit
	} else {
		score.Finger(a.In, notes, a.Hand)
	}
	line := score.Score{Key: key, Progression: p, In: a.In, Notes: notes}
	said = append(said, line.Undoable()...) // a slide to a third that follows the chord down may go nowhere
	Label(line)
	out.Notes, out.Said = notes, said
	return out, nil
}

// lay puts a version over a chord: the shape moved, or places in the region. The first is the shape of all that follow.
func (a *Aim) lay(l Lick, chord harmony.Chord, at int) ([]score.Note, error) {
	if a.Shape && len(a.Home) == len(l.Notes) {
		return l.shape(a.Home, chord, at, a.Ground)
	}
	notes, err := l.Realise(chord, at, a.Ground)
	if a.Shape && err == nil {
		a.Home = slices.Clone(notes)
	}
	return notes, err
}

// fretted is the first place that asks for the hand.
func fretted(notes []score.Note) neck.Placement {
	for _, n := range notes {
		if n.Fret > 0 {
			return n.Placement
		}
	}
	return neck.Placement{}
}

// Separate ends each note at the latest where the next begins, and the last at
// the end.
func Separate(notes []score.Note, end int) {
	for i, limit := range score.Next(notes, end) {
		notes[i].Length = max(1, min(notes[i].Length, limit-notes[i].Start))
	}
}

func until(notes []score.Note, tick int) (out []score.Note) {
	for _, n := range notes {
		if n.Start < tick {
			out = append(out, n)
		}
	}
	return out
}

func middle(notes []score.Note) int {
	sum := 0
	for _, n := range notes {
		sum += n.Pitch.MIDI()
	}
	return sum / len(notes)
}

// landing moves what begins at a tick, a note or several that sound together, to
// tones of the next chord, each to one of its own, and lets them ring. It stays
// as it was where no hand can hold that.
func (a Aim) landing(version []score.Note, tick int, next stretch) []score.Note {
	if a.Shape {
		a.Region = Around(a.In, version)
	}
	out := append([]score.Note(nil), version...)
	score.Sort(out)
	taken := map[int]bool{}
	for i := len(out) - 1; i >= 0 && out[i].Start == tick; i-- {
		out[i] = landed(out[i], next.chord, a, taken)
		taken[out[i].Pitch.MIDI()] = true
		out[i].Length = min(max(out[i].Length, rings), next.to-next.from)
	}
	score.Sort(out)
	if _, _, ok := score.Place(a.In, out, a.Region, a.Hand, nil); !ok {
		return version
	}
	return out
}

// Lost tells which slides, hammer-ons and pull-offs of a lick a version of it has
// to pick instead.
func (l Lick) Lost(version []score.Note) (said []string) {
	if len(version) != len(l.Notes) {
		return nil
	}
	for i, n := range l.Notes {
		if n.Join != score.Picked && version[i].Join == score.Picked {
			said = append(said, say.F("the %s to %s is picked: it lies on another string there", n.Join, version[i].Pitch.Name))
		}
	}
	return said
}

// landed moves a note to the tone of a chord that is near, wanted and not taken:
// a half step away counts as much as one place in the order.
func landed(n score.Note, chord harmony.Chord, a Aim, taken map[int]bool) score.Note {
	best := n
	least := 1 << 30
	order := a.Order
	if order == nil {
		order = harmony.UsualOrder
	}
	for midi := n.Pitch.MIDI() - 7; midi <= n.Pitch.MIDI()+7; midi++ {
		tone, ok := chord.ToneAt(pitch.Class(midi))
		places := a.In.Find(midi, a.Region)
		if !ok || len(places) == 0 || taken[midi] || n.Bend > 0 && !n.Release {
			continue
		}
		if cost := abs(midi-n.Pitch.MIDI()) + order.Place(tone.Degree.Role()); cost < least {
			least = cost
			best = retuned(n, midi, tone)
			best.Placement = places[0]
		}
	}
	return best
}

// stretch is a chord for as long as it lasts, over bars that repeat it.
type stretch struct {
	chord    harmony.Chord
	from, to int // ticks
}

func stretchesOf(p form.Progression) (out []stretch) {
	for _, place := range p.Places() {
		from := p.BeatOf(place) * score.Tick
		to := from + place.Length*score.Tick
		if n := len(out); n > 0 && out[n-1].chord.String() == place.Chord.String() {
			out[n-1].to = to
			continue
		}
		out = append(out, stretch{place.Chord, from, to})
	}
	return out
}

// repeats are where a lick also begins over a chord of three bars or more, beside the one
// at a tick: it is heard, rests for as long, and is heard again.
func (s stretch) repeats(at int, land bool, length, bar int) (starts []int) {
	every := (length + bar - 1) / bar * 2 * bar
	if s.to-s.from < 3*bar || every <= 0 {
		return nil
	}
	end := s.to
	if land {
		end = at - bar/2
	}
	for start := s.from; start+length <= end; start += every {
		if start != at {
			starts = append(starts, start)
		}
	}
	return starts
}
