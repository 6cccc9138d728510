// Command year lets simulated learners practise for a year, by the plan and
// otherwise, and prints how they fared. With -fit it fits the model first.
package main

import (
	"flag"
	"fmt"
	"math"
	"runtime"
	"sync"

	"undaris/core/planner"
)

func main() {
	learners := flag.Int("learners", 200, "how many learners")
	seed := flag.Uint64("seed", 1, "of the first; those of the fit begin at 1000")
	fit := flag.Bool("fit", false, "fit the parameters and print them")
	flag.Parse()
	if *fit {
		var seeds []uint64
		for i := range uint64(12) {
			seeds = append(seeds, 1000+i)
		}
		planner.Fit(seeds, planner.Fitted, 3, func(loss float64, p planner.Params) { fmt.Printf("log loss %.5f  %+v\n", loss, p) })
		return
	}
	years := make([][]planner.Year, len(planner.Policies))
	var wait sync.WaitGroup
	places := make(chan struct{}, runtime.GOMAXPROCS(0))
	for k, policy := range planner.Policies {
		years[k] = make([]planner.Year, *learners)
		for i := range *learners {
			wait.Add(1)
			places <- struct{}{}
			go func() {
				defer func() { <-places; wait.Done() }()
				years[k][i] = planner.Live(*seed+uint64(i), policy, planner.Fitted, planner.Days)
			}()
		}
	}
	wait.Wait()
	fmt.Printf("%d learners, seeds %d to %d; %d minutes on five days a week; the goal is %.0f %% of everything\n\n", *learners, *seed, *seed+uint64(*learners)-1, planner.Session, 100*planner.Goal)
	fmt.Println("policy              minutes to the goal   reached   level after a year   minutes more than the plan (95 %)")
	for k, policy := range planner.Policies {
		m := mean(years[k], func(y planner.Year) float64 { return float64(y.Minutes) })
		reached := mean(years[k], func(y planner.Year) float64 {
			if y.Reached {
				return 1
			}
			return 0
		})
		level := mean(years[k], func(y planner.Year) float64 { return y.Level })
		fmt.Printf("%-18s  %6.0f                %5.1f %%   %.3f", policy.Name, m, 100*reached, level)
		if k > 0 {
			var more []float64
			for i := range years[k] {
				more = append(more, float64(years[k][i].Minutes-years[0][i].Minutes))
			}
			d, e := spread(more)
			fmt.Printf("                %+.0f (%.0f to %.0f)", d, d-1.96*e, d+1.96*e)
		}
		fmt.Println()
	}
	fmt.Println("\nmost days that something went unseen, by the plan, of any learner:")
	for _, kind := range []planner.Kind{"key", "position", planner.Degree, planner.Place} {
		most := 0
		for _, y := range years[0] {
			most = max(most, y.Unseen[kind])
		}
		fmt.Printf("  %-9s %d\n", kind, most)
	}
	for _, k := range []int{0, 1} {
		var all []planner.Guess
		for _, y := range years[k] {
			all = append(all, y.Guesses...)
		}
		fmt.Printf("\npredictions, %s: log loss %.4f, Brier %.4f\n  said      came true   times\n", planner.Policies[k].Name, planner.Loss(all), planner.Brier(all))
		for b := range 10 {
			n, well, said := 0, 0, 0.0
			for _, g := range all {
				if min(9, int(g.P*10)) == b {
					n++
					said += g.P
					if g.Well {
						well++
					}
				}
			}
			if n > 0 {
				fmt.Printf("  %.3f     %.3f       %d\n", said/float64(n), float64(well)/float64(n), n)
			}
		}
	}
}

func mean(years []planner.Year, of func(planner.Year) float64) float64 {
	sum := 0.0
	for _, y := range years {
		sum += of(y)
	}
	return sum / float64(len(years))
}

// spread is a mean and its standard error.
func spread(list []float64) (m, e float64) {
	for _, x := range list {
		m += x / float64(len(list))
	}
	for _, x := range list {
		e += (x - m) * (x - m)
	}
	return m, math.Sqrt(e/float64(len(list)-1)) / math.Sqrt(float64(len(list)))
}
