package ear

import (
	"math"
	"slices"
)

// player is what is known of who is heard.
type player int

const (
	unknown player = iota // too little was heard
	nobody                // what is heard is no instrument: talk
	plays
)

// Limits of what is taken for an instrument: its strokes lie on the half steps of one tuning, whatever that is; a voice glides
// past them.
const (
	fewest   = 4    // strokes with a pitch, before anybody is known
	tuned    = 0.2  // half steps that one may be off, and be in tune
	mostly   = 0.85 // of the strokes, that an instrument has in tune
	hardly   = 0.5  // and beneath which it is none
	oneTone  = 0.6  // of the strokes, that a single pitch may have
	lately   = 24   // strokes that count, the last of them
	louder   = 5    // decibels above the band, from which on a stroke is the player's
	fewTheir = 4    // strokes of the band, before its level is known
	theirOwn = 0.6  // of all strokes with a pitch, that may be the band's where nobody plays what he likes
	mine     = 0.3  // of the strokes beside a band, that are the player's where somebody plays
	glides   = 4    // glides of a stroke's pitch, as a voice makes them
	gliding  = 0.4  // of the strokes, that may glide so
)

// Known tells that so many strokes of the same ear were in tune before: a player who was known goes on being known.
func (l *Listener) Known(strokes int) { l.before = max(0, min(lately/2, strokes)) }

// Music tells that what is heard is an instrument, whatever it sounds like: a recording's player says so.
func (l *Listener) Music() { l.music = true }

// InTune is how many strokes were in tune, with those of before; what [Listener.Known] takes when another begins.
func (l *Listener) InTune() int {
	if l.who() != plays {
		return 0
	}
	in, _ := l.tuning()
	return min(lately/2, in)
}

// who is heard.
func (l *Listener) who() player {
	if l.music {
		return plays
	}
	in, of := l.tuning()
	switch share := float64(in) / float64(max(1, of)); {
	case of < fewest:
		return unknown
	case share < hardly:
		return nobody
	case share < mostly || l.drones() || l.sung() || l.seldom(): // or a guitar whose every note sways: what is right stays right
		return unknown
	}
	return plays
}

// own lists the last strokes with a pitch that are louder than the band.
func (l *Listener) own() (settled []float64) {
	loud := l.loud()
	for i := len(l.notes) - 1; i >= 0 && len(settled) < lately; i-- {
		if n := l.notes[i]; n.struck && n.settled != 0 && n.weighed && n.level >= loud && (len(l.band) == 0 || i >= len(l.decided) || !l.decided[i].theirs) {
			settled = append(settled, n.settled)
		}
	}
	return settled
}

// tuning counts the strokes that lie on the half steps of one tuning.
func (l *Listener) tuning() (in, of int) {
	list := l.own()
	x, y := 0.0, 0.0
	for _, p := range list {
		x, y = x+math.Cos(2*math.Pi*p), y+math.Sin(2*math.Pi*p)
	}
	centre := math.Atan2(y, x) / (2 * math.Pi)
	for _, p := range list {
		if off := p - centre; math.Abs(off-math.Round(off)) <= tuned {
			in++
		}
	}
	return in + l.before, len(list) + l.before
}

// drones tells that nearly all strokes have one pitch, as where a tone feeds back and others strike.
func (l *Listener) drones() bool {
	list := l.own()
	if len(list) < 2*fewest {
		return false
	}
	slices.Sort(list)
	most, run := 0, 0
	for i := range list {
		if run++; i > 0 && list[i]-list[i-1] > tuned {
			run = 1
		}
		most = max(most, run)
	}
	return float64(most) > oneTone*float64(len(list))
}

// sung tells that the pitch wanders in too many strokes.
func (l *Listener) sung() bool {
	wander, of := 0, 0
	for i := len(l.notes) - 1; i >= 0 && of < lately; i-- {
		if n := l.notes[i]; n.struck && n.settled != 0 {
			of++
			if n.glided >= glides {
				wander++
			}
		}
	}
	return of >= fewest && float64(wander) > gliding*float64(of)
}

// seldom tells that few of the last strokes with a pitch are louder than the band and not its own: somebody talks or sings beside it.
func (l *Listener) seldom() bool {
	if len(l.band) == 0 {
		return false
	}
	own, of, loud := 0, 0, l.loud()
	for i := len(l.notes) - 1; i >= 0 && of < 2*lately; i-- {
		if n := l.notes[i]; n.struck && n.settled != 0 && n.weighed {
			of++
			if n.level >= loud && (i >= len(l.decided) || !l.decided[i].theirs) {
				own++
			}
		}
	}
	return of >= lately && float64(own) < mine*float64(of)
}

// loud is how loud a stroke has to be so as not to be the band's, in decibels: louder than three in four of those that are
// surely its own.
func (l *Listener) loud() float64 {
	var theirs []float64
	pitched := 0
	for i, d := range l.decided {
		if len(d.pitches) > 0 {
			pitched++
		}
		if n := l.notes[i]; d.theirs && !d.meant && n.weighed && n.struck {
			theirs = append(theirs, n.level)
		}
	}
	if len(theirs) < fewTheir || len(l.expected) == 0 && float64(len(theirs)) < theirOwn*float64(pitched) {
		return math.Inf(-1) // who plays what he likes often plays a tone of the band's with it
	}
	slices.Sort(theirs)
	return theirs[len(theirs)*3/4] + louder
}
