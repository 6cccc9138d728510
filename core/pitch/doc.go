// Package pitch spells notes.
//
// A note on paper is more than a key on a keyboard: the third of B7 is D♯,
// never E♭, because a third is two letters up. So a [Name] is a letter with an
// alteration, an [Interval] counts letters as well as half steps, and a [Pitch]
// is a name in an octave, with a MIDI number (A4 = 69 = 440 Hz).
package pitch
