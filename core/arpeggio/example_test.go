package arpeggio_test

import (
	"fmt"

	"undaris/core/arpeggio"
	"undaris/core/harmony"
	"undaris/core/neck"
)

func Example() {
	run := arpeggio.Make(neck.Standard(), harmony.MustParse("F7"), neck.Region{Low: 7, High: 11}, neck.UsualHand, nil)
	for _, n := range run.Notes[:4] {
		fmt.Printf("%s on %d:%d with finger %d\n", n.Degree, n.String, n.Fret, n.Finger)
	}
	// Output:
	// 5 on 6:8 with finger 2
	// b7 on 6:11 with finger 4
	// R on 5:8 with finger 2
	// 3 on 4:7 with finger 1
}
