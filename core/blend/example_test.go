package blend_test

import (
	"fmt"

	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
)

func Example() {
	key, _ := form.ParseKey("C")
	box, _ := blend.PaletteByID("minor-pentatonic")
	b := blend.Over(key, box, harmony.MustParse("G7"))
	for _, n := range b.Notes {
		fmt.Println(n.Name, n.Sound.Degree, n.Reason())
	}
	for _, t := range b.Added {
		fmt.Println("reach for", t.Degree, t.Name)
	}
	// Output:
	// C 11 wants 3
	// Eb b13 pass on to 5
	// F b7 rest here
	// G R rest here
	// Bb #9 bend, slide or pass: wants 3
	// reach for 3 B
	// reach for 5 D
}
