package judge

import (
	"math"
	"slices"

	"undaris/core/score"
)

// Bounds of a second eighth, in parts of its beat: what lies outside is another
// division. A triplet's last third is at 0.667, a hard swing at 0.75.
const (
	onBeat         = 0.13
	earliestEighth = 0.42
	latestEighth   = 0.84
	enoughEighths  = 6
)

// Swing is where the second eighths of beats were played, in parts of a beat: 0.5 is
// straight, 0.667 a triplet's. It looks at beats with a note on the beat and one more,
// and takes the middle of them; 0 where fewer than six such beats were played.
func Swing(heard []Heard) float64 {
	beats := map[int][]float64{}
	for _, h := range heard {
		beat := math.Floor(h.At/score.Tick + onBeat)
		beats[int(beat)] = append(beats[int(beat)], h.At/score.Tick-beat)
	}
	var at []float64
	for _, in := range beats {
		slices.Sort(in)
		if len(in) != 2 || math.Abs(in[0]) > onBeat {
			continue
		}
		if apart := in[1] - in[0]; apart >= earliestEighth && apart <= latestEighth {
			at = append(at, apart)
		}
	}
	if len(at) < enoughEighths {
		return 0
	}
	slices.Sort(at)
	return at[len(at)/2]
}
