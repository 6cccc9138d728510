// Package score writes notes down.
//
// A Score is one guitar's line over a progression: each note with its onset and
// length in ticks, its spelled pitch, its place on the neck and how it is
// played. Engrave cuts the line into bars of written values, with ties, tuplets
// and rests, as staff and tablature both show it.
package score
