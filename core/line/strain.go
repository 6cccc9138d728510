package line

import "undaris/core/score"

// Enough is how many bends and beats of trills are enough for a hand, one after the other. It is a rule of ours, on the careful side:
// about three choruses of [undaris/core/practice]'s bends in tune.
const Enough = 60

// straining is how many notes in a hundred make a line a drill of it: an exercise frets each tone and bends to it, while a blues that bends
// much does so with two notes of five.
const straining = 48

// Strain lists the notes of a line that is a drill of bends or trills that strain a hand, by their index; nothing of another.
func Strain(s score.Score) (notes []int) {
	for i, n := range s.Notes {
		if n.Bend > 0 && !n.Again || n.Trill > 0 {
			notes = append(notes, i)
		}
	}
	if len(notes)*100 < straining*len(s.Notes) {
		return nil
	}
	return notes
}
