// Package edit holds what can be done to a line, as plain functions: find places
// on an instrument, lay it on another one, put a lick into it, make a change
// land, move it to another key. A [Line] is a score in the hand of a player.
//
// Nothing is dropped in silence: where a note cannot be placed, what is returned
// says so.
package edit
