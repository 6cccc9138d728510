// Package form lays chords out in time.
//
// A [Progression] is bars of chord changes on beats. Its text form is what a
// player would pencil: "| C7 | F7 | C7 G7 | % |". Numerals (I7, ♭VI7) say the
// same of every key; [Forms] and [Turnarounds] are written in them once and
// appear in all keys.
package form
