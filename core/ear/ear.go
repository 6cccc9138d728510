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
	Rate       float64 // sway: how often a second
	Uneven     float64 // sway: by how much its length differs, a part of it
	Low        float64 // sway: MIDI number that it comes back to
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
	vague      = 0.95              // clarity, beneath which a pitch may be taken twice as long
	leastTwice = 0.85              // of the strongest candidate, that a note an octave beneath it has
	quiet      = 9                 // decibels below the usual, that a note which was not to be played may be
	softer     = 4                 // the same, where it may be the band's
	bendable   = 5                 // half steps that a string is bent by at most
	aside      = 0.2 * score.Tick  // ticks about a note of the band in which a stroke may be it
	rings      = 4 * score.Tick    // ticks that a note of the band may ring
)

// note is a stroke and what is known of it.
type note struct {
	seq        int
	at, end    float64
	struck     bool
	settled    float64 // 0 until it is known
	clarity    float64 // of it
	weighed    bool
	fresh      float64
	candidates []Candidate
	level      float64
	told       float64     // the level that was counted
	furthest   float64     // where it was bent or glided to
	sway       judge.Heard // how it sways
	glided     int         // how often its pitch was told to glide
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

	before int  // strokes that were in tune before it began to listen, of the same ear
	music  bool // that it is music which is heard is known
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
		n.settled, n.clarity = o.MIDI, o.Clarity
	case Salience:
		n.weighed, n.fresh, n.level, n.candidates = true, o.Fresh, o.Level, o.Candidates
	case Slide, Bend:
		if n.glided++; o.Kind == Slide {
			n.glided--
		}
		l.moved(n, o)
	case Sway:
		// Told again, it is better known.
		n.sway = judge.Heard{Sway: limit(max(n.sway.Sway, o.Width), 12), Rate: limit(o.Rate, 50), Uneven: limit(o.Uneven, 10), Low: limit(o.Low, 127)}
		if math.Abs(n.furthest-n.settled) < n.swings() {
			n.furthest = 0
		}
	case Lost:
		n.end = o.Tick
	}
}

// sound tells that the figures of an observation are figures.
func sound(o Observation) bool {
	for _, v := range []float64{o.Tick, o.MIDI, o.Clarity, o.Level, o.Fresh, o.Width, o.Rate, o.Uneven, o.Low} {
		if math.IsNaN(v) || math.IsInf(v, 0) {
			return false
		}
	}
	return true
}

// swings is how far from where it was struck a note sways: there and back is no bend, nor where it stays a little above.
func (n note) swings() float64 {
	above := n.sway.Low - n.settled
	if above < 0 || above > in { // it is bent there, and sways on the bend
		above = 0
	}
	return above + 2*n.sway.Sway + in/2
}

// limit keeps a figure of a vibrato where such figures are.
func limit(v, most float64) float64 { return max(0, min(most, v)) }

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
	if n.settled != 0 && (octaves(o.MIDI, n.settled) || thirds(o.MIDI, n.settled)) {
		// No finger jumps an octave on a string: one of the two was misheard, as its period taken twice or three times.
		clear := n.strength(n.settled) >= leastTwice || thirds(o.MIDI, n.settled) && n.clarity >= vague
		firm := clear && slices.ContainsFunc(l.near(n.at), func(e judge.Expected) bool { return e.Holds(n.settled) })
		if n.strength(o.MIDI) >= n.strength(n.settled) && !firm {
			n.settled = o.MIDI
		}
		return
	}
	if n.sway.Sway > 0 && math.Abs(o.MIDI-n.settled) < n.swings() {
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
		own = own || e.Joined || !e.Bent && l.meant(n, o.Tick, e) // as good as joined: its stroke was too soft to be heard
	}
	if own {
		l.cut(o.Tick)
		// What follows is told of the same stroke: the new note takes its number.
		seq := n.seq
		n.seq = -seq
		l.add(note{seq: seq, at: o.Tick, settled: o.MIDI, weighed: true, fresh: 1})
		return
	}
	if n.settled != 0 && math.Abs(o.MIDI-n.settled) > bendable {
		return // the note is over, and something else sounds on
	}
	if math.Abs(o.MIDI-n.settled) > math.Abs(n.furthest-n.settled) || n.furthest == 0 {
		n.furthest = o.MIDI
	}
}

// meant tells that a note is another one than the one that it came to at a tick: what was to be played before.
func (l *Listener) meant(n *note, tick float64, to judge.Expected) bool {
	return math.Abs(to.At-tick) < to.At-n.at && slices.ContainsFunc(l.near(n.at), func(e judge.Expected) bool { return e.At < to.At && math.Abs(e.Pitch-n.settled) <= in })
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

// Note is a note with what the ear knows of how it was played.
type Note struct {
	judge.Heard
	Struck   float64 // MIDI number, with its cents, at which it was struck; 0 where it was never heard to rest
	Unstruck bool    // it was reached without a stroke, from the note before
	Clarity  float64 // of its pitch, 0 to 1
	Fresh    float64 // how much of what sounded was new, 0 to 1; 1 where it was not struck
}

// Heard lists the notes that are known by now, in order of time. Only what changed since it
// was asked before is decided anew.
func (l *Listener) Heard() []judge.Heard {
	notes := l.Notes()
	heard := make([]judge.Heard, len(notes))
	for i, n := range notes {
		heard[i] = n.Heard
	}
	return heard
}

// Notes is Heard with what is known beside it.
func (l *Listener) Notes() []Note {
	l.decide()
	heard := make([]Note, 0, len(l.notes))
	usual, who, loud := l.usual(), l.who(), l.loud()
	for i, n := range l.notes {
		d := l.decided[i]
		switch stroke := n.weighed && n.struck; {
		case who == nobody || who == unknown && !d.meant:
			continue // nobody knows yet that it is the player
		case stroke && n.level < loud && (d.theirs || !d.meant):
			continue // no louder than the band
		case !n.struck && d.theirs && !d.meant:
			continue // the player's note is over, and the band rings on
		case stroke && !d.meant && (n.level < usual-quiet || n.level < usual-softer && d.theirs):
			continue // somebody else
		}
		for k, pitch := range d.pitches {
			h := n.sway
			if k > 0 {
				h.Low = 0 // it is the first one's
			}
			h.At, h.Pitch, h.Doubt = n.at, pitch, who == unknown
			if n.end > n.at {
				h.Length = n.end - n.at
			}
			heard = append(heard, Note{h, n.settled, !n.struck, n.clarity, n.fresh})
		}
	}
	slices.SortStableFunc(heard, func(a, b Note) int { return cmp.Or(cmp.Compare(a.At, b.At), cmp.Compare(a.Pitch, b.Pitch)) })
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
// What jumped there without a stroke may be what the band struck before and lets ring.
func (l *Listener) theirs(n note, pitches []float64) bool {
	sounding := within(l.band, n.at, aside)
	if !n.struck {
		sounding = within(l.band, n.at+aside-rings/2, rings/2)
	}
	for _, e := range sounding {
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
