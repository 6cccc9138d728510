// Package midi writes and reads Standard MIDI Files.
//
// [Write] turns a performance into a file of format 1: a track of tempo, time
// signature and markers, then a track for each player. [Read] understands any
// file of format 0 or 1 with a tempo in ticks to the quarter, as far as Undaris
// needs: notes, programmes, names, markers, tempo and time signature.
package midi
