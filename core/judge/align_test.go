package judge

import (
	"math"
	"slices"
	"testing"

	"pgregory.net/rapid"
)

// whole is the least cost of an alignment, weighed over every pair.
func whole(expected []Expected, heard []Heard) float64 {
	n, m := len(expected), len(heard)
	cost := make([][]float64, n+1)
	for i := n; i >= 0; i-- {
		cost[i] = make([]float64, m+1)
		for j := m; j >= 0; j-- {
			best := math.Inf(1)
			if i == n && j == m {
				best = 0
			}
			if i < n {
				best = min(best, cost[i+1][j]+unheard)
			}
			if j < m {
				best = min(best, cost[i][j+1]+extra)
			}
			if i < n && j < m {
				best = min(best, cost[i+1][j+1]+pair(expected[i], heard[j]))
			}
			cost[i][j] = best
		}
	}
	return cost[0][0]
}

// The alignment is the best of all, keeps the order of both, and costs what it says.
func TestTheAlignmentIsTheBest(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		times := rapid.SliceOfN(rapid.Float64Range(-960, 9600), 0, 14)
		pitches := rapid.Float64Range(50, 62)
		var expected []Expected
		for _, at := range slices.Sorted(slices.Values(times.Draw(t, "expected"))) {
			expected = append(expected, Expected{At: at, Pitch: math.Round(pitches.Draw(t, "pitch")), Bent: rapid.Bool().Draw(t, "bent")})
		}
		var heard []Heard
		for _, at := range slices.Sorted(slices.Values(times.Draw(t, "heard"))) {
			heard = append(heard, Heard{At: at, Pitch: pitches.Draw(t, "sound")})
		}
		found, cost := align(expected, heard)
		if least := whole(expected, heard); math.Abs(cost-least) > 1e-9 {
			t.Fatalf("it costs %v, and %v can be had", cost, least)
		}
		sum, last := 0.0, -1
		for i, j := range found {
			if j < 0 {
				sum += unheard
				continue
			}
			if j <= last {
				t.Fatalf("out of order: %v", found)
			}
			last = j
			sum += pair(expected[i], heard[j])
		}
		matched := 0
		for _, j := range found {
			if j >= 0 {
				matched++
			}
		}
		if sum += float64(len(heard)-matched) * extra; math.Abs(sum-cost) > 1e-9 {
			t.Fatalf("%v costs %v, not %v", found, sum, cost)
		}
	})
}

// What comes as late as a note can is the same note for the cost and for the search, however its tick was rounded.
func TestTheLastMomentOfANote(t *testing.T) {
	expected := []Expected{{At: -furthest * 960, Pitch: 50, Bent: true}, {At: 1, Pitch: 50}}
	heard := []Heard{{At: 5.684341886080802e-14, Pitch: 50.75}}
	if _, cost := align(expected, heard); math.Abs(cost-whole(expected, heard)) > 1e-9 {
		t.Fatalf("it costs %v, and %v can be had", cost, whole(expected, heard))
	}
}
