// Package tabtext writes and reads tablature as plain text.
//
// A line of note values stands over the strings, so that the rhythm comes back
// too: w h q e s z from the whole note to the 1/32, a dot, 3 or 6 for tuplets, ~
// for a tie to the next, r before a rest. On the strings: h, p, / and \ before a
// fret for how it is reached, (6)/8 for a slide from nowhere, 7b9 for a bend to
// what fret 9 sounds and r behind it for its release, 7tr9 for a trill, x for a
// dead note, and the other signs of [undaris/core/score.Ways]. Text without values is read too; its rhythm is then guessed from where the
// frets stand.
package tabtext
