package crossing_test

import (
	"fmt"

	"undaris/core/crossing"
	"undaris/core/harmony"
	"undaris/core/neck"
)

func Example() {
	moves := crossing.Between(neck.Standard(), harmony.MustParse("C7"), harmony.MustParse("F7"),
		neck.Region{Low: 7, High: 11}, crossing.Ranking{Order: harmony.UsualOrder})
	m := moves[0]
	fmt.Println(m.From.Name, "to", m.To.Name, "is", m.From.Degree, "to", m.To.Degree, m.HalfSteps, m.Kind)
	// Output:
	// Bb to A is b7 to 3 -1 half step
}
