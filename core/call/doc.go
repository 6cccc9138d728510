// Package call asks a player for what a diagram hides: a chord's tones from any of
// them, in either direction, on some strings, in some window; and turned round,
// which degree a place is over a chord, plain or bent, and how far it must be bent
// to become one.
package call
