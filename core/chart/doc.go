// Package chart is a progression as a player works on it: what the band plays,
// what the soloist imagines instead, what the player decided, and what all of it
// is on a neck: the map.
package chart
