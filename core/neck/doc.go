// Package neck knows where notes lie and what it costs the hand to reach them.
//
// Strings are numbered as guitarists number them, 1 the highest; fret 0 is the
// open string, or the capo when there is one. Distances are millimetres along
// the string, since a stretch of four frets is a different thing at the nut
// and at the octave.
package neck
