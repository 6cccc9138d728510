package chart

import (
	"undaris/core/blend"
	"undaris/core/form"
	"undaris/core/harmony"
	"undaris/core/neck"
)

// Division is a way to divide a neck, with its regions in a key, low to high.
type Division struct {
	neck.Way
	Regions []neck.Named
}

// Divide divides a neck in every way. Two notes of the minor pentatonic lie on a string,
// as in the boxes of the blues; three and four are of the key's own scale.
func Divide(in *neck.Instrument, key form.Key) (list []Division) {
	box, err := blend.PaletteByID("minor-pentatonic")
	if err != nil {
		panic(err) // a table test says that it is there
	}
	var pentatonic, scale []int
	for _, m := range box.Notes(key, harmony.Chord{}) {
		pentatonic = append(pentatonic, m.Name.Class())
	}
	for _, n := range key.Scale() {
		scale = append(scale, n.Class())
	}
	for _, w := range neck.Ways {
		steps := scale
		if w.ID == "two" {
			steps = pentatonic
		}
		list = append(list, Division{w, w.Regions(in, key.Tonic.Class(), steps)})
	}
	return list
}
