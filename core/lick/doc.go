// Package lick keeps phrases so that they can be moved.
//
// A Lick is rhythm, degrees and ways of playing over a chord, or over a key for
// the licks of a box. Realise lays it over a chord in a window of the neck, with
// fingers; Through sends it through a form, each version landing on the next
// chord; Fit makes a landing come true by the smallest edit; Reaim turns a box
// lick towards the chord tones of every change.
package lick
