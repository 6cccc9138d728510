package judge

import (
	"math/rand/v2"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/score"
)

// Player is a simulated player: how likely and how far it errs. It plays the same
// with the same seed.
type Player struct {
	Wrong     float64                  // how often a neighbouring note is played, 0 to 1
	WrongOf   map[harmony.Role]float64 // the same for single roles, in its place
	Late      float64                  // how often a landing comes late
	Missed    float64                  // how often a note is not played
	Bad       float64                  // how often a bend comes out flat or sharp
	Spread    float64                  // milliseconds that onsets scatter, a standard deviation
	Tendency  float64                  // milliseconds late as a whole
	Seed      uint64
	Inaudible bool // plays nothing at all
}

// Erred is what a simulated player did otherwise, by the score's notes.
type Erred struct{ Wrong, Late, Missed, Bent map[int]bool }

// Play plays a score.
func (p Player) Play(s score.Score, tempo int, swing float64) ([]Heard, Erred) {
	rng := rand.New(rand.NewPCG(p.Seed, 29))
	e := Erred{map[int]bool{}, map[int]bool{}, map[int]bool{}, map[int]bool{}}
	ticks := func(ms float64) float64 { return ms / 60000 * float64(tempo) * score.Tick }
	var heard []Heard
	expected := Sounding(s, swing)
	for i, n := range s.Notes {
		x := expected[i]
		h := Heard{At: x.At + ticks(p.Tendency+rng.NormFloat64()*p.Spread), Length: float64(n.Length), Pitch: x.Pitch + rng.NormFloat64()*0.03}
		next := x.At + 2*score.Tick
		if i+1 < len(expected) {
			next = expected[i+1].At
		}
		wrong := p.Wrong
		if chord, ok := s.ChordAt(n.Start); ok {
			if tone, ok := chord.ToneAt(pitch.Class(n.Heard())); ok {
				if own, said := p.WrongOf[tone.Degree.Role()]; said {
					wrong = own
				}
			}
		}
		switch {
		case p.Inaudible || rng.Float64() < p.Missed:
			e.Missed[i] = true
			continue
		case !x.Dead && rng.Float64() < wrong:
			e.Wrong[i] = true
			h.Pitch += []float64{-2, -1, 1, 2}[rng.IntN(4)]
		case x.Bent && rng.Float64() < p.Bad:
			e.Bent[i] = true
			h.Pitch = x.Pitch - 0.4 - 0.2*rng.Float64()
			if rng.IntN(2) == 0 {
				h.Pitch = x.Pitch + 0.25 + 0.2*rng.Float64()
			}
		}
		if room := (next - x.At) / score.Tick; s.Change(n.Start) && n.Start%score.Tick == 0 && room >= 0.5 && rng.Float64() < p.Late {
			e.Late[i] = true
			h.At = x.At + ticks(p.Tendency) + score.Tick*min(0.5, 0.8*room)
		}
		heard = append(heard, h)
	}
	return heard, e
}
