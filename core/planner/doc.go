// Package planner keeps a measured picture of what a player can do, and makes of it
// what to practise next. What is asked (an [Ask]) draws on several skills at once:
// a key in a position, a degree in a direction, a kind of chord, a device, a tempo.
// Each has a strength with its uncertainty, fades, and is learned from how it went.
package planner
