package harmony_test

import (
	"fmt"

	"undaris/core/harmony"
)

func Example() {
	for _, t := range harmony.MustParse("D♭7").Tones {
		fmt.Println(t.Degree, t.Name)
	}
	_, err := harmony.Parse("Cmja7")
	fmt.Println(err)
	// Output:
	// R Db
	// 3 F
	// 5 Ab
	// b7 Cb
	// cannot read "ja7" in "Cmja7" (character 3); did you mean Cmaj7?
}
