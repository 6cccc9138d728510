package judge

import (
	"math"
	"math/rand/v2"

	"undaris/core/harmony"
	"undaris/core/neck"
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
	Drift     float64                  // milliseconds later from bar to bar
	Home      neck.Region              // where this player errs as told, twice as often outside; everywhere where none is said
	Ease      int                      // beats a minute up to which this player errs as told, twice as often for each twenty more; 0 is any
	Lost      float64                  // how often, from bar to bar, the player loses the form, for a few bars
	Still     bool                     // plays without vibrato
	Seed      uint64
	Inaudible bool // plays nothing at all
}

// Erred is what a simulated player did otherwise, by the score's notes.
type Erred struct {
	Wrong, Late, Missed, Bent map[int]bool
	Lost                      []Lost
}

// strayed is how many bars a player who is lost stays so.
const strayed = 3

// harder is how many times as often a note goes wrong where it lies, and at a tempo.
func (p Player) harder(n score.Note, tempo int) float64 {
	times := 1.0
	if p.Home != (neck.Region{}) && (n.Fret < p.Home.Low || n.Fret > p.Home.High) {
		times = 2
	}
	if p.Ease > 0 && tempo > p.Ease {
		times *= math.Exp2(float64(tempo-p.Ease) / 20)
	}
	return times
}

// Play plays a score.
func (p Player) Play(s score.Score, tempo int, swing float64) ([]Heard, Erred) {
	rng := rand.New(rand.NewPCG(p.Seed, 29))
	e := Erred{Wrong: map[int]bool{}, Late: map[int]bool{}, Missed: map[int]bool{}, Bent: map[int]bool{}}
	if p.Lost > 0 {
		for bar := 1; bar < len(s.Bars)-1; bar++ {
			if rng.Float64() < p.Lost {
				shifts := Shifts(s.Beats)[:6]
				e.Lost = append(e.Lost, Lost{bar, min(len(s.Bars), bar+strayed), shifts[rng.IntN(len(shifts))]})
				bar += 2 * strayed
			}
		}
	}
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
		h.At += ticks(p.Drift * float64(s.BarOf(n.Start)))
		if chord, ok := s.ChordAt(n.Start); ok {
			if tone, ok := chord.ToneAt(pitch.Class(n.Heard())); ok {
				if own, said := p.WrongOf[tone.Degree.Role()]; said {
					wrong = own
				}
			}
		}
		wrong = min(1, wrong*p.harder(n, tempo))
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
		for _, l := range e.Lost {
			if bar := s.BarOf(n.Start); bar >= l.From && bar < l.To {
				h.At += l.By * score.Tick
			}
		}
		if !p.Still && (n.Vibrato || n.Length >= score.Tick) && !x.Dead {
			x.plays(&h)
		}
		heard = append(heard, h)
	}
	return heard, e
}
