package band

import (
	"cmp"
	"math"

	"undaris/core/neck"
	"undaris/core/score"
)

// Bend is how far a sounding note is pushed from its pitch: from At ticks after
// its start on it stands Cents higher, or lower when negative.
type Bend struct {
	At    int
	Cents int
}

// MaxCents is the furthest a note can be pushed either way.
const MaxCents = 1200

// glide is how long a bend, a slide or a scoop takes, in ticks: a sixteenth.
const glide = Tick / 4

// Lead makes sound of a written line: bends and slides push the pitch, vibrato
// sways it, trills are struck over and over, a rake strikes muted strings first,
// and each way to play has its loudness and length. Notes are in straight
// eighths; Play swings them.
func Lead(s score.Score) []Note {
	var out []Note
	from := map[int]int{} // of a joined note, the pitch it comes from
	for i, n := range s.Notes {
		if next, ok := s.Joined(i); ok {
			from[next] = n.Heard()
		}
	}
	for i, n := range s.Notes {
		note := Note{Start: n.Start, Length: n.Length, MIDI: n.Pitch.MIDI(), Velocity: 100}
		for _, w := range score.Ways {
			if w.Of(n.Ornaments) == 0 {
				continue
			}
			note.Velocity += w.Sound.Louder
			if w.Sound.Part > 0 {
				note.Length = max(1, note.Length*w.Sound.Part/100)
			}
			if w.Sound.Most > 0 {
				note.Length = min(note.Length, w.Sound.Most)
			}
		}
		note.Velocity = min(127, max(20, note.Velocity))
		out = append(out, raked(s, n)...)
		switch {
		case n.Dead:
		case n.Trill > 0:
			out = append(out, trilled(note, n.Trill)...)
			continue
		case n.Double > 0 && note.Length >= Tick/4:
			out = append(out, figure(note, 0, n.Double, 0)...)
			continue
		case n.Turn > 0 && note.Length >= Tick/2:
			out = append(out, turned(note, n.Turn)...)
			continue
		default:
			note.Bends = bends(n, note.Length, from[i], s.Tempo)
		}
		out = append(out, note)
	}
	return out
}

// raked strikes the muted strings below a note just before it.
func raked(s score.Score, n score.Note) (out []Note) {
	const step = Tick / 24
	for i := n.Rake; i > 0; i-- {
		p := neck.Placement{String: n.String + i, Fret: n.Fret}
		if start := n.Start - i*step; s.In.CheckPlacement(p) == nil && start >= -s.MostPickup() {
			out = append(out, Note{Start: start, Length: step, MIDI: s.In.MIDI(p), Velocity: 50, Within: true})
		}
	}
	return out
}

// trilled strikes a note and its neighbour in turn, six to the beat.
func trilled(n Note, halfSteps int) (out []Note) {
	const step = Tick / 6
	for at := 0; at < n.Length; at += step {
		part := n
		part.Start, part.Length = n.Start+at, min(step, n.Length-at)
		part.Within = at > 0
		if at/step%2 == 1 {
			part.MIDI, part.Velocity = n.MIDI+halfSteps, n.Velocity-14
		}
		out = append(out, part)
	}
	return out
}

// ornament is how long a stroke of a turn or of a double is at most, in ticks.
const ornament = Tick / 8

// figure plays half steps from a note one after the other, the last for what is left of it.
// Only the first is struck.
func figure(n Note, halfSteps ...int) (out []Note) {
	step := min(ornament, n.Length/(len(halfSteps)+1))
	for i, up := range halfSteps {
		part := n
		part.Start, part.Length, part.MIDI = n.Start+i*step, step, n.MIDI+up
		if part.Within = n.Within || i > 0; i > 0 {
			part.Velocity = n.Velocity - 14
		}
		if i == len(halfSteps)-1 {
			part.Length = n.Length - i*step
		}
		out = append(out, part)
	}
	return out
}

// turned holds a note for half its length; then it goes over its upper and its lower
// neighbour back to itself.
func turned(n Note, halfSteps int) (out []Note) {
	held, rest := n, n
	held.Length = n.Length / 2
	rest.Start, rest.Length, rest.Within, rest.Velocity = n.Start+held.Length, n.Length-held.Length, true, n.Velocity-10
	return append([]Note{held}, figure(rest, halfSteps, 0, -halfSteps, 0)...)
}

// The usual vibrato: cents either way, and sways a second.
const (
	usualWidth = 18
	usualSpeed = 5
)

// bends follows the string through a note that sounds for a length.
func bends(n score.Note, length, from, tempo int) (out []Bend) {
	quick := min(glide, length/3)
	ramp := func(at, length, low, high int) {
		const steps = 8
		for i := 1; i <= steps; i++ {
			out = append(out, Bend{at + length*i/steps, low + (high-low)*i/steps})
		}
	}
	top, rest, end := 50*n.Bend, 50*n.ReleaseTo, length
	bent := n.PreBend || n.Again
	switch off := 100 * (from - n.Pitch.MIDI()); {
	case bent:
		out = append(out, Bend{0, top})
	case n.Join == score.Slide && from > 0 && off != 0 && off >= -MaxCents && off <= MaxCents:
		out = append(out, Bend{0, off})
		ramp(0, quick, off, 0)
	case n.Scoop != 0:
		out = append(out, Bend{0, -100 * n.Scoop})
		ramp(0, quick, -100*n.Scoop, 0)
	}
	if n.SlideBack != 0 {
		ramp(quick, quick/2, 0, 100*n.SlideBack)
		ramp(quick+quick, quick/2, 100*n.SlideBack, 0)
	}
	if n.Bend > 0 && !bent {
		ramp(quick/2, quick, 0, top)
	}
	switch {
	case n.Release:
		end = length * 3 / 5
	case n.SlideOut != 0:
		end = length - quick
	}
	if n.Vibrato && end > Tick/2 {
		width, speed := cmp.Or(n.Width, usualWidth), cmp.Or(n.Speed, usualSpeed)
		sway := float64(Tick*max(tempo, 30)) / float64(60*speed)
		for at := max(Tick/4, 2*quick); at < end; at += Tick / 16 {
			out = append(out, Bend{at, top + int(float64(width)*math.Sin(2*math.Pi*float64(at)/sway))})
		}
	}
	switch {
	case n.Release:
		ramp(end, min(quick, length-end), top, rest)
	case n.SlideOut != 0:
		ramp(end, quick, top, top+100*n.SlideOut)
	}
	return out
}

// Turn is a note of a lead whose notes follow each other; MIDI 0 rests.
type Turn struct {
	MIDI  int
	Beats float64
	With  []int // what sounds together with it
}

// InTurn plays notes one after the other.
func InTurn(turns []Turn) (lead []Note) {
	now := 0
	for _, t := range turns {
		ticks := int(t.Beats * Tick)
		if t.MIDI > 0 {
			for _, midi := range append([]int{t.MIDI}, t.With...) {
				lead = append(lead, Note{Start: now, Length: max(1, ticks), MIDI: min(127, max(0, midi))})
			}
		}
		now += ticks
	}
	return lead
}
