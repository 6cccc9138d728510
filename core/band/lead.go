package band

import (
	"math"

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
// sways it, hammered and pulled notes are softer, dead ones short, trills struck
// over and over. Notes are in straight eighths; Play swings them.
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
		switch {
		case n.Accent:
			note.Velocity = 118
		case n.Join == score.Hammer || n.Join == score.PullOff:
			note.Velocity = 84
		}
		if n.Dead {
			note.Length, note.Velocity = min(n.Length, Tick/12), 56
			out = append(out, note)
			continue
		}
		if n.Trill > 0 {
			out = append(out, trilled(note, n.Trill)...)
			continue
		}
		note.Bends = bends(n, from[i])
		out = append(out, note)
	}
	return out
}

// trilled strikes a note and its neighbour in turn, six to the beat.
func trilled(n Note, halfSteps int) (out []Note) {
	const step = Tick / 6
	for at := 0; at < n.Length; at += step {
		part := n
		part.Start, part.Length = n.Start+at, min(step, n.Length-at)
		if at/step%2 == 1 {
			part.MIDI, part.Velocity = n.MIDI+halfSteps, n.Velocity-14
		}
		out = append(out, part)
	}
	return out
}

// bends follows the string through a note.
func bends(n score.Note, from int) (out []Bend) {
	quick := min(glide, n.Length/3)
	ramp := func(at, length, low, high int) {
		const steps = 8
		for i := 1; i <= steps; i++ {
			out = append(out, Bend{at + length*i/steps, low + (high-low)*i/steps})
		}
	}
	switch off := 100 * (from - n.Pitch.MIDI()); {
	case n.Join == score.Slide && from > 0 && off != 0 && off >= -MaxCents && off <= MaxCents:
		out = append(out, Bend{0, off})
		ramp(0, quick, off, 0)
	case n.Scoop != 0:
		out = append(out, Bend{0, -100 * n.Scoop})
		ramp(0, quick, -100*n.Scoop, 0)
	}
	top := 50 * n.Bend
	if n.Bend > 0 {
		ramp(quick/2, quick, 0, top)
	}
	end := n.Length
	if n.Release {
		end = n.Length * 3 / 5
	}
	if n.Vibrato && end > Tick/2 {
		for at := max(Tick/4, 2*quick); at < end; at += Tick / 16 {
			out = append(out, Bend{at, top + int(18*math.Sin(2*math.Pi*float64(at)/(Tick/2.5)))})
		}
	}
	if n.Release {
		ramp(end, min(quick, n.Length-end), top, 0)
	}
	return out
}
