// Package blend lays a palette over a chord.
//
// The minor pentatonic fits a whole blues and says nothing about it. Over each
// chord some of its notes rest, some colour, some want to move; and each chord
// has a tone or two that the box lacks and that are worth reaching for, by hand
// or by a bend. [Over] says which; [Bends] finds the bends.
package blend
