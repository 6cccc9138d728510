// Command year lets simulated learners of several structures practise for a year, by the plan and
// otherwise, and prints how they fared. With -fit it fits the model first.
package main

import (
	"flag"
	"fmt"
	"runtime"
	"strings"
	"sync"

	"undaris/core/learner"
	"undaris/core/planner"
)

func main() {
	learners := flag.Int("learners", 60, "how many learners of each kind")
	seed := flag.Uint64("seed", 1, "of the first; those of the fit begin at 1000")
	fit := flag.Bool("fit", false, "fit the parameters and print them")
	days := flag.Int("days", Days, "of a year")
	only := flag.String("only", "", "one kind of learner")
	flag.Parse()
	if *fit {
		var seeds []uint64
		for i := range uint64(12) {
			seeds = append(seeds, 1000+i)
		}
		Fit(seeds, planner.Fitted, 3, func(loss float64, p planner.Params) { fmt.Printf("log loss %.5f  %+v\n", loss, p) })
		return
	}
	for _, kind := range learner.Kinds {
		if *only == "" || *only == kind.ID {
			compare(kind, *learners, *seed, *days)
		}
	}
}

// years has learners of a kind practise by every policy.
func years(kind learner.Kind, learners int, seed uint64, days int) [][]Year {
	out := make([][]Year, len(Policies))
	var wait sync.WaitGroup
	places := make(chan struct{}, runtime.GOMAXPROCS(0))
	for k, policy := range Policies {
		out[k] = make([]Year, learners)
		for i := range learners {
			wait.Add(1)
			places <- struct{}{}
			go func() {
				defer func() { <-places; wait.Done() }()
				out[k][i] = Live(seed+uint64(i), kind, policy, planner.Fitted, days)
			}()
		}
	}
	wait.Wait()
	return out
}

// of are levels of some learners at a mark.
func of(list []Year, mark int, worst bool) (out []float64) {
	for _, y := range list {
		levels := y.Level
		if worst {
			levels = y.Worst
		}
		if mark < len(levels) {
			out = append(out, levels[mark])
		}
	}
	return out
}

func mean(list []float64) (m float64) {
	for _, x := range list {
		m += x / float64(len(list))
	}
	return m
}

func compare(kind learner.Kind, learners int, seed uint64, days int) {
	all := years(kind, learners, seed, days)
	fmt.Printf("%s: %s\n%d learners, seeds %d to %d, %d minutes a day; levels, and what the plan has more (95 %%)\n\n", kind.ID, kind.About, learners, seed, seed+uint64(learners)-1, Session)
	fmt.Printf("%-18s", "policy")
	for _, m := range Marks {
		fmt.Printf("  %-24s", fmt.Sprintf("%d minutes", m))
	}
	for _, m := range Marks {
		fmt.Printf("  %-24s", fmt.Sprintf("worst tenth, %d", m))
	}
	fmt.Println()
	for k, policy := range Policies {
		line := fmt.Sprintf("%-18s", policy.Name)
		for _, worst := range []bool{false, true} {
			for m := range Marks {
				plan, own := of(all[0], m, worst), of(all[k], m, worst)
				if len(own) < 2 || len(own) != len(plan) {
					line += fmt.Sprintf("  %-24s", "–")
					continue
				}
				cell := fmt.Sprintf("%.3f", mean(own))
				if k > 0 {
					more, half := paired(plan, own)
					cell += fmt.Sprintf("  %+.3f ± %.3f", more, half)
				}
				line += fmt.Sprintf("  %-24s", cell)
			}
		}
		fmt.Println(strings.TrimRight(line, " "))
	}
	fmt.Println("\nmost days that something went unseen, by the plan, of any learner:")
	for _, k := range []planner.Kind{keys, positions, planner.Degree, planner.Place} {
		most := 0
		for _, y := range all[0] {
			most = max(most, y.Unseen[k])
		}
		fmt.Printf("  %-9s %d\n", k, most)
	}
	for _, k := range []int{0, 1} {
		var guesses []Guess
		for _, y := range all[k] {
			guesses = append(guesses, y.Guesses...)
		}
		model, usual, known := Brier(guesses, func(g Guess) float64 { return g.P }), Brier(guesses, func(g Guess) float64 { return g.Usual }), Brier(guesses, func(g Guess) float64 { return g.Known })
		fmt.Printf("\npredictions, %s: log loss %.4f; Brier %.4f, of a running mean %.4f, of who knows the learner %.4f: %.0f %% of that gain\n  said      came true   times\n", Policies[k].Name, Loss(guesses), model, usual, known, 100*(usual-model)/(usual-known))
		for _, t := range Calibration(guesses) {
			if t.Times > 0 {
				fmt.Printf("  %.3f     %.3f       %d\n", t.Said, t.True, t.Times)
			}
		}
	}
	fmt.Println()
}
