package judge

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/say"
	"undaris/core/score"
)

// What became of a note.
const (
	Right   = "right"
	Octave  = "another octave"
	Wrong   = "wrong note"
	Unheard = "not heard"
)

// How a note came.
const (
	OnTime = "on time"
	Early  = "early"
	Late   = "late"
)

// How a bend came out.
const (
	True  = "true"
	Flat  = "flat"
	Sharp = "sharp"
)

// Limits of a verdict: how far off a note may be and count as on time, and how far
// a bend may be off in cents. Players hear a sharp bend before a flat one.
const (
	offBeats = 0.2 // of a beat, and
	offLeast = 80  // milliseconds at least,
	offMost  = 120 // at most: at a slow tempo what is heard as late is no longer a part of the beat
	flatMost = 30
	sharpest = 15
	steady   = 60 // milliseconds that a take may be early or late as a whole
)

// Within is how far off a note may be and count as on time, in milliseconds.
func Within(tempo int) float64 { return within(60000 / float64(tempo)) }

// within is the same of a beat in milliseconds.
func within(beat float64) float64 { return min(offMost, max(offLeast, offBeats*beat)) }

// Verdict is on one note that was to be played.
type Verdict struct {
	Heard int // index of what was heard; −1 where nothing was
	Is    string
	When  string  // of what was heard
	Off   float64 // milliseconds late, without the take's own tendency
	Bend  string  // of a bent note that is right
	Cents float64 // that a bend is off
	Sways string  // of a note that is right and was to sway: what is wrong with its vibrato, said behind "its vibrato"
}

// Landing is what became of one change.
type Landing struct {
	At      int // ticks
	Chord   harmony.Chord
	Degree  harmony.Degree // that was landed on
	Note    int            // index of the note that was to be played there; −1 where none was
	Verdict Verdict
}

// Landed tells that the change was met on time.
func (l Landing) Landed() bool {
	return l.Note >= 0 && l.Verdict.Good()
}

// Take is how it went.
type Take struct {
	Verdicts  []Verdict // of every note of the score
	Strangers []int     // heard, and not to be played
	Landings  []Landing // of every change on which a note was to be played
	Tendency  float64   // milliseconds late as a whole, or early
	Spread    float64   // milliseconds, the middle distance from that
	Heard     int       // how many notes of the score were
	Lost      []Lost    // where the player was elsewhere in the form
	Pace      string    // "twice as fast", "half as fast" where it was played so; nobody is lost then
	Good, Try string    // in words: what was good, and one thing to try
}

// InOrder sorts what was heard by time, then from the lowest; verdicts count it so.
func InOrder(heard []Heard) []Heard {
	heard = slices.Clone(heard)
	slices.SortStableFunc(heard, func(a, b Heard) int { return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Pitch, b.Pitch)) })
	return heard
}

// Prescribed judges a take of what was written. tempo is in beats a minute.
func Prescribed(s score.Score, heard []Heard, tempo int, swing float64) Take {
	heard = InOrder(heard)
	expected := Sounding(s, swing)
	found, _ := align(expected, heard)
	t := Take{Verdicts: make([]Verdict, len(expected))}
	t.Tendency, t.Spread, t.Heard = judged(t.Verdicts, expected, found, heard, 60000/float64(tempo))
	known := map[int]bool{}
	for _, j := range found {
		known[j] = true
	}
	for j := range heard {
		if !known[j] {
			t.Strangers = append(t.Strangers, j)
		}
	}
	if t.Pace = paced(expected, heard); t.Pace == "" {
		t.Lost = astray(s, expected, heard)
	}
	t.land(s)
	t.tell(s)
	return t
}

func verdict(e Expected, h Heard, j int, off, beat float64) Verdict {
	limit := within(beat)
	v := Verdict{Heard: j, Is: Right, When: OnTime, Off: off}
	switch {
	case off > limit:
		v.When = Late
	case off < -limit:
		v.When = Early
	}
	cents := 100 * (h.Pitch - e.Pitch)
	switch {
	case e.Dead:
	case math.Abs(cents) <= 50 && !e.Bent, math.Abs(cents) <= 80 && e.Bent:
	case math.Abs(math.Mod(math.Abs(cents)+600, 1200)-600) <= 50:
		v.Is = Octave
	default:
		v.Is = Wrong
	}
	if h.Doubt && v.Is != Right {
		return Verdict{Heard: -1, Is: Unheard}
	}
	if e.Sways && v.Is == Right {
		v.Sways = e.told(h, e.Lasts/score.Tick*beat)
	}
	if e.Bent && v.Is == Right {
		v.Bend, v.Cents = True, cents
		if cents < -flatMost {
			v.Bend = Flat
		} else if cents > sharpest {
			v.Bend = Sharp
		}
	}
	return v
}

// land finds the note on each change.
func (t *Take) land(s score.Score) {
	for bar, b := range s.Bars {
		for _, c := range b.Changes {
			at := s.At(bar) + c.Beat*score.Tick
			if !s.Change(at) {
				continue
			}
			i, found := slices.BinarySearchFunc(s.Notes, at, func(n score.Note, at int) int { return cmp.Compare(n.Start, at) })
			if !found {
				continue
			}
			l := Landing{At: at, Chord: c.Chord, Note: i, Verdict: t.Verdicts[i]}
			if tone, ok := c.Chord.ToneAt(pitch.Class(s.Notes[i].Heard())); ok {
				l.Degree = tone.Degree
			}
			t.Landings = append(t.Landings, l)
		}
	}
}

// count counts the verdicts that are so.
func (t *Take) count(is func(Verdict) bool) (n int) {
	for _, v := range t.Verdicts {
		if is(v) {
			n++
		}
	}
	return n
}

// tell says what was good first, and one thing to try next.
func (t *Take) tell(s score.Score) {
	if t.Heard == 0 {
		t.Good, t.Try = "nothing was heard", "look whether the instrument is plugged in and loud enough, and play it again"
		return
	}
	landed := 0
	for _, l := range t.Landings {
		if l.Landed() {
			landed++
		}
	}
	right := t.count(func(v Verdict) bool { return v.Is == Right })
	t.Good = say.F("%d of %d notes are right", right, len(t.Verdicts))
	if len(t.Landings) > 0 && landed*len(t.Verdicts) >= right*len(t.Landings) {
		t.Good = say.F("%d of %d changes are landed on time", landed, len(t.Landings))
	}
	faults := []struct {
		n   int
		try string
	}{
		{t.count(func(v Verdict) bool { return v.Is == Wrong }), "play it slower until no note is wrong, then up by four"},
		{t.count(func(v Verdict) bool { return v.When == Late }), "think of the landing a bar ahead: it comes late"},
		{t.count(func(v Verdict) bool { return v.When == Early }), "wait for the beat: it comes early"},
		{t.count(func(v Verdict) bool { return v.Bend == Flat }), "fret the goal first, then bend up to it: the bends stay flat"},
		{t.count(func(v Verdict) bool { return v.Bend == Sharp }), "fret the goal first, then bend up to it: the bends go sharp"},
		{t.count(func(v Verdict) bool { return v.Is == Unheard }), "play every note out: some were not heard"},
		{t.count(func(v Verdict) bool { return v.Sways == still }), "let the held notes sway: some stood still"},
		{t.count(func(v Verdict) bool { return v.Sways != "" && v.Sways != still }), "hear the vibrato of the held notes before you play: as wide, as fast, back to the note each time"},
	}
	worst := slices.MaxFunc(faults, func(a, b struct {
		n   int
		try string
	}) int {
		return a.n - b.n
	})
	t.Try = "up by four beats a minute"
	if t.Pace != "" {
		t.Try = Pace(t.Pace)
	} else if len(t.Lost) > 0 {
		t.Try = Count(t.Lost, len(s.Bars), s.Beats)
	} else if worst.n > 0 {
		t.Try = worst.try
	}
}

func middle(list []float64) float64 {
	if len(list) == 0 {
		return 0
	}
	sorted := slices.Sorted(slices.Values(list))
	return sorted[len(sorted)/2]
}

// Good tells that a note is right, in time and, where it is bent, in tune.
func (v Verdict) Good() bool {
	return v.Is == Right && v.When == OnTime && v.Bend != Flat && v.Bend != Sharp
}

// Word tells a verdict in a word or two.
func (v Verdict) Word() string {
	switch {
	case v.Is != Right:
		return v.Is
	case v.Bend == Flat || v.Bend == Sharp:
		return "bent " + v.Bend
	}
	return v.When
}

// Says tells a verdict in words.
func (v Verdict) Says() string {
	switch {
	case v.Is == Unheard:
		return "not heard"
	case v.Is != Right:
		return v.Is
	case v.Bend == Flat:
		return say.F("the bend is %.0f cents flat", -v.Cents)
	case v.Bend == Sharp:
		return say.F("the bend is %.0f cents sharp", v.Cents)
	case v.When == Late:
		return say.F("right, %.0f ms late", v.Off)
	case v.When == Early:
		return say.F("right, %.0f ms early", -v.Off)
	}
	if v.Sways != "" {
		return "right, on time; its vibrato " + v.Sways
	}
	return "right, on time"
}
