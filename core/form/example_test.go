package form_test

import (
	"fmt"

	"undaris/core/form"
)

func Example() {
	key, _ := form.ParseKey("Ab")
	quick, _ := form.FormByID("quick-change")
	p := quick.In(key)
	fmt.Println(p.Text())
	fmt.Println(p.Places()[1].Chord, "is", form.Numeral(p.Places()[1].Chord, key))
	// Output:
	// | Ab7 | Db7 | Ab7 | Ab7 |
	// | Db7 | Db7 | Ab7 | Ab7 |
	// | Eb7 | Db7 | Ab7 | Eb7 |
	// Db7 is IV7
}
