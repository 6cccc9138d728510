// Package record reads a recording as a player does who learns from it: where its beats fall, in which key it is, which
// chords sound in its bars, and what is played.
//
// What it is told was measured elsewhere (how strongly something begins, which half steps sound, which notes an ear heard);
// what it answers are guesses, each with its rivals and with what speaks for it. A player's word stands over every guess:
// beats that were tapped ([Grid]), chords that are known, notes that are settled.
package record
