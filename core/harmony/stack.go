package harmony

import "undaris/core/pitch"

// stacks names chords of thirds by their half steps above the root.
var stacks = map[[3]int]string{
	{4, 7, 0}: "", {3, 7, 0}: "m", {3, 6, 0}: "dim", {4, 8, 0}: "aug",
	{4, 7, 11}: "maj7", {4, 7, 10}: "7", {3, 7, 10}: "m7", {3, 6, 10}: "m7b5", {3, 6, 9}: "dim7", {3, 7, 11}: "mMaj7",
	{4, 8, 11}: "maj7#5", {4, 8, 10}: "7#5", {4, 6, 10}: "7b5",
}

// Stacked is the chord of three or four notes that stands on a step of a scale, from 0:
// every other note of the scale. ok is false where no chord is called so.
func Stacked(scale []pitch.Name, step, notes int) (c Chord, ok bool) {
	above := func(n int) int {
		return pitch.Class(scale[(step+n)%len(scale)].Class() - scale[step].Class())
	}
	key := [3]int{above(2), above(4), 0}
	if notes == 4 {
		key[2] = above(6)
	}
	suffix, ok := stacks[key]
	if !ok {
		return Chord{}, false
	}
	c, err := Parse(scale[step].String() + suffix)
	return c, err == nil
}
