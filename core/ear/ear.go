package ear

import (
	"cmp"
	"math"
	"slices"

	"undaris/core/judge"
	"undaris/core/score"
)

// Kind is what an observation tells.
type Kind string

// The kinds of observations.
const (
	Attack   Kind = "attack"   // a string was struck
	Settled  Kind = "settled"  // its pitch is known
	Salience Kind = "salience" // which notes the stroke brought
	Slide    Kind = "slide"    // the pitch jumped, without a stroke
	Bend     Kind = "bend"     // the pitch glided to another
	Sway     Kind = "sway"     // it sways, as with vibrato
	Lost     Kind = "lost"     // it sounds no more
)

// Kinds lists them.
var Kinds = []Kind{Attack, Settled, Salience, Slide, Bend, Sway, Lost}

// Candidate is a note that a stroke may have brought; the strongest has 1.
type Candidate struct {
	MIDI     int
	Strength float64
}

// Observation is what an ear noticed at a moment.
type Observation struct {
	Seq        int // its number; they come in order
	Kind       Kind
	Of         int     // the number of the attack that it belongs to
	Tick       float64 // as the band is heard, from the first bar; of an attack, when it was struck
	MIDI       float64 // settled, slide, bend
	Width      float64 // sway: half steps either way
	Clarity    float64 // settled, 0 to 1
	Level      float64 // salience: of what sounds after the stroke, decibels of full scale
	Fresh      float64 // salience: how much of what sounds is new, 0 to 1
	Candidates []Candidate
}

// Limits of what counts.
const (
	reach      = 0.55 * score.Tick // ticks about a stroke in which a note may have been meant
	in         = 0.5               // half steps that a settled pitch may be off
	rival      = 0.9               // of the strongest rival, that an expected note needs
	leastNew   = 0.12              // of what sounds, that a stroke brings
	leastSame  = 0.45              // where it rings already
	leastAgain = 0.22              // the same, where it was to be struck again
	leastOwn   = 0.6               // of the strongest candidate, that a settled pitch has
	quiet      = 9                 // decibels below the usual, that a note which was not to be played may be
	softer     = 4                 // the same, where it may be the band's
	aside      = 0.2 * score.Tick  // ticks about a note of the band in which a stroke may be it
)

// note is a stroke and what is known of it.
type note struct {
	seq        int
	at, end    float64
	struck     bool
	settled    float64 // 0 until it is known
	weighed    bool
	fresh      float64
	candidates []Candidate
	level      float64
	told       float64 // the level that was counted
	furthest   float64 // where it was bent or glided to
	sway       float64
	glided     int // how often its pitch was told to glide
}

// Listener makes notes of observations.
type Listener struct {
	expected []judge.Expected // in order of time
	band     []judge.Expected // what others play meanwhile, likewise
	notes    []note
	of       map[int]int // the note that a stroke's number means
	last     int         // number of the last observation

	// What was decided of the notes; from changed on it is to be decided anew.
	decided []decision
	changed int
	levels  []float64 // of those that tell how loud the player is, in order

	before int // strokes that were in tune before it began to listen, of the same ear
}

// decision is what a note is taken for.
type decision struct {
	pitches []float64
	meant   bool // it was to be played
	theirs  bool // it may be the band's
	tells   bool // how loud the player is
}

// Listen begins to listen to what was to be played; nothing where anything may be.
func Listen(expected []judge.Expected) *Listener {
	e := slices.Clone(expected)
	slices.SortStableFunc(e, func(a, b judge.Expected) int { return cmp.Compare(a.At, b.At) })
	return &Listener{expected: e, of: map[int]int{}}
}

// Beside tells what a band plays meanwhile, which a microphone hears too: a stroke
// that may be the band's, and is softer than the player's, is the band's.
func (l *Listener) Beside(band []judge.Expected) {
	l.band = slices.Clone(band)
	slices.SortStableFunc(l.band, func(a, b judge.Expected) int { return cmp.Compare(a.At, b.At) })
}

// Hear takes an observation. One that was heard already is left out, and so is one
// of a stroke that is not known.
func (l *Listener) Hear(o Observation) {
	if o.Seq <= l.last || !sound(o) {
		return
	}
	l.last = o.Seq
	if o.Kind == Attack {
		l.cut(o.Tick)
		l.add(note{seq: o.Seq, at: o.Tick, struck: true})
		return
	}
	i, known := l.of[o.Of]
	if !known {
		return
	}
	l.changed = min(l.changed, i)
	n := &l.notes[i]
	switch o.Kind {
	case Settled:
		n.settled = o.MIDI
	case Salience:
		n.weighed, n.fresh, n.level, n.candidates = true, o.Fresh, o.Level, o.Candidates
	case Slide, Bend:
		if n.glided++; o.Kind == Slide {
			n.glided--
		}
		l.moved(n, o)
	case Sway:
		n.sway = max(n.sway, o.Width)
		if math.Abs(n.furthest-n.settled) < 2*o.Width+in/2 { // swaying there and back is no bend
			n.furthest = 0
		}
	case Lost:
		n.end = o.Tick
	}
}

// sound tells that the figures of an observation are figures.
func sound(o Observation) bool {
	for _, v := range []float64{o.Tick, o.MIDI, o.Clarity, o.Level, o.Fresh, o.Width} {
		if math.IsNaN(v) || math.IsInf(v, 0) {
			return false
		}
	}
	return true
}

// cut ends what sounds.
func (l *Listener) cut(at float64) {
	if k := len(l.notes) - 1; k >= 0 && l.notes[k].end == 0 {
		l.notes[k].end = at
	}
}

// add adds a note, which its stroke's number means from now on.
func (l *Listener) add(n note) {
	l.of[n.seq] = len(l.notes)
	l.notes = append(l.notes, n)
}

// Strokes is how many notes are known of, also those that may be noise.
func (l *Listener) Strokes() int { return len(l.notes) }

// moved takes another pitch of a note: a note of its own where one was to be
// reached so or the pitch jumped, else how far it was bent.
func (l *Listener) moved(n *note, o Observation) {
	if n.settled != 0 && octaves(o.MIDI, n.settled) {
		// No finger jumps an octave on a string: one of the two was misheard.
		if n.strength(o.MIDI) >= n.strength(n.settled) {
			n.settled = o.MIDI
		}
		return
	}
	if n.sway > 0 && math.Abs(o.MIDI-n.settled) < 2*n.sway+in/2 {
		return
	}
	own := o.Kind == Slide
	for _, e := range l.near(o.Tick) {
		if math.Abs(o.MIDI-e.Pitch) > in {
			continue
		}
		if e.Bent && math.Abs(n.at-e.At) < reach {
			own = false
			break
		}
		own = own || e.Joined
	}
	if own {
		l.cut(o.Tick)
		// What follows is told of the same stroke: the new note takes its number.
		seq := n.seq
		n.seq = -seq
		l.add(note{seq: seq, at: o.Tick, settled: o.MIDI, weighed: true, fresh: 1})
		return
	}
	if math.Abs(o.MIDI-n.settled) > math.Abs(n.furthest-n.settled) || n.furthest == 0 {
		n.furthest = o.MIDI
	}
}

// within lists what lies about a tick, of a list in order of time.
func within(list []judge.Expected, tick, reach float64) []judge.Expected {
	from, _ := slices.BinarySearchFunc(list, tick-reach, func(e judge.Expected, at float64) int { return cmp.Compare(e.At, at) })
	to := from
	for to < len(list) && list[to].At <= tick+reach {
		to++
	}
	return list[from:to]
}

// near lists what was to be played about a tick, the nearest first.
func (l *Listener) near(tick float64) []judge.Expected {
	near := slices.Clone(within(l.expected, tick, reach))
	slices.SortStableFunc(near, func(a, b judge.Expected) int {
		return cmp.Compare(math.Abs(a.At-tick), math.Abs(b.At-tick))
	})
	return near
}

// Heard lists the notes that are known by now, in order of time. Only what changed since it
// was asked before is decided anew.
func (l *Listener) Heard() []judge.Heard {
	l.decide()
	heard := make([]judge.Heard, 0, len(l.notes))
	usual, who, loud := l.usual(), l.who(), l.loud()
	for i, n := range l.notes {
		d := l.decided[i]
		switch stroke := n.weighed && n.struck; {
		case who == nobody || who == unknown && !d.meant:
			continue // nobody knows yet that it is the player
		case stroke && n.level < loud && (d.theirs || !d.meant):
			continue // no louder than the band
		case stroke && !d.meant && (n.level < usual-quiet || n.level < usual-softer && d.theirs):
			continue // somebody else
		}
		for _, pitch := range d.pitches {
			h := judge.Heard{At: n.at, Pitch: pitch, Sway: n.sway}
			if n.end > n.at {
				h.Length = n.end - n.at
			}
			heard = append(heard, h)
		}
	}
	slices.SortStableFunc(heard, func(a, b judge.Heard) int { return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Pitch, b.Pitch)) })
	return heard
}

// decide decides what is new or changed. A note is heard beside the one before it, so what
// follows a change is decided anew, too.
func (l *Listener) decide() {
	for i := l.changed; i < len(l.decided); i++ {
		if l.decided[i].tells {
			at, _ := slices.BinarySearch(l.levels, l.notes[i].told)
			l.levels = slices.Delete(l.levels, at, at+1)
		}
	}
	l.decided = l.decided[:min(l.changed, len(l.decided))]
	for i := len(l.decided); i < len(l.notes); i++ {
		n := &l.notes[i]
		var d decision
		d.pitches, d.meant = l.pitches(i)
		d.theirs = l.theirs(*n, d.pitches)
		own := d.meant && !d.theirs
		if len(l.expected) == 0 && len(l.band) > 0 {
			own = len(d.pitches) > 0 && !d.theirs
		}
		if d.tells = own && n.weighed && n.struck; d.tells {
			n.told = n.level
			at, _ := slices.BinarySearch(l.levels, n.told)
			l.levels = slices.Insert(l.levels, at, n.told)
		}
		l.decided = append(l.decided, d)
	}
	l.changed = len(l.notes)
}

// theirs tells that a stroke may be one of the band's: at its time, of its pitch or of
// one of its partials, or an octave beneath, where chords are heard as.
func (l *Listener) theirs(n note, pitches []float64) bool {
	for _, e := range within(l.band, n.at, aside) {
		for _, p := range pitches {
			off := p - e.Pitch
			if math.Abs(off) <= in || math.Abs(off+12) <= in || slices.ContainsFunc(partials, func(x float64) bool { return math.Abs(off-x) <= in }) {
				return true
			}
		}
	}
	return false
}

// usual is how loud the player's notes are, in decibels: those that were to be played,
// or where anything may be those that are not the band's. Where few are known,
// everything is loud enough.
func (l *Listener) usual() float64 {
	if len(l.levels) < 4 {
		return math.Inf(-1)
	}
	return l.levels[len(l.levels)/2]
}

// rang is the note before a stroke, and the pitch that it sounded; 0 is none.
func (l *Listener) rang(i int) (before note, pitch float64) {
	if i == 0 {
		return note{}, 0
	}
	before = l.notes[i-1]
	return before, cmp.Or(before.furthest, before.settled)
}

// pitches decides what a stroke sounded: nothing where it was but noise, two notes
// of a double stop. meant tells that they were to be played.
func (l *Listener) pitches(i int) (pitches []float64, meant bool) {
	n := l.notes[i]
	before, ringing := l.rang(i)
	if !n.weighed && n.settled == 0 {
		return nil, false
	}
	near := l.near(n.at)
	meant = slices.ContainsFunc(near, func(e judge.Expected) bool { return e.Holds(n.settled) })
	// What several strings share sounds like a lower note that nobody played.
	if !meant && n.settled != 0 && n.weighed && n.struck && n.strength(n.settled) < leastOwn {
		n.settled, n.furthest = 0, 0
	}
	p := cmp.Or(n.furthest, n.settled)
	same := ringing != 0 && n.settled != 0 && math.Abs(n.settled-ringing) < in
	// Struck again, where it was to be: another note of that pitch is nearer to this stroke than to the one before.
	again := slices.ContainsFunc(near, func(e judge.Expected) bool {
		return e.Holds(ringing) && math.Abs(e.At-n.at) < min(math.Abs(e.At-before.at), reach/2)
	})
	if n.weighed && (n.fresh < leastNew || same && n.fresh < leastSame && !(again && n.fresh > leastAgain)) {
		return nil, false
	}
	for _, e := range near {
		if n.settled != 0 && e.Holds(n.settled) {
			return append([]float64{p}, l.beside(n, e, near)...), true
		}
	}
	for _, e := range near {
		if e.Dead {
			return []float64{e.Pitch}, true
		}
		if !n.brought(e.Fretted) {
			continue
		}
		// Only the pitch settles the octave; but what rang already lends its upper one to the ear.
		if n.settled != 0 && octaves(n.settled, e.Fretted) && !(e.Holds(ringing) && n.settled > e.Fretted) {
			return []float64{p}, false
		}
		own := e.Fretted
		if n.furthest != 0 && n.settled != 0 {
			own += n.furthest - n.settled
		}
		return append([]float64{own}, l.beside(n, e, near)...), true
	}
	switch {
	case n.settled != 0:
		return []float64{p}, false
	case n.fresh > leastSame:
		return n.stranger(near), false
	}
	return nil, false
}

// stranger is a note without a settled pitch that was not to be played: it must be
// far stronger than what was, else nobody can tell.
func (n note) stranger(near []judge.Expected) []float64 {
	for _, c := range n.candidates {
		for _, e := range near {
			if n.strength(e.Fretted) >= leastOwn || slices.Contains(partials, float64(c.MIDI)-e.Fretted) {
				return nil
			}
		}
		if n.brought(float64(c.MIDI)) && c.Strength >= leastOwn {
			return []float64{float64(c.MIDI)}
		}
	}
	return nil
}

// beside lists the other notes of a double stop that were brought too.
func (l *Listener) beside(n note, e judge.Expected, near []judge.Expected) (more []float64) {
	for _, other := range near {
		if other.At == e.At && other.Pitch != e.Pitch && n.strength(other.Fretted) >= 0.35 {
			more = append(more, other.Fretted)
		}
	}
	return more
}

func octaves(a, b float64) bool {
	off := math.Abs(a - b)
	return off > 6 && math.Abs(math.Mod(off+6, 12)-6) <= in
}

func (n note) strength(midi float64) float64 {
	for _, c := range n.candidates {
		if math.Abs(float64(c.MIDI)-midi) <= in {
			return c.Strength
		}
	}
	return 0
}

// partials are half steps from a note to the next ones of its harmonics: what rings
// there belongs to it as likely as not.
var partials = []float64{12, 19, 24, 28, 31, 34, 36}

// brought tells that a stroke brought a note: nothing but its octaves and partials
// is much stronger.
func (n note) brought(midi float64) bool {
	own := n.strength(midi)
	if own == 0 {
		return false
	}
	for _, c := range n.candidates {
		off := float64(c.MIDI) - midi
		if own < rival*c.Strength && math.Mod(off, 12) != 0 && !slices.Contains(partials, off) {
			return false
		}
	}
	return true
}
