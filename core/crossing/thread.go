package crossing

import (
	"context"
	"slices"

	"undaris/core/blend"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/say"
)

// Mode is a way to choose which degrees a thread may use.
type Mode struct {
	ID, Name string
	Choruses [][]harmony.Role // roles allowed in each chorus, over and over; empty is any chord tone
}

// Modes lists the ways offered.
var Modes = []Mode{
	{"guide-tones", "thirds and sevenths", [][]harmony.Role{{harmony.Third, harmony.Seventh}}},
	{"thirds", "thirds only", [][]harmony.Role{{harmony.Third}}},
	{"sevenths", "sevenths only", [][]harmony.Role{{harmony.Seventh}}},
	{"roots", "roots only", [][]harmony.Role{{harmony.Root}}},
	{"any", "the nearest of any", [][]harmony.Role{{}}},
	{"ladder", "a ladder: one degree a chorus", [][]harmony.Role{{harmony.Third}, {harmony.Seventh}, {harmony.Fifth}, {harmony.Root}}},
}

// ModeByID finds a mode of the table.
func ModeByID(id string) (Mode, error) {
	for _, m := range Modes {
		if m.ID == id {
			return m, nil
		}
	}
	return Mode{}, say.Errorf("there is no way %q to choose targets", id)
}

// In is the mode with its choruses in the player's own order, where it takes one role
// in each: a ladder from the root, or from the third.
func (m Mode) In(order harmony.Order) Mode {
	if len(m.Choruses) < 2 || slices.ContainsFunc(m.Choruses, func(roles []harmony.Role) bool { return len(roles) != 1 }) {
		return m
	}
	m.Choruses = slices.Clone(m.Choruses)
	slices.SortStableFunc(m.Choruses, func(a, b []harmony.Role) int { return order.Place(a[0]) - order.Place(b[0]) })
	return m
}

// Allowed are the roles of a chorus, counted from 0.
func (m Mode) Allowed(chorus int) []harmony.Role { return m.Choruses[chorus%len(m.Choruses)] }

// Stop is a chord on the way of a thread.
type Stop struct {
	Chord   harmony.Chord
	Allowed []harmony.Role  // empty is any chord tone
	Pin     *neck.Placement // the target that the player chose by hand
}

// Range is where a thread may lie.
type Range struct {
	Region          neck.Region
	LowMIDI, HiMIDI int // register, both included; 0 is no limit
}

// Target is the thread's note for one stop.
type Target struct {
	Stop int // index of the stop
	neck.Placement
	MIDI int
	Tone harmony.Tone
	Move int // half steps from the target before, the last one's for the first
}

// Cost is what a thread asks for: half steps first, then how many tones are left,
// then the hand's travel.
type Cost struct {
	HalfSteps int
	Moves     int     // targets that are not the one before, held
	Travel    float64 // millimetres
}

func (c Cost) plus(d Cost) Cost {
	return Cost{c.HalfSteps + d.HalfSteps, c.Moves + d.Moves, c.Travel + d.Travel}
}

func (c Cost) less(d Cost) bool {
	if c.HalfSteps != d.HalfSteps {
		return c.HalfSteps < d.HalfSteps
	}
	if c.Moves != d.Moves { // a tone kept beats one left, where the sum is the same
		return c.Moves < d.Moves
	}
	return c.Travel < d.Travel-1e-9
}

func (c Cost) compare(d Cost) int {
	switch {
	case c.less(d):
		return -1
	case d.less(c):
		return 1
	}
	return 0
}

// StopError says which stop has no possible target.
type StopError struct {
	Stop   int
	Pinned bool // it is the player's own choice that stands in the way
	Reason string
}

func (e *StopError) Error() string { return e.Reason }

// MaxWork is how many steps from target to target are compared at most: about
// a quarter of a second's work.
const MaxWork = 60_000_000

// SizeError says that a thread is longer and wider than can be tied.
type SizeError struct{ Chords, Work int }

func (e *SizeError) Error() string {
	return say.F("%d chords with as many possible targets as these frets and strings hold are too many to weigh at once (%d times too many); take fewer frets or strings, or fewer degrees", e.Chords, (e.Work+MaxWork-1)/MaxWork)
}

// Tie joins one target for each stop in a ring, so that the last leads to the
// first, at the least movement: half steps first, then the hand's travel. It is
// the exact minimum, by dynamic programming over every possible first target. A
// chord without any allowed role (a power chord asked for its third) may use all
// its tones. Stops without a chord are passed over. The error is a *[StopError],
// a *[SizeError] where it would take too long, or that of the context.
func Tie(ctx context.Context, in *neck.Instrument, stops []Stop, r Range) ([]Target, Cost, error) {
	t := newTie(in)
	for i, s := range stops {
		if s.Chord.None {
			continue
		}
		if err := t.add(i, s, r); err != nil {
			return nil, Cost{}, err
		}
	}
	if len(t.ring) == 0 {
		return nil, Cost{}, nil
	}
	if work := t.work(); work > MaxWork {
		return nil, Cost{}, &SizeError{len(t.ring), work}
	}
	best, cost := t.solve(ctx)
	if err := ctx.Err(); err != nil {
		return nil, Cost{}, err
	}
	for i := range best {
		before := best[(i+len(best)-1)%len(best)]
		best[i].Move = best[i].MIDI - before.MIDI
	}
	return best, cost, nil
}

// candidates are the possible targets of a stop.
func candidates(in *neck.Instrument, i int, s Stop, r Range) ([]Target, error) {
	where := r.Region.Says()
	if s.Pin != nil {
		p := *s.Pin
		pin := say.F("the target chosen by hand at %d:%d", p.String, p.Fret)
		if p.String < 1 || p.String > in.Strings() || !r.Region.Has(p) {
			return nil, &StopError{i, true, say.F("%s lies outside %s", pin, where)}
		}
		tone, ok := s.tone(in.MIDI(p))
		if !ok {
			return nil, &StopError{i, true, say.F("%s is no tone of %s", pin, s.Chord)}
		}
		return []Target{{Placement: p, MIDI: in.MIDI(p), Tone: tone}}, nil
	}
	wanted, any := make([]Target, 0, 16), make([]Target, 0, 16)
	for str := in.Strings(); str >= 1; str-- {
		if !r.Region.Strings.Has(str) {
			continue
		}
		for fret := r.Region.Low; fret <= r.Region.High; fret++ {
			p := neck.Placement{String: str, Fret: fret}
			midi := in.MIDI(p)
			tone, ok := s.tone(midi)
			if !ok || r.LowMIDI > 0 && midi < r.LowMIDI || r.HiMIDI > 0 && midi > r.HiMIDI {
				continue
			}
			t := Target{Placement: p, MIDI: midi, Tone: tone}
			if _, own := s.Chord.ToneAt(midi % 12); own {
				any = append(any, t)
			}
			if slices.Contains(s.Allowed, tone.Degree.Role()) {
				wanted = append(wanted, t)
			}
		}
	}
	switch {
	case len(wanted) > 0:
		return wanted, nil
	case len(any) > 0 && (len(s.Allowed) == 0 || !s.has()):
		return any, nil
	case len(any) > 0:
		return nil, &StopError{i, false, say.F("no allowed tone of %s lies in %s; widen the window or allow more degrees", s.Chord, where)}
	}
	return nil, &StopError{i, false, say.F("no tone of %s lies in %s; widen the window", s.Chord, where)}
}

// tone is what a pitch is to a stop: a tone of its chord, or where extensions are allowed one that the chord bears as a
// colour.
func (s Stop) tone(midi int) (harmony.Tone, bool) {
	if tone, ok := s.Chord.ToneAt(midi % 12); ok || !slices.Contains(s.Allowed, harmony.Extension) {
		return tone, ok
	}
	sound := blend.Sounds(s.Chord)[s.Chord.Above(midi)]
	if sound.Class != blend.Colour || sound.Degree.Role() != harmony.Extension {
		return harmony.Tone{}, false
	}
	step, _ := sound.Degree.Interval()
	return harmony.Tone{Degree: sound.Degree, Interval: step, Name: s.Chord.Root.Up(step).Simpler()}, true
}

// has tells that there is a tone of a role that is allowed.
func (s Stop) has() bool {
	for midi := 60; midi < 72; midi++ {
		if tone, ok := s.tone(midi); ok && slices.Contains(s.Allowed, tone.Degree.Role()) {
			return true
		}
	}
	return false
}
