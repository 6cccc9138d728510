// Package arpeggio lays one chord through one window of the neck.
//
// A [Run] takes every chord tone from the lowest that the hand can reach to the
// highest, not from the root, each pitch once, never going back a string.
package arpeggio
