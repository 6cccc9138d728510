package planner_test

import (
	"fmt"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/core/neck"
	"undaris/core/planner"
)

// anyLog is a log of some weeks, of few keys, so that much is asked again: calls, and changes of two charts.
func anyLog(rng *rand.Rand) (log []planner.Played) {
	outcomes := []float64{1, 1, 1, 0.7, 0.4, 0.2, 0}
	for i := range 20 + rng.IntN(200) {
		p := planner.Played{Entry: uint(i + 1), At: monday.Add(-time.Duration(rng.IntN(60*24*60)) * time.Minute), Chart: uint(1 + rng.IntN(2)), Call: rng.IntN(3) > 0, Seconds: 30, Tempo: 80}
		ask := planner.Ask{Key: rng.IntN(3), Position: rng.IntN(3), Quality: "7", Degree: planner.Degrees[rng.IntN(2)], Down: rng.IntN(2) == 0, Device: "tones"}
		if p.Call {
			p.Trials = []planner.Trial{{Ask: ask, At: p.At, Entry: p.Entry, Success: outcomes[rng.IntN(len(outcomes))]}}
		} else {
			ask.Device, ask.Tempo = "land", 80
			for bar, c := range [][2]string{{"C7", "F7"}, {"F7", "C7"}, {"C7", "G7"}} {
				t := planner.Trial{Ask: ask, At: p.At, Entry: p.Entry, Chart: p.Chart, From: c[0], Chord: c[1], Bar: bar + 1, Met: "on time", Success: []float64{0, 0.5, 1}[rng.IntN(3)]}
				p.Trials = append(p.Trials, t)
			}
			if rng.IntN(2) == 0 {
				p.Line, p.Notes = uint(1+rng.IntN(2)), 5+rng.IntN(20)
				p.Good = rng.IntN(p.Notes + 1)
			}
		}
		log = append(log, p)
	}
	return log
}

var (
	calledFor = regexp.MustCompile(`^Calls in (\S+), (.*), (upward|downward) from the (\w+)(, and \d+ more)?$`)
	figures   = regexp.MustCompile(`\d+`)
)

// Every number in a reason is a recount of the log's own trials for the very thing that is asked: right at once is right at once,
// that day is that day, and what was never asked was not.
func TestReasonsAreRecounts(t *testing.T) {
	const logs = 1000
	seen := map[string]int{}
	for seed := range uint64(logs) {
		rng := rand.New(rand.NewPCG(seed, 40))
		log := anyLog(rng)
		model, picture := planner.New(planner.Fitted), planner.NewPicture(planner.Fitted)
		for _, p := range log {
			picture.Add(p)
			for _, trial := range p.Trials {
				model.Learn(trial.Ask, trial.Success, trial.At)
			}
		}
		order := planner.Order{In: neck.Standard(), Hand: neck.UsualHand, Minutes: 40, Seed: seed, Tunes: []planner.Tune{{ID: 1, Title: "One", Tempo: 90, Qualities: []string{"7"}}, {ID: 2, Title: "Two", Key: 2, Tempo: 90, Qualities: []string{"7"}}}}
		for line := range uint(3) {
			order.Pieces = append(order.Pieces, planner.Written{ID: line, Title: "Piece", Tempo: 80, Count: picture.Takes(line)})
		}
		for _, item := range model.Plan(order, picture.Tally, monday) {
			var n []int
			for _, text := range figures.FindAllString(item.Why, -1) {
				x, _ := strconv.Atoi(text)
				n = append(n, x)
			}
			where := fmt.Sprintf("log %d: %s: %s", seed, item.Title, item.Why)
			switch item.Kind {
			case planner.Calls:
				require.Regexp(t, calledFor, item.Title)
				trials, right, place, last := 0, 0, 0, time.Time{}
				for _, p := range log {
					for _, trial := range p.Trials {
						if trial.Key != item.Ask.Key || trial.Position != item.Ask.Position {
							continue
						}
						if place++; !p.Call || trial.Degree != item.Ask.Degree || trial.Down != item.Ask.Down {
							continue
						}
						if trials++; trial.Success == 1 {
							right++
						}
						if trial.At.After(last) {
							last = trial.At
						}
					}
				}
				switch {
				case strings.Contains(item.Why, "from the") && strings.Contains(item.Why, "never"):
					seen["ask"]++
					assert.True(t, trials == 0 && place > 0, where)
				case strings.Contains(item.Why, "never"):
					seen["place"]++
					assert.Zero(t, place, where)
				case strings.HasPrefix(item.Why, "not asked for in"):
					seen["long ago"]++
					thatDay, rightThen := 0, 0
					for _, p := range log {
						for _, trial := range p.Trials {
							if p.Call && trial.Ask.Key == item.Ask.Key && trial.Position == item.Ask.Position && trial.Degree == item.Ask.Degree && trial.Down == item.Ask.Down && planner.Day(trial.At) == planner.Day(last) {
								if thatDay++; trial.Success == 1 {
									rightThen++
								}
							}
						}
					}
					assert.Equal(t, []int{int(monday.Sub(last).Hours() / 24), rightThen, thatDay}, n, where)
				default:
					seen["so far"]++
					require.Len(t, n, 3, where)
					assert.Equal(t, []int{right, trials}, n[:2], where)
					p, _ := model.Predict(item.Ask, monday)
					assert.InDelta(t, 10*p, n[2], 0.51, where)
				}
			case planner.Changes:
				if strings.HasPrefix(item.ID, "begin ") {
					played := 0
					for _, p := range log {
						for _, trial := range p.Trials {
							if trial.Chart == item.Chart && trial.From != "" {
								played++
							}
						}
					}
					assert.Less(t, played, 12, where)
					assert.Equal(t, []int{item.Tempo}, n, where)
					continue
				}
				var from, to string
				_, err := fmt.Sscanf(item.ID, "change %d %s %s", new(int), &from, &to)
				require.NoError(t, err, item.ID)
				trials, met := 0, 0
				for _, p := range log {
					for _, trial := range p.Trials {
						if trial.Chart == item.Chart && trial.From == from && trial.Chord == to {
							if trials++; trial.Success == 1 {
								met++
							}
						}
					}
				}
				seen["change"]++
				assert.Equal(t, []int{met, trials}, n, where)
			case planner.Piece:
				if item.New {
					continue
				}
				var parts []float64
				var last time.Time
				for _, p := range log {
					if p.Line == item.Line {
						parts, last = append(parts, float64(p.Good)/float64(p.Notes)), p.At
					}
				}
				parts = parts[max(0, len(parts)-5):]
				mean := 0.0
				for _, x := range parts {
					mean += x / float64(len(parts))
				}
				want := []int{int(100*mean + 0.5)}
				if days := int(monday.Sub(last).Hours() / 24); days > 6 {
					want = append([]int{days}, want...)
				}
				if len(parts) > 1 {
					want = append(want, len(parts))
				}
				seen["piece"]++
				require.Len(t, n, len(want), where)
				for i := range n {
					assert.InDelta(t, want[i], n[i], 0.5, where)
				}
			}
		}
	}
	for _, kind := range []string{"ask", "place", "long ago", "so far", "change", "piece"} {
		assert.Greater(t, seen[kind], logs/20, kind)
	}
}
