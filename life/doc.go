// Package life fills the demo's database with what a band does in some weeks: takes with their sound, a set for an evening, a song
// with a pickup and an ending of its own, lines on other instruments, and a lesson with what came back of it. What a player would
// do by hand is done through the program itself.
package life
